package book

import (
	"fmt"

	"tincup/internal/core/day"
)

// MostParts is into how many parts a to-do is split at most.
const MostParts = 20

// Split makes subtasks of a to-do that is longer than a day can hold: so many parts, 2 to
// MostParts, each with its share of the estimate, which is a multiple of five minutes for all
// but the last. What was planned with the whole is planned with its parts, since the subtasks
// lie where it does.
type Split struct {
	ID    ID
	Parts int
}

func (Split) kind() Kind { return "split" }

func (c Split) run(d *draft) error {
	t, err := d.alive(c.ID)
	switch {
	case err != nil:
		return err
	case t.IsNote:
		return refuseNote(&t, "split")
	case !t.Open():
		return refuse("id", "“%s” is done or cancelled. Reopen it first.", t.Title)
	case c.Parts < 2 || c.Parts > MostParts:
		return refuse("parts", "%d parts; 2 to %d are wanted.", c.Parts, MostParts)
	case int(t.Estimate) < 5*c.Parts:
		return refuse("parts", "“%s” takes %s, which is too little for %d parts of five minutes. Give it an estimate first.", t.Title, minutesWords(int(t.Estimate)), c.Parts)
	}
	for _, sub := range d.in(t.ID) {
		if sub.Open() && sub.Deleted.IsZero() {
			return refuse("id", "“%s” has open subtasks already. Give them estimates in place of splitting it.", t.Title)
		}
	}
	shares := shareOut(int(t.Estimate), c.Parts)
	for i, share := range shares {
		part := Capture{Title: fmt.Sprintf("%s, part %d of %d", shortTitle(t.Title), i+1, c.Parts), Parent: t.ID,
			Estimate: share, Priority: t.Priority, Concentration: t.Concentration}
		if _, err := d.capture(part); err != nil {
			return err
		}
	}
	if _, slot := t.Plan.Slot(); slot > 0 { // its parts are not all done at one time of day
		t.Plan = day.OnDay(t.Plan.First())
		d.put(t)
	}
	d.did("Split", &t, fmt.Sprintf(" into %d parts of %s", c.Parts, minutesWords(shares[0])))
	return nil
}

// shareOut divides minutes into parts that are as alike as multiples of five allow; they add
// up to the whole.
func shareOut(minutes, parts int) []int {
	shares := make([]int, parts)
	for i := range shares {
		left := parts - i
		share := (minutes + left - 1) / left
		if i < parts-1 {
			share = max((share+2)/5*5, 5)
		}
		shares[i] = share
		minutes -= share
	}
	return shares
}

// shortTitle leaves room for the words after it.
func shortTitle(title string) string {
	if r := []rune(title); len(r) > MaxTitle-20 {
		return string(r[:MaxTitle-21]) + "…"
	}
	return title
}
