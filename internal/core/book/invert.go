package book

import "strings"

// The kinds of changes that turn others round.
const (
	Undo Kind = "undo"
	Redo Kind = "redo"
)

// Invert returns the change that turns c round: undo of a command, redo of an
// undo. Only the fields c altered are set back, so that what another window
// did to other fields stays. Where one of those fields has been changed since,
// it refuses with a *ConflictError and says which.
func (b *Book) Invert(env Env, c *Change, kind Kind) (*Change, error) {
	d := newDraft(b, env)
	steps := []func() error{
		func() error {
			return d.shelves.invert(c.Shelves, shelfAttributes, func(s *Shelf) string { return s.Name })
		},
		func() error { return d.lists.invert(c.Lists, listAttributes, func(l *List) string { return l.Name }) },
		func() error {
			return d.sections.invert(c.Sections, sectionAttributes, func(s *Section) string { return s.Name })
		},
		func() error {
			return d.people.invert(c.People, personAttributes, func(p *Person) string { return p.Name })
		},
		func() error { return d.views.invert(c.Views, viewAttributes, func(v *View) string { return v.Name }) },
		func() error { return d.invertTodos(c.Todos) },
		func() error { return d.invertNotes(c.Notes) },
		func() error { return d.invertTags(c.Tags) },
		func() error { return d.checkRows(c) },
		d.checkTree,
	}
	for _, step := range steps {
		if err := step(); err != nil {
			return nil, err
		}
	}
	switch kind {
	case Undo:
		d.says = "Undone. " + c.Says
	default:
		d.says = strings.TrimPrefix(c.Says, "Undone. ")
	}
	return d.change(kind), nil
}

func (d *draft) invertTodos(diffs []Diff[Todo]) error {
	for _, diff := range diffs {
		if err := d.invertTodo(diff); err != nil {
			return err
		}
	}
	// A row that comes back may find its position taken.
	for _, diff := range diffs {
		if diff.After == nil {
			d.makeRoom(diff.Before.ID)
		}
	}
	return nil
}

func (d *draft) invertTodo(diff Diff[Todo]) error {
	was, is := diff.Before, diff.After // is: what the change made of it
	if is == nil {
		if _, taken := d.book.todos[was.ID]; taken {
			return &ConflictError{was.Title, []string{"restored"}}
		}
		d.record(*was)
		return nil
	}
	cur, err := d.book.Todo(is.ID)
	if err != nil {
		return &ConflictError{is.Title, []string{"removed"}}
	}
	if was == nil {
		if fields := changedFields(is, cur); len(fields) > 0 {
			return &ConflictError{cur.Title, fields}
		}
		d.takeOut(cur.ID)
		return nil
	}
	next := *cur
	var clash []string
	for _, f := range todoFields {
		if f.same(was, is) {
			continue
		}
		if !f.same(cur, is) {
			clash = append(clash, f.name)
		}
		f.copy(&next, was)
	}
	if len(clash) > 0 {
		return &ConflictError{cur.Title, clash}
	}
	next.Changed = d.now
	if cur.Changed == is.Changed {
		next.Changed = was.Changed
	}
	d.record(next)
	return nil
}

// record writes a row as it is, with a revision of its own.
func (d *draft) record(t Todo) {
	d.touched[t.ID] = true
	t.Revision = d.book.revision + 1
	d.write(d.diff(t.ID), &t)
}

// makeRoom moves a row whose position a sibling has by now to the end.
func (d *draft) makeRoom(id ID) {
	t := d.todos[id].After
	for _, s := range d.in(t.place()) {
		if s.ID != id && s.Position == t.Position {
			next := *t
			next.Position = d.endOf(t.place())
			d.record(next)
			return
		}
	}
}

func (d *draft) invertNotes(diffs []Diff[Note]) error {
	for _, diff := range diffs {
		was, is := text(diff.Before), text(diff.After)
		id := noteID(diff)
		cur := ""
		if t, err := d.book.Todo(id); err == nil {
			if cur, err = d.book.Note(t); err != nil {
				return err
			}
			if cur != is {
				return &ConflictError{t.Title, []string{"notes"}}
			}
		}
		d.notes = append(d.notes, noteDiff(id, cur, was))
	}
	return nil
}

func text(n *Note) string {
	if n == nil {
		return ""
	}
	return n.Text
}

func noteID(d Diff[Note]) ID {
	if d.Before != nil {
		return d.Before.ID
	}
	return d.After.ID
}

// invertTags takes out tags the change made, unless others carry them by now,
// and brings back those an undo took out, unless the name is taken again.
func (d *draft) invertTags(diffs []Diff[Tag]) error {
	var rest []Diff[Tag]
	for _, diff := range diffs {
		switch {
		case diff.After == nil:
			if other, taken := d.tagNamed(diff.Before.Name); taken {
				d.retag(diff.Before.ID, other.ID)
				continue
			}
		case diff.Before == nil:
			if _, err := d.book.Tag(diff.After.ID); err != nil || d.used(func(t *Todo) bool { return t.HasTag(diff.After.ID) }) {
				continue
			}
		}
		rest = append(rest, diff)
	}
	return d.tags.invert(rest, tagAttributes, func(t *Tag) string { return t.Name })
}

// used reports whether f holds of a to-do once the draft is applied.
func (d *draft) used(f func(*Todo) bool) bool {
	for t := range d.book.All() {
		if _, drafted := d.todos[t.ID]; !drafted && f(t) {
			return true
		}
	}
	for _, diff := range d.todos {
		if diff.After != nil && f(diff.After) {
			return true
		}
	}
	return false
}

// retag lets the draft's to-dos carry the tag that now has the name.
func (d *draft) retag(gone, now ID) {
	for _, id := range d.order {
		t := d.todos[id].After
		if t == nil {
			continue
		}
		var tags []ID
		for _, tag := range t.Tags {
			if tag == gone {
				tag = now
			}
			tags = append(tags, tag)
		}
		t.Tags = tags
	}
}
