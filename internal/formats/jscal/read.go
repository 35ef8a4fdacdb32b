package jscal

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/term"
)

// Read implements exchange.Codec.
func (Format) Read(text []byte, world exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(text) {
		return nil, nil, &exchange.Error{Reason: "The file is not UTF-8 text, as JSON is (RFC 8259 section 8.1). Save it as UTF-8."}
	}
	entries, err := objects(text)
	if err != nil {
		return nil, nil, err
	}
	r := &reader{world: world, at: map[string]int{}}
	for _, e := range entries {
		r.entry(text, e)
	}
	return r.ordered(), r.refused, nil
}

type reader struct {
	world   exchange.World
	items   []exchange.Item
	above   []string
	at      map[string]int
	refused []exchange.Refusal
}

func (r *reader) entry(text []byte, e entry) {
	line, column := where(text, e.offset)
	var kind struct {
		Type  string `json:"@type"`
		Title any    `json:"title"`
	}
	if json.Unmarshal(e.raw, &kind) == nil && kind.Type != "Task" && kind.Type != "" {
		return // an Event, or something newer
	}
	refuse := func(reason string) {
		title, _ := kind.Title.(string)
		r.refused = append(r.refused, exchange.Refusal{Error: exchange.Error{Line: line, Column: column, Reason: reason}, Title: title})
	}
	var t task
	if err := json.Unmarshal(e.raw, &t); err != nil {
		var wrong *json.UnmarshalTypeError
		if errors.As(err, &wrong) {
			refuse(fmt.Sprintf("%s: %s is not what is wanted there.", wrong.Field, wrong.Value))
		} else {
			refuse(err.Error() + ".")
		}
		return
	}
	item := exchange.Item{Incoming: book.Incoming{UID: t.UID, Under: -1, Carries: exchange.All}, Line: line, Column: column}
	if err := (&parsing{r, &t, &item}).read(); err != nil {
		refuse(err.Error())
		return
	}
	item.Passed = passed(e.raw)
	above := ""
	for _, uid := range slices.Sorted(maps.Keys(t.RelatedTo)) {
		if t.RelatedTo[uid].Relation["parent"] {
			above = uid
			break
		}
	}
	if _, twice := r.at[t.UID]; !twice && t.UID != "" {
		r.at[t.UID] = len(r.items)
	}
	r.items = append(r.items, item)
	r.above = append(r.above, above)
}

// taken are the properties that are read, or that say nothing of a to-do.
var taken = sync.OnceValue(func() map[string]bool {
	names := map[string]bool{"prodId": true, "sequence": true, "method": true, "@context": true}
	of := reflect.TypeFor[task]()
	for i := range of.NumField() {
		name, _, _ := strings.Cut(of.Field(i).Tag.Get("json"), ",")
		names[name] = true
	}
	return names
})

// passed are the names of the properties of a task that are not taken over.
func passed(raw []byte) []string {
	var all map[string]json.RawMessage
	if json.Unmarshal(raw, &all) != nil { // which was read before
		return nil
	}
	maps.DeleteFunc(all, func(name string, _ json.RawMessage) bool { return taken()[name] })
	return slices.Sorted(maps.Keys(all))
}

// ordered puts each item behind what it stands under.
func (r *reader) ordered() []exchange.Item { return exchange.Ordered(r.items, r.above) }

// parsing is one task on its way to an item.
type parsing struct {
	*reader
	task *task
	item *exchange.Item
}

func (p *parsing) remark(format string, args ...any) {
	p.item.Remarks = append(p.item.Remarks, fmt.Sprintf(format, args...))
}

func (p *parsing) read() error {
	from, t := p.task, &p.item.Todo
	t.Title, p.item.Notes = exchange.OneLine(from.Title), from.Description
	t.IsNote, t.InOrder, t.Outcome = from.Note, from.InOrder, exchange.OneLine(from.Outcome)
	p.item.List, p.item.Section = exchange.OneLine(from.List), exchange.OneLine(from.Section)
	for name, to := range map[string]*day.Timestamp{from.Created: &t.Created, from.Updated: &t.Changed} {
		if at, err := time.Parse(time.RFC3339Nano, name); err == nil {
			*to = day.TimestampOf(at)
		}
	}
	switch n := from.Priority; {
	case n < 0 || n > 9:
		return fmt.Errorf("priority: %d is none; a number from 0 to 9 is wanted", n)
	case n >= 6:
		t.Priority = book.Low
	case n == 5:
		t.Priority = book.Medium
	case n >= 1:
		t.Priority = book.High
	}
	for status, name := range progresses {
		if name == from.Progress && !t.IsNote {
			t.Status = status
		}
	}
	if from.Progress == "failed" {
		t.Status = book.Cancelled
	}
	if at, err := time.Parse(time.RFC3339Nano, from.ProgressUpdated); err == nil && !t.Status.Open() {
		t.Completed = day.TimestampOf(at)
	}
	if n, ok := minutesOf(from.EstimatedDuration); ok {
		t.Estimate = int32(min(n, term.MaxEstimate))
	}
	p.item.Tags = from.Tags
	if from.Tags == nil {
		for _, word := range slices.Sorted(maps.Keys(from.Keywords)) {
			if tag := exchange.TagOf(word); tag != "" && from.Keywords[word] {
				p.item.Tags = append(p.item.Tags, tag)
			}
		}
	}
	for _, id := range slices.Sorted(maps.Keys(from.Locations)) {
		if name := exchange.Cut(exchange.OneLine(from.Locations[id].Name), book.MaxPlace); name != "" && t.Place == "" {
			t.Place = name
		}
	}
	for _, id := range slices.Sorted(maps.Keys(from.Links)) {
		if href := from.Links[id].Href; t.Source.Link == "" && !strings.ContainsAny(href, " \t\n") && len(href) <= 1000 {
			t.Source.Link = href
		}
	}
	if t.Source.Link != "" {
		t.Source.Words = exchange.OneLine(from.SourceWords)
	}
	if plan, err := day.ParseHorizon(from.Plan); err == nil {
		t.Plan = plan
	}
	_ = t.Concentration.UnmarshalText([]byte(from.Concentration)) // what is none leaves it unset
	if on, err := day.ParseDate(from.Handful); err == nil {
		t.Handful = on
	}
	if from.Person != nil && t.Person.Role.UnmarshalText([]byte(from.Person.Role)) == nil {
		p.item.Person = exchange.OneLine(from.Person.Name)
		t.Person.Since, _ = day.ParseDate(from.Person.Since)
	}
	if err := p.dates(t); err != nil {
		return err
	}
	p.reminders(t)
	return nil
}

// minutesOf reads a duration of hours and minutes, PT1H30M.
func minutesOf(s string) (int, bool) {
	d, err := time.ParseDuration(strings.ToLower(strings.TrimPrefix(s, "PT")))
	return int(d.Minutes()), err == nil && strings.HasPrefix(s, "PT") && d > 0
}

// reminders reads our own words for them, or else the alerts.
func (p *parsing) reminders(t *book.Todo) {
	put := func(r day.Reminder) {
		same := slices.ContainsFunc(t.Reminders, func(had day.Reminder) bool { return had.Silent() == r.Silent() })
		if !r.IsZero() && !same && len(t.Reminders) < book.MaxReminders {
			t.Reminders = append(t.Reminders, r)
		}
	}
	if p.task.Reminders != nil {
		for _, text := range p.task.Reminders {
			if r, err := day.ParseReminder(text); err == nil {
				put(r)
			}
		}
		return
	}
	for _, id := range slices.Sorted(maps.Keys(p.task.Alerts)) {
		switch trigger := p.task.Alerts[id].Trigger; trigger.Type {
		case "AbsoluteTrigger":
			at, err := time.Parse(time.RFC3339, trigger.When)
			if err != nil {
				p.remark("A reminder was not read: “%.40s” is no time.", trigger.When)
				continue
			}
			put(day.ReminderAt(day.Clock{Zone: p.world.Zone}.WallOf(at)))
		case "OffsetTrigger":
			r, err := day.ParseReminder(trigger.Offset)
			if err != nil || r.Edge != day.NoEdge {
				p.remark("A reminder was not read: “%.40s” is no time ahead.", trigger.Offset)
				continue
			}
			put(r)
		default:
			p.remark("A reminder of the kind “%.40s” was not read.", trigger.Type)
		}
	}
}
