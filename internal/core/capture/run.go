package capture

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// where tells what may stand in a run of field phrases.
type where struct {
	// clause: the run is a clause of its own, in which every field may be named.
	clause bool
	// tails: the sentence has a repeat, whose ends may stand alone.
	tails bool
	// more: the clause before ended with its weekdays, so that weekdays go on with them.
	more bool
}

// run reads all tokens as field phrases in any order, each the longest that its words form.
func (p *parser) run(items []item, w where) ([]item, bool) {
	begun := len(items)
	if len(p.tokens) == 0 {
		return items, false
	}
	repeats := w.tails
	p.clause = w.clause
	defer func() { p.clause = false }()
	for !p.done() {
		if p.at(0).kind != plainWord {
			return items[:begun], false
		}
		from := p.pos
		p.beside = slices.ContainsFunc(items[begun:], func(it item) bool { return it.kind == itemDue || it.kind == itemRepeat || it.kind == itemPlan })
		it, ok := p.field(w, repeats, len(items) > begun)
		p.beside = false
		if !ok || parted(p.tokens[from:p.pos]) { // a tag stands between two phrases, and in none
			return items[:begun], false
		}
		it.span = p.span(from)
		if it.kind == itemTime && len(items) > begun && items[len(items)-1].kind == itemStart && !repeats {
			return items[:begun], false // a start has no time
		}
		if it.kind == itemTime && !it.introduced && len(items) > begun && items[len(items)-1].kind == itemDue && !items[len(items)-1].time.none() {
			return items[:begun], false // two times are no run
		}
		repeats = repeats || it.kind == itemRepeat
		items = append(items, it)
		if it.kind == itemReminder && it.before && p.at(0).is("and") { // 1 hour before and 1 day before
			again := p.pos
			p.pos++
			if also, ok := p.reminder(); ok && also.before {
				also.span = p.span(again)
				items = append(items, also)
			} else {
				p.pos = again
			}
		}
	}
	return items, len(items) > begun
}

// field reads the longest phrase that stands at the present token. behind: another field
// phrase of the run stands before it.
func (p *parser) field(w where, repeats, behind bool) (item, bool) {
	from := p.pos
	if w.more && from == 0 { // "every Tue, Thu at 8am": Thu is one of them, and no date
		it := item{kind: itemWeekdays, rule: &recurrence{}}
		if p.weekdays(it.rule) {
			return it, true
		}
		p.pos = from
	}
	if w.clause && from == 0 {
		if it, ok := p.newcomer(); ok {
			return it, true
		}
	}
	if w.clause && from == 0 { // a list by its full name, which wins over what else it may mean
		p.pos = len(p.tokens)
		if name := p.words(0); slices.Contains(p.names.Lists, name) {
			return item{kind: itemList, introduced: true, name: name}, true
		}
		p.pos = from
	}
	var best item
	end := from
	try := func(it item, ok bool) {
		if ok && p.pos > end {
			best, end = it, p.pos
		}
		p.pos = from
	}
	opens := p.at(0).opens()
	if opens&opensRepeat != 0 {
		try(p.repeat())
	}
	if opens&opensTail != 0 && repeats {
		try(p.tail())
	}
	if opens&opensStart != 0 {
		try(p.start())
	}
	if opens&opensDate != 0 {
		it, ok := p.plan()
		// A time range without a day is today's: only a clause of its own, or "at", says so much.
		dayless := it.kind == itemPlan && it.date == nil && it.n > 0 && !w.clause && !p.loose && !repeats && !p.tokens[from].is("at")
		if ok && dayless { // save beside a repeat
			end := p.pos
			_, dayless = p.repeat()
			dayless, p.pos = !dayless, end
		}
		try(it, ok && !dayless)
		try(p.due())
	}
	if opens&opensReminder != 0 {
		try(p.reminder())
	}
	if opens&opensEstimate != 0 {
		try(p.estimate(w.clause))
	}
	if opens&opensList != 0 {
		try(p.list(w.clause))
	}
	if opens&opensPriority != 0 {
		if w.clause || behind || p.at(0).is("urgent") {
			try(p.priority(w.clause))
		}
		try(p.loudPriority())
	}
	if opens&opensPerson != 0 && w.clause {
		try(p.person())
	}
	if opens&opensOwn != 0 && w.clause {
		try(p.ownWord())
	}
	if opens&opensParked != 0 {
		try(p.parked())
	}
	if opens&opensParked != 0 && w.clause {
		try(p.part24())
	}
	p.pos = end
	return best, end > from
}

// counts reports whether a run at the end of a title holds what lets it be read: a date, a
// time, a repeat or a reminder, or a priority that says so itself.
func counts(run []item) bool {
	for i := range run {
		switch run[i].kind {
		case itemDue, itemTime, itemStart, itemPlan, itemRepeat, itemReminder, itemUntil, itemPeriod, itemCount:
			return true
		case itemPriority:
			if run[i].introduced {
				return true
			}
		}
	}
	return false
}

// bareMonth reports whether a run names a month without a word such as "in": at the end of a
// title that may be a name.
func bareMonth(run []item) bool {
	return slices.ContainsFunc(run, func(it item) bool {
		return it.kind == itemPlan && !it.introduced && it.date != nil && it.date.form == inMonth
	})
}

// askers open a clause that asks or sets a condition: a date in it is part of what is asked.
var askers = map[string]bool{"who": true, "what": true, "when": true, "where": true, "why": true, "whether": true, "how": true,
	"if": true, "unless": true, "once": true, "that": true, "which": true}

// dayNames are words that make a name of the weekday behind them.
var dayNames = map[string]bool{"black": true, "good": true, "ash": true, "easter": true, "shrove": true, "whit": true,
	"boxing": true, "palm": true, "holy": true, "maundy": true, "cyber": true, "pancake": true, "casual": true, "super": true}

// changers are words that change the phrase behind them, which is read with them or not at all.
var changers = map[string]bool{"twice": true, "thrice": true, "times": true, "alternate": true, "except": true, "not": true, "commencing": true, "w/c": true}

// guarded reports whether the words before a run keep its first phrase in the title.
func guarded(words []token, from int, first *item) bool {
	if from == 0 {
		return false
	}
	before := &words[from-1]
	if before.has(article) || !first.introduced && before.has(dangling) {
		return true
	}
	if n := before.number; n >= 1 && n <= 12 && before.rest == "" && before.kind == plainWord && first.partOfDay && from > 1 { // a table for 5 Friday evening
		return true
	}
	if changers[before.bare()] { // twice daily, all days except Sunday
		return true
	}
	if (first.date != nil || first.kind == itemTime) && before.setsDate() { // by Tuesday at 14:00 for 45 min
		return true
	}
	t := &words[from]
	// A series of weekdays, and a time behind a weekday that was not read ("sat 11am").
	if before.has(weekdayWord) && (t.has(weekdayWord) || first.kind == itemTime) {
		return true
	}
	if !first.introduced && (t.ratio() || t.is("the") && before.capital && from > 1 && from+1 < len(words) && words[from+1].ordinal()) { // Richard the 3rd
		return true
	}
	// Good Friday, good friday; but "Make it good Friday".
	named := first.date == nil || first.date.form == onWeekday
	if named && t.has(weekdayWord) && before.capital == t.capital && dayNames[strings.ToLower(before.text)] {
		return true
	}
	if deadline := t.is("by") || t.is("due") || t.is("before"); !deadline && slices.ContainsFunc(words[:from], func(w token) bool { return askers[strings.ToLower(w.text)] }) {
		return true
	}
	return !first.introduced && entitled(words, from)
}

// titled are verbs behind which capitalised words may be the title of a work.
var titled = map[string]bool{"read": true, "watch": true, "play": true, "see": true, "learn": true, "sing": true, "practise": true, "practice": true,
	"borrow": true, "download": true, "listen": true}

// entitled reports whether a run of capitalised words at the end belongs to a title: "Watch Tomorrow",
// "Practise Ruby Tuesday".
func entitled(words []token, from int) bool {
	for i := from; i < len(words); i++ {
		if r, _ := utf8.DecodeRuneInString(words[i].text); !unicode.IsUpper(r) {
			return false
		}
	}
	for i := from - 1; i >= 0; i-- {
		lower := strings.ToLower(words[i].text)
		if titled[lower] || lower == "to" && i > 0 && strings.EqualFold(words[i-1].text, "listen") {
			return true
		}
		if r, _ := utf8.DecodeRuneInString(words[i].text); !unicode.IsUpper(r) {
			return false
		}
	}
	return false
}

// setsDate reports whether a word introduces the date behind it.
func (t *token) setsDate() bool {
	return slices.ContainsFunc([]string{"by", "due", "before", "until", "till", "since", "after", "from"}, t.is)
}

// ratio reports whether a day and month in figures could be a size or a ratio: 3/4, 24/7.
func (t *token) ratio() bool {
	text := strings.Trim(t.text, "().!?:")
	a, b, ok := strings.Cut(text, "/")
	small := func(s string) bool { return len(s) == 1 || s == "10" || s == "11" || s == "12" }
	return text == "24/7" || ok && small(a) && small(b) && isDigit(a[0]) && isDigit(b[0])
}

// bracketed reports whether brackets round a run of words stand in pairs.
func bracketed(words []token) bool {
	open := 0
	for i := range words {
		open += strings.Count(words[i].text, "(") - strings.Count(words[i].text, ")")
	}
	return open == 0
}

// suffix reads the field phrases at the end of a title's clause, the longest run of them.
// It returns from which word on. A phrase that may not be read is not read in part. late:
// another clause of the title follows, and only a deadline, or a date with its time, counts.
func (p *parser) suffix(items []item, words []token, leaves func(from int) bool, late bool) ([]item, int, bool) {
	begun := len(items)
	for from := max(len(words)-suffixWords, 0); from < len(words); from++ {
		t := &words[from]
		if t.kind != plainWord || t.number < 0 && t.word.text == "" && !p.listBegins(words[from:]) {
			continue
		}
		p.tokens, p.pos = words[from:], 0
		var ok bool
		if !leaves(from) { // a phrase that would leave no title is not read in part either
			if items, ok = p.run(items, where{}); ok && counts(items[begun:]) {
				return items[:begun], 0, false
			}
			items = items[:begun]
			continue
		}
		if items, ok = p.run(items, where{}); !ok || !bracketed(words[from:]) {
			items = items[:begun]
			continue
		}
		first := &items[begun]
		deadline := first.kind == itemDue && (words[from].is("by") || words[from].is("due") || words[from].is("before") ||
			first.date != nil && !first.time.none())
		switch {
		case !counts(items[begun:]), late && !deadline, bareMonth(items[begun:]):
			items = items[:begun]
			continue
		case guarded(words, from, first):
			items = items[:begun]
			p.pos = 0
			noun := words[from].is("plan") && words[from-1].has(article)
			if _, ok := p.field(where{}, false, false); ok && !noun {
				from += p.pos - 1 // none of its words is read as something smaller
			}
			continue
		}
		return items, from, true
	}
	return items[:begun], 0, false
}

// listBegins reports whether words begin with "in" and a name.
func (p *parser) listBegins(words []token) bool { return words[0].is("in") && len(words) > 1 }
