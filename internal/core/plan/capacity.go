package plan

import (
	"slices"
	"sort"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// Minute is a moment, in whole minutes since the Unix epoch.
type Minute int64

// MinuteOf is the minute in which an instant lies.
func MinuteOf(t time.Time) Minute { return Minute(t.Unix() / 60) }

// Time is the minute as an instant in UTC.
func (m Minute) Time() time.Time { return time.Unix(int64(m)*60, 0).UTC() }

// Stretch is the minutes from From up to, and without, To.
type Stretch struct{ From, To Minute }

// Minutes is how long it is.
func (s Stretch) Minutes() int { return int(max(s.To-s.From, 0)) }

func (s Stretch) within(o Stretch) Stretch { return Stretch{max(s.From, o.From), min(s.To, o.To)} }

// Calendar is a person's hours of one kind: of each day of the week, Sunday first, and of
// single dates in the place of these.
type Calendar struct {
	Kind  term.Hours
	Week  [7]day.Hours
	Dates map[day.Date]day.Hours
	// Less is the hours that are taken out of these; nil for none.
	Less *Calendar
	// Peak is the best part of a day for deep work.
	Peak day.Hours
}

// On returns the hours of a civil date.
func (c Calendar) On(d day.Date) day.Hours {
	hours, of := c.Dates[d]
	if !of {
		hours = c.Week[d.Weekday()]
	}
	if c.Less != nil {
		return hours.Without(c.Less.On(d))
	}
	return hours
}

// Day is what one day offers.
type Day struct {
	Date day.Date
	// All is the whole day, Hours its hours of the kind, Free what is left of these after now
	// and beside what is busy, Peak the part of Free that is best for deep work.
	All               Stretch
	Hours, Free, Peak []Stretch
	// Minutes is how much Free is.
	Minutes int
	// before is the capacity of the days before it.
	before int
}

// End is when its hours end, or the day where it has none.
func (d *Day) End() Minute {
	if n := len(d.Hours); n > 0 {
		return d.Hours[n-1].To
	}
	return d.All.To
}

// Capacity is the time for work of one kind on some days in a row, from today on. A person's
// kinds of hours are reckoned apart, as if each had a worker of its own.
type Capacity struct {
	Clock day.Clock
	// Kind is which hours they are: work that takes others is not done in them.
	Kind  term.Hours
	Days  []Day
	now   Minute
	total int
}

// MaxDays is for how many days capacity is reckoned at most.
const MaxDays = 400

// NewCapacity reckons that of so many days, 1 to MaxDays, from today on. What is busy may
// overlap and be in any order. Work time before now is over.
func NewCapacity(c day.Clock, calendar Calendar, busy []Stretch, days int) *Capacity {
	k := &Capacity{Clock: c, Kind: calendar.Kind, now: MinuteOf(c.Now.Add(time.Minute - time.Nanosecond))}
	busy = merged(busy)
	today := c.Today()
	next := MinuteOf(c.StartOf(today))
	for i := range min(max(days, 1), MaxDays) {
		d := Day{Date: today.AddDays(i), before: k.total}
		d.All = Stretch{next, MinuteOf(c.StartOf(d.Date.AddDays(1)))}
		next = d.All.To
		// Before DayStart a civil date belongs to the day before.
		for _, civil := range []day.Date{d.Date, d.Date.AddDays(1)} {
			d.Hours = append(d.Hours, stretches(c, civil, calendar.On(civil), d.All)...)
			d.Peak = append(d.Peak, stretches(c, civil, calendar.Peak, d.All)...)
		}
		d.Hours = merged(d.Hours)
		d.Free = without(common(d.Hours, []Stretch{{k.now, d.All.To}}), busy)
		d.Peak = common(merged(d.Peak), d.Free)
		for _, s := range d.Free {
			d.Minutes += s.Minutes()
		}
		k.total += d.Minutes
		k.Days = append(k.Days, d)
	}
	return k
}

// stretches are the hours of a civil date as they lie within a day.
func stretches(c day.Clock, civil day.Date, hours day.Hours, all Stretch) []Stretch {
	var out []Stretch
	for _, h := range hours {
		out = withMinutes(out, Stretch{wall(c, civil, h.From), wall(c, civil, h.To)}.within(all))
	}
	return out
}

// wall is when so many minutes after midnight are reached on the wall.
func wall(c day.Clock, d day.Date, minutes int) Minute {
	if minutes == 24*60 {
		d, minutes = d.AddDays(1), 0
	}
	at, _ := day.NewTimeOfDay(minutes/60, minutes%60)
	return MinuteOf(c.Instant(day.Moment{Date: d, Time: at}))
}

// merged puts stretches in order and joins those that touch or overlap.
func merged(stretches []Stretch) []Stretch {
	sorted := slices.Clone(stretches)
	slices.SortFunc(sorted, func(a, b Stretch) int { return int(a.From - b.From) })
	var out []Stretch
	for _, s := range sorted {
		if s.Minutes() == 0 {
			continue
		}
		if n := len(out); n > 0 && s.From <= out[n-1].To {
			out[n-1].To = max(out[n-1].To, s.To)
		} else {
			out = append(out, s)
		}
	}
	return out
}

// common is what lies in both of two lists, each in order and apart.
func common(a, b []Stretch) []Stretch {
	var out []Stretch
	for i, j := 0, 0; i < len(a) && j < len(b); {
		out = withMinutes(out, a[i].within(b[j]))
		if a[i].To < b[j].To {
			i++
		} else {
			j++
		}
	}
	return out
}

// without is what is left of a list when another is taken out, both in order and apart.
func without(a, taken []Stretch) []Stretch {
	var out []Stretch
	for _, s := range a {
		from := sort.Search(len(taken), func(i int) bool { return taken[i].To > s.From })
		for _, t := range taken[from:] {
			if t.From >= s.To {
				break
			}
			out = withMinutes(out, Stretch{s.From, t.From})
			s.From = max(s.From, t.To)
		}
		out = withMinutes(out, s)
	}
	return out
}

// withMinutes is a list and a stretch behind it, if that has any minutes.
func withMinutes(list []Stretch, s Stretch) []Stretch {
	if s.Minutes() <= 0 {
		return list
	}
	return append(list, s)
}

// End is the end of the last day.
func (k *Capacity) End() Minute { return k.Days[len(k.Days)-1].All.To }

// Until is the work time from now until a moment, in minutes: 0 where that is past, and
// all there is where it lies beyond the last day.
func (k *Capacity) Until(m Minute) int {
	i := sort.Search(len(k.Days), func(i int) bool { return k.Days[i].All.To >= m })
	if i == len(k.Days) {
		return k.total
	}
	sum := k.Days[i].before
	for _, s := range k.Days[i].Free {
		sum += s.within(Stretch{s.From, m}).Minutes()
	}
	return sum
}

// Day returns the day with a date; nil where it lies outside.
func (k *Capacity) Day(d day.Date) *Day {
	if i := d.Sub(k.Days[0].Date); i >= 0 && i < len(k.Days) {
		return &k.Days[i]
	}
	return nil
}

// Deadline is when a due is over: at its time, or at the end of its day's hours.
func (k *Capacity) Deadline(due day.Moment) Minute {
	if d := k.Day(due.Date); d != nil && !due.HasTime() {
		return d.End()
	}
	return MinuteOf(k.Clock.Instant(due))
}

// passed reports whether a due has passed, without looking up when that is where its day is well
// ahead.
func (k *Capacity) passed(due day.Moment) bool {
	return due.Date.Sub(k.Days[0].Date) < 2 && k.Clock.Passed(due)
}

// dueOf is the deadline of work with a due, and whether that is past: what is overdue is due
// at the end of today's hours, or of the next day's that has work time. Without a due
// it is noDeadline.
func (k *Capacity) dueOf(due day.Moment) (deadline Minute, overdue bool) {
	switch {
	case due.IsZero():
		return noDeadline, false
	case k.passed(due):
		return k.rest().End(), true
	}
	return k.Deadline(due), false
}

// Of is the work time of a day, or of what is left of a week or a month; ok is false for
// one that is parked, is past, or reaches beyond the last day.
func (k *Capacity) Of(h day.Horizon) (minutes int, ok bool) {
	if h.First().IsZero() || h.Last().Before(k.Days[0].Date) || h.Last().After(k.Days[len(k.Days)-1].Date) {
		return 0, false
	}
	for d := h.First(); !d.After(h.Last()); d = d.AddDays(1) {
		if on := k.Day(d); on != nil {
			minutes += on.Minutes
		}
	}
	return minutes, true
}

// rest is the day at whose end what is overdue counts as due: today where it has work time
// left, else the next one that has some; the last one where none has.
func (k *Capacity) rest() *Day {
	for i := range k.Days {
		if k.Days[i].Minutes > 0 {
			return &k.Days[i]
		}
	}
	return &k.Days[len(k.Days)-1]
}

// CalendarOf is the hours of one kind that an account has chosen. Own hours are less the
// working hours.
func CalendarOf(s settings.Settings, kind term.Hours) Calendar {
	c := Calendar{Kind: kind, Peak: s.PeakHours(), Dates: s.HoursOfDates(kind)}
	for i := range c.Week {
		c.Week[i] = s.HoursOf(kind, time.Weekday(i))
	}
	if kind == term.OwnHours {
		working := CalendarOf(s, term.WorkingHours)
		c.Less = &working
	}
	return c
}

// DefaultCalendar is the working hours of a person who has said nothing.
func DefaultCalendar() Calendar { return CalendarOf(settings.Settings{}, term.WorkingHours) }

// RoundTheClock is every hour of every day, for work of one kind: what the clock itself leaves.
func RoundTheClock(kind term.Hours) Calendar {
	c := Calendar{Kind: kind}
	for i := range c.Week {
		c.Week[i] = day.Hours{{From: 0, To: 24 * 60}}
	}
	return c
}
