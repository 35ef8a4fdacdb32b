package capture

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Field phrases that a line begins with, before what is to be done.

// verbs are common verbs of to-dos: behind one a phrase at the start is no part of a name.
var verbs = func() map[string]bool {
	all := map[string]bool{}
	for _, verb := range strings.Fields(`
accept add address adjust agree air announce answer apologise apply approve arrange ask assemble assess assign attach attend audit
back bake bin bleach block boil book borrow bring brush build bury buy calculate calibrate call cancel carry catalogue catch celebrate change
charge chase check choose clarify clean clear climb close collect compare compile complete confirm congratulate consider contact cook copy correct
count cover create cut deal decide decorate defrost deliver deposit descale describe design dig disinfect discuss dispatch donate download draft draw drive drop
dry dust edit email empty enrol estimate evaluate examine exchange extend fasten feed fetch file fill film finalise find finish fit fix fold follow forward frame
freeze gather get give glue go grease greet grind hand hang harvest help hire hoover inform inspect install insure introduce invest investigate invite
invoice iron join keep label lay learn leave lend let light list load lock log lubricate mail make measure meet mend message mix move mow negotiate notify
observe offer oil open order organise outline pack paint pay peel phone photograph pick plan plant play polish post practise prepare present print process proofread
prune publish pump purchase push put rake reach read rearrange rebook reboot recharge reconcile record recycle refill refund register rehearse reimburse remember remind remove renew
rent repair repaint replace reply report repot request research reserve reset respond rest restart restock return review revise rewrite ring rinse run sand save scan schedule
scrub seal search see sell send separate serve service set settle sew share sharpen shop shorten show sign sing sketch soak solve sort speak split spray start
stitch store strip study submit subscribe summarise sweep swim switch take talk tell test text thank throw tidy tie top transfer translate transport treat trim try tune turn type
unblock unload unpack unsubscribe update upgrade upload vacuum varnish verify view visit wait walk wash watch water weed weigh wind wipe withdraw wrap write yoga
`) {
		all[verb] = true
	}
	return all
}()

// obliged are words behind "I", "we" and "you" that say what is to be done.
var obliged = map[string]bool{"need": true, "have": true, "must": true, "should": true, "ought": true}

// followers are words behind a verb which tell that it is one, where the word before could belong to a
// name: a determiner, a possessive or a particle. A number and a capital tell as much.
var followers = func() map[string]bool {
	all := map[string]bool{}
	for _, word := range strings.Fields("the a an this that these those some any all both each every no my our your his her its their me us them him it up off out back in on over down away through round around with to for at about") {
		all[word] = true
	}
	return all
}()

// opening reads field phrases from the first word on, as many as there are, and returns how many words they
// take. More of the first phrase are its time, its list and its end alone where parts is set.
func (p *parser) opening(words []token, parts bool) (items []item, n int) {
	repeats, timed := false, false
	for n < len(words)-1 && words[n].kind == plainWord && len(items) < 6 {
		p.tokens, p.pos = words[n:], 0
		p.beside = len(items) > 0
		it, ok := p.field(where{}, repeats, len(items) > 0)
		p.beside = false
		if !ok || p.done() || parted(words[n:n+p.pos]) || slices.ContainsFunc(words[n:n+p.pos], func(t token) bool { return strings.HasSuffix(t.text, ":") && t.kind == plainWord && t.number < 0 }) {
			break
		}
		time := it.kind == itemTime || it.kind == itemDue && !it.time.none()
		part := it.kind == itemTime || it.kind == itemList || it.kind == itemUntil || it.kind == itemPeriod || it.kind == itemCount || it.kind == itemLead || it.kind == itemWeekdays
		if time && timed || len(items) > 0 && parts && !part {
			break
		}
		timed = timed || time || it.kind == itemRepeat && !it.time.none()
		repeats = repeats || it.kind == itemRepeat
		it.span = p.span(0)
		items, n = append(items, it), n+p.pos
	}
	return items, n
}

// opened reads what a line begins with where a verb follows that tells it from a name: "Friday 3pm call
// Ines", "1h30 review the report".
func (p *parser) opened(words []token) ([]item, int) {
	words = closed(words)
	items, n := p.opening(words, false)
	if n == 0 || !counts(items) && !slices.ContainsFunc(items, func(it item) bool { return it.kind == itemEstimate }) || items[0].kind == itemList || items[0].kind == itemReminder ||
		words[0].is("from") || words[0].is("for") {
		return nil, 0
	}
	verb := &words[n]
	lower := strings.ToLower(verb.text)
	next := func(i int) *token {
		if n+i < len(words) && words[n+i].kind == plainWord {
			return &words[n+i]
		}
		return &nothing
	}
	if (lower == "i" || lower == "we" || lower == "you") && obliged[strings.ToLower(next(1).text)] {
		return items, n
	}
	if verb.kind != plainWord || !verbs[lower] || n+1 >= len(words) || lower == "remind" && next(1).is("me") {
		return nil, 0
	}
	if len(items) == 1 && items[0].short() {
		t := next(1)
		first, _ := utf8.DecodeRuneInString(t.text)
		if namesDay(words, n+1) || !followers[strings.ToLower(t.text)] && (t.number < 0 || t.rest != "") && !t.has(numberWord) && !unicode.IsUpper(first) && !strings.HasSuffix(t.bare(), "s'") && !strings.Contains(t.text, "'s") && !strings.Contains(t.text, "’s") {
			return nil, 0
		}
	}
	return items, n
}

// short reports whether a phrase is no more than a weekday, a month, a day and a month, or a word such as
// "weekly": many names begin so.
func (it *item) short() bool {
	if it.kind == itemRepeat {
		return !it.introduced // weekly
	}
	if it.date == nil || !it.time.none() || it.introduced {
		return false
	}
	switch it.date.form {
	case onWeekday:
		return it.date.which == coming
	case inMonth, onMonthDay, onNth, atWeekend:
		return true
	}
	return false
}
