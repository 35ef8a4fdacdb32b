package book

import (
	"bytes"
	"cmp"
	"fmt"
	"slices"
	"strings"
)

// Notes finds the text of a to-do's notes, which the Book does not hold.
type Notes interface {
	// Note returns "" for a to-do without notes.
	Note(id ID) (string, error)
}

// Book holds every row. Make one with New.
type Book struct {
	revision int64
	notes    Notes
	todos    map[ID]place
	parts    [parts][]*Todo
	lists    map[ID]*List
	shelves  map[ID]*Shelf
	tags     map[ID]*Tag
	tagNames map[string]ID
	people   map[ID]*Person
	// children holds the subtasks of each to-do, in no order, the bin's too.
	children map[ID][]ID
	// last is the largest position that siblings have had since it was loaded.
	last map[ID]Position
}

// part is where a to-do is kept, so that a view scans only what it may hold.
type part uint8

const (
	partOpen part = iota
	partPaused
	partClosed
	partKept
	partBin
	parts
)

func partOf(t *Todo) part {
	switch {
	case !t.Deleted.IsZero():
		return partBin
	case t.kept():
		return partKept
	case t.Paused():
		return partPaused
	case t.Open():
		return partOpen
	}
	return partClosed
}

// place finds a to-do in its part.
type place struct {
	todo *Todo
	slot int
}

// New returns an empty Book whose notes are found in notes.
func New(notes Notes) *Book {
	return &Book{
		notes: notes, todos: map[ID]place{}, lists: map[ID]*List{}, shelves: map[ID]*Shelf{},
		tags: map[ID]*Tag{}, tagNames: map[string]ID{}, people: map[ID]*Person{},
		children: map[ID][]ID{}, last: map[ID]Position{},
	}
}

// Revision counts the changes applied so far.
func (b *Book) Revision() int64 { return b.revision }

// Todo returns a to-do, in the bin or not, or a *NotFoundError.
func (b *Book) Todo(id ID) (*Todo, error) {
	if p, ok := b.todos[id]; ok {
		return p.todo, nil
	}
	return nil, &NotFoundError{"to-do", id}
}

// Note returns the text of a to-do's notes.
func (b *Book) Note(t *Todo) (string, error) {
	if t.NotesSize == 0 {
		return "", nil
	}
	return b.notes.Note(t.ID)
}

// Len returns the number of to-dos, the bin included.
func (b *Book) Len() int { return len(b.todos) }

// Open returns the open to-dos in no order, without those that are paused. The
// slice is the Book's own.
func (b *Book) Open() []*Todo { return b.parts[partOpen] }

// Paused returns the open to-dos whose repeat is paused, in no order.
func (b *Book) Paused() []*Todo { return b.parts[partPaused] }

// Kept returns the subtasks of what is kept of ticked occurrences, in no order.
func (b *Book) Kept() []*Todo { return b.parts[partKept] }

// Closed returns what was completed or cancelled, in no order, and what is kept
// of ticked occurrences, without its subtasks.
func (b *Book) Closed() []*Todo { return b.parts[partClosed] }

// Bin returns the deleted to-dos in no order.
func (b *Book) Bin() []*Todo { return b.parts[partBin] }

// List returns a list, or a *NotFoundError.
func (b *Book) List(id ID) (*List, error) {
	if l, ok := b.lists[id]; ok {
		return l, nil
	}
	return nil, &NotFoundError{"list", id}
}

// Lists returns the lists in no order.
func (b *Book) Lists() []*List { return values(b.lists) }

// Shelves returns the shelves in no order.
func (b *Book) Shelves() []*Shelf { return values(b.shelves) }

// Tags returns the tags in no order.
func (b *Book) Tags() []*Tag { return values(b.tags) }

// Tag returns a tag, or a *NotFoundError.
func (b *Book) Tag(id ID) (*Tag, error) {
	if t, ok := b.tags[id]; ok {
		return t, nil
	}
	return nil, &NotFoundError{"tag", id}
}

// People returns the people in no order.
func (b *Book) People() []*Person { return values(b.people) }

// Person returns a person, or a *NotFoundError.
func (b *Book) Person(id ID) (*Person, error) {
	if p, ok := b.people[id]; ok {
		return p, nil
	}
	return nil, &NotFoundError{"person", id}
}

// Subtasks returns a to-do's own subtasks in order, without those in the bin.
func (b *Book) Subtasks(id ID) []*Todo {
	var subtasks []*Todo
	for _, child := range b.children[id] {
		if t := b.todos[child].todo; t.Deleted.IsZero() {
			subtasks = append(subtasks, t)
		}
	}
	slices.SortFunc(subtasks, func(a, b *Todo) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), bytes.Compare(a.ID[:], b.ID[:]))
	})
	return subtasks
}

// Records returns what is kept of a repeating to-do's ticked occurrences, the
// newest first.
func (b *Book) Records(id ID) []*Todo {
	var records []*Todo
	for _, t := range b.parts[partClosed] {
		if t.Record == id {
			records = append(records, t)
		}
	}
	slices.SortFunc(records, func(a, b *Todo) int {
		return cmp.Or(cmp.Compare(b.Completed, a.Completed), bytes.Compare(b.ID[:], a.ID[:]))
	})
	return records
}

func values[T any](m map[ID]*T) []*T {
	out := make([]*T, 0, len(m))
	for _, v := range m {
		out = append(out, v)
	}
	return out
}

// Apply makes the change part of the Book. The caller has kept it before; it
// must be the next one for this Book, and Apply panics when it is not.
func (b *Book) Apply(c *Change) {
	if c.Revision != b.revision+1 {
		panic(fmt.Sprintf("book: change %d applied at revision %d", c.Revision, b.revision))
	}
	b.revision = c.Revision
	b.load(c)
}

// Load puts rows into an empty Book, as read from a file, and sets its
// revision.
func (b *Book) Load(revision int64, rows *Change) {
	b.revision = revision
	b.load(rows)
}

func (b *Book) load(c *Change) {
	for _, d := range c.Shelves {
		replace(b.shelves, d, func(s *Shelf) ID { return s.ID })
	}
	for _, d := range c.Lists {
		replace(b.lists, d, func(l *List) ID { return l.ID })
	}
	for _, d := range c.Tags {
		if d.Before != nil {
			delete(b.tagNames, strings.ToLower(d.Before.Name))
		}
		if d.After != nil {
			b.tagNames[strings.ToLower(d.After.Name)] = d.After.ID
		}
		replace(b.tags, d, func(t *Tag) ID { return t.ID })
	}
	for _, d := range c.People {
		replace(b.people, d, func(p *Person) ID { return p.ID })
	}
	for _, d := range c.Todos {
		b.putTodo(d)
	}
	if m, ok := b.notes.(noteKeeper); ok {
		for _, d := range c.Notes {
			m.keep(d)
		}
	}
}

func replace[T any](m map[ID]*T, d Diff[T], id func(*T) ID) {
	if d.After != nil {
		m[id(d.After)] = d.After
	} else {
		delete(m, id(d.Before))
	}
}

func (b *Book) putTodo(d Diff[Todo]) {
	if d.After == nil {
		b.takeOut(d.Before.ID)
		return
	}
	t := d.After
	old, ok := b.todos[t.ID]
	if !ok || old.todo.Parent != t.Parent {
		if ok {
			b.unhang(old.todo)
		}
		if !t.Parent.IsZero() {
			b.children[t.Parent] = append(b.children[t.Parent], t.ID)
		}
	}
	if ok {
		if partOf(old.todo) == partOf(t) {
			b.parts[partOf(t)][old.slot] = t
			b.todos[t.ID] = place{t, old.slot}
			b.notePosition(t)
			return
		}
		b.takePart(t.ID)
	}
	part := partOf(t)
	b.todos[t.ID] = place{t, len(b.parts[part])}
	b.parts[part] = append(b.parts[part], t)
	b.notePosition(t)
}

func (b *Book) notePosition(t *Todo) {
	if place := t.place(); t.Position > b.last[place] {
		b.last[place] = t.Position
	}
}

// unhang takes a to-do from its parent's subtasks.
func (b *Book) unhang(t *Todo) {
	if t.Parent.IsZero() {
		return
	}
	rest := slices.DeleteFunc(b.children[t.Parent], func(id ID) bool { return id == t.ID })
	if len(rest) == 0 {
		delete(b.children, t.Parent)
		return
	}
	b.children[t.Parent] = rest
}

func (b *Book) takeOut(id ID) {
	b.unhang(b.todos[id].todo)
	b.takePart(id)
}

// takePart fills the gap with the part's last to-do.
func (b *Book) takePart(id ID) {
	gone := b.todos[id]
	rows := b.parts[partOf(gone.todo)]
	end := rows[len(rows)-1]
	rows[gone.slot] = end
	rows[len(rows)-1] = nil
	b.parts[partOf(gone.todo)] = rows[:len(rows)-1]
	b.todos[end.ID] = place{end, gone.slot}
	delete(b.todos, id)
}

// noteKeeper is Notes that live in memory and follow the Book.
type noteKeeper interface{ keep(Diff[Note]) }

// MemoryNotes keeps notes in memory, for Books without a file.
type MemoryNotes map[ID]string

// Note implements Notes.
func (m MemoryNotes) Note(id ID) (string, error) { return m[id], nil }

func (m MemoryNotes) keep(d Diff[Note]) {
	if d.After == nil || d.After.Text == "" {
		delete(m, d.Before.ID)
		return
	}
	m[d.After.ID] = d.After.Text
}
