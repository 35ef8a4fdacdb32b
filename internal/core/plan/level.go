package plan

import (
	"cmp"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// ExactJobs is up to how many jobs without a day Level tries all ways to spread them.
const ExactJobs = 14

// Levelled is a proposed day for each job that is planned for none.
type Levelled struct {
	// Day holds the proposals, by the indices of the jobs.
	Day map[int]day.Date
	// TooLong are jobs that are longer than any of the days from their release to their
	// due; Unplaced are others for which no day was found.
	TooLong, Unplaced []int
	// Fullest is the greatest load of a day by its capacity, 1 being full; Bound is what
	// no way of planning can beat. Both are 0 where no day has work time.
	Fullest, Bound float64
	// Longest is the minutes of the day that has the most.
	Longest int
	// Proved tells whether all ways were tried: no other has a less full fullest day, or
	// among those a less full second one, and so on.
	Proved bool
}

// Parts is into how many parts a job of so many minutes has to be split for the longest day to hold
// each of them, 2 to book.MostParts.
func (l *Levelled) Parts(minutes int) int {
	longest := max(l.Longest, 1)
	return min(max((minutes+longest-1)/longest, 2), book.MostParts)
}

// leveller spreads jobs over the days that have work time.
type leveller struct {
	*Problem
	days  []*Day  // that have work time
	fixed [][]int // jobs that stay, by day
	load  []int   // of these
	free  []int   // jobs to spread
	can   [][]int // on which days each can be, by its index in free
	// lo and hi are the first and the last day of each, whether or not it fits into one.
	lo, hi []int
	// first and last are, of each job, the latest day of what it waits for and the earliest
	// of what waits for it, of jobs that stay; none where there is none.
	first, last []day.Date
	// strict wants every day to be done with all that lies on it; else days may be over
	// full, and only times of dues within them are to be met.
	strict bool
}

// Release takes the day from the jobs that are planned for a day which holds more than it can, but
// from those that stay: Level may then propose another day for them. A day without hours is left
// as it is: its work was planned outside of them on purpose.
func (p *Problem) Release(stays func(job int) bool) {
	over := p.Hold().Over
	for i := range p.Jobs {
		j := &p.Jobs[i]
		on := p.DayOf(i)
		if _, full := over[on]; full && !j.Day.IsZero() && len(p.Day(on).Hours) > 0 && !stays(i) {
			j.Was, j.Day = on, day.Date{}
		}
	}
}

// Stays reports whether what is proposed is what is planned already: each job would lie where it
// lies, and none is without a day.
func (p *Problem) Stays(l Levelled) bool {
	for job, on := range l.Day {
		lies := p.DayOf(job)
		if was := p.Jobs[job].Was; !was.IsZero() {
			lies = was
		}
		if lies != on {
			return false
		}
	}
	return len(l.TooLong)+len(l.Unplaced) == 0
}

// Level proposes a day for each job that is planned for none, so that the fullest day is
// as empty as can be, then the second fullest, and so on; then with the fewest moves away
// from where jobs were, then the earlier days. Jobs with a day stay.
func (p *Problem) Level() Levelled {
	l := &leveller{Problem: p, strict: true}
	out := Levelled{Day: map[int]day.Date{}}
	for i := range p.Days {
		if p.Days[i].Minutes > 0 {
			l.days = append(l.days, &p.Days[i])
			out.Longest = max(out.Longest, p.Days[i].Minutes)
		}
	}
	l.fixed, l.load = make([][]int, len(l.days)), make([]int, len(l.days))
	for job, j := range p.Jobs {
		if j.Day.IsZero() {
			continue
		}
		if at := l.at(p.DayOf(job)); at >= 0 {
			l.fixed[at] = append(l.fixed[at], job)
			l.load[at] += j.Minutes
		}
	}
	l.bind()
	for job, j := range p.Jobs {
		if !j.Day.IsZero() {
			continue
		}
		if can, lo, hi := l.window(job); len(can) == 0 {
			out.TooLong = append(out.TooLong, job)
		} else {
			l.free, l.can, l.lo, l.hi = append(l.free, job), append(l.can, can), append(l.lo, lo), append(l.hi, hi)
		}
	}
	spread := l.spread(&out)
	if slices.Contains(spread, -1) {
		out.Bound = l.boundOf(spread)
	}
	for i, at := range spread {
		if at < 0 {
			out.Unplaced = append(out.Unplaced, l.free[i])
			continue
		}
		out.Day[l.free[i]] = l.days[at].Date
		l.load[at] += p.Jobs[l.free[i]].Minutes
	}
	for i := range l.days {
		out.Fullest = max(out.Fullest, l.ratio(i, l.load[i]))
	}
	slices.SortFunc(out.TooLong, p.lesser)
	slices.SortFunc(out.Unplaced, p.lesser)
	return out
}

func (l *leveller) ratio(at, load int) float64 { return float64(load) / float64(l.days[at].Minutes) }

// at is the index of a day among those that have work time; -1 where it has none.
func (l *leveller) at(d day.Date) int {
	i, found := slices.BinarySearchFunc(l.days, d, func(d *Day, date day.Date) int { return d.Date.Compare(date) })
	if !found {
		return -1
	}
	return i
}

// window finds the days between release and due, and among them those in which the job can
// be done as a whole. What waits for a job that stays, or is waited for by one, keeps to
// the order of their days.
func (l *leveller) window(job int) (can []int, lo, hi int) {
	t := l.tasks[job]
	if t.overdue {
		t.due = max(t.due, 1) // today's work time, or that of the next day that has some
	}
	lo, hi = len(l.days), -1
	for i, d := range l.days {
		from, to := max(t.release, d.before), min(t.due, d.before+d.Minutes)
		if from >= to || d.Date.Before(l.first[job]) || !l.last[job].IsZero() && d.Date.After(l.last[job]) {
			continue
		}
		lo, hi = min(lo, i), i
		if to-from >= t.minutes {
			can = append(can, i)
		}
	}
	return can, lo, hi
}

// bind finds the days between which the chains of jobs that stay leave the others.
func (l *leveller) bind() {
	l.first, l.last = make([]day.Date, len(l.Jobs)), make([]day.Date, len(l.Jobs))
	for job, j := range l.Jobs {
		for _, before := range j.After {
			if d := l.DayOf(before); !l.Jobs[before].Day.IsZero() && d.After(l.first[job]) {
				l.first[job] = d
			}
			if d := l.DayOf(job); !j.Day.IsZero() && (l.last[before].IsZero() || d.Before(l.last[before])) {
				l.last[before] = d
			}
		}
	}
}

// spread finds a day for each free job, -1 for none.
func (l *leveller) spread(out *Levelled) []int {
	out.Bound = l.bound()
	if len(l.free) == 0 {
		out.Proved = true
		return nil
	}
	for _, l.strict = range []bool{true, false} {
		found, whole := l.local()
		if len(l.free) <= ExactJobs {
			if best := l.exact(found, whole); best != nil {
				out.Proved = true
				return best
			}
			continue
		}
		if whole {
			return found
		}
	}
	found, _ := l.local()
	return found
}

// fits tells whether a day takes some more jobs beside those that stay on it.
func (l *leveller) fits(at int, more []int) bool {
	d := l.days[at]
	jobs := append(slices.Clip(l.fixed[at]), more...)
	work, plain := 0, !l.chained
	for _, job := range jobs {
		t := l.tasks[job]
		work += t.minutes
		plain = plain && t.release <= d.before && (t.due >= d.before+d.Minutes || t.overdue)
	}
	if l.strict && work > d.Minutes {
		return false
	}
	if plain {
		return true
	}
	_, missed := firstMissed(l.onDay(d, jobs, !l.strict))
	return !missed
}

// bound is what no way of spreading can beat: as if jobs could be split over their days,
// which is a flow whose least cut lies around some days in a row, and for each job the
// least that it fills a day by itself.
func (l *leveller) bound() float64 { return l.boundOf(nil) }

// boundOf is the bound for the jobs alone that a way of spreading places; nil places all.
func (l *leveller) boundOf(spread []int) float64 {
	best := 0.0
	placed := func(i int) bool { return spread == nil || spread[i] >= 0 }
	for from := range l.days {
		work := make([]int, len(l.days)) // by the last day of what lies from here on
		for i, job := range l.free {
			if l.lo[i] >= from && placed(i) {
				work[l.hi[i]] += l.Jobs[job].Minutes
			}
		}
		sum, capacity := 0, 0
		for to := from; to < len(l.days); to++ {
			sum += work[to] + l.load[to]
			capacity += l.days[to].Minutes
			best = max(best, float64(sum)/float64(capacity))
		}
	}
	for i, job := range l.free {
		if !placed(i) {
			continue
		}
		most := 0
		for _, at := range l.can[i] {
			most = max(most, l.days[at].Minutes)
		}
		best = max(best, float64(l.Jobs[job].Minutes)/float64(most))
	}
	return best
}

// cost is what one way of spreading is compared by, beside how full days are.
type cost struct{ moves, days int }

func (c cost) compare(o cost) int {
	return cmp.Or(cmp.Compare(c.moves, o.moves), cmp.Compare(c.days, o.days))
}

// costOf is the cost of a free job on a day.
func (l *leveller) costOf(i, at int) cost {
	c := cost{days: at}
	if was := l.Jobs[l.free[i]].Was; !was.IsZero() && was != l.days[at].Date {
		c.moves = 1
	}
	return c
}

// waits tells, of free jobs by their indices in free, which each waits for, and which wait
// for it.
func (l *leveller) waits() (waits, awaited [][]int) {
	at := make(map[int]int, len(l.free))
	for i, job := range l.free {
		at[job] = i
	}
	waits, awaited = make([][]int, len(l.free)), make([][]int, len(l.free))
	for i, job := range l.free {
		for _, before := range l.Jobs[job].After {
			if b, free := at[before]; free {
				waits[i], awaited[b] = append(waits[i], b), append(awaited[b], i)
			}
		}
	}
	return waits, awaited
}
