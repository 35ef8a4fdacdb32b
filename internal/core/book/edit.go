package book

import (
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// MaxOutcome is how long an outcome is at most, in characters.
const MaxOutcome = 500

// Edit changes fields of a to-do. A nil field stays as it is; a pointer to a
// zero value clears it.
type Edit struct {
	ID    ID
	Title *string
	Notes *string
	List  *ID
	// Status is an open one: Complete and Cancel do the rest. A closed to-do is open
	// again by it, with the parents it stands under.
	Status   *Status
	Priority *Priority
	Start    *day.Date
	Due      *day.Moment
	Plan     *day.Horizon
	Estimate *int // minutes
	// Concentration is the kind of attention it takes.
	Concentration *term.Concentration
	// InOrder: its subtasks are done one after another.
	InOrder *bool
	// Outcome is what will be true when a project is done.
	Outcome *string
	// Place is where it is done.
	Place *string
	// IsNote makes a note of it, or a to-do again.
	IsNote *bool
	// Person and Role go together; a Role of NoRole takes the person away.
	Person *Involved
}

func (Edit) kind() Kind { return "edit" }

func (c Edit) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if c.Title != nil {
		if t.Title, err = checkTitle(*c.Title); err != nil {
			return err
		}
	}
	if c.Notes != nil {
		text, err := checkNotes(*c.Notes)
		if err != nil {
			return err
		}
		if err := d.setNotes(&t, text); err != nil {
			return err
		}
	}
	if c.List != nil {
		if *c.List != t.List {
			if err := (Move{ID: c.ID, List: *c.List}).run(d); err != nil {
				return err
			}
			if moved, err := d.todo(c.ID); err == nil {
				t.List, t.Section, t.Parent, t.Position = moved.List, moved.Section, moved.Parent, moved.Position
			}
		}
	}
	if t.IsNote && (c.IsNote == nil || *c.IsNote) {
		switch {
		case c.Status != nil:
			return refuseNote(&t, "begun")
		case c.Plan != nil && !c.Plan.IsZero():
			return refuseNote(&t, "planned") // one of before may have a plan, to be cleared
		}
	}
	if c.Status != nil {
		switch {
		case !c.Status.Open():
			return refuse("status", "An edit sets needs-action or in-process. Complete or cancel it instead.")
		case !t.Status.Open() && !t.Record.IsZero():
			return refuse("status", "“%s” is a record of what was done. Reopen it instead.", t.Title)
		case !t.Status.Open():
			t.Completed = 0
			d.reopenAbove(t.Parent)
		}
		t.Status = *c.Status
	}
	if c.Priority != nil {
		t.Priority = *c.Priority
	}
	if c.Concentration != nil {
		t.Concentration = *c.Concentration
	}
	if c.InOrder != nil {
		t.InOrder = *c.InOrder
	}
	if t.Outcome, err = lineOrNone("outcome", t.Outcome, c.Outcome, MaxOutcome); err != nil {
		return err
	}
	if t.Place, err = lineOrNone("place", t.Place, c.Place, MaxPlace); err != nil {
		return err
	}
	if c.IsNote != nil {
		if err := d.turn(&t, *c.IsNote); err != nil {
			return err
		}
	}
	if c.Estimate != nil {
		if t.Estimate, err = checkEstimate(*c.Estimate); err != nil {
			return err
		}
	}
	if c.Person != nil {
		if err := d.involve(&t, c.Person.ID, c.Person.Role); err != nil {
			return err
		}
	}
	stood := t.driver().Date
	if err := c.dates(&t); err != nil {
		return err
	}
	if c.Plan != nil {
		t.Plan = *c.Plan
	}
	if len(d.notes) > 0 { // a rewrite of equal length is a change of the row too
		d.touch(t)
	} else {
		d.put(t)
	}
	d.did("Changed", &t, d.differences(t.ID)+d.postponed(&t, stood)+d.alsoOpen())
	return nil
}

// turn makes a note of a to-do, or a to-do of a note.
func (d *draft) turn(t *Todo, note bool) error {
	switch {
	case note == t.IsNote:
		return nil
	case !note:
		t.IsNote = false
		d.reopenAbove(t.Parent)
		return nil
	}
	if err := d.checkNote(t); err != nil {
		return err
	}
	d.leaveBin(t.ID)
	t.IsNote, t.Status, t.Handful, t.Plan = true, NeedsAction, day.Date{}, day.Horizon{}
	return nil
}

// checkNote tells what keeps a to-do from becoming a note: being done with, repeating, or having
// subtasks.
func (d *draft) checkNote(t *Todo) error {
	switch {
	case !t.Status.Open():
		return refuse("kind", "“%s” is done with. Open it again to make a note of it.", t.Title)
	case t.Repeat != nil:
		return refuse("kind", "“%s” repeats, and a note does not. End the repeat first.", t.Title)
	}
	for _, sub := range d.in(t.ID) {
		if sub.Deleted.IsZero() {
			return refuse("kind", "“%s” has subtasks, and a note has none. Move them out first.", t.Title)
		}
	}
	return nil
}

// leaveBin lets go of the subtasks in the bin of what becomes a note: they come back by themselves.
func (d *draft) leaveBin(id ID) {
	for _, sub := range d.in(id) {
		next := *sub
		next.Parent = ID{}
		next.Position = d.endOf(next.List)
		d.put(next)
	}
}

func (c Edit) dates(t *Todo) error {
	field := "due"
	if c.Due != nil {
		// The lead moves with this occurrence; its pattern stays.
		if t.Repeat != nil && t.Repeat.Lead > 0 && c.Start == nil && !c.Due.IsZero() && !t.Due.IsZero() {
			t.Start = shift(t.Start, c.Due.Date.Sub(t.Due.Date))
		}
		t.Due = *c.Due
	}
	if c.Start != nil {
		t.Start = *c.Start
		field = "start"
	}
	if c.Due == nil && c.Start == nil {
		return nil
	}
	return checkDates(field, t.Start, t.Due)
}
