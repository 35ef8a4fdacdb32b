package httpapi

import (
	"cmp"
	"slices"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// loadsOf tells the loads and the hours of days, weeks and months.
type loadsOf = func(day.Horizon) plan.Kinds[app.Filled]

// encodeLoad leaves own hours out where everything takes working hours.
func encodeLoad(loads plan.Kinds[app.Filled], oneKind bool) contract.Load {
	var out contract.Load
	parts := func(f app.Filled) (minutes int, assumed, capacity *int) {
		if f.Known {
			capacity = &f.Capacity
		}
		return f.Minutes, orAbsent(f.Assumed), capacity
	}
	out.Minutes, out.Assumed, out.Capacity = parts(loads[term.WorkingHours])
	if !oneKind {
		out.Own = &struct {
			Assumed  *int `json:"assumed,omitempty"`
			Capacity *int `json:"capacity,omitempty"`
			Minutes  int  `json:"minutes"`
		}{}
		out.Own.Minutes, out.Own.Assumed, out.Own.Capacity = parts(loads[term.OwnHours])
	}
	return out
}

func overview(b *book.Desk, c day.Clock, survey *view.Survey, loads loadsOf) contract.Overview {
	o := contract.Overview{Revision: b.Revision(), Now: c.Wall().String(), Zone: c.Zone.String(),
		Today: survey.Today.String(), Brim: view.Brim, Handful: survey.Handful, Shelves: []contract.Shelf{}, Tags: []contract.Tag{},
		People: []contract.Person{}, Templates: []contract.List{}, Archived: []contract.List{}, Binned: []contract.Binned{}}
	o.Counts.Cup, o.Counts.Today = survey.Counts[view.Cup], survey.Counts[view.Today]
	o.Counts.Overdue, o.Counts.WithinAWeek = survey.Counts[view.Overdue], survey.Counts[view.WithinAWeek]
	o.Counts.Ready = survey.Counts[view.Ready]
	o.Counts.Waiting, o.Counts.Projects = survey.Counts[view.Waiting], survey.Counts[view.Projects]
	o.Counts.Bin = survey.Counts[view.Bin]
	for _, cup := range survey.Rail {
		o.Rail = append(o.Rail, contract.RailCup{Horizon: cup.Horizon.String(), Count: cup.Count, Load: encodeLoad(loads(cup.Horizon), b.OneKind())})
	}
	overviewLists(&o, b, survey)
	people := b.People()
	slices.SortFunc(people, func(a, b *book.Person) int { return cmp.Compare(a.Name, b.Name) })
	for _, p := range people {
		o.People = append(o.People, contract.Person{Id: p.ID.String(), Revision: p.Revision, Name: p.Name, Email: orAbsent(p.Email), Phone: orAbsent(p.Phone),
			Note: orAbsent(p.Note), Open: survey.People[p.ID]})
	}
	o.Views = []contract.OwnView{}
	for _, v := range b.Views() {
		row := encodeOwnView(v)
		if n, counted := survey.Views[v.ID]; counted {
			row.Count = &n
		}
		o.Views = append(o.Views, row)
	}
	tags := b.Tags()
	slices.SortFunc(tags, func(a, b *book.Tag) int { return cmp.Compare(a.Name, b.Name) })
	for _, t := range tags {
		o.Tags = append(o.Tags, contract.Tag{Id: t.ID.String(), Revision: t.Revision, Name: t.Name, Colour: contract.Colour(t.Colour.String()), Open: survey.Tags[t.ID]})
	}
	return o
}

// overviewLists puts each list where it stands: on its shelf, among the
// templates, the archived ones or in the bin.
func overviewLists(o *contract.Overview, b *book.Desk, survey *view.Survey) {
	away := map[book.ID]int{}
	for _, t := range b.Away() {
		if t.Open() {
			away[t.List]++
		}
	}
	lists, shelves := b.Lists(), b.Shelves()
	slices.SortFunc(lists, func(a, b *book.List) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), a.ID.Compare(b.ID))
	})
	slices.SortFunc(shelves, func(a, b *book.Shelf) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), a.ID.Compare(b.ID))
	})
	onShelf := map[book.ID][]contract.List{}
	for _, l := range lists {
		row := encodeList(b, l)
		switch {
		case !l.Deleted.IsZero():
			o.Binned = append(o.Binned, contract.Binned{Id: row.Id, Name: l.Name, Kind: contract.BinnedKindList})
		case !l.Template.IsZero():
			row.Open = away[l.ID]
			first, last := b.Span(l.ID)
			row.First, row.Last = orAbsent(first.String()), orAbsent(last.String())
			o.Templates = append(o.Templates, row)
		case !l.Archived.IsZero():
			row.Open = away[l.ID]
			o.Archived = append(o.Archived, row)
		default:
			row.Open = survey.Lists[l.ID]
			onShelf[l.Shelf] = append(onShelf[l.Shelf], row)
		}
	}
	for _, shelf := range shelves {
		if !shelf.Deleted.IsZero() {
			o.Binned = append(o.Binned, contract.Binned{Id: shelf.ID.String(), Name: shelf.Name, Kind: contract.BinnedKindShelf})
			continue
		}
		row := contract.Shelf{Id: shelf.ID.String(), Revision: shelf.Revision, Name: shelf.Name, Hours: contract.Hours(shelf.Hours.String()), Lists: onShelf[shelf.ID]}
		if row.Lists == nil {
			row.Lists = []contract.List{}
		}
		o.Shelves = append(o.Shelves, row)
	}
}

func encodeList(b *book.Desk, l *book.List) contract.List {
	row := contract.List{Id: l.ID.String(), Revision: l.Revision, Name: l.Name, Colour: contract.Colour(l.Colour.String()), Shelf: l.Shelf.String(),
		Order: contract.Order(l.Order.String()), Checklist: orAbsent(l.Checklist), Pinned: orAbsent(l.Pinned),
		Archived: orAbsent(!l.Archived.IsZero()), Template: orAbsent(l.Template.String())}
	row.Due, row.Outcome = orAbsent(l.Due.String()), orAbsent(l.Outcome)
	row.Person = orAbsent(l.With.String())
	if !l.Due.IsZero() || l.Outcome != "" {
		row.Progress = encodeProgress(b.ListProgress(l.ID))
	}
	var sections []contract.Section
	for _, s := range b.Sections(l.ID) {
		sections = append(sections, contract.Section{Id: s.ID.String(), Revision: s.Revision, Name: s.Name})
	}
	if len(sections) > 0 {
		row.Sections = &sections
	}
	return row
}
