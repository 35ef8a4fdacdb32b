package view

import (
	"fmt"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Subject is what a query is about: a view that ships (a [Name]), a list, a tag, a person,
// a cup of the rail, a view of one's own, or a [Definition] that is not saved.
type Subject interface {
	// ask makes the selection of the subject's rows. It may fill in of the query what the
	// subject says itself. Errors are a *book.NotFoundError, or say what is wrong.
	ask(b *book.Desk, now moment, q *Query) (*selection, error)
	// sentence says in words what it holds; "" for what is not there.
	sentence(b *book.Desk, now moment) string
}

// The subjects beside Name and Definition. OnRail is a day, a week, a month or parked.
type (
	OnShelf    struct{ ID book.ID }
	InList     struct{ ID book.ID }
	WithTag    struct{ ID book.ID }
	WithPerson struct{ ID book.ID }
	OnRail     struct{ Cup day.Horizon }
	Own        struct{ ID book.ID }
)

// Sentence says in words what the view holds.
func Sentence(b *book.Desk, c day.Clock, of Subject) string { return of.sentence(b, at(c)) }

func (name Name) ask(b *book.Desk, now moment, q *Query) (*selection, error) {
	if name == Bin {
		return &selection{rows: b.Bin(), group: everything, order: newestDeleted}, nil
	}
	s := ship(name)
	if s == nil {
		return nil, fmt.Errorf("%.40q is not a view", name)
	}
	a := &selection{rows: definitions[name].among(b), order: s.order(now, b), flat: s.flat}
	if s.tell != nil {
		a.tell = s.tell(now, b)
	}
	if q.Group == "" {
		q.Group = s.by
	}
	switch plain := q.Narrow.IsZero() && q.Group == "" && len(q.Order) == 0; {
	case name == Done && plain:
		a.whole = done
		return a, nil
	case name == Upcoming:
		if q.Months < 0 || q.Months > MaxMonths {
			return nil, fmt.Errorf("months is %d; 0 to %d is wanted", q.Months, MaxMonths)
		}
		a.round = now.comesRound(b.Open())
		a.group = now.upcoming(b, q.Months, &a.beyond)
	default:
		a.group = s.fit(b, now).group
	}
	if q.Group == "" {
		beyond := a.beyond
		a.lists = name.listsIn(b, now, a.group)
		a.beyond = beyond // which counts to-dos alone
	}
	return a, nil
}

func (name Name) sentence(_ *book.Desk, now moment) string {
	if s := ship(name); s != nil {
		return s.sentence(now)
	}
	return fmt.Sprintf("Deleted. Each stays for %d days and can be restored.", book.BinDays)
}

// upcoming finds the heads of Upcoming with so many months behind its weeks, and counts
// what lies beyond them.
func (n moment) upcoming(b *book.Desk, months int, beyond *int) func(*book.Todo) (groupKey, bool) {
	end := n.today.AddDays(upcomingWeeks)
	if months > 0 {
		end = end.AddDays(1).MonthStart().AddMonths(months).AddDays(-1)
	}
	all := n.matcher(comingEver, b).Holds()
	return func(t *book.Todo) (groupKey, bool) {
		if !all(t) {
			return groupKey{}, false
		}
		if h := n.coming(t); h.Later(n.today) && h.First().After(end) {
			*beyond++
			return groupKey{}, false
		}
		return n.comingHead(t), true
	}
}

func (s InList) ask(b *book.Desk, _ moment, _ *Query) (*selection, error) {
	l, err := b.List(s.ID)
	if err != nil {
		return nil, err
	}
	return &selection{rows: slices.Collect(b.OfList(s.ID)), group: inList(b, l), order: order{compare: l.Order.Compare}, always: sectionKeys(b, l)}, nil
}

func (s InList) sentence(b *book.Desk, now moment) string {
	l, err := b.List(s.ID)
	switch {
	case err != nil:
		return ""
	case !l.Template.IsZero():
		return fmt.Sprintf("A template. Its dates count from %s.", l.Template.Words())
	case !l.Archived.IsZero():
		return "Archived: in no view but this."
	case l.Checklist:
		return dueSentence(b, now, l) + "A checklist."
	}
	if shelf, err := b.Shelf(l.Shelf); err == nil {
		return dueSentence(b, now, l) + fmt.Sprintf("Open, on the shelf %s.", shelf.Name)
	}
	return ""
}

// dueSentence says when a list is due and how far it is, with a blank behind; "" where it has
// no due.
func dueSentence(b *book.Desk, now moment, l *book.List) string {
	if l.Due.IsZero() {
		return ""
	}
	said := "Due " + l.Due.Words()
	row := now.listRow(b, l)
	if row.DaysLate == 1 {
		said += ", 1 day ago"
	} else if row.DaysLate > 1 {
		said += fmt.Sprintf(", %d days ago", row.DaysLate)
	}
	if p := row.Progress; p.Total > 0 {
		said += fmt.Sprintf("; %d of %d done", p.Done, p.Total)
	}
	return said + ". "
}

func (s OnShelf) ask(b *book.Desk, now moment, _ *Query) (*selection, error) {
	if _, err := s.shelf(b); err != nil {
		return nil, err
	}
	on, always := map[book.ID]bool{}, []groupKey{}
	by := now.by(b, GroupByList, 0)
	for _, l := range b.Lists() {
		if l.Shelf == s.ID && l.Listed() {
			on[l.ID] = true
			always = append(always, by(&book.Todo{List: l.ID}))
		}
	}
	group := func(t *book.Todo) (groupKey, bool) {
		if !on[t.List] {
			return groupKey{}, false
		}
		return by(t), true
	}
	return &selection{rows: b.Open(), group: group, order: byWeight, always: always}, nil
}

// shelf is the shelf, or a *book.NotFoundError where it is not there or in the bin.
func (s OnShelf) shelf(b *book.Desk) (*book.Shelf, error) {
	shelf, err := b.Shelf(s.ID)
	if err == nil && !shelf.Deleted.IsZero() {
		return nil, &book.NotFoundError{Kind: "shelf", ID: s.ID}
	}
	return shelf, err
}

func (s OnShelf) sentence(b *book.Desk, _ moment) string {
	shelf, err := s.shelf(b)
	if err != nil {
		return ""
	}
	return "Open in the lists of this shelf, which take " + map[term.Hours]string{
		term.WorkingHours: "working hours.", term.OwnHours: "own hours.", term.NoHours: "no hours."}[shelf.Hours]
}

func (s WithTag) ask(b *book.Desk, _ moment, _ *Query) (*selection, error) {
	tag, err := b.Tag(s.ID)
	if err != nil {
		return nil, err
	}
	return &selection{rows: slices.Concat(b.Open(), b.Paused(), b.Notes()), group: tagged(b, tag), order: byWeight}, nil
}

func (s WithTag) sentence(b *book.Desk, _ moment) string {
	tag, err := b.Tag(s.ID)
	if err != nil {
		return ""
	}
	return fmt.Sprintf("Open, and tagged %s or what is nested under it.", tag.Name)
}

func (s WithPerson) ask(b *book.Desk, now moment, _ *Query) (*selection, error) {
	if _, err := b.Person(s.ID); err != nil {
		return nil, err
	}
	return &selection{rows: slices.Concat(b.Open(), b.Paused()), group: withPerson(s.ID), order: longestWaiting, tell: tellWait(now, b)}, nil
}

func (s WithPerson) sentence(*book.Desk, moment) string {
	return "What to ask, what they owe, what is for them."
}

func (s OnRail) ask(b *book.Desk, now moment, _ *Query) (*selection, error) {
	if s.Cup.IsZero() {
		return nil, fmt.Errorf("a cup is wanted: a day, a week, a month or parked")
	}
	return &selection{rows: b.Open(), group: now.onRail(s.Cup), order: byWeight}, nil
}

func (s OnRail) sentence(*book.Desk, moment) string {
	switch s.Cup.Precision() {
	case day.Day:
		return "Planned for this day, or due on it."
	case day.Week:
		return "Planned for this week and for no day of it."
	case day.Month:
		return "Planned for this month and for no day of it."
	}
	return "Some time, maybe."
}

// Definition returns what a saved view asks.
func (s Own) Definition(b *book.Desk) (Definition, error) {
	v, err := b.View(s.ID)
	if err != nil {
		return Definition{}, err
	}
	return ParseDefinition([]byte(v.Question))
}

func (s Own) ask(b *book.Desk, now moment, q *Query) (*selection, error) {
	d, err := s.Definition(b)
	if err != nil {
		return nil, err
	}
	return d.ask(b, now, q)
}

func (s Own) sentence(b *book.Desk, now moment) string {
	d, err := s.Definition(b)
	if err != nil {
		return ""
	}
	return d.sentence(b, now)
}

func (d Definition) ask(b *book.Desk, now moment, q *Query) (*selection, error) {
	if d.Shape == TwoByTwo && q.Group == "" {
		q.Group = GroupByWeight
	}
	if q.Group == "" {
		q.Group = d.Group
	}
	if len(q.Order) == 0 {
		q.Order = d.Order
	}
	if q.UrgentDays == 0 {
		q.UrgentDays = d.UrgentDays
	}
	a := &selection{rows: d.among(b), order: byWeight, all: true, group: everything}
	a.only(now.matcher(d.Filter, b))
	return a, nil
}

func (d Definition) sentence(b *book.Desk, _ moment) string { return d.Sentence(b) }
