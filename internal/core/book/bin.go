package book

import (
	"slices"

	"tincup/internal/core/day"
)

// BinDays is how long the bin keeps what was deleted.
const BinDays = 30

// Delete puts a to-do in the bin, with its subtasks.
type Delete struct{ ID ID }

// Restore takes a to-do out of the bin, to where it was, with the subtasks that
// went with it. One whose parent is in the bin comes back by itself.
type Restore struct{ ID ID }

func (Delete) kind() Kind  { return "delete" }
func (Restore) kind() Kind { return "restore" }

func (c Delete) run(d *draft) error {
	t, err := d.todo(c.ID)
	if err != nil {
		return err
	}
	if t.kept() {
		return refuseKept(&t)
	}
	if t.Deleted.IsZero() {
		if err := d.bin(t); err != nil {
			return err
		}
	}
	d.did("In the bin", &t, "")
	return nil
}

// bin puts a to-do in the bin with its subtasks.
func (d *draft) bin(t Todo) error {
	t.Deleted = d.now
	d.put(t)
	return d.below(t.ID, false, func(sub *Todo) error {
		next := *sub
		next.Deleted = d.now
		d.put(next)
		return nil
	})
}

func (c Restore) run(d *draft) error {
	t, err := d.todo(c.ID)
	if err != nil {
		return err
	}
	if t.kept() {
		return refuseKept(&t)
	}
	if when := t.Deleted; !when.IsZero() {
		d.restoreList(t.List)
		if parent, err := d.todo(t.Parent); !t.Parent.IsZero() && (err != nil || !parent.Deleted.IsZero()) {
			t.Parent = ID{}
			t.Position = d.endOf(t.List)
		}
		if err := d.restore(t, when); err != nil {
			return err
		}
	}
	d.did("Restored", &t, d.alsoOpen())
	return nil
}

// restore takes a to-do out of the bin with what was put there with it. What is
// open then opens what it stands under.
func (d *draft) restore(t Todo, when day.Timestamp) error {
	t.Deleted = 0
	if err := d.endUnderClosed(&t); err != nil {
		return err
	}
	d.put(t)
	if t.Open() {
		d.reopenAbove(t.Parent)
	}
	for _, sub := range d.in(t.ID) {
		if sub.Deleted == when {
			if err := d.restore(*sub, when); err != nil {
				return err
			}
		}
	}
	return nil
}

// EmptyBin removes for good what was put in the bin at an instant or before. It
// is housekeeping and is not undone.
type EmptyBin struct{ UpTo day.Timestamp }

func (EmptyBin) kind() Kind { return "empty-bin" }

func (c EmptyBin) run(d *draft) error {
	for _, t := range slices.Clone(d.desk.Bin()) {
		if t.Deleted > c.UpTo {
			continue
		}
		text, err := d.desk.Note(t)
		if err != nil {
			return err
		}
		if text != "" {
			d.notes = append(d.notes, noteDiff(t.ID, text, ""))
		}
		d.takeOut(t.ID)
	}
	// A subtask restored by itself, or put in the bin later, loses its parent.
	for _, id := range slices.Clone(d.order) {
		for _, child := range d.in(id) {
			next := *child
			next.Parent = ID{}
			next.Position = d.endOf(next.List)
			d.put(next)
		}
	}
	d.emptyPlaces(c.UpTo)
	d.forgetRings(c.UpTo)
	d.says = "The bin let go of what was older than 30 days."
	return nil
}

// emptyPlaces lets go of lists and shelves that the bin has held long enough
// and that hold nothing more.
func (d *draft) emptyPlaces(limit day.Timestamp) {
	for _, l := range d.desk.lists {
		if l.Deleted.IsZero() || l.Deleted > limit || len(d.in(l.ID)) > 0 {
			continue
		}
		for _, s := range d.desk.Sections(l.ID) {
			d.sections.remove(s.ID)
		}
		d.lists.remove(l.ID)
	}
	for _, s := range d.desk.shelves {
		if !s.Deleted.IsZero() && s.Deleted <= limit && !d.holdsLists(s.ID) {
			d.shelves.remove(s.ID)
		}
	}
}

func (d *draft) holdsLists(shelf ID) bool {
	for _, l := range d.lists.all() {
		if l.Shelf == shelf {
			return true
		}
	}
	return false
}
