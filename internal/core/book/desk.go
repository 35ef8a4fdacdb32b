package book

import (
	"bytes"
	"cmp"
	"iter"
	"maps"
	"slices"
	"strings"
)

// Desk is the Book as one account sees it: what is the account's own. Views, filters,
// counts and search read it, and commands are done at it. It is the Book's own, and
// changes with it.
type Desk struct {
	book     *Book
	account  ID
	notes    Notes
	slack    Slack // nil but for one who reads
	todos    map[ID]seat
	parts    [parts][]*Todo
	lists    map[ID]*List
	shelves  map[ID]*Shelf
	tags     map[ID]*Tag
	tagNames map[string]ID
	people   map[ID]*Person
	sections map[ID]*Section
	views    map[ID]*View
	// chosen holds the account's settings, once there are any.
	chosen    map[ID]*Chosen
	calendars map[ID]*Calendar
	rings     map[ID]*Ring
	places    map[ID]*Place
	// placeNames holds the places by their names in small letters.
	placeNames map[string]ID
	// uids holds the to-dos that came with a UID by that.
	uids map[string]ID
	// ringsOf holds the rings of each to-do in the order in which they came.
	ringsOf map[ID][]*Ring
	// siblings holds the to-dos of each home by their positions, the bin's too.
	siblings map[ID][]*Todo
	// carriers holds how many to-dos carry each tag, the bin's too.
	carriers map[ID]int
}

func newDesk(b *Book, account ID) *Desk {
	return &Desk{
		book: b, account: account, notes: b.notes,
		todos: map[ID]seat{}, lists: map[ID]*List{}, shelves: map[ID]*Shelf{},
		tags: map[ID]*Tag{}, tagNames: map[string]ID{}, people: map[ID]*Person{},
		sections: map[ID]*Section{}, views: map[ID]*View{}, chosen: map[ID]*Chosen{}, calendars: map[ID]*Calendar{}, siblings: map[ID][]*Todo{},
		carriers: map[ID]int{}, rings: map[ID]*Ring{}, ringsOf: map[ID][]*Ring{}, places: map[ID]*Place{}, placeNames: map[string]ID{}, uids: map[string]ID{},
	}
}

// Account is the one whose desk it is.
func (b *Desk) Account() ID { return b.account }

// With returns the Desk with its notes and its slack found elsewhere, for one who reads it;
// slack may be nil. It is good for as long as the Book does not change.
func (b *Desk) With(notes Notes, slack Slack) *Desk {
	same := *b
	same.notes, same.slack = notes, slack
	return &same
}

// Slack tells how much room to-dos have until their dues. It is reckoned from hours and events
// as well as from rows.
type Slack interface {
	// Spare is the slack of an open to-do in minutes, less than nothing where more is due by
	// then than can be done; known is false where no due is ahead.
	Spare(*Desk, *Todo) (minutes int, known bool)
}

// Spare is the slack of a to-do, where the Desk was given what tells it.
func (b *Desk) Spare(t *Todo) (minutes int, known bool) {
	if b.slack == nil {
		return 0, false
	}
	return b.slack.Spare(b, t)
}

// Arrangement returns a Desk of its own with the same shelves, lists, sections, tags, people,
// places and views, and no to-do.
func (b *Desk) Arrangement() *Desk {
	bare := newDesk(&Book{revision: b.book.revision, notes: MemoryNotes{}}, b.account)
	bare.lists, bare.shelves, bare.tags = maps.Clone(b.lists), maps.Clone(b.shelves), maps.Clone(b.tags)
	bare.tagNames, bare.people = maps.Clone(b.tagNames), maps.Clone(b.people)
	bare.sections, bare.views = maps.Clone(b.sections), maps.Clone(b.views)
	bare.places, bare.placeNames = maps.Clone(b.places), maps.Clone(b.placeNames)
	return bare
}

// Revision counts the changes applied to the Book so far, of all accounts.
func (b *Desk) Revision() int64 { return b.book.revision }

// Todo returns a to-do, in the bin or not, or a *NotFoundError.
func (b *Desk) Todo(id ID) (*Todo, error) {
	if p, ok := b.todos[id]; ok {
		return p.todo, nil
	}
	return nil, &NotFoundError{"to-do", id}
}

// Note returns the text of a to-do's notes.
func (b *Desk) Note(t *Todo) (string, error) {
	if t.NotesSize == 0 {
		return "", nil
	}
	return b.notes.Note(t.ID)
}

// NotesHolding returns the to-dos whose notes, in lower case, hold a text that is
// in lower case. The map is not to be written to.
func (b *Desk) NotesHolding(text string) (map[ID]bool, error) { return b.notes.Holding(text) }

// Len returns the number of to-dos, the bin included.
func (b *Desk) Len() int { return len(b.todos) }

// Open returns the open to-dos in no order, without those that are paused. The
// slice is the Book's own.
func (b *Desk) Open() []*Todo { return b.parts[partOpen] }

// IsOpen reports whether a to-do of the Book is one of Open.
func (b *Desk) IsOpen(t *Todo) bool {
	return b.partOf(t) == partOpen
}

// IsShown reports whether a to-do of the Book is one of Open, Paused, Notes or Closed.
func (b *Desk) IsShown(t *Todo) bool {
	at, there := b.todos[t.ID]
	return there && slices.Contains([]part{partOpen, partPaused, partNotes, partClosed}, at.part)
}

// Paused returns the open to-dos whose repeat is paused, in no order.
func (b *Desk) Paused() []*Todo { return b.parts[partPaused] }

// Closed returns what was completed or cancelled, in no order, and what is kept
// of ticked occurrences, without its subtasks.
func (b *Desk) Closed() []*Todo { return b.parts[partClosed] }

// Notes returns what is kind note, in no order.
func (b *Desk) Notes() []*Todo { return b.parts[partNotes] }

// Away returns the to-dos of archived lists and of templates, in no order.
func (b *Desk) Away() []*Todo { return b.parts[partAway] }

// those returns the to-dos that meet something, the bin's too, in the order of their ids: what
// a command writes is the same whatever was done before.
func (b *Desk) those(meets func(*Todo) bool) []*Todo {
	var all []*Todo
	for t := range b.All() {
		if meets(t) {
			all = append(all, t)
		}
	}
	slices.SortFunc(all, func(s, t *Todo) int { return s.ID.Compare(t.ID) })
	return all
}

// All yields every to-do, the bin's too, in no order.
func (b *Desk) All() iter.Seq[*Todo] {
	return func(yield func(*Todo) bool) {
		for _, part := range b.parts {
			for _, t := range part {
				if !yield(t) {
					return
				}
			}
		}
	}
}

// Bin returns the deleted to-dos in no order.
func (b *Desk) Bin() []*Todo { return b.parts[partBin] }

// List returns a list, or a *NotFoundError.
func (b *Desk) List(id ID) (*List, error) {
	if l, ok := b.lists[id]; ok {
		return l, nil
	}
	return nil, &NotFoundError{"list", id}
}

// Lists returns the lists in no order: templates, archived ones and the bin's too.
func (b *Desk) Lists() []*List { return values(b.lists) }

// Shelf returns a shelf, or a *NotFoundError.
func (b *Desk) Shelf(id ID) (*Shelf, error) {
	if s, ok := b.shelves[id]; ok {
		return s, nil
	}
	return nil, &NotFoundError{"shelf", id}
}

// Section returns a section, or a *NotFoundError.
func (b *Desk) Section(id ID) (*Section, error) {
	if s, ok := b.sections[id]; ok {
		return s, nil
	}
	return nil, &NotFoundError{"section", id}
}

// Sections returns the sections of a list in order.
func (b *Desk) Sections(list ID) []*Section {
	var sections []*Section
	for _, s := range b.sections {
		if s.List == list {
			sections = append(sections, s)
		}
	}
	slices.SortFunc(sections, func(a, b *Section) int {
		return compareStanding(a.Position, b.Position, a.ID, b.ID)
	})
	return sections
}

// compareStanding compares rows by their positions; the id settles the rest.
func compareStanding(a, b Position, idA, idB ID) int {
	return cmp.Or(cmp.Compare(a, b), bytes.Compare(idA[:], idB[:]))
}

// Shelves returns the shelves in no order, the bin's too.
func (b *Desk) Shelves() []*Shelf { return values(b.shelves) }

// Tags returns the tags in no order.
func (b *Desk) Tags() []*Tag { return values(b.tags) }

// Tag returns a tag, or a *NotFoundError.
func (b *Desk) Tag(id ID) (*Tag, error) {
	if t, ok := b.tags[id]; ok {
		return t, nil
	}
	return nil, &NotFoundError{"tag", id}
}

// People returns the people in no order.
func (b *Desk) People() []*Person { return values(b.people) }

// Person returns a person, or a *NotFoundError.
func (b *Desk) Person(id ID) (*Person, error) {
	if p, ok := b.people[id]; ok {
		return p, nil
	}
	return nil, &NotFoundError{"person", id}
}

// Subtasks returns a to-do's own subtasks in order, without those in the bin.
func (b *Desk) Subtasks(id ID) []*Todo { return b.subtasksBy(id, ByHand) }

func (b *Desk) subtasksBy(id ID, order Order) []*Todo {
	var subtasks []*Todo
	for _, t := range b.siblings[id] {
		if t.Deleted.IsZero() {
			subtasks = append(subtasks, t)
		}
	}
	slices.SortFunc(subtasks, order.Compare)
	return subtasks
}

// Top is the to-do that one stands under and that stands under none; itself where it is no subtask.
func (b *Desk) Top(t *Todo) *Todo {
	for !t.Parent.IsZero() {
		parent, err := b.Todo(t.Parent)
		if err != nil {
			break
		}
		t = parent
	}
	return t
}

// HasSubtasks reports whether a to-do is a project: something to do under it
// is not in the bin.
func (b *Desk) HasSubtasks(id ID) bool {
	return slices.ContainsFunc(b.siblings[id], func(t *Todo) bool { return t.Deleted.IsZero() && !t.IsNote })
}

// OfList yields every to-do of a list, or under a to-do, its records and what is in the
// bin too, in no order; none is the Cup.
func (b *Desk) OfList(list ID) iter.Seq[*Todo] {
	return func(yield func(*Todo) bool) { b.walk(list, yield) }
}

func (b *Desk) walk(home ID, yield func(*Todo) bool) bool {
	for _, t := range b.siblings[home] {
		if !yield(t) || !b.walk(t.ID, yield) {
			return false
		}
	}
	return true
}

// Records returns what is kept of a repeating to-do's ticked occurrences, the
// newest first.
func (b *Desk) Records(id ID) []*Todo {
	var records []*Todo
	for _, part := range [][]*Todo{b.parts[partClosed], b.parts[partAway]} {
		for _, t := range part {
			if t.Record == id && t.Parent.IsZero() {
				records = append(records, t)
			}
		}
	}
	slices.SortFunc(records, func(a, b *Todo) int {
		return cmp.Or(cmp.Compare(b.Completed, a.Completed), b.ID.Compare(a.ID))
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

func (b *Desk) load(c *Change) {
	for _, d := range c.Shelves {
		replace(b.shelves, d, func(s *Shelf) ID { return s.ID })
	}
	for _, d := range c.Lists {
		replace(b.lists, d, func(l *List) ID { return l.ID })
		if d.Before != nil && d.After != nil && d.Before.Away() != d.After.Away() {
			b.sortAnew(d.After.ID)
		}
	}
	for _, d := range c.Sections {
		replace(b.sections, d, func(s *Section) ID { return s.ID })
	}
	for _, d := range c.Tags { // all old names first: one may be another's new one
		if d.Before != nil {
			delete(b.tagNames, strings.ToLower(d.Before.Name))
		}
	}
	for _, d := range c.Tags {
		if d.After != nil {
			b.tagNames[strings.ToLower(d.After.Name)] = d.After.ID
		}
		replace(b.tags, d, func(t *Tag) ID { return t.ID })
	}
	for _, d := range c.Views {
		replace(b.views, d, func(v *View) ID { return v.ID })
	}
	for _, d := range c.Calendars {
		replace(b.calendars, d, func(c *Calendar) ID { return c.ID })
	}
	b.loadRings(c.Rings)
	b.loadPlaces(c.Places)
	b.loadUIDs(c.Todos)
	for _, d := range c.Settings {
		replace(b.chosen, d, func(s *Chosen) ID { return s.Account })
	}
	for _, d := range c.People {
		replace(b.people, d, func(p *Person) ID { return p.ID })
	}
	switch {
	case b.Len() == 0:
		b.fill(c.Todos)
	case len(c.Todos) > manyAtOnce:
		b.hangMany(c.Todos)
		for _, d := range c.Todos {
			b.putPart(d)
		}
	default:
		for _, d := range c.Todos {
			b.hang(d)
			b.putPart(d)
		}
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
