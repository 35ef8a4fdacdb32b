package capture

import (
	"strings"

	"tincup/internal/core/day"
)

// WhenError says why words are no due, start or plan.
type WhenError struct {
	Words  string
	Reason string
}

func (e *WhenError) Error() string { return e.Reason }

// ReadDue reads words for a due, such as "Friday 4pm". The errors are
// *WhenError.
func ReadDue(words string, env Env) (day.Moment, error) {
	d, err := readWhen(FieldDue, []string{"", "by "}, words, env)
	return d.Due, err
}

// ReadStart reads words for a first day, such as "next week".
func ReadStart(words string, env Env) (day.Date, error) {
	d, err := readWhen(FieldStart, []string{"from ", ""}, words, env)
	return d.Start, err
}

// ReadPlan reads words for a plan, such as "Friday 14:00 for 30 min", "next
// week", "December" or "parked".
func ReadPlan(words string, env Env) (day.Horizon, error) {
	d, err := readWhen(FieldPlan, []string{"plan ", ""}, words, env)
	return d.Plan, err
}

// ReadReminder reads words for a reminder, such as "tomorrow 9am", "in 20 minutes" or, where
// ahead is said to be possible, "1 hour before". The errors are *WhenError.
func ReadReminder(words string, ahead bool, env Env) (day.Reminder, error) {
	words = strings.TrimSpace(words)
	r, err := readReminder("x, ", words, env)
	if err == nil || !ahead {
		return r, err
	}
	// What it is before comes to nothing here: only its length is wanted.
	lead := "x, by " + sayMoment(day.Moment{Date: env.Clock.Today().AddDays(1)}) + ", "
	if before, wrong := readReminder(lead, words, env); wrong == nil && before.At.IsZero() {
		return before, nil
	}
	return r, err
}

// readReminder reads words as the last clause of a sentence that says nothing else but lead.
func readReminder(lead, words string, env Env) (day.Reminder, error) {
	for _, introducer := range []string{"remind me ", "remind me in ", "remind me at ", "remind me on "} {
		d := Read(lead+introducer+words, env)
		if d.Title != "x" || d.Notes != "" || len(d.Chips) != strings.Count(lead, ",") || d.Chips[len(d.Chips)-1].Field != FieldReminder {
			continue
		}
		if why := d.Chips[len(d.Chips)-1].Problem; why != "" {
			return day.Reminder{}, &WhenError{words, why}
		}
		if len(d.Problems) == 0 && len(d.Reminders) == 1 {
			return d.Reminders[0], nil
		}
	}
	if name, ok := edgeOf(words); ok {
		return day.Reminder{}, &WhenError{words, "None of your places is called “" + shorten(name) + "”. The settings make places, and so does saying where a to-do is done."}
	}
	return day.Reminder{}, &WhenError{words, "“" + shorten(words) + "” is not read as a reminder. Say it like tomorrow 9am, in 20 minutes or 1 hour before."}
}

// readWhen reads words as the only clause of a sentence, with an introducer if
// they need one.
func readWhen(field Field, introducers []string, words string, env Env) (Draft, error) {
	words = strings.TrimSpace(words)
	for _, introducer := range introducers {
		d := Read("x, "+introducer+words, env)
		if d.Title != "x" || len(d.Chips) != 1 || d.Chips[0].Field != field || d.Notes != "" {
			continue
		}
		if why := d.Chips[0].Problem; why != "" {
			return Draft{}, &WhenError{words, why}
		}
		if len(d.Problems) == 0 {
			return d, nil
		}
	}
	return Draft{}, &WhenError{words, "“" + shorten(words) + "” is not read as a date. Say it like Friday, 30 Nov, in 3 days or next week."}
}

func shorten(s string) string {
	const most = 40
	if runes := []rune(s); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return s
}
