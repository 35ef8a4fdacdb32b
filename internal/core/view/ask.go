package view

import (
	"cmp"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
)

// groupKey identifies a group, and says where it stands among the others.
type groupKey struct {
	rank    int32 // order of the groups
	kind    Kind
	horizon day.Horizon
	of      book.ID
	code    uint8 // a value of a closed set
}

// selection is what a view is made of.
type selection struct {
	// rows is where to look.
	rows []*book.Todo
	// holds, if set, tells which of them are looked at.
	holds func(*book.Todo) bool
	// group returns the group a to-do falls in; ok is false when it is out.
	group func(*book.Todo) (key groupKey, ok bool)
	// order is that within a group, save where slots go first.
	order order
	// orders are those of single kinds of groups, in its place.
	orders map[Kind]order
	// round holds what comes round, by group.
	round map[groupKey][]*book.Todo
	// lists are those due in a group.
	lists map[groupKey][]ListRow
	// flat: subtasks are rows of their own, in order with all others.
	flat bool
	// always are groups that stand there though they are empty.
	always []groupKey
	// all: every row that is looked at is in the one group.
	all bool
	// keyed: the order is the person's, and holds in every group.
	keyed    bool
	matchers []*filter.Matcher
	// tell adds what rows of the subject tell beside what all do; nil for nothing.
	tell func(*Row)
	// whole, if set, answers in the place of all this.
	whole func(*book.Desk, moment, Query) *Result
	// beyond counts what lies further ahead than the rows go.
	beyond int
}

// Ask answers the query. It fails with a *book.NotFoundError for a subject that
// is not there, and with an error that names what is wrong with the query.
func Ask(b *book.Desk, c day.Clock, q Query) (*Result, error) {
	now := at(c)
	a, err := q.Of.ask(b, now, &q)
	if err != nil {
		return nil, err
	}
	if a.whole != nil {
		return a.whole(b, now, q), nil
	}
	res := &Result{}
	a.narrow(b, now, q)
	a.answer(b, now, q, res)
	res.Beyond = a.beyond
	return res, a.err()
}

// narrow leaves out what the query does not want, and groups and orders the rest
// as it says.
func (a *selection) narrow(b *book.Desk, now moment, q Query) {
	if !q.Narrow.IsZero() {
		a.only(now.matcher(q.Narrow, b))
		a.always, a.round, a.lists = nil, nil, nil
	}
	if by := now.by(b, q.Group, q.UrgentDays); q.Group != "" && a.all {
		a.group = func(t *book.Todo) (groupKey, bool) { return by(t), true }
	} else if q.Group != "" {
		group := a.group
		a.group = func(t *book.Todo) (groupKey, bool) {
			if _, ok := group(t); !ok {
				return groupKey{}, false
			}
			return by(t), true
		}
		a.always, a.round, a.lists = nil, nil, nil
	}
	if len(q.Order) > 0 {
		a.order, a.keyed = inOrder(q.Order), true
	}
}

// only leaves out what a filter does not hold of, beside what is left out already.
func (a *selection) only(m *filter.Matcher) {
	a.matchers = append(a.matchers, m)
	holds := m.Holds()
	if before := a.holds; before != nil {
		a.holds = func(t *book.Todo) bool { return before(t) && holds(t) }
	} else {
		a.holds = holds
	}
}

// err is the first error of the filters.
func (a *selection) err() error {
	for _, m := range a.matchers {
		if err := m.Err(); err != nil {
			return err
		}
	}
	return nil
}

func (a *selection) answer(b *book.Desk, now moment, q Query, res *Result) {
	buckets, assumed := map[groupKey]*bucket{}, assumedBy(b)
	for _, key := range a.always {
		buckets[key] = &bucket{key: key, order: a.orderIn(key)}
	}
	var last *bucket // most rows go where the one before went
	for i, t := range a.rows {
		if i%ahead == 0 {
			fetch(a.rows[i:min(i+ahead, len(a.rows))])
		}
		if a.holds != nil && !a.holds(t) {
			continue
		}
		key, ok := a.group(t)
		if !ok {
			continue
		}
		if last == nil || last.key != key {
			if last = buckets[key]; last == nil {
				last = &bucket{key: key, order: a.orderIn(key)}
				buckets[key] = last
			}
		}
		last.add(b, t)
	}
	keys := make([]groupKey, 0, len(buckets))
	for key := range buckets {
		keys = append(keys, key)
	}
	empty := func(key groupKey) {
		if _, there := buckets[key]; !there {
			keys = append(keys, key)
			buckets[key] = &bucket{}
		}
	}
	for key := range a.round {
		empty(key)
	}
	for key := range a.lists {
		empty(key)
	}
	slices.SortFunc(keys, func(a, b groupKey) int { return cmp.Compare(a.rank, b.rank) })
	for _, key := range keys {
		rows := buckets[key]
		count := rows.count()
		f := rows.family(b)
		g := Group{Kind: key.kind, Horizon: key.horizon, Of: key.of, code: key.code, Count: count, Notes: rows.notes,
			Minutes: f.minutes, Assumed: rows.blank * assumed, ComesRound: a.round[key], Lists: a.lists[key]}
		if a.flat {
			f = family{top: append(rows.top, rows.subtasks...), order: rows.order}
		}
		g.Rows = now.window(b, f, count, res.Total, q, a.tell)
		res.Groups = append(res.Groups, g)
		res.Total += count
	}
}

// ahead is how many rows are fetched into the cache at once.
const ahead = 128

// fetch reads a little of each row, one right after the other, so that the waits
// for memory overlap; a filter would wait for each before it asks on.
//
//go:noinline
func fetch(rows []*book.Todo) (sum day.Timestamp) {
	for _, t := range rows {
		sum += t.Created + day.Timestamp(t.Parent[0])
	}
	return sum
}

// orderIn is the order within a group.
func (a *selection) orderIn(key groupKey) order {
	if o, own := a.orders[key.kind]; own && !a.keyed {
		return o
	}
	switch {
	case key.kind == Ticked:
		return newestClosed
	case !a.keyed && (key.kind == PlannedToday || key.kind == Planned):
		return bySlot
	}
	return a.order
}

// window puts the group of so many rows that begins at row start in order and
// returns what lies between Offset and Offset+Limit, if anything does.
func (n moment) window(b *book.Desk, f family, count, start int, q Query, tell func(*Row)) []Row {
	from := max(q.Offset-start, 0)
	to := min(q.Offset+q.Limit-start, count)
	if from >= to {
		return nil
	}
	rows := make([]Row, 0, to-from)
	for _, p := range f.arrange(to)[from:to] {
		r := n.row(p.todo)
		if r.Depth = p.depth; p.depth == 0 {
			r.Path = path(b, p.todo)
		}
		r.Progress = b.Progress(p.todo)
		if tell != nil {
			tell(&r)
		}
		rows = append(rows, r)
	}
	return rows
}

// row says how a to-do stands now.
func (n moment) row(t *book.Todo) Row {
	r := Row{Todo: t, Dimmed: t.Open() && t.Start.After(n.today) || t.Paused()}
	if t.Open() && !t.Paused() && n.overdue(t) {
		r.Late = true
		r.DaysLate = max(n.today.Sub(n.DayOfMoment(t.Due)), 0)
	}
	return r
}
