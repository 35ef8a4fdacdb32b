package book

import (
	"cmp"
	"regexp"
	"slices"
	"strings"
	"unicode"

	"tincup/internal/core/day"
)

// Whole returns every row of the desk as new: what MoveIn takes into another Book. The account is
// left out of it. The error is that of reading notes.
func (b *Desk) Whole() (*Change, error) {
	c := &Change{Kind: MoveIn{}.kind(), Says: "Everything"}
	for t := range b.All() {
		note, err := b.Note(t)
		if err != nil {
			return nil, err
		}
		if note != "" {
			c.Notes = append(c.Notes, Diff[Note]{After: &Note{t.ID, note}})
		}
		c.Todos = append(c.Todos, Diff[Todo]{After: t})
	}
	for _, l := range b.Lists() {
		bare := *l
		bare.Owner = ID{}
		c.Lists = append(c.Lists, Diff[List]{After: &bare})
	}
	if s, ever := b.Settings(); ever {
		c.Settings = []Diff[Chosen]{{After: &Chosen{Settings: s}}}
	}
	c.Sections, c.Shelves, c.Tags = asNew(values(b.sections)), asNew(values(b.shelves)), asNew(values(b.tags))
	c.People, c.Views, c.Calendars = asNew(values(b.people)), asNew(values(b.views)), asNew(values(b.calendars))
	c.Rings, c.Places = asNew(values(b.rings)), asNew(values(b.places))
	return c, nil
}

func asNew[T any](rows []*T) []Diff[T] {
	out := make([]Diff[T], len(rows))
	for i, row := range rows {
		out[i].After = row
	}
	return out
}

// MoveIn takes all rows of another Book, as Whole has them, into one in which nothing is yet but
// settings. Ids, positions, dates of making and rings stay. What no command would have left so is
// refused with what is wrong.
type MoveIn struct{ Rows *Change }

func (MoveIn) kind() Kind { return "move-in" }

func (c MoveIn) run(d *draft) error {
	b := d.desk
	if b.Len()+len(b.lists)+len(b.tags)+len(b.people)+len(b.views)+len(b.calendars)+len(b.places)+len(b.shelves) > 0 {
		return refuse("file", "Everything of another installation goes into an empty one, and here there is something already. Start with another data file, as in tincup serve --db other.db.")
	}
	m := movingIn{d: d, seen: map[ID]bool{}}
	for _, take := range []func(*Change) error{m.arrangement, m.todos, m.rings} {
		if err := take(c.Rows); err != nil {
			return err
		}
	}
	for _, s := range c.Rows.Settings {
		d.chosen.put(Chosen{Account: b.account, Settings: s.After.Settings})
	}
	for _, check := range []func() error{d.checkRows, d.checkTree} {
		if err := check(); err != nil {
			return refuse("file", "What is in it contradicts itself: %s", err)
		}
	}
	if err := m.sound(); err != nil {
		return err
	}
	d.says = "Moved in: " + count(len(c.Rows.Todos), "to-do") + ", " + count(len(c.Rows.Lists), "list")
	return nil
}

type movingIn struct {
	d    *draft
	seen map[ID]bool
}

// once refuses an id that is none, or that another row has.
func (m *movingIn) once(what string, id ID) error {
	if id.IsZero() || m.seen[id] {
		return refuse("file", "The %s %s is there twice, or has no id.", what, id)
	}
	m.seen[id] = true
	return nil
}

// takeIn puts rows of a kind in that look as check wants them.
func takeIn[T row[T]](m *movingIn, what string, into *rows[T], from []Diff[T], check func(T) (T, error)) error {
	for _, diff := range from {
		if diff.After == nil {
			return refuse("file", "A %s in it has no row.", what)
		}
		v := *diff.After
		if err := m.once(what, v.key()); err != nil {
			return err
		}
		into.put(v) // before it is looked at: names are looked for among all
		v, err := check(v)
		if err != nil {
			return aboutField("file", err)
		}
		into.put(v)
	}
	return nil
}

func (m *movingIn) arrangement(c *Change) (err error) {
	d := m.d
	steps := []func() error{
		func() error {
			return takeIn(m, "shelf", &d.shelves, c.Shelves, func(s Shelf) (Shelf, error) {
				if s.Deleted.IsZero() {
					s.Name, err = d.checkShelfName(s.ID, s.Name)
				}
				return s, cmp.Or(err, m.stands(s.Position))
			})
		},
		func() error {
			return takeIn(m, "list", &d.lists, c.Lists, func(l List) (List, error) {
				l.Owner = d.desk.account
				l.Name, err = checkLine("name", "name of the list", l.Name, MaxName)
				return l, cmp.Or(err, m.stands(l.Position))
			})
		},
		func() error {
			return takeIn(m, "section", &d.sections, c.Sections, func(s Section) (Section, error) {
				s.Name, err = checkLine("name", "name of the section", s.Name, MaxName)
				return s, cmp.Or(err, m.stands(s.Position))
			})
		},
		func() error {
			return takeIn(m, "tag", &d.tags, c.Tags, func(t Tag) (Tag, error) {
				t.Name, err = checkTag(t.Name)
				return t, err
			})
		},
		func() error { return takeIn(m, "person", &d.people, c.People, d.checkPerson) },
		func() error { return takeIn(m, "place", &d.places, c.Places, d.checkPlace) },
		func() error { return takeIn(m, "calendar", &d.calendars, c.Calendars, d.checkCalendar) },
		func() error {
			return takeIn(m, "view", &d.views, c.Views, func(v View) (View, error) {
				v, err := d.checkView(v)
				return v, cmp.Or(err, m.stands(v.Position))
			})
		},
	}
	for _, step := range steps {
		if err := step(); err != nil {
			return err
		}
	}
	return nil
}

// positions are those that this package makes.
var positions = regexp.MustCompile(`^[a-z][0-9A-Za-z]{1,200}$`)

func (m *movingIn) stands(p Position) error {
	if !positions.MatchString(string(p)) {
		return refuse("file", "%.40q is no position.", string(p))
	}
	return nil
}

var hashes = regexp.MustCompile(`^[0-9a-f]{64}$`)

func (m *movingIn) todos(c *Change) error {
	d := m.d
	notes := map[ID]string{}
	for _, n := range c.Notes {
		if n.After == nil {
			return refuse("file", "Notes in it have no row.")
		}
		text, err := checkNotes(n.After.Text)
		if err != nil {
			return aboutField("file", err)
		}
		notes[n.After.ID] = text
	}
	for _, diff := range c.Todos {
		if diff.After == nil {
			return refuse("file", "A to-do in it has no row.")
		}
		t := *diff.After
		if err := m.once("to-do", t.ID); err != nil {
			return err
		}
		if err := m.todo(&t); err != nil {
			return refuse("file", "“%.60s”: %s", t.Title, err)
		}
		text := notes[t.ID]
		delete(notes, t.ID)
		if t.NotesSize = int32(len(text)); text != "" {
			d.notes = append(d.notes, noteDiff(t.ID, "", text))
		}
		t.Revision = d.desk.Revision() + 1
		d.write(d.diff(t.ID), &t) // as it was made and changed
	}
	if len(notes) > 0 {
		return refuse("file", "There are notes in it of to-dos that are not.")
	}
	return nil
}

// todo looks at the fields of a to-do that say something by themselves.
func (m *movingIn) todo(t *Todo) (err error) {
	if t.Title, err = checkTitle(t.Title); err != nil {
		return err
	}
	for _, line := range []struct {
		name string
		of   *string
		most int
	}{{"outcome", &t.Outcome, MaxOutcome}, {"place", &t.Place, MaxPlace}} {
		if *line.of, err = lineOrNone(line.name, "", line.of, line.most); err != nil {
			return err
		}
	}
	if t.Estimate < 0 || t.Estimate > MaxEstimate || len(t.Reminders) > MaxReminders || len(t.UID) > MaxUID || strings.ContainsFunc(t.UID, unicode.IsControl) {
		return refuse("file", "Its estimate, its reminders or its UID are more than there can be.")
	}
	if t.Repeat != nil && t.Repeat.Rule == nil {
		return refuse("repeat", "A repeat without a rule is none.")
	}
	files := t.Attachments
	t.Attachments = nil
	for _, a := range files {
		if !hashes.MatchString(a.Hash) {
			return refuse("attachments", "An attached file has no hash.")
		}
		if t.Attachments, err = withFile(t.Attachments, a); err != nil {
			return err
		}
	}
	return m.stands(t.Position)
}

func (m *movingIn) rings(c *Change) error {
	return takeIn(m, "ring", &m.d.rings, c.Rings, func(r Ring) (Ring, error) {
		if _, err := m.d.todo(r.Todo); err != nil {
			return r, refuse("file", "A reminder that rang is of no to-do in it.")
		}
		return r, nil
	})
}

// sound looks at what will be there as each start looks at a data file.
func (m *movingIn) sound() error {
	d := m.d
	scratch, desk := Alone(MemoryNotes{})
	c := &Change{Actor: scratch.Owner(), Lists: d.lists.changes(), Sections: d.sections.changes(), Shelves: d.shelves.changes(), Tags: d.tags.changes(),
		People: d.people.changes(), Places: d.places.changes(), Views: d.views.changes()}
	for _, id := range d.order {
		c.Todos = append(c.Todos, *d.todos[id])
	}
	scratch.Load(0, c)
	faults := desk.Faults(day.Date{})
	worst := slices.IndexFunc(faults, func(f Fault) bool { return f.Gravity != Clash })
	if worst >= 0 {
		return refuse("file", "What is in it contradicts itself: %s", faults[worst].Says)
	}
	return nil
}
