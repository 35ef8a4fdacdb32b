package capture

import (
	"strings"
	"time"

	"tincup/internal/core/day"
)

// day reads words for a date. introduced: a word such as "by" came before, so
// that "sat" can only be a day.
func (p *parser) day(introduced bool) (*date, bool) {
	from := p.pos
	d, ok := p.dayOfAnyYear(introduced)
	if ok && d.year == noYear {
		p.pos = from
		return nil, false
	}
	return d, ok
}

// dayOfAnyYear is day where the year may be noYear.
func (p *parser) dayOfAnyYear(introduced bool) (*date, bool) {
	t := p.at(0)
	if t.kind != plainWord {
		return nil, false
	}
	if d, ok := p.shifted(); ok {
		return d, true
	}
	if t.number == 2 && t.rest == "moro" { // as tomorrow is written in messages
		p.pos++
		return &date{form: fromToday, n: 1}, true
	}
	if t.number >= 0 {
		return p.numeric()
	}
	if d, ok := p.nthOf(); ok {
		return d, true
	}
	if rest, ok := foldPrefix(t.text, "mid-"); ok {
		if m := vocabulary[strings.ToLower(strings.TrimRight(rest, ".!?:"))]; m != nil && m.class&monthWord != 0 {
			p.pos++
			return &date{form: onMonthDay, n: 15, month: time.Month(m.value), year: p.year()}, true
		}
	}
	if t.has(cautious) && !introduced && !t.capital && !p.dayNumber(1) && !p.timedWeekday() {
		return nil, false
	}
	switch {
	case t.has(weekdayWord) && !(strings.HasSuffix(t.word.text, "days") && !introduced):
		return p.weekday()
	case t.has(monthWord):
		return p.month()
	}
	from := p.pos
	switch t.word.text {
	case "today":
		p.pos++
		return &date{form: fromToday}, true
	case "tonight":
		p.pos++
		return &date{form: fromToday, n: -1}, true
	case "tomorrow":
		p.pos++
		return &date{form: fromToday, n: 1}, true
	case "weekend":
		p.pos++
		return &date{form: atWeekend}, true
	case "day":
		if p.take("day", "after", "tomorrow") {
			return &date{form: fromToday, n: 2}, true
		}
		if d, ok := p.dayBeside(); ok {
			return d, true
		}
	case "this", "next":
		return p.thisOrNext()
	case "week", "w/c":
		if d, ok := p.weekHolding(); ok {
			return d, true
		}
	case "mid":
		p.pos++
		if m := p.at(0); m.kind == plainWord && m.has(monthWord) {
			p.pos++
			return (&date{form: onMonthDay, n: 15, month: time.Month(m.word.value), year: p.year()}).possible(), true
		}
	case "christmas":
		if introduced {
			p.pos++
			return &date{form: onMonthDay, n: 25, month: time.December}, true
		}
	case "easter":
		if introduced && !(p.at(1).kind == plainWord && p.at(1).has(weekdayWord)) {
			p.pos++
			return &date{form: easterDay, year: p.year()}, true
		}
	case "new":
		if introduced && (p.take("new", "year") || p.take("new", "year's")) {
			p.take("day")
			return &date{form: onMonthDay, n: 1, month: time.January}, true
		}
	case "in":
		p.pos++
		again := p.pos
		if n, ok := p.minutes(); ok {
			return &date{form: inMinutes, n: n}, true
		}
		p.pos = again
		if n, unit, ok := p.shortSpan(); ok { // in 12d
			return &date{form: inUnits, n: n, unit: unit}, true
		}
		if n, ok := p.count(); ok && p.at(0).has(unitWord) {
			unit := p.at(0).word.value
			p.pos++
			p.take("time") // in two weeks' time
			return &date{form: inUnits, n: n, unit: unit}, true
		}
	case "end":
		if d, ok := p.end(); ok {
			return d, true
		}
	case "the":
		p.pos++
		if d, ok := p.afterThe(introduced); ok {
			return d, true
		}
	}
	p.pos = from
	return nil, false
}

// timedWeekday reports whether small "sat", "sun" or "wed" is a day: a time stands behind it, or it is all
// of a clause.
func (p *parser) timedWeekday() bool {
	if !p.at(0).has(weekdayWord) {
		return false
	}
	if p.clause && len(p.tokens) == 1 {
		return true
	}
	from := p.pos
	p.pos++
	_, ok := p.clock(true)
	p.pos = from
	return ok
}

// weekHolding reads "week commencing 7 December", "w/c Monday", "week ending 11 December" and "week of
// 7 December": the ISO week that holds the date.
func (p *parser) weekHolding() (*date, bool) {
	from := p.pos
	if p.counting || !p.take("w/c") && !p.take("week", "commencing") && !p.take("week", "beginning") && !p.take("week", "ending") && !p.take("week", "of") {
		return nil, false
	}
	p.counting = true
	defer func() { p.counting = false }()
	p.take("the")
	p.take("on")
	base, ok := p.day(true)
	if !ok || base.wide() || base.form == inMinutes {
		p.pos = from
		return nil, false
	}
	return &date{form: inWeekOf, base: base}, true
}

// shortSpan reads "12d" and "2w".
func (p *parser) shortSpan() (n, unit int, ok bool) {
	t := p.at(0)
	if t.kind != plainWord || t.number < 0 {
		return 0, 0, false
	}
	switch strings.TrimRight(t.rest, ".!?)") {
	case "d":
		unit = day_
	case "w":
		unit = week_
	default:
		return 0, 0, false
	}
	p.pos++
	return t.number, unit, true
}

// shifted reads "2 weeks before 15 January", "3 days after Christmas", "two weeks from
// now", "a week on Tuesday" and "a week today".
func (p *parser) shifted() (*date, bool) {
	if p.counting { // one date counts from another, and no further
		return nil, false
	}
	p.counting = true
	defer func() { p.counting = false }()
	from := p.pos
	n, ok := p.count()
	unit := p.at(0)
	if !ok || unit.kind != plainWord || !unit.has(unitWord) {
		p.pos = from
		return nil, false
	}
	p.pos++
	d := &date{form: shifted, n: n, unit: unit.word.value}
	switch {
	case p.take("from", "now"), p.take("from", "today"):
		d.base = &date{form: fromToday}
		return d, true
	case p.at(0).is("today"), p.at(0).is("tomorrow"):
	case n == 1 && unit.is("week") && p.at(0).kind == plainWord && p.at(0).has(weekdayWord): // a week Friday
	case p.take("before"):
		d.n = -n
	case p.take("after"), p.take("from"), unit.is("week") && p.take("on"):
	default:
		p.pos = from
		return nil, false
	}
	if d.base, ok = p.day(true); !ok || d.base.form == ofThis || d.base.form == inMonth || d.base.form == inWeekOf || d.base.form == inMinutes {
		p.pos = from
		return nil, false
	}
	return d, true
}

// nthOf reads "first Monday of June", "last day of the month" and "last working day of
// May".
func (p *parser) nthOf() (*date, bool) {
	from := p.pos
	t := p.at(0)
	if !t.has(ordinalWord) {
		return nil, false
	}
	d := &date{form: nthOf, n: t.word.value}
	p.pos++
	switch u := p.at(0); {
	case u.kind == plainWord && u.has(weekdayWord):
		d.weekday = time.Weekday(u.word.value)
		p.pos++
	case p.take("working", "day"), p.take("weekday"):
		d.every, d.working = true, true
	case p.take("day"):
		d.every = true
	default:
		if m, ok := p.ofMonth(d.n); ok {
			return m, true
		}
		p.pos = from
		return nil, false
	}
	if !p.take("of") && !p.take("in") {
		p.pos = from
		return nil, false
	}
	switch m := p.at(0); {
	case p.take("next", "month"):
		d.which = next
	case p.take("this", "month"):
		d.which = this
	case p.take("the", "month"):
		d.comesRound = !d.every || d.working
	case m.kind == plainWord && m.has(monthWord):
		p.pos++
		d.month, d.year = time.Month(m.word.value), p.year()
	default:
		p.pos = from
		return nil, false
	}
	return d, true
}

// ofMonth reads "of the month", "of this month" and "of next month" behind the n-th of it: "by the first of
// the month", "before the 3rd of next month".
func (p *parser) ofMonth(n int) (*date, bool) {
	switch {
	case p.take("of", "the", "month"):
		if n > 0 {
			return &date{form: onNth, n: n, comesRound: true}, true
		}
		return &date{form: nthOf, n: n, every: true}, true
	case p.take("of", "this", "month"):
		return &date{form: nthOf, n: n, every: true, which: this}, true
	case p.take("of", "next", "month"), p.take("of", "the", "next", "month"):
		return &date{form: nthOf, n: n, every: true, which: next}, true
	}
	return nil, false
}

// monthDay reports whether the token is a number such as a month's day.
func (t *token) monthDay() bool {
	return t.number > 0 && t.number <= 31 && (t.rest == "" || t.ordinal())
}

func (t *token) ordinal() bool {
	switch strings.TrimRight(t.rest, ".!?:") {
	case "st", "nd", "rd", "th":
		return true
	}
	return false
}

// count reads how many: digits, a word to twelve, or "a".
func (p *parser) count() (int, bool) {
	t := p.at(0)
	switch {
	case t.number >= 0 && t.rest == "" && t.number < 10_000:
		p.pos++
		return t.number, true
	case t.has(numberWord):
		p.pos++
		return t.word.value, true
	case t.is("a") && p.at(1).is("couple") && p.at(2).is("of"):
		p.pos += 3
		return 2, true
	case t.is("a"), t.is("an"):
		p.pos++
		return 1, true
	}
	return 0, false
}

func (p *parser) weekday() (*date, bool) {
	d := &date{form: onWeekday, weekday: time.Weekday(p.at(0).word.value)}
	from := p.pos
	p.pos++
	// "Fri 27 Nov 2026": the date decides, the weekday is checked.
	if t := p.at(0); t.number > 0 || t.has(monthWord) && p.dayNumber(1) {
		if full, ok := p.day(true); ok && (full.form == onMonthDay || full.form == exact) {
			full.weekday, full.checked = d.weekday, true
			return full, true
		}
	}
	p.pos = from + 1
	if p.at(0).is("week") && !p.weekNumber() { // Tuesday week
		p.pos++
		return &date{form: shifted, n: 1, unit: week_, base: d}, true
	}
	if p.at(0).is("in") && !p.counting { // Friday in two weeks
		p.pos++
		if n, ok := p.count(); ok && p.at(0).has(unitWord) && (p.at(0).is("week") || p.at(0).is("fortnight")) {
			unit := p.at(0).word.value
			p.pos++
			p.take("time")
			return &date{form: weekdayIn, weekday: d.weekday, base: &date{form: inUnits, n: n, unit: unit}}, true
		}
		p.pos = from + 1
	}
	if !p.take("of") { // Friday of next week
		p.take("in")
	}
	switch {
	case p.take("next", "week"):
		d.which = next
		return d, true
	case p.take("this", "week"):
		d.which = this
		return d, true
	}
	p.pos = from + 1
	if p.take("the") { // Friday the 27th
		if t := p.at(0); t.ordinal() && t.monthDay() {
			p.pos++
			return &date{form: onNth, n: t.number, weekday: d.weekday, checked: true}, true
		}
		p.pos = from + 1
	}
	return d, true
}

// month reads "Nov 30", "Nov 30 2027" or a month alone, with its year.
func (p *parser) month() (*date, bool) {
	month := time.Month(p.at(0).word.value)
	p.pos++
	if p.at(0).is("the") && p.at(1).ordinal() && p.at(1).monthDay() { // December the 3rd
		p.pos++
	}
	if p.dayNumber(0) {
		d := &date{form: onMonthDay, n: p.at(0).number, month: month}
		p.pos++
		d.year = p.year()
		return d.possible(), true
	}
	return &date{form: inMonth, month: month, year: p.year()}, true
}

// dayNumber reports whether the token n places on is the day of a month, and not a number
// of minutes or days ("in December 20 min"), nor a day of the month behind it.
func (p *parser) dayNumber(n int) bool {
	behind := p.at(n + 1)
	return p.at(n).monthDay() && !behind.has(monthWord) && behind.text != "of" && (p.at(n).ordinal() || !behind.has(minuteWord|unitWord))
}

// year reads four digits.
func (p *parser) year() int {
	switch t := p.at(0); {
	case t.kind != plainWord || t.rest != "":
	case t.number >= 1000 && t.number <= 9999:
		p.pos++
		return t.number
	case t.number > 9999:
		p.pos++
		return noYear
	}
	return 0
}

// noYear is a year that no date has here: dates end with the year 9999.
const noYear = 10_000

// possible sees whether any year has such a day, or the one that was said.
func (d *date) possible() *date {
	most := 31
	if d.year > 0 && d.year != noYear {
		most = day.DaysIn(d.year, d.month)
	} else {
		most = day.DaysIn(2024, d.month) // a leap year
	}
	if d.n > most {
		d.form = neverIs
	}
	return d
}
