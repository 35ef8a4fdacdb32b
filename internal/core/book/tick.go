package book

import (
	"fmt"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// driver is what a rule drives: the due, with no due the plan, with neither the
// start.
func (t *Todo) driver() day.Moment {
	switch {
	case !t.Due.IsZero():
		return t.Due
	case !t.Plan.First().IsZero():
		at, _ := t.Plan.Slot()
		return day.Moment{Date: t.Plan.First(), Time: at}
	case !t.Start.IsZero():
		return day.Moment{Date: t.Start}
	}
	return day.Moment{}
}

// Coming returns the dates after today on which the to-do comes round again, up
// to a last one; none while it is paused or counts from when it is done.
func (t *Todo) Coming(c day.Clock, last day.Date) []day.Date {
	if t.Repeat == nil {
		return nil
	}
	return t.Repeat.Coming(c.Today(), last, t.driver().Time, c.Zone)
}

// drive sets the date that the rule drives; everything else that has a date
// moves by a distance.
func (t *Todo) drive(r *repeat.Repeat, days int) {
	t.Repeat = r
	on := r.Current
	switch {
	case !t.Due.IsZero():
		t.Due.Date = on
		t.Start = shift(t.Start, days)
	case !t.Plan.First().IsZero():
		t.Start = shift(t.Start, days)
		t.Plan = moved(t.Plan, on)
	case !t.Start.IsZero():
		t.Start = on
	default:
		t.Due.Date = on
	}
	t.lead()
	t.Reminders = shiftAll(t.Reminders, days)
}

// lead lets a to-do surface ahead of its date, and never after it.
func (t *Todo) lead() {
	if t.Due.IsZero() {
		return
	}
	if t.Repeat.Lead > 0 {
		t.Start = t.Due.Date.AddDays(-t.Repeat.Lead)
	}
	if t.Start.After(t.Due.Date) {
		t.Start = t.Due.Date
	}
}

// moved is a plan of the same precision on another day.
func moved(h day.Horizon, on day.Date) day.Horizon {
	switch h.Precision() {
	case day.Week:
		return day.InWeek(on)
	case day.Month:
		return day.InMonth(on)
	}
	next := day.OnDay(on)
	if at, minutes := h.Slot(); !at.IsZero() {
		next, _ = next.WithSlot(at, minutes) // it was a slot before
	}
	return next
}

func shift(d day.Date, days int) day.Date {
	if d.IsZero() {
		return d
	}
	return d.AddDays(days)
}

func shiftAll(reminders []day.Reminder, days int) []day.Reminder {
	if len(reminders) == 0 {
		return reminders
	}
	moved := make([]day.Reminder, len(reminders))
	for i, r := range reminders {
		moved[i] = r.Shift(days)
	}
	return moved
}

// tick keeps a record of the present occurrence and goes on to the next date.
// After the last one the to-do simply completes.
func (d *draft) tick(t Todo) error {
	step := t.Repeat.Tick(d.env.Clock.Today(), t.driver().Time, d.zone())
	d.did("Done", &t, "")
	if step.Over {
		t.Status, t.Completed = Completed, d.now
		t.Repeat = &step.Next
		d.put(t)
		d.says += ". That was the last one"
		_, err := d.closeBelow(t.ID, Completed)
		return err
	}
	if err := d.keepRecord(&t); err != nil {
		return err
	}
	if err := d.goOn(&t, step); err != nil {
		return err
	}
	d.says += ". Next: " + t.driver().Date.Words()
	if step.Missed > 0 {
		d.says += fmt.Sprintf(" (%d passed over)", step.Missed)
	}
	d.says += d.progressAbove(&t)
	return nil
}

// goOn moves a to-do to the next date and opens its subtasks again.
func (d *draft) goOn(t *Todo, step repeat.Step) error {
	days := step.Next.Current.Sub(t.Repeat.Current)
	planned := t.Due.IsZero() && !t.Plan.First().IsZero() // the rule drives the plan
	t.drive(&step.Next, days)
	if !planned {
		t.Plan = day.Horizon{}
	}
	t.Status, t.Completed = NeedsAction, 0
	t.Handful = day.Date{}
	d.put(*t)
	return d.below(t.ID, false, func(sub *Todo) error {
		next := *sub
		next.Status, next.Completed = NeedsAction, 0
		next.Handful = day.Date{}
		if next.Repeat == nil { // one that repeats by itself keeps its own dates
			next.Start = shift(next.Start, days)
			if !next.Due.IsZero() {
				next.Due.Date = next.Due.Date.AddDays(days)
			}
			next.Plan = day.Horizon{}
			next.Reminders = shiftAll(next.Reminders, days)
		}
		d.put(next)
		return nil
	})
}

// keepRecord keeps what is ticked, with its subtasks as they are.
func (d *draft) keepRecord(t *Todo) error {
	copies := map[ID]ID{}
	keep := func(of Todo) error {
		kept := of
		kept.ID, kept.UID, kept.Record, kept.Parent = d.env.NewID(), "", of.ID, copies[of.Parent]
		if of.ID == t.ID {
			kept.Status, kept.Completed = Completed, d.now
			kept.Parent = ID{}
		}
		kept.Position = d.endOf(kept.home())
		kept.Created = of.Created
		copies[of.ID] = kept.ID
		if of.NotesSize > 0 {
			text, err := d.desk.Note(&of)
			if err != nil {
				return err
			}
			d.notes = append(d.notes, noteDiff(kept.ID, "", text))
		}
		d.put(kept)
		return nil
	}
	d.touch(*t) // it stands first in the change: the reply tells of it
	if err := keep(*t); err != nil {
		return err
	}
	return d.below(t.ID, false, func(sub *Todo) error { return keep(*sub) })
}

// reopenRecord undoes the tick that a record is of, or makes it a to-do of its
// own.
func (d *draft) reopenRecord(record Todo) error {
	if d.latest(&record) {
		return d.untick(&record)
	}
	record.Status, record.Completed = NeedsAction, 0
	record.Record, record.Repeat = ID{}, nil
	record.Position = d.endOf(record.home())
	d.put(record)
	d.did("Open again, by itself", &record, "")
	return d.below(record.ID, false, func(sub *Todo) error {
		next := *sub
		next.Record = ID{}
		next.Repeat = nil
		d.put(next)
		return nil
	})
}

// latest reports whether nothing has changed since the tick that made the
// record. The tick gave the to-do and its record one revision.
func (d *draft) latest(record *Todo) bool {
	of, err := d.desk.Todo(record.Record)
	if err != nil || !of.Deleted.IsZero() || of.Revision != record.Revision {
		return false
	}
	subtasks, unchanged := 0, true
	_ = d.below(record.ID, true, func(kept *Todo) error {
		sub, err := d.desk.Todo(kept.Record)
		unchanged = unchanged && err == nil && sub.Deleted.IsZero() && sub.Revision <= of.Revision && kept.Revision == of.Revision
		subtasks++
		return nil
	})
	_ = d.below(of.ID, false, func(*Todo) error {
		subtasks--
		return nil
	})
	return unchanged && subtasks == 0
}

// untick puts a to-do and its subtasks back to what the record kept of them,
// and takes the record away.
func (d *draft) untick(record *Todo) error {
	back := func(kept *Todo) error {
		of, err := d.todo(kept.Record)
		if err != nil {
			return err
		}
		next := *kept
		next.ID, next.UID, next.Record, next.Parent, next.Position = of.ID, of.UID, of.Record, of.Parent, of.Position
		if kept.ID == record.ID {
			next.Status, next.Completed = NeedsAction, 0
		}
		d.put(next)
		return nil
	}
	gone := []*Todo{record}
	if err := back(record); err != nil {
		return err
	}
	if err := d.below(record.ID, true, func(kept *Todo) error {
		gone = append(gone, kept)
		return back(kept)
	}); err != nil {
		return err
	}
	for _, kept := range gone {
		before, err := d.desk.Todo(kept.ID)
		if err != nil {
			return err
		}
		if before.NotesSize > 0 {
			text, err := d.desk.Note(before)
			if err != nil {
				return err
			}
			d.notes = append(d.notes, noteDiff(before.ID, text, ""))
		}
		d.takeOut(before.ID)
	}
	d.did("Open again", record, "")
	d.reopenAbove(d.todos[record.Record].After.Parent)
	return nil
}
