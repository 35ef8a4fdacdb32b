package book

// Complete ticks a to-do. On one that is completed it does nothing.
type Complete struct{ ID ID }

// Cancel marks a to-do as decided not to do.
type Cancel struct{ ID ID }

// Reopen makes a completed or cancelled to-do open again.
type Reopen struct{ ID ID }

func (Complete) kind() Kind { return "complete" }
func (Cancel) kind() Kind   { return "cancel" }
func (Reopen) kind() Kind   { return "reopen" }

func (c Complete) run(d *draft) error { return d.close(c.ID, Completed, "Done: ") }
func (c Cancel) run(d *draft) error   { return d.close(c.ID, Cancelled, "Cancelled: ") }

func (d *draft) close(id ID, status Status, says string) error {
	t, err := d.alive(id)
	if err != nil {
		return err
	}
	if t.Status != status {
		t.Status, t.Completed = status, d.now
		d.put(t)
	}
	d.says = says + quote(t.Title)
	return nil
}

func (c Reopen) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Status.Open() {
		t.Status, t.Completed = NeedsAction, 0
		d.put(t)
	}
	d.says = "Open again: " + quote(t.Title)
	return nil
}
