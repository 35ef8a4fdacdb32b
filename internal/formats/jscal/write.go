package jscal

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Write implements exchange.Codec.
func (Format) Write(items []exchange.Item, world exchange.World) ([]byte, error) {
	now := world.Now.UTC().Format(utcForm)
	g := group{Type: "Group", UID: "tin-cup-" + now, Updated: now, Title: world.Name, ProdID: "Tin Cup", Entries: []task{}}
	for i := range items {
		g.Entries = append(g.Entries, written(items, i, world))
	}
	text, err := json.MarshalIndent(g, "", "  ")
	return append(text, '\n'), err
}

var progresses = map[book.Status]string{book.NeedsAction: "needs-action", book.InProcess: "in-process", book.Completed: "completed", book.Cancelled: "cancelled"}

var priorities = map[book.Priority]int{book.High: 1, book.Medium: 5, book.Low: 9}

// utc is exact to the millisecond, without zeros at its end (section 1.4.4).
func utc(at day.Timestamp) string {
	return at.Time().UTC().Format("2006-01-02T15:04:05.999Z")
}

func local(m day.Moment) string {
	if m.HasTime() {
		return m.Date.String() + "T" + m.Time.String() + ":00"
	}
	return m.Date.String() + "T00:00:00"
}

func written(items []exchange.Item, i int, world exchange.World) task {
	item := &items[i]
	t := &item.Todo
	out := task{Type: "Task", UID: item.UID, Title: t.Title, Description: item.Notes, Priority: priorities[t.Priority], Note: t.IsNote,
		Plan: t.Plan.String(), InOrder: t.InOrder, Outcome: t.Outcome, Handful: t.Handful.String(), SourceWords: t.Source.Words, Tags: item.Tags, Repeat: t.Repeat}
	out.Updated = world.Now.UTC().Format(utcForm)
	if !t.Changed.IsZero() {
		out.Updated = utc(t.Changed)
	}
	if !t.Created.IsZero() {
		out.Created = utc(t.Created)
	}
	if !t.IsNote {
		out.Progress = progresses[t.Status]
		if !t.Completed.IsZero() {
			out.ProgressUpdated = utc(t.Completed)
		}
	}
	if t.Concentration != term.Unset {
		out.Concentration = t.Concentration.String()
	}
	if t.Estimate > 0 {
		out.EstimatedDuration = fmt.Sprintf("PT%dM", t.Estimate)
	}
	for _, tag := range item.Tags {
		if out.Keywords == nil {
			out.Keywords = map[string]bool{}
		}
		out.Keywords[tag] = true
	}
	if t.Place != "" {
		at := location{Type: "Location", Name: t.Place}
		if middle := world.Places[t.Place]; !middle.IsZero() {
			at.Coordinates = middle.String()
		}
		out.Locations = map[string]location{"1": at}
	}
	if item.Under >= 0 {
		out.RelatedTo = map[string]relation{items[item.Under].UID: {"Relation", map[string]bool{"parent": true}}}
	} else {
		out.List, out.Section = item.List, item.Section
	}
	if t.Source.Link != "" {
		out.Links = map[string]link{"1": {"Link", t.Source.Link}}
	}
	if item.Person != "" && t.Person.Role != book.NoRole {
		out.Person = &person{item.Person, t.Person.Role.String(), t.Person.Since.String()}
	}
	dates(&out, t)
	for n, r := range t.Reminders {
		out.Reminders = append(out.Reminders, r.String())
		if a, ok := alertOf(t, r, world); ok {
			if out.Alerts == nil {
				out.Alerts = map[string]alert{}
			}
			out.Alerts[strconv.Itoa(n+1)] = a
		}
	}
	return out
}

// dates writes due, start and the series.
func dates(out *task, t *book.Todo) {
	if !t.Due.IsZero() {
		out.Due = local(t.Due)
	}
	timed := t.Due.HasTime()
	out.ShowWithoutTime = !timed && (!t.Due.IsZero() || !t.Start.IsZero())
	switch {
	case t.Start.IsZero():
	case timed || t.Repeat != nil && !t.Due.IsZero(): // of another kind than the due; a series would count from it
		out.OwnStart = t.Start.String()
	default:
		out.Start = local(day.Moment{Date: t.Start})
	}
	r := t.Repeat
	if r == nil || r.Lead > 0 || r.Anchor != repeat.Schedule {
		return
	}
	on := day.Moment{Date: r.Current, Time: t.Due.Time}
	if t.Due.IsZero() && t.Start.IsZero() {
		out.OwnStart, out.Start, out.ShowWithoutTime = "none", local(on), true
	}
	out.Rules = []rule{ruleOf(r)}
	for _, d := range r.Without {
		if out.Overrides == nil {
			out.Overrides = map[string]override{}
		}
		out.Overrides[local(day.Moment{Date: d, Time: t.Due.Time})] = override{Excluded: true}
	}
}

var (
	frequencies = [...]string{repeat.Daily: "daily", repeat.Weekly: "weekly", repeat.Monthly: "monthly", repeat.Yearly: "yearly"}
	weekdays    = [...]string{"su", "mo", "tu", "we", "th", "fr", "sa"}
	skips       = [...]string{repeat.Omit: "", repeat.Backward: "backward", repeat.Forward: "forward"}
)

// ruleOf is the series from the present occurrence on: a count becomes its last date.
func ruleOf(r *repeat.Repeat) rule {
	from := r.Rule
	out := rule{Type: "RecurrenceRule", Frequency: frequencies[from.Freq], Skip: skips[from.Skip], ByMonthDay: from.ByMonthDay, ByYearDay: from.ByYearDay, ByWeekNo: from.ByWeekNo, BySetPos: from.BySetPos}
	if from.Interval > 1 {
		out.Interval = from.Interval
	}
	if out.Skip != "" {
		out.RScale = "gregorian"
	}
	if from.WeekStart != time.Monday {
		out.FirstDay = weekdays[from.WeekStart]
	}
	for _, d := range from.ByDay {
		out.ByDay = append(out.ByDay, nday{"NDay", weekdays[d.Day], d.N})
	}
	for _, m := range from.ByMonth {
		out.ByMonth = append(out.ByMonth, strconv.Itoa(m))
	}
	last := from.Until.Date
	if from.Count > 0 {
		last = r.Last
	}
	if !last.IsZero() {
		out.Until = last.String() + "T23:59:59"
	}
	return out
}

// alertOf is a reminder as other programs know one; ok is false for one at an edge, of which the
// standard knows nothing.
func alertOf(t *book.Todo, r day.Reminder, world exchange.World) (alert, bool) {
	switch {
	case r.Edge != day.NoEdge:
		return alert{}, false
	case !r.At.IsZero():
		at := day.Clock{Zone: world.Zone}.Instant(r.At)
		return alert{"Alert", trigger{Type: "AbsoluteTrigger", When: at.UTC().Format(utcForm)}}, true
	}
	relative := "start"
	if !t.Due.IsZero() {
		relative = "end"
	}
	return alert{"Alert", trigger{Type: "OffsetTrigger", Offset: strings.TrimSuffix(day.ReminderBefore(r.Before).String(), "T"), RelativeTo: relative}}, true
}
