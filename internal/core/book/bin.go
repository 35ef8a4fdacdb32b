package book

import (
	"time"

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
		t.Deleted = d.now
		d.put(t)
		if err := d.below(t.ID, false, func(sub *Todo) error {
			next := *sub
			next.Deleted = d.now
			d.put(next)
			return nil
		}); err != nil {
			return err
		}
	}
	d.says = "In the bin: " + quote(t.Title)
	return nil
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
		if parent, err := d.todo(t.Parent); !t.Parent.IsZero() && (err != nil || !parent.Deleted.IsZero()) {
			t.Parent = ID{}
			t.Position = d.endOf(t.List)
		}
		t.Deleted = 0
		d.put(t)
		if err := d.below(t.ID, true, func(sub *Todo) error {
			if next := *sub; next.Deleted == when {
				next.Deleted = 0
				d.put(next)
			}
			return nil
		}); err != nil {
			return err
		}
		if t.Status.Open() {
			d.reopenAbove(t.Parent)
		}
	}
	d.says = "Restored: " + quote(t.Title) + d.alsoOpen()
	return nil
}

// EmptyBin removes for good what has been in the bin for BinDays or longer.
// It is housekeeping and is not undone.
type EmptyBin struct{}

func (EmptyBin) kind() Kind { return "empty-bin" }

func (EmptyBin) run(d *draft) error {
	limit := day.TimestampOf(d.env.Clock.Now.Add(-BinDays * 24 * time.Hour))
	for _, t := range d.book.Bin() {
		if t.Deleted > limit {
			continue
		}
		text, err := d.book.Note(t)
		if err != nil {
			return err
		}
		if text != "" {
			d.notes = append(d.notes, noteDiff(t.ID, text, ""))
		}
		d.todos[t.ID] = &Diff[Todo]{Before: t}
		d.order = append(d.order, t.ID)
	}
	// A subtask restored by itself, or put in the bin later, loses its parent.
	for _, id := range d.order {
		for _, child := range d.book.children[id] {
			if _, gone := d.todos[child]; !gone {
				next := *d.book.todos[child].todo
				next.Parent = ID{}
				next.Position = d.endOf(next.List)
				d.put(next)
			}
		}
	}
	d.says = "The bin let go of what was older than 30 days."
	return nil
}
