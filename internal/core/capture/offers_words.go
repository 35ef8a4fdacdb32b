package capture

import (
	"fmt"
	"strings"

	"tincup/internal/core/repeat"
)

// Offers of words that were left in the title.

// unoffered are words before a date that make it part of a name or of another time.
var unoffered = map[string]bool{"of": true, "the": true, "a": true, "an": true, "last": true, "since": true, "than": true}

// phrases offers the field phrases within a clause of the title.
func (o *offering) phrases(words []token) {
	for i := 0; i < len(words) && len(o.found) < MaxOffers; i++ {
		if o.isUsed(words[i].span()) {
			continue
		}
		if o.until(words, i) || o.soOften(words, i) {
			continue
		}
		s, ok := o.p.offered(words, i)
		if !ok || o.isUsed(s) {
			continue
		}
		said := strings.Trim(o.text[s.Start:s.End], "().!?")
		behind := i
		for behind < len(words) && words[behind].span().within(s) {
			behind++
		}
		// "for Friday" keeps its Friday, and so does "Friday or Saturday".
		if i > 0 && (words[i-1].has(dangling) || joins(&words[i-1])) || behind < len(words) && joins(&words[behind]) {
			o.add([]Span{s}, o.with(strings.TrimRight(o.text[:o.end], " ,"), said), true)
		} else {
			o.add([]Span{s}, o.with(o.without(s), said), false)
		}
	}
}

// hourOrLength offers "Friday 9h" as nine o'clock and as nine hours.
func (o *offering) hourOrLength(words []token) {
	for i := range words {
		t := &words[i]
		if t.kind != plainWord || t.number < 7 || t.number > 12 || strings.TrimRight(t.rest, ".!?)") != "h" {
			continue
		}
		for from := 0; from < i; from++ {
			p := &o.p
			p.tokens, p.pos = words[from:i], 0
			due, ok := p.due()
			if !ok || !p.done() || due.date == nil || !due.time.none() || words[from].kind != plainWord || from > 0 && words[from-1].has(article) {
				continue
			}
			s := Span{words[from].span().Start, t.span().End}
			date := o.text[s.Start:words[i-1].span().End]
			rest := o.without(s)
			o.add([]Span{s}, o.with(rest, fmt.Sprintf("%s %02d:00", date, t.number)), false)
			o.both = true
			o.add([]Span{s}, o.with(rest, fmt.Sprintf("%s, %d hours", date, t.number)), false)
			o.both = false
			return
		}
	}
}

// onceOrMonthly offers "first of the month" as the next one and as every month's.
func (o *offering) onceOrMonthly(words []token) {
	for i := 0; i+3 < len(words); i++ {
		t, n := &words[i], words[i].number
		if t.has(ordinalWord) {
			n = t.word.value
		}
		if t.kind != plainWord || n < 1 || n > 31 || !t.has(ordinalWord) && !t.ordinal() || !words[i+1].is("of") || !words[i+2].is("the") || !words[i+3].is("month") {
			continue
		}
		from := i
		for from > 0 && (words[from-1].is("the") || words[from-1].is("on")) {
			from--
		}
		s := Span{words[from].span().Start, words[i+3].span().End}
		if (from > 0 && words[from-1].has(dangling)) || o.isUsed(s) {
			continue
		}
		rest := o.without(s)
		o.add([]Span{s}, o.with(rest, fmt.Sprintf("by the %s of the month", repeat.Ordinal(n))), false)
		o.both = true
		o.add([]Span{s}, o.with(rest, fmt.Sprintf("every month on the %s", repeat.Ordinal(n))), false)
		o.both = false
		return
	}
}

// daysAhead offers "6d" and "2w" at the end of a clause as that far ahead.
func (o *offering) daysAhead(words []token) {
	if len(words) < 2 {
		return
	}
	t := &words[len(words)-1]
	p := parser{tokens: words[len(words)-1:]}
	if n, _, ok := p.shortSpan(); ok && n > 0 && !words[len(words)-2].has(dangling) {
		said := strings.Trim(o.text[t.start:t.end], "().!?")
		o.add([]Span{t.span()}, o.with(o.without(t.span()), "in "+said), false)
	}
}

// joins reports whether a word joins two of a kind.
func joins(t *token) bool { return t.text == "and" || t.text == "or" || t.text == "&" }

// offered finds the phrase at a word that may be offered.
func (p *parser) offered(words []token, at int) (Span, bool) {
	t := &words[at]
	if t.kind != plainWord || t.number < 0 && t.word.text == "" {
		return Span{}, false
	}
	if at > 0 {
		switch before := &words[at-1]; {
		case unoffered[strings.ToLower(before.text)], before.is("every"), before.is("each"), changers[before.bare()]:
			return Span{}, false
		case t.has(weekdayWord) && dayNames[strings.ToLower(before.text)]: // Good Friday
			return Span{}, false
		}
	}
	p.tokens, p.pos = words[at:], 0
	it, ok := p.field(where{}, false, true)
	if !ok && at > 0 && !words[at-1].has(dangling) {
		it, ok = p.estimate(true) // 20m, which may be metres
	}
	if !ok || parted(words[at:at+p.pos]) {
		return Span{}, false
	}
	s := p.span(0)
	switch it.kind {
	case itemPriority, itemEstimate, itemList:
		if p.done() {
			break
		}
		// At the end of a title, more of them may follow.
		p.tokens, p.pos = p.tokens[p.pos:], 0
		if len(p.tokens) > suffixWords {
			return Span{}, false
		}
		if _, rest := p.run(nil, where{}); !rest {
			return Span{}, false
		}
	case itemPlan, itemStart:
		if it.date != nil && it.date.form == inMonth && !it.introduced {
			return Span{}, false
		}
	}
	return s, true
}

// until offers "until Friday" without a repeat as a start.
func (o *offering) until(words []token, at int) bool {
	if !words[at].is("until") || o.before.Repeat != nil {
		return false
	}
	p := &o.p
	p.tokens, p.pos = words[at:], 1
	d, ok := p.day(true)
	if !ok || d.form == ofThis || d.form == inWeekOf || d.form == inMinutes || parted(p.tokens[:p.pos]) {
		return false
	}
	s, date := p.span(0), p.span(1)
	return o.add([]Span{s}, o.with(o.without(s), "not before "+strings.Trim(o.text[date.Start:date.End], "().!?")), false)
}

// soOften offers "twice a week", "three times a month" and "biweekly": on which days, or
// which of its two meanings, is asked first.
func (o *offering) soOften(words []token, at int) bool {
	if o.before.Repeat != nil || at == 0 && len(words) == 1 {
		return false
	}
	p := &o.p
	p.tokens, p.pos = words[at:], 0
	asks := ""
	switch t := p.at(0); {
	case t.kind != plainWord:
		return false
	case t.is("biweekly"):
		p.pos++
		asks = "every two weeks, or twice a week"
	case t.is("bimonthly"):
		p.pos++
		asks = "every two months, or twice a month"
	default:
		if !p.take("once") && !p.take("twice") {
			if n, ok := p.count(); !ok || n < 1 || !p.take("times") {
				return false
			}
		}
		if a := p.at(0); a.has(adverb) && !a.is("daily") {
			p.pos++
			asks = "on which days"
			break
		}
		if !p.take("a") && !p.take("per") && !p.take("every") && !p.take("each") || !p.at(0).has(unitWord) || p.at(0).is("day") {
			return false
		}
		p.pos++
		asks = "on which days"
	}
	s := p.span(0)
	rest := o.without(s)
	if read := Read(rest, *o.env); read.Title == "" || parted(words[at:at+p.pos]) {
		return false
	}
	o.used = append(o.used, s)
	o.found = append(o.found, Offer{Field: FieldRepeat, Words: o.text[s.Start:s.End], Spans: []Span{s}, Value: asks, Choose: true, Without: rest})
	return true
}

// dateWithTime offers a date that stays words together with a time that may belong to it: "Friday call
// Ines at 3pm", "notes for 3 December, 15:00".
func (o *offering) dateWithTime() {
	if o.begins.End == 0 {
		return
	}
	date, at := o.begins, o.beginsAt
	spans := []Span{date, at}
	if at.Start < date.Start {
		spans = []Span{at, date}
	}
	rest := o.without(spans...)
	if o.leans(date) {
		rest = o.without(at)
	}
	clause := strings.Trim(o.text[date.Start:date.End], "().!?:,") + " " + strings.Trim(o.text[at.Start:at.End], "().!?")
	o.both = Read("x, "+clause, *o.env).Repeat != nil         // which gives the due its day
	if strings.HasSuffix(strings.ToLower(clause), "before") { // Friday, remind me 1 hour before
		o.both = true
		clause = strings.Trim(o.text[date.Start:date.End], "().!?:,") + ", " + strings.Trim(o.text[at.Start:at.End], "().!?")
	}
	o.add(spans, o.with(rest, clause), false)
	o.both = false
}

// leans reports whether the words around a phrase want it: those of "for Friday" and of "Friday or
// Saturday".
func (o *offering) leans(s Span) bool {
	for i := range o.tokens {
		switch t := &o.tokens[i]; {
		case t.span().End <= s.Start && i+1 < len(o.tokens) && o.tokens[i+1].span().Start >= s.Start:
			if t.kind == plainWord && (t.has(dangling) || joins(t)) {
				return true
			}
		case t.span().Start >= s.End:
			return t.kind == plainWord && joins(t)
		}
	}
	return false
}

// reminder offers one where "remind me to" is said without a date.
func (o *offering) reminder() {
	if o.remind.End == 0 || len(o.before.Reminders) > 0 {
		return
	}
	when := "today"
	now := o.env.Clock.Now.In(o.env.Clock.Zone)
	if now.Hour()*60+now.Minute() >= o.env.Settings.reminderHour().Minutes() {
		when = "tomorrow"
	}
	o.add([]Span{o.remind}, o.with(strings.TrimRight(o.text[:o.end], " ,"), "remind me "+when), true)
}

// names offers a clause that names a list or a person nobody has yet, or a start that
// several names have. Where the clause begins the line, a person's words stay in the title.
func (o *offering) names(words []token, begins bool) {
	if len(words) < 2 || words[0].kind != plainWord {
		return
	}
	p := &o.p
	p.tokens, p.pos = words, 0
	n, ok := p.naming()
	if !ok {
		return
	}
	s := Span{words[0].span().Start, words[len(words)-1].span().End}
	intro := o.text[s.Start:words[n.at].span().Start] // "waiting on the ", as it was typed
	rest := o.without(s)
	if begins && n.kind == itemPerson {
		if o.before.Person.Name != "" {
			return
		}
		rest = strings.TrimRight(o.text[:o.end], " ,")
	}
	some := p.choices(n)
	for _, name := range some {
		o.add([]Span{s}, o.with(rest, intro+name), false)
	}
	if len(some) == 0 && p.unknown(n) {
		o.add([]Span{s}, o.with(rest, intro+n.said+" (new)"), false)
	}
}
