package repeat

import (
	"strings"
	"time"
)

// Short says the repeat as a row has room for: all of its days, several weekdays in three
// letters and three or more in a row as "every Mon to Thu". What becomes of days that a month
// lacks, how many times it comes, how far ahead it surfaces and where weeks begin are left out.
func (r Repeat) Short() string {
	s := ""
	switch rule := r.Rule; {
	case r.Anchor == Completion:
		s = AfterDone(rule)
	case rule.Freq == Weekly && len(rule.BySetPos) == 0 && len(rule.ByMonth) == 0 && len(rule.ByDay) > 1:
		days := shortWeekdays(rule.ByDay)
		if s = rule.every() + " on " + days; rule.Interval == 1 {
			s = "every " + days
		}
	default:
		s = strings.TrimSuffix(rule.spoken(), rule.weekStartWords())
	}
	until, _, _ := strings.Cut(r.Rule.endWords(), ",")
	s += until
	if !r.Paused.IsZero() {
		s += ", paused"
	}
	return s
}

// shortWeekdays names weekdays from Monday on: "weekday", "Mon to Thu", "Mon, Wed and Fri to
// Sun".
func shortWeekdays(days []NthDay) string {
	if s := weekdayList(days); s == "weekday" {
		return s
	}
	var has [7]bool // Monday first
	for _, d := range days {
		has[(int(d.Day)+6)%7] = true
	}
	name := func(i int) string { return time.Weekday((i + 1) % 7).String()[:3] }
	var runs []string
	for i := 0; i < len(has); i++ {
		if !has[i] {
			continue
		}
		last := i
		for last+1 < len(has) && has[last+1] {
			last++
		}
		if last-i < 2 {
			runs = append(runs, name(i))
			continue
		}
		runs = append(runs, name(i)+" to "+name(last))
		i = last
	}
	return list(runs, func(s string) string { return s })
}
