package book

// StartOver opens everything ticked in a checklist again, but what was cleared.
type StartOver struct{ List ID }

// ClearDone takes what is ticked in a checklist out of its sight. It stays in Done, and counts in
// what it was part of.
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
		if next := *t; ticked(&next) {
			next.Cleared = true
			d.put(next)
			n++
		}
	}
	d.says = "Cleared from " + quote(l.Name) + ": " + count(n, "to-do") + ", kept in Done"
	return nil
}

func ticked(t *Todo) bool {
	return t.Status == Completed && !t.Cleared && t.Deleted.IsZero() && t.Record.IsZero()
}

func (d *draft) checklist(id ID) (List, error) {
	l, err := d.list(id)
	if err == nil && !l.Checklist {
		return l, refuse("id", "“%s” is not a checklist. Make it one first.", l.Name)
	}
	return l, err
}
