package httpapi

import (
	"encoding/json"

	"tincup/internal/core/book"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// rowState writes a row that is no to-do as it is now; nil where it is gone.
func rowState(b *book.Desk, kind book.RowKind, id book.ID) *contract.RowState {
	revision, err := b.RevisionOf(kind, id)
	if err != nil {
		return nil
	}
	out := &contract.RowState{Id: id.String(), Revision: revision}
	switch kind {
	case book.ListRow:
		l, _ := b.List(id) // it is there: it has a revision
		order, archived := contract.Order(l.Order.String()), !l.Archived.IsZero()
		out.Name, out.Colour, out.Order = l.Name, colourOf(l.Colour), &order
		due, with := l.Due.String(), l.With.String()
		out.Due, out.Outcome, out.Person = &due, &l.Outcome, &with
		out.Checklist, out.Pinned, out.Archived = &l.Checklist, &l.Pinned, &archived
	case book.SectionRow:
		s, _ := b.Section(id)
		out.Name = s.Name
	case book.ShelfRow:
		s, _ := b.Shelf(id)
		hours := contract.Hours(s.Hours.String())
		out.Name, out.Hours = s.Name, &hours
	case book.TagRow:
		t, _ := b.Tag(id)
		out.Name, out.Colour = t.Name, colourOf(t.Colour)
	case book.PersonRow:
		p, _ := b.Person(id)
		out.Name, out.Email, out.Phone, out.Note = p.Name, &p.Email, &p.Phone, &p.Note
	case book.CalendarRow:
		k, _ := b.Calendar(id)
		out.Name, out.Colour, out.AllDayTakes = k.Name, colourOf(k.Colour), &k.AllDayTakes
	case book.PlaceRow:
		p, _ := b.Place(id)
		middle, radius := p.Middle.String(), int(p.Radius)
		out.Name, out.Middle, out.Radius, out.Thing = p.Name, &middle, &radius, &p.Thing
	case book.ViewRow:
		v, _ := b.View(id)
		icon := contract.ViewIcon(v.Icon)
		out.Name, out.Colour, out.Icon, out.Pinned, out.Counted = v.Name, colourOf(v.Colour), &icon, &v.Pinned, &v.Counted
		if d, err := view.ParseDefinition([]byte(v.Question)); err == nil {
			var definition contract.Definition
			if raw, err := json.Marshal(d); err == nil && json.Unmarshal(raw, &definition) == nil {
				out.Definition = &definition
			}
		}
	}
	return out
}

func colourOf(c book.Colour) *contract.Colour {
	name := contract.Colour(c.String())
	return &name
}
