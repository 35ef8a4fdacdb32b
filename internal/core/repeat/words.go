package repeat

import (
	"fmt"
	"slices"
	"strings"
	"time"
)

// Words says the rule in plain English: "every month on the last Friday until
// 20 Dec 2026".
func (r *Rule) Words() string { return r.spoken() + r.skipWords() + r.endWords() }

// Spoken is Words without what becomes of days that a month lacks, which a
// person does not say: "every month on the 31st, 10 times".
func (r *Rule) Spoken() string { return r.spoken() + r.endWords() }

// Words says the repeat in plain English, with what it is counted from and how
// far ahead it surfaces.
func (r Repeat) Words() string {
	s := r.Rule.Words()
	if r.Anchor == Completion {
		s = AfterDone(r.Rule) + r.Rule.endWords()
	}
	if r.Lead > 0 {
		s += ", " + count(r.Lead, "day") + " ahead"
	}
	if !r.Paused.IsZero() {
		s += ", paused"
	}
	return s
}

// AfterDone says a rule counted from when it was done: "30 days after done".
func AfterDone(r *Rule) string { return count(r.Interval, unitNames[r.Freq]) + " after done" }

var unitNames = [...]string{"day", "week", "month", "year"}

// count says a number of things.
func count(n int, thing string) string {
	if n == 1 {
		return "1 " + thing
	}
	return fmt.Sprintf("%d %ss", n, thing)
}

func (r *Rule) spoken() string {
	switch {
	case r.Freq == Weekly && r.Interval == 1 && len(r.ByDay) > 0 && len(r.BySetPos) == 0:
		return "every " + weekdayList(r.ByDay) + r.monthWords() + r.weekStartWords()
	case r.Freq == Yearly && len(r.ByMonth) == 1 && len(r.ByMonthDay) == 1 && r.ByMonthDay[0] > 0 &&
		len(r.ByDay)+len(r.ByYearDay)+len(r.ByWeekNo)+len(r.BySetPos) == 0:
		return fmt.Sprintf("%s on %d %s", r.every(), r.ByMonthDay[0], time.Month(r.ByMonth[0]))
	}
	if nth := r.workingDay(); nth != "" {
		return "on the " + nth + " working day of every month"
	}
	s := r.every() + r.monthWords()
	if len(r.ByWeekNo) > 0 {
		s += " in " + list(r.ByWeekNo, func(n int) string {
			if n < 0 {
				return "the " + fromEnd(n, "week")
			}
			return fmt.Sprintf("week %d", n)
		})
	}
	if days := r.dayWords(); len(days) > 0 {
		s += " on " + strings.Join(days, " where it is ")
	}
	if len(r.BySetPos) > 0 {
		s += ", only the " + list(r.BySetPos, func(n int) string { return fromEnd(n, "") }) + " of these in each " + unitNames[r.Freq]
	}
	return s + r.weekStartWords()
}

// workingDay says which working day of every month a rule means, or "" where it is another.
func (r *Rule) workingDay() string {
	if r.Freq != Monthly || r.Interval != 1 || len(r.ByDay) != 5 || len(r.BySetPos) != 1 ||
		len(r.ByMonth)+len(r.ByMonthDay) > 0 || r.WeekStart != time.Monday {
		return ""
	}
	for i, d := range r.ByDay {
		if d != (NthDay{Day: time.Monday + time.Weekday(i)}) {
			return ""
		}
	}
	return map[int]string{1: "first", 2: "second", 3: "third", 4: "fourth", 5: "fifth", -1: "last"}[r.BySetPos[0]]
}

func (r *Rule) every() string {
	if r.Interval == 1 {
		return "every " + unitNames[r.Freq]
	}
	return "every " + count(r.Interval, unitNames[r.Freq])
}

func (r *Rule) monthWords() string {
	if len(r.ByMonth) == 0 {
		return ""
	}
	return " in " + list(r.ByMonth, func(n int) string { return time.Month(n).String() })
}

// weekStartWords tells of WKST only where it could matter.
func (r *Rule) weekStartWords() string {
	if r.WeekStart == time.Monday {
		return ""
	}
	return ", weeks from " + r.WeekStart.String()
}

// dayWords says each part that names days.
func (r *Rule) dayWords() []string {
	var parts []string
	if len(r.ByYearDay) > 0 {
		parts = append(parts, list(r.ByYearDay, func(n int) string {
			if n < 0 {
				return "the " + fromEnd(n, "day") + " of the year"
			}
			return fmt.Sprintf("day %d of the year", n)
		}))
	}
	if len(r.ByMonthDay) > 0 {
		parts = append(parts, "the "+list(r.ByMonthDay, func(n int) string { return fromEnd(n, "day") }))
	}
	if len(r.ByDay) > 0 {
		parts = append(parts, r.byDayWords())
	}
	return parts
}

func (r *Rule) byDayWords() string {
	within := ""
	if r.Freq == Yearly && len(r.ByMonth) == 0 {
		within = " of the year"
	}
	numbered := slices.ContainsFunc(r.ByDay, func(d NthDay) bool { return d.N != 0 })
	if !numbered {
		if r.Freq == Weekly {
			return weekdayList(r.ByDay)
		}
		return "a " + strings.ReplaceAll(weekdayOr(r.ByDay), " and ", " or ")
	}
	return list(r.ByDay, func(d NthDay) string {
		if d.N == 0 {
			return "every " + d.Day.String()
		}
		return "the " + strings.TrimSuffix(fromEnd(d.N, "")+" "+d.Day.String(), " ") + within
	})
}

func weekdayOr(days []NthDay) string {
	return list(days, func(d NthDay) string { return d.Day.String() })
}

// weekdayList names weekdays, Monday to Friday as "weekday".
func weekdayList(days []NthDay) string {
	if len(days) == 5 && !slices.ContainsFunc(days, func(d NthDay) bool {
		return d.Day == time.Saturday || d.Day == time.Sunday
	}) {
		return "weekday"
	}
	return weekdayOr(days)
}

// fromEnd says an ordinal, counted from the end where it is negative: "3rd",
// "last day", "2nd last day". A thing is named only from the end.
func fromEnd(n int, thing string) string {
	if n > 0 {
		return Ordinal(n)
	}
	s := "last"
	if n < -1 {
		s = Ordinal(-n) + " last"
	}
	if thing != "" {
		s += " " + thing
	}
	return s
}

// Ordinal returns "1st", "2nd", "3rd", "4th", "11th", "21st" and so on.
func Ordinal(n int) string {
	suffix := "th"
	if n%100 < 11 || n%100 > 13 {
		switch n % 10 {
		case 1:
			suffix = "st"
		case 2:
			suffix = "nd"
		case 3:
			suffix = "rd"
		}
	}
	return fmt.Sprintf("%d%s", n, suffix)
}

// list joins with commas and a last "and".
func list[T any](items []T, say func(T) string) string {
	var b strings.Builder
	for i, item := range items {
		switch {
		case i == 0:
		case i == len(items)-1:
			b.WriteString(" and ")
		default:
			b.WriteString(", ")
		}
		b.WriteString(say(item))
	}
	return b.String()
}

// skipWords says where a date goes that a shorter month or year does not have. Days counted
// from the end of one that it does not have are left out, whatever SKIP says.
func (r *Rule) skipWords() string {
	shorter := "month"
	switch {
	case slices.ContainsFunc(r.ByMonthDay, func(n int) bool { return n > 28 }) || r.Plain() && r.Freq >= Monthly:
	case slices.Contains(r.ByYearDay, 366):
		shorter = "year"
	default:
		return ""
	}
	switch r.Skip {
	case Backward:
		return ", or the last day of a shorter " + shorter
	case Forward:
		return ", or the day after a shorter " + shorter
	}
	return ""
}

func (r *Rule) endWords() string {
	switch {
	case r.Count == 1:
		return ", once"
	case r.Count > 0:
		return fmt.Sprintf(", %d times", r.Count)
	case r.Until.IsZero():
		return ""
	}
	year, month, dom := r.Until.Date.Civil()
	s := fmt.Sprintf(" until %d %.3s %d", dom, month, year)
	if n := r.Until.second - 1; n >= 0 {
		s += fmt.Sprintf(", %02d:%02d", n/3600, n/60%60)
		if r.Until.UTC {
			s += " UTC"
		}
	}
	return s
}
