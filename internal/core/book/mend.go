package book

import "slices"

// Mend puts right what Faults finds as Twin or Lost: rows that stand in one
// position move apart, what names a row that is not there names none, and what
// stands in a list that is not there comes into the Cup. It is not undone.
type Mend struct{}

func (Mend) kind() Kind { return "mend" }

func (Mend) run(d *draft) error {
	d.mendHomes()
	for t := range d.desk.All() {
		d.mendTodo(*t)
		if slices.ContainsFunc(t.placeNames(), func(name string) bool { p, ok := d.placeNamed(name); return !ok || p.Name != name }) {
			if cur, err := d.todo(t.ID); err == nil {
				d.touch(cur) // its places become rows as those of all that is written
			}
		}
	}
	homes := map[ID]bool{}
	for t := range d.desk.All() {
		homes[t.home()] = true
	}
	for _, id := range d.order {
		homes[d.todos[id].After.home()] = true
	}
	for home := range homes {
		d.makeRoom(home)
	}
	d.says = "Mended what contradicted itself"
	return nil
}

func (d *draft) mendHomes() {
	for _, l := range d.lists.all() {
		if _, ok := d.people.get(l.With); !ok && !l.With.IsZero() {
			l.With = ID{}
			d.lists.put(l)
		}
		shelf, ok := d.shelves.get(l.Shelf)
		if !ok {
			l.Shelf, _ = d.shelfFor(ID{}) // none named: it cannot be refused
			d.lists.put(l)
		} else if l.Deleted.IsZero() && !shelf.Deleted.IsZero() {
			d.restoreShelf(shelf.ID)
		}
	}
	for _, s := range d.sections.all() {
		if _, ok := d.lists.get(s.List); !ok {
			d.sections.remove(s.ID)
		}
	}
	d.spread()
}

func (d *draft) mendTodo(t Todo) {
	if l, ok := d.lists.get(t.List); !ok {
		t.List = ID{}
	} else if t.Deleted.IsZero() && !l.Deleted.IsZero() {
		d.restoreList(l.ID)
	}
	if s, ok := d.sections.get(t.Section); !ok || s.List != t.List {
		t.Section = ID{}
	}
	if _, err := d.todo(t.Parent); err != nil || d.underItself(t) {
		t.Parent = ID{}
	}
	if _, ok := d.people.get(t.Person.ID); !ok {
		t.Person = Involved{}
	}
	t.Tags = slices.Clone(t.Tags)
	for i := 0; i < len(t.Tags); i++ {
		if _, ok := d.tags.get(t.Tags[i]); !ok || slices.Contains(t.Tags[:i], t.Tags[i]) {
			t.Tags = slices.Delete(t.Tags, i, i+1)
			i--
		}
	}
	if len(t.Tags) == 0 {
		t.Tags = nil
	}
	d.put(t)
}

// underItself reports whether the way up from a to-do comes round to it again.
func (d *draft) underItself(t Todo) bool {
	above := t.Parent
	for range d.desk.Len() + 1 {
		p, err := d.todo(above)
		if err != nil || p.ID == t.ID {
			return err == nil
		}
		above = p.Parent
	}
	return false // a ring further up; one of those in it is let go of
}
