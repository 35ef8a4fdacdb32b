package ics

import (
	"encoding/json"
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Write implements exchange.Codec.
func (Format) Write(items []exchange.Item, world exchange.World) ([]byte, error) {
	w := &writer{}
	w.line("BEGIN", "VCALENDAR")
	w.line("VERSION", "2.0")
	w.line("PRODID", "-//Tin Cup//Tin Cup//EN")
	if world.Name != "" {
		w.text("NAME", world.Name) // RFC 7986 section 5.1
	}
	for i := range items {
		if err := w.item(items, i, world); err != nil {
			return nil, err
		}
	}
	w.line("END", "VCALENDAR")
	return w.Bytes(), nil
}

var statuses = map[book.Status]string{book.NeedsAction: "NEEDS-ACTION", book.InProcess: "IN-PROCESS", book.Completed: "COMPLETED", book.Cancelled: "CANCELLED"}

var priorities = map[book.Priority]string{book.High: "1", book.Medium: "5", book.Low: "9"}

func utc(at day.Timestamp) string { return at.Time().UTC().Format(utcForm) }

// wall is a civil moment: a date, or a date with time and no zone.
func wall(m day.Moment) string {
	date := strings.ReplaceAll(m.Date.String(), "-", "")
	if !m.HasTime() {
		return date
	}
	return fmt.Sprintf("%sT%s00", date, strings.Replace(m.Time.String(), ":", "", 1))
}

// moment writes a date, said to be one, or a date with time.
func (w *writer) moment(name string, m day.Moment) {
	if m.IsZero() {
		return
	}
	if !m.HasTime() {
		name += ";VALUE=DATE"
	}
	w.line(name, wall(m))
}

func (w *writer) item(items []exchange.Item, i int, world exchange.World) error {
	item := &items[i]
	t := &item.Todo
	kind := "VTODO"
	if t.IsNote {
		kind = "VJOURNAL"
	}
	w.line("BEGIN", kind)
	w.text("UID", item.UID)
	w.line("DTSTAMP", world.Now.UTC().Format(utcForm))
	if !t.Created.IsZero() {
		w.line("CREATED", utc(t.Created))
	}
	if !t.Changed.IsZero() {
		w.line("LAST-MODIFIED", utc(t.Changed))
	}
	w.text("SUMMARY", t.Title)
	w.text("DESCRIPTION", item.Notes)
	if !t.IsNote {
		w.line("STATUS", statuses[t.Status])
		switch {
		case t.Completed.IsZero():
		case t.Status == book.Cancelled: // it was not completed (section 3.8.2.1)
			w.line(own+"CLOSED", utc(t.Completed))
		default:
			w.line("COMPLETED", utc(t.Completed))
		}
	}
	// A VJOURNAL has no priority, due, location and alarms (section 3.6.3): they are properties of
	// ours there.
	elsewhere := ""
	if t.IsNote {
		elsewhere = own
	}
	if p := priorities[t.Priority]; p != "" {
		w.line(elsewhere+"PRIORITY", p)
	}
	if err := w.dates(t); err != nil {
		return err
	}
	if len(item.Tags) > 0 {
		tags := make([]string, len(item.Tags))
		for i, tag := range item.Tags {
			tags[i] = escape(tag)
		}
		w.line("CATEGORIES", strings.Join(tags, ","))
	}
	w.text(elsewhere+"LOCATION", t.Place)
	if item.Under >= 0 {
		w.line("RELATED-TO;RELTYPE=PARENT", escape(items[item.Under].UID))
	} else {
		w.text(own+"LIST", item.List)
		w.text(own+"SECTION", item.Section)
	}
	if t.Source.Link != "" {
		w.line("URL", t.Source.Link)
	}
	w.text(own+"SOURCE", t.Source.Words)
	w.text(own+"PLAN", t.Plan.String())
	if t.Estimate > 0 {
		w.line(own+"ESTIMATE", fmt.Sprintf("PT%dM", t.Estimate))
	}
	if t.Concentration != term.Unset {
		w.text(own+"CONCENTRATION", t.Concentration.String())
	}
	if t.InOrder {
		w.line(own+"ORDER", "SEQUENTIAL")
	}
	w.text(own+"OUTCOME", t.Outcome)
	w.text(own+"HANDFUL", t.Handful.String())
	if item.Person != "" && t.Person.Role != book.NoRole {
		w.line(own+"PERSON;X-ROLE="+param(t.Person.Role.String())+";X-SINCE="+t.Person.Since.String(), escape(item.Person))
	}
	if at, known := world.Places[t.Place]; known && !at.IsZero() && !t.IsNote {
		w.place(item.UID+"-at", t.Place, world)
	}
	for n, r := range t.Reminders {
		if t.IsNote {
			w.text(own+"REMINDER", r.String())
			continue
		}
		w.alarm(t, r, fmt.Sprintf("%s-%d", item.UID, n+1), world)
	}
	w.line("END", kind)
	return nil
}

// dates writes start, due and repeat.
func (w *writer) dates(t *book.Todo) error {
	due, start := t.Due, day.Moment{Date: t.Start}
	if t.IsNote {
		if !due.IsZero() {
			w.line(own+"DUE", wall(due))
		}
		w.moment("DTSTART", start)
		return nil
	}
	if r := t.Repeat; r != nil {
		packed, err := json.Marshal(r)
		if err != nil {
			return err
		}
		w.text(own+"REPEAT", string(packed))
		if r.Lead == 0 && r.Anchor == repeat.Schedule {
			if rule, ok := plainRule(r, due.HasTime()); ok {
				// The series from the present occurrence on; where that was moved by hand, and where a start
				// stands beside it, is ours to know.
				on := day.Moment{Date: r.Current, Time: due.Time}
				w.moment("DTSTART", on)
				if !due.IsZero() {
					w.moment("DUE", on)
				}
				w.line("RRULE", rule)
				for _, without := range r.Without {
					if !without.Before(r.Current) {
						w.moment("EXDATE", day.Moment{Date: without, Time: due.Time})
					}
				}
				if due != on && !due.IsZero() {
					w.line(own+"DUE", due.String())
				}
				w.text(own+"START", t.Start.String())
				return nil
			}
		}
	}
	switch {
	case start.IsZero():
		w.moment("DUE", due)
	case due.IsZero() || !due.HasTime() && start.Date.Before(due.Date):
		w.moment("DTSTART", start)
		w.moment("DUE", due)
	default: // of another type, or not before it (section 3.8.2.3)
		w.moment("DUE", due)
		w.line(own+"START", t.Start.String())
	}
	return nil
}

// noTrigger is the trigger of an alarm that no time brings: an alarm wants one (RFC 9074 section 8).
const noTrigger = "19760401T005545Z"

// alarm writes a reminder as a VALARM (section 3.6.6).
func (w *writer) alarm(t *book.Todo, r day.Reminder, uid string, world exchange.World) {
	w.line("BEGIN", "VALARM")
	w.text("UID", uid) // RFC 9074 section 4
	w.line("ACTION", "DISPLAY")
	w.text("DESCRIPTION", t.Title)
	switch {
	case r.Edge != day.NoEdge:
		w.line("TRIGGER;VALUE=DATE-TIME", noTrigger)
		w.line("PROXIMITY", r.Edge.String())
		w.place(uid+"-place", r.Place, world)
	case !r.At.IsZero():
		at := day.Clock{Zone: world.Zone}.Instant(r.At)
		w.line("TRIGGER;VALUE=DATE-TIME", at.UTC().Format(utcForm))
	default:
		w.line(triggerOf(t, r, world))
	}
	w.text(own+"REMINDER", r.String())
	w.line("END", "VALARM")
}

// triggerOf is when an alarm comes that counts from the due or the start: from midnight where that
// has no time (section 3.8.6.3). Where it counts from the plan, which a VTODO has not, it is an instant.
func triggerOf(t *book.Todo, r day.Reminder, world exchange.World) (name, value string) {
	if from := t.RemindedOf(); from != basis(t) || from.IsZero() {
		value = noTrigger
		if !from.IsZero() {
			value = day.Clock{Zone: world.Zone}.Rings(r, from, hourOf(world)).UTC().Format(utcForm)
		}
		return "TRIGGER;VALUE=DATE-TIME", value
	}
	name, before := "TRIGGER", r.Before
	if !t.Due.IsZero() {
		name += ";RELATED=END"
	}
	if base := basis(t); !base.IsZero() && !base.HasTime() {
		before -= hourOf(world).Minutes()
	}
	if before >= 0 {
		return name, duration(before)
	}
	hours, minutes := -before/60, -before%60
	value = "PT"
	if hours > 0 {
		value += fmt.Sprintf("%dH", hours)
	}
	if minutes > 0 {
		value += fmt.Sprintf("%dM", minutes)
	}
	return name, value
}

// place writes a place (RFC 9073 section 7.2), with its position where that is known.
func (w *writer) place(uid, name string, world exchange.World) {
	w.line("BEGIN", "VLOCATION")
	w.text("UID", uid)
	w.text("NAME", name)
	if at, known := world.Places[name]; known && !at.IsZero() {
		w.line("GEO", strings.Replace(strings.TrimPrefix(at.String(), "geo:"), ",", ";", 1)) // RFC 5545 section 3.8.1.6
		w.line("URL", at.String())
	}
	w.line("END", "VLOCATION")
}

// duration is a time ahead, in minutes (section 3.3.6).
func duration(minutes int) string {
	return day.ReminderBefore(minutes).String()
}
