package view

import (
	"cmp"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Review is a guided walk through what may have been lost sight of. As a subject of a query
// its groups are the steps, in their order, each there though it is empty; a to-do stands in
// the first step that it belongs to.
type Review string

// The walks. A daily one goes through the Cup, what slipped, and the day; a weekly one through
// everything but the day; a monthly one through the months, what is parked, and what nobody
// touched.
const (
	Daily   Review = "daily"
	Weekly  Review = "weekly"
	Monthly Review = "monthly"
)

// The steps of a walk that are kinds of no other view.
const (
	// Slipped is what is overdue, or was planned for a day that is past.
	Slipped Kind = "slipped"
	// WaitedFor is what someone else owes.
	WaitedFor Kind = "waited-for"
	// Stuck are projects without a next action, or without a change for QuietDays.
	Stuck Kind = "stuck"
	// NextMonth is what is planned for the month after this one, and for none of its days.
	NextMonth Kind = "next-month"
	// Untouched is what did not change for UntouchedDays.
	Untouched Kind = "untouched"
	// TheDay is what the handful is picked from: what is due or planned today.
	TheDay Kind = "the-day"
)

// UntouchedDays is after how many days without any change a to-do is asked about.
const UntouchedDays = 60

// steps are those of each walk.
var steps = map[Review][]Kind{
	Daily:   {ToSort, Slipped, TheDay},
	Weekly:  {ToSort, Slipped, WaitedFor, Stuck, ThisMonth, NextMonth, Parked, Untouched},
	Monthly: {ThisMonth, NextMonth, Parked, Untouched},
}

// Known tells whether there is such a walk.
func (w Review) Known() bool { return steps[w] != nil }

func (w Review) ask(b *book.Desk, now moment, _ *Query) (*selection, error) {
	if !w.Known() {
		return nil, fmt.Errorf("%.40q is not a review; daily, weekly or monthly is wanted", string(w))
	}
	r := newReviewer(b, now)
	a := &selection{rows: b.Open(), order: byWeight, flat: true, tell: r.tell,
		orders: map[Kind]order{WaitedFor: longestWaiting, Untouched: longestUntouched}}
	keys := make([]groupKey, len(steps[w]))
	for i, step := range steps[w] {
		keys[i] = groupKey{rank: int32(i), kind: step}
	}
	a.always = keys
	a.group = func(t *book.Todo) (groupKey, bool) {
		if t.IsNote || t.Paused() {
			return groupKey{}, false
		}
		for _, key := range keys {
			if r.in(key.kind, t) {
				return key, true
			}
		}
		return groupKey{}, false
	}
	return a, nil
}

func (w Review) sentence(_ *book.Desk, now moment) string {
	switch w {
	case Daily:
		return "The Cup, what slipped, and " + now.today.Weekday().String() + "."
	case Weekly:
		return "The Cup, what slipped, what is waited for, projects that stand still, the months, and what nobody touched."
	case Monthly:
		return "This month’s plans, the next month’s, what is parked, and what nobody touched."
	}
	return ""
}

// reviewer says of to-dos which step they belong to.
type reviewer struct {
	moment
	desk *book.Desk
	// cup, today, waiting and projects are the views whose rules the steps share.
	cup, today, waiting, projects *fitted
	standings                     *standings
	month, next                   day.Horizon
	touched                       day.Timestamp
}

func newReviewer(b *book.Desk, now moment) *reviewer {
	year, month, _ := now.today.Civil()
	first, _ := day.NewDate(year, month, 1)
	return &reviewer{moment: now, desk: b, standings: newStandings(b, now),
		cup: ship(Cup).fit(b, now), today: ship(Today).fit(b, now), waiting: ship(Waiting).fit(b, now), projects: ship(Projects).fit(b, now),
		month: day.InMonth(now.today), next: day.InMonth(first.AddDays(31)),
		touched: day.TimestampOf(now.StartOf(now.today.AddDays(-UntouchedDays)))}
}

// in tells whether a to-do belongs to a step.
func (r *reviewer) in(step Kind, t *book.Todo) bool {
	switch step {
	case ToSort:
		return r.isIn(r.cup, t, ToSort)
	case Slipped:
		return r.overdue(t) || !t.Plan.IsZero() && r.isIn(r.today, t, CarriedOver)
	case WaitedFor:
		_, waits := r.waiting.group(t)
		return waits
	case Stuck:
		if !r.desk.HasSubtasks(t.ID) {
			return false // as of most; the view is asked of the others alone
		}
		if _, project := r.projects.group(t); !project {
			return false
		}
		s := r.standings.of(t)
		return s.Next == nil || s.Quiet > 0
	case ThisMonth:
		return t.Plan == r.month
	case NextMonth:
		return t.Plan == r.next
	case Parked:
		return t.Plan.Precision() == day.Parked
	case Untouched:
		return t.Changed < r.touched
	case TheDay:
		return r.isIn(r.today, t, Handful, DueToday, PlannedToday)
	}
	return false
}

// isIn tells whether a to-do stands in one of some groups of a view.
func (r *reviewer) isIn(f *fitted, t *book.Todo, kinds ...Kind) bool {
	key, ok := f.group(t)
	if !ok {
		return false
	}
	for _, kind := range kinds {
		if key.kind == kind {
			return true
		}
	}
	return false
}

// tell adds for how long someone is waited for, and how a project stands.
func (r *reviewer) tell(row *Row) {
	if _, waits := r.waiting.group(row.Todo); waits {
		row.Waited = r.waited(row.Todo)
	}
	if _, project := r.projects.group(row.Todo); project {
		row.Standing = r.standings.of(row.Todo)
	}
}

// longestUntouched puts what was not changed for longest first.
var longestUntouched = order{compare: func(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(a.Changed, b.Changed), byWeight.compare(a, b))
}}
