package book

import (
	"time"

	"tincup/internal/core/day"
)

// BinDays is how long the bin keeps what was deleted.
const BinDays = 30

// Delete puts a to-do in the bin.
type Delete struct{ ID ID }

// Restore takes a to-do out of the bin, to where it was.
type Restore struct{ ID ID }

func (Delete) kind() Kind  { return "delete" }
func (Restore) kind() Kind { return "restore" }

func (c Delete) run(d *draft) error {
	t, err := d.todo(c.ID)
	if err != nil {
		return err
	}
	if t.Deleted.IsZero() {
		t.Deleted = d.now
		d.put(t)
	}
	d.says = "In the bin: " + quote(t.Title)
	return nil
}

func (c Restore) run(d *draft) error {
	t, err := d.todo(c.ID)
	if err != nil {
		return err
	}
	if !t.Deleted.IsZero() {
		t.Deleted = 0
		d.put(t)
	}
	d.says = "Restored: " + quote(t.Title)
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
	d.says = "The bin let go of what was older than 30 days."
	return nil
}
