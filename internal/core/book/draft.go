package book

import (
	"slices"
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

// Do works out what a command would change. The Book stays as it is until the
// Change is given to Apply. Errors are *RuleError, *NotFoundError or come from
// reading notes.
func (b *Book) Do(env Env, cmd Command) (*Change, error) {
	d := newDraft(b, env)
	if err := cmd.run(d); err != nil {
		return nil, err
	}
	return d.change(cmd.kind()), nil
}

// draft collects the rows a command alters; reads see what it wrote.
type draft struct {
	book *Book
	env  Env
	now  day.Timestamp
	says string
	also []string // titles of parents opened on the way

	todos  map[ID]*Diff[Todo]
	order  []ID
	notes  []Diff[Note]
	lists  []Diff[List]
	shelf  []Diff[Shelf]
	tags   []Diff[Tag]
	people []Diff[Person]
}

func newDraft(b *Book, env Env) *draft {
	return &draft{book: b, env: env, now: day.TimestampOf(env.Clock.Now), todos: map[ID]*Diff[Todo]{}}
}

// todo returns a copy that the command may write to and put back.
func (d *draft) todo(id ID) (Todo, error) {
	if diff, ok := d.todos[id]; ok {
		if diff.After == nil {
			return Todo{}, &NotFoundError{"to-do", id}
		}
		return *diff.After, nil
	}
	t, err := d.book.Todo(id)
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
	diff, seen := d.todos[t.ID]
	if !seen {
		diff = &Diff[Todo]{}
		if p, ok := d.book.todos[t.ID]; ok {
			diff.Before = p.todo
		}
	}
	if diff.Before != nil && len(changedFields(diff.Before, &t)) == 0 {
		return
	}
	t.Changed = d.now
	t.Revision = d.book.revision + 1
	diff.After = &t
	if !seen {
		d.todos[t.ID] = diff
		d.order = append(d.order, t.ID)
	}
}

func (d *draft) setNotes(t *Todo, text string) error {
	before, err := d.book.Note(t)
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

func (d *draft) change(kind Kind) *Change {
	c := &Change{Revision: d.book.revision + 1, Kind: kind, Says: d.says,
		Notes: d.notes, Lists: d.lists, Shelves: d.shelf, Tags: d.tags, People: d.people}
	for _, id := range d.order {
		c.Todos = append(c.Todos, *d.todos[id])
	}
	return c
}

// endOf returns a position behind all to-dos of a place: a list, the Cup or the
// subtasks of a parent.
func (d *draft) endOf(place ID) Position {
	last := d.book.last[place]
	for _, id := range slices.Backward(d.order) {
		if t := d.todos[id].After; t != nil && t.place() == place {
			last = max(last, t.Position)
		}
	}
	return last.After()
}

// zone is the person's.
func (d *draft) zone() *time.Location { return d.env.Clock.Zone }
