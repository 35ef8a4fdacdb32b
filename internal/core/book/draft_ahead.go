package book

import "strings"

// Ahead is a change worked out ahead of its turn, with what it rests on, so that it
// need not be worked out again where what came between has nothing to do with it.
type Ahead struct {
	Change *Change
	// rows are the to-dos it writes, those they stand under, and those they are
	// records of.
	rows map[ID]bool
	// homes are the lists and parents that it puts something into, takes something
	// from, or writes; none is the Cup.
	homes map[ID]bool
	// uids are in small letters what an import knows its to-dos by, those above them included.
	// It leaves those as they are that are the same already.
	uids map[string]bool
	// tagged: some of its to-dos carry tags, before or after it. Whether a tag goes with the last
	// that carries it depends on the others.
	tagged bool
	// alone: it rests on more than can be told here.
	alone bool
}

// Ahead returns a change that Do or Invert has just worked out for this Book, with
// what it rests on; cmd is the command it was worked out of, nil for Invert. The Book
// may change afterwards.
func (b *Desk) Ahead(c *Change, cmd Command) *Ahead {
	a := &Ahead{Change: c, rows: make(map[ID]bool, len(c.Todos)), homes: map[ID]bool{},
		alone: len(c.Shelves)+len(c.Sections)+len(c.People)+len(c.Views)+len(c.Settings)+len(c.Calendars)+len(c.Rings)+len(c.Places) > 0}
	for _, d := range c.Lists {
		if d.Before == nil || d.After == nil || d.Before.Away() != d.After.Away() {
			a.alone = true
			continue
		}
		a.homes[d.After.ID] = true
	}
	for _, d := range c.Todos {
		for _, t := range []*Todo{d.Before, d.After} {
			if t == nil {
				continue
			}
			a.rows[t.ID] = true
			a.tagged = a.tagged || len(t.Tags) > 0
			a.homes[t.home()], a.homes[t.List] = true, true
			if !t.Record.IsZero() {
				a.rows[t.Record] = true
			}
			for above := t.Parent; !above.IsZero() && !a.rows[above]; {
				a.rows[above] = true
				p, ok := b.todos[above]
				if !ok {
					break
				}
				above = p.todo.Parent
			}
		}
	}
	for _, d := range c.Notes {
		a.rows[noteID(d)] = true
	}
	for _, id := range named(cmd) { // some may have stood as the command wants them
		a.rows[id] = true
	}
	if c, ok := cmd.(Import); ok {
		a.uids = make(map[string]bool, len(c.Items))
		for i := range c.Items {
			for _, uid := range []string{c.Items[i].UID, c.Items[i].Parent} {
				a.uids[strings.ToLower(uid)] = true
			}
		}
	}
	return a
}

// named returns the to-dos that a command on many names.
func named(cmd Command) []ID {
	switch c := cmd.(type) {
	case Many:
		return c.IDs
	case MoveMany:
		return append([]ID{c.To.Parent, c.To.After, c.To.Before}, c.IDs...)
	}
	return nil
}

// calm are the fields of a to-do on which nothing rests that is done to others in its
// list.
var calm = FieldsOf("notes", "status", "estimate", "reminders", "person", "attachments", "outcome", "place")

// Apart reports whether the change would have come out the same after c, which is the
// next change of the Book; b is the Book as it is after c. It errs on the side of no.
func (a *Ahead) Apart(b *Desk, c *Change) bool {
	if a.alone || c.Arranges() || len(c.Rings) > 0 {
		return false
	}
	for _, d := range c.Notes {
		if a.rows[noteID(d)] {
			return false
		}
	}
	for _, d := range c.Todos {
		for _, t := range []*Todo{d.Before, d.After} {
			if t != nil && !a.apartFrom(b, t) {
				return false
			}
		}
		if d.Before != nil && d.After != nil && d.Before.Parent.IsZero() {
			altered := Altered(d.Before, d.After)
			if altered&^calm == 0 || altered&FieldsOf("tags") == altered && !a.tagged && len(a.Change.Tags) == 0 {
				continue
			}
		}
		for _, t := range []*Todo{d.Before, d.After} {
			if t != nil && (a.homes[t.home()] || a.homes[t.List] || a.tagged && len(t.Tags) > 0 || len(a.Change.Tags) > 0) {
				return false
			}
		}
	}
	return true
}

// apartFrom reports whether the change has nothing to do with a to-do: neither with it,
// nor with what it stands under, nor with the handful.
func (a *Ahead) apartFrom(b *Desk, t *Todo) bool {
	if a.rows[t.ID] || a.uids != nil && a.uids[strings.ToLower(t.KnownAs())] || !t.Handful.IsZero() || !t.Record.IsZero() && a.rows[t.Record] {
		return false
	}
	for above := t.Parent; !above.IsZero(); {
		if a.rows[above] {
			return false
		}
		p, ok := b.todos[above]
		if !ok {
			break
		}
		above = p.todo.Parent
	}
	return true
}

// At gives the change, and every row as it is after it, the revision it gets when it
// is applied. Only one who alone holds the change may call it.
func (c *Change) At(revision int64) {
	c.Revision = revision
	for _, d := range c.Todos {
		if d.After != nil {
			d.After.Revision = revision
		}
	}
	allAt(c.Lists, revision)
	allAt(c.Sections, revision)
	allAt(c.Shelves, revision)
	allAt(c.Tags, revision)
	allAt(c.People, revision)
	allAt(c.Views, revision)
	allAt(c.Settings, revision)
	allAt(c.Calendars, revision)
	allAt(c.Rings, revision)
	allAt(c.Places, revision)
}

func allAt[T interface{ at(int64) T }](diffs []Diff[T], revision int64) {
	for _, d := range diffs {
		if d.After != nil {
			*d.After = (*d.After).at(revision)
		}
	}
}
