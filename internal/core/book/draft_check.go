package book

import (
	"slices"
	"strings"
)

// checkRows refuses a change after which a row would refer to one that is gone,
// or have another's name. Rows that were not written are looked at only where
// something went.
func (d *draft) checkRows() error {
	for _, check := range []func() error{d.checkShelves, d.checkLists, d.checkSections, d.checkTagNames, d.checkPeople, d.checkViews, d.checkCalendars, d.checkPlaces} {
		if err := check(); err != nil {
			return err
		}
	}
	for _, id := range d.order {
		if t := d.todos[id].After; t != nil {
			if err := d.checkRefers(t); err != nil {
				return err
			}
		}
	}
	gone := d.gone()
	if len(gone) == 0 {
		return nil
	}
	for t := range d.desk.All() {
		if !gone[t.List] && !gone[t.Section] && !gone[t.Person.ID] && !slices.ContainsFunc(t.Tags, func(tag ID) bool { return gone[tag] }) {
			continue
		}
		if _, drafted := d.todos[t.ID]; drafted {
			continue
		}
		if err := d.checkRefers(t); err != nil {
			return err
		}
	}
	return nil
}

// gone are the rows that a to-do may name and that the draft takes out, or puts in
// the bin. A tag counts only where some to-do that is not written carries it.
func (d *draft) gone() map[ID]bool {
	gone := map[ID]bool{}
	tags := map[ID]int{}
	for id, diff := range d.tags.diffs {
		if diff.After == nil {
			tags[id] = d.desk.carriers[id]
		}
	}
	d.carried(tags)
	for id, n := range tags {
		if n > 0 {
			gone[id] = true
		}
	}
	for id, diff := range d.lists.diffs {
		if diff.After == nil || !diff.After.Deleted.IsZero() {
			gone[id] = true
		}
	}
	removed(gone, &d.sections)
	removed(gone, &d.people)
	return gone
}

func removed[T row[T]](into map[ID]bool, r *rows[T]) {
	for id, diff := range r.diffs {
		if diff.After == nil {
			into[id] = true
		}
	}
}

// checkRefers refuses a to-do in a list that is gone, in the bin by itself, and
// so on. The conflict names what went.
func (d *draft) checkRefers(t *Todo) error {
	if !t.List.IsZero() {
		l, ok := d.lists.get(t.List)
		if !ok {
			return d.missing(d.desk.lists[t.List], t, "list")
		}
		if !l.Deleted.IsZero() && t.Deleted.IsZero() {
			return &ConflictError{l.Name, []string{"its to-dos"}}
		}
	}
	if !t.Section.IsZero() {
		if s, ok := d.sections.get(t.Section); !ok || s.List != t.List {
			return &ConflictError{t.Title, []string{"section"}}
		}
	}
	for _, tag := range t.Tags {
		if _, ok := d.tags.get(tag); !ok {
			return &ConflictError{t.Title, []string{"tags"}}
		}
	}
	if !t.Person.ID.IsZero() {
		if _, ok := d.people.get(t.Person.ID); !ok {
			return &ConflictError{t.Title, []string{"person"}}
		}
	}
	return nil
}

func (d *draft) missing(was *List, t *Todo, field string) error {
	if was != nil {
		return &ConflictError{was.Name, []string{"its to-dos"}}
	}
	return &ConflictError{t.Title, []string{field}}
}

func (d *draft) checkShelves() error {
	for _, id := range d.shelves.order {
		s, ok := d.shelves.get(id)
		if !ok || !s.Deleted.IsZero() {
			for _, l := range d.lists.all() {
				if l.Shelf == id && (!ok || l.Deleted.IsZero()) {
					return &ConflictError{l.Name, []string{"shelf"}}
				}
			}
			continue
		}
		for _, o := range d.shelves.all() {
			if o.ID != id && o.Deleted.IsZero() && strings.EqualFold(o.Name, s.Name) {
				return &ConflictError{s.Name, []string{"name"}}
			}
		}
	}
	return nil
}

func (d *draft) checkLists() error {
	for _, id := range d.lists.order {
		l, ok := d.lists.get(id)
		if !ok {
			for _, s := range d.sections.all() {
				if s.List == id {
					return &ConflictError{s.Name, []string{"list"}}
				}
			}
			continue
		}
		if shelf, ok := d.shelves.get(l.Shelf); !ok || l.Deleted.IsZero() && !shelf.Deleted.IsZero() {
			return &ConflictError{l.Name, []string{"shelf"}}
		}
		if _, ok := d.people.get(l.With); !ok && !l.With.IsZero() {
			return &ConflictError{l.Name, []string{"person"}}
		}
		if _, err := d.checkListName(id, !l.Template.IsZero(), l.Name); err != nil && l.Deleted.IsZero() {
			return &ConflictError{l.Name, []string{"name"}}
		}
	}
	return nil
}

func (d *draft) checkSections() error {
	for _, id := range d.sections.order {
		s, ok := d.sections.get(id)
		if !ok {
			continue
		}
		if _, ok := d.lists.get(s.List); !ok {
			return &ConflictError{s.Name, []string{"list"}}
		}
		if _, err := d.checkSectionName(s, s.Name); err != nil {
			return &ConflictError{s.Name, []string{"name"}}
		}
	}
	return nil
}

func (d *draft) checkTagNames() error {
	for _, id := range d.tags.order {
		t, ok := d.tags.get(id)
		if !ok {
			continue
		}
		for _, o := range d.tags.all() {
			if o.ID != id && strings.EqualFold(o.Name, t.Name) {
				return &ConflictError{t.Name, []string{"name"}}
			}
		}
	}
	return nil
}

func (d *draft) checkPeople() error {
	for _, id := range d.people.order {
		if p, ok := d.people.get(id); ok {
			if _, err := d.checkPerson(p); err != nil {
				return &ConflictError{p.Name, []string{"name"}}
			}
			continue
		}
		for _, l := range d.lists.all() {
			if l.With == id {
				return &ConflictError{l.Name, []string{"person"}}
			}
		}
	}
	return nil
}
