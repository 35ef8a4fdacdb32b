package book

import (
	"strings"

	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

// AddShelf puts a new, empty shelf behind the others.
type AddShelf struct {
	ID   ID // may be none
	Name string
}

// EditShelf changes a shelf. A nil field stays as it is.
type EditShelf struct {
	ID   ID
	Name *string
	// Hours are those that the to-dos of its lists take from now on.
	Hours *term.Hours
}

// MoveShelf puts a shelf behind or before another; with neither it goes to the
// end.
type MoveShelf struct{ ID, After, Before ID }

// DeleteShelf puts a shelf in the bin, with its lists and their to-dos.
type DeleteShelf struct{ ID ID }

// RestoreShelf takes a shelf out of the bin with what went there with it.
type RestoreShelf struct{ ID ID }

func (AddShelf) kind() Kind     { return "add-shelf" }
func (EditShelf) kind() Kind    { return "edit-shelf" }
func (MoveShelf) kind() Kind    { return "move-shelf" }
func (DeleteShelf) kind() Kind  { return "delete-shelf" }
func (RestoreShelf) kind() Kind { return "restore-shelf" }

func (d *draft) shelf(id ID) (Shelf, error) {
	s, ok := d.shelves.get(id)
	switch {
	case !ok:
		return s, &NotFoundError{"shelf", id}
	case !s.Deleted.IsZero():
		return s, refuse("id", "The shelf “%s” is in the bin. Restore it first.", s.Name)
	}
	return s, nil
}

// checkShelfName refuses a name that another shelf has.
func (d *draft) checkShelfName(id ID, name string) (string, error) {
	name, err := checkLine("name", "name of the shelf", name, MaxName)
	if err != nil {
		return "", err
	}
	for _, s := range d.shelves.all() {
		if s.ID != id && s.Deleted.IsZero() && strings.EqualFold(s.Name, name) {
			return "", refuse("name", "A shelf called “%s” exists already.", s.Name)
		}
	}
	return name, nil
}

func (c AddShelf) run(d *draft) error {
	name, err := d.checkShelfName(ID{}, c.Name)
	if err != nil {
		return err
	}
	if _, taken := d.shelves.get(c.ID); taken {
		return refuse("id", "A shelf with the id %s exists already.", c.ID)
	}
	d.newShelf(c.ID, name)
	d.says = "New shelf: " + quote(name)
	return nil
}

func (d *draft) newShelf(id ID, name string) ID {
	last := Position("")
	for _, s := range d.shelves.all() {
		last = max(last, s.Position)
	}
	if id.IsZero() {
		id = d.env.NewID()
	}
	d.shelves.put(Shelf{ID: id, Name: name, Position: last.After()})
	return id
}

func (c EditShelf) run(d *draft) error {
	s, err := d.shelf(c.ID)
	if err != nil {
		return err
	}
	d.says = "Shelf changed: " + quote(s.Name)
	if c.Name != nil {
		was := s.Name
		if s.Name, err = d.checkShelfName(c.ID, *c.Name); err != nil {
			return err
		}
		d.says = "Shelf renamed: " + quote(was) + " is now " + quote(s.Name)
	}
	if c.Hours != nil {
		s.Hours = *c.Hours
		d.says = quote(s.Name) + " now takes " + hoursSaid[s.Hours]
	}
	d.shelves.put(s)
	return nil
}

var hoursSaid = map[term.Hours]string{term.WorkingHours: "working hours", term.OwnHours: "own hours", term.NoHours: "no hours"}

// HoursOf tells which hours a to-do takes: those of the shelf on which its list stands, and
// working hours where it is in no list or its shelf is not there.
func (b *Desk) HoursOf(t *Todo) term.Hours {
	if l := b.lists[t.List]; l != nil {
		if s := b.shelves[l.Shelf]; s != nil {
			return s.Hours
		}
	}
	return term.WorkingHours
}

func (c MoveShelf) run(d *draft) error {
	s, err := d.shelf(c.ID)
	if err != nil {
		return err
	}
	var others []standing
	for _, o := range d.shelves.all() {
		if o.ID != c.ID {
			others = append(others, standing{o.ID, o.Position, o.Deleted.IsZero()})
		}
	}
	if s.Position, err = beside(others, c.After, c.Before); err != nil {
		return err
	}
	d.shelves.put(s)
	d.says = "Shelf moved: " + quote(s.Name)
	return nil
}

func (c DeleteShelf) run(d *draft) error {
	s, ok := d.shelves.get(c.ID)
	if !ok {
		return &NotFoundError{"shelf", c.ID}
	}
	d.says = "Shelf in the bin: " + quote(s.Name)
	if !s.Deleted.IsZero() {
		return nil
	}
	s.Deleted = d.now
	d.shelves.put(s)
	n := 0
	for _, l := range d.lists.all() {
		if l.Shelf == s.ID && l.Deleted.IsZero() {
			if _, err := d.binList(l); err != nil {
				return err
			}
			n++
		}
	}
	if n > 0 {
		d.says += ", with " + count(n, "list")
	}
	d.says += d.askedFor(question.Shelf, s.ID)
	return nil
}

func (c RestoreShelf) run(d *draft) error {
	s, ok := d.shelves.get(c.ID)
	if !ok {
		return &NotFoundError{"shelf", c.ID}
	}
	when := s.Deleted
	d.restoreShelf(s.ID)
	for _, l := range d.lists.all() {
		if l.Shelf == s.ID && !when.IsZero() && l.Deleted == when {
			if err := d.unbinList(l); err != nil {
				return err
			}
		}
	}
	d.says = "Restored: " + quote(s.Name)
	return nil
}

// restoreShelf takes a shelf out of the bin by itself, with a name that is free.
func (d *draft) restoreShelf(id ID) {
	s, ok := d.shelves.get(id)
	if !ok || s.Deleted.IsZero() {
		return
	}
	s.Deleted = 0
	s.Name = freeName(s.Name, func(name string) bool {
		_, err := d.checkShelfName(id, name)
		return err == nil
	})
	d.shelves.put(s)
}

// OneKind reports whether everything takes working hours: no shelf says otherwise.
func (b *Desk) OneKind() bool {
	for _, s := range b.shelves {
		if s.Hours != term.WorkingHours && s.Deleted.IsZero() {
			return false
		}
	}
	return true
}

// standing is where one of several rows stands.
type standing struct {
	id    ID
	at    Position
	shown bool
}

// beside finds a position behind one row or before another; with neither it is
// behind all.
func beside(rows []standing, after, before ID) (Position, error) {
	low, high := Position(""), Position("")
	find := func(field string, id ID) (Position, error) {
		for _, r := range rows {
			if r.id == id && r.shown {
				return r.at, nil
			}
		}
		return "", refuse(field, "There is nothing with the id %s beside which it could stand. Look again.", id)
	}
	var err error
	switch {
	case !after.IsZero():
		if low, err = find("after", after); err != nil {
			return "", err
		}
		for _, r := range rows {
			if r.at > low && (high == "" || r.at < high) {
				high = r.at
			}
		}
	case !before.IsZero():
		if high, err = find("before", before); err != nil {
			return "", err
		}
		for _, r := range rows {
			if r.at < high {
				low = max(low, r.at)
			}
		}
	default:
		for _, r := range rows {
			low = max(low, r.at)
		}
	}
	return low.Between(high), nil
}
