package app

import (
	"cmp"
	"slices"
	"strings"
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/settings"
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
	*plan.Capacity
}

// keptAgenda is the events of an account by their days: it changes with the events, with the
// zone, and by the day.
type keptAgenda struct {
	version int64 // of the events
	clock   day.Clock
	*plan.Agenda
}

// Capacity is the work time of the account from now on, for one who reads its desk.
func (a *Session) Capacity(desk *book.Desk, c day.Clock) *plan.Capacity {
	return a.capacity(desk, c).Capacity
}

// Happenings are the events of a day that are not over, plan.MostListed at most, and how many
// more there are, for one who reads the desk.
func (a *Session) Happenings(desk *book.Desk, c day.Clock, on day.Date) (listed []plan.Happening, more int) {
	k := a.capacity(desk, c)
	return k.Capacity.Happenings(k.agenda, on)
}

func (a *Session) capacity(desk *book.Desk, c day.Clock) *keptCapacity {
	chosen := a.inForce(desk.Account()).settings
	a.capacities.mu.Lock()
	defer a.capacities.mu.Unlock()
	agenda := a.agenda(desk, c)
	k, asked := a.capacities.kept[desk.Account()]
	if asked && k.agenda == agenda && k.settings == chosen && plan.MinuteOf(k.clock.Now) == plan.MinuteOf(c.Now) {
		return k
	}
	k = &keptCapacity{settings: chosen, clock: c, agenda: agenda}
	k.Capacity = plan.NewCapacity(c, plan.CalendarOf(chosen), agenda.Busy(), ahead)
	if a.capacities.kept == nil {
		a.capacities.kept = map[book.ID]*keptCapacity{}
	}
	a.capacities.kept[desk.Account()] = k
	return k
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

// Loads tells how much work lies on a day, week or month, or parked, and what work time it
// has, for one who reads the desk; known is false where that is not reckoned.
func (a *Session) Loads(desk *book.Desk, c day.Clock) func(day.Horizon) (load view.Load, capacity int, known bool) {
	loads, k := a.counts.survey(desk, c).Loads, a.Capacity(desk, c)
	return func(h day.Horizon) (view.Load, int, bool) {
		capacity, known := k.Of(h)
		return loads[h], capacity, known
	}
}

// Fill is what lies on a day once something has been moved to it.
type Fill struct {
	On       day.Horizon
	Load     view.Load
	Capacity int
}

// mostFills is how many days a preview says the load of.
const mostFills = 5

// Fills are the days that a postponement moves work to, in order, for one who reads the desk.
func (a *Session) Fills(desk *book.Desk, c day.Clock, p *book.Postponement) []Fill {
	chosen := a.inForce(desk.Account()).settings
	assumed, loads := chosen.AssumedMinutes(), a.Loads(desk, c)
	more := map[day.Horizon]view.Load{}
	for _, m := range p.Moves {
		to, work := plan.CupOf(desk, c, m.After), plan.WorkOf(desk, m.Before, assumed)
		if to == plan.CupOf(desk, c, m.Before) || to.Precision() != day.Day {
			continue
		}
		l := more[to]
		if l.Minutes += work.Minutes; work.Assumed {
			l.Assumed += work.Minutes
		}
		more[to] = l
	}
	var fills []Fill
	for to, l := range more {
		if there, capacity, known := loads(to); known {
			fills = append(fills, Fill{to, view.Load{Minutes: there.Minutes + l.Minutes, Assumed: there.Assumed + l.Assumed}, capacity})
		}
	}
	slices.SortFunc(fills, func(a, b Fill) int { return a.On.First().Compare(b.On.First()) })
	return fills[:min(len(fills), mostFills)]
}

// Past is what became of so many days up to today, for one who reads the desk.
func (a *Session) Past(desk *book.Desk, c day.Clock, days int) []plan.PastDay {
	chosen := a.inForce(desk.Account()).settings
	return plan.Past(desk, c, chosen.AssumedMinutes(), days)
}

// Week is the work on the desk and the hours of so many days, for one who reads the desk.
func (a *Session) Week(desk *book.Desk, c day.Clock, days int) (*plan.Problem, plan.Gathered, error) {
	chosen := a.inForce(desk.Account()).settings
	g := plan.Gather(desk, c, chosen.AssumedMinutes(), day.Date{})
	p, err := plan.NewProblem(plan.NewCapacity(c, plan.CalendarOf(chosen), append(g.Busy, a.capacity(desk, c).agenda.Busy()...), days), g.Jobs)
	return p, g, err
}

// Slack is that of a to-do with a due and an estimate, or with its own where these are
// none, for one who reads the desk; ok is false where it has none.
func (a *Session) Slack(desk *book.Desk, c day.Clock, t *book.Todo, due day.Moment, minutes int) (s plan.Slack, ok bool) {
	if due.IsZero() {
		due = plan.DueOf(desk, c, t)
	}
	chosen := a.inForce(desk.Account()).settings
	return plan.SlackOf(a.Capacity(desk, c), desk, t, due, minutes, chosen.AssumedMinutes())
}

// TodayHolds says whether the day still holds its work, and what happens on it, for one who
// reads the desk; "" where there is neither.
func (a *Session) TodayHolds(desk *book.Desk, c day.Clock) string {
	kept := a.capacity(desk, c)
	k := kept.Capacity
	chosen := a.inForce(desk.Account()).settings
	load := a.counts.survey(desk, c).Loads[day.OnDay(c.Today())]
	g := plan.Gather(desk, c, chosen.AssumedMinutes(), c.Today())
	if len(g.Busy) > 0 {
		k = plan.NewCapacity(c, plan.CalendarOf(chosen), append(g.Busy, kept.agenda.Busy()...), 1)
	}
	var late []string
	if p, err := plan.NewProblem(k, g.Jobs); err == nil { // ids are the to-dos' own, and chains follow their order
		jobs := p.Give().Late
		slices.SortStableFunc(jobs, func(a, b int) int { return cmp.Compare(g.Jobs[b].Weight, g.Jobs[a].Weight) })
		for _, job := range jobs {
			late = append(late, g.Todos[job].Title)
		}
	}
	said := plan.DayWords(load.Minutes, load.Assumed, kept.Days[0].Minutes, late)
	listed, more := k.Happenings(kept.agenda, c.Today())
	if events := plan.EventWords(listed, more, c.Zone); events != "" {
		said = strings.TrimPrefix(said+" "+events+".", " ")
	}
	return said
}
