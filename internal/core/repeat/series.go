package repeat

import (
	"errors"
	"iter"
	"slices"
	"time"

	"tincup/internal/core/day"
)

// ErrNever marks a rule that has no date before the year 9999 ends.
var ErrNever = errors.New("this never happens: the rule has no date before the year 9999")

// Series is a Rule that begins on a date. Make one with New.
type Series struct {
	pattern pattern
	last    day.Date // no date of the pattern lies after it
	without []day.Date
}

// Options say what a Series knows besides its rule and first date.
type Options struct {
	// Time and Zone are those of the occurrences; only an UNTIL with a time
	// asks for them.
	Time day.TimeOfDay
	Zone *time.Location
	// Last is the last date, where COUNT has been turned into one before.
	Last day.Date
	// Without are dates to leave out (EXDATE). They count in COUNT.
	Without []day.Date
}

// New returns the Series of a rule from a date on, or ErrNever. COUNT is turned
// into the last date here, by walking once, unless Options has it.
func New(r *Rule, start day.Date, o Options) (*Series, error) {
	s := &Series{pattern: compile(r, start), last: r.Until.last(o.Time, o.Zone), without: o.Without}
	first := s.pattern.onOrAfter(start)
	if first.IsZero() {
		return nil, ErrNever
	}
	switch {
	case !o.Last.IsZero():
		s.last = o.Last
	case r.Count > 0:
		s.last = s.pattern.nth(first, r.Count)
	}
	return s, nil
}

// FirstOn returns the first day from a date on that the rule names, whatever
// its interval: the day on which a person who says "every 2 weeks on Wednesday"
// means it to begin. None where there is none.
func (r *Rule) FirstOn(from day.Date) day.Date {
	every := *r
	every.Interval, every.Count, every.Until = 1, 0, Until{}
	p := compile(&every, from)
	return p.onOrAfter(from)
}

// nth returns the date that many on from the first, or the last there is.
func (p *pattern) nth(first day.Date, count int) day.Date {
	if p.plain() && p.rule.Freq <= Weekly && !p.byDay { // every so many days or weeks
		step := p.rule.Interval
		return first.AddDays(step * (count - 1))
	}
	for ; count > 1; count-- {
		next := p.onOrAfter(first.AddDays(1))
		if next.IsZero() || next == first {
			return first
		}
		first = next
	}
	return first
}

// plain reports whether no BY part narrows the pattern.
func (p *pattern) plain() bool {
	return p.months == allMonths && !p.byDOM && len(p.rule.BySetPos) == 0
}

// Last returns the date after which there is nothing: that of UNTIL or COUNT,
// or day.MaxDate.
func (s *Series) Last() day.Date { return s.last }

// Holds reports whether d is a date of the Series.
func (s *Series) Holds(d day.Date) bool { return !d.IsZero() && s.OnOrAfter(d) == d }

// After returns the first date strictly after d; none where there is none.
func (s *Series) After(d day.Date) day.Date {
	if !d.Before(s.last) {
		return day.Date{}
	}
	return s.OnOrAfter(d.AddDays(1))
}

// OnOrAfter returns the first date that is not before d; none where there is
// none. With d none it is the first of all.
func (s *Series) OnOrAfter(d day.Date) day.Date {
	for {
		found := s.pattern.onOrAfter(d)
		if found.IsZero() || found.After(s.last) {
			return day.Date{}
		}
		if !slices.Contains(s.without, found) {
			return found
		}
		if found == day.MaxDate {
			return day.Date{}
		}
		d = found.AddDays(1)
	}
}

// From yields the dates that are not before d, in order.
func (s *Series) From(d day.Date) iter.Seq[day.Date] {
	return func(yield func(day.Date) bool) {
		for found := s.OnOrAfter(d); !found.IsZero(); found = s.After(found) {
			if !yield(found) {
				return
			}
		}
	}
}

// Between yields the dates from first to last, both included.
func (s *Series) Between(first, last day.Date) iter.Seq[day.Date] {
	return func(yield func(day.Date) bool) {
		for d := range s.From(first) {
			if d.After(last) || !yield(d) {
				return
			}
		}
	}
}

// countMost is where counting dates passed over ends.
const countMost = 100_000

// count returns how many dates lie from one day to before another.
func (s *Series) count(from, before day.Date) int {
	if !from.Before(before) {
		return 0
	}
	n := 0
	for range s.Between(from, before.AddDays(-1)) {
		if n++; n == countMost {
			break
		}
	}
	return n
}
