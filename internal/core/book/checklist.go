package book

// StartOver opens everything ticked in a checklist again.
type StartOver struct{ List ID }

// ClearDone puts what is ticked in a checklist in the bin.
type ClearDone struct{ List ID }

func (StartOver) kind() Kind { return "start-over" }
func (ClearDone) kind() Kind { return "clear-done" }

func (c StartOver) run(d *draft) error {
	l, err := d.checklist(c.List)
	if err != nil {
		return err
	}
	n := 0
	for t := range d.desk.OfList(l.ID) {
		if next := *t; ticked(&next) {
			next.Status, next.Completed = NeedsAction, 0
			d.put(next)
			d.reopenAbove(next.Parent)
			n++
		}
	}
	d.says = "Started over: " + quote(l.Name) + ", " + count(n, "to-do") + " open again"
	return nil
}

func (c ClearDone) run(d *draft) error {
	l, err := d.checklist(c.List)
	if err != nil {
		return err
	}
	n := 0
	for t := range d.desk.OfList(l.ID) {
		if now, err := d.todo(t.ID); err == nil && ticked(&now) {
			if err := d.bin(now); err != nil {
				return err
			}
			n++
		}
	}
	d.says = "Cleared: " + count(n, "to-do") + " of " + quote(l.Name) + " now in the bin"
	return nil
}

func ticked(t *Todo) bool { return t.Status == Completed && t.Deleted.IsZero() && t.Record.IsZero() }

func (d *draft) checklist(id ID) (List, error) {
	l, err := d.list(id)
	if err == nil && !l.Checklist {
		return l, refuse("id", "“%s” is not a checklist. Make it one first.", l.Name)
	}
	return l, err
}
