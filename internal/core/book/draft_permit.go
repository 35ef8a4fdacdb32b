package book

import "tincup/internal/core/term"

// ErrNotYours marks a change of what is another account's.
var ErrNotYours = term.Fail(term.Forbidden, "not yours")

// NotYoursError says what a command would have written that is another account's.
type NotYoursError struct {
	Kind RowKind
	Name string
}

func (e *NotYoursError) Error() string {
	return "The " + string(e.Kind) + " “" + e.Name + "” is another person's; only they can change it."
}

func (e *NotYoursError) Unwrap() error { return ErrNotYours }

// permit refuses a draft that writes what its account may not. It is asked once of each
// draft, when all that it writes is known. What is in the Cup, shelves, tags, people, views,
// calendars and places are of the account at whose desk they are; a list and what is in it are of the
// list's owner.
func (d *draft) permit() error {
	yours := func(l *List) bool { return l == nil || l.Owner == d.desk.account }
	for _, diff := range d.lists.diffs {
		for _, l := range []*List{diff.Before, diff.After} {
			if !yours(l) {
				return &NotYoursError{ListRow, l.Name}
			}
		}
	}
	for _, id := range d.order {
		diff := d.todos[id]
		for _, t := range []*Todo{diff.Before, diff.After} {
			if t == nil || t.List.IsZero() {
				continue
			}
			if l, ok := d.lists.get(t.List); ok && !yours(&l) {
				return &NotYoursError{TodoRow, t.Title}
			}
		}
	}
	for _, diff := range d.sections.diffs {
		for _, s := range []*Section{diff.Before, diff.After} {
			if s == nil {
				continue
			}
			if l, ok := d.lists.get(s.List); ok && !yours(&l) {
				return &NotYoursError{SectionRow, s.Name}
			}
		}
	}
	return nil
}
