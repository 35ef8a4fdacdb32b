package capture

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/day"
)

// clause reads all tokens of a later clause as a field, or as several dates
// and times. It reports false where anything is left over. tails: the sentence
// has a repeat; more: the clause before ended with its weekdays, so that
// weekdays go on with them.
func (p *parser) clause(items []item, tails, more bool) ([]item, bool) {
	if len(p.tokens) == 0 || parted(p.tokens) {
		return items, false
	}
	for i := range p.tokens {
		if p.tokens[i].kind == quotedWord {
			return items, false
		}
	}
	for _, read := range []func(*parser) (item, bool){
		(*parser).priority, (*parser).person, (*parser).reminder, (*parser).estimate, (*parser).parked, (*parser).part24, (*parser).list,
	} {
		p.pos = 0
		if it, ok := read(p); ok && p.done() {
			it.span = p.span(0)
			return append(items, it), true
		}
	}
	p.pos = 0
	if more {
		it := item{kind: itemWeekdays, rule: &recurrence{}}
		if p.weekdays(it.rule) && p.done() {
			it.span = p.span(0)
			return append(items, it), true
		}
		p.pos = 0
	}
	return p.phrase(items, tails)
}

func (p *parser) priority() (item, bool) {
	named := p.take("priority")
	t := p.at(0)
	if !t.has(priorityish) || t.kind != plainWord {
		return item{}, false
	}
	p.pos++
	if !named {
		p.take("priority")
	}
	return item{kind: itemPriority, n: t.word.value}, true
}

func (p *parser) estimate() (item, bool) {
	p.take("takes")
	n, ok := p.minutes()
	return item{kind: itemEstimate, n: n}, ok
}

func (p *parser) parked() (item, bool) {
	return item{kind: itemPlan, parked: true}, p.take("parked")
}

// part24 reads "noon" or "midnight" alone in a clause.
func (p *parser) part24() (item, bool) {
	if !p.at(0).has(pointOfDay) {
		return item{}, false
	}
	return item{kind: itemTime, time: p.part()}, true
}

// list reads "in" and the name of a list, or the start of only one.
func (p *parser) list() (item, bool) {
	if !p.take("in") {
		return item{}, false
	}
	name, ok := find(p.names.Lists, p.words(), false)
	if !ok {
		return item{}, false
	}
	p.pos = len(p.tokens)
	return item{kind: itemList, name: name}, true
}

// person reads "ask", "with", "waiting on" or "for" and who.
func (p *parser) person() (item, bool) {
	it := item{kind: itemPerson}
	switch {
	case p.take("ask"), p.take("with"):
		it.role = Ask
	case p.take("waiting", "on"):
		it.role = WaitingOn
	case p.take("for"):
		it.role = For
	default:
		return item{}, false
	}
	name, ok := find(p.names.People, p.words(), true)
	if !ok {
		return item{}, false
	}
	it.name = name
	p.pos = len(p.tokens)
	return it, true
}

// words returns the text from the present token to the end of the clause.
func (p *parser) words() string {
	if p.done() {
		return ""
	}
	return p.text[p.tokens[p.pos].start:p.tokens[len(p.tokens)-1].end]
}

// reminder reads "remind me Thursday at 9:30", "remind me 1 hour before" and
// "10 min before".
func (p *parser) reminder() (item, bool) {
	it := item{kind: itemReminder}
	remind := p.take("remind", "me")
	from := p.pos
	if n, ok := p.ahead(); ok && p.take("before") {
		it.n, it.before = n, true
		return it, true
	}
	p.pos = from
	if !remind {
		return item{}, false
	}
	due, ok := p.due()
	if !ok || due.introduced && due.kind == itemDue && (p.tokens[from].is("by") || p.tokens[from].is("due")) {
		return item{}, false
	}
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
		rest, ok := foldPrefix(name, said)
		if ok && rest == "" {
			return name, true
		}
		if r, _ := utf8.DecodeRuneInString(rest); ok && (!words || !unicode.IsLetter(r) && !unicode.IsDigit(r)) {
			found = name
			matches++
		}
	}
	return found, matches == 1
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
