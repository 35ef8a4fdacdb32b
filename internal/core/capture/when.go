package capture

import (
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
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
	d, err := readWhen(FieldDue, []string{"", "by "}, words, aDate, env)
	return d.Due, err
}

// ReadStart reads words for a first day, such as "next week".
func ReadStart(words string, env Env) (day.Date, error) {
	d, err := readWhen(FieldStart, []string{"from ", ""}, words, aDate, env)
	return d.Start, err
}

// ReadPlan reads words for a plan, such as "Friday 14:00 for 30 min", "next
// week", "December" or "parked".
func ReadPlan(words string, env Env) (day.Horizon, error) {
	d, err := readWhen(FieldPlan, []string{"plan ", ""}, words, aDate, env)
	return d.Plan, err
}

// SaidRepeat is what words for a repeat say.
type SaidRepeat struct {
	repeat.Repeat
	// Time is the time of day that was said; none leaves the to-do's own.
	Time day.TimeOfDay
	// Words says it to a person, with its first date: "every weekday, first Wed 25 Nov 2026, 08:45".
	Words string
}

// ReadRepeat reads words for a repeat, such as "every weekday at 8:45", "yearly 9 October",
// "first of the month" or "30 days after done". The errors are *WhenError.
func ReadRepeat(words string, env Env) (SaidRepeat, error) {
	words = strings.TrimSpace(words)
	// Behind a repeat's own field no date is meant: "the 1st of the month" comes each month.
	each := strings.NewReplacer("of the month", "of every month").Replace(words)
	for _, said := range []string{words, "every " + words, each, "on the " + each} {
		d := Read("x, "+said, env)
		if d.Title != "x" || d.Notes != "" || d.Repeat == nil || slices.ContainsFunc(d.Chips, func(c Chip) bool {
			return c.Field != FieldRepeat && c.Field != FieldDue && c.Field != FieldLead
		}) {
			continue
		}
		if len(d.Problems) > 0 {
			return SaidRepeat{}, &WhenError{words, d.Problems[0].Reason}
		}
		chip := d.Chips[slices.IndexFunc(d.Chips, func(c Chip) bool { return c.Field == FieldRepeat })]
		r := SaidRepeat{*d.Repeat, d.Due.Time, chip.Value}
		if r.First.IsZero() {
			r.First = d.Due.Date
		}
		return r, nil
	}
	return SaidRepeat{}, &WhenError{words, "“" + shorten(words) + "” is not read as a repeat. Say it like every weekday, every 2 weeks, first of the month or 30 days after done."}
}

// ReadEstimate reads words for how long something takes, such as "20 min" or "1h30", in
// minutes. The errors are *WhenError.
func ReadEstimate(words string, env Env) (int, error) {
	d, err := readWhen(FieldEstimate, []string{"", "takes "}, words, "a length. Say it like 20 min, 2h or 1h30.", env)
	return d.Estimate, err
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

// aDate is what words for a date are wanted as.
const aDate = "a date. Say it like Friday, 30 Nov, in 3 days or next week."

// readWhen reads words as the only clause of a sentence, with an introducer if
// they need one. Words that are none are not read as what is wanted.
func readWhen(field Field, introducers []string, words, wanted string, env Env) (Draft, error) {
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
	return Draft{}, &WhenError{words, "“" + shorten(words) + "” is not read as " + wanted}
}

func shorten(s string) string {
	const most = 40
	if runes := []rune(s); len(runes) > most {
		return string(runes[:most]) + "…"
	}
	return s
}
