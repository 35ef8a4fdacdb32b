package book

import "strings"

// Invert returns the change that turns c round: undo of a command, redo of an
// undo. Only the fields c altered are set back, so that what another window
// did to other fields stays. Where one of those fields has been changed since,
// it refuses with a *ConflictError and says which.
func (b *Book) Invert(env Env, c *Change, kind Kind) (*Change, error) {
	d := newDraft(b, env)
	for _, diff := range c.Todos {
		if err := d.invertTodo(diff); err != nil {
			return nil, err
		}
	}
	for _, diff := range c.Notes {
		if err := d.invertNote(diff); err != nil {
			return nil, err
		}
	}
	if err := d.invertPlaces(c); err != nil {
		return nil, err
	}
	d.invertTags(c.Tags)
	if err := d.invertPeople(c.People); err != nil {
		return nil, err
	}
	if err := d.checkTags(); err != nil {
		return nil, err
	}
	if err := d.checkTree(); err != nil {
		return nil, err
	}
	switch kind {
	case Undo:
		d.says = "Undone. " + c.Says
	default:
		d.says = strings.TrimPrefix(c.Says, "Undone. ")
	}
	return d.change(kind), nil
}

// The kinds of changes that turn others round.
const (
	Undo Kind = "undo"
	Redo Kind = "redo"
)

func (d *draft) record(diff *Diff[Todo], id ID) {
	if diff.After != nil {
		diff.After.Revision = d.book.revision + 1
	}
	d.todos[id] = diff
	d.order = append(d.order, id)
}

func (d *draft) invertTodo(diff Diff[Todo]) error {
	was, is := diff.Before, diff.After // is: what the change made of it
	if is == nil {
		return d.recreate(was)
	}
	cur, err := d.book.Todo(is.ID)
	if err != nil {
		return &ConflictError{is.Title, []string{"removed"}}
	}
	if was == nil {
		if fields := changedFields(is, cur); len(fields) > 0 {
			return &ConflictError{cur.Title, fields}
		}
		d.record(&Diff[Todo]{Before: cur}, cur.ID)
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
	if !next.List.IsZero() && d.checkList(next.List) != nil {
		return &ConflictError{cur.Title, []string{"list"}}
	}
	next.Changed = d.now
	if cur.Changed == is.Changed {
		next.Changed = was.Changed
	}
	d.record(&Diff[Todo]{Before: cur, After: &next}, cur.ID)
	return nil
}

// recreate brings back a row that an undo took out.
func (d *draft) recreate(was *Todo) error {
	if _, taken := d.book.todos[was.ID]; taken {
		return &ConflictError{was.Title, []string{"restored"}}
	}
	if d.checkList(was.List) != nil {
		return &ConflictError{was.Title, []string{"list"}}
	}
	next := *was
	for _, part := range d.book.parts {
		for _, t := range part {
			if t.place() == next.place() && t.Position == next.Position {
				next.Position = d.endOf(next.place())
			}
		}
	}
	d.record(&Diff[Todo]{After: &next}, next.ID)
	return nil
}

func (d *draft) invertNote(diff Diff[Note]) error {
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

// invertPlaces brings shelves back before the lists on them, and takes lists
// away before their shelves.
func (d *draft) invertPlaces(c *Change) error {
	for _, diff := range c.Shelves {
		if diff.After == nil {
			back := *diff.Before
			back.Revision = d.book.revision + 1
			d.shelf = append(d.shelf, Diff[Shelf]{After: &back})
		}
	}
	for _, diff := range c.Lists {
		if err := d.invertList(diff); err != nil {
			return err
		}
	}
	for _, diff := range c.Shelves {
		if diff.After == nil {
			continue
		}
		if err := d.takeShelf(diff.After); err != nil {
			return err
		}
	}
	return nil
}

func (d *draft) invertList(diff Diff[List]) error {
	if diff.After == nil {
		back := *diff.Before
		back.Revision = d.book.revision + 1
		if err := d.checkListBack(&back); err != nil {
			return err
		}
		d.lists = append(d.lists, Diff[List]{After: &back})
		return nil
	}
	cur, err := d.book.List(diff.After.ID)
	if err != nil {
		return &ConflictError{diff.After.Name, []string{"removed"}}
	}
	for _, part := range d.book.parts {
		for _, t := range part {
			if t.List == cur.ID {
				return &ConflictError{cur.Name, []string{"its to-dos"}}
			}
		}
	}
	d.lists = append(d.lists, Diff[List]{Before: cur})
	return nil
}

// checkListBack refuses a list whose name is taken or whose shelf neither
// stands nor comes back with it.
func (d *draft) checkListBack(back *List) error {
	for _, l := range d.book.lists {
		if strings.EqualFold(l.Name, back.Name) {
			return &ConflictError{back.Name, []string{"name"}}
		}
	}
	if _, ok := d.book.shelves[back.Shelf]; ok {
		return nil
	}
	for _, diff := range d.shelf {
		if diff.After != nil && diff.After.ID == back.Shelf {
			return nil
		}
	}
	return &ConflictError{back.Name, []string{"shelf"}}
}

func (d *draft) takeShelf(shelf *Shelf) error {
	cur, ok := d.book.shelves[shelf.ID]
	if !ok {
		return &ConflictError{shelf.Name, []string{"removed"}}
	}
	for _, l := range d.book.lists {
		if l.Shelf == cur.ID && !d.removesList(l.ID) {
			return &ConflictError{cur.Name, []string{"its lists"}}
		}
	}
	d.shelf = append(d.shelf, Diff[Shelf]{Before: cur})
	return nil
}

func (d *draft) removesList(id ID) bool {
	for _, diff := range d.lists {
		if diff.After == nil && diff.Before.ID == id {
			return true
		}
	}
	return false
}

// invertTags takes out tags the change made, unless others carry them by now,
// and brings back those an undo took out, unless the name is taken again.
func (d *draft) invertTags(diffs []Diff[Tag]) {
	for _, diff := range diffs {
		if diff.After == nil {
			back := *diff.Before
			back.Revision = d.book.revision + 1
			if id, taken := d.book.tagNames[strings.ToLower(back.Name)]; taken {
				d.retag(back.ID, id)
				continue
			}
			d.tags = append(d.tags, Diff[Tag]{After: &back})
			continue
		}
		if cur, err := d.book.Tag(diff.After.ID); err == nil && !d.carried(cur.ID) {
			d.tags = append(d.tags, Diff[Tag]{Before: cur})
		}
	}
}

// checkTags refuses to-dos that would carry a tag that is gone.
func (d *draft) checkTags() error {
	there := map[ID]bool{}
	for id := range d.book.tags {
		there[id] = true
	}
	for _, diff := range d.tags {
		if diff.After != nil {
			there[diff.After.ID] = true
		} else {
			there[diff.Before.ID] = false
		}
	}
	for _, id := range d.order {
		t := d.todos[id].After
		if t == nil {
			continue
		}
		for _, tag := range t.Tags {
			if !there[tag] {
				return &ConflictError{t.Title, []string{"tags"}}
			}
		}
	}
	return nil
}

// carried reports whether a to-do will carry the tag once the draft is applied.
func (d *draft) carried(tag ID) bool {
	for _, part := range d.book.parts {
		for _, t := range part {
			if diff, ok := d.todos[t.ID]; ok {
				t = diff.After
			}
			if t != nil && t.HasTag(tag) {
				return true
			}
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

// invertPeople puts people back to what they were; one that the change put in
// goes, unless a to-do tells of them by now.
func (d *draft) invertPeople(diffs []Diff[Person]) error {
	for _, diff := range diffs {
		if diff.After == nil {
			back := *diff.Before
			checked, err := d.checkPerson(back)
			if err != nil {
				return &ConflictError{back.Name, []string{"name"}}
			}
			d.people = append(d.people, Diff[Person]{After: &checked})
			continue
		}
		cur, err := d.book.Person(diff.After.ID)
		if err != nil || cur.Revision != diff.After.Revision && (cur.Name != diff.After.Name || cur.Email != diff.After.Email || cur.Phone != diff.After.Phone) {
			return &ConflictError{diff.After.Name, []string{"person"}}
		}
		if diff.Before == nil {
			if d.involved(cur.ID) {
				return &ConflictError{cur.Name, []string{"to-dos"}}
			}
			d.people = append(d.people, Diff[Person]{Before: cur})
			continue
		}
		back, err := d.checkPerson(*diff.Before)
		if err != nil {
			return &ConflictError{cur.Name, []string{"name"}}
		}
		d.people = append(d.people, Diff[Person]{Before: cur, After: &back})
	}
	return nil
}

// involved reports whether a to-do will tell of the person.
func (d *draft) involved(person ID) bool {
	for _, part := range d.book.parts {
		for _, t := range part {
			if diff, ok := d.todos[t.ID]; ok {
				t = diff.After
			}
			if t != nil && t.Person.ID == person {
				return true
			}
		}
	}
	return false
}
