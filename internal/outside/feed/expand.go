package feed

import (
	"errors"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/emersion/go-ical"
	"github.com/teambition/rrule-go"

	"tincup/internal/app"
	"tincup/internal/core/plan"
)

const (
	// maxExpanding bounds how long reading one calendar takes.
	maxExpanding = 15 * time.Second
	// maxSteps is how many recurrences of one event are gone through.
	maxSteps = 300_000
	// maxOccurrences is how many events a window may hold.
	maxOccurrences = 100_000
	// maxProblems is how many problems are told.
	maxProblems = 20
)

// expansion is the reading of one calendar.
type expansion struct {
	window   app.Window
	zones    *zones
	until    time.Time
	events   []plan.Event
	problems []string
	leftOut  int
}

func (x *expansion) late() bool { return time.Now().After(x.until) }

// problem says what could not be read of an event; "" is the calendar itself.
func (x *expansion) problem(title string, err error) {
	if len(x.problems) >= maxProblems {
		return
	}
	text := err.Error()
	if title != "" {
		text = "“" + title + "”: " + text
	}
	x.problems = append(x.problems, text+".")
}

// leave says why an event is left out.
func (x *expansion) leave(title string, err error) {
	x.leftOut++
	x.problem(title, err)
}

// shape is what each recurrence of an event has in common.
type shape struct {
	uid, title string
	start      value
	zone       zone // nil for a date
	span       span
	busy       bool
}

// shapeOf reads an event.
func (x *expansion) shapeOf(c *ical.Component) (s shape, err error) {
	s.title, s.busy = titleOf(c), busy(c)
	s.uid, _ = c.Props.Text(ical.PropUID)
	if s.start, err = readTime(c.Props.Get(ical.PropDateTimeStart)); err != nil {
		return s, fmt.Errorf("of its start, %w", err)
	}
	if !s.start.date {
		s.zone = x.zoneOf(s.title, s.start)
	}
	switch end, length := c.Props.Get(ical.PropDateTimeEnd), c.Props.Get(ical.PropDuration); {
	case end != nil:
		to, err := readTime(end)
		if err != nil {
			return s, fmt.Errorf("of its end, %w", err)
		}
		if s.start.date {
			s.span.days = int(to.wall.Truncate(24*time.Hour).Sub(s.start.wall) / (24 * time.Hour))
		} else {
			s.span.exact = x.instant(s.title, to).Sub(s.instant(s.start.wall))
		}
		if s.span.days < 0 || s.span.exact < 0 {
			return s, errors.New("it ends before it begins")
		}
	case length != nil:
		if s.span, err = readSpan(length.Value); err != nil {
			return s, err
		}
	}
	if s.start.date {
		s.span = span{days: max(s.span.days, 1)} // RFC 5545 section 3.6.1
	}
	return s, nil
}

// zoneOf is the zone of a time; one that is not known is the person's own, and told.
func (x *expansion) zoneOf(title string, v value) zone {
	if v.utc {
		return known{time.UTC}
	}
	z, ok := x.zones.named(v.tzid)
	if !ok {
		x.problem(title, fmt.Errorf("the zone “%.60s” is not known; its times are read as your own", v.tzid))
	}
	return z
}

// instant is when a time is reached; a date begins in the person's own zone.
func (x *expansion) instant(title string, v value) time.Time {
	if v.date {
		return x.zones.local.instant(v.wall)
	}
	return x.zoneOf(title, v).instant(v.wall)
}

func (s *shape) instant(wall time.Time) time.Time {
	if s.zone == nil {
		return wall
	}
	return s.zone.instant(wall)
}

// at is the event where it begins at a time on the wall.
func (s *shape) at(wall time.Time) plan.Event {
	e := plan.Event{UID: s.uid, Title: s.title, Busy: s.busy, AllDay: s.zone == nil, From: s.instant(wall)}
	if s.span.days > 0 {
		e.To = s.instant(wall.AddDate(0, 0, s.span.days)).Add(s.span.exact)
	} else {
		e.To = e.From.Add(s.span.exact)
	}
	return e
}

// key tells a recurrence of the event by when it begins: a date, or an instant.
func (s *shape) key(x *expansion, v value) int64 {
	switch {
	case s.zone == nil:
		return v.wall.Truncate(24 * time.Hour).Unix()
	case v.date: // of an event with times: that day's
		wall := v.wall.Add(s.start.wall.Sub(s.start.wall.Truncate(24 * time.Hour)))
		return s.instant(wall).Unix()
	}
	return x.instant(s.title, v).Unix()
}

// expand adds the occurrences of a series that lie in the window.
func (x *expansion) expand(all *series) {
	if all.master == nil {
		for _, c := range all.others {
			x.single(c)
		}
		return
	}
	s, err := x.shapeOf(all.master)
	if err != nil {
		x.leave(s.title, err)
		return
	}
	out := map[int64]bool{} // those that do not take place, or elsewhere
	for _, v := range readTimes(all.master.Props.Values(ical.PropExceptionDates)) {
		out[s.key(x, v)] = true
	}
	// Of two that change the same recurrence one counts, as of two masters.
	changed := map[int64]*ical.Component{}
	for _, c := range all.others {
		v, err := readTime(c.Props.Get(ical.PropRecurrenceID))
		if err != nil {
			x.leave(titleOf(c), fmt.Errorf("of the recurrence that it changes, %w", err))
			continue
		}
		key := s.key(x, v)
		if was := changed[key]; was == nil || sequence(c) >= sequence(was) {
			changed[key] = c
		}
	}
	var following []follow
	for _, key := range slices.Sorted(maps.Keys(changed)) {
		c := changed[key]
		id := c.Props.Get(ical.PropRecurrenceID)
		v, _ := readTime(id) // it was read above
		out[key] = true
		x.single(c)
		if strings.EqualFold(id.Params.Get("RANGE"), "THISANDFUTURE") && !cancelled(c) {
			if other, err := x.shapeOf(c); err == nil && (other.zone == nil) == (s.zone == nil) {
				following = append(following, follow{key, v.wall, other})
			}
		}
	}
	if cancelled(all.master) {
		return
	}
	x.recur(all.master, &s, out, following)
}

// follow is what all recurrences from one on look like (RFC 5545 section 3.8.4.4).
type follow struct {
	from int64
	wall time.Time
	shape
}

func (x *expansion) single(c *ical.Component) {
	if cancelled(c) {
		return
	}
	s, err := x.shapeOf(c)
	if err != nil {
		x.leave(s.title, err)
		return
	}
	x.add(s.at(s.start.wall))
}

// add keeps an event that lies in the window.
func (x *expansion) add(e plan.Event) {
	from, to := x.window.From, x.window.To
	if e.AllDay { // its instants are dates in UTC
		from, to = from.AddDate(0, 0, -1), to.AddDate(0, 0, 1)
	}
	if len(x.events) < maxOccurrences && e.From.Before(to) && (e.To.After(from) || e.From.After(from)) {
		x.events = append(x.events, e)
	}
}

// recur goes through the recurrences of an event in order.
func (x *expansion) recur(c *ical.Component, s *shape, out map[int64]bool, following []follow) {
	seen := map[int64]bool{}
	// Those that a period dates have its length in the place of the event's.
	lengths := map[int64]span{}
	if s.zone != nil {
		for _, p := range readPeriods(c.Props.Values(ical.PropRecurrenceDates)) {
			length := p.span
			if p.end != (value{}) {
				length = span{exact: x.instant(s.title, p.end).Sub(x.instant(s.title, p.start))}
			}
			if length.days >= 0 && length.exact >= 0 {
				lengths[x.instant(s.title, p.start).Unix()] = length
			}
		}
	}
	one := func(wall time.Time) {
		key := s.instant(wall).Unix()
		if out[key] || seen[key] {
			return
		}
		seen[key] = true
		for _, f := range slices.Backward(following) {
			if key >= f.from {
				x.add(f.at(wall.Add(f.start.wall.Sub(f.wall))))
				return
			}
		}
		of := *s
		if length, own := lengths[key]; own {
			of.span = length
		}
		x.add(of.at(wall))
	}
	one(s.start.wall)
	for _, v := range readTimes(c.Props.Values(ical.PropRecurrenceDates)) {
		switch {
		case s.zone == nil || v.date:
			one(v.wall)
		default:
			one(s.zone.wall(x.instant(s.title, v)))
		}
	}
	for _, p := range c.Props.Values(ical.PropRecurrenceRule) {
		next, err := x.rule(p.Value, s)
		if err != nil {
			x.problem(s.title, fmt.Errorf("how it repeats is not read, and it stands once: %w", err))
			return
		}
		last := x.window.To.AddDate(0, 0, 2)
		for step := 0; ; step++ {
			wall, more := next()
			if !more || wall.After(last) {
				break
			}
			if step >= maxSteps || step%1000 == 999 && x.late() {
				x.problem(s.title, errors.New("it repeats too often; not all of it is read"))
				break
			}
			one(wall)
		}
	}
}

var untils = regexp.MustCompile(`(?i);?UNTIL=(\d{8})(T\d{6})?(Z)?`)

// rule reads an RRULE as recurrences on the wall.
func (x *expansion) rule(text string, s *shape) (rrule.Next, error) {
	var until time.Time
	if m := untils.FindStringSubmatch(text); m != nil {
		v, err := readValue(m[1]+m[2]+m[3], "")
		if err != nil {
			return nil, err
		}
		switch until = v.wall; {
		case v.date && s.zone != nil: // the whole of that day
			until = until.Add(24*time.Hour - time.Second)
		case v.utc && s.zone != nil:
			until = s.zone.wall(v.wall)
		}
		text = strings.TrimPrefix(untils.ReplaceAllString(text, ""), ";")
	}
	option, err := rrule.StrToROption(strings.ToUpper(strings.TrimSpace(text)))
	if err != nil {
		return nil, err
	}
	if option.Freq > rrule.HOURLY {
		return nil, errors.New("it would come more often than each hour")
	}
	option.Dtstart, option.Until = s.start.wall, until
	r, err := rrule.NewRRule(*option)
	if err != nil {
		return nil, err
	}
	return r.Iterator(), nil
}
