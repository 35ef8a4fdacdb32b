package ics

import (
	_ "embed"
	"strings"
	"sync"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// windowsZones has the names that Windows gives to zones, with those of the IANA database (CLDR,
// supplemental data, windowsZones, territory 001); web/zones.mjs makes it.
//
//go:embed windows_zones.txt
var windowsZones string

var windowsNames = sync.OnceValue(func() map[string]string {
	names := map[string]string{}
	for line := range strings.Lines(windowsZones) {
		if windows, iana, ok := strings.Cut(strings.TrimSpace(line), "\t"); ok {
			names[strings.ToLower(windows)] = iana
		}
	}
	return names
})

// located finds a zone of the database by a TZID: by its own name, also behind a prefix such as
// /example.org/2026/Europe/Lisbon (section 3.8.3.1), or by the name that Windows gives to it.
func located(id string) *time.Location {
	id = strings.Trim(id, "/ ")
	if iana, windows := windowsNames()[strings.ToLower(id)]; windows {
		id = iana
	}
	parts := strings.Split(id, "/")
	for n := range parts[:min(len(parts), 8)] {
		name := strings.Join(parts[n:], "/")
		if n > 0 && !strings.Contains(name, "/") || name == "" || strings.EqualFold(name, "local") {
			continue // a single word behind a prefix is not enough to know a zone by
		}
		if zone, err := time.LoadLocation(name); err == nil {
			return zone
		}
	}
	return nil
}

// A defined zone is what a VTIMEZONE says of one (section 3.6.5).
type defined []observance

// observance is the offset from onsets on, until the next one of another.
type observance struct {
	from, to int // seconds east of UTC, before and from each onset on
	start    day.Date
	time     time.Duration // of each onset, on the wall as it was before
	series   *repeat.Series
}

// defines reads a VTIMEZONE; nil where it says nothing that can be read.
func defines(c *component) (zone defined) {
	for _, part := range c.parts {
		if part.name != "STANDARD" && part.name != "DAYLIGHT" {
			continue
		}
		start, err := time.Parse(wallForm, strings.TrimSpace(part.text("DTSTART")))
		from, ok1 := offsetOf(part.text("TZOFFSETFROM"))
		to, ok2 := offsetOf(part.text("TZOFFSETTO"))
		if err != nil || !ok1 || !ok2 {
			continue
		}
		o := observance{from: from, to: to, start: day.DateOf(start), time: start.Sub(start.Truncate(24 * time.Hour))}
		if rule, err := repeat.Parse(part.text("RRULE")); err == nil {
			r := repeat.Repeat{Rule: rule, First: o.start}
			if begun, err := r.Begin(day.TimeOfDay{}, time.UTC); err == nil {
				o.series, _ = begun.Series(day.TimeOfDay{}, time.UTC) // nil where the rule has no dates
			}
		}
		zone = append(zone, o)
	}
	return zone
}

// offsetOf reads a UTC offset in seconds, +0130 (section 3.3.14).
func offsetOf(s string) (seconds int, ok bool) {
	for _, form := range []string{"-0700", "-070000"} {
		if t, err := time.Parse(form, strings.TrimSpace(s)); err == nil {
			_, seconds = t.Zone()
			return seconds, true
		}
	}
	return 0, false
}

// last is the last onset at or before a time on the wall; zero for none.
func (o *observance) last(wall time.Time) time.Time {
	at := func(d day.Date) time.Time {
		year, month, dayOf := d.Civil()
		return time.Date(year, month, dayOf, 0, 0, 0, 0, time.UTC).Add(o.time)
	}
	first := at(o.start)
	if wall.Before(first) {
		return time.Time{}
	}
	if o.series == nil {
		return first
	}
	latest := first
	for on := range o.series.Between(later(o.start, day.DateOf(wall).AddDays(-onsetDays)), day.DateOf(wall)) {
		if onset := at(on); !wall.Before(onset) {
			latest = onset
		}
	}
	return latest
}

func later(a, b day.Date) day.Date {
	if b.After(a) {
		return b
	}
	return a
}

// onsetDays is within how many days an observance that still goes on begins anew.
const onsetDays = 800

// instant is when a time on the wall is reached. One that does not exist is reckoned with the offset
// before the gap, and one that exists twice is the first (section 3.3.5).
func (z defined) instant(wall time.Time) time.Time {
	offset := z[0].from
	var latest time.Time
	for i := range z {
		o := &z[i]
		on := o.last(wall)
		if on.IsZero() || on.Before(latest) {
			continue
		}
		latest = on
		gap := time.Duration(o.to-o.from) * time.Second
		switch {
		case gap > 0 && wall.Before(on.Add(gap)): // within the gap
			offset = o.from
		default:
			offset = o.to
		}
	}
	// An hour that comes twice lies before the onset on the wall too: it is the first then.
	return wall.Add(-time.Duration(offset) * time.Second)
}

// zoneOf returns what tells when times of a TZID are reached: a zone of the database, or else what
// the file defines; nil where it is neither.
func (r *reader) zoneOf(id string) func(wall time.Time) time.Time {
	if of, known := r.zones[id]; known {
		return of
	}
	var of func(time.Time) time.Time
	if zone := located(id); zone != nil {
		of = func(wall time.Time) time.Time {
			return time.Date(wall.Year(), wall.Month(), wall.Day(), wall.Hour(), wall.Minute(), wall.Second(), 0, zone)
		}
	} else if c := r.definitions[id]; c != nil {
		if zone := defines(c); len(zone) > 0 {
			of = zone.instant
		}
	}
	if r.zones == nil {
		r.zones = map[string]func(time.Time) time.Time{}
	}
	r.zones[id] = of
	return of
}
