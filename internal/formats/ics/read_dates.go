package ics

import (
	"encoding/json"
	"slices"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// dates reads start, due and repeat.
func (p *parsing) dates(t *book.Todo) error {
	var start day.Moment
	var err error
	if l := p.either("DUE"); l != nil && (t.IsNote || l.name == "DUE") {
		if t.Due, err = p.moment(l); err != nil {
			p.leave(l, err, "due")
		}
	}
	from := p.first("DTSTART")
	if from != nil {
		if start, err = p.moment(from); err != nil {
			p.leave(from, err, "start")
			from = nil
		}
	}
	if l := p.first("DURATION"); l != nil && t.Due.IsZero() && from != nil {
		length, err := ahead("-" + strings.TrimPrefix(l.value, "+"))
		switch c := (day.Clock{Zone: p.world.Zone}); {
		case err != nil:
			p.leave(l, at(l, "%s.", err), "due")
		case start.HasTime():
			t.Due = c.WallOf(c.Instant(start).Add(time.Duration(length) * time.Minute))
		default:
			t.Due = day.Moment{Date: start.Date.AddDays(length / (24 * 60))}
		}
	}
	if p.ours(t, start) {
		return nil
	}
	t.Start = start.Date
	if own, err := day.ParseDate(p.text(own + "START")); err == nil {
		t.Start = own
	}
	if start.HasTime() {
		p.remark("The time of the start, %s, is not kept: a start is a day here.", start.Time)
	}
	if l := p.first("RRULE"); l != nil && !t.IsNote {
		if why := p.rule(t, l, start); why != "" {
			p.item.Notes = strings.TrimSpace(p.item.Notes + "\n\nRepeats: " + l.value)
			p.remark("Its repeat was not read and stands in the notes: %s", why)
		}
	}
	if !t.Due.IsZero() && t.Start.After(t.Due.Date) {
		p.remark("Its start, %s, is after its due and was left out.", t.Start)
		t.Start = day.Date{}
	}
	return nil
}

// ours reads a repeat as we wrote it, unless another program changed it since. It reports whether
// the dates are read.
func (p *parsing) ours(t *book.Todo, start day.Moment) bool {
	var r repeat.Repeat
	text := p.text(own + "REPEAT")
	if text == "" || json.Unmarshal([]byte(text), &r) != nil || r.Rule == nil || t.IsNote {
		return false
	}
	wrote, plain := "", false
	if r.Lead == 0 && r.Anchor == repeat.Schedule {
		wrote, plain = plainRule(&r, t.Due.HasTime())
	}
	now := ""
	if l := p.first("RRULE"); l != nil {
		now = l.value
	}
	if plain && (wrote != now || start.Date != r.Current) || !plain && now != "" {
		return false
	}
	if !plain {
		t.Start = start.Date
	}
	if due, err := day.ParseMoment(p.text(own + "DUE")); err == nil {
		t.Due = due
	}
	if start, err := day.ParseDate(p.text(own + "START")); err == nil {
		t.Start = start
	} else if plain {
		t.Start = day.Date{}
		if plan, _ := day.ParseHorizon(p.text(own + "PLAN")); t.Due.IsZero() && plan.IsZero() {
			t.Start = start0(p)
		}
	}
	t.Repeat = &r
	return true
}

// start0 is the date of DTSTART, which drives what has neither due nor plan.
func start0(p *parsing) day.Date {
	m, _ := p.moment(p.first("DTSTART")) // it was read before
	return m.Date
}

// rule reads an RRULE; what it returns is why not.
func (p *parsing) rule(t *book.Todo, l *line, start day.Moment) (why string) {
	rule, err := repeat.Parse(l.value)
	if err != nil {
		return err.Error()
	}
	r := repeat.Repeat{Rule: rule, First: start.Date}
	from := p.first("DTSTART")
	if start.IsZero() {
		r.First, from = t.Due.Date, p.first("DUE")
	}
	if why := moved(rule, from, r.First); why != "" {
		return why
	}
	for i := range p.lines {
		if l := &p.lines[i]; l.name == "EXDATE" {
			for _, value := range strings.Split(l.value, ",") {
				one := *l
				one.value = value
				if m, err := p.moment(&one); err == nil {
					r.Without = append(r.Without, m.Date)
				}
			}
		}
	}
	slices.SortFunc(r.Without, day.Date.Compare)
	r.Without = slices.Compact(r.Without)
	if r.First.IsZero() {
		return "there is no date from which it counts"
	}
	if !t.Due.IsZero() && !start.IsZero() {
		// The series is of starts; here it is of dues, so many days behind.
		if distance := t.Due.Date.Sub(start.Date); distance > 0 && distance <= repeat.MaxLead {
			return "its dates are those of its starts, and its due comes later"
		}
		t.Start = day.Date{}
	}
	var at day.TimeOfDay
	if !t.Due.IsZero() {
		at = t.Due.Time
	}
	begun, err := r.Begin(at, p.world.Zone)
	if err != nil {
		return err.Error()
	}
	t.Repeat = &begun
	return ""
}

// moved moves the weekdays of a rule where the zone of a time moves its day; from is the line that
// the rule counts from, and on the day on which it falls here. What it returns is why the rule
// cannot be moved so.
func moved(rule *repeat.Rule, from *line, on day.Date) (why string) {
	if from == nil || len(from.value) < len(dateForm) {
		return ""
	}
	said, err := time.Parse(dateForm, strings.TrimSpace(from.value)[:len(dateForm)])
	if err != nil {
		return ""
	}
	days := on.Sub(day.DateOf(said))
	plain := len(rule.ByMonthDay)+len(rule.ByYearDay)+len(rule.ByWeekNo)+len(rule.ByMonth)+len(rule.BySetPos) == 0
	switch {
	case days == 0:
		return ""
	case rule.Freq == repeat.Daily && plain && len(rule.ByDay) == 0:
		return ""
	case rule.Freq == repeat.Weekly && plain:
		for i := range rule.ByDay {
			rule.ByDay[i].Day = time.Weekday((int(rule.ByDay[i].Day) + days + 7) % 7)
		}
		slices.SortFunc(rule.ByDay, func(a, b repeat.NthDay) int { return int(a.Day+6)%7 - int(b.Day+6)%7 }) // Monday first
		return ""
	}
	return "in this time zone it falls on the day before or after, which the rule cannot say"
}

// moment reads a date, or a date with time as wall time of the person's zone.
func (p *parsing) moment(l *line) (day.Moment, error) {
	value := strings.TrimSpace(l.value)
	if on, err := time.Parse(dateForm, value); err == nil {
		return momentOf(l, on, false)
	}
	if instant, err := time.Parse(utcForm, value); err == nil {
		return momentOf(l, instant.In(p.world.Zone), true)
	}
	wall, err := time.Parse(wallForm, value)
	if err != nil {
		return day.Moment{}, at(l, "“%.40s” is no date such as 20261127 or 20261127T160000.", value)
	}
	if name := l.params["TZID"]; name != "" {
		if instant := p.zoneOf(name); instant != nil {
			wall = instant(wall).In(p.world.Zone)
		} else {
			p.remark("The time zone “%.60s” is not known; %s is taken as it stands.", name, l.name)
		}
	}
	return momentOf(l, wall, true)
}

func momentOf(l *line, t time.Time, timed bool) (day.Moment, error) {
	text := t.Format("2006-01-02")
	if timed {
		text = t.Format("2006-01-02T15:04")
	}
	m, err := day.ParseMoment(text)
	if err != nil || t.Year() < 1000 || t.Year() > 9999 {
		return day.Moment{}, at(l, "the year %d is outside of 1000 to 9999.", t.Year())
	}
	return m, nil
}

// instant reads a date with time in UTC; one without a zone is wall time.
func (p *parsing) instant(l *line) (day.Timestamp, error) {
	m, err := p.moment(l)
	if err != nil {
		return 0, err
	}
	if exact, err := time.Parse(utcForm, strings.TrimSpace(l.value)); err == nil {
		return day.TimestampOf(exact), nil
	}
	c := day.Clock{Zone: p.world.Zone}
	if !m.HasTime() { // that day, and not its end
		return day.TimestampOf(c.StartOf(m.Date)), nil
	}
	return day.TimestampOf(c.Instant(m)), nil
}
