package filter

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Matcher is a filter made ready to be asked of many to-dos of one Book at one
// moment.
type Matcher struct {
	filter Filter
	book   *book.Book
	clock  day.Clock
	today  day.Date
	// needs are the fields the filter asks about, so that nothing else is
	// looked up.
	needs map[Field]bool
	// above holds each tag with those it is nested under.
	above map[book.ID][]book.ID
	// ready tells whether a to-do could be done now, for next actions.
	ready func(*book.Todo) bool
}

// Matcher makes a filter ready. ready tells what could be done now; it is asked
// only where the filter asks for next actions.
func (f Filter) Matcher(b *book.Book, c day.Clock, ready func(*book.Todo) bool) *Matcher {
	m := &Matcher{filter: f, book: b, clock: c, today: c.Today(), needs: map[Field]bool{}, ready: ready}
	f.tests(func(n *node, _ bool) { m.needs[n.test.Field] = true })
	if m.needs[Tag] {
		m.above = nesting(b)
	}
	return m
}

// nesting returns for each tag itself and the tags above it.
func nesting(b *book.Book) map[book.ID][]book.ID {
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

// Match reports whether the filter holds of a to-do. The error is that of
// reading notes.
func (m *Matcher) Match(t *book.Todo) (bool, error) {
	f, err := m.facts(t)
	if err != nil {
		return false, err
	}
	return m.filter.root.holds(&f, m.today), nil
}

func (m *Matcher) facts(t *book.Todo) (facts, error) {
	c := m.clock
	f := facts{list: t.List, section: t.Section, priority: t.Priority, status: t.Status, note: t.IsNote, start: t.Start,
		due: c.DayOfMoment(t.Due), dueTime: t.Due.Time, estimate: int(t.Estimate), person: t.Person.ID, role: t.Person.Role,
		repeating: t.Repeat != nil && t.Record.IsZero(), paused: t.Paused(), isSubtask: !t.Parent.IsZero(),
		attachment: len(t.Attachments) > 0, handful: t.Handful == m.today}
	if m.needs[Text] {
		note, err := m.book.Note(t)
		if err != nil {
			return f, err
		}
		f.text = fold(t.Title + "\n" + note)
	}
	if m.needs[Shelf] {
		if l, err := m.book.List(t.List); err == nil {
			f.shelf = l.Shelf
		}
	}
	if m.needs[Tag] {
		for _, tag := range t.Tags {
			f.tags = append(f.tags, m.above[tag]...)
		}
	}
	if m.needs[Plan] {
		f.plan = t.Plan.DayIn(c)
		f.planTime, _ = t.Plan.Slot()
	}
	if m.needs[Created] {
		f.created = c.DayOf(t.Created.Time())
	}
	if m.needs[Completed] && !t.Completed.IsZero() {
		f.completed = c.DayOf(t.Completed.Time())
	}
	if m.needs[Overdue] && !t.Due.IsZero() {
		f.passed = f.due.Before(m.today) || f.due == m.today && t.Due.HasTime() && c.Passed(t.Due)
	}
	if m.needs[HasSubtasks] {
		f.hasSubtasks = m.book.HasSubtasks(t.ID)
	}
	if m.needs[NextAction] && t.Open() && !t.Parent.IsZero() {
		f.next = m.isNext(t)
	}
	return f, nil
}

// isNext reports whether a subtask is the next action of the project it is in,
// the outermost one.
func (m *Matcher) isNext(t *book.Todo) bool {
	top := t
	for !top.Parent.IsZero() {
		parent, err := m.book.Todo(top.Parent)
		if err != nil {
			break
		}
		top = parent
	}
	return m.book.Next(top, m.ready) == t
}
