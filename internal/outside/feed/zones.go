package feed

import (
	"slices"
	"strings"
	"time"

	"github.com/emersion/go-ical"
	"github.com/teambition/rrule-go"

	"tincup/internal/core/day"
)

// A zone tells when a wall time is reached, and what the wall says at an instant. Wall
// times are written in UTC. One that does not exist is reckoned with the offset before the
// gap, and one that exists twice is the first (RFC 5545 section 3.3.5).
type zone interface {
	instant(wall time.Time) time.Time
	wall(instant time.Time) time.Time
}

// known is a zone of the time zone database.
type known struct{ *time.Location }

func (k known) instant(wall time.Time) time.Time {
	at, _ := day.NewTimeOfDay(wall.Hour(), wall.Minute())
	c := day.Clock{Zone: k.Location}
	return c.Instant(day.Moment{Date: day.DateOf(wall), Time: at}).Add(time.Duration(wall.Second()) * time.Second)
}

func (k known) wall(instant time.Time) time.Time { return naive(instant.In(k.Location)) }

// naive is what the wall says, written in UTC.
func naive(t time.Time) time.Time {
	return time.Date(t.Year(), t.Month(), t.Day(), t.Hour(), t.Minute(), t.Second(), 0, time.UTC)
}

// told is a zone that a VTIMEZONE defines (RFC 5545 section 3.6.5): its changes in order.
type told []change

type change struct {
	// wall is when it comes, on the wall as it was before.
	wall     time.Time
	from, to time.Duration
}

func (z *told) instant(wall time.Time) time.Time {
	offset := (*z)[0].from
	for _, c := range *z {
		if wall.Before(c.wall) {
			break
		}
		if offset = c.to; wall.Before(c.wall.Add(c.to - c.from)) { // in the gap
			offset = c.from
		}
	}
	return wall.Add(-offset)
}

func (z *told) wall(instant time.Time) time.Time {
	offset := (*z)[0].from
	for _, c := range *z {
		if instant.Before(c.wall.Add(-c.from)) {
			break
		}
		offset = c.to
	}
	return instant.UTC().Add(offset)
}

// maxChanges is how many changes of an observance are reckoned: twice a year for centuries.
const maxChanges = 500

// maxObservances is how many observances of a zone are read; two are usual.
const maxObservances = 50

// zoneOf reads a VTIMEZONE up to a year; ok is false where it says nothing that is read.
func zoneOf(c *ical.Component, until time.Time) (z told, ok bool) {
	for _, o := range c.Children[:min(len(c.Children), maxObservances)] {
		from, known1 := offsetOf(o, ical.PropTimezoneOffsetFrom)
		to, known2 := offsetOf(o, ical.PropTimezoneOffsetTo)
		start, err := readTime(o.Props.Get(ical.PropDateTimeStart))
		if !known1 || !known2 || err != nil {
			continue
		}
		for _, wall := range onsets(o, start.wall, from, until) {
			z = append(z, change{wall, from, to})
		}
	}
	slices.SortFunc(z, func(a, b change) int { return a.wall.Compare(b.wall) })
	return z, len(z) > 0
}

// onsets are the moments on the wall at which an observance begins.
func onsets(o *ical.Component, start time.Time, from time.Duration, until time.Time) []time.Time {
	all := []time.Time{start}
	for _, p := range o.Props.Values(ical.PropRecurrenceDates) {
		for _, text := range strings.Split(p.Value, ",") {
			if wall, err := time.Parse(layoutLocal, strings.TrimSuffix(text, "Z")); err == nil {
				all = append(all, wall)
			}
		}
	}
	p := o.Props.Get(ical.PropRecurrenceRule)
	if p == nil {
		return all
	}
	rule, err := rrule.StrToROption(p.Value)
	if err != nil || rule.Freq > rrule.MONTHLY {
		return all
	}
	if !rule.Until.IsZero() { // in UTC, and with the offset before
		rule.Until = rule.Until.UTC().Add(from)
	}
	rule.Dtstart = start
	r, err := rrule.NewRRule(*rule)
	if err != nil {
		return all
	}
	next := r.Iterator()
	for range maxChanges {
		wall, more := next()
		if !more || wall.After(until) {
			break
		}
		all = append(all, wall)
	}
	return all
}

// offsetOf reads a UTC offset such as +0130 (RFC 5545 section 3.3.14).
func offsetOf(c *ical.Component, name string) (time.Duration, bool) {
	p := c.Props.Get(name)
	if p == nil {
		return 0, false
	}
	text := p.Value
	for _, layout := range []string{"-0700", "-070000"} {
		if t, err := time.Parse(layout, text); err == nil {
			_, seconds := t.Zone()
			return time.Duration(seconds) * time.Second, true
		}
	}
	return 0, false
}

// zones are those that the events of one calendar name.
type zones struct {
	defined map[string]*ical.Component
	local   known
	until   time.Time
	found   map[string]zone
}

// newZones collects what a calendar defines. until is the last moment that is asked for.
func newZones(parts []*ical.Component, local *time.Location, until time.Time) *zones {
	z := &zones{defined: map[string]*ical.Component{}, local: known{local}, until: until.AddDate(1, 0, 0), found: map[string]zone{}}
	for _, c := range parts {
		if id, _ := c.Props.Text(ical.PropTimezoneID); c.Name == ical.CompTimezone && id != "" {
			z.defined[id] = c
		}
	}
	return z
}

// named returns the zone of a TZID: of the database, also where its name follows a path,
// else as a VTIMEZONE tells it. ok is false, and the zone the person's own, where it is
// neither.
func (z *zones) named(id string) (of zone, ok bool) {
	if id == "" {
		return z.local, true
	}
	if of, ok = z.found[id]; ok {
		return of, of != zone(z.local)
	}
	of = z.local
	if loc := located(id); loc != nil {
		of, ok = known{loc}, true
	} else if c := z.defined[id]; c != nil {
		var t told
		if t, ok = zoneOf(c, z.until); ok {
			of = &t
		}
	}
	z.found[id] = of
	return of, ok || of != zone(z.local)
}

// located finds a name of the database, or nil.
func located(id string) *time.Location {
	if id == "Local" {
		return nil
	}
	parts := strings.Split(strings.Trim(id, "/"), "/")
	for n := range min(len(parts), 3) { // "Europe/Lisbon", "America/Argentina/Ushuaia"
		name := strings.Join(parts[len(parts)-1-n:], "/")
		if n+1 < len(parts) && n == 0 { // "/somewhere/UTC" is not enough to know it by
			continue
		}
		if loc, err := time.LoadLocation(name); err == nil {
			return loc
		}
	}
	return nil
}
