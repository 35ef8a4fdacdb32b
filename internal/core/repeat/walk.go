package repeat

import (
	"math/bits"
	"time"

	"tincup/internal/core/day"
)

// onOrAfter returns the first date of the pattern that is not before d nor
// before the start; none where there is none to the end of the calendar.
func (p *pattern) onOrAfter(d day.Date) day.Date {
	if d.Before(p.start) {
		d = p.start
	}
	switch p.rule.Freq {
	case Daily:
		return p.nextDay(d)
	case Weekly:
		return p.nextWeek(d)
	case Monthly:
		return p.nextMonth(d)
	}
	return p.nextYear(d)
}

// up rounds n up to a multiple of step, down rounds it down; n is not negative.
func up(n, step int) int   { return (n + step - 1) / step * step }
func down(n, step int) int { return n / step * step }

// after adds days; none where that leaves the calendar.
func after(d day.Date, days int) day.Date {
	if days > day.MaxDate.Sub(d) {
		return day.Date{}
	}
	return d.AddDays(days)
}

// Days

// holdsOn asks the BY parts of a daily rule about one day.
func (p *pattern) holdsOn(d day.Date) bool {
	if p.byDay && p.weekdays>>d.Weekday()&1 == 0 {
		return false
	}
	if p.months == allMonths && !p.byDOM {
		return true
	}
	year, month, dom := d.Civil()
	if p.months>>month&1 == 0 {
		return false
	}
	if !p.byDOM {
		return true
	}
	back := day.DaysIn(year, month) + 1 - dom
	return p.domFrom>>dom&1 == 1 || p.domBack>>back&1 == 1
}

// single reports whether BYSETPOS lets the only member of a day's set through.
func (p *pattern) single() bool {
	if len(p.rule.BySetPos) == 0 {
		return true
	}
	for _, pos := range p.rule.BySetPos {
		if pos == 1 || pos == -1 {
			return true
		}
	}
	return false
}

func (p *pattern) nextDay(d day.Date) day.Date {
	if !p.single() {
		return day.Date{}
	}
	step := p.rule.Interval
	d = after(p.start, up(d.Sub(p.start), step))
	for !d.IsZero() && !p.holdsOn(d) {
		move := step
		if year, month, _ := d.Civil(); p.months>>month&1 == 0 {
			next := nextMonthIn(p.months, year, int(month))
			if next.IsZero() {
				return next
			}
			move = up(next.Sub(p.start), step) - d.Sub(p.start)
		}
		d = after(d, move)
	}
	return d
}

// nextMonthIn returns the first day of the next month of the set.
func nextMonthIn(months uint16, year, month int) day.Date {
	for range 12 {
		month++
		if month > 12 {
			year, month = year+1, 1
		}
		if months>>month&1 == 1 {
			d, err := day.NewDate(year, time.Month(month), 1)
			if err != nil {
				return day.Date{}
			}
			return d
		}
	}
	return day.Date{}
}

// Weeks

// week returns the days of the week that begins on a date, bit i for i days
// after it.
func (p *pattern) week(begin day.Date) uint8 {
	var set uint8
	for i := range 7 {
		if w := (int(p.rule.WeekStart) + i) % 7; p.weekdays>>w&1 == 0 {
			continue
		}
		if p.months != allMonths {
			if _, month, _ := begin.AddDays(i).Civil(); p.months>>month&1 == 0 {
				continue
			}
		}
		set |= 1 << i
	}
	if len(p.rule.BySetPos) == 0 {
		return set
	}
	return uint8(p.pick(uint64(set)))
}

// pick keeps the members of a set that BYSETPOS names.
func (p *pattern) pick(set uint64) uint64 {
	var kept uint64
	n := bits.OnesCount64(set)
	for _, pos := range p.rule.BySetPos {
		if pos < 0 {
			pos += n + 1
		}
		if pos >= 1 && pos <= n {
			kept |= member(set, pos)
		}
	}
	return kept
}

// member returns the n-th bit of a set alone, counted from 1.
func member(set uint64, n int) uint64 {
	for ; n > 1; n-- {
		set &= set - 1
	}
	return set & -set
}

func (p *pattern) nextWeek(d day.Date) day.Date {
	first := weekOf(p.start, p.rule.WeekStart)
	weeks := up(d.Sub(first)/7, p.rule.Interval)
	for begin := after(first, 7*weeks); !begin.IsZero(); begin = after(begin, 7*p.rule.Interval) {
		set := p.week(begin)
		if late := d.Sub(begin); late > 0 {
			set = set >> late << late
		}
		if set != 0 {
			return after(begin, bits.TrailingZeros8(set))
		}
		if p.months != allMonths { // go over the months that are left out at once
			year, month, _ := begin.AddDays(6).Civil()
			if p.months>>month&1 == 1 {
				continue
			}
			next := nextMonthIn(p.months, year, int(month))
			if next.IsZero() {
				return next
			}
			skipped := down(max(weekOf(next, p.rule.WeekStart).Sub(begin)/7-1, 0), p.rule.Interval)
			begin = begin.AddDays(7 * skipped)
		}
	}
	return day.Date{}
}

// Months

// monthIndex counts months from January of the year 0.
func monthIndex(d day.Date) int {
	year, month, _ := d.Civil()
	return year*12 + int(month) - 1
}

// monthly returns the days of one month of a monthly rule.
func (p *pattern) monthly(index int) uint64 {
	set := p.days(index/12, index%12+1)
	if len(p.rule.BySetPos) > 0 {
		set = p.pick(set)
	}
	return set
}

const lastMonth = 9999*12 + 11

func (p *pattern) nextMonth(d day.Date) day.Date {
	first := monthIndex(p.start)
	for i := first + up(max(p.reach(d)-first, 0), p.rule.Interval); i <= lastMonth; i += p.rule.Interval {
		if found := firstIn(p.monthly(i), i, d); !found.IsZero() {
			return found
		}
	}
	return day.Date{}
}

// reach returns the first month that may hold a date not before d: that of d,
// or the one before it where SKIP moves days forward.
func (p *pattern) reach(d day.Date) int {
	i := monthIndex(d)
	if p.rule.Skip == Forward {
		i--
	}
	return i
}

// firstIn returns the first date of a month's set that is not before d.
func firstIn(set uint64, index int, d day.Date) day.Date {
	for ; set != 0; set &= set - 1 {
		if found := dateIn(bits.TrailingZeros64(set), index); !found.Before(d) {
			return found
		}
	}
	return day.Date{}
}

// dateIn returns a day of a month; none past the end of the calendar.
func dateIn(dom, index int) day.Date {
	year, month := index/12, time.Month(index%12+1)
	if dom == next31 {
		dom = day.DaysIn(year, month)
		last, _ := day.NewDate(year, month, dom)
		return after(last, 1)
	}
	d, _ := day.NewDate(year, month, dom)
	return d
}

// Years

// yearly returns the days of each month of one year of a yearly rule.
func (p *pattern) yearly(year int) [13]uint64 {
	var sets [13]uint64
	total := 0
	for m := 1; m <= 12; m++ {
		sets[m] = p.days(year, m)
		if sets[m]&(1<<1) != 0 { // a day moved forward to the same date is no second one
			sets[m-1] &^= 1 << next31
		}
	}
	for _, set := range sets {
		total += bits.OnesCount64(set)
	}
	if len(p.rule.BySetPos) == 0 {
		return sets
	}
	var kept [13]uint64
	for _, pos := range p.rule.BySetPos {
		if pos < 0 {
			pos += total + 1
		}
		if pos < 1 {
			continue
		}
		for m := 1; m <= 12; m++ {
			n := bits.OnesCount64(sets[m])
			if pos <= n {
				kept[m] |= member(sets[m], pos)
				break
			}
			pos -= n
		}
	}
	return kept
}

func (p *pattern) nextYear(d day.Date) day.Date {
	first, _, _ := p.start.Civil()
	reach := p.reach(d)
	for year := first + up(max(reach/12-first, 0), p.rule.Interval); year <= 9999; year += p.rule.Interval {
		if found := p.firstInYear(year, reach, d); !found.IsZero() {
			return found
		}
	}
	return day.Date{}
}

func (p *pattern) firstInYear(year, reach int, d day.Date) day.Date {
	from := max(reach-year*12, 0) + 1
	if len(p.rule.BySetPos) > 0 {
		sets := p.yearly(year)
		for m := from; m <= 12; m++ {
			if found := firstIn(sets[m], year*12+m-1, d); !found.IsZero() {
				return found
			}
		}
		return day.Date{}
	}
	for m := from; m <= 12; m++ {
		if p.months>>m&1 == 0 {
			continue
		}
		if found := firstIn(p.days(year, m), year*12+m-1, d); !found.IsZero() {
			return found
		}
	}
	return day.Date{}
}
