package book

import (
	"strings"

	"tincup/internal/core/question"
)

// AddSection puts a new section behind the others of a list.
type AddSection struct {
	ID   ID // may be none
	List ID
	Name string
}

// EditSection renames a section.
type EditSection struct {
	ID   ID
	Name string
}

// MoveSection puts a section, with its to-dos, behind or before another one of
// its list; with neither it goes to the end.
type MoveSection struct{ ID, After, Before ID }

// DeleteSection takes a section's heading away. Its to-dos stay in the list,
// or go to the bin with it.
type DeleteSection struct {
	ID        ID
	WithTodos bool
}

func (AddSection) kind() Kind    { return "add-section" }
func (EditSection) kind() Kind   { return "edit-section" }
func (MoveSection) kind() Kind   { return "move-section" }
func (DeleteSection) kind() Kind { return "delete-section" }

func (d *draft) section(id ID) (Section, error) {
	s, ok := d.sections.get(id)
	if !ok {
		return s, &NotFoundError{"section", id}
	}
	return s, nil
}

func (d *draft) checkSectionName(s Section, name string) (string, error) {
	name, err := checkLine("name", "name of the section", name, MaxName)
	if err != nil {
		return "", err
	}
	for _, o := range d.sections.all() {
		if o.ID != s.ID && o.List == s.List && strings.EqualFold(o.Name, name) {
			return "", refuse("name", "A section called “%s” exists already in this list.", o.Name)
		}
	}
	return name, nil
}

func (d *draft) sectionsOf(list, but ID) []standing {
	var others []standing
	for _, s := range d.sections.all() {
		if s.List == list && s.ID != but {
			others = append(others, standing{s.ID, s.Position, true})
		}
	}
	return others
}

func (c AddSection) run(d *draft) error {
	if _, err := d.list(c.List); err != nil {
		return err
	}
	s, err := d.addSection(Section{ID: c.ID, List: c.List}, c.Name)
	if err != nil {
		return err
	}
	d.says = "New section: " + quote(s.Name)
	return nil
}

func (d *draft) addSection(s Section, name string) (Section, error) {
	var err error
	if s.Name, err = d.checkSectionName(s, name); err != nil {
		return s, err
	}
	if s.ID.IsZero() {
		s.ID = d.env.NewID()
	} else if _, taken := d.sections.get(s.ID); taken {
		return s, refuse("id", "A section with the id %s exists already.", s.ID)
	}
	if s.Position, err = beside(d.sectionsOf(s.List, s.ID), ID{}, ID{}); err != nil {
		return s, err
	}
	d.sections.put(s)
	return s, nil
}

// sectionNamed returns the section of a list with a name, and makes it where
// there is none.
func (d *draft) sectionNamed(list ID, name string) (ID, error) {
	if _, err := d.list(list); err != nil {
		return ID{}, refuse("list", "A heading is a section of a list. Say which list.")
	}
	for _, s := range d.sections.all() {
		if s.List == list && strings.EqualFold(s.Name, strings.TrimSpace(name)) {
			return s.ID, nil
		}
	}
	s, err := d.addSection(Section{List: list}, name)
	return s.ID, err
}

func (c EditSection) run(d *draft) error {
	s, err := d.section(c.ID)
	if err != nil {
		return err
	}
	was := s.Name
	if s.Name, err = d.checkSectionName(s, c.Name); err != nil {
		return err
	}
	d.sections.put(s)
	d.says = "Section renamed: " + quote(was) + " is now " + quote(s.Name)
	return nil
}

func (c MoveSection) run(d *draft) error {
	s, err := d.section(c.ID)
	if err != nil {
		return err
	}
	if s.Position, err = beside(d.sectionsOf(s.List, s.ID), c.After, c.Before); err != nil {
		return err
	}
	d.sections.put(s)
	d.says = "Section moved: " + quote(s.Name)
	return nil
}

func (c DeleteSection) run(d *draft) error {
	s, err := d.section(c.ID)
	if err != nil {
		return err
	}
	d.says = "Section removed: " + quote(s.Name)
	n := 0
	for _, t := range d.in(s.List) {
		if t.Section != s.ID {
			continue
		}
		next := *t
		next.Section = ID{}
		if err := d.settle(next, *t); err != nil {
			return err
		}
		if c.WithTodos && next.Deleted.IsZero() {
			n++
			if next, err = d.todo(t.ID); err != nil {
				return err
			}
			if err := d.bin(next); err != nil {
				return err
			}
		}
	}
	d.sections.remove(s.ID)
	if n > 0 {
		d.says += ", with " + count(n, "to-do") + " now in the bin"
	}
	d.says += d.askedFor(question.Section, s.ID)
	return nil
}
