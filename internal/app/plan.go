package app

import (
	"slices"
	"strings"
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
)

// ahead is for how many days capacity is reckoned: what the rail shows at first.
const ahead = 400

// capacities keeps the work time of each account: it changes with its settings, with
// events, and by the minute.
type capacities struct {
	mu      sync.Mutex
	kept    map[book.ID]*keptCapacity
	agendas map[book.ID]*keptAgenda
}

type keptCapacity struct {
	settings settings.Settings
	clock    day.Clock
	agenda   *plan.Agenda
	// slots are what slots of other kinds take of each, as of a revision of the Book.
	slots    plan.Kinds[[]plan.Stretch]
	revision int64
	hours    plan.Kinds[*plan.Capacity]
}

// keptAgenda is the events of an account by their days: it changes with the events, with the
// zone, and by the day.
type keptAgenda struct {
	version int64 // of the events
	clock   day.Clock
	*plan.Agenda
}

// Capacity is the hours of the account of one kind from now on, for one who reads its desk.
func (a *Session) Capacity(desk *book.Desk, c day.Clock, kind term.Hours) *plan.Capacity {
	return a.capacity(desk, c).hours[kind]
}

// Happenings are the events of a day that are not over, plan.MostListed at most, and how many
// more there are, for one who reads the desk.
func (a *Session) Happenings(desk *book.Desk, c day.Clock, on day.Date) (listed []plan.Happening, more int) {
	k := a.capacity(desk, c)
	return k.hours[term.WorkingHours].Happenings(k.agenda, on)
}

func (a *Session) capacity(desk *book.Desk, c day.Clock) *keptCapacity {
	chosen := a.inForce(desk.Account()).settings
	a.capacities.mu.Lock()
	defer a.capacities.mu.Unlock()
	agenda := a.agenda(desk, c)
	k, asked := a.capacities.kept[desk.Account()]
	same := asked && k.agenda == agenda && k.settings == chosen && plan.MinuteOf(k.clock.Now) == plan.MinuteOf(c.Now)
	if same && k.revision == desk.Revision() {
		return k
	}
	next := &keptCapacity{settings: chosen, clock: c, agenda: agenda, revision: desk.Revision()}
	for kind := range next.hours {
		next.slots[kind] = plan.SlotsBeside(desk, c, term.Hours(kind))
		if same && slices.Equal(next.slots[kind], k.slots[kind]) {
			next.hours[kind] = k.hours[kind]
			continue
		}
		next.hours[kind] = plan.NewCapacity(c, plan.CalendarOf(chosen, term.Hours(kind)), slices.Concat(next.slots[kind], agenda.Busy()), ahead)
	}
	if a.capacities.kept == nil {
		a.capacities.kept = map[book.ID]*keptCapacity{}
	}
	a.capacities.kept[desk.Account()] = next
	return next
}

// agenda is the events of the account by their days. The caller holds capacities.mu.
func (a *Session) agenda(desk *book.Desk, c day.Clock) *plan.Agenda {
	k := a.capacities.agendas[desk.Account()]
	if k != nil && k.version == a.reads.version.Load() && k.clock.Zone == c.Zone && k.clock.DayStart == c.DayStart && k.clock.Today() == c.Today() {
		return k.Agenda
	}
	events, version := a.events(desk)
	if a.capacities.agendas == nil {
		a.capacities.agendas = map[book.ID]*keptAgenda{}
	}
	a.capacities.agendas[desk.Account()] = &keptAgenda{version, c, plan.NewAgenda(events, c, ahead)}
	return a.capacities.agendas[desk.Account()].Agenda
}

// Filled is the work of one kind that lies on a day, week or month, or parked, and the hours that
// it has; they are not known of what is parked, past or further ahead than they are reckoned.
type Filled struct {
	view.Load
	Capacity int
	Known    bool
}

// Loads tells how much work of each kind lies on a day, week or month, or parked, for one who
// reads the desk.
func (a *Session) Loads(desk *book.Desk, c day.Clock) func(day.Horizon) plan.Kinds[Filled] {
	loads, k := a.counts.survey(desk, c).Loads, a.capacity(desk, c)
	return func(h day.Horizon) (filled plan.Kinds[Filled]) {
		for kind, load := range loads[h] {
			filled[kind].Load = load
			filled[kind].Capacity, filled[kind].Known = k.hours[kind].Of(h)
		}
		return filled
	}
}

// Fill is what lies on a day once something has been moved to it.
type Fill struct {
	On    day.Horizon
	Loads plan.Kinds[Filled]
}

// mostFills is how many days a preview says the load of.
const mostFills = 5

// Fills are the days that a postponement moves work to, in order, for one who reads the desk.
func (a *Session) Fills(desk *book.Desk, c day.Clock, p *book.Postponement) []Fill {
	chosen := a.inForce(desk.Account()).settings
	assumed, loads := chosen.AssumedMinutes(), a.Loads(desk, c)
	more := map[day.Horizon]view.Loads{}
	for _, m := range p.Moves {
		to, work, kind := plan.CupOf(desk, c, m.After), plan.WorkOf(desk, m.Before, assumed), desk.HoursOf(m.Before)
		if to == plan.CupOf(desk, c, m.Before) || to.Precision() != day.Day || kind == term.NoHours {
			continue
		}
		all := more[to]
		if all[kind].Minutes += work.Minutes; work.Assumed {
			all[kind].Assumed += work.Minutes
		}
		more[to] = all
	}
	var fills []Fill
	for to, all := range more {
		there := loads(to)
		if !there[term.WorkingHours].Known {
			continue
		}
		for kind, l := range all {
			there[kind].Minutes += l.Minutes
			there[kind].Assumed += l.Assumed
		}
		fills = append(fills, Fill{to, there})
	}
	slices.SortFunc(fills, func(a, b Fill) int { return a.On.First().Compare(b.On.First()) })
	return fills[:min(len(fills), mostFills)]
}

// roomAhead is for how many days a day with room is looked for.
const roomAhead = 60

// NextRoom is the next day, from tomorrow on, whose hours hold what lies on it and what a
// postponement would move to it, of each kind of hours; none where there is no such day near, or
// where nothing moves. For one who reads the desk.
func (a *Session) NextRoom(desk *book.Desk, c day.Clock, cmd book.Postpone) (day.Date, error) {
	loads := a.Loads(desk, c)
	tomorrow := c.Today().AddDays(1)
	more, moves, err := a.moving(desk, c, cmd, tomorrow)
	if err != nil || !moves {
		return day.Date{}, err
	}
	for d := range roomAhead {
		on := tomorrow.AddDays(d)
		if !holds(loads(day.OnDay(on)), more) {
			continue
		}
		// To-dos that lie before it and after tomorrow move too.
		if all, _, err := a.moving(desk, c, cmd, on); err != nil || holds(loads(day.OnDay(on)), all) {
			return on, err
		}
	}
	return day.Date{}, nil
}

// moving is the work of each kind that a postponement would move to a day; moves tells whether
// anything would.
func (a *Session) moving(desk *book.Desk, c day.Clock, cmd book.Postpone, to day.Date) (work plan.Kinds[int], moves bool, err error) {
	chosen := a.inForce(desk.Account()).settings
	cmd.By = book.ToDate(to)
	p, err := desk.Postponement(book.Env{Clock: c}, cmd)
	if err != nil {
		return work, false, err
	}
	for _, m := range p.Moves {
		if kind := desk.HoursOf(m.Before); kind != term.NoHours {
			work[kind] += plan.WorkOf(desk, m.Before, chosen.AssumedMinutes()).Minutes
		}
	}
	return work, len(p.Moves) > 0, nil
}

// holds tells whether a day has hours for some more minutes of each kind beside what lies on it.
func holds(there plan.Kinds[Filled], more plan.Kinds[int]) bool {
	for kind, minutes := range more {
		if f := there[kind]; minutes > 0 && f.Minutes+minutes > f.Capacity {
			return false
		}
	}
	return true
}

// Past is what became of so many days up to today, for one who reads the desk.
func (a *Session) Past(desk *book.Desk, c day.Clock, days int) []plan.PastDay {
	chosen := a.inForce(desk.Account()).settings
	return plan.Past(desk, c, chosen.AssumedMinutes(), days)
}

// Week is the work of one kind on the desk and its hours of so many days, for one who reads the
// desk.
func (a *Session) Week(desk *book.Desk, c day.Clock, kind term.Hours, days int) (*plan.Problem, plan.Gathered, error) {
	chosen := a.inForce(desk.Account()).settings
	g := plan.Gather(desk, c, kind, chosen.AssumedMinutes(), day.Date{})
	p, err := a.problem(desk, c, kind, g, days)
	return p, g, err
}

// problem is work with the hours of so many days.
func (a *Session) problem(desk *book.Desk, c day.Clock, kind term.Hours, g plan.Gathered, days int) (*plan.Problem, error) {
	k := a.capacity(desk, c)
	busy := slices.Concat(g.Busy, k.agenda.Busy())
	return plan.NewProblem(plan.NewCapacity(c, plan.CalendarOf(k.settings, kind), busy, days), g.Jobs)
}

// Slack is that of a to-do with a due and an estimate, or with its own where these are
// none, for one who reads the desk; ok is false where it has none.
func (a *Session) Slack(desk *book.Desk, c day.Clock, t *book.Todo, due day.Moment, minutes int) (s plan.Slack, ok bool) {
	if due.IsZero() {
		due = plan.DueOf(desk, c, t)
	}
	kind := desk.HoursOf(t)
	if kind == term.NoHours {
		return s, false
	}
	k := a.capacity(desk, c)
	return plan.SlackOf(k.hours[kind], desk, t, due, minutes, k.settings.AssumedMinutes())
}

// fitDays is for how many days the hours of what is due today are reckoned: what is overdue may
// have to wait for the next day that has some.
const fitDays = 14

// TodayHolds says whether the day still holds its work, for one who reads the desk; "" where there
// is none.
func (a *Session) TodayHolds(desk *book.Desk, c day.Clock) string {
	kept := a.capacity(desk, c)
	loads := a.counts.survey(desk, c).Loads[day.OnDay(c.Today())]
	var said []string
	for kind, load := range loads {
		hours := term.Hours(kind)
		g := plan.Gather(desk, c, hours, kept.settings.AssumedMinutes(), c.Today())
		if p, err := a.problem(desk, c, hours, g, fitDays); err == nil { // ids are the to-dos' own, and chains follow their order
			fit := p.FitOf(g, load.Minutes, load.Assumed, kept.hours[kind].Days[0].Minutes)
			said = append(said, fit.Words())
		}
	}
	return strings.Join(slices.DeleteFunc(said, func(s string) bool { return s == "" }), " ")
}
