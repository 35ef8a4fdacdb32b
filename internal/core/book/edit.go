package book

import "tincup/internal/core/day"

// Edit changes fields of a to-do. A nil field stays as it is; a pointer to a
// zero value clears it.
type Edit struct {
	ID       ID
	Title    *string
	Notes    *string
	List     *ID
	Status   *Status // an open one: Complete and Cancel do the rest
	Priority *Priority
	Start    *day.Date
	Due      *day.Moment
	Plan     *day.Horizon
	Estimate *int // minutes
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
		if err := d.moveTo(&t, *c.List); err != nil {
			return err
		}
	}
	if c.Status != nil {
		if !c.Status.Open() || !t.Status.Open() {
			return refuse("status", "An edit moves an open to-do between needs-action and in-process. Complete, cancel or reopen it instead.")
		}
		t.Status = *c.Status
	}
	if c.Priority != nil {
		t.Priority = *c.Priority
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
	d.says = "Changed: " + quote(t.Title) + d.postponed(&t, stood)
	return nil
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

// touch records the to-do as changed whether or not a field of its row differs.
func (d *draft) touch(t Todo) {
	t.Changed = d.now
	t.Revision = d.book.revision + 1
	before, _ := d.book.Todo(t.ID)
	d.todos[t.ID] = &Diff[Todo]{Before: before, After: &t}
	d.order = append(d.order, t.ID)
}

// moveTo puts the to-do, with its subtasks, at the end of a list, unless it is
// in it already. A subtask that goes to another list leaves its parent.
func (d *draft) moveTo(t *Todo, list ID) error {
	if err := d.checkList(list); err != nil {
		return err
	}
	if t.List == list {
		return nil
	}
	t.List, t.Parent = list, ID{}
	t.Position = d.endOf(list)
	return d.below(t.ID, true, func(sub *Todo) error {
		next := *sub
		next.List = list
		d.put(next)
		return nil
	})
}
