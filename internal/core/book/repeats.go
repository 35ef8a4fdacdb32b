package book

import (
	"fmt"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// Skip leaves the present occurrence out and goes on to the next that is not
// past. After the last one the to-do is cancelled.
type Skip struct{ ID ID }

// Pause lets a repeat stand still. Until it goes on, the to-do is only in its
// list.
type Pause struct{ ID ID }

// Resume lets a paused repeat go on, with the first date on or after today.
type Resume struct{ ID ID }

// EndRepeat makes an ordinary to-do of one that repeats, with its dates as they
// are.
type EndRepeat struct{ ID ID }

// ChangeRule lets a to-do repeat, or repeat otherwise: this and all coming ones.
type ChangeRule struct {
	ID     ID
	Rule   *repeat.Rule
	Anchor repeat.Anchor
	Lead   int
	// First is the date it begins with; none takes the to-do's own, or today.
	First day.Date
	// Time is the time of day of its due, which it gets where it has none; none leaves it as it is.
	Time day.TimeOfDay
}

// MoveRepeat moves the present occurrence and all coming ones with it: the
// pattern begins anew on a date, its weekday or day of the month changed to
// that of the date where the rule has one.
type MoveRepeat struct {
	ID ID
	To day.Date
}

func (Skip) kind() Kind       { return "skip" }
func (Pause) kind() Kind      { return "pause" }
func (Resume) kind() Kind     { return "resume" }
func (EndRepeat) kind() Kind  { return "end-repeat" }
func (ChangeRule) kind() Kind { return "change-rule" }
func (MoveRepeat) kind() Kind { return "move-repeat" }

// repeating returns an open to-do that repeats.
func (d *draft) repeating(id ID) (Todo, error) {
	t, err := d.alive(id)
	switch {
	case err != nil:
		return t, err
	case t.Repeat == nil:
		return t, refuse("repeat", "“%s” does not repeat.", t.Title)
	case !t.Open():
		return t, refuse("id", "“%s” is not open. Open it again first.", t.Title)
	}
	return t, nil
}

func (c Skip) run(d *draft) error {
	t, err := d.repeating(c.ID)
	if err != nil {
		return err
	}
	step := t.Repeat.Skip(d.env.Clock.Today(), t.driver().Time, d.zone())
	d.did("Skipped", &t, "")
	if step.Over {
		d.says += ". That was the last one"
		t.Status, t.Completed = Cancelled, d.now
		d.put(t)
		_, err := d.closeBelow(t.ID, Cancelled)
		return err
	}
	if err := d.goOn(&t, step); err != nil {
		return err
	}
	d.says += ". Next: " + t.driver().Date.Words()
	return nil
}

func (c Pause) run(d *draft) error {
	t, err := d.repeating(c.ID)
	if err != nil {
		return err
	}
	if t.Repeat.Paused.IsZero() {
		next := *t.Repeat
		next.Paused = d.env.Clock.Today()
		t.Repeat = &next
		d.put(t)
	}
	d.did("Paused", &t, "")
	return nil
}

func (c Resume) run(d *draft) error {
	t, err := d.repeating(c.ID)
	if err != nil {
		return err
	}
	if t.Repeat.Paused.IsZero() {
		d.did("Goes on", &t, "")
		return nil
	}
	step := t.Repeat.Resume(d.env.Clock.Today(), t.driver().Time, d.zone())
	if step.Over {
		return refuse("repeat", "“%s” has no date left. End the repeat or change it.", t.Title)
	}
	if step.Next.Current == t.Repeat.Current {
		t.Repeat = &step.Next
		d.put(t)
	} else if err := d.goOn(&t, step); err != nil {
		return err
	}
	d.did("Goes on", &t, ". Next: "+t.driver().Date.Words())
	return nil
}

func (c EndRepeat) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if t.Record.IsZero() {
		t.Repeat = nil
		d.put(t)
	}
	d.did("No longer repeats", &t, "")
	return nil
}

func (c ChangeRule) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Record.IsZero() {
		return refuse("id", "“%s” is a record of what was done.", t.Title)
	}
	if t.IsNote {
		return refuseNote(&t, "repeated")
	}
	if !t.Open() {
		return refuse("id", "“%s” is not open. Open it again first.", t.Title)
	}
	if !c.Time.IsZero() {
		if t.Due.IsZero() {
			t.Due.Date = t.driver().Date
		}
		if t.Due.IsZero() {
			t.Due.Date = d.env.Clock.Today()
		}
		t.Due.Time = c.Time
	}
	if err := d.begin(&t, repeat.Repeat{Rule: c.Rule, First: c.First, Anchor: c.Anchor, Lead: c.Lead}); err != nil {
		return err
	}
	d.put(t)
	d.did("Repeats "+t.Repeat.Words(), &t, ". Next: "+t.driver().Date.Words())
	return nil
}

func (c MoveRepeat) run(d *draft) error {
	t, err := d.repeating(c.ID)
	if err != nil {
		return err
	}
	if c.To.IsZero() {
		return refuse("to", "The date to move to is missing.")
	}
	r := *t.Repeat
	r.Rule, r.First = r.Rule.MovedTo(r.Current, c.To), c.To
	if err := d.begin(&t, r); err != nil {
		return err
	}
	d.put(t)
	d.did("Repeats "+t.Repeat.Words(), &t, ". Next: "+t.driver().Date.Words())
	return nil
}

// begin lets a to-do repeat from a first date on, and moves it there. What was
// counted of it before stays.
func (d *draft) begin(t *Todo, r repeat.Repeat) error {
	if r.First.IsZero() {
		if r.First = t.driver().Date; r.First.IsZero() {
			r.First = d.env.Clock.Today()
		}
	}
	begun, err := r.Begin(t.driver().Time, d.zone())
	if err != nil {
		return refuse("repeat", "%s.", upperFirst(err.Error()))
	}
	if old := t.Repeat; old != nil {
		begun.Missed, begun.LastDone, begun.Paused = old.Missed, old.LastDone, old.Paused
		if begun.Rule.Count == 0 || begun.Anchor == repeat.Schedule {
			begun.Ticks = old.Ticks // a count of ticks begins anew
		}
	}
	t.drive(&begun, 0)
	return nil
}

func upperFirst(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// postponed tells what a new date of the present occurrence passes over.
func (d *draft) postponed(t *Todo, from day.Date) string {
	to := t.driver().Date
	if t.Repeat == nil || t.Repeat.Anchor != repeat.Schedule || !to.After(from) {
		return ""
	}
	series, err := t.Repeat.Series(t.driver().Time, d.zone())
	if err != nil {
		return ""
	}
	over := 0
	first := day.Date{}
	for on := range series.Between(t.Repeat.Current.AddDays(1), to) {
		if over++; over == 1 {
			first = on
		}
		if over == 1000 {
			break
		}
	}
	switch {
	case over == 0:
		return ". The next one stays " + series.After(t.Repeat.Current).Words()
	case over == 1:
		return ". This passes over the one of " + first.Words()
	}
	return fmt.Sprintf(". This passes over %d, from %s on", over, first.Words())
}
