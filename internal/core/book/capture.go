package book

import "tincup/internal/core/day"

// Capture puts a new to-do in, at the end of its list or of the Cup.
type Capture struct {
	// ID may be none, for one that the command makes.
	ID       ID
	Title    string
	Notes    string
	List     ID
	Priority Priority
	Start    day.Date
	Due      day.Moment
	Plan     day.Horizon
	// Tags are names; those that do not exist are made.
	Tags []string
}

func (Capture) kind() Kind { return "capture" }

func (c Capture) run(d *draft) error {
	title, err := checkTitle(c.Title)
	if err != nil {
		return err
	}
	notes, err := checkNotes(c.Notes)
	if err != nil {
		return err
	}
	if err := d.checkList(c.List); err != nil {
		return err
	}
	if err := checkDates("start", c.Start, c.Due); err != nil {
		return err
	}
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.book.todos[c.ID]; taken {
		return refuse("id", "A to-do with the id %s exists already.", c.ID)
	}
	t := Todo{ID: c.ID, Title: title, List: c.List, Position: d.endOf(c.List), Priority: c.Priority,
		Start: c.Start, Due: c.Due, Plan: c.Plan, Created: d.now}
	if t.Tags, err = d.addTags(nil, c.Tags); err != nil {
		return err
	}
	if err := d.setNotes(&t, notes); err != nil {
		return err
	}
	d.put(t)
	d.says = "Put in: " + quote(t.Title)
	return nil
}

func (d *draft) checkList(id ID) error {
	if id.IsZero() {
		return nil
	}
	if _, err := d.book.List(id); err != nil {
		return refuse("list", "There is no list with the id %s.", id)
	}
	return nil
}

// quote sets a title off within a sentence, cut to what a toast can show.
func quote(title string) string {
	const most = 60
	runes := []rune(title)
	if len(runes) > most {
		return "“" + string(runes[:most-1]) + "…”"
	}
	return "“" + title + "”"
}
