package book

import "tincup/internal/core/day"

// SaveTemplate keeps a list to be poured out again: its sections and its open
// to-dos, with their dates counted from a day.
type SaveTemplate struct {
	ID   ID // of the template; may be none
	List ID
	Name string
	// From is the day the dates count from; none takes the earliest date in the
	// list, or today.
	From day.Date
}

// Pour makes a list of a template, with all dates moved by the distance from
// the template's day to another.
type Pour struct {
	ID       ID // of the new list; may be none
	Template ID
	Name     string
	Shelf    ID // none takes the template's
	// On is the day that the template's day becomes.
	On day.Date
}

func (SaveTemplate) kind() Kind { return "save-template" }
func (Pour) kind() Kind         { return "pour" }

// Span returns the first and the last date in a list's open to-dos, none where
// there is none.
func (b *Desk) Span(list ID) (first, last day.Date) {
	for t := range b.OfList(list) {
		if !copied(t) {
			continue
		}
		for _, on := range []day.Date{t.Start, t.Due.Date, t.Plan.First()} {
			if on.IsZero() {
				continue
			}
			if first.IsZero() || on.Before(first) {
				first = on
			}
			if on.After(last) {
				last = on
			}
		}
	}
	return first, last
}

// copied reports whether a template takes a to-do along.
func copied(t *Todo) bool { return t.Deleted.IsZero() && t.Record.IsZero() && t.Status.Open() }

func (c SaveTemplate) run(d *draft) error {
	l, err := d.list(c.List)
	if err != nil {
		return err
	}
	if c.From.IsZero() {
		if c.From, _ = d.desk.Span(c.List); c.From.IsZero() {
			c.From = d.env.Clock.Today()
		}
	}
	n, err := d.copyList(l, List{ID: c.ID, Owner: d.desk.account, Shelf: l.Shelf, Template: c.From}, c.Name, 0)
	d.says = "Template saved: " + quote(c.Name) + ", " + count(n, "to-do")
	return err
}

func (c Pour) run(d *draft) error {
	l, err := d.list(c.Template)
	switch {
	case err != nil:
		return err
	case l.Template.IsZero():
		return refuse("id", "“%s” is a list and no template.", l.Name)
	case c.On.IsZero():
		return refuse("on", "The day the dates count from is missing.")
	}
	if c.Shelf.IsZero() {
		c.Shelf = l.Shelf
	}
	n, err := d.copyList(l, List{ID: c.ID, Owner: d.desk.account, Shelf: c.Shelf}, c.Name, c.On.Sub(l.Template))
	d.says = "New list: " + quote(c.Name) + ", " + count(n, "to-do") + " poured out"
	return err
}

// copyList makes a list like another, with copies of its sections and open
// to-dos, their dates and its due moved by some days, and says how many to-dos it has.
func (d *draft) copyList(from, to List, name string, days int) (int, error) {
	to.Colour, to.Order, to.Checklist = from.Colour, from.Order, from.Checklist
	to.Due, to.Outcome, to.With = shift(from.Due, days), from.Outcome, from.With
	if err := d.addList(&to, name); err != nil {
		return 0, err
	}
	sections := map[ID]ID{}
	for _, s := range d.desk.Sections(from.ID) {
		made, err := d.addSection(Section{List: to.ID}, s.Name)
		if err != nil {
			return 0, err
		}
		sections[s.ID] = made.ID
	}
	return d.copyTodos(from.ID, to.ID, copying{to.ID, sections, days})
}

// copying is where copies of to-dos go.
type copying struct {
	list     ID
	sections map[ID]ID
	days     int
}

// copyTodos copies what stands under from, a to-do or a list, with all that is under it to under to.
func (d *draft) copyTodos(from, to ID, c copying) (n int, err error) {
	for _, t := range d.desk.Subtasks(from) {
		if !copied(t) {
			continue
		}
		next := *t
		next.ID, next.List, next.Section = d.env.NewID(), c.list, c.sections[t.Section]
		if next.Parent = to; to == c.list {
			next.Parent = ID{}
		}
		below, err := d.copyTodo(t, next, c)
		if n += below; err != nil {
			return n, err
		}
	}
	return n, nil
}

// copyTodo writes a copy of a to-do, which has its id and its home, with copies of all that is
// under it, and says how many there are.
func (d *draft) copyTodo(t *Todo, next Todo, c copying) (n int, err error) {
	next.UID, next.Created, next.Handful = "", d.now, day.Date{}
	if err := d.shiftBy(&next, c.days); err != nil {
		return n, err
	}
	text, err := d.desk.Note(t)
	if err != nil {
		return n, err
	}
	if text != "" {
		d.notes = append(d.notes, noteDiff(next.ID, "", text))
	}
	d.put(next)
	n, err = d.copyTodos(t.ID, next.ID, c)
	return n + 1, err
}

// shiftBy moves every date of a to-do; a repeat begins anew with the first date
// of its rule on or after where it comes to.
func (d *draft) shiftBy(t *Todo, days int) error {
	t.Start = shift(t.Start, days)
	t.Due.Date = shift(t.Due.Date, days)
	if middle := t.Plan.First(); !middle.IsZero() {
		// A week goes to the week that holds most of it, a month likewise.
		middle = middle.AddDays(t.Plan.Last().Sub(middle) / 2)
		t.Plan = moved(t.Plan, middle.AddDays(days))
	}
	t.Reminders = shiftAll(t.Reminders, days)
	if t.Repeat == nil {
		return nil
	}
	r := *t.Repeat
	r.Missed, r.Ticks, r.LastDone, r.Paused = 0, 0, day.Date{}, day.Date{}
	if rule := *r.Rule; !rule.Until.IsZero() {
		rule.Until.Date = rule.Until.Date.AddDays(days)
		r.Rule = &rule
	}
	if r.First = r.Rule.FirstOn(t.driver().Date); r.First.IsZero() {
		r.First = t.driver().Date
	}
	t.Repeat = nil
	return d.begin(t, r)
}
