package book

import "strings"

// AddShelf puts a new, empty shelf behind the others.
type AddShelf struct {
	ID   ID // may be none
	Name string
}

// AddList puts a new, empty list at the end of a shelf. Where there is no
// shelf yet and none is named, one called "Lists" is made.
type AddList struct {
	ID     ID // may be none
	Shelf  ID // none takes the first shelf
	Name   string
	Colour *Colour // nil takes the next of the eight
}

func (AddShelf) kind() Kind { return "add-shelf" }
func (AddList) kind() Kind  { return "add-list" }

func (c AddShelf) run(d *draft) error {
	name, err := checkLine("name", "name of the shelf", c.Name, MaxName)
	if err != nil {
		return err
	}
	last := Position("")
	for _, s := range d.book.shelves {
		if strings.EqualFold(s.Name, name) {
			return refuse("name", "A shelf called “%s” exists already.", s.Name)
		}
		last = max(last, s.Position)
	}
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	}
	d.shelf = append(d.shelf, Diff[Shelf]{After: &Shelf{ID: c.ID, Name: name, Position: last.After(),
		Revision: d.book.revision + 1}})
	d.says = "New shelf: " + quote(name)
	return nil
}

func (c AddList) run(d *draft) error {
	name, err := checkLine("name", "name of the list", c.Name, MaxName)
	if err != nil {
		return err
	}
	if c.Shelf, err = d.shelfFor(c.Shelf); err != nil {
		return err
	}
	last := Position("")
	for _, l := range d.book.lists {
		if strings.EqualFold(l.Name, name) {
			return refuse("name", "A list called “%s” exists already.", l.Name)
		}
		if l.Shelf == c.Shelf {
			last = max(last, l.Position)
		}
	}
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	}
	colour := Colour(len(d.book.lists) % int(colours))
	if c.Colour != nil {
		colour = *c.Colour
	}
	d.lists = append(d.lists, Diff[List]{After: &List{ID: c.ID, Shelf: c.Shelf, Name: name, Colour: colour,
		Position: last.After(), Revision: d.book.revision + 1}})
	d.says = "New list: " + quote(name)
	return nil
}

func (d *draft) shelfFor(id ID) (ID, error) {
	if !id.IsZero() {
		if _, ok := d.book.shelves[id]; !ok {
			return ID{}, refuse("shelf", "There is no shelf with the id %s.", id)
		}
		return id, nil
	}
	var first *Shelf
	for _, s := range d.book.shelves {
		if first == nil || s.Position < first.Position {
			first = s
		}
	}
	if first != nil {
		return first.ID, nil
	}
	shelf := &Shelf{ID: d.env.NewID(), Name: "Lists", Position: firstPosition, Revision: d.book.revision + 1}
	d.shelf = append(d.shelf, Diff[Shelf]{After: shelf})
	return shelf.ID, nil
}
