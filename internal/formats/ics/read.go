package ics

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/term"
)

// Read implements exchange.Codec.
func (Format) Read(text []byte, world exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
	top, err := parse(text)
	if err != nil {
		return nil, nil, err
	}
	r := &reader{world: world, definitions: map[string]*component{}}
	for _, calendar := range top {
		for _, c := range calendar.parts {
			if c.name == "VTIMEZONE" {
				r.definitions[c.text("TZID")] = c
			}
		}
	}
	for _, calendar := range top {
		if calendar.name != "VCALENDAR" {
			return nil, nil, wrong(calendar.number, 1, "This is no iCalendar file: it begins with %.40s, and not with VCALENDAR.", calendar.name)
		}
		for _, c := range calendar.parts {
			if c.name == "VTODO" || c.name == "VJOURNAL" {
				r.component(c)
			}
		}
	}
	return r.ordered(), r.refused, nil
}

type reader struct {
	world   exchange.World
	items   []exchange.Item
	above   []string // the UID of what each stands under
	refused []exchange.Refusal
	// below are the UIDs that name what they stand under by RELTYPE=CHILD there; after those of what
	// each comes after (RFC 9253).
	below map[string]string
	after map[string][]string
	// definitions are the file's own zones by their TZIDs, and zones those that were looked for.
	definitions map[string]*component
	zones       map[string]func(time.Time) time.Time
}

// taken are the properties that are read, or that say nothing of a to-do: what changed it when, and
// how often (RFC 5545 sections 3.8.7.2 and 3.8.7.4).
var taken = []string{"UID", "DTSTAMP", "SEQUENCE", "CREATED", "LAST-MODIFIED", "COMPLETED", "SUMMARY", "DESCRIPTION", "STATUS", "PERCENT-COMPLETE", "PRIORITY",
	"DUE", "DTSTART", "DURATION", "RRULE", "EXDATE", "CATEGORIES", "LOCATION", "RELATED-TO", "URL"}

// passed are the names of the properties of a component that are not taken over, and of its parts.
func passed(c *component) (names []string) {
	for _, l := range c.lines {
		if !slices.Contains(taken, l.name) && !strings.HasPrefix(l.name, own) {
			names = append(names, l.name)
		}
	}
	for _, part := range c.parts {
		if part.name != "VALARM" && part.name != "VLOCATION" {
			names = append(names, part.name)
		}
	}
	slices.Sort(names)
	return slices.Compact(names)
}

// fields are those that iCalendar carries; what a file does not say of them is none.
var fields = exchange.All

func (r *reader) component(c *component) {
	item := exchange.Item{Incoming: book.Incoming{Under: -1, Carries: fields}, Line: c.number, Column: 1}
	p := &parsing{reader: r, component: c, item: &item}
	if err := p.read(); err != nil {
		refusal := exchange.Refusal{Error: exchange.Error{Line: c.number, Column: 1, Reason: err.Error()}, Title: c.text("SUMMARY")}
		var at *exchange.Error
		if errors.As(err, &at) {
			refusal.Error = *at
		}
		r.refused = append(r.refused, refusal)
		return
	}
	item.Passed = passed(c)
	r.items = append(r.items, item)
	r.above = append(r.above, r.related(c, item.UID))
}

// parsing is one component on its way to an item.
type parsing struct {
	*reader
	*component
	item *exchange.Item
}

func (p *parsing) remark(format string, args ...any) {
	p.item.Remarks = append(p.item.Remarks, fmt.Sprintf(format, args...))
}

// leave keeps a value that cannot be read for the notes. Fields are those it would have said, which
// stay as they are in a to-do that is there.
func (p *parsing) leave(l *line, err error, fields ...string) {
	p.item.Leave(l.name, l.value, err.Error()+" It goes to the notes.")
	p.item.Carries &^= book.FieldsOf(fields...)
}

// at is an error in a line.
func at(l *line, format string, args ...any) error {
	return wrong(l.number, 1, "%s: %s", l.name, fmt.Sprintf(format, args...))
}

func (p *parsing) read() error {
	t := &p.item.Todo
	if l := p.first("RECURRENCE-ID"); l != nil {
		return at(l, "one occurrence of a repeat is not read by itself; its to-do is.")
	}
	t.IsNote = p.name == "VJOURNAL"
	p.item.UID = p.text("UID")
	t.Title = exchange.OneLine(p.text("SUMMARY"))
	p.item.Notes = p.text("DESCRIPTION")
	if t.Title == "" { // a title of some kind is wanted
		first, rest, _ := strings.Cut(strings.TrimSpace(p.item.Notes), "\n")
		t.Title, p.item.Notes = strings.TrimSpace(first), strings.TrimSpace(rest)
	}
	if long := []rune(t.Title); len(long) > term.MaxTitle {
		p.item.Notes = strings.TrimSpace(t.Title + "\n\n" + p.item.Notes)
		t.Title = string(long[:term.MaxTitle-1]) + "…"
		p.remark("The title was too long; it stands whole in the notes.")
	}
	for _, step := range []func(*book.Todo) error{p.state, p.dates, p.texts, p.own, p.alarms} {
		if err := step(t); err != nil {
			return err
		}
	}
	return nil
}

// state reads status, priority and when things were.
func (p *parsing) state(t *book.Todo) error {
	for name, to := range map[string]*day.Timestamp{"CREATED": &t.Created, "LAST-MODIFIED": &t.Changed, "COMPLETED": &t.Completed, own + "CLOSED": &t.Completed} {
		if l := p.first(name); l != nil {
			instant, err := p.instant(l)
			if err != nil {
				p.leave(l, err)
				continue
			}
			*to = instant
		}
	}
	status := strings.ToUpper(p.text("STATUS"))
	for s, name := range statuses {
		if name == status {
			t.Status = s
		}
	}
	if status == "" && (!t.Completed.IsZero() || p.text("PERCENT-COMPLETE") == "100") {
		t.Status = book.Completed
	}
	if t.IsNote {
		t.Status = book.NeedsAction
	}
	if t.Status.Open() {
		t.Completed = 0
	}
	if l := p.either("PRIORITY"); l != nil {
		switch n, err := strconv.Atoi(strings.TrimSpace(l.value)); {
		case err != nil || n < 0 || n > 9:
			p.leave(l, at(l, "“%.20s” is no priority; a number from 0 to 9 is wanted.", l.value), "priority")
		case n >= 6:
			t.Priority = book.Low
		case n == 5:
			t.Priority = book.Medium
		case n >= 1:
			t.Priority = book.High
		}
	}
	return nil
}

func (p *parsing) texts(t *book.Todo) error {
	for i := range p.lines {
		if l := &p.lines[i]; l.name == "CATEGORIES" {
			for _, tag := range list(l.value) {
				if tag = exchange.TagOf(tag); tag != "" && !slices.ContainsFunc(p.item.Tags, func(had string) bool { return strings.EqualFold(had, tag) }) {
					p.item.Tags = append(p.item.Tags, tag)
				}
			}
		}
	}
	if l := p.either("LOCATION"); l != nil {
		t.Place = exchange.Cut(exchange.OneLine(unescape(l.value)), book.MaxPlace)
	}
	if t.Place == "" {
		for _, part := range p.parts {
			if part.name == "VLOCATION" {
				t.Place = exchange.Cut(exchange.OneLine(part.text("NAME")), book.MaxPlace)
			}
		}
	}
	if l := p.first("URL"); l != nil && !strings.ContainsAny(l.value, " \t") && len(l.value) <= 1000 {
		t.Source = book.Source{Link: l.value, Words: exchange.OneLine(p.text(own + "SOURCE"))}
	}
	return nil
}

// own reads the properties of our own. What is none of theirs is passed over: another program may
// have written it.
func (p *parsing) own(t *book.Todo) error {
	p.item.List, p.item.Section = exchange.OneLine(p.text(own+"LIST")), exchange.OneLine(p.text(own+"SECTION"))
	if plan, err := day.ParseHorizon(p.text(own + "PLAN")); err == nil && !t.IsNote {
		t.Plan = plan
	}
	if minutes, ok := minutes(p.text(own + "ESTIMATE")); ok {
		t.Estimate = int32(min(minutes, term.MaxEstimate))
	}
	_ = t.Concentration.UnmarshalText([]byte(p.text(own + "CONCENTRATION"))) // what is none leaves it unset
	t.InOrder = p.text(own+"ORDER") == "SEQUENTIAL"
	t.Outcome = exchange.OneLine(p.text(own + "OUTCOME"))
	if on, err := day.ParseDate(p.text(own + "HANDFUL")); err == nil {
		t.Handful = on
	}
	if l := p.first(own + "PERSON"); l != nil {
		var role book.Role
		if role.UnmarshalText([]byte(l.params["X-ROLE"])) == nil {
			since, _ := day.ParseDate(l.params["X-SINCE"]) // none is today
			p.item.Person, t.Person = exchange.OneLine(unescape(l.value)), book.Involved{Role: role, Since: since}
		}
	}
	return nil
}

// minutes reads a duration of minutes and hours, PT1H30M.
func minutes(s string) (int, bool) {
	d, err := time.ParseDuration(strings.ToLower(strings.TrimPrefix(s, "PT")))
	return int(d.Minutes()), err == nil && strings.HasPrefix(s, "PT") && d > 0
}

// alarms reads the reminders.
func (p *parsing) alarms(t *book.Todo) error {
	for _, alarm := range p.parts {
		if alarm.name != "VALARM" || strings.EqualFold(strings.TrimSpace(alarm.text("ACTION")), "NONE") {
			continue
		}
		reminder, err := day.ParseReminder(alarm.text(own + "REMINDER"))
		if err != nil || p.altered(t, alarm, reminder) {
			if reminder, err = p.trigger(t, alarm); err != nil {
				p.remark("A reminder was not read: %s", err)
				continue
			}
		}
		same := slices.ContainsFunc(t.Reminders, func(r day.Reminder) bool { return r.Silent() == reminder.Silent() })
		if !reminder.IsZero() && !same && len(t.Reminders) < book.MaxReminders {
			t.Reminders = append(t.Reminders, reminder)
		}
	}
	for i := range p.lines { // of a note, which may have no alarm
		if reminder, err := day.ParseReminder(unescape(p.lines[i].value)); p.lines[i].name == own+"REMINDER" && err == nil && len(t.Reminders) < book.MaxReminders {
			t.Reminders = append(t.Reminders, reminder)
		}
	}
	return nil
}

// altered reports whether another program has moved an alarm that we wrote: when it comes is not
// what we write for the reminder, now or in earlier versions.
func (p *parsing) altered(t *book.Todo, alarm *component, r day.Reminder) bool {
	l := alarm.first("TRIGGER")
	if l == nil || r.Edge != day.NoEdge || !r.At.IsZero() || t.RemindedOf() != basis(t) {
		return false // an instant, which is another wall time in each zone
	}
	_, wrote := triggerOf(t, r, p.world)
	return l.value != wrote && l.value != r.Silent().String()
}

// either returns the first line of a name, or of one of ours that stands for it where the standard
// does not allow it.
func (p *parsing) either(name string) *line {
	if l := p.first(name); l != nil {
		return l
	}
	return p.first(own + name)
}

// trigger reads when an alarm of another program comes.
func (p *parsing) trigger(t *book.Todo, alarm *component) (day.Reminder, error) {
	if edge, ok := day.ParseEdge(alarm.text("PROXIMITY")); ok {
		for _, part := range alarm.parts {
			if name := exchange.Cut(exchange.OneLine(part.text("NAME")), book.MaxPlace); part.name == "VLOCATION" && name != "" {
				return day.ReminderOn(edge, name), nil
			}
		}
		if t.Place == "" {
			return day.Reminder{}, errors.New("the place at whose edge it comes has no name")
		}
		return day.ReminderOn(edge, t.Place), nil
	}
	l := alarm.first("TRIGGER")
	if l == nil {
		return day.Reminder{}, errors.New("it does not say when it comes")
	}
	if strings.EqualFold(l.params["VALUE"], "DATE-TIME") {
		m, err := p.moment(l)
		return day.ReminderAt(m), err
	}
	before, err := signed(l.value)
	if err != nil {
		return day.Reminder{}, err
	}
	// One that counts from the start, of a to-do that is due as well, is a wall time here.
	if !strings.EqualFold(l.params["RELATED"], "END") && !t.Due.IsZero() && p.first("DTSTART") != nil && p.first("RRULE") == nil {
		from, err := p.moment(p.first("DTSTART"))
		if err != nil || !from.HasTime() {
			from.Time, _ = day.NewTimeOfDay(0, 0)
		}
		c := day.Clock{Zone: p.world.Zone}
		return day.ReminderAt(c.WallOf(c.Instant(from).Add(-time.Duration(before) * time.Minute))), nil
	}
	if base := basis(t); !base.IsZero() && !base.HasTime() { // it counts from midnight (section 3.8.6.3)
		before += hourOf(p.world).Minutes()
		if before < -day.MaxAfter {
			return day.Reminder{}, errors.New("it comes more than a day after what it reminds of")
		}
	} else if before < 0 {
		return day.Reminder{}, errors.New("it comes after what it reminds of")
	}
	if before > day.MaxBefore {
		return day.Reminder{}, fmt.Errorf("it comes more than %d days ahead", day.MaxBefore/24/60)
	}
	return day.ReminderBefore(before), nil
}

// basis is what a reminder before a to-do counts from, as far as iCalendar knows it: its due, else
// its start.
func basis(t *book.Todo) day.Moment {
	if !t.Due.IsZero() {
		return t.Due
	}
	return day.Moment{Date: t.Start}
}

// usualHour is the hour of reminders where the settings name none.
var usualHour, _ = day.NewTimeOfDay(9, 0)

// hourOf is when reminders of a date without time come.
func hourOf(w exchange.World) day.TimeOfDay {
	if w.ReminderHour == (day.TimeOfDay{}) {
		return usualHour
	}
	return w.ReminderHour
}

// signed reads a duration (section 3.3.6) as minutes ahead, less than nothing for one after.
func signed(s string) (int, error) {
	s = strings.TrimSpace(s)
	if strings.HasPrefix(s, "-") {
		return ahead(s)
	}
	minutes, err := ahead("-" + strings.TrimPrefix(s, "+"))
	return -minutes, err
}

// ahead reads a duration before (section 3.3.6): -PT15M, -P1DT2H, PT0S. One after is refused.
func ahead(s string) (int, error) {
	rest, negative := strings.CutPrefix(strings.TrimSpace(s), "-P")
	if !negative {
		rest = strings.TrimPrefix(strings.TrimPrefix(strings.TrimSpace(s), "+"), "P")
	}
	total, n, digits := 0, 0, 0
	for _, r := range rest {
		switch {
		case r >= '0' && r <= '9' && digits < 7:
			n, digits = n*10+int(r-'0'), digits+1
			continue
		case r == 'T' && digits == 0:
			continue
		case digits == 0:
			return 0, fmt.Errorf("“%.40s” is no duration", s)
		}
		seconds, ok := map[rune]int{'W': 7 * 86400, 'D': 86400, 'H': 3600, 'M': 60, 'S': 1}[r]
		if !ok {
			return 0, fmt.Errorf("“%.40s” is no duration", s)
		}
		total += n * seconds
		n, digits = 0, 0
	}
	if digits > 0 || rest == "" {
		return 0, fmt.Errorf("“%.40s” is no duration", s)
	}
	if !negative && total > 0 {
		return 0, errors.New("it comes after what it reminds of")
	}
	return total / 60, nil
}
