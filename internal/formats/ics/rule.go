package ics

import (
	"strings"

	"tincup/internal/core/repeat"
)

// plainRule is the rule of a repeat for readers who know nothing of RFC 7529, for the series from
// its present occurrence on: COUNT becomes UNTIL, and SKIP=BACKWARD the days it stands for. ok is
// false where no such rule says the same.
func plainRule(r *repeat.Repeat, timed bool) (text string, ok bool) {
	rule := *r.Rule
	until := rule.Until.String()
	if rule.Count > 0 {
		if r.Last.IsZero() {
			return "", false
		}
		until = strings.ReplaceAll(r.Last.String(), "-", "")
	}
	rule.Count, rule.Until = 0, repeat.Until{}
	if rule.Skip != repeat.Omit && !unskipped(&rule, r) {
		return "", false
	}
	text = rule.String()
	if until == "" || until == "none" {
		return text, true
	}
	// UNTIL is of the type of DTSTART (section 3.3.10).
	date, _, hasTime := strings.Cut(until, "T")
	switch {
	case timed && !hasTime:
		until = date + "T235959"
	case !timed && hasTime:
		until = date
	}
	return text + ";UNTIL=" + until, true
}

// unskipped says without SKIP what a rule means by it, for days of the month that shorter months do
// not have. It reports whether it can.
func unskipped(rule *repeat.Rule, r *repeat.Repeat) bool {
	_, month, dom := r.First.Civil()
	plain := len(rule.ByDay)+len(rule.BySetPos)+len(rule.ByYearDay)+len(rule.ByWeekNo) == 0 && len(rule.ByMonthDay) < 2
	if len(rule.ByMonthDay) == 1 {
		dom = rule.ByMonthDay[0]
	}
	switch {
	case !plain:
		return false
	case dom >= 1 && dom <= 28: // every month has it
	case rule.Skip != repeat.Backward || dom < 29:
		return false
	case rule.Freq == repeat.Monthly && dom == 31:
		rule.ByMonthDay = []int{-1}
	case rule.Freq == repeat.Monthly:
		rule.ByMonthDay = nil
		for n := 28; n <= dom; n++ {
			rule.ByMonthDay = append(rule.ByMonthDay, n)
		}
		rule.BySetPos = []int{-1}
	case rule.Freq == repeat.Yearly && month == 2 && len(rule.ByMonth) < 2:
		rule.ByMonth, rule.ByMonthDay = []int{2}, []int{-1}
	default:
		return false
	}
	rule.Skip = repeat.Omit
	return true
}
