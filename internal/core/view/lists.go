package view

import (
	"cmp"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// listsIn puts the lists with a due into the groups of a view that ships: Projects holds each of
// them, the views of dates hold them as they would a to-do that is due on that day.
func (name Name) listsIn(b *book.Desk, now moment, group func(*book.Todo) (groupKey, bool)) map[groupKey][]ListRow {
	switch name {
	case Today, Overdue, WithinAWeek, Upcoming, Projects:
	default:
		return nil
	}
	var due []*book.List
	for _, l := range b.Lists() {
		if l.Listed() && !l.Due.IsZero() {
			due = append(due, l)
		}
	}
	slices.SortFunc(due, func(a, b *book.List) int {
		return cmp.Or(a.Due.Compare(b.Due), cmp.Compare(a.Name, b.Name), a.ID.Compare(b.ID))
	})
	in := map[groupKey][]ListRow{}
	for _, l := range due {
		key, is := groupKey{kind: All}, true
		if name != Projects {
			key, is = group(&book.Todo{Due: day.Moment{Date: l.Due}})
		}
		if is {
			in[key] = append(in[key], now.listRow(b, l))
		}
	}
	return in
}

func (n moment) listRow(b *book.Desk, l *book.List) ListRow {
	r := ListRow{List: l, Progress: b.ListProgress(l.ID)}
	if late := n.today.Sub(l.Due); late > 0 {
		r.Late, r.DaysLate = true, late
	}
	return r
}
