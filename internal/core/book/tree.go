package book

// below calls f for each to-do under one, parents before their subtasks, as
// they are in the Book; those in the bin only where binned is set.
func (d *draft) below(id ID, binned bool, f func(*Todo) error) error {
	for _, child := range d.book.children[id] {
		t := d.book.todos[child].todo
		if !binned && !t.Deleted.IsZero() {
			continue
		}
		if err := f(t); err != nil {
			return err
		}
		if err := d.below(child, binned, f); err != nil {
			return err
		}
	}
	return nil
}

// checkParent returns the to-do that a subtask is to be put under.
func (d *draft) checkParent(id ID) (Todo, error) {
	parent, err := d.todo(id)
	switch {
	case err != nil:
		return parent, refuse("parent", "There is no to-do with the id %s to put a subtask under.", id)
	case !parent.Deleted.IsZero():
		return parent, refuse("parent", "“%s” is in the bin. Restore it first.", parent.Title)
	case !parent.Record.IsZero():
		return parent, refuse("parent", "“%s” is a record of what was done; it takes no subtasks.", parent.Title)
	}
	return parent, nil
}

// reopenAbove opens the closed to-dos above an open one, and says which.
func (d *draft) reopenAbove(id ID) {
	for !id.IsZero() {
		t, err := d.todo(id)
		if err != nil {
			return
		}
		if !t.Status.Open() {
			t.Status, t.Completed = NeedsAction, 0
			d.put(t)
			d.also = append(d.also, t.Title)
		}
		id = t.Parent
	}
}

// alsoOpen says which parents were opened again.
func (d *draft) alsoOpen() string {
	s := ""
	for _, title := range d.also {
		s += " " + quote(title) + " is open again too."
	}
	return s
}

// checkTree refuses a change that would leave a to-do without its parent, under
// one in the bin or in another list, or open under one that is closed.
func (d *draft) checkTree() error {
	for _, id := range d.order {
		diff := d.todos[id]
		if diff.After == nil {
			for _, child := range d.book.children[id] {
				if c, ok := d.todos[child]; !ok || c.After != nil && c.After.Parent == id {
					return &ConflictError{diff.Before.Title, []string{"subtasks"}}
				}
			}
			continue
		}
		if err := d.checkUnder(diff.After); err != nil {
			return err
		}
		for _, child := range d.book.children[id] {
			t, err := d.todo(child)
			if err == nil && t.Parent == id {
				if err := d.checkUnder(&t); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

func (d *draft) checkUnder(t *Todo) error {
	if t.Parent.IsZero() {
		return nil
	}
	clash := &ConflictError{t.Title, []string{"parent"}}
	if diff, ok := d.todos[t.Parent]; ok && diff.After == nil {
		return clash
	}
	parent, err := d.todo(t.Parent)
	if err != nil || parent.List != t.List || t.Deleted.IsZero() && !parent.Deleted.IsZero() || t.Open() && !parent.Status.Open() {
		return clash
	}
	for above := parent; !above.Parent.IsZero(); {
		if above.Parent == t.ID {
			return clash
		}
		if above, err = d.todo(above.Parent); err != nil {
			return clash
		}
	}
	return nil
}
