package book

import (
	"fmt"
	"strconv"
	"strings"

	"tincup/internal/core/day"
)

// Distance is how far a safe postpone moves: some days, or to a date. The zero
// Distance is none.
type Distance struct {
	days int
	to   day.Date
}

// MaxDistance is the most days a postpone moves.
const MaxDistance = 366

// ByDays is a distance of 1 to MaxDistance days.
func ByDays(n int) Distance { return Distance{days: n} }

// ToDate is the distance to a date.
func ToDate(to day.Date) Distance { return Distance{to: to} }

// ParseDistance reads a duration of days or weeks (P1D, P2D, P1W; ISO 8601), a
// date, or "next-week" and "next-month": the Monday of the next ISO week and
// the first of the next month.
func ParseDistance(s string, today day.Date) (Distance, error) {
	wrong := refuse("distance", "“%.40s” is not a distance: P1D, P1W, a date such as 2026-12-01, next-week or next-month is wanted.", s)
	switch {
	case s == "next-week":
		return ToDate(day.InWeek(today.AddDays(7)).First()), nil
	case s == "next-month":
		return ToDate(today.MonthStart().AddMonths(1)), nil
	case strings.HasPrefix(s, "P") && len(s) > 2:
		n, err := strconv.Atoi(s[1 : len(s)-1])
		if unit := s[len(s)-1]; unit == 'W' {
			n *= 7
		} else if unit != 'D' {
			return Distance{}, wrong
		}
		if err != nil || n < 1 || n > MaxDistance {
			return Distance{}, refuse("distance", "“%.40s” is not a distance of 1 to %d days.", s, MaxDistance)
		}
		return ByDays(n), nil
	}
	to, err := day.ParseDate(s)
	if err != nil {
		return Distance{}, wrong
	}
	if to.Before(today) {
		return Distance{}, refuse("distance", "%s is past. Nothing moves backwards.", to.Words())
	}
	return ToDate(to), nil
}

// Hold is why a safe postpone leaves a to-do alone.
type Hold string

// The reasons. The first four can be released one by one.
const (
	HeldRepeats  Hold = "repeats"
	HeldProject  Hold = "project"
	HeldPriority Hold = "high-priority"
	HeldHandful  Hold = "handful"
	HeldParked   Hold = "parked"
	HeldNoDate   Hold = "no-date"
	HeldThere    Hold = "there-already"
	HeldPaused   Hold = "paused"
	HeldClosed   Hold = "closed"
	HeldNote     Hold = "note"
)

// Releasable reports whether the person may let it move all the same.
func (h Hold) Releasable() bool {
	return h == HeldRepeats || h == HeldProject || h == HeldPriority || h == HeldHandful
}

// String says the reason.
func (h Hold) String() string {
	return map[Hold]string{
		HeldRepeats: "it repeats", HeldProject: "a project's dates belong together", HeldPriority: "high priority",
		HeldHandful: "in today's handful", HeldParked: "parked", HeldNoDate: "it has no date",
		HeldThere: "there already, or later", HeldPaused: "its repeat is paused", HeldClosed: "done with", HeldNote: "a note",
	}[h]
}

// Postponed is one to-do that moves, as it is and as it would be.
type Postponed struct {
	Before, After *Todo
}

// HeldBack is one to-do that stays, with all reasons that can be released, or
// the one that cannot.
type HeldBack struct {
	Todo    *Todo
	Reasons []Hold
}

// Why says the reasons, as "it repeats, and high priority".
func (h HeldBack) Why() string {
	words := make([]string, len(h.Reasons))
	for i, r := range h.Reasons {
		words[i] = r.String()
	}
	return strings.Join(words, ", and ")
}

// Releasable reports whether the person may let it move all the same.
func (h HeldBack) Releasable() bool { return h.Reasons[0].Releasable() }

// Postponement is what a safe postpone would do.
type Postponement struct {
	Moves []Postponed
	Stays []HeldBack
}

// Postponement works out what Postpone would do, and changes nothing.
func (b *Desk) Postponement(env Env, c Postpone) (*Postponement, error) {
	return c.work(newDraft(b, env))
}

// Postpone moves many dated to-dos at once and leaves alone those that a blind
// move would harm.
type Postpone struct {
	IDs []ID
	By  Distance
	// Release names those that move though a reason of the first four holds.
	Release []ID
}

func (Postpone) kind() Kind { return "postpone" }

func (c Postpone) run(d *draft) error {
	p, err := c.work(d)
	if err != nil {
		return err
	}
	for _, m := range p.Moves {
		d.put(*m.After)
	}
	d.says = "Moved " + c.By.words() + ": " + count(len(p.Moves), "to-do")
	if len(p.Moves) == 1 && len(c.IDs) == 1 {
		d.says = "Moved " + c.By.words() + ": " + quote(p.Moves[0].After.Title)
	}
	if n := len(p.Stays); n > 0 {
		d.says += fmt.Sprintf("; %d stayed", n)
	}
	return nil
}

func (by Distance) words() string {
	switch {
	case !by.to.IsZero():
		return "to " + by.to.Words()
	case by.days%7 == 0:
		return "by " + count(by.days/7, "week")
	}
	return "by " + count(by.days, "day")
}

func (c Postpone) work(d *draft) (*Postponement, error) {
	if err := checkMany(c.IDs); err != nil {
		return nil, err
	}
	released := make(map[ID]bool, len(c.Release))
	for _, id := range c.Release {
		released[id] = true
	}
	out := &Postponement{}
	seen := make(map[ID]bool, len(c.IDs))
	for _, id := range c.IDs {
		if seen[id] {
			continue
		}
		seen[id] = true
		t, err := d.desk.Todo(id)
		if err != nil {
			return nil, refuse("ids", "There is no to-do with the id %s any more. Nothing was changed.", id)
		}
		next, hold := c.By.apply(d.env.Clock, *t)
		switch reasons := d.holds(t); {
		case hold != "":
			out.Stays = append(out.Stays, HeldBack{t, []Hold{hold}})
		case len(reasons) > 0 && !released[id]:
			out.Stays = append(out.Stays, HeldBack{t, reasons})
		default:
			if next.Handful == d.env.Clock.Today() {
				next.Handful = day.Date{}
			}
			out.Moves = append(out.Moves, Postponed{t, &next})
		}
	}
	return out, nil
}

// holds returns the reasons that a person may release.
func (d *draft) holds(t *Todo) []Hold {
	var reasons []Hold
	if t.Repeat != nil {
		reasons = append(reasons, HeldRepeats)
	}
	project := !t.Parent.IsZero()
	for _, sub := range d.in(t.ID) {
		project = project || sub.Deleted.IsZero()
	}
	if project {
		reasons = append(reasons, HeldProject)
	}
	if t.Priority == High {
		reasons = append(reasons, HeldPriority)
	}
	if t.Handful == d.env.Clock.Today() {
		reasons = append(reasons, HeldHandful)
	}
	return reasons
}

// apply moves one to-do's dates, or says why they stay.
func (by Distance) apply(c day.Clock, t Todo) (Todo, Hold) {
	plan := t.Plan.DayIn(c)
	switch {
	case t.IsNote:
		return t, HeldNote
	case !t.Open():
		return t, HeldClosed
	case t.Paused():
		return t, HeldPaused
	case plan.Precision() == day.Parked:
		return t, HeldParked
	}
	today := c.Today()
	base := plan.First()
	if base.IsZero() {
		base = c.DayOfMoment(t.Due)
	}
	if base.IsZero() {
		base = t.Start
	}
	if base.IsZero() {
		return t, HeldNoDate
	}
	if base.Before(today) {
		base = today
	}
	target := by.to
	if target.IsZero() {
		target = base.AddDays(by.days)
	}
	moves := false
	// A day is the civil date of the value plus the distance between the days
	// it counts to, so that what stands before the day's start stays there.
	if !plan.First().IsZero() && plan.Last().Before(target) {
		t.Plan = moved(t.Plan, t.Plan.First().AddDays(target.Sub(plan.First())))
		moves = true
	}
	onlyStart := t.Plan.IsZero() && t.Due.IsZero()
	if due := c.DayOfMoment(t.Due); !t.Due.IsZero() && due.Before(target) {
		days := target.Sub(due)
		if t.Repeat != nil && t.Repeat.Lead > 0 {
			t.Start = shift(t.Start, days)
		}
		t.Due.Date = t.Due.Date.AddDays(days)
		moves = true
	}
	if onlyStart && t.Start.Before(target) {
		t.Start = target
		moves = true
	}
	if !moves {
		return t, HeldThere
	}
	return t, ""
}
