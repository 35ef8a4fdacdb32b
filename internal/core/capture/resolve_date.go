package capture

import (
	"fmt"
	"strings"
	"time"

	"tincup/internal/core/day"
)

// resolver turns words for dates into dates.
type resolver struct {
	clock    day.Clock
	today    day.Date
	settings Settings
}

// date returns the day that words name, or why there is none.
func (r *resolver) date(d *date, words string) (day.Date, string) {
	switch d.form {
	case fromToday:
		return r.today.AddDays(max(d.n, 0)), "" // tonight, -1, is of today
	case onWeekday:
		return r.weekday(d)
	case atWeekend:
		return r.weekend(d)
	case ofNext:
		return r.next(d.unit), ""
	case inUnits:
		return r.ahead(d.n, d.unit)
	case atEnd:
		return r.end(d), ""
	case onNth:
		return checked(d, r.nth(d.n))
	case inMonth:
		return r.month(d), ""
	case exact:
		return checked(d, d.on)
	case onMonthDay:
		return r.monthDay(d, words)
	case shifted:
		base, why := r.date(d.base, words)
		if why != "" {
			return base, why
		}
		return from(base, d.n, d.unit)
	case weekdayIn:
		base, why := r.date(d.base, words)
		return base.Monday().AddDays((int(d.weekday) + 6) % 7), why
	case nthOf:
		return r.nthOf(d, words)
	case easterDay:
		return r.easter(d), ""
	}
	return day.Date{}, noDay(words)
}

// noDay says that no calendar has a day, without the words that introduce it and what ends a
// sentence.
func noDay(words string) string {
	words = strings.TrimRight(words, ".!?)")
	for {
		first, rest, more := strings.Cut(words, " ")
		switch strings.ToLower(first) {
		case "on", "by", "due", "from", "starting", "plan", "the":
		default:
			more = false
		}
		if !more {
			return fmt.Sprintf("There is no day “%s”.", words)
		}
		words = rest
	}
}

// horizon is what a plan for words covers.
func (r *resolver) horizon(d *date, words string) (day.Horizon, string) {
	switch {
	case (d.form == ofThis || d.form == ofNext) && d.unit == week_:
		at := r.today
		if d.form == ofNext {
			at = r.next(week_)
		}
		return day.InWeek(at), ""
	case (d.form == ofThis || d.form == ofNext) && d.unit == month_:
		at := r.today
		if d.form == ofNext {
			at = r.next(month_)
		}
		return day.InMonth(at), ""
	case d.form == inMonth:
		month := r.month(d)
		if d.year == 0 && month == r.today.MonthStart().AddMonths(12) {
			month = r.today // this very month
		}
		return day.InMonth(month), ""
	case d.form == inWeekOf && d.base != nil:
		on, why := r.date(d.base, words)
		return day.InWeek(on), why
	case d.form == inWeekOf:
		return day.InWeek(d.on), ""
	case d.form == ofWeek:
		return r.weekOf(d.n)
	}
	on, why := r.date(d, words)
	return day.OnDay(on), why
}

// weekOf is the ISO week of a number: the current one or the next that is not past.
func (r *resolver) weekOf(n int) (day.Horizon, string) {
	year, _ := r.today.ISOWeek()
	for tries := range 30 { // years of 53 weeks come within seven years
		monday, err := day.WeekStart(year+tries, n)
		if err == nil && !monday.AddDays(6).Before(r.today) {
			return day.InWeek(monday), ""
		}
	}
	return day.Horizon{}, fmt.Sprintf("There is no week %d.", n)
}

func (r *resolver) weekday(d *date) (day.Date, string) {
	monday := r.today.Monday()
	inWeek := (int(d.weekday) + 6) % 7
	switch d.which {
	case this:
		on := monday.AddDays(inWeek)
		if on.Before(r.today) {
			return day.Date{}, fmt.Sprintf("This %s, %s, has passed.", d.weekday, on.Words())
		}
		return on, ""
	case next:
		return monday.AddDays(7 + inWeek), ""
	}
	return r.today.AddDays((int(d.weekday)-int(r.today.Weekday())+6)%7 + 1), ""
}

// weekend is Saturday: today's, or the coming one.
func (r *resolver) weekend(d *date) (day.Date, string) {
	saturday := r.today.Monday().AddDays(5)
	if d.which == next || d.which == coming && r.today.After(saturday) {
		saturday = saturday.AddDays(7)
	}
	if saturday.Before(r.today) {
		return day.Date{}, fmt.Sprintf("The Saturday of this weekend, %s, has passed.", saturday.Words())
	}
	return saturday, ""
}

// next is the first day of the next week, month or year.
func (r *resolver) next(unit int) day.Date {
	switch unit {
	case week_:
		return r.today.Monday().AddDays(7)
	case month_:
		return r.today.MonthStart().AddMonths(1)
	}
	year, _, _ := r.today.Civil()
	on, _ := day.NewDate(year+1, time.January, 1)
	return on
}

func (r *resolver) ahead(n, unit int) (day.Date, string) { return from(r.today, n, unit) }

// from is the day n units after another, or before it.
func from(on day.Date, n, unit int) (day.Date, string) {
	switch unit {
	case fortnight_:
		on = on.AddDays(14 * n)
	case day_:
		on = on.AddDays(n)
	case week_:
		on = on.AddDays(7 * n)
	case month_:
		on = on.AddMonths(n)
	case quarter_:
		on = on.AddMonths(3 * n)
	case year_:
		on = on.AddMonths(12 * n)
	}
	if on == day.MaxDate {
		return day.Date{}, "That is after the year 9999."
	}
	return on, ""
}

// end is the last day of this or the next week, month, quarter or year.
func (r *resolver) end(d *date) day.Date {
	add := 1
	if d.which == next {
		add = 2
	}
	year, month, _ := r.today.Civil()
	switch d.unit {
	case week_:
		return r.today.AddDays((int(r.settings.weekEnd())-int(r.today.Weekday())+7)%7 + 7*(add-1))
	case month_:
		return r.today.MonthStart().AddMonths(add).AddDays(-1)
	case quarter_:
		first, _ := day.NewDate(year, (month-1)/3*3+1, 1)
		return first.AddMonths(3 * add).AddDays(-1)
	}
	first, _ := day.NewDate(year, time.January, 1)
	return first.AddMonths(12 * add).AddDays(-1)
}

// nth is the next n-th of a month that has one, today included.
func (r *resolver) nth(n int) day.Date {
	for month := r.today.MonthStart(); ; month = month.AddMonths(1) {
		year, m, _ := month.Civil()
		if on, err := day.NewDate(year, m, n); err == nil && !on.Before(r.today) {
			return on
		}
	}
}

// nthOf is the n-th of a kind of days in a month, the last where n is negative. With no
// month said it is that of this month, or of the next where that has passed.
func (r *resolver) nthOf(d *date, words string) (day.Date, string) {
	month := r.today.MonthStart()
	switch {
	case d.month > 0:
		month = r.month(&date{month: d.month, year: d.year})
		if year, m, _ := r.today.Civil(); d.year == 0 && m == d.month { // this very month
			month, _ = day.NewDate(year, m, 1)
		}
	case d.which == next:
		month = month.AddMonths(1)
	}
	for tries := range 2 {
		on, ok := nthIn(month, d)
		switch {
		case !ok:
			return day.Date{}, noDay(words)
		case on.Before(r.today) && d.which == this:
			return day.Date{}, fmt.Sprintf("The day meant in this month, %s, has passed.", on.Words())
		case tries == 0 && on.Before(r.today) && d.year == 0 && d.which != next:
			if month = month.AddMonths(1); d.month > 0 {
				month = month.AddMonths(11)
			}
			continue
		}
		return on, ""
	}
	return day.Date{}, noDay(words)
}

// nthIn counts the days of a month that are meant.
func nthIn(month day.Date, d *date) (day.Date, bool) {
	var days []day.Date
	year, m, _ := month.Civil()
	for n := range day.DaysIn(year, m) {
		on := month.AddDays(n)
		w := on.Weekday()
		if d.every && (!d.working || w != time.Saturday && w != time.Sunday) || !d.every && w == d.weekday {
			days = append(days, on)
		}
	}
	at := d.n - 1
	if d.n < 0 {
		at = len(days) + d.n
	}
	if at < 0 || at >= len(days) {
		return day.Date{}, false
	}
	return days[at], true
}

// easter is the next Easter Sunday, today included, by the Gregorian computus (the
// anonymous algorithm, as in Meeus, Astronomical Algorithms, chapter 8).
func (r *resolver) easter(d *date) day.Date {
	year, _, _ := r.today.Civil()
	if d.year > 0 {
		return easterOf(d.year)
	}
	if on := easterOf(year); !on.Before(r.today) {
		return on
	}
	return easterOf(year + 1)
}

func easterOf(year int) day.Date {
	a, b, c := year%19, year/100, year%100
	h := (19*a + b - b/4 - (b-(b+8)/25+1)/3 + 15) % 30
	l := (32 + 2*(b%4) + 2*(c/4) - h - c%4) % 7
	m := (a + 11*h + 22*l) / 451
	n := h + l - 7*m + 114
	on, _ := day.NewDate(year, time.Month(n/31), n%31+1)
	return on
}

// month is the first day of a month: of the year said, else the first such day
// that is not past.
func (r *resolver) month(d *date) day.Date {
	year, _, _ := r.today.Civil()
	if d.year > 0 {
		year = d.year
	}
	on, _ := day.NewDate(year, d.month, 1)
	if d.year == 0 && on.Before(r.today) {
		on = on.AddMonths(12)
	}
	return on
}

func (r *resolver) monthDay(d *date, words string) (day.Date, string) {
	if d.year > 0 {
		on, err := day.NewDate(d.year, d.month, d.n)
		if err != nil {
			return day.Date{}, noDay(words)
		}
		return checked(d, on)
	}
	year, _, _ := r.today.Civil()
	for ; ; year++ { // 29 February comes within eight years
		on, err := day.NewDate(year, d.month, d.n)
		if err == nil && !on.Before(r.today) {
			return checked(d, on)
		}
		if year >= 9999 {
			return day.Date{}, fmt.Sprintf("There is no day “%s” before the year 9999.", words)
		}
	}
}

// checked refuses a full date whose weekday is another.
func checked(d *date, on day.Date) (day.Date, string) {
	if d.checked && on.Weekday() != d.weekday {
		return day.Date{}, fmt.Sprintf("%s is not a %s.", on.Words(), d.weekday)
	}
	return on, ""
}
