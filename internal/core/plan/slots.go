package plan

import (
	"cmp"
	"math"
	"slices"

	"tincup/internal/core/day"
)

// fiveMinutes is what the beginnings of slots are rounded up to.
const fiveMinutes = 5

// noDeadline is the deadline of a piece that has none.
const noDeadline Minute = math.MaxInt64

// piece is work that is to be laid into the hours of one day.
type piece struct {
	// minutes of work; 0 for what gets no slot, so that what waits for it gets none either.
	minutes int
	// release is from when on it can be worked on, due when it must be done.
	release, due Minute
	// weight settles which comes first of those with one deadline: the greater.
	weight int
	deep   bool
	// after are the indices of the pieces that have to be done before it; behind are those that
	// stand before it in their project, and are done before it where they have a time at all.
	after, behind []int
	// done is when a piece is done that has its time already; 0 for all others.
	done Minute
}

// laying is one way to lay pieces into the hours of a day.
type laying struct {
	*Capacity
	pieces []piece
	// free and peak are what is left of the free hours, and of the peak hours among them.
	free, peak []Stretch
	// at is the slot of each piece, done when it is over; both zero while it has none.
	at   []Stretch
	done []Minute
	// rest: what is left may be laid though what it stands behind has no time.
	rest bool
}

// slots finds for each piece the first stretch of a day that is free for all of its minutes,
// in the order of deadlines, then of weights, then of indices. Deep ones are laid into peak
// hours before all others, unless fewer deadlines would be missed without that. It returns
// zero for those that no stretch is long enough for, and for those that have their time.
func (k *Capacity) slots(pieces []piece, free, peak []Stretch) []Stretch {
	lay := func(deepFirst bool) *laying {
		l := &laying{Capacity: k, pieces: pieces, free: free, peak: peak, at: make([]Stretch, len(pieces)), done: make([]Minute, len(pieces))}
		for i, p := range pieces {
			l.done[i] = p.done
		}
		l.layAll(deepFirst)
		return l
	}
	best := lay(true)
	if missed := best.missed(); missed > 0 {
		if plain := lay(false); plain.missed() < missed {
			best = plain
		}
	}
	return best.at
}

// layAll lays all that can be laid.
func (l *laying) layAll(deepFirst bool) {
	var order []int
	for i, p := range l.pieces {
		if p.minutes > 0 && p.done == 0 {
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int {
		x, y := l.pieces[a], l.pieces[b]
		return cmp.Or(cmp.Compare(x.due, y.due), cmp.Compare(y.weight, x.weight))
	})
	if deepFirst {
		order = slices.DeleteFunc(order, func(i int) bool { return l.pieces[i].deep && l.lay(i, l.peak) })
	}
	// What waits for one that is laid after it comes in a later round.
	for _, l.rest = range []bool{false, true} {
		for again := true; again; {
			again = false
			for n, i := range order {
				if l.lay(i, l.free) {
					order = slices.Delete(order, n, n+1)
					again = true
					break
				}
			}
		}
	}
}

// lay gives a piece the first stretch that is long enough, if it waits for none that has no
// time yet.
func (l *laying) lay(i int, into []Stretch) bool {
	from := l.pieces[i].release
	for _, before := range l.pieces[i].after {
		if l.done[before] == 0 {
			return false
		}
		from = max(from, l.done[before])
	}
	for _, before := range l.pieces[i].behind {
		if waits := l.pieces[before].minutes > 0; waits && l.done[before] == 0 && !l.rest {
			return false
		}
		from = max(from, l.done[before])
	}
	s, fits := l.firstIn(into, from, l.pieces[i].minutes)
	if fits {
		taken := []Stretch{s}
		l.free, l.peak = without(l.free, taken), without(l.peak, taken)
		l.at[i], l.done[i] = s, s.To
	}
	return fits
}

// missed counts the pieces that have no time, or are done after they are due.
func (l *laying) missed() int {
	missed := 0
	for i, p := range l.pieces {
		if p.minutes > 0 && p.done == 0 && (l.done[i] == 0 || l.done[i] > p.due) {
			missed++
		}
	}
	return missed
}

// firstIn is the first stretch of so many minutes within some that are in order, from a
// moment on. It begins at a time of the wall that means that moment: of an hour that comes
// twice a plan means the first.
func (k *Capacity) firstIn(all []Stretch, from Minute, minutes int) (Stretch, bool) {
	for _, s := range all {
		at := (max(s.From, from) + fiveMinutes - 1) / fiveMinutes * fiveMinutes
		for ; at+Minute(minutes) <= s.To; at += fiveMinutes {
			wall := at.Time().In(k.Clock.Zone)
			if MinuteOf(k.Clock.Instant(day.Moment{Date: day.DateOf(wall), Time: clockTime(wall)})) == at {
				return Stretch{at, at + Minute(minutes)}, true
			}
		}
	}
	return Stretch{}, false
}

// Slots finds a time of day for the jobs of each day, as LayHours does for to-dos; of those
// with one deadline and weight the lesser id comes first. on says which day each job lies
// on; none leaves it out. What a day has no stretch for is left out too.
func (p *Problem) Slots(on func(job int) day.Date) map[int]Stretch {
	byDay := map[day.Date][]int{}
	for job := range p.Jobs {
		if d := on(job); !d.IsZero() {
			byDay[d] = append(byDay[d], job)
		}
	}
	out := map[int]Stretch{}
	for i := range p.Days {
		d := &p.Days[i]
		jobs := byDay[d.Date]
		slices.SortFunc(jobs, p.lesser)
		pieces := make([]piece, len(jobs))
		for n, job := range jobs {
			j := p.Jobs[job]
			pieces[n] = piece{minutes: j.Minutes, release: p.release[job], due: p.due[job], weight: j.Weight, deep: j.Deep}
			for _, before := range j.After {
				if at := slices.Index(jobs, before); at >= 0 {
					pieces[n].after = append(pieces[n].after, at)
				}
			}
		}
		for n, s := range p.slots(pieces, d.Free, d.Peak) {
			if s.Minutes() > 0 {
				out[jobs[n]] = s
			}
		}
	}
	return out
}
