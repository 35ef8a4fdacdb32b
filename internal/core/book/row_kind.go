package book

// RowKind names a kind of row, in the words that errors use.
type RowKind string

// The kinds of rows that are edited by themselves.
const (
	TodoRow     RowKind = "to-do"
	ListRow     RowKind = "list"
	SectionRow  RowKind = "section"
	ShelfRow    RowKind = "shelf"
	TagRow      RowKind = "tag"
	PersonRow   RowKind = "person"
	ViewRow     RowKind = "view"
	CalendarRow RowKind = "calendar"
	PlaceRow    RowKind = "place"
)

// RevisionOf returns the revision of the change that last touched a row, or a
// *NotFoundError.
func (b *Desk) RevisionOf(kind RowKind, id ID) (int64, error) {
	switch kind {
	case ListRow:
		return revisionOf(b.List(id))
	case SectionRow:
		return revisionOf(b.Section(id))
	case ShelfRow:
		return revisionOf(b.Shelf(id))
	case TagRow:
		return revisionOf(b.Tag(id))
	case PersonRow:
		return revisionOf(b.Person(id))
	case ViewRow:
		return revisionOf(b.View(id))
	case CalendarRow:
		return revisionOf(b.Calendar(id))
	case PlaceRow:
		return revisionOf(b.Place(id))
	}
	t, err := b.Todo(id)
	if err != nil {
		return 0, err
	}
	return t.Revision, nil
}

func revisionOf[T row[T]](v *T, err error) (int64, error) {
	if err != nil {
		return 0, err
	}
	return (*v).revised(), nil
}

// FieldsOf names what the change did to one row, in the API's words.
func (c *Change) FieldsOf(kind RowKind, id ID) []string {
	switch kind {
	case ListRow:
		return changedAttributes(c.Lists, id, listAttributes)
	case SectionRow:
		return changedAttributes(c.Sections, id, sectionAttributes)
	case ShelfRow:
		return changedAttributes(c.Shelves, id, shelfAttributes)
	case TagRow:
		return changedAttributes(c.Tags, id, tagAttributes)
	case PersonRow:
		return changedAttributes(c.People, id, personAttributes)
	case ViewRow:
		return changedAttributes(c.Views, id, viewAttributes)
	case CalendarRow:
		return changedAttributes(c.Calendars, id, calendarAttributes)
	case PlaceRow:
		return changedAttributes(c.Places, id, placeAttributes)
	}
	return c.ChangedFields(id)
}

func changedAttributes[T row[T]](diffs []Diff[T], id ID, attributes []attribute[T]) (names []string) {
	for _, d := range diffs {
		if d.Before == nil || d.After == nil || (*d.After).key() != id {
			continue
		}
		for _, a := range attributes {
			if !a.same(d.Before, d.After) {
				names = append(names, a.name)
			}
		}
	}
	return names
}

// FieldNamesOf names every field of a kind of row, in the API's words.
func FieldNamesOf(kind RowKind) []string {
	switch kind {
	case ListRow:
		return attributeNames(listAttributes)
	case SectionRow:
		return attributeNames(sectionAttributes)
	case ShelfRow:
		return attributeNames(shelfAttributes)
	case TagRow:
		return attributeNames(tagAttributes)
	case PersonRow:
		return attributeNames(personAttributes)
	case ViewRow:
		return attributeNames(viewAttributes)
	case CalendarRow:
		return attributeNames(calendarAttributes)
	case PlaceRow:
		return attributeNames(placeAttributes)
	}
	return FieldNames()
}

func attributeNames[T any](attributes []attribute[T]) (names []string) {
	for _, a := range attributes {
		names = append(names, a.name)
	}
	return names
}
