package capture

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// priority reads high, medium and low, and in a clause of its own other words for them.
func (p *parser) priority(own bool) (item, bool) {
	from := p.pos
	named := p.take("priority")
	low := own && p.take("not", "urgent")
	t := p.at(0)
	switch {
	case low:
		return item{kind: itemPriority, n: int(term.Low)}, true
	case t.kind != plainWord || !t.has(priorityish):
	case !own && t.capital, !own && t.is("important"), !own && t.is("asap"):
	default:
		p.pos++
		if !named && !p.take("priority") {
			p.take("prio")
		}
		return item{kind: itemPriority, n: t.word.value}, true
	}
	p.pos = from
	return item{}, false
}

// loudPriority reads what says by itself that it is a priority: asap, "high priority".
func (p *parser) loudPriority() (item, bool) {
	t := p.at(0)
	if t.kind != plainWord {
		return item{}, false
	}
	it := item{kind: itemPriority, introduced: true, n: int(term.High)}
	switch {
	case t.is("asap"):
		p.pos++
		return it, true
	case (t.has(priorityish) && !t.has(loud) || t.is("top")) && (p.at(1).is("priority") || p.at(1).is("prio")):
		if p.pos += 2; !t.is("top") {
			it.n = t.word.value
		}
		return it, true
	}
	return item{}, false
}

// estimate reads "20 min", "takes 2 hours", "about an hour", "~20 min" and "half an hour";
// in a clause of its own "20m" too.
func (p *parser) estimate(own bool) (item, bool) {
	from := p.pos
	p.take("takes")
	p.take("about")
	if t := p.at(0); p.pos == from && t.number >= 7 && t.number <= 12 && strings.TrimRight(t.rest, ".!?)") == "h" && !p.loose && !(own && len(p.tokens) == 1) {
		return item{}, false // 9h is a time as well
	}
	n, ok := p.minutes()
	if t := p.at(0); !ok && own && t.kind == plainWord && t.number > 0 && strings.TrimRight(t.rest, ".!?") == "m" {
		p.pos++
		n, ok = t.number, true
	}
	if !ok {
		p.pos = from
	}
	return item{kind: itemEstimate, n: n}, ok
}

func (p *parser) parked() (item, bool) {
	ok := p.take("parked") || p.take("someday") || p.take("some", "day")
	return item{kind: itemPlan, parked: true}, ok
}

// part24 reads "noon" or "midnight" alone in a clause.
func (p *parser) part24() (item, bool) {
	if !p.at(0).has(pointOfDay) {
		return item{}, false
	}
	return item{kind: itemTime, time: p.point()}, true
}

// list reads "in" and the name of a list, or in a clause of its own the start of only one.
// In a run the name has its own capitals.
func (p *parser) list(own bool) (item, bool) {
	from := p.pos
	if !p.take("in") {
		return item{}, false
	}
	name, ok := "", false
	if own {
		name, ok = p.name(p.names.Lists, false)
	} else {
		name, ok = p.exactName(p.names.Lists)
	}
	if !ok {
		p.pos = from
		return item{}, false
	}
	return item{kind: itemList, introduced: true, name: name}, true
}

// name reads the longest stretch of words that is a name, or the start of only one.
func (p *parser) name(names []string, whole bool) (string, bool) {
	from := p.pos
	for end := min(len(p.tokens), from+p.nameTokens()); end > from; end-- {
		if p.tokens[end-1].kind != plainWord {
			continue
		}
		p.pos = end
		if name, ok := find(names, p.words(from), whole); ok {
			return name, true
		}
	}
	p.pos = from
	return "", false
}

// exactName reads the longest stretch of words that is a name, with its capitals.
func (p *parser) exactName(names []string) (string, bool) {
	from := p.pos
	for p.pos = min(len(p.tokens), from+p.nameTokens()); p.pos > from; p.pos-- {
		if name := p.words(from); p.at(-1).kind == plainWord && slices.Contains(names, name) {
			return name, true
		}
	}
	return "", false
}

// nameTokens is how many tokens a name has at most.
func (p *parser) nameTokens() int {
	if p.longest == 0 {
		for _, names := range [][]string{p.names.Lists, p.names.People, p.names.Places} {
			for _, name := range names {
				p.longest = max(p.longest, strings.Count(name, " ")+1)
			}
		}
		p.longest = 2*p.longest + 2 // a quote or a sign may be one too
	}
	return p.longest
}

// person reads "ask", "with", "waiting on" or "for" and who.
func (p *parser) person() (item, bool) {
	from := p.pos
	it := item{kind: itemPerson}
	switch {
	case p.take("ask"), p.take("with"):
		it.role = term.Ask
	case p.take("waiting", "on"), p.take("waiting", "for"):
		it.role = term.WaitingOn
	case p.take("for"):
		it.role = term.For
	default:
		return item{}, false
	}
	name, ok := p.name(p.names.People, true)
	if !ok && p.take("the") {
		name, ok = p.name(p.names.People, true)
	}
	if !ok {
		p.pos = from
		return item{}, false
	}
	it.name = name
	return it, true
}

// words returns the text from a token on to before the present one, without what ends a
// sentence or a bracket.
func (p *parser) words(from int) string {
	if from >= p.pos {
		return ""
	}
	text := p.text[p.tokens[from].start:p.tokens[p.pos-1].end]
	if p.pos == len(p.tokens) {
		text = strings.TrimRight(text, ".!?)")
	}
	return text
}

// reminder reads "remind me Thursday at 9:30", "remind me 1 hour before",
// "10 min before" and "when I get to the museum".
func (p *parser) reminder() (item, bool) {
	it := item{kind: itemReminder}
	begun := p.pos
	remind := p.take("remind", "me") || p.take("ping", "me") || p.take("nudge", "me") || p.take("alert", "me")
	alone := !remind && p.take("alert") // alert 15 min before, and nothing else
	from := p.pos
	if remind && p.beside && p.done() && p.tokens[begun].is("remind") { // tomorrow 5pm remind me
		it.before = true
		return it, true
	}
	if edge, ok := p.edge(); ok && !alone {
		edge.introduced = remind
		return edge, true
	}
	p.pos = from
	if remind && p.take("the", "day", "before") {
		it.n, it.before = 24*60, true
		return it, true
	}
	if n, ok := p.ahead(); ok && p.take("before") {
		end := p.pos
		if _, dated := p.day(true); !dated || remind || alone { // "20 min before 4 December" is a length and a date
			p.pos = end
			it.n, it.before = n, true
			return it, true
		}
	}
	p.pos = from
	if !remind && !alone || p.at(0).is("me") {
		p.pos = begun
		return item{}, false
	}
	due, ok := p.due()
	if !ok || alone && (due.date == nil || due.date.form != inMinutes && due.time.none()) || due.introduced && due.kind == itemDue && (p.tokens[from].is("by") || p.tokens[from].is("due")) {
		p.pos = begun
		return item{}, false
	}
	it.introduced = true
	it.date, it.time = due.date, due.time
	return it, true
}

// ahead reads a length of minutes, hours, days or weeks.
func (p *parser) ahead() (int, bool) {
	from := p.pos
	if n, ok := p.minutes(); ok {
		return n, true
	}
	p.pos = from
	n, ok := p.count()
	if t := p.at(0); ok && t.has(unitWord) && (t.is("day") || t.is("week")) {
		p.pos++
		if n *= 24 * 60; t.is("week") {
			n *= 7
		}
		return n, n <= day.MaxBefore
	}
	return 0, false
}

// find looks a name up: the whole name, or the start of only one; words means
// that the start must end where a word does.
func find(names []string, said string, words bool) (string, bool) {
	if said == "" {
		return "", false
	}
	found, matches := "", 0
	for _, name := range names {
		whole, begins := beginsWith(name, said, words)
		if whole {
			return name, true
		}
		if begins {
			found = name
			matches++
		}
	}
	return found, matches == 1
}

// beginsWith reports whether a name is what was said, whatever its case, or begins with it;
// words means that what was said must end where a word does.
func beginsWith(name, said string, words bool) (whole, begins bool) {
	rest, ok := foldPrefix(name, said)
	if !ok || rest == "" {
		return ok, false
	}
	r, _ := utf8.DecodeRuneInString(rest)
	return false, !words || !unicode.IsLetter(r) && !unicode.IsDigit(r)
}

// foldPrefix returns what follows a prefix, whatever its case.
func foldPrefix(s, prefix string) (rest string, ok bool) {
	for _, want := range prefix {
		got, size := utf8.DecodeRuneInString(s)
		if size == 0 || got != want && unicode.ToLower(got) != unicode.ToLower(want) {
			return "", false
		}
		s = s[size:]
	}
	return s, true
}

// known returns a tag as it is written already, whatever its case.
func known(tags []string, said string) string {
	for _, tag := range tags {
		if strings.EqualFold(tag, said) {
			return tag
		}
	}
	return said
}
