package capture

import "time"

func (p *parser) thisOrNext() (*date, bool) {
	from := p.pos
	w := this
	if p.at(0).is("next") {
		w = next
	}
	p.pos++
	t := p.at(0)
	p.pos++
	switch {
	case t.has(weekdayWord):
		return &date{form: onWeekday, which: w, weekday: time.Weekday(t.word.value)}, true
	case t.is("weekend"):
		return &date{form: atWeekend, which: w}, true
	case t.has(unitWord) && (t.is("week") || t.is("month") || t.is("year")):
		if t.is("week") { // next week Thursday
			again := p.pos
			p.take("on")
			if u := p.at(0); u.kind == plainWord && u.has(weekdayWord) && !p.dayNumber(1) {
				p.pos++
				return &date{form: onWeekday, which: w, weekday: time.Weekday(u.word.value)}, true
			}
			p.pos = again
		}
		if w == next {
			return &date{form: ofNext, unit: t.word.value}, true
		}
		if !t.is("year") {
			return &date{form: ofThis, unit: t.word.value}, true
		}
	case w == this && t.has(partOfDay): // this afternoon
		p.pos--
		return &date{form: fromToday}, true
	}
	p.pos = from
	return nil, false
}

// dayBeside reads "the day before 20 December" and "the day after Christmas".
func (p *parser) dayBeside() (*date, bool) {
	if p.counting || p.pos == 0 || !p.at(-1).is("the") {
		return nil, false
	}
	p.counting = true
	defer func() { p.counting = false }()
	from := p.pos
	n := 1
	switch {
	case p.take("day", "before"):
		n = -1
	case p.take("day", "after"):
	default:
		return nil, false
	}
	base, ok := p.day(true)
	if !ok || base.form == ofThis || base.form == inMonth || base.form == inWeekOf || base.form == inMinutes {
		p.pos = from
		return nil, false
	}
	return &date{form: shifted, n: n, unit: day_, base: base}, true
}

// end reads "end of week", "end of the month", "end of next week".
func (p *parser) end() (*date, bool) {
	if !p.take("end", "of") {
		return nil, false
	}
	d := &date{form: atEnd}
	switch {
	case p.take("next"):
		d.which = next
	case p.take("this"), p.take("the"):
	}
	t := p.at(0)
	if t.kind == plainWord && t.has(monthWord) { // end of May
		p.pos++
		return &date{form: nthOf, n: -1, every: true, month: time.Month(t.word.value), year: p.year()}, true
	}
	if !t.has(unitWord) || t.is("day") || t.is("fortnight") {
		return nil, false
	}
	d.unit = t.word.value
	p.pos++
	return d, true
}

// afterThe reads "3rd", "3rd of December", "end of the month", "day after
// tomorrow", and after an introducer "weekend".
func (p *parser) afterThe(introduced bool) (*date, bool) {
	t := p.at(0)
	switch {
	case t.is("day"), t.is("end"), t.is("weekend") && introduced, t.has(ordinalWord):
		return p.day(true)
	case !t.ordinal() || !t.monthDay():
		return nil, false
	}
	d := &date{form: onNth, n: t.number}
	p.pos++
	if m, ok := p.ofMonth(d.n); ok {
		return m, true
	}
	again := p.pos
	p.take("of")
	if m := p.at(0); m.has(monthWord) {
		p.pos++
		d.form, d.month = onMonthDay, time.Month(m.word.value)
		d.year = p.year()
		return d.possible(), true
	}
	p.pos = again
	return d, true
}
