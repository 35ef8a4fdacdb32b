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
	d.says = "Changed: " + quote(t.Title)
	return nil
}

func (c Edit) dates(t *Todo) error {
	field := "due"
	if c.Due != nil {
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

// moveTo puts the to-do at the end of a list, unless it is in it already.
func (d *draft) moveTo(t *Todo, list ID) error {
	if err := d.checkList(list); err != nil {
		return err
	}
	if t.List != list {
		t.List, t.Position = list, d.endOf(list)
	}
	return nil
}
