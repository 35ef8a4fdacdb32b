package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// slow reads the rules word by word, minute by minute, and shares nothing with what it is
// held against but the clock.
type slow struct {
	clock day.Clock
	days  []day.Date
	// minutes are those of work time, in order; of is the day of each, in days.
	minutes []time.Time
	of      []int
	hoursTo []time.Time // the end of each day's working hours, or of the day
	jobs    []plan.Job
	from    []int // the first minute in which each job can be worked on
	to      []int // how many minutes there are until its due; -1 for none
	overdue []bool
}

func newSlow(c day.Clock, calendar plan.Calendar, busy []plan.Stretch, days int, jobs []plan.Job) *slow {
	s := &slow{clock: c, jobs: jobs}
	for i := range days {
		d := c.Today().AddDays(i)
		s.days = append(s.days, d)
		end := c.StartOf(d.AddDays(1))
		last := end
		worked := false
		for m := c.StartOf(d); m.Before(end); m = m.Add(time.Minute) {
			if !inHours(m.In(c.Zone), calendar) {
				continue
			}
			if !worked || m.Add(time.Minute).After(last) {
				last, worked = m.Add(time.Minute), true
			}
			free := !m.Before(c.Now)
			for _, b := range busy {
				free = free && (m.Before(b.From.Time()) || !m.Before(b.To.Time()))
			}
			if free {
				s.minutes, s.of = append(s.minutes, m), append(s.of, i)
			}
		}
		s.hoursTo = append(s.hoursTo, last)
	}
	for _, j := range jobs {
		s.measure(j)
	}
	return s
}

// inHours looks at the wall alone.
func inHours(wall time.Time, calendar plan.Calendar) bool {
	hours, own := calendar.Dates[day.DateOf(wall)]
	if !own {
		hours = calendar.Week[wall.Weekday()]
	}
	now := wall.Hour()*60 + wall.Minute()
	return slices.ContainsFunc(hours, func(h day.Span) bool { return now >= h.From && now < h.To })
}

func (s *slow) measure(j plan.Job) {
	count := func(until time.Time) int {
		n := 0
		for _, m := range s.minutes {
			if m.Before(until) {
				n++
			}
		}
		return n
	}
	release := s.clock.Now
	if !j.Release.IsZero() {
		release = s.clock.StartOf(j.Release.Date)
		if j.Release.HasTime() {
			release = s.clock.Instant(j.Release)
		}
	}
	due, overdue := -1, false
	if !j.Due.IsZero() {
		at := s.clock.Instant(j.Due)
		overdue = at.Before(s.clock.Now) || !j.Due.HasTime() && j.Due.Date.Before(s.clock.Today())
		if i := slices.Index(s.days, j.Due.Date); i >= 0 && !j.Due.HasTime() {
			at = s.hoursTo[i]
		}
		switch {
		case overdue && len(s.of) == 0:
			due = 0
		case overdue:
			for n := range s.of {
				if s.of[n] == s.of[0] {
					due = n + 1
				}
			}
		case !at.After(s.clock.StartOf(s.days[len(s.days)-1].AddDays(1))):
			due = count(at)
		}
	}
	s.from, s.to, s.overdue = append(s.from, count(release)), append(s.to, due), append(s.overdue, overdue)
}

// can tries every way of working, minute by minute: whether the jobs of a set can all be
// done by their dues, or the given ones in place of these. What waits, waits.
func (s *slow) can(set uint, dues []int) bool {
	left := make([]int, len(s.jobs))
	work := 0
	for i, j := range s.jobs {
		if set&(1<<i) != 0 {
			left[i] = j.Minutes
			if dues[i] >= 0 {
				work += j.Minutes
			}
		}
	}
	// needed are those that have a due, and what they wait for.
	needed := make([]bool, len(s.jobs))
	var need func(i int)
	need = func(i int) {
		if set&(1<<i) == 0 || needed[i] {
			return
		}
		needed[i] = true
		for _, b := range s.jobs[i].After {
			need(b)
		}
	}
	for i := range s.jobs {
		if dues[i] >= 0 {
			need(i)
		}
	}
	seen := map[string]bool{}
	var try func(at int) bool
	try = func(at int) bool {
		open := false
		for i := range left {
			if left[i] == 0 || !needed[i] {
				continue
			}
			open = true
			if dues[i] >= 0 && dues[i]-at < left[i] {
				return false
			}
		}
		if !open {
			return true
		}
		if at >= len(s.minutes) {
			return false
		}
		key := fmt.Sprint(at, left)
		if seen[key] {
			return false
		}
		seen[key] = true
		worked := false
		for i, j := range s.jobs {
			if left[i] == 0 || !needed[i] || s.from[i] > at ||
				slices.ContainsFunc(j.After, func(b int) bool { return set&(1<<b) != 0 && left[b] > 0 }) {
				continue
			}
			worked = true
			left[i]--
			if try(at + 1) {
				return true
			}
			left[i]++
		}
		return !worked && try(at+1)
	}
	return try(0)
}

// awaited are all that a job waits for, near and far.
func (s *slow) awaited(i int) (set uint) {
	for _, b := range s.jobs[i].After {
		set |= 1<<b | s.awaited(b)
	}
	return set
}

func (s *slow) all() uint { return 1<<len(s.jobs) - 1 }

// firstMissed is the least due, in minutes of work time, up to which not all can be met.
func (s *slow) firstMissed() (due int, missed bool) {
	for _, due := range slices.Sorted(slices.Values(s.to)) {
		dues := slices.Clone(s.to)
		for i := range dues {
			if dues[i] > due {
				dues[i] = -1
			}
		}
		if due >= 0 && !s.can(s.all(), dues) {
			return due, true
		}
	}
	return 0, false
}

// give tries every set of jobs that may be late. It does not know what to say where there
// are not even hours enough for what is overdue.
func (s *slow) give() (late []string, known bool) {
	dues := slices.Clone(s.to)
	// Overdue work that does not fit today is due when it can be done at the earliest.
	var rest uint
	most := 0
	for i, is := range s.overdue {
		if is {
			rest |= 1<<i | s.awaited(i)
			most = dues[i]
		}
	}
	for end := most; rest != 0 && end <= len(s.minutes); end++ {
		only := make([]int, len(dues))
		for i := range only {
			only[i] = -1
			if s.overdue[i] {
				only[i] = end
			}
		}
		if !s.can(rest, only) && end == len(s.minutes) {
			return nil, false
		}
		if s.can(rest, only) {
			for i := range dues {
				if s.overdue[i] {
					dues[i] = end
				}
			}
			break
		}
	}
	var best []string
	var bestCost [3]int
	found := false
	for late := uint(0); late <= s.all(); late++ {
		var ids []string
		var cost [3]int
		own := slices.Clone(dues)
		allowed := true
		for i, j := range s.jobs {
			if late&(1<<i) == 0 {
				continue
			}
			allowed = allowed && !s.overdue[i] && dues[i] >= 0
			own[i] = -1
			cost[0], cost[1], cost[2] = cost[0]+j.Weight, cost[1]+1, cost[2]+j.Minutes
			ids = append(ids, j.ID)
		}
		slices.Sort(ids)
		if !allowed || found && (slices.Compare(cost[:], bestCost[:]) > 0 || cost == bestCost && slices.Compare(ids, best) > 0) {
			continue
		}
		if s.can(s.all(), own) {
			best, bestCost, found = ids, cost, true
		}
	}
	return best, true
}

// world is a random small problem: a few minutes of work time on a few days.
type world struct {
	clock    day.Clock
	calendar plan.Calendar
	busy     []plan.Stretch
	days     int
	jobs     []plan.Job
}

var zones = []string{"UTC", "Europe/Lisbon", "America/New_York", "Australia/Lord_Howe"}

func randomWorld(t testing.TB, r *rand.Rand, most int, chains, releases bool) world {
	t.Helper()
	zone, err := time.LoadLocation(zones[r.IntN(len(zones))])
	if err != nil {
		t.Fatal(err)
	}
	w := world{days: 1 + r.IntN(3)}
	w.clock = day.Clock{Now: time.Date(2026, 10, 30+r.IntN(4), 9, r.IntN(4), 0, 0, zone), Zone: zone}
	w.calendar.Dates = map[day.Date]day.Hours{}
	for i := range w.days {
		hours := day.Hours{{From: 540, To: 541 + r.IntN(4)}}
		if r.IntN(2) == 0 {
			hours = append(hours, day.Span{From: 560, To: 561 + r.IntN(3)})
		}
		if r.IntN(6) == 0 {
			hours = nil
		}
		w.calendar.Dates[w.clock.Today().AddDays(i)] = hours
	}
	if r.IntN(3) == 0 {
		from := plan.MinuteOf(w.clock.Now) + plan.Minute(r.IntN(24*60))
		w.busy = append(w.busy, plan.Stretch{From: from, To: from + plan.Minute(1+r.IntN(600))})
	}
	moment := func(back int) day.Moment {
		m := day.Moment{Date: w.clock.Today().AddDays(r.IntN(w.days+1+back) - back)}
		if r.IntN(2) == 0 {
			m.Time, _ = day.NewTimeOfDay(9, []int{0, 1, 2, 3, 4, 20, 21, 22}[r.IntN(8)])
		}
		return m
	}
	for i := range 1 + r.IntN(most) {
		j := plan.Job{ID: string(rune('a' + i)), Minutes: 1 + r.IntN(4), Weight: 1 << r.IntN(4)}
		if r.IntN(5) > 0 {
			j.Due = moment(r.IntN(2))
		}
		if releases && r.IntN(3) == 0 {
			j.Release = moment(0)
		}
		if chains && i > 0 && r.IntN(3) == 0 {
			j.After = append(j.After, r.IntN(i))
		}
		w.jobs = append(w.jobs, j)
	}
	r.Shuffle(len(w.jobs), func(a, b int) {
		for i := range w.jobs {
			for n, at := range w.jobs[i].After {
				w.jobs[i].After[n] = map[int]int{a: b, b: a}[at] + at*b2i(at != a && at != b)
			}
		}
		w.jobs[a], w.jobs[b] = w.jobs[b], w.jobs[a]
	})
	return w
}

// chainedWorld is a quarter of an hour in which most jobs wait for others, and starts and dues lie
// minutes apart.
func chainedWorld(t testing.TB, r *rand.Rand, most int) world {
	w := randomWorld(t, r, most, false, false)
	w.days, w.busy = 1, nil
	w.calendar.Dates[w.clock.Today()] = day.Hours{{From: 540, To: 555}}
	at := func(minute int) day.Moment {
		m := day.Moment{Date: w.clock.Today()}
		m.Time, _ = day.NewTimeOfDay(9, minute)
		return m
	}
	for i := range w.jobs {
		j := &w.jobs[i]
		j.Minutes, j.Due = 1+r.IntN(3), day.Moment{}
		if r.IntN(4) > 0 {
			j.Due = at(5 + r.IntN(10))
		}
		if r.IntN(2) == 0 {
			j.Release = at(r.IntN(9))
		}
		for before := range i {
			if r.IntN(i+1) == 0 {
				j.After = append(j.After, before)
			}
		}
	}
	return w
}

func b2i(b bool) int {
	if b {
		return 1
	}
	return 0
}

func (w world) problem(t testing.TB) *plan.Problem {
	t.Helper()
	p, err := plan.NewProblem(plan.NewCapacity(w.clock, w.calendar, w.busy, w.days), w.jobs)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func (w world) slow() *slow { return newSlow(w.clock, w.calendar, w.busy, w.days, w.jobs) }

// without is the world with a job less, and nothing waiting for it.
func (w world) without(job int) world {
	w.jobs = slices.Clone(w.jobs)
	for i := range w.jobs {
		var after []int
		for _, at := range w.jobs[i].After {
			if at != job {
				after = append(after, at-b2i(at > job))
			}
		}
		w.jobs[i].After = after
	}
	w.jobs = slices.Delete(w.jobs, job, job+1)
	return w
}

// shrunk takes out jobs while what is wrong stays wrong.
func (w world) shrunk(wrong func(world) string) world {
	for i := 0; i < len(w.jobs); {
		if less := w.without(i); len(less.jobs) > 0 && wrong(less) != "" {
			w, i = less, 0
		} else {
			i++
		}
	}
	return w
}

func (w world) String() string {
	var b strings.Builder
	fmt.Fprintf(&b, "now %s in %s, %d days, busy %v", w.clock.Wall(), w.clock.Zone, w.days, w.busy)
	for i := range w.days {
		d := w.clock.Today().AddDays(i)
		fmt.Fprintf(&b, "\n%s %s", d, w.calendar.Dates[d])
	}
	for _, j := range w.jobs {
		fmt.Fprintf(&b, "\n%+v", j)
	}
	return b.String()
}
