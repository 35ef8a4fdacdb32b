package book

import (
	"strings"
	"time"

	"tincup/internal/core/day"
)

// Env is what a command may know of the world.
type Env struct {
	Clock day.Clock
	// NewID makes ids that sort by when they were made (UUIDv7).
	NewID func() ID
}

// Command is one thing a person does to the Book.
type Command interface {
	kind() Kind
	// run writes what it would do into the draft.
	run(*draft) error
}

// Do works out what a command would change, done by the account whose desk it is. The
// Book stays as it is until the Change is given to its Apply. Errors are *RuleError, *NotFoundError, *NotYoursError or
// come from reading notes.
func (b *Desk) Do(env Env, cmd Command) (*Change, error) {
	d := newDraft(b, env)
	if err := cmd.run(d); err != nil {
		return nil, err
	}
	if err := d.keepPlaces(); err != nil {
		return nil, err
	}
	d.keepHandful()
	d.evenOut()
	return d.change(cmd.kind())
}

// draft collects the rows a command alters; reads see what it wrote.
type draft struct {
	desk *Desk
	env  Env
	now  day.Timestamp
	says string
	verb string   // what was done, for a command on many
	also []string // titles of parents opened on the way

	todos map[ID]*Diff[Todo]
	order []ID
	// touched are to-dos that count as changed though no field of the row is.
	touched map[ID]bool
	// arrived holds, by home, to-dos that the command put there, each once.
	arrived map[ID]*arrivals
	last    map[ID]Position

	notes     []Diff[Note]
	lists     rows[List]
	sections  rows[Section]
	shelves   rows[Shelf]
	tags      rows[Tag]
	people    rows[Person]
	views     rows[View]
	chosen    rows[Chosen]
	calendars rows[Calendar]
	rings     rows[Ring]
	places    rows[Place]
	// named are the tags that names given to the command turned out to be.
	named map[string]ID
}

func newDraft(b *Desk, env Env) *draft {
	next := b.Revision() + 1
	return &draft{desk: b, env: env, now: day.TimestampOf(env.Clock.Now), todos: map[ID]*Diff[Todo]{},
		touched: map[ID]bool{}, arrived: map[ID]*arrivals{}, last: map[ID]Position{},
		lists: rowsOf(b.lists, next), sections: rowsOf(b.sections, next), shelves: rowsOf(b.shelves, next),
		tags: rowsOf(b.tags, next), people: rowsOf(b.people, next), views: rowsOf(b.views, next), chosen: rowsOf(b.chosen, next),
		calendars: rowsOf(b.calendars, next), rings: rowsOf(b.rings, next), places: rowsOf(b.places, next)}
}

// did says what was done to a to-do.
func (d *draft) did(verb string, t *Todo, more string) {
	d.verb = verb
	d.says = verb + ": " + quote(t.Title) + more
}

// todo returns a copy that the command may write to and put back.
func (d *draft) todo(id ID) (Todo, error) {
	if diff, ok := d.todos[id]; ok {
		if diff.After == nil {
			return Todo{}, &NotFoundError{"to-do", id}
		}
		return *diff.After, nil
	}
	t, err := d.desk.Todo(id)
	if err != nil {
		return Todo{}, err
	}
	return *t, nil
}

// alive is todo for commands that do not act on what is in the bin.
func (d *draft) alive(id ID) (Todo, error) {
	t, err := d.todo(id)
	switch {
	case err != nil:
		return t, err
	case !t.Deleted.IsZero():
		return t, refuse("id", "“%s” is in the bin. Restore it first.", t.Title)
	case t.kept():
		return t, refuseKept(&t)
	}
	return t, nil
}

func refuseKept(t *Todo) error {
	return refuse("id", "“%s” belongs to a record of what was done and stays as it was.", t.Title)
}

// put records the to-do if it differs in any field a person can see.
func (d *draft) put(t Todo) {
	t.Cleared = t.Cleared && t.Status == Completed
	diff, seen := d.todos[t.ID]
	if !seen {
		if p, ok := d.desk.todos[t.ID]; ok && Altered(p.todo, &t) == 0 {
			return
		}
		diff = d.diff(t.ID)
	}
	t.Changed = d.now
	t.RemindFrom = d.remindsFrom(diff.Before, &t)
	t.Revision = d.desk.Revision() + 1
	d.write(diff, &t)
}

// touch records the to-do as changed whether or not a field of its row differs.
func (d *draft) touch(t Todo) {
	d.touched[t.ID] = true
	diff := d.diff(t.ID)
	t.Changed = d.now
	t.RemindFrom = d.remindsFrom(diff.Before, &t)
	t.Revision = d.desk.Revision() + 1
	d.write(diff, &t)
}

// takeOut removes a row.
func (d *draft) takeOut(id ID) { d.diff(id).After = nil }

func (d *draft) diff(id ID) *Diff[Todo] {
	diff, seen := d.todos[id]
	if !seen {
		diff = &Diff[Todo]{}
		if p, ok := d.desk.todos[id]; ok {
			diff.Before = p.todo
		}
		d.todos[id] = diff
		d.order = append(d.order, id)
	}
	return diff
}

func (d *draft) write(diff *Diff[Todo], t *Todo) {
	was := diff.After
	diff.After = t
	home := t.home()
	if t.Position > d.last[home] {
		d.last[home] = t.Position
	}
	came := diff.Before == nil || diff.Before.home() != home
	if came && (was == nil || was.home() != home) {
		here := d.arrived[home]
		if here == nil {
			here = &arrivals{known: map[ID]bool{}}
			d.arrived[home] = here
		}
		if !here.known[t.ID] {
			here.known[t.ID] = true
			here.order = append(here.order, t.ID)
		}
	}
}

// arrivals are to-dos in the order in which they came to a home. One may have
// left again.
type arrivals struct {
	order []ID
	known map[ID]bool
}

// in returns what a home will hold, the bin's too: by positions where nothing
// is drafted yet, in no order otherwise. It may be the Book's own slice.
func (d *draft) in(home ID) []*Todo {
	here := d.desk.siblings[home]
	if len(d.todos) == 0 {
		return here
	}
	out := make([]*Todo, 0, len(here))
	for _, t := range here {
		if diff, ok := d.todos[t.ID]; !ok {
			out = append(out, t)
		} else if diff.After != nil && diff.After.home() == home {
			out = append(out, diff.After)
		}
	}
	if came := d.arrived[home]; came != nil {
		for _, id := range came.order {
			if after := d.todos[id].After; after != nil && after.home() == home {
				out = append(out, after)
			}
		}
	}
	return out
}

func (d *draft) setNotes(t *Todo, text string) error {
	before, err := d.desk.Note(t)
	if err != nil || before == text {
		return err
	}
	t.NotesSize = int32(len(text))
	d.notes = append(d.notes, noteDiff(t.ID, before, text))
	return nil
}

func noteDiff(id ID, before, after string) Diff[Note] {
	var diff Diff[Note]
	if before != "" {
		diff.Before = &Note{id, before}
	}
	if after != "" {
		diff.After = &Note{id, after}
	}
	return diff
}

// change is what the draft came to. The error is a *NotYoursError.
func (d *draft) change(kind Kind) (*Change, error) {
	if err := d.permit(); err != nil {
		return nil, err
	}
	d.forgetRingsOf()
	c := &Change{Revision: d.desk.Revision() + 1, Actor: d.desk.account, Kind: kind, Says: d.says, Notes: d.notes,
		Lists: d.lists.changes(), Sections: d.sections.changes(), Shelves: d.shelves.changes(),
		Tags: d.tags.changes(), People: d.people.changes(), Views: d.views.changes(), Settings: d.chosen.changes(),
		Calendars: d.calendars.changes(), Rings: d.rings.changes(), Places: d.places.changes()}
	for _, id := range d.order {
		diff := *d.todos[id]
		switch {
		case diff.Before == nil && diff.After == nil:
		case diff.Before != nil && diff.After != nil && !d.touched[id] && Altered(diff.Before, diff.After) == 0:
		default:
			c.Todos = append(c.Todos, diff)
		}
	}
	return c, nil
}

// endOf returns a position behind all to-dos of a home: a list, the Cup or the
// subtasks of a parent.
func (d *draft) endOf(home ID) Position {
	last := d.last[home]
	if here := d.desk.siblings[home]; len(here) > 0 {
		last = max(last, here[len(here)-1].Position)
	}
	return last.After()
}

// tagNamed finds a tag by its name; names differ by more than their case.
func (d *draft) tagNamed(name string) (Tag, bool) {
	for _, id := range d.tags.order {
		if t, ok := d.tags.get(id); ok && strings.EqualFold(t.Name, name) {
			return t, true
		}
	}
	t, ok := d.tags.get(d.desk.tagNames[strings.ToLower(name)])
	return t, ok && strings.EqualFold(t.Name, name)
}

// zone is the person's.
func (d *draft) zone() *time.Location { return d.env.Clock.Zone }
