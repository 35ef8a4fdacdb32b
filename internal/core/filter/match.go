package filter

import (
	"cmp"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// Matcher is a filter made ready to be asked of many to-dos of one Book at one
// moment. It is for one goroutine, and good until the Book changes.
type Matcher struct {
	book  *book.Desk
	clock day.Clock
	today day.Date
	// above holds each tag with those it is nested under.
	above map[book.ID][]book.ID
	// ready tells whether a to-do could be done now, for next actions.
	ready func(*book.Todo) bool
	whole predicate
	// next holds the next actions that were asked for, by the to-do at the top.
	next map[*book.Todo]*book.Todo
	// err is the first error of reading notes.
	err error
}

// predicate is a node made ready; cost is what asking takes, roughly, in
// nanoseconds, so that what is cheap is asked first.
type predicate struct {
	holds func(*book.Todo) bool
	cost  int
}

// Matcher makes a filter ready. ready tells what could be done now; it is asked
// only where the filter asks for next actions.
func (f Filter) Matcher(b *book.Desk, c day.Clock, ready func(*book.Todo) bool) *Matcher {
	m := &Matcher{book: b, clock: c, today: c.Today(), ready: ready}
	m.whole = m.node(f.Root())
	return m
}

// Match reports whether the filter holds of a to-do. The error is that of
// reading notes.
func (m *Matcher) Match(t *book.Todo) (bool, error) {
	is := m.whole.holds(t)
	return is && m.err == nil, m.err
}

// Holds is Match for many to-dos in a row: it tells errors by answering no, and
// Err says afterwards whether there was one.
func (m *Matcher) Holds() func(*book.Todo) bool { return m.whole.holds }

// Forget makes the Matcher good for the Book after a change of to-dos.
func (m *Matcher) Forget() { clear(m.next) }

// Err returns the first error of reading notes.
func (m *Matcher) Err() error { return m.err }

func (m *Matcher) node(n *question.Node) predicate {
	switch {
	case n == nil:
		return predicate{holds: func(*book.Todo) bool { return true }}
	case n.Kind == question.IsTest:
		return m.test(n.Test)
	case n.Kind == question.IsNot:
		sub := m.node(n.Nodes[0])
		return predicate{func(t *book.Todo) bool { return !sub.holds(t) }, sub.cost}
	}
	subs, whole := make([]predicate, len(n.Nodes)), 1
	for i, s := range n.Nodes {
		subs[i] = m.node(s)
		whole += subs[i].cost
	}
	slices.SortStableFunc(subs, func(a, b predicate) int { return cmp.Compare(a.cost, b.cost) })
	asked := make([]func(*book.Todo) bool, len(subs))
	for i, s := range subs {
		asked[i] = s.holds
	}
	if n.Kind == question.IsAny {
		return predicate{func(t *book.Todo) bool {
			for _, holds := range asked {
				if holds(t) {
					return true
				}
			}
			return false
		}, whole}
	}
	return predicate{func(t *book.Todo) bool {
		for _, holds := range asked {
			if !holds(t) {
				return false
			}
		}
		return true
	}, whole}
}

// nesting returns for each tag itself and the tags above it.
func nesting(b *book.Desk) map[book.ID][]book.ID {
	above := map[book.ID][]book.ID{}
	tags := b.Tags()
	for _, t := range tags {
		for _, up := range tags {
			if up.Covers(t) {
				above[t.ID] = append(above[t.ID], up.ID)
			}
		}
	}
	return above
}

func (m *Matcher) test(t *question.Test) predicate { return specs[t.Field].ask(m, t) }

// among marks the indices of the words that a test names, of all that its field has.
func among(t *question.Test, words []string) (is [16]bool) {
	for i, w := range words {
		is[i] = slices.Contains(t.Words, w)
	}
	return is
}

func askPlace(_ *Matcher, t *question.Test) predicate {
	if t.Op == question.None {
		return predicate{func(t *book.Todo) bool { return t.Place == "" }, 2}
	}
	wanted := fold(t.Text)
	return predicate{func(t *book.Todo) bool { return t.Place != "" && strings.Contains(fold(t.Place), wanted) }, 20}
}

func oneOf(t *question.Test, of func(*book.Todo) book.ID) func(*book.Todo) bool {
	if t.Op == question.None {
		return func(t *book.Todo) bool { return of(t).IsZero() }
	}
	ids := t.IDs
	return func(t *book.Todo) bool {
		id := of(t)
		return !id.IsZero() && slices.Contains(ids, id)
	}
}

func (m *Matcher) shelf(t *book.Todo) book.ID {
	if l, err := m.book.List(t.List); err == nil {
		return l.Shelf
	}
	return book.ID{}
}

func (m *Matcher) text(needle string) func(*book.Todo) bool {
	var inNotes map[book.ID]bool // looked up once, when notes matter
	return func(t *book.Todo) bool {
		if strings.Contains(fold(t.Title), needle) {
			return true
		}
		if t.NotesSize == 0 {
			return false
		}
		if inNotes == nil && m.err == nil {
			inNotes, m.err = m.book.NotesHolding(needle)
		}
		return inNotes[t.ID]
	}
}

func (m *Matcher) tagged(t *question.Test) func(*book.Todo) bool {
	if t.Op == question.None {
		return func(t *book.Todo) bool { return len(t.Tags) == 0 }
	}
	if m.above == nil {
		m.above = nesting(m.book)
	}
	// covers are the tags that carry each that is asked for.
	covers := make([][]book.ID, len(t.IDs))
	for tag, above := range m.above {
		for i, id := range t.IDs {
			if slices.Contains(above, id) {
				covers[i] = append(covers[i], tag)
			}
		}
	}
	has := func(t *book.Todo, tags []book.ID) bool {
		return slices.ContainsFunc(t.Tags, func(id book.ID) bool { return slices.Contains(tags, id) })
	}
	if t.Op == question.AllOf {
		return func(t *book.Todo) bool {
			return len(t.Tags) > 0 && !slices.ContainsFunc(covers, func(tags []book.ID) bool { return !has(t, tags) })
		}
	}
	all, wanted := slices.Concat(covers...), t.Op == question.AnyOf
	return func(t *book.Todo) bool { return has(t, all) == wanted }
}

func estimate(t *question.Test) func(*book.Todo) bool {
	minutes := int32(t.Minutes)
	switch t.Op {
	case question.AtMost:
		return func(t *book.Todo) bool { return t.Estimate > 0 && int32(t.Estimate) <= minutes }
	case question.AtLeast:
		return func(t *book.Todo) bool { return int32(t.Estimate) >= minutes }
	}
	return func(t *book.Todo) bool { return t.Estimate == 0 }
}

// slack asks how much room there is until the due. It is the same at any time of the day
// that the Desk was given its room for.
func (m *Matcher) slack(t *question.Test) func(*book.Todo) bool {
	return func(todo *book.Todo) bool {
		spare, known := m.book.Spare(todo)
		switch t.Op {
		case question.AtMost:
			return known && spare <= t.Minutes
		case question.AtLeast:
			return known && spare >= t.Minutes
		}
		return !known
	}
}

// dated answers from the days that matter, worked out once.
func (m *Matcher) dated(test *question.Test) predicate {
	from, to := test.Span(m.today)
	day1 := func(d day.Date) bool { return !d.IsZero() && !d.Before(from) && !d.After(to) }
	if test.Op == question.None {
		day1 = day.Date.IsZero
	}
	switch test.Field {
	case question.Start:
		return predicate{func(t *book.Todo) bool { return day1(t.Start) }, 2}
	case question.Due:
		if test.Op == question.TimeBetween {
			return predicate{func(t *book.Todo) bool { return test.MeetsTime(t.Due.Time) && !t.Due.IsZero() }, 3}
		}
		return predicate{func(t *book.Todo) bool { return day1(m.clock.DayOfMoment(t.Due)) }, 3}
	case question.Created:
		first, last := m.instants(from, to)
		return predicate{func(t *book.Todo) bool { return t.Created >= first && t.Created < last }, 2}
	case question.Completed:
		if test.Op == question.None {
			return predicate{func(t *book.Todo) bool { return t.Completed.IsZero() }, 2}
		}
		first, last := m.instants(from, to)
		return predicate{func(t *book.Todo) bool { return !t.Completed.IsZero() && t.Completed >= first && t.Completed < last }, 2}
	}
	return predicate{func(t *book.Todo) bool {
		if t.Plan.IsZero() {
			return test.Op == question.None
		}
		at, _ := t.Plan.Slot()
		return test.Meets(t.Plan.DayIn(m.clock), at, m.today)
	}, 8}
}

// instants are when the first of some days begins and when the last has ended.
func (m *Matcher) instants(from, to day.Date) (first, end day.Timestamp) {
	return day.TimestampOf(m.clock.StartOf(from)), day.TimestampOf(m.clock.StartOf(to.AddDays(1)))
}

func (m *Matcher) overdue(t *book.Todo) bool {
	if t.Due.IsZero() || t.IsNote || !t.Open() {
		return false
	}
	if d := m.clock.DayOfMoment(t.Due); d != m.today {
		return d.Before(m.today)
	}
	return t.Due.HasTime() && m.clock.Passed(t.Due)
}

// plannedPast reports whether a to-do is planned for a day after its due.
func (m *Matcher) plannedPast(t *book.Todo) bool {
	return !t.Due.IsZero() && t.Plan.DayIn(m.clock).First().After(m.clock.DayOfMoment(t.Due))
}

// isNext reports whether a subtask is the next action of the project it is in,
// the outermost one.
func (m *Matcher) isNext(t *book.Todo) bool {
	if t.Parent.IsZero() || !t.Open() {
		return false
	}
	top := t
	for !top.Parent.IsZero() {
		parent, err := m.book.Todo(top.Parent)
		if err != nil {
			break
		}
		top = parent
	}
	next, known := m.next[top]
	if !known {
		if m.next == nil {
			m.next = map[*book.Todo]*book.Todo{}
		}
		next = m.book.Next(top, m.ready)
		m.next[top] = next
	}
	return next == t
}
