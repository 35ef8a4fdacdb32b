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
	longest  int  // tokens of the longest name, worked out when asked
	counting bool // a date that counts from another is being read
	loose    bool // what is read is only offered
	clause   bool // a clause of its own is being read
	beside   bool // a phrase of a date or a repeat stands before
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

// due reads a date, bare or after "by", "due" or "on", with a time before or
// after it; or a time alone.
func (p *parser) due() (item, bool) {
	it, ok := p.dueAlone()
	if ok && !p.take("at", "the", "latest") {
		p.take("latest")
	}
	return it, ok
}

// dueAlone is due without words that stand behind it.
func (p *parser) dueAlone() (item, bool) {
	from := p.pos
	it := item{kind: itemDue}
	on, before := false, false
	switch first := p.at(0); {
	case first.is("within"):
		return p.within()
	case first.is("by"), first.is("due"), first.is("no"), first.is("before"), first.is("on"):
		on = p.take("on")
		before = p.take("before") || p.take("due", "before")
		it.introduced = on || before || p.take("due", "by") || p.take("due", "on") || p.take("by") || p.take("due") || p.take("no", "later", "than")
	}
	if full, ok := p.fullMoment(); ok {
		return full, true
	}
	if d, ok := p.atThe(); ok {
		return item{kind: itemDue, introduced: true, date: d, time: p.timeAfter(d)}, true
	}
	if d, ok := p.endOfDay(it.introduced && !on); ok {
		return item{kind: itemDue, introduced: true, date: d}, true
	}
	if d, h, ok := p.hourOfPart(); ok && it.introduced && !on { // by 8 tomorrow evening
		it.date, it.time = d, h
		return it, true
	}
	if d, h, ok := p.hoursFirst(); ok {
		it.date, it.time = d, h
		return it, true
	}
	if h, ok := p.clock(it.introduced && !on); ok { // a time first
		it.time = h
		again := p.pos
		p.take("on")
		if d, ok := p.day(true); ok && it.time.at != (day.TimeOfDay{}) && d.form != inMinutes && d.form != ofThis && d.form != inWeekOf {
			it.date = d
			it.time = p.halfOf(d, it.time)
			return it, true
		}
		p.pos = again
		if on || p.at(-1).is("thing") {
			p.pos = from
			return item{}, false
		}
		it.kind = itemTime
		it.introduced = it.introduced || p.tokens[from].is("at")
		return it, true
	}
	d, ok := p.day(it.introduced)
	if !ok || d.form == ofThis || d.form == inWeekOf || d.comesRound && (!it.introduced || on) {
		p.pos = from
		return item{}, false
	}
	it.date = d
	it.introduced = it.introduced || d.form == inUnits || d.form == inMinutes
	if d.form == inMinutes {
		return it, !before
	}
	it.time = p.timeAfter(d)
	it.partOfDay = !it.time.none() && p.at(-1).has(partOfDay)
	if before && it.time.none() { // the day before it
		it.date = &date{form: shifted, n: -1, unit: day_, base: d}
	}
	return it, true
}

// within reads "within 3 weeks".
func (p *parser) within() (item, bool) {
	from := p.pos
	if p.take("within") {
		if n, ok := p.count(); ok && p.at(0).has(unitWord) {
			p.pos++
			return item{kind: itemDue, introduced: true, date: &date{form: inUnits, n: n, unit: p.at(-1).word.value}}, true
		}
	}
	p.pos = from
	return item{}, false
}

// hourOfPart reads "8 tomorrow evening": an hour of the part of the day that is named behind a date.
func (p *parser) hourOfPart() (*date, hour, bool) {
	from := p.pos
	t := p.at(0)
	if t.kind == plainWord && t.number >= 1 && t.number <= 12 && t.rest == "" {
		p.pos++
		p.take("on")
		if d, ok := p.day(true); ok && !d.wide() && d.form != inMinutes && p.at(0).kind == plainWord && p.at(0).has(partOfDay) {
			h := hour{at: clockFace(t.number % 12 * 60), half: true}
			return d, h.within(p.part()), true
		}
	}
	p.pos = from
	return nil, hour{}, false
}

// hoursFirst reads "15h Friday" and "14h30 on 3 December".
func (p *parser) hoursFirst() (*date, hour, bool) {
	from := p.pos
	if t := p.at(0); t.number >= 0 && t.kind == plainWord && strings.HasPrefix(t.rest, "h") {
		if h, ok := p.clock(true); ok {
			p.take("on")
			if d, ok := p.day(true); ok && !d.wide() && d.form != inMinutes {
				return d, h, true
			}
		}
	}
	p.pos = from
	return nil, hour{}, false
}

// endOfDay reads "end of day", "close of business", EOD and COB, today's or that of the day
// that follows. Without a word such as "by" the short forms need their capitals.
func (p *parser) endOfDay(introduced bool) (*date, bool) {
	from := p.pos
	t := p.at(0)
	switch {
	case introduced && (p.take("end", "of", "day") || p.take("close", "of", "business")):
	case (t.is("eow") || t.is("eom")) && t.text[:3] == strings.ToUpper(t.text[:3]) && (introduced || len(p.tokens) == p.pos+1):
		p.pos++
		d := &date{form: atEnd, unit: week_}
		if t.is("eom") {
			d.unit = month_
		}
		return d, true
	case t.is("eod") && (introduced || t.text == strings.ToUpper(t.text)):
		p.pos++
	default:
		return nil, false
	}
	if p.done() {
		return &date{form: fromToday}, true
	}
	again := p.pos
	p.take("on")
	if d, ok := p.day(true); ok && d.form != ofThis && d.form != inMinutes && d.form != inMonth {
		return d, true
	}
	if p.pos = again; introduced {
		return &date{form: fromToday}, true
	}
	p.pos = from
	return nil, false
}

// halfOf settles which half of a day a time means that came before "tonight" or
// "tomorrow evening".
func (p *parser) halfOf(d *date, h hour) hour {
	switch {
	case d.form == fromToday && d.n < 0: // tonight
		d.n, d.which = 0, this
		return h.later()
	case p.at(0).has(partOfDay):
		return h.within(p.part())
	}
	return h
}

// later is the second of the two times that an hour without am and pm could be.
func (h hour) later() hour {
	if minutes := h.at.Minutes(); h.half && minutes < 12*60 {
		h.at, _ = day.NewTimeOfDay(minutes/60+12, minutes%60)
	}
	h.half = false
	return h
}

// fullMoment reads a date and time in one word: 2026-11-27T16:00.
func (p *parser) fullMoment() (item, bool) {
	t := p.at(0)
	text := strings.Trim(t.text, "().!?")
	if t.number < 1000 || t.kind != plainWord || len(text) != 16 {
		return item{}, false
	}
	m, err := day.ParseMoment(strings.ToUpper(text))
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
		d.n, d.which = 0, this
		if h, ok := p.clock(true); ok {
			return h.within(atNight)
		}
		return p.partHour(atNight)
	}
	if h, ok := p.clock(true); ok {
		return p.halfOf(d, h)
	}
	switch from := p.pos; {
	case p.at(0).has(partOfDay) && p.at(0).kind == plainWord:
		part := p.part()
		if h, ok := p.clock(true); ok {
			return h.within(part)
		}
		return p.partHour(part)
	case p.take("at", "night"):
		return p.partHour(atNight)
	case p.take("am"):
		return p.partHour(inMorning)
	case p.take("pm"):
		return p.partHour(inAfternoon)
	case p.take("end", "of", "day"), p.take("close", "of", "business"), p.take("eod"):
	default:
		p.pos = from
	}
	return hour{}
}

// start reads "from", "starting" or "not before" and a date.
func (p *parser) start() (item, bool) {
	from := p.pos
	if !p.take("from") && !p.take("starting", "on") && !p.take("starting") && !p.take("not", "before") && !p.take("not", "till") &&
		!p.take("can't", "before") && !(p.clause && (p.take("start", "on") || p.take("start"))) {
		return item{}, false
	}
	p.take("in") // starting in May
	if !p.at(0).has(monthWord) && p.at(-1).is("in") {
		p.pos--
	}
	d, ok := p.day(true)
	if !ok || d.form == ofThis || d.form == inWeekOf || d.form == inMinutes || d.form == fromToday && d.n < 0 {
		p.pos = from
		return item{}, false
	}
	return item{kind: itemStart, introduced: true, date: d}, true
}

// dayForMinutes reads a day with a time and how long: "next Tuesday at 14:00 for 45 min".
func (p *parser) dayForMinutes() (item, bool) {
	ahead := false
	for n := 2; n < 10 && !ahead; n++ {
		ahead = p.at(n).is("for")
	}
	first := p.at(0)
	if !ahead || first.is("by") || first.is("due") || first.is("before") || first.is("no") || first.is("plan") {
		return item{}, false
	}
	from := p.pos
	due, ok := p.due()
	if ok && due.kind == itemDue && due.date != nil && due.date.form != inMinutes && !due.time.none() && p.take("for") {
		if minutes, ok := p.minutes(); ok {
			return item{kind: itemPlan, introduced: true, date: due.date, time: due.time, n: minutes}, true
		}
	}
	p.pos = from
	return item{}, false
}

// weekNumber reports whether "week 50" comes now, and not "week 20 min".
func (p *parser) weekNumber() bool {
	n := p.at(1)
	return p.at(0).is("week") && n.number >= 1 && n.number <= 53 && strings.TrimRight(n.rest, ".!?)") == "" && !p.at(2).has(minuteWord)
}

// plan reads "plan" and a date, a week, a month or "parked"; or "this week"
// and the like, or the name of a month, bare.
func (p *parser) plan() (item, bool) {
	from := p.pos
	it := item{kind: itemPlan}
	if p.dashAhead() {
		if slot, ok := p.slot(); ok {
			return slot, true
		}
	}
	if it, ok := p.dayForMinutes(); ok {
		return it, true
	}
	if p.take("over", "the", "weekend") {
		return item{kind: itemPlan, introduced: true, date: &date{form: atWeekend}}, true
	}
	p.take("sometime")
	if p.take("plan") {
		it.introduced = true
		if p.take("parked") {
			it.parked = true
			return it, true
		}
	}
	if p.take("in") { // in December
		it.introduced = true
		if m := p.at(0); !p.weekNumber() && (m.kind != plainWord || !m.has(monthWord) || p.dayNumber(1)) {
			p.pos = from
			return item{}, false
		}
	} else if it.introduced {
		p.take("on")
	}
	if p.weekNumber() {
		p.pos += 2
		return item{kind: itemPlan, introduced: true, date: &date{form: ofWeek, n: p.at(-1).number}}, true
	}
	d, ok := p.day(it.introduced)
	if ok && d.form == inMinutes {
		ok = false
	}
	if ok && d.form == inWeekOf {
		it.introduced = true
	}
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
