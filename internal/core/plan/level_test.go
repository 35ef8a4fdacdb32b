package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/day"
)

// randomWeek is five days and up to six jobs, some of them with a day.
func randomWeek(t testing.TB, r *rand.Rand, jobs int, chains bool) world {
	w := randomWorld(t, r, jobs, chains, true)
	w.days = 5
	for i := range w.days {
		d := w.clock.Today().AddDays(i)
		if r.IntN(6) > 0 {
			w.calendar.Dates[d] = day.Hours{{From: 540, To: 541 + r.IntN(4)}, {From: 560, To: 561 + r.IntN(4)}}
		}
	}
	for i := range w.jobs {
		j := &w.jobs[i]
		j.Minutes = 1 + r.IntN(5)
		if !j.Due.IsZero() {
			j.Due.Date = w.clock.Today().AddDays(r.IntN(6))
		}
		switch r.IntN(5) {
		case 0:
			j.Day = w.clock.Today().AddDays(r.IntN(5))
		case 1:
			j.Was = w.clock.Today().AddDays(r.IntN(5))
		}
	}
	return w
}

// leveling tries every way to spread, day by day and minute by minute.
type leveling struct {
	*slow
	w      world
	size   []int // minutes of work time of each day
	before []int
	free   []int
	strict bool
}

func newLeveling(w world) *leveling {
	l := &leveling{slow: w.slow(), w: w, size: make([]int, w.days), before: make([]int, w.days)}
	for _, d := range l.of {
		l.size[d]++
	}
	for d := 1; d < w.days; d++ {
		l.before[d] = l.before[d-1] + l.size[d-1]
	}
	return l
}

func (l *leveling) dayOf(i int) int {
	if l.jobs[i].Day.IsZero() {
		return -1
	}
	return max(l.jobs[i].Day.Sub(l.days[0]), 0)
}

// window are the days on which a job can be done as a whole.
func (l *leveling) window(i int) (days []int) {
	for d := range l.days {
		from, to := max(l.from[i], l.before[d]), l.before[d]+l.size[d]
		if l.to[i] >= 0 {
			to = min(to, l.to[i])
		}
		inTurn := true
		for o, j := range l.jobs {
			if slices.Contains(l.jobs[i].After, o) && l.dayOf(o) > d || slices.Contains(j.After, i) && l.dayOf(o) >= 0 && l.dayOf(o) < d {
				inTurn = false
			}
		}
		if l.size[d] > 0 && to-from >= l.jobs[i].Minutes && inTurn {
			days = append(days, d)
		}
	}
	return days
}

// meets works through one day, the earliest due first, and tells whether all is done by its
// end and its times: where it need not be strict, only times before its end count.
func (l *leveling) meets(d int, jobs []int) bool {
	set, dues := uint(0), make([]int, len(l.jobs))
	for i := range dues {
		dues[i] = -1
	}
	end := l.before[d] + l.size[d]
	for _, i := range jobs {
		set |= 1 << i
		switch {
		case l.to[i] >= 0 && !l.overdue[i] && l.to[i] < end:
			dues[i] = l.to[i]
		case l.strict:
			dues[i] = end
		}
	}
	only := *l.slow
	only.minutes = l.minutes[:end]
	only.from = slices.Clone(l.from)
	for i := range only.from {
		only.from[i] = max(only.from[i], l.before[d])
	}
	return only.can(set, dues)
}

// best tries all ways, and returns how full days are in the best, the fullest first, with
// its moves; nil where there is none.
func (l *leveling) best() (full []float64, moves, early int) {
	at := make([]int, len(l.jobs))
	l.free = nil
	for i := range l.jobs {
		if at[i] = l.dayOf(i); at[i] < 0 && len(l.window(i)) > 0 {
			l.free = append(l.free, i)
		}
	}
	moves = math.MaxInt
	var try func(n int)
	try = func(n int) {
		if n < len(l.free) {
			for _, d := range l.window(l.free[n]) {
				at[l.free[n]] = d
				try(n + 1)
			}
			at[l.free[n]] = -1
			return
		}
		ratios, m, e := l.judged(at)
		c := slices.Compare(ratios, full)
		if full != nil && (c > 0 || c == 0 && (m > moves || m == moves && e >= early)) || !l.allowed(at) {
			return
		}
		full, moves, early = ratios, m, e
	}
	try(0)
	return full, moves, early
}

// judged is how full days with work time are, the fullest first, the moves, and how early.
func (l *leveling) judged(at []int) (ratios []float64, moves, early int) {
	load := make([]int, len(l.days))
	place, places := 0, make([]int, len(l.days))
	for d := range l.days {
		if places[d] = place; l.size[d] > 0 {
			place++
		}
	}
	for i, d := range at {
		if d < 0 || d >= len(l.days) {
			continue
		}
		load[d] += l.jobs[i].Minutes
		if slices.Contains(l.free, i) {
			early += places[d]
			if was := l.jobs[i].Was; !was.IsZero() && was != l.days[d] {
				moves++
			}
		}
	}
	for d, size := range l.size {
		if size > 0 {
			ratios = append(ratios, float64(load[d])/float64(size))
		}
	}
	slices.SortFunc(ratios, func(a, b float64) int {
		if a > b {
			return -1
		}
		return b2i(a < b)
	})
	return ratios, moves, early
}

func (l *leveling) allowed(at []int) bool {
	for _, i := range l.free {
		for _, b := range l.jobs[i].After {
			if slices.Contains(l.free, b) && at[b] > at[i] {
				return false
			}
		}
	}
	for d := range l.days {
		var jobs []int
		gets := false
		for i, on := range at {
			if on == d {
				jobs = append(jobs, i)
				gets = gets || slices.Contains(l.free, i)
			}
		}
		if gets && !l.meets(d, jobs) {
			return false
		}
	}
	return true
}

// Levelling, up to 6 jobs in 5 days: the least greatest ratio, then the next, and so on,
// then the fewest moves, then the earlier days.
func TestLevelAgainstBruteForce(t *testing.T) {
	for name, chains := range map[string]bool{"alone": false, "chains": true} {
		t.Run(name, func(t *testing.T) {
			spread, over := 0, 0
			against(t, 5, *cases, func(r *rand.Rand) world { return randomWeek(t, r, 6, chains) }, func(w world) string {
				p := w.problem(t)
				got := p.Level()
				l := newLeveling(w)
				l.strict = true
				full, moves, early := l.best()
				if full == nil {
					l.strict = false
					full, moves, early = l.best()
					over++
				}
				if full == nil {
					return "" // times that cannot be met, whatever is tried
				}
				spread++
				at := make([]int, len(w.jobs))
				for i := range at {
					at[i] = l.dayOf(i)
					if d, proposed := got.Day[i]; proposed {
						at[i] = d.Sub(l.days[0])
					}
				}
				ratios, m, e := l.judged(at)
				if !slices.Equal(ratios, full) || m != moves || e != early || !l.allowed(at) || !got.Proved {
					return fmt.Sprintf("%v: %v, %d moves, early %d; by brute force %v, %d, %d; allowed %t, strict %t", got.Day, ratios, m, e, full, moves, early, l.allowed(at), l.strict)
				}
				if got.Fullest != max(0, full[0]) || got.Bound > got.Fullest+1e-9 {
					return fmt.Sprintf("fullest %v, bound %v; by brute force %v", got.Fullest, got.Bound, full[0])
				}
				if want := slowBound(l); math.Abs(want-got.Bound) > 1e-6 {
					return fmt.Sprintf("the bound is %v; by a flow %v", got.Bound, want)
				}
				return ""
			})
			if spread < *cases/3 || over == 0 {
				t.Errorf("of %d only %d could be spread, %d over full", *cases, spread, over)
			}
		})
	}
}

// slowBound is the least ratio at which jobs, if they could be split, flow into their days
// (a maximum flow by augmenting paths, Ford and Fulkerson 1956), and no less than each fills
// a day by itself.
func slowBound(l *leveling) float64 {
	own := 0.0
	work := 0
	for _, i := range l.free {
		most := 0
		for _, d := range l.window(i) {
			most = max(most, l.size[d])
		}
		own = max(own, float64(l.jobs[i].Minutes)/float64(most))
	}
	// Every ratio that can be the least is work by work time.
	total := len(l.minutes)
	for i := range l.jobs {
		if slices.Contains(l.free, i) || l.dayOf(i) >= 0 && l.dayOf(i) < len(l.days) {
			work += l.jobs[i].Minutes
		}
	}
	best := math.Inf(1)
	for a := 0; a <= work; a++ {
		for b := 1; b <= total; b++ {
			if ratio := float64(a) / float64(b); ratio < best && l.flows(a, b) {
				best = ratio
			}
		}
	}
	return max(best, own)
}

// flows tells whether all work flows into days of a/b of their size.
func (l *leveling) flows(a, b int) bool {
	room := make([]int, len(l.days))
	for d, size := range l.size {
		room[d] = size * a
	}
	for i, j := range l.jobs {
		if d := l.dayOf(i); d >= 0 && d < len(l.days) && l.size[d] > 0 {
			if room[d] -= j.Minutes * b; room[d] < 0 {
				return false
			}
		}
	}
	flow := make([][]int, len(l.jobs))
	for i := range flow {
		flow[i] = make([]int, len(l.days))
	}
	var push func(i, units int, seen []bool) int
	push = func(i, units int, seen []bool) int {
		for d := range l.days {
			if seen[d] || !l.reaches(i, d) {
				continue
			}
			seen[d] = true
			if n := min(units, room[d]); n > 0 {
				room[d] -= n
				flow[i][d] += n
				return n
			}
			for _, o := range l.free {
				if o == i || flow[o][d] == 0 {
					continue
				}
				if n := push(o, min(units, flow[o][d]), seen); n > 0 {
					flow[o][d] -= n
					flow[i][d] += n
					return n
				}
			}
		}
		return 0
	}
	for _, i := range l.free {
		for left := l.jobs[i].Minutes * b; left > 0; {
			n := push(i, left, make([]bool, len(l.days)))
			if n == 0 {
				return false
			}
			left -= n
		}
	}
	return true
}

// reaches tells whether some work time of a day lies between a job's release and its due.
func (l *leveling) reaches(i, d int) bool {
	from, to := max(l.from[i], l.before[d]), l.before[d]+l.size[d]
	if l.to[i] >= 0 {
		to = min(to, l.to[i])
	}
	days := l.window(i)
	return from < to && len(days) > 0 && l.inTurn(i, d)
}

func (l *leveling) inTurn(i, d int) bool {
	for o, j := range l.jobs {
		if slices.Contains(l.jobs[i].After, o) && l.dayOf(o) > d || slices.Contains(j.After, i) && l.dayOf(o) >= 0 && l.dayOf(o) < d {
			return false
		}
	}
	return true
}

// Levelling again with all released changes nothing.
func TestLevelAgain(t *testing.T) {
	against(t, 7, *cases, func(r *rand.Rand) world { return randomWeek(t, r, 6, true) }, func(w world) string {
		for i := range w.jobs {
			w.jobs[i].Day, w.jobs[i].Was = day.Date{}, day.Date{}
		}
		first := w.problem(t).Level().Day
		again := w
		again.jobs = slices.Clone(w.jobs)
		for i, d := range first {
			again.jobs[i].Was = d
		}
		for i, d := range again.problem(t).Level().Day {
			if first[i] != d {
				return fmt.Sprintf("%s moves from %s to %s", w.jobs[i].ID, first[i], d)
			}
		}
		return ""
	})
}
