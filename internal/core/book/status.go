package book

// Complete ticks a to-do. On one that is completed it does nothing. One that
// repeats is kept as a record and moves to its next date; the open subtasks of
// another are completed with it.
type Complete struct{ ID ID }

// Cancel marks a to-do as decided not to do, with its open subtasks. A repeat
// ends with it; Skip leaves out one occurrence only.
type Cancel struct{ ID ID }

// Reopen makes a completed or cancelled to-do open again, with the parents it
// stands under. Of the latest record of a repeat it undoes the tick, if nothing
// has changed since; another record becomes a to-do of its own.
type Reopen struct{ ID ID }

func (Complete) kind() Kind { return "complete" }
func (Cancel) kind() Kind   { return "cancel" }
func (Reopen) kind() Kind   { return "reopen" }

func (c Complete) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if t.Repeat != nil && t.Open() {
		return d.tick(t)
	}
	return d.close(t, Completed, "Done")
}

func (c Cancel) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Record.IsZero() {
		return refuse("id", "“%s” is a record of what was done.", t.Title)
	}
	return d.close(t, Cancelled, "Cancelled")
}

// close ends a to-do, and with it its open subtasks and their repeats.
func (d *draft) close(t Todo, status Status, verb string) error {
	if t.IsNote {
		return refuseNote(&t, "ticked")
	}
	with := 0
	var err error
	if t.Record.IsZero() && t.Status != status {
		t.Status, t.Completed = status, d.now
		if status == Cancelled {
			t.Repeat = nil
		}
		d.put(t)
		if with, err = d.closeBelow(t.ID, status); err != nil {
			return err
		}
	}
	along := ""
	if with > 0 {
		along = ", with " + count(with, "subtask")
	}
	d.did(verb, &t, along+d.progressAbove(&t))
	return nil
}

func refuseNote(t *Todo, done string) error {
	return refuse("id", "“%s” is a note and cannot be %s. Make it a to-do first.", t.Title, done)
}

// closeBelow ends the open subtasks of a to-do at every depth, and says how many.
func (d *draft) closeBelow(id ID, status Status) (closed int, err error) {
	err = d.below(id, false, func(sub *Todo) error {
		next := *sub
		if next.Status.Open() && !next.IsNote {
			next.Status, next.Completed = status, d.now
			closed++
		}
		next.Repeat = nil
		d.put(next)
		return nil
	})
	return closed, err
}

func (c Reopen) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Record.IsZero() {
		return d.reopenRecord(t)
	}
	if !t.Status.Open() {
		t.Status, t.Completed = NeedsAction, 0
		d.put(t)
		d.reopenAbove(t.Parent)
	}
	d.did("Open again", &t, d.alsoOpen())
	return nil
}
