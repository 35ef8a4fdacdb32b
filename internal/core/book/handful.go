package book

import (
	"slices"
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

// handful names the open to-dos that are picked for a day, in the order in which they
// were put in.
func (d *draft) handful(today day.Date) []string {
	var picked []*Todo
	for _, t := range slices.Concat(d.desk.Open(), d.desk.Paused()) {
		if _, drafted := d.todos[t.ID]; !drafted && t.Handful == today {
			picked = append(picked, t)
		}
	}
	for _, diff := range d.todos {
		if t := diff.After; t != nil && t.Open() && t.Handful == today {
			picked = append(picked, t)
		}
	}
	slices.SortFunc(picked, func(a, b *Todo) int { return a.ID.Compare(b.ID) })
	titles := make([]string, len(picked))
	for i, t := range picked {
		titles[i] = quote(t.Title)
	}
	return titles
}

// keepHandful takes out of the handful what comes to be open again while it is full, or
// was picked for another day: opening something again does not pick it.
func (d *draft) keepHandful() {
	today := d.env.Clock.Today()
	var back []ID
	for _, id := range d.order {
		diff := d.todos[id]
		if t := diff.After; t != nil && t.Open() && !t.Handful.IsZero() && diff.Before != nil && !diff.Before.Open() {
			back = append(back, id)
		}
	}
	if len(back) == 0 {
		return
	}
	over := len(d.handful(today)) - MaxHandful
	for _, id := range slices.Backward(back) {
		t := *d.todos[id].After
		switch {
		case t.Handful != today:
		case over > 0:
			over--
		default:
			continue
		}
		t.Handful = day.Date{}
		d.put(t)
	}
}
