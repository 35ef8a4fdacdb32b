package jscal

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/repeat"
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

// entry is an object, and where it begins.
type entry struct {
	raw    json.RawMessage
	offset int
}

// objects finds the objects of a file: those of a Group, of an array, or the one there is.
func objects(text []byte) ([]entry, error) {
	var top json.RawMessage
	if err := json.Unmarshal(text, &top); err != nil {
		return nil, syntax(text, err)
	}
	trimmed := bytes.TrimLeft(text, " \t\r\n")
	switch {
	case len(trimmed) > 0 && trimmed[0] == '[':
		return elements(text, "")
	case len(trimmed) == 0 || trimmed[0] != '{':
		return nil, &exchange.Error{Line: 1, Column: 1, Reason: "This is no JSCalendar file: a Group or a Task is wanted (RFC 8984)."}
	}
	var kind struct {
		Type string `json:"@type"`
	}
	if err := json.Unmarshal(top, &kind); err != nil {
		return nil, &exchange.Error{Line: 1, Column: 1, Reason: "Its @type is no text."}
	}
	switch kind.Type {
	case "Group":
		return elements(text, "entries")
	case "Task":
		return []entry{{top, len(text) - len(trimmed)}}, nil
	}
	return nil, &exchange.Error{Line: 1, Column: 1, Reason: fmt.Sprintf("This is no JSCalendar file of to-dos: its @type is “%.40s”; Group or Task is wanted.", kind.Type)}
}

// elements are those of the array that a text is, or that a member of it is.
func elements(text []byte, member string) ([]entry, error) {
	d := json.NewDecoder(bytes.NewReader(text))
	if member != "" {
		if _, err := d.Token(); err != nil {
			return nil, syntax(text, err)
		}
		for {
			if !d.More() {
				return nil, nil // a Group without entries
			}
			name, err := d.Token()
			if err != nil {
				return nil, syntax(text, err)
			}
			if name == member {
				break
			}
			var other json.RawMessage
			if err := d.Decode(&other); err != nil {
				return nil, syntax(text, err)
			}
		}
	}
	if open, err := d.Token(); err != nil || open != json.Delim('[') {
		line, column := where(text, int(d.InputOffset()))
		return nil, &exchange.Error{Line: line, Column: column, Reason: "An array of objects is wanted here."}
	}
	var all []entry
	for d.More() {
		var e entry
		if err := d.Decode(&e.raw); err != nil {
			return nil, syntax(text, err)
		}
		e.offset = int(d.InputOffset()) - len(e.raw)
		all = append(all, e)
	}
	return all, nil
}

// where is the line and the column of an offset.
func where(text []byte, offset int) (line, column int) {
	before := text[:max(0, min(offset, len(text)))]
	return 1 + bytes.Count(before, []byte("\n")), len(before) - bytes.LastIndexByte(before, '\n')
}

func syntax(text []byte, err error) error {
	var wrong *json.SyntaxError
	if !errors.As(err, &wrong) {
		return err
	}
	line, column := where(text, int(wrong.Offset)-1)
	return &exchange.Error{Line: line, Column: column, Reason: "This is no JSON: " + wrong.Error() + "."}
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

func oneLine(s string) string { return strings.Join(strings.Fields(s), " ") }

func cut(s string, most int) string {
	if long := []rune(s); len(long) > most {
		return string(long[:most])
	}
	return s
}

func (p *parsing) read() error {
	from, t := p.task, &p.item.Todo
	t.Title, p.item.Notes = oneLine(from.Title), from.Description
	t.IsNote, t.InOrder, t.Outcome = from.Note, from.InOrder, oneLine(from.Outcome)
	p.item.List, p.item.Section = oneLine(from.List), oneLine(from.Section)
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
		if name := cut(oneLine(from.Locations[id].Name), book.MaxPlace); name != "" && t.Place == "" {
			t.Place = name
		}
	}
	for _, id := range slices.Sorted(maps.Keys(from.Links)) {
		if href := from.Links[id].Href; t.Source.Link == "" && !strings.ContainsAny(href, " \t\n") && len(href) <= 1000 {
			t.Source.Link = href
		}
	}
	if t.Source.Link != "" {
		t.Source.Words = oneLine(from.SourceWords)
	}
	if plan, err := day.ParseHorizon(from.Plan); err == nil {
		t.Plan = plan
	}
	_ = t.Concentration.UnmarshalText([]byte(from.Concentration)) // what is none leaves it unset
	if on, err := day.ParseDate(from.Handful); err == nil {
		t.Handful = on
	}
	if from.Person != nil && t.Person.Role.UnmarshalText([]byte(from.Person.Role)) == nil {
		p.item.Person = oneLine(from.Person.Name)
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

// moment reads a LocalDateTime of the task's zone as wall time of the person's.
func (p *parsing) moment(name, s string) (day.Moment, error) {
	if s == "" {
		return day.Moment{}, nil
	}
	at, err := time.Parse(localForm, s)
	if err != nil || at.Year() < 1000 || at.Year() > 9999 {
		return day.Moment{}, fmt.Errorf("%s: “%.40s” is no local date and time such as 2026-11-27T16:00:00", name, s)
	}
	if p.task.ShowWithoutTime {
		return day.ParseMoment(at.Format("2006-01-02"))
	}
	if zone := p.task.TimeZone; zone != "" {
		in, err := time.LoadLocation(zone)
		if err != nil || strings.EqualFold(zone, "local") {
			p.remark("The time zone “%.60s” is not known; %s is taken as it stands.", zone, name)
		} else {
			at = time.Date(at.Year(), at.Month(), at.Day(), at.Hour(), at.Minute(), 0, 0, in).In(p.world.Zone)
		}
	}
	return day.ParseMoment(at.Format("2006-01-02T15:04"))
}

func (p *parsing) dates(t *book.Todo) (err error) {
	if t.Due, err = p.moment("due", p.task.Due); err != nil {
		return err
	}
	start, err := p.moment("start", p.task.Start)
	if err != nil {
		return err
	}
	if t.Start = start.Date; start.HasTime() {
		p.remark("The time of the start, %s, is not kept: a start is a day here.", start.Time)
	}
	switch on, err := day.ParseDate(p.task.OwnStart); {
	case p.task.OwnStart == "none":
		t.Start = day.Date{}
	case err == nil:
		t.Start = on
	}
	if !t.Due.IsZero() && t.Start.After(t.Due.Date) {
		p.remark("Its start, %s, is after its due and was left out.", t.Start)
		t.Start = day.Date{}
	}
	if t.IsNote {
		return nil
	}
	if r := p.task.Repeat; r != nil && r.Rule != nil && p.ours(r) {
		t.Repeat = r
		return nil
	}
	if len(p.task.Rules) == 0 {
		return nil
	}
	if why := p.rule(t, start); why != "" {
		text, _ := json.Marshal(p.task.Rules)
		p.item.Notes = strings.TrimSpace(p.item.Notes + "\n\nRepeats: " + string(text))
		p.remark("Its repeat was not read and stands in the notes: %s", why)
	}
	return nil
}

// ours reports whether the series stands as we wrote it for a repeat.
func (p *parsing) ours(r *repeat.Repeat) bool {
	if r.Lead > 0 || r.Anchor != repeat.Schedule {
		return len(p.task.Rules) == 0
	}
	is, _ := json.Marshal(p.task.Rules)
	was, _ := json.Marshal([]rule{ruleOf(r)})
	return bytes.Equal(is, was)
}

// rule reads the rule of another program; what it returns is why not.
func (p *parsing) rule(t *book.Todo, start day.Moment) (why string) {
	if len(p.task.Rules) > 1 {
		return "it has several rules"
	}
	from := p.task.Rules[0]
	var b strings.Builder
	add := func(name, value string) {
		if value != "" {
			b.WriteString(";" + name + "=" + strings.ToUpper(value))
		}
	}
	numbers := func(of []int) string {
		words := make([]string, len(of))
		for i, n := range of {
			words[i] = strconv.Itoa(n)
		}
		return strings.Join(words, ",")
	}
	if from.Interval > 0 {
		add("INTERVAL", strconv.Itoa(from.Interval))
	}
	add("BYMONTH", strings.Join(from.ByMonth, ","))
	add("BYWEEKNO", numbers(from.ByWeekNo))
	add("BYYEARDAY", numbers(from.ByYearDay))
	add("BYMONTHDAY", numbers(from.ByMonthDay))
	days := make([]string, len(from.ByDay))
	for i, d := range from.ByDay {
		if days[i] = d.Day; d.Nth != 0 {
			days[i] = strconv.Itoa(d.Nth) + d.Day
		}
	}
	add("BYDAY", strings.Join(days, ","))
	add("BYHOUR", numbers(from.ByHour))
	add("BYMINUTE", numbers(from.ByMinute))
	add("BYSETPOS", numbers(from.BySetPos))
	add("WKST", from.FirstDay)
	if from.Count > 0 {
		add("COUNT", strconv.Itoa(from.Count))
	}
	if until, _, _ := strings.Cut(from.Until, "T"); until != "" {
		add("UNTIL", strings.ReplaceAll(until, "-", ""))
	}
	if from.Skip != "" {
		add("RSCALE", from.RScale)
		add("SKIP", from.Skip)
	}
	rule, err := repeat.Parse("FREQ=" + strings.ToUpper(from.Frequency) + b.String())
	if err != nil {
		return err.Error()
	}
	first := t.Due.Date
	if !start.IsZero() {
		if !t.Due.IsZero() && t.Due.Date.After(start.Date) {
			return "its dates are those of its starts, and its due comes later"
		}
		first = start.Date
	}
	if first.IsZero() {
		return "there is no date from which it counts"
	}
	r := repeat.Repeat{Rule: rule, First: first}
	for _, on := range slices.Sorted(maps.Keys(p.task.Overrides)) {
		date, _, _ := strings.Cut(on, "T")
		if d, err := day.ParseDate(date); err == nil && p.task.Overrides[on].Excluded {
			r.Without = append(r.Without, d)
		}
	}
	begun, err := r.Begin(t.Due.Time, p.world.Zone)
	if err != nil {
		return err.Error()
	}
	t.Repeat = &begun
	return ""
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
