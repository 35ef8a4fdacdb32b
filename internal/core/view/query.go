package view

import (
	"cmp"
	"fmt"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
)

// Name is a shipped view.
type Name string

// The shipped views. InList and InCup are asked with a list or a horizon.
const (
	Cup         Name = "cup"
	Today       Name = "today"
	Overdue     Name = "overdue"
	Upcoming    Name = "upcoming"
	WithinAWeek Name = "within-a-week"
	Done        Name = "done"
	Bin         Name = "bin"
	Ready       Name = "ready"
	Waiting     Name = "waiting"
	Projects    Name = "projects"
	InList      Name = "list"
	WithTag     Name = "tag"
	WithPerson  Name = "person"
	OnRail      Name = "rail"
	// Own is a view that a person made, Asked one that is not saved.
	Own   Name = "own"
	Asked Name = "asked"
)

// MaxMonths is how many months Upcoming shows beyond its days at most.
const MaxMonths = 12

// Query is one question.
type Query struct {
	Name Name
	// List is the list of InList, Tag the tag of WithTag, Person the one of
	// WithPerson, View that of Own.
	List, Tag, Person, View book.ID
	// Definition is what Asked asks.
	Definition Definition
	// Narrow holds of every row, beside what the view asks.
	Narrow filter.Filter
	// Group and Order, if set, take the place of the view's own; UrgentDays is
	// for a two-by-two.
	Group      Grouping
	Order      []Key
	UrgentDays int
	// Cup is the rail cup of OnRail: a day, week, month or parked.
	Cup day.Horizon
	// Months is how many months Upcoming shows beyond its days, 0 to MaxMonths.
	Months int
	// Offset and Limit choose rows, counted over all groups in order. A Limit
	// of 0 gives none but the counts.
	Offset, Limit int
}

// Kind says what holds a group together.
type Kind string

// The kinds of groups. Those with a day, week or month carry it in Horizon.
const (
	ToSort       Kind = "to-sort"
	PutAside     Kind = "put-aside"
	Late         Kind = "overdue"
	DueToday     Kind = "due-today"
	PlannedToday Kind = "planned-today"
	CarriedOver  Kind = "carried-over"
	CanStart     Kind = "can-start"
	ThisWeek     Kind = "this-week"
	ThisMonth    Kind = "this-month"
	OnDay        Kind = "day"
	InWeek       Kind = "week"
	InMonth      Kind = "month"
	RestOfMonth  Kind = "rest-of-month"
	Planned      Kind = "planned"
	DueThen      Kind = "due"
	DueElsewhere Kind = "due-planned-elsewhere"
	PausedKind   Kind = "paused"
	Handful      Kind = "handful"
	InSection    Kind = "section"
	Ticked       Kind = "ticked"
	Tagged       Kind = "tagged"
	ToAsk        Kind = "to-ask"
	TheyOwe      Kind = "they-owe"
	ForThem      Kind = "for-them"
	All          Kind = "all"
)

// Group is rows that belong together.
type Group struct {
	Kind    Kind
	Horizon day.Horizon
	// Of is the section or the tag of a group that is one's.
	Of book.ID
	// Count is all of the group's rows, also those outside Offset and Limit.
	// Notes of them are kind note, which a person is told no count of.
	Count, Notes int
	// Minutes is the work in it: of each row its estimate, or that of its
	// subtasks here where that is more.
	Minutes int
	Rows    []Row
	// ComesRound are to-dos of other days whose repeat has a date on this one.
	// They are neither rows nor counted.
	ComesRound []*book.Todo
	code       uint8
}

// Row is a to-do as it stands in a view.
type Row struct {
	Todo *book.Todo
	// Late: the due has passed. DaysLate counts whole days, 0 when it passed
	// earlier today.
	Late     bool
	DaysLate int
	// Dimmed: its start has not come yet.
	Dimmed bool
	// Depth is how deep it stands below another row of its group; Path names
	// the to-dos above one whose parent is not there.
	Depth int
	Path  []string
	// Progress is that of a project, with a Total of 0 where it has no
	// subtasks.
	Progress book.Progress
	// Standing is how a project stands, in Projects.
	Standing *Standing
	// Why says why the row stands where it does, in Ready.
	Why string
	// Waited is how many days someone has been waited for, in Waiting.
	Waited int
}

// Result is the answer to a Query.
type Result struct {
	Groups []Group
	// Total is the rows of all groups.
	Total int
	// Beyond is what Upcoming would show with more months.
	Beyond int
}

// groupKey identifies a group and its place among the others.
type groupKey struct {
	rank    int32 // order of the groups
	kind    Kind
	horizon day.Horizon
	of      book.ID
	code    uint8 // a value of a closed set
}

// question is what a view is made of.
type question struct {
	// rows is where to look.
	rows []*book.Todo
	// holds, if set, tells which of them are looked at.
	holds func(*book.Todo) bool
	// group returns the group a to-do falls in; ok is false when it is out.
	group func(*book.Todo) (key groupKey, ok bool)
	// order compares within a group, save where slots go first.
	order func(a, b *book.Todo) int
	// round holds what comes round, by group.
	round map[groupKey][]*book.Todo
	// flat: subtasks are rows of their own, in order with all others.
	flat bool
	// always are groups that stand there though they are empty.
	always []groupKey
	// all: every row that is looked at is in the one group.
	all bool
	// keyed: the order is the person's, and holds in every group.
	keyed bool
	err   error
}

// Ask answers the query. It fails with a *book.NotFoundError for a list that
// is not there, and with an error that names what is wrong with the query.
func Ask(b *book.Book, c day.Clock, q Query) (*Result, error) {
	now := at(c)
	res := &Result{}
	var ask *question
	switch q.Name {
	case Cup:
		ask = &question{rows: slices.Concat(b.Open(), b.Paused(), b.Notes()), group: now.cup, order: byWeight}
	case Today:
		ask = &question{rows: b.Open(), group: now.inToday, order: byWeight}
	case Overdue:
		ask = &question{rows: b.Open(), group: now.inOverdue, order: byWeight}
	case Upcoming:
		if q.Months < 0 || q.Months > MaxMonths {
			return nil, fmt.Errorf("months is %d; 0 to %d is wanted", q.Months, MaxMonths)
		}
		ask = &question{rows: b.Open(), group: now.upcoming(q.Months, &res.Beyond), order: byWeight,
			round: now.comesRound(b.Open(), upcomingDays)}
	case WithinAWeek:
		ask = &question{rows: b.Open(), group: now.withinAWeek, order: byWeight}
	case InList:
		l, err := b.List(q.List)
		if err != nil {
			return nil, err
		}
		ask = &question{rows: slices.Collect(b.OfList(q.List)), group: inList(b, l), order: l.Order.Compare}
		ask.always = sectionKeys(b, l)
	case WithTag:
		tag, err := b.Tag(q.Tag)
		if err != nil {
			return nil, err
		}
		ask = &question{rows: slices.Concat(b.Open(), b.Paused(), b.Notes()), group: tagged(b, tag), order: byWeight}
	case WithPerson:
		if _, err := b.Person(q.Person); err != nil {
			return nil, err
		}
		ask = &question{rows: withPaused(b), group: withPerson(q.Person), order: longestWaiting}
	case Ready:
		ask = &question{rows: b.Open(), group: now.readyNow(b), order: now.byUrgency, flat: true}
	case Waiting:
		ask = &question{rows: b.Open(), group: waiting, order: longestWaiting}
	case Projects:
		ask = &question{rows: b.Open(), group: projects(b), order: byWeight}
	case OnRail:
		if q.Cup.IsZero() {
			return nil, fmt.Errorf("a cup is wanted: a day, a week, a month or parked")
		}
		ask = &question{rows: b.Open(), group: now.onRail(q.Cup), order: byWeight}
	case Own, Asked:
		d := q.Definition
		if q.Name == Own {
			v, err := b.View(q.View)
			if err != nil {
				return nil, err
			}
			if d, err = ParseDefinition([]byte(v.Question)); err != nil {
				return nil, err
			}
		}
		ask = d.ask(b, now)
		q = d.defaults(q)
	case Done:
		if q.Narrow.IsZero() && q.Group == "" && len(q.Order) == 0 {
			return done(b, now, q), nil
		}
		ask = &question{rows: b.Closed(), group: now.dayDone, order: newestClosed}
	case Bin:
		ask = &question{rows: b.Bin(), group: everything, order: newestDeleted}
	default:
		return nil, fmt.Errorf("%.40q is not a view", q.Name)
	}
	ask.narrow(b, now, q)
	ask.answer(b, now, q, res)
	return res, ask.err
}

// defaults fills in of a query what the definition says.
func (d Definition) defaults(q Query) Query {
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
	return q
}

// narrow leaves out what the query does not want, and groups and orders the rest
// as it says.
func (a *question) narrow(b *book.Book, now moment, q Query) {
	if !q.Narrow.IsZero() {
		a.only(q.Narrow.Matcher(b, now.Clock, now.ready))
		a.always, a.round = nil, nil
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
		a.always, a.round = nil, nil
	}
	if len(q.Order) > 0 {
		a.order, a.keyed = inOrder(q.Order), true
	}
}

// withPaused returns the open to-dos and those whose repeat is paused.
func withPaused(b *book.Book) []*book.Todo {
	if len(b.Paused()) == 0 {
		return b.Open()
	}
	return slices.Concat(b.Open(), b.Paused())
}

// only leaves out what a filter does not hold of, beside what is left out already.
func (a *question) only(m *filter.Matcher) {
	before := a.holds
	a.holds = func(t *book.Todo) bool {
		if before != nil && !before(t) {
			return false
		}
		is, err := m.Match(t)
		if err != nil && a.err == nil {
			a.err = err
		}
		return is
	}
}

func (a *question) answer(b *book.Book, now moment, q Query, res *Result) {
	buckets := map[groupKey][]*book.Todo{}
	for _, key := range a.always {
		buckets[key] = nil
	}
	for _, t := range a.rows {
		if a.holds != nil && !a.holds(t) {
			continue
		}
		if key, ok := a.group(t); ok {
			buckets[key] = append(buckets[key], t)
		}
	}
	keys := make([]groupKey, 0, len(buckets))
	for key := range buckets {
		keys = append(keys, key)
	}
	for key := range a.round {
		if _, there := buckets[key]; !there {
			keys = append(keys, key)
		}
	}
	slices.SortFunc(keys, func(a, b groupKey) int { return cmp.Compare(a.rank, b.rank) })
	for _, key := range keys {
		rows := buckets[key]
		order := a.order
		switch {
		case key.kind == Ticked:
			order = newestClosed
		case !a.keyed && (key.kind == PlannedToday || key.kind == Planned):
			order = bySlot
		}
		f := familyOf(rows)
		g := Group{Kind: key.kind, Horizon: key.horizon, Of: key.of, code: key.code, Count: len(rows), Notes: notes(rows),
			Minutes: f.minutes(), ComesRound: a.round[key]}
		if a.flat {
			f = family{top: rows}
		}
		g.Rows = now.window(b, f, order, len(rows), res.Total, q)
		res.Groups = append(res.Groups, g)
		res.Total += len(rows)
	}
}

func notes(rows []*book.Todo) (n int) {
	for _, t := range rows {
		if t.IsNote {
			n++
		}
	}
	return n
}

// window puts the group of so many rows that begins at row start in order and
// returns what lies between Offset and Offset+Limit, if anything does.
func (n moment) window(b *book.Book, f family, order func(a, b *book.Todo) int, count, start int, q Query) []Row {
	from := max(q.Offset-start, 0)
	to := min(q.Offset+q.Limit-start, count)
	if from >= to {
		return nil
	}
	rows := make([]Row, 0, to-from)
	for _, p := range f.arrange(order, to)[from:to] {
		r := n.row(p.todo)
		if r.Depth = p.depth; p.depth == 0 {
			r.Path = path(b, p.todo)
		}
		r.Progress = b.Progress(p.todo)
		switch q.Name {
		case Projects:
			r.Standing = n.standing(b, p.todo)
		case Ready:
			r.Why = n.why(p.todo)
		case Waiting, WithPerson:
			r.Waited = n.waited(p.todo)
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
