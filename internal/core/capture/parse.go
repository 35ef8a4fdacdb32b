package capture

import (
	"strings"

	"tincup/internal/core/day"
)

// parser reads the tokens of one clause. Its methods move on where they find
// what they look for, and stay where they do not.
type parser struct {
	text     string
	tokens   []token
	pos      int
	settings Settings
	names    *Names
}

// at returns the token n places on; a token of no meaning past the end.
func (p *parser) at(n int) *token {
	if p.pos+n < len(p.tokens) {
		return &p.tokens[p.pos+n]
	}
	return &nothing
}

var nothing = newToken(quotedWord, 0, 0, "")

func (p *parser) done() bool { return p.pos >= len(p.tokens) }

// take moves over the words given, if they all come now.
func (p *parser) take(words ...string) bool {
	for i, w := range words {
		if !p.at(i).is(w) {
			return false
		}
	}
	p.pos += len(words)
	return true
}

// span covers the tokens from one on to the present one.
func (p *parser) span(from int) Span {
	return Span{p.tokens[from].span().Start, p.tokens[p.pos-1].span().End}
}

// phrase reads all tokens as words for dates, times and repeats, and nothing
// else. tails allows what may only follow a repeat, alone.
func (p *parser) phrase(items []item, tails bool) ([]item, bool) {
	begun := len(items)
	repeats := tails
	for !p.done() {
		from := p.pos
		it, ok := p.dated(repeats)
		if !ok {
			return items[:begun], false
		}
		it.span = p.span(from)
		if it.kind == itemTime && len(items) > begun && items[len(items)-1].kind == itemStart && !repeats {
			return items[:begun], false // a start has no time
		}
		repeats = repeats || it.kind == itemRepeat
		items = append(items, it)
	}
	return items, len(items) > begun
}

// dated reads one thing said of dates.
func (p *parser) dated(repeats bool) (item, bool) {
	if it, ok := p.repeat(); ok {
		return it, true
	}
	if repeats {
		if it, ok := p.tail(); ok {
			return it, true
		}
	}
	if it, ok := p.start(); ok {
		return it, true
	}
	if it, ok := p.plan(); ok {
		return it, true
	}
	return p.due()
}

// due reads a date, bare or after "by", "due" or "on", with a time before or
// after it; or a time alone.
func (p *parser) due() (item, bool) {
	from := p.pos
	it := item{kind: itemDue}
	on := false
	switch {
	case p.take("due", "by"), p.take("due", "on"), p.take("by"), p.take("due"):
		it.introduced = true
	case p.take("on"):
		it.introduced, on = true, true
	}
	if full, ok := p.fullMoment(); ok {
		return full, true
	}
	if d, ok := p.atThe(); ok {
		return item{kind: itemDue, introduced: true, date: d, time: p.timeAfter(d)}, true
	}
	if h, ok := p.clock(it.introduced && !on); ok { // a time first
		it.time = h
		again := p.pos
		p.take("on")
		if d, ok := p.day(true); ok && it.time.at != (day.TimeOfDay{}) {
			it.date = d
			return it, true
		}
		p.pos = again
		if on {
			p.pos = from
			return item{}, false
		}
		it.kind = itemTime
		it.introduced = it.introduced || p.tokens[from].is("at")
		return it, true
	}
	d, ok := p.day(it.introduced)
	if !ok || d.form == ofThis || d.form == inWeekOf {
		p.pos = from
		return item{}, false
	}
	it.date = d
	it.introduced = it.introduced || d.form == inUnits
	it.time = p.timeAfter(d)
	return it, true
}

// fullMoment reads a date and time in one word: 2026-11-27T16:00.
func (p *parser) fullMoment() (item, bool) {
	t := p.at(0)
	if t.number < 1000 || t.kind != plainWord || len(t.text) != 16 {
		return item{}, false
	}
	m, err := day.ParseMoment(strings.ToUpper(t.text))
	if err != nil {
		return item{}, false
	}
	p.pos++
	return item{kind: itemDue, introduced: true, date: &date{form: exact, on: m.Date}, time: hour{at: m.Time}}, true
}

// atThe reads "at the end of the month" and "at the weekend".
func (p *parser) atThe() (*date, bool) {
	from := p.pos
	if p.take("at") {
		if d, ok := p.day(true); ok && (d.form == atEnd || d.form == atWeekend) {
			return d, true
		}
	}
	p.pos = from
	return nil, false
}

// timeAfter reads the time that follows a date, if one does.
func (p *parser) timeAfter(d *date) hour {
	if d.form == fromToday && d.n < 0 { // tonight
		d.n = 0
		at, _ := day.NewTimeOfDay(20, 0)
		d.which = this
		if h, ok := p.clock(true); ok {
			return h
		}
		return hour{at: at}
	}
	if h, ok := p.clock(true); ok {
		return h
	}
	if p.at(0).has(partOfDay) {
		return p.part()
	}
	return hour{}
}

func (p *parser) part() hour {
	minutes := p.at(0).word.value
	p.pos++
	at, _ := day.NewTimeOfDay(minutes/60, minutes%60)
	return hour{at: at}
}

// start reads "from", "starting" or "not before" and a date.
func (p *parser) start() (item, bool) {
	from := p.pos
	if !p.take("from") && !p.take("starting", "on") && !p.take("starting") && !p.take("not", "before") {
		return item{}, false
	}
	d, ok := p.day(true)
	if !ok || d.form == ofThis || d.form == inWeekOf || d.form == fromToday && d.n < 0 {
		p.pos = from
		return item{}, false
	}
	return item{kind: itemStart, introduced: true, date: d}, true
}

// plan reads "plan" and a date, a week, a month or "parked"; or "this week"
// and the like, or the name of a month, bare.
func (p *parser) plan() (item, bool) {
	from := p.pos
	it := item{kind: itemPlan}
	if p.take("plan") {
		it.introduced = true
		if p.take("parked") {
			it.parked = true
			return it, true
		}
		p.take("on")
	}
	d, ok := p.day(it.introduced)
	if ok && !it.introduced && d.form != ofThis && d.form != inMonth && (d.form != ofNext || d.unit != week_ && d.unit != month_) {
		ok = false
	}
	if !ok {
		p.pos = from
		return item{}, false
	}
	it.date = d
	if d.form == ofThis || d.form == ofNext || d.form == inMonth || d.form == inWeekOf {
		return it, true
	}
	it.time = p.timeAfter(d)
	if it.time.none() {
		return it, true
	}
	again := p.pos
	if p.take("for") {
		if minutes, ok := p.minutes(); ok {
			it.n = minutes
		} else {
			p.pos = again
		}
	}
	return it, true
}
