package capture

import (
	"slices"
	"strings"
	"time"

	"tincup/internal/core/repeat"
)

// repeat reads words that say how something comes round.
func (p *parser) repeat() (item, bool) {
	from := p.pos
	tried := recurrence{rule: repeat.Rule{Interval: 1, WeekStart: time.Monday}}
	if !p.comesRound(&tried) || !p.except(&tried) {
		p.pos = from
		return item{}, false
	}
	r := new(recurrence)
	*r = tried
	it := item{kind: itemRepeat, rule: r, introduced: !p.tokens[from].has(adverb)}
	if t := p.at(0); r.part == 0 && len(r.rule.ByDay) > 0 && t.kind == plainWord && t.has(partOfDay) { // every Thursday evening
		r.part = t.word.value
		p.pos++
	}
	if r.part > 0 {
		it.time = p.partHour(r.part)
		if h, ok := p.clock(true); ok {
			it.time = h.within(r.part)
		}
	}
	return it, true
}

// comesRound reads the words of a repeat, without what is said of it behind them.
func (p *parser) comesRound(r *recurrence) bool {
	return p.afterDone(r) || p.everySo(r) || p.ofTheMonth(r) || p.plurals(r) || p.adverb(r)
}

// ofTheMonth reads "on the 1st of every month", "first Monday of the month" and "last
// working day of each month".
func (p *parser) ofTheMonth(r *recurrence) bool {
	from := p.pos
	p.take("on")
	p.take("the")
	t := p.at(0)
	if !t.has(ordinalWord) && !t.ordinal() {
		p.pos = from
		return false
	}
	r.unit(month_, 1)
	working := false
	if n := t.word.value; t.has(ordinalWord) && p.at(1).is("working") && p.at(2).is("day") {
		p.pos += 3
		working = true
		r.rule.BySetPos = []int{n}
		for d := time.Monday; d <= time.Friday; d++ {
			r.addDay(repeat.NthDay{Day: d})
		}
	} else if !p.daysOfMonth(r) {
		p.pos = from
		return false
	}
	every := p.take("of", "every", "month") || p.take("of", "each", "month")
	if every || (working || len(r.rule.ByDay) > 0) && p.take("of", "the", "month") {
		return true
	}
	*r = recurrence{rule: repeat.Rule{Interval: 1, WeekStart: time.Monday}}
	p.pos = from
	return false
}

// except reads "except Sunday", "but not on weekends" behind days of the week, and leaves them out; false
// where it is not said which days those are.
func (p *parser) except(r *recurrence) bool {
	if !p.take("except", "for") && !p.take("except") && !p.take("but", "not") && !p.take("apart", "from") {
		return true
	}
	if r.rule.Freq == repeat.Daily && r.rule.Interval == 1 {
		r.unit(week_, 1)
		for d := range 7 { // from Monday on
			r.addDay(repeat.NthDay{Day: time.Weekday((d + 1) % 7)})
		}
	}
	p.take("on")
	var others recurrence
	weekends := p.take("weekends") || p.take("at", "weekends") || p.take("the", "weekend")
	if weekends {
		others.rule.ByDay = []repeat.NthDay{{Day: time.Saturday}, {Day: time.Sunday}}
	}
	if r.rule.Freq != repeat.Weekly || !weekends && !p.weekdays(&others) {
		return false
	}
	left := slices.DeleteFunc(slices.Clone(r.rule.ByDay), func(d repeat.NthDay) bool { return slices.Contains(others.rule.ByDay, d) })
	if len(left) == len(r.rule.ByDay) || len(left) == 0 {
		return false
	}
	r.rule.ByDay = left
	return true
}

// plurals reads "Wednesdays", "on Mondays and Thursdays", "weekdays" and "weekends".
func (p *parser) plurals(r *recurrence) bool {
	from := p.pos
	p.take("on")
	switch t := p.at(0); {
	case t.is("weekdays"):
		p.pos++
		r.workdays()
		return true
	case t.is("weekends"):
		p.pos++
		r.unit(week_, 1)
		r.rule.ByDay = []repeat.NthDay{{Day: time.Saturday}, {Day: time.Sunday}}
		return true
	case t.kind == plainWord && t.has(weekdayWord) && strings.HasSuffix(t.word.text, "days"):
		r.unit(week_, 1)
		return p.weekdays(r)
	}
	p.pos = from
	return false
}

// workdays are Monday to Friday.
func (r *recurrence) workdays() {
	r.unit(week_, 1)
	for d := time.Monday; d <= time.Friday; d++ {
		r.addDay(repeat.NthDay{Day: d})
	}
}

// afterDone reads "30 days after done".
func (p *parser) afterDone(r *recurrence) bool {
	from := p.pos
	p.take("every")
	n, ok := p.count()
	if t := p.at(0); ok && n > 0 && t.has(unitWord) {
		p.pos++
		if p.take("after", "done") {
			r.unit(t.word.value, n)
			r.anchor = repeat.Completion
			return true
		}
	}
	p.pos = from
	return false
}

// unit sets the frequency and interval.
func (r *recurrence) unit(unit, n int) {
	r.rule.Interval = n
	switch unit {
	case day_:
		r.rule.Freq = repeat.Daily
	case week_:
		r.rule.Freq = repeat.Weekly
	case month_:
		r.rule.Freq = repeat.Monthly
	case fortnight_:
		r.rule.Freq, r.rule.Interval = repeat.Weekly, 2*n
	case quarter_:
		r.rule.Freq, r.rule.Interval = repeat.Monthly, 3*n
	case year_:
		r.rule.Freq = repeat.Yearly
	}
	if n < 1 || r.rule.Interval > repeat.MaxInterval {
		r.wrong = true
	}
}

func (p *parser) adverb(r *recurrence) bool {
	t := p.at(0)
	if t.kind != plainWord || !t.has(adverb) {
		return false
	}
	a := adverbs[t.word.value]
	r.unit(a.unit, a.interval)
	p.pos++
	p.particulars(r)
	return true
}

// everySo reads "every" and what comes after it.
func (p *parser) everySo(r *recurrence) bool {
	from := p.pos
	alternate := p.take("alternate")
	if !alternate && !p.take("every") && !p.take("each") {
		return false
	}
	switch t := p.at(0); {
	case alternate && t.has(weekdayWord):
		r.unit(week_, 2)
		return p.weekdays(r)
	case alternate && t.has(unitWord):
		p.pos++
		r.unit(t.word.value, 2)
		return true
	case alternate:
		p.pos = from
		return false
	case t.is("weekday"):
		p.pos++
		r.workdays()
		return true
	case t.kind == plainWord && t.has(partOfDay) && t.word.value != inAfternoon:
		p.pos++
		r.unit(day_, 1)
		r.part = t.word.value
		return true
	case (t.is("second") || t.number == 2 && t.ordinal()) && p.at(1).kind == plainWord && p.at(1).has(weekdayWord) && !p.at(2).is("of"):
		p.pos++ // every second Tuesday: every two weeks
		r.unit(week_, 2)
		return p.weekdays(r)
	case t.is("weekend"):
		p.pos++
		r.unit(week_, 1)
		r.rule.ByDay = []repeat.NthDay{{Day: time.Saturday}, {Day: time.Sunday}}
		return true
	case t.has(weekdayWord):
		r.unit(week_, 1)
		return p.weekdays(r)
	}
	if p.yearlyOn(r, p.pos) {
		return true
	}
	again := p.pos
	if p.nthDay(r) { // every last Friday, every 1st of the month
		r.unit(month_, 1)
		if p.take("of", "the", "month") || p.take("of", "each", "month") || p.take("of", "every", "month") || len(r.rule.ByDay) > 0 {
			return true
		}
		r.rule.ByMonthDay = nil
	}
	p.pos = again
	n := 1
	if p.take("other") {
		n = 2
		if p.at(0).has(weekdayWord) { // every other Tuesday
			r.unit(week_, 2)
			return p.weekdays(r)
		}
	} else if many, ok := p.count(); ok {
		n = many
	}
	t := p.at(0)
	if t.kind != plainWord || !t.has(unitWord) {
		p.pos = from
		return false
	}
	p.pos++
	r.unit(t.word.value, n)
	p.particulars(r)
	return true
}

// weekdays reads "Monday", "Mon and Thu".
func (p *parser) weekdays(r *recurrence) bool {
	for first := true; ; first = false {
		again := p.pos
		if !first && !p.take("and") && !p.take("&") && !p.alsoWeekday() {
			return true
		}
		if !first {
			p.take("every")
		}
		t := p.at(0)
		if t.kind != plainWord || !t.has(weekdayWord) {
			p.pos = again
			return !first
		}
		p.pos++
		r.addDay(repeat.NthDay{Day: time.Weekday(t.word.value)})
	}
}

// alsoWeekday reports whether a weekday stands right behind another: "every mon wed fri".
// Small sat, sun and wed are days only behind a short form.
func (p *parser) alsoWeekday() bool {
	t, before := p.at(0), p.at(-1)
	return t.kind == plainWord && t.has(weekdayWord) && (!t.has(cautious) || t.capital || !strings.Contains(strings.ToLower(before.text), "day"))
}

func (r *recurrence) addDay(d repeat.NthDay) {
	r.rule.ByDay = append(r.rule.ByDay, d)
}

// particulars reads which days of the week, month or year.
func (p *parser) particulars(r *recurrence) {
	from := p.pos
	switch r.rule.Freq {
	case repeat.Weekly:
		if p.take("on") && p.weekdays(r) {
			return
		}
	case repeat.Monthly:
		if p.take("on") && p.daysOfMonth(r) {
			return
		}
	case repeat.Yearly:
		if p.take("on") && p.yearlyOn(r, p.pos) {
			return
		}
		p.pos = from
		if p.take("in") && p.at(0).has(monthWord) {
			r.rule.ByMonth = []int{p.at(0).word.value}
			p.pos++
			from = p.pos
			if p.take("on") && p.daysOfMonth(r) {
				return
			}
		}
	}
	p.pos = from
}

// daysOfMonth reads "the 3rd and 17th", "the last day", "the last Friday".
func (p *parser) daysOfMonth(r *recurrence) bool {
	if !p.nthDay(r) {
		return false
	}
	for {
		again := p.pos
		if !p.take("and") || !p.nthDay(r) {
			p.pos = again
			return true
		}
	}
}

// nthDay reads one of "the 3rd", "the last day", "2nd last Friday".
func (p *parser) nthDay(r *recurrence) bool {
	from := p.pos
	p.take("the")
	t := p.at(0)
	n := 0
	switch {
	case t.kind != plainWord:
	case t.has(ordinalWord):
		n = t.word.value
	case t.ordinal() && t.number >= 1 && t.number <= 31:
		n = t.number
	}
	if n == 0 {
		p.pos = from
		return false
	}
	p.pos++
	if n > 0 && p.take("last") {
		n = -n
	}
	u := p.at(0)
	switch {
	case u.kind == plainWord && u.has(weekdayWord) && n <= 5:
		p.pos++
		r.addDay(repeat.NthDay{N: n, Day: time.Weekday(u.word.value)})
	case u.is("day"):
		p.pos++
		r.rule.ByMonthDay = append(r.rule.ByMonthDay, n)
	case n > 0 && t.number > 0, n == 1 && u.is("of"): // the 1st, the first of every month
		r.rule.ByMonthDay = append(r.rule.ByMonthDay, n)
	default:
		p.pos = from
		return false
	}
	return true
}

// yearlyOn reads "14 March" or "March 14" as a day of every year.
func (p *parser) yearlyOn(r *recurrence, from int) bool {
	p.take("the")
	if t := p.at(0); t.monthDay() || t.has(monthWord) && p.at(1).monthDay() {
		if d, ok := p.day(true); ok && d.year == 0 && d.month > 0 && d.form != inMonth {
			r.unit(year_, max(r.rule.Interval, 1))
			r.rule.ByMonth, r.rule.ByMonthDay = []int{int(d.month)}, []int{d.n}
			r.wrong = r.wrong || d.form == neverIs
			return true
		}
	}
	p.pos = from
	return false
}

// tail reads what may follow a repeat: until when, how long, how often, how far
// ahead.
func (p *parser) tail() (item, bool) {
	from := p.pos
	switch t := p.at(0); {
	case p.take("until"):
		if d, ok := p.day(true); ok && d.form != ofThis && d.form != inWeekOf && d.form != inMinutes {
			if d.form == inMonth { // until its last day
				d = &date{form: nthOf, n: -1, every: true, month: d.month, year: d.year}
			}
			return item{kind: itemUntil, date: d}, true
		}
	case p.take("for"):
		if n, ok := p.count(); ok && n > 0 && p.at(0).has(unitWord) {
			p.pos++
			return item{kind: itemPeriod, n: n, unit: p.at(-1).word.value}, true
		}
	case p.take("once"):
		return item{kind: itemCount, n: 1}, true
	case p.take("twice"):
		return item{kind: itemCount, n: 2}, true
	case t.kind == plainWord && (t.number >= 0 || t.has(numberWord)):
		n, ok := p.count()
		if ok && p.take("times") {
			return item{kind: itemCount, n: n}, true
		}
		p.pos = from
		return p.lead()
	}
	p.pos = from
	return item{}, false
}

// lead reads "14 days ahead".
func (p *parser) lead() (item, bool) {
	from := p.pos
	n, ok := p.count()
	if t := p.at(0); ok && t.has(unitWord) && (t.is("day") || t.is("week")) {
		p.pos++
		if p.take("ahead") {
			if t.is("week") {
				n *= 7
			}
			return item{kind: itemLead, n: n}, true
		}
	}
	p.pos = from
	return item{}, false
}
