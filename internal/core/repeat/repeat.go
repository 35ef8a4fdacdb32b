package repeat

import (
	"fmt"
	"slices"
	"time"

	"tincup/internal/core/day"
)

// Anchor is what the next date is counted from.
type Anchor uint8

// The anchors: the rule's own dates, or the day the last one was done.
const (
	Schedule Anchor = iota
	Completion
)

var anchorNames = [...]string{"schedule", "completion"}

// String returns "schedule" or "completion".
func (a Anchor) String() string { return anchorNames[a] }

// MarshalText implements encoding.TextMarshaler.
func (a Anchor) MarshalText() ([]byte, error) { return []byte(a.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler.
func (a *Anchor) UnmarshalText(text []byte) error {
	i := slices.Index(anchorNames[:], string(text))
	if i < 0 {
		return fmt.Errorf("%.40q is not an anchor: schedule or completion is wanted", text)
	}
	*a = Anchor(i)
	return nil
}

// MaxLead is the longest lead, in days.
const MaxLead = 366

// maxWithout bounds the dates left out.
const maxWithout = 1000

// Repeat is what a to-do that comes round carries. It is a value: its methods
// return what it becomes. Make one with Begin.
type Repeat struct {
	Rule *Rule `json:"Rule"`
	// First is DTSTART: the date the rule was begun with.
	First  day.Date `json:"First"`
	Anchor Anchor   `json:"Anchor,omitzero"`
	// Lead is how many days before its date it surfaces, 0 to MaxLead.
	Lead int `json:"Lead,omitzero"`
	// Without are dates left out (EXDATE), in order.
	Without []day.Date `json:"Without,omitempty"`
	// Last is the last date a COUNT comes to, worked out once when it is set;
	// none without COUNT, or where ticks are counted.
	Last day.Date `json:"Last,omitzero"`
	// Current is the pattern date of the present occurrence (RECURRENCE-ID).
	Current day.Date `json:"Current"`
	// Paused is the day on which it was paused; none when it runs.
	Paused day.Date `json:"Paused,omitzero"`
	// Ticks and Missed count what was done and what was passed over.
	Ticks  int `json:"Ticks,omitzero"`
	Missed int `json:"Missed,omitzero"`
	// LastDone is the day of the latest tick.
	LastDone day.Date `json:"LastDone,omitzero"`
}

// Begin returns a Repeat at its first date, or an error that says what is wrong
// with it: ErrNever, or a *ParseError. Of r it takes Rule, First, Anchor, Lead
// and Without; time and zone are those of the to-do.
func (r Repeat) Begin(at day.TimeOfDay, zone *time.Location) (Repeat, error) {
	if r.Rule == nil || r.First.IsZero() {
		return Repeat{}, &ParseError{Want: "a repeat needs a rule and a first date"}
	}
	if r.Lead < 0 || r.Lead > MaxLead {
		return Repeat{}, &ParseError{Want: fmt.Sprintf("the lead is %d days; 0 to %d is wanted", r.Lead, MaxLead)}
	}
	if len(r.Without) > maxWithout {
		return Repeat{}, &ParseError{Want: fmt.Sprintf("%d dates are left out; %d is the most", len(r.Without), maxWithout)}
	}
	if r.Anchor == Completion {
		if !r.Rule.Plain() {
			return Repeat{}, &ParseError{Want: "a repeat counted from when it was done takes only an interval, such as FREQ=DAILY;INTERVAL=30"}
		}
		if !r.Rule.Until.IsZero() && r.First.After(r.Rule.Until.last(at, zone)) {
			return Repeat{}, &ParseError{Want: "it ends before its first date"}
		}
		return Repeat{Rule: r.Rule, First: r.First, Anchor: r.Anchor, Lead: r.Lead, Current: r.First}, nil
	}
	begun := Repeat{Rule: r.Rule, First: r.First, Lead: r.Lead, Without: slices.Clone(r.Without)}
	slices.SortFunc(begun.Without, day.Date.Compare)
	s, err := begun.Series(at, zone)
	if err != nil {
		return Repeat{}, err
	}
	if r.Rule.Count > 0 {
		begun.Last = s.Last()
	}
	begun.Current = s.OnOrAfter(day.Date{})
	if begun.Current.IsZero() {
		return Repeat{}, &ParseError{Want: "it ends before its first date"}
	}
	return begun, nil
}

// Series returns the pattern of a repeat by schedule. It fails with ErrNever.
func (r Repeat) Series(at day.TimeOfDay, zone *time.Location) (*Series, error) {
	return New(r.Rule, r.First, Options{Time: at, Zone: zone, Last: r.Last, Without: r.Without})
}

// Step says what comes after an occurrence.
type Step struct {
	// Next is the Repeat at its next date. Without one, Over is true and Next
	// is the Repeat as it was.
	Next Repeat
	Over bool
	// Missed is how many pattern dates were passed over.
	Missed int
}

// Tick returns what comes after the present occurrence is done on a day. By
// schedule that is the first date after the later of that day and Current.
func (r Repeat) Tick(today day.Date, at day.TimeOfDay, zone *time.Location) Step {
	r.Ticks++
	r.LastDone = today
	if r.Anchor == Completion {
		if r.Rule.Count > 0 && r.Ticks >= r.Rule.Count {
			return Step{Next: r, Over: true}
		}
		return r.interval(today, at, zone)
	}
	return r.move(laterOf(today, r.Current), false, at, zone)
}

// Skip returns what comes after the present occurrence is left out: the next
// date that is not past.
func (r Repeat) Skip(today day.Date, at day.TimeOfDay, zone *time.Location) Step {
	if r.Anchor == Completion {
		return r.interval(laterOf(today, r.Current), at, zone)
	}
	if r.Current.Before(today) {
		return r.move(today, true, at, zone)
	}
	return r.move(r.Current, false, at, zone)
}

// Resume returns the Repeat as it goes on after a pause: with the first date on
// or after today. Nothing is owed for the pause.
func (r Repeat) Resume(today day.Date, at day.TimeOfDay, zone *time.Location) Step {
	r.Paused = day.Date{}
	if !r.Current.Before(today) {
		return Step{Next: r}
	}
	if r.Anchor == Completion {
		r.Current = today
		return Step{Next: r, Over: today.After(r.Rule.Until.last(at, zone))}
	}
	step := r.move(today, true, at, zone)
	step.Next.Missed, step.Missed = r.Missed, 0
	return step
}

// move goes to the first date after d, or on it where inclusive.
func (r Repeat) move(d day.Date, inclusive bool, at day.TimeOfDay, zone *time.Location) Step {
	s, err := r.Series(at, zone)
	if err != nil {
		return Step{Next: r, Over: true}
	}
	if inclusive {
		d = d.AddDays(-1)
	}
	next := s.After(d)
	missed := s.count(r.Current.AddDays(1), d.AddDays(1))
	r.Missed += missed
	if next.IsZero() {
		return Step{Next: r, Over: true, Missed: missed}
	}
	r.Current = next
	return Step{Next: r, Missed: missed}
}

// interval goes on by the rule's interval from a day.
func (r Repeat) interval(from day.Date, at day.TimeOfDay, zone *time.Location) Step {
	next := from
	switch n := r.Rule.Interval; r.Rule.Freq {
	case Daily:
		next = after(from, n)
	case Weekly:
		next = after(from, 7*n)
	case Monthly:
		next = from.AddMonths(n)
	case Yearly:
		next = from.AddMonths(12 * n)
	}
	if next.IsZero() || !next.After(from) || next.After(r.Rule.Until.last(at, zone)) {
		return Step{Next: r, Over: true}
	}
	r.Current = next
	return Step{Next: r}
}

// Coming returns the pattern dates after the present one and after today, up to
// a last day. A repeat that is paused, or counted from when it is done, has none
// to tell.
func (r Repeat) Coming(today, last day.Date, at day.TimeOfDay, zone *time.Location) []day.Date {
	if r.Anchor == Completion || !r.Paused.IsZero() {
		return nil
	}
	s, err := r.Series(at, zone)
	if err != nil {
		return nil
	}
	return slices.Collect(s.Between(laterOf(today, r.Current).AddDays(1), last))
}

// Preview returns the first few dates, the present one first: by schedule those
// of the pattern, else each an interval after the one before, as if it were
// always done on its day.
func (r Repeat) Preview(count int, at day.TimeOfDay, zone *time.Location) []day.Date {
	var dates []day.Date
	for step := (Step{Next: r}); !step.Over && len(dates) < count; {
		dates = append(dates, step.Next.Current)
		step = step.Next.Tick(step.Next.Current, at, zone)
	}
	return dates
}

// Same reports whether two repeats are equal in everything.
func (r Repeat) Same(o Repeat) bool {
	if (r.Rule == nil) != (o.Rule == nil) || r.Rule != nil && r.Rule != o.Rule && r.Rule.String() != o.Rule.String() {
		return false
	}
	return r.First == o.First && r.Anchor == o.Anchor && r.Lead == o.Lead && slices.Equal(r.Without, o.Without) &&
		r.Last == o.Last && r.Current == o.Current && r.Paused == o.Paused && r.Ticks == o.Ticks &&
		r.Missed == o.Missed && r.LastDone == o.LastDone
}

func laterOf(a, b day.Date) day.Date {
	if a.After(b) {
		return a
	}
	return b
}
