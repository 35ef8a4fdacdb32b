package book

import (
	"strings"

	"tincup/internal/core/day"
)

// MaxHandful is how many to-dos are picked for a day at most (common practice,
// no source).
const MaxHandful = 5

// Pick puts a to-do into today's handful, or takes it out. It lapses when the
// day ends.
type Pick struct {
	ID  ID
	Out bool
}

func (Pick) kind() Kind { return "handful" }

func (c Pick) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	today := d.env.Clock.Today()
	if c.Out {
		t.Handful = day.Date{}
		d.put(t)
		d.did("Out of the handful", &t, "")
		return nil
	}
	switch {
	case t.IsNote:
		return refuseNote(&t, "picked for today")
	case !t.Open():
		return refuse("handful", "“%s” is done with and cannot be picked for today.", t.Title)
	case t.Paused():
		return refuse("handful", "The repeat of “%s” is paused. Let it go on first.", t.Title)
	}
	if t.Handful != today {
		if five := d.handful(today); len(five) >= MaxHandful {
			return refuse("handful", "The handful is full: %s. Tick one or take one out first.", strings.Join(five, ", "))
		}
		t.Handful = today
		d.put(t)
	}
	d.did("In today's handful", &t, "")
	return nil
}

// handful names the open to-dos that are picked for a day.
func (d *draft) handful(today day.Date) []string {
	var titles []string
	for _, t := range d.book.Open() {
		if _, drafted := d.todos[t.ID]; !drafted && t.Handful == today {
			titles = append(titles, quote(t.Title))
		}
	}
	for _, id := range d.order {
		if t := d.todos[id].After; t != nil && t.Open() && t.Handful == today {
			titles = append(titles, quote(t.Title))
		}
	}
	return titles
}
