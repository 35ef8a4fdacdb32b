package repeat

import (
	"math/bits"
	"time"

	"tincup/internal/core/day"
)

// pattern is a Rule made ready to be asked: what it leaves open is taken from
// the first date, and lists are sets of bits.
type pattern struct {
	rule  *Rule
	start day.Date
	// months has bit m set for month m; all where BYMONTH is not given.
	months uint16
	// domFrom and domBack have bit n set for BYMONTHDAY n and -n; byDOM tells
	// whether the part is there at all.
	domFrom, domBack uint32
	byDOM            bool
	// weekdays has bit w set for weekday w of BYDAY without a number.
	weekdays uint8
	byDay    bool
	numbered bool
	// byWeek has bit n set for BYWEEKNO n, weekBack for -n.
	byWeek, weekBack uint64
	byWeekNo         bool
	anyYearDay       bool
}

const allMonths = 0x1ffe

func compile(r *Rule, start day.Date) pattern {
	p := pattern{rule: r, start: start}
	_, month, dom := start.Civil()
	for _, m := range r.ByMonth {
		p.months |= 1 << m
	}
	for _, n := range r.ByMonthDay {
		p.byDOM = true
		if n > 0 {
			p.domFrom |= 1 << n
		} else {
			p.domBack |= 1 << -n
		}
	}
	for _, d := range r.ByDay {
		p.byDay = true
		if d.N == 0 {
			p.weekdays |= 1 << d.Day
		} else {
			p.numbered = true
		}
	}
	for _, n := range r.ByWeekNo {
		p.byWeekNo = true
		if n > 0 {
			p.byWeek |= 1 << n
		} else {
			p.weekBack |= 1 << -n
		}
	}
	p.anyYearDay = len(r.ByYearDay) > 0
	if !p.byDay && !p.byDOM && !p.anyYearDay {
		p.complete(r, month, dom)
	}
	if p.months == 0 {
		p.months = allMonths
	}
	return p
}

// complete takes from the first date what the rule leaves open.
func (p *pattern) complete(r *Rule, month time.Month, dom int) {
	switch {
	case r.Freq == Weekly || p.byWeekNo:
		p.byDay, p.weekdays = true, 1<<p.start.Weekday()
	case r.Freq == Monthly || r.Freq == Yearly:
		p.byDOM, p.domFrom = true, 1<<dom
		if r.Freq == Yearly && p.months == 0 {
			p.months = 1 << month
		}
	}
}

// next31 stands in a month's set for the first day of the month after it.
const next31 = 32

// days returns the days of a month that the BY parts other than BYSETPOS let
// through: bit n for day n, and bit next31 where SKIP moves one there.
func (p *pattern) days(year, month int) uint64 {
	if p.months>>month&1 == 0 {
		return 0
	}
	length := day.DaysIn(year, time.Month(month))
	whole := uint64(1)<<(length+1) - 2
	set := whole
	first, _ := day.NewDate(year, time.Month(month), 1)
	if p.byDOM {
		set = p.monthDays(length)
	}
	if p.anyYearDay {
		days := p.yearDays(year, first, length, month)
		if p.byDOM {
			days &= set
		}
		set = days
	}
	if set == 0 {
		return 0
	}
	if p.byWeekNo {
		set &= p.weeks(year, first, length)
	}
	if p.byDay {
		set &= p.weekdaysIn(year, first, length)
	}
	return set
}

func (p *pattern) monthDays(length int) uint64 {
	whole := uint64(1)<<(length+1) - 2
	set := uint64(p.domFrom) & whole
	if uint64(p.domFrom)&^whole != 0 {
		switch p.rule.Skip {
		case Backward:
			set |= 1 << length
		case Forward:
			set |= 1 << next31
		}
	}
	for back := p.domBack; back != 0; back &= back - 1 {
		if n := length + 1 - bits.TrailingZeros32(back); n > 0 {
			set |= 1 << n
		}
	}
	return set
}

func (p *pattern) yearDays(year int, first day.Date, length, month int) uint64 {
	var set uint64
	newYear, _ := day.NewDate(year, time.January, 1)
	before := first.Sub(newYear) // days of the year ahead of this month
	yearLength := daysInYear(year)
	for _, n := range p.rule.ByYearDay {
		if n < 0 {
			n += yearLength + 1
		}
		if n > yearLength && month == 12 {
			switch p.rule.Skip {
			case Backward:
				set |= 1 << length
			case Forward:
				set |= 1 << next31
			}
			continue
		}
		if n -= before; n >= 1 && n <= length {
			set |= 1 << n
		}
	}
	return set
}

// weeks returns the days of a month, and the one after, in weeks of BYWEEKNO.
// A week has the number of its fourth day, which lies in the year that the week
// belongs to. It counts in days from the first of January, not in dates, so
// that weeks across the ends of the calendar keep their numbers.
func (p *pattern) weeks(year int, first day.Date, length int) uint64 {
	var set uint64
	newYear, _ := day.NewDate(year, time.January, 1)
	before := first.Sub(newYear) // days of the year ahead of this month
	begin := -((int(first.Weekday()) - int(p.rule.WeekStart) + 7) % 7)
	for ; begin <= length; begin += 7 {
		if !p.weekNumbered(year, before+begin+3) {
			continue
		}
		for n := begin + 1; n <= begin+7; n++ {
			if n >= 1 && n <= length {
				set |= 1 << n
			} else if n == length+1 {
				set |= 1 << next31
			}
		}
	}
	return set
}

// weekNumbered reports whether BYWEEKNO names the week whose fourth day is that
// many days after 1 January of a year; it may lie in the year before or after.
func (p *pattern) weekNumbered(year, fourth int) bool {
	if fourth < 0 {
		year--
		fourth += daysInYear(year)
	} else if n := daysInYear(year); fourth >= n {
		year++
		fourth -= n
	}
	number := fourth/7 + 1
	weeks := number + (daysInYear(year)-1-fourth)/7
	return p.byWeek>>number&1 == 1 || p.weekBack>>(weeks+1-number)&1 == 1
}

func daysInYear(year int) int {
	if day.IsLeap(year) {
		return 366
	}
	return 365
}

// weekOf returns the first day of the week that holds d.
func weekOf(d day.Date, weekStart time.Weekday) day.Date {
	return d.AddDays(-(int(d.Weekday()) - int(weekStart) + 7) % 7)
}

// everySeventh is day 1 and those a week, two, three and four after it.
const everySeventh = 1<<1 | 1<<8 | 1<<15 | 1<<22 | 1<<29

// weekdaysIn returns the days that BYDAY names, bit next31 included. Numbers
// count within the month, or within the year for a yearly rule without
// BYMONTH.
func (p *pattern) weekdaysIn(year int, first day.Date, length int) uint64 {
	var set uint64
	at := int(first.Weekday())
	for w := range 7 {
		if p.weekdays>>w&1 == 1 {
			set |= everySeventh << ((w - at + 7) % 7)
		}
	}
	set &= 1<<(length+2) - 2
	// Day length+1 is the first of the next month.
	after := set >> (length + 1) & 1
	set = set&(1<<(length+1)-2) | after<<next31
	if !p.numbered {
		return set
	}
	begin, size := first, length
	if p.rule.Freq == Yearly && len(p.rule.ByMonth) == 0 {
		begin, _ = day.NewDate(year, time.January, 1)
		size = daysInYear(year)
	}
	for _, d := range p.rule.ByDay {
		if d.N == 0 {
			continue
		}
		if n := nth(begin, size, d) - first.Sub(begin); n >= 1 && n <= length {
			set |= 1 << n
		}
	}
	return set | p.numberedAfter(year, first, length)
}

// numberedAfter sees whether the first of the next month is a day that BYDAY
// numbers; only SKIP=FORWARD ever asks.
func (p *pattern) numberedAfter(year int, first day.Date, length int) uint64 {
	if p.rule.Skip != Forward {
		return 0
	}
	d := first.AddDays(length)
	nextYear, month, _ := d.Civil()
	begin, size := d, day.DaysIn(nextYear, month)
	if p.rule.Freq == Yearly && len(p.rule.ByMonth) == 0 {
		if nextYear != year { // New Year's Day
			begin, _ = day.NewDate(nextYear, time.January, 1)
		} else {
			begin, _ = day.NewDate(year, time.January, 1)
		}
		size = daysInYear(nextYear)
	}
	for _, want := range p.rule.ByDay {
		if want.N != 0 && begin.AddDays(nth(begin, size, want)-1) == d {
			return 1 << next31
		}
	}
	return 0
}

// nth returns which day of a stretch of size days is the N-th such weekday,
// counted from 1; 0 where there is none.
func nth(begin day.Date, size int, d NthDay) int {
	first := (int(d.Day)-int(begin.Weekday())+7)%7 + 1
	if d.N > 0 {
		if n := first + 7*(d.N-1); n <= size {
			return n
		}
		return 0
	}
	last := first + (size-first)/7*7
	return max(last+7*(d.N+1), 0)
}
