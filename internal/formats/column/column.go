// Package column says each part of a to-do as text under a name, for formats of names and values:
// one entry a part, both ways.
//
// Dates are 2026-11-27 or 2026-11-27T16:00, plans 2026-11-27T14:00/PT30M, 2026-W48, 2026-11 or
// parked, minutes a number; tags have spaces between, reminders are one on a line, and a repeat is
// its rule (RFC 5545) with what else makes it in parts of their own. Dates are read as 27/11/2026
// and 27.11.2026 too.
package column

import (
	"fmt"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Column is one part of a to-do as text.
type Column struct {
	// Name is what it is called; Field the field of the to-do that it is of, in the API's words,
	// "" for none.
	Name, Field string
	// Also are other names that are common for it, in small letters.
	Also []string
	// Write says it as text, "" for nothing; nil where the file alone knows.
	Write func(*exchange.Item) string
	// Read takes in what is written, which is not empty.
	Read func(*exchange.Item, string, Form) error
}

// text reads what is kept as text outside.
func text[T any, P interface {
	*T
	UnmarshalText([]byte) error
}](to func(*book.Todo) *T) func(*exchange.Item, string, Form) error {
	return func(i *exchange.Item, s string, _ Form) error { return P(to(&i.Todo)).UnmarshalText([]byte(s)) }
}

// All are all of them, in the order in which they are written.
var All = []Column{
	{"title", "title", []string{"task", "task name", "name", "subject", "summary", "to-do", "todo", "item", "what"}, func(i *exchange.Item) string { return i.Todo.Title },
		func(i *exchange.Item, s string, _ Form) error {
			i.Todo.Title = exchange.OneLine(s)
			return nil
		}},
	{"list", "list", []string{"project", "folder", "list name"}, func(i *exchange.Item) string { return i.List }, func(i *exchange.Item, s string, _ Form) error { i.List = s; return nil }},
	{"section", "list", nil, func(i *exchange.Item) string { return i.Section }, func(i *exchange.Item, s string, _ Form) error { i.Section = s; return nil }},
	{"status", "status", []string{"state", "done", "done?", "completed?", "complete", "finished", "checked"}, func(i *exchange.Item) string { return i.Todo.Status.String() }, readStatus},
	{"completed", "status", []string{"completed at", "completed on", "completion date", "date completed", "completed date", "done on", "finished on"}, func(i *exchange.Item) string { return i.Todo.Completed.String() }, readCompleted},
	{"priority", "priority", []string{"prio", "importance", "urgency"}, func(i *exchange.Item) string { return i.Todo.Priority.String() }, readPriority},
	{"start", "start", []string{"start date", "start on", "starts", "begin", "from"}, func(i *exchange.Item) string { return i.Todo.Start.String() },
		func(i *exchange.Item, s string, f Form) error {
			m, err := readMoment(s, f)
			i.Todo.Start = m.Date
			return err
		}},
	{"due", "due", []string{"due date", "due on", "due by", "deadline", "date", "when", "by", "end date"}, func(i *exchange.Item) string { return i.Todo.Due.String() },
		func(i *exchange.Item, s string, f Form) (err error) { i.Todo.Due, err = readMoment(s, f); return err }},
	{"plan", "plan", []string{"planned"}, func(i *exchange.Item) string { return i.Todo.Plan.String() }, text(func(t *book.Todo) *day.Horizon { return &t.Plan })},
	{"estimate", "estimate", []string{"minutes", "duration", "time needed", "effort", "takes", "length"}, func(i *exchange.Item) string {
		if i.Todo.Estimate == 0 {
			return ""
		}
		return strconv.Itoa(int(i.Todo.Estimate))
	}, func(i *exchange.Item, s string, _ Form) error {
		n, err := readLength(s)
		i.Todo.Estimate = int32(n)
		return err
	}},
	{"concentration", "concentration", nil, func(i *exchange.Item) string { return i.Todo.Concentration.String() }, text(func(t *book.Todo) *term.Concentration { return &t.Concentration })},
	{"tags", "tags", []string{"tag", "labels", "label", "categories", "category", "keywords"}, func(i *exchange.Item) string { return strings.Join(i.Tags, " ") }, func(i *exchange.Item, s string, _ Form) error {
		return readTags(i, s)
	}},
	{"person", "person", []string{"assignee", "who", "assigned to", "owner"}, func(i *exchange.Item) string { return i.Person }, func(i *exchange.Item, s string, _ Form) error {
		if i.Person = s; i.Todo.Person.Role == book.NoRole {
			i.Todo.Person.Role = book.For
		}
		return nil
	}},
	{"role", "person", nil, func(i *exchange.Item) string {
		if i.Person == "" {
			return ""
		}
		return i.Todo.Person.Role.String()
	}, text(func(t *book.Todo) *book.Role { return &t.Person.Role })},
	{"since", "person", nil, func(i *exchange.Item) string {
		if i.Person == "" {
			return ""
		}
		return i.Todo.Person.Since.String()
	}, text(func(t *book.Todo) *day.Date { return &t.Person.Since })},
	{"place", "place", []string{"location", "where"}, func(i *exchange.Item) string { return i.Todo.Place }, func(i *exchange.Item, s string, _ Form) error { i.Todo.Place = s; return nil }},
	{"reminders", "reminders", nil, func(i *exchange.Item) string {
		lines := make([]string, len(i.Todo.Reminders))
		for n, r := range i.Todo.Reminders {
			lines[n] = r.String()
		}
		return strings.Join(lines, "\n")
	}, func(i *exchange.Item, s string, _ Form) error {
		for line := range strings.Lines(s) {
			if line = strings.TrimSpace(line); line == "" {
				continue
			}
			r, err := day.ParseReminder(line)
			if err != nil {
				return err
			}
			i.Todo.Reminders = append(i.Todo.Reminders, r)
		}
		return nil
	}},
	{"repeat", "repeat", []string{"recurrence", "rrule"}, func(i *exchange.Item) string {
		if i.Todo.Repeat == nil {
			return ""
		}
		return i.Todo.Repeat.Rule.String()
	}, func(i *exchange.Item, s string, _ Form) error {
		rule, err := repeat.Parse(strings.TrimPrefix(s, "RRULE:"))
		if err == nil {
			repeatOf(i).Rule = rule
		}
		return err
	}},
	ofRepeat("repeat from", func(r *repeat.Repeat) string { return r.First.String() }, func(r *repeat.Repeat, s string) error { return r.First.UnmarshalText([]byte(s)) }),
	ofRepeat("repeat now", func(r *repeat.Repeat) string { return r.Current.String() }, func(r *repeat.Repeat, s string) error { return r.Current.UnmarshalText([]byte(s)) }),
	ofRepeat("repeat counts from", func(r *repeat.Repeat) string { return r.Anchor.String() }, func(r *repeat.Repeat, s string) error { return r.Anchor.UnmarshalText([]byte(s)) }),
	ofRepeat("repeat days ahead", func(r *repeat.Repeat) string {
		if r.Lead == 0 {
			return ""
		}
		return strconv.Itoa(r.Lead)
	}, func(r *repeat.Repeat, s string) (err error) { r.Lead, err = strconv.Atoi(s); return err }),
	ofRepeat("repeat without", func(r *repeat.Repeat) string {
		days := make([]string, len(r.Without))
		for i, d := range r.Without {
			days[i] = d.String()
		}
		return strings.Join(days, " ")
	}, func(r *repeat.Repeat, s string) error {
		for _, word := range strings.Fields(s) {
			d, err := day.ParseDate(word)
			if err != nil {
				return err
			}
			r.Without = append(r.Without, d)
		}
		return nil
	}),
	{"one after another", "inOrder", nil, func(i *exchange.Item) string { return yes(i.Todo.InOrder) }, func(i *exchange.Item, s string, _ Form) error { i.Todo.InOrder = isYes(s); return nil }},
	{"handful", "handful", nil, func(i *exchange.Item) string { return i.Todo.Handful.String() }, text(func(t *book.Todo) *day.Date { return &t.Handful })},
	{"note", "kind", nil, func(i *exchange.Item) string { return yes(i.Todo.IsNote) }, func(i *exchange.Item, s string, _ Form) error { i.Todo.IsNote = isYes(s); return nil }},
	{"outcome", "outcome", nil, func(i *exchange.Item) string { return i.Todo.Outcome }, func(i *exchange.Item, s string, _ Form) error { i.Todo.Outcome = s; return nil }},
	{"source", "source", []string{"url", "link"}, func(i *exchange.Item) string { return i.Todo.Source.Link }, func(i *exchange.Item, s string, _ Form) error { i.Todo.Source.Link = s; return nil }},
	{"source words", "source", nil, func(i *exchange.Item) string { return i.Todo.Source.Words }, func(i *exchange.Item, s string, _ Form) error { i.Todo.Source.Words = s; return nil }},
	{"notes", "notes", []string{"note text", "description", "comment", "comments", "details", "content", "remarks", "memo", "body"}, func(i *exchange.Item) string { return i.Notes }, func(i *exchange.Item, s string, _ Form) error { i.Notes = s; return nil }},
	{"created", "", []string{"created at", "date added"}, func(i *exchange.Item) string { return i.Todo.Created.String() }, text(func(t *book.Todo) *day.Timestamp { return &t.Created })},
	{"uid", "", []string{"id"}, func(i *exchange.Item) string { return i.UID }, func(i *exchange.Item, s string, _ Form) error { i.UID = s; return nil }},
	{"under", "", []string{"parent", "parent id", "parent task", "subtask of", "part of"}, nil, func(i *exchange.Item, s string, _ Form) error { i.Parent = s; return nil }},
}

// repeatOf is the repeat that an item is getting.
func repeatOf(i *exchange.Item) *repeat.Repeat {
	if i.Todo.Repeat == nil {
		i.Todo.Repeat = &repeat.Repeat{}
	}
	return i.Todo.Repeat
}

func ofRepeat(name string, write func(*repeat.Repeat) string, read func(*repeat.Repeat, string) error) Column {
	return Column{name, "repeat", nil, func(i *exchange.Item) string {
		if i.Todo.Repeat == nil {
			return ""
		}
		return write(i.Todo.Repeat)
	}, func(i *exchange.Item, s string, _ Form) error { return read(repeatOf(i), s) }}
}

// Take takes in a value; one that is empty says nothing. It returns what is wrong with it as a
// sentence, "" for nothing.
func (c *Column) Take(item *exchange.Item, value string, f Form) (wrong string) {
	if c.Name != "notes" {
		value = strings.TrimSpace(value)
	}
	if value == "" {
		return ""
	}
	if err := c.Read(item, value, f); err != nil {
		reason := strings.TrimSuffix(err.Error(), ".")
		if strings.Contains(reason, value) { // it says itself what it is of
			return fmt.Sprintf("%s: %s.", c.Name, reason)
		}
		first, size := utf8.DecodeRuneInString(reason)
		return fmt.Sprintf("%s: “%.60s” is not read. %c%s.", c.Name, value, unicode.ToUpper(first), reason[size:])
	}
	return ""
}

// Settle puts an item right of which all parts are taken in: a repeat without a rule is none, and
// so on.
func Settle(item *exchange.Item) {
	if r := item.Todo.Repeat; r != nil && r.Rule == nil {
		item.Todo.Repeat = nil
	}
	if item.Person == "" {
		item.Todo.Person = book.Involved{}
	}
	if item.Todo.Status.Open() {
		item.Todo.Completed = 0
	}
}
