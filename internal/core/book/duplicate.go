package book

// Duplicate makes a copy of a to-do with all that is open under it, right behind it. The copy
// is open, carries no handful and no place in history, and a repeat of it begins with its
// present date.
type Duplicate struct {
	ID ID
	As ID // the id of the copy; may be none
}

// DuplicateList makes a list like another, behind it on its shelf, with copies of its sections
// and its open to-dos. It has the same name with a number.
type DuplicateList struct {
	ID ID
	As ID // the id of the copy; may be none
}

func (Duplicate) kind() Kind     { return "duplicate" }
func (DuplicateList) kind() Kind { return "duplicate-list" }

func (c Duplicate) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	next := t
	if next.ID = c.As; next.ID.IsZero() {
		next.ID = d.env.NewID()
	} else if _, err := d.desk.Todo(next.ID); err == nil {
		return refuse("as", "A to-do with the id %s exists already.", next.ID)
	}
	next.Record, next.Cleared = ID{}, false
	if !t.Record.IsZero() {
		next.Repeat = nil // the to-do that it is a record of goes on repeating
	}
	if next.Status, next.Completed = NeedsAction, 0; t.Status == InProcess {
		next.Status = InProcess
	}
	if err := d.checkStanding(&next); err != nil {
		return err
	}
	if !shownBeside(&t, &next) { // what is cleared or a record stands nowhere
		next.Position = d.endOf(next.home())
	} else if err := d.besideByHand(&next, d.in(next.home()), t.ID, Move{After: t.ID}); err != nil {
		return err
	}
	sections := map[ID]ID{t.Section: t.Section}
	n, err := d.copyTodo(&t, next, copying{t.List, sections, 0})
	if err != nil {
		return err
	}
	d.reopenAbove(next.Parent)
	d.says = "Duplicated: " + quote(t.Title)
	if n > 1 {
		d.says += ", with " + count(n-1, "subtask")
	}
	return nil
}

func (c DuplicateList) run(d *draft) error {
	l, err := d.list(c.ID)
	switch {
	case err != nil:
		return err
	case !l.Template.IsZero():
		return refuse("id", "“%s” is a template: pour it out to make a list of it.", l.Name)
	}
	name := freeName(l.Name, func(name string) bool {
		_, err := d.checkListName(ID{}, false, name)
		return err == nil
	})
	to := List{ID: c.As, Owner: d.desk.account, Shelf: l.Shelf}
	if to.ID.IsZero() {
		to.ID = d.env.NewID()
	}
	n, err := d.copyList(l, to, name, 0)
	if err != nil {
		return err
	}
	made, _ := d.lists.get(to.ID)
	if made.Position, err = beside(d.listsOn(made.Shelf, made.ID), l.ID, ID{}); err != nil {
		return err
	}
	d.lists.put(made)
	d.says = "Duplicated: " + quote(l.Name) + " as " + quote(name) + ", " + count(n, "to-do")
	return nil
}
