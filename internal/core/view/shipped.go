package view

import (
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/question"
)

// Name is a view that ships. As a subject of a query it is the view itself.
type Name string

// The views that ship.
const (
	Cup         Name = "cup"
	Today       Name = "today"
	Overdue     Name = "overdue"
	Upcoming    Name = "upcoming"
	WithinAWeek Name = "within-a-week"
	Ready       Name = "ready"
	Waiting     Name = "waiting"
	Projects    Name = "projects"
	Open        Name = "open"
	ComesRound  Name = "comes-round"
	Done        Name = "done"
	Bin         Name = "bin"
)

// shipping is all that a view which ships is. What it holds is what one of its parts
// asks for; there is no other rule.
type shipping struct {
	name Name
	// common holds of every row, beside what its part asks.
	common filter.Filter
	// parts are its groups in their order; a row stands in the first that holds of it.
	parts []part
	// counted are the parts that its badge counts; without any it has no badge.
	counted []Kind
	// order makes that of a group ready; keys are the same as a person would write it,
	// where one can.
	order func(moment, *book.Desk) order
	keys  []Key
	// flat: subtasks are rows of their own, in order with all others.
	flat bool
	// by is how it is grouped where nobody asks for another grouping; "" is by its parts.
	by Grouping
	// sentence says what it holds.
	sentence func(moment) string
	// tell makes what adds to rows of this view what they tell beside what all do; nil for
	// nothing.
	tell func(moment, *book.Desk) func(*Row)
}

// part is a group of a view, or a run of groups.
type part struct {
	kind Kind
	// under is what parts side by side have in common, asks what is the part's own; the
	// zero Filter holds of all that no part before it holds.
	under, asks filter.Filter
	// head says under which of a run of groups a row stands; nil for one group.
	head func(moment, *book.Todo) groupKey
}

// Pieces of which filters are made.
const (
	// canStart: no start keeps it out of the way.
	canStart = `{"not":{"field":"start","op":"after","date":"P0D"}}`
	// notLater: no plan, one that is past, or one that holds today.
	notLater = `{"any":[{"field":"plan","op":"none"},{"field":"plan","op":"before","date":"P1D"},{"field":"plan","op":"on","date":"P0D"}]}`
	late     = `{"field":"overdue","op":"yes"}`
	repeats  = `{"field":"repeating","op":"yes"}`
	waits    = `{"field":"role","op":"any-of","values":["waiting on"]}`
	// canDo is what can be done right now, as far as a to-do alone tells.
	canDo = `{"all":[` + canStart + `,` + notLater + `,{"not":` + waits + `}]}`
)

var (
	startable   = filter.Must(canStart)
	canDoFilter = filter.Must(canDo)
)

// ships are the views that ship.
var ships = []shipping{
	{name: Cup, order: byWeightAlways, counted: []Kind{ToSort},
		common: filter.Must(`{"all":[{"field":"list","op":"none"},{"any":[{"field":"status","op":"any-of","values":["needs-action","in-process"]},
			{"field":"kind","op":"any-of","values":["note"]}]}]}`),
		parts: []part{
			{kind: ToSort, asks: filter.Must(`{"all":[{"field":"start","op":"none"},{"field":"due","op":"none"},{"field":"plan","op":"none"},
				{"field":"paused","op":"no"},{"field":"kind","op":"any-of","values":["to-do"]},{"not":{"field":"role","op":"any-of","values":["waiting on"]}}]}`)},
			{kind: LaidBy, asks: filter.Must(`{"any":[{"not":{"field":"start","op":"none"}},{"not":{"field":"due","op":"none"}},
				{"not":{"field":"plan","op":"none"}},{"field":"paused","op":"yes"}]}`)},
			{kind: PeopleAndNotes},
		},
		sentence: saying("Open, and in no list yet.")},
	{name: Today, order: byWeightAlways, counted: []Kind{Handful, Late, DueToday, PlannedToday, CarriedOver, CanStart},
		parts: []part{
			{kind: Handful, asks: filter.Must(`{"field":"in-handful","op":"yes"}`)},
			{kind: Late, asks: filter.Must(late)},
			{kind: DueToday, asks: filter.Must(`{"field":"due","op":"on","date":"P0D"}`)},
			{kind: PlannedToday, under: startable,
				asks: filter.Must(`{"all":[{"field":"plan","op":"before","date":"P1D"},{"not":{"field":"plan","op":"before","date":"P0D"}}]}`)},
			{kind: CarriedOver, under: startable, asks: filter.Must(`{"field":"plan","op":"before","date":"P0D"}`)},
			{kind: CanStart, under: startable, asks: filter.Must(`{"all":[{"field":"start","op":"before","date":"P1D"},` + notLater + `]}`)},
		},
		sentence: func(n moment) string {
			_, month, dom := n.today.Civil()
			return fmt.Sprintf("%s %d %s.", n.today.Weekday(), dom, month)
		}},
	{name: Overdue, order: byWeightAlways, counted: []Kind{Late},
		parts:    []part{{kind: Late, asks: filter.Must(late)}},
		sentence: saying("Open, and the due has passed.")},
	{name: Upcoming, order: byWeightAlways,
		parts: []part{{asks: comingWithin(upcomingWeeks), head: moment.comingHead}},
		sentence: func(n moment) string {
			return fmt.Sprintf("What comes after today, up to %s.", n.today.AddDays(upcomingWeeks).Words())
		}},
	{name: WithinAWeek, order: byWeightAlways, counted: []Kind{Late, OnDay},
		parts: []part{
			{kind: Late, asks: filter.Must(late)},
			{kind: OnDay, asks: filter.Must(`{"field":"due","op":"within-next","days":7}`),
				head: func(n moment, t *book.Todo) groupKey { return n.onDay(n.DayOfMoment(t.Due)) }},
		},
		sentence: func(n moment) string {
			return fmt.Sprintf("Open, and due on or before %s.", n.today.AddDays(7).Words())
		}},
	{name: Ready, order: moment.byUrgency, flat: true, counted: []Kind{All},
		parts:    []part{{kind: All, asks: filter.Must(`{"all":[` + canDo + `,{"any":[{"field":"is-subtask","op":"no"},{"field":"next-action","op":"yes"}]}]}`)}},
		sentence: saying("What can be done now: late first, then the least slack, then priority, then age."),
		tell:     tellWhy},
	{name: Waiting, order: ordered(longestWaiting), counted: []Kind{All},
		parts:    []part{{kind: All, asks: filter.Must(waits)}},
		sentence: saying("What someone else owes you, the longest wait first."),
		tell:     tellWait},
	{name: Projects, order: byWeightAlways, counted: []Kind{All},
		parts:    []part{{kind: All, asks: filter.Must(`{"field":"has-subtasks","op":"yes"}`)}},
		sentence: saying("Open, and with subtasks."),
		tell:     tellStanding},
	{name: Open, order: byWeightAlways, by: GroupByList,
		parts:    []part{{kind: All, asks: filter.Must(`{"field":"status","op":"any-of","values":["needs-action","in-process"]}`)}},
		sentence: saying("Everything open, by list.")},
	{name: ComesRound, order: ordered(byNextDate),
		parts: []part{
			{kind: Coming, asks: filter.Must(`{"all":[` + repeats + `,{"field":"paused","op":"no"},{"field":"status","op":"any-of","values":["needs-action","in-process"]}]}`)},
			{kind: PausedKind, asks: filter.Must(`{"all":[` + repeats + `,{"field":"paused","op":"yes"},{"field":"status","op":"any-of","values":["needs-action","in-process"]}]}`)},
			{kind: Ended, asks: filter.Must(`{"all":[` + repeats + `,{"field":"status","op":"any-of","values":["completed","cancelled"]}]}`)},
		},
		sentence: saying("What repeats, by its next date; then what is paused, and what came to its last date.")},
	{name: Done, order: ordered(newestClosed), keys: []Key{{By: ByChange, Back: true}},
		parts:    []part{{asks: filter.Must(`{"field":"status","op":"any-of","values":["completed","cancelled"]}`), head: moment.dayDone}},
		sentence: saying("Completed or cancelled, the newest day first.")},
}

// ship finds a view that ships; nil for the bin, and for what is none.
func ship(name Name) *shipping {
	for i := range ships {
		if ships[i].name == name {
			return &ships[i]
		}
	}
	return nil
}

// definition is the view as a person may write it.
func (s *shipping) definition() Definition {
	var some, alike []filter.Filter
	for i, p := range s.parts {
		if p.asks.IsZero() { // it takes all that is left
			return Definition{Filter: s.common, Order: s.keys}
		}
		alike = append(alike, p.asks)
		if i+1 < len(s.parts) && !p.under.IsZero() && s.parts[i+1].under == p.under {
			continue
		}
		some = append(some, filter.All(p.under, filter.Any(alike...)))
		alike = nil
	}
	return Definition{Filter: filter.All(s.common, filter.Any(some...)), Order: s.keys}
}

// Shipped returns a view that ships as a definition, to read and to start one's
// own from; ok is false for one that is no question, such as the bin.
func Shipped(name Name) (d Definition, ok bool) {
	d, ok = definitions[name]
	return d, ok
}

var definitions = func() map[Name]Definition {
	all := make(map[Name]Definition, len(ships))
	for i := range ships {
		all[ships[i].name] = ships[i].definition()
	}
	return all
}()

// saying is a sentence that is always the same.
func saying(words string) func(moment) string { return func(moment) string { return words } }

// ordered is an order that is always the same.
func ordered(o order) func(moment, *book.Desk) order {
	return func(moment, *book.Desk) order { return o }
}

var byWeightAlways = ordered(byWeight)

func tellWait(n moment, _ *book.Desk) func(*Row) {
	return func(r *Row) { r.Waited = n.waited(r.Todo) }
}

func tellWhy(n moment, b *book.Desk) func(*Row) {
	return func(r *Row) { r.Why = n.why(b, r.Todo) }
}

func tellStanding(n moment, b *book.Desk) func(*Row) {
	standings := newStandings(b, n)
	return func(r *Row) { r.Standing = standings.of(r.Todo) }
}

// comingEver is Upcoming as if it went on and on.
var comingEver = comingWithin(question.MaxDays)

// comingWithin holds what Upcoming does where it ends so many days after today.
func comingWithin(days int) filter.Filter {
	return filter.Must(fmt.Sprintf(`{"any":[
		{"all":[{"field":"plan","op":"on","date":"P0D"},{"any":[{"field":"plan","op":"on","date":"-P1D"},{"field":"plan","op":"on","date":"P1D"}]}]},
		{"all":[{"field":"plan","op":"after","date":"P0D"},{"not":{"field":"plan","op":"after","date":"P%[1]dD"}}]},
		{"field":"due","op":"between","date":"P1D","to":"P%[1]dD"},
		{"all":[{"field":"plan","op":"none"},{"field":"due","op":"none"},{"field":"start","op":"between","date":"P1D","to":"P%[1]dD"}]}]}`, days))
}

// fitted is a view that ships made ready to be asked of many to-dos of one desk at one
// moment.
type fitted struct {
	moment
	of     *shipping
	common *filter.Matcher
	parts  []*filter.Matcher
}

func (s *shipping) fit(b *book.Desk, now moment) *fitted {
	f := &fitted{moment: now, of: s, common: now.matcher(s.common, b), parts: make([]*filter.Matcher, len(s.parts))}
	for i, p := range s.parts {
		f.parts[i] = now.matcher(filter.All(p.under, p.asks), b)
	}
	return f
}

// part finds the part in which a to-do stands; -1 where it stands in none.
func (f *fitted) part(t *book.Todo) int {
	if !f.common.Holds()(t) {
		return -1
	}
	for i, m := range f.parts {
		if m.Holds()(t) {
			return i
		}
	}
	return -1
}

// group finds the group in which a to-do stands.
func (f *fitted) group(t *book.Todo) (groupKey, bool) {
	i := f.part(t)
	if i < 0 {
		return groupKey{}, false
	}
	if head := f.of.parts[i].head; head != nil {
		return head(f.moment, t), true
	}
	return groupKey{rank: int32(i), kind: f.of.parts[i].kind}, true
}

// forget lets go of what would be wrong after a change of the Book.
func (f *fitted) forget() {
	f.common.Forget()
	for _, m := range f.parts {
		m.Forget()
	}
}

// matcher makes a filter ready.
func (n moment) matcher(f filter.Filter, b *book.Desk) *filter.Matcher {
	return f.Matcher(b, n.Clock, n.canDo)
}

// CanDo tells which to-dos can be done right now, as far as each alone tells: open, not
// waiting, not parked or planned for later, not before their start.
func CanDo(c day.Clock) func(*book.Todo) bool { return at(c).canDo }
