// Package csvfile writes to-dos as comma-separated values (RFC 4180) and reads them: a row each, the
// first row naming the columns.
//
// Every field has a column, in the words of Columns: dates as 2026-11-27 or 2026-11-27T16:00, plans as
// 2026-11-27T14:00/PT30M, 2026-W48, 2026-11 or parked, minutes as a number, tags with spaces between,
// reminders one on a line, a repeat by its rule (RFC 5545) with what else makes it in columns of its
// own. A subtask names the uid of what it is under.
//
// A value that a spreadsheet would take for a formula (one that begins with = + - @ or a tab) is
// written behind an apostrophe, and so is one that begins with an apostrophe before such a
// character; reading takes it away again.
//
// What is not kept: files, the bin, what was ticked of a repeat before, its pause.
//
// Reading is lenient: columns in any order, by their names in any case and by other names that are
// common; commas, semicolons or tabs between values; UTF-8 or, where it says so at its beginning,
// UTF-16; dates also as 27/11/2026 or 27.11.2026. A column that is not there leaves its field as
// it is; one that is not known is passed over.
package csvfile

import (
	"bytes"
	"encoding/binary"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf16"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Format is the codec.
type Format struct{}

var _ exchange.Codec = Format{}

// column is one of the file: which field it is of, what is written into it, and how it is read.
type column struct {
	name  string
	field string
	// also are other names for it, in small letters.
	also  []string
	write func(*exchange.Item) string
	// read takes in what is written, which is not empty.
	read func(*exchange.Item, string) error
}

// text reads what is kept as text outside.
func text[T any, P interface {
	*T
	UnmarshalText([]byte) error
}](to func(*book.Todo) *T) func(*exchange.Item, string) error {
	return func(i *exchange.Item, s string) error { return P(to(&i.Todo)).UnmarshalText([]byte(s)) }
}

// columns are all of them, in the order in which they are written.
var columns = []column{
	{"title", "title", []string{"task", "name", "subject", "summary", "to-do", "todo"}, func(i *exchange.Item) string { return i.Todo.Title },
		func(i *exchange.Item, s string) error {
			i.Todo.Title = strings.Join(strings.Fields(s), " ")
			return nil
		}},
	{"list", "list", []string{"project", "folder"}, func(i *exchange.Item) string { return i.List }, func(i *exchange.Item, s string) error { i.List = s; return nil }},
	{"section", "list", nil, func(i *exchange.Item) string { return i.Section }, func(i *exchange.Item, s string) error { i.Section = s; return nil }},
	{"status", "status", []string{"state", "done", "completed?"}, func(i *exchange.Item) string { return i.Todo.Status.String() }, readStatus},
	{"completed", "status", []string{"completed at", "completion date", "date completed"}, func(i *exchange.Item) string { return i.Todo.Completed.String() }, readCompleted},
	{"priority", "priority", nil, func(i *exchange.Item) string { return i.Todo.Priority.String() }, text(func(t *book.Todo) *book.Priority { return &t.Priority })},
	{"start", "start", []string{"start date"}, func(i *exchange.Item) string { return i.Todo.Start.String() },
		func(i *exchange.Item, s string) error {
			m, err := readMoment(s)
			i.Todo.Start = m.Date
			return err
		}},
	{"due", "due", []string{"due date", "deadline", "date"}, func(i *exchange.Item) string { return i.Todo.Due.String() },
		func(i *exchange.Item, s string) (err error) { i.Todo.Due, err = readMoment(s); return err }},
	{"plan", "plan", []string{"planned"}, func(i *exchange.Item) string { return i.Todo.Plan.String() }, text(func(t *book.Todo) *day.Horizon { return &t.Plan })},
	{"estimate", "estimate", []string{"minutes", "duration"}, func(i *exchange.Item) string {
		if i.Todo.Estimate == 0 {
			return ""
		}
		return strconv.Itoa(int(i.Todo.Estimate))
	}, func(i *exchange.Item, s string) error {
		n, err := strconv.Atoi(s)
		if err != nil || n < 0 || n > term.MaxEstimate {
			return fmt.Errorf("minutes from 0 to %d are wanted", term.MaxEstimate)
		}
		i.Todo.Estimate = int32(n)
		return nil
	}},
	{"concentration", "concentration", nil, func(i *exchange.Item) string { return i.Todo.Concentration.String() }, text(func(t *book.Todo) *term.Concentration { return &t.Concentration })},
	{"tags", "tags", []string{"labels", "categories"}, func(i *exchange.Item) string { return strings.Join(i.Tags, " ") }, func(i *exchange.Item, s string) error {
		for _, tag := range strings.FieldsFunc(s, func(r rune) bool { return strings.ContainsRune(" ,;\n\t", r) }) {
			if tag = strings.TrimPrefix(tag, "#"); !slices.Contains(i.Tags, tag) {
				i.Tags = append(i.Tags, tag)
			}
		}
		return nil
	}},
	{"person", "person", []string{"assignee", "who"}, func(i *exchange.Item) string { return i.Person }, func(i *exchange.Item, s string) error {
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
	{"place", "place", []string{"location", "where"}, func(i *exchange.Item) string { return i.Todo.Place }, func(i *exchange.Item, s string) error { i.Todo.Place = s; return nil }},
	{"reminders", "reminders", nil, func(i *exchange.Item) string {
		lines := make([]string, len(i.Todo.Reminders))
		for n, r := range i.Todo.Reminders {
			lines[n] = r.String()
		}
		return strings.Join(lines, "\n")
	}, func(i *exchange.Item, s string) error {
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
	}, func(i *exchange.Item, s string) error {
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
	{"one after another", "inOrder", nil, func(i *exchange.Item) string { return yes(i.Todo.InOrder) }, func(i *exchange.Item, s string) error { i.Todo.InOrder = isYes(s); return nil }},
	{"handful", "handful", nil, func(i *exchange.Item) string { return i.Todo.Handful.String() }, text(func(t *book.Todo) *day.Date { return &t.Handful })},
	{"note", "kind", nil, func(i *exchange.Item) string { return yes(i.Todo.IsNote) }, func(i *exchange.Item, s string) error { i.Todo.IsNote = isYes(s); return nil }},
	{"outcome", "outcome", nil, func(i *exchange.Item) string { return i.Todo.Outcome }, func(i *exchange.Item, s string) error { i.Todo.Outcome = s; return nil }},
	{"source", "source", []string{"url", "link"}, func(i *exchange.Item) string { return i.Todo.Source.Link }, func(i *exchange.Item, s string) error { i.Todo.Source.Link = s; return nil }},
	{"source words", "source", nil, func(i *exchange.Item) string { return i.Todo.Source.Words }, func(i *exchange.Item, s string) error { i.Todo.Source.Words = s; return nil }},
	{"notes", "notes", []string{"note text", "description", "comment", "details", "content"}, func(i *exchange.Item) string { return i.Notes }, func(i *exchange.Item, s string) error { i.Notes = s; return nil }},
	{"created", "", []string{"created at", "date added"}, func(i *exchange.Item) string { return i.Todo.Created.String() }, text(func(t *book.Todo) *day.Timestamp { return &t.Created })},
	{"uid", "", []string{"id"}, func(i *exchange.Item) string { return i.UID }, func(i *exchange.Item, s string) error { i.UID = s; return nil }},
	{"under", "", []string{"parent", "parent id"}, nil, func(i *exchange.Item, s string) error { i.Parent = s; return nil }},
}

// Columns names the columns in the order in which they are written.
func Columns() []string {
	names := make([]string, len(columns))
	for i, c := range columns {
		names[i] = c.name
	}
	return names
}

// repeatOf is the repeat that an item is getting.
func repeatOf(i *exchange.Item) *repeat.Repeat {
	if i.Todo.Repeat == nil {
		i.Todo.Repeat = &repeat.Repeat{}
	}
	return i.Todo.Repeat
}

func ofRepeat(name string, write func(*repeat.Repeat) string, read func(*repeat.Repeat, string) error) column {
	return column{name, "repeat", nil, func(i *exchange.Item) string {
		if i.Todo.Repeat == nil {
			return ""
		}
		return write(i.Todo.Repeat)
	}, func(i *exchange.Item, s string) error { return read(repeatOf(i), s) }}
}

func yes(is bool) string {
	if is {
		return "yes"
	}
	return ""
}

func isYes(s string) bool {
	return slices.Contains([]string{"yes", "true", "1", "x", "done", "y"}, strings.ToLower(s))
}

func readStatus(i *exchange.Item, s string) error {
	switch word := strings.ToLower(s); {
	case isYes(word), word == "complete":
		i.Todo.Status = book.Completed
		return nil
	case slices.Contains([]string{"no", "false", "0", "open", "todo", "to do", "not started", "pending"}, word):
		return nil
	case word == "in progress", word == "started":
		i.Todo.Status = book.InProcess
		return nil
	case word == "canceled":
		i.Todo.Status = book.Cancelled
		return nil
	}
	return i.Todo.Status.UnmarshalText([]byte(strings.ToLower(s)))
}

func readCompleted(i *exchange.Item, s string) error {
	if err := i.Todo.Completed.UnmarshalText([]byte(s)); err != nil {
		m, wrong := readMoment(s)
		if wrong != nil {
			return err
		}
		i.Todo.Completed = day.TimestampOf(day.Clock{Zone: time.UTC}.Instant(m))
	}
	if i.Todo.Status.Open() {
		i.Todo.Status = book.Completed
	}
	return nil
}

// readMoment reads a date, with time or without, as the standard and as people write one, the day
// before the month.
func readMoment(s string) (day.Moment, error) {
	m, err := day.ParseMoment(strings.Replace(s, " ", "T", 1))
	if err == nil {
		return m, nil
	}
	for _, form := range []string{"2006-01-02T15:04:05", "2006-01-02 15:04:05", "2/1/2006", "2.1.2006", "2/1/2006 15:04", "2.1.2006 15:04"} {
		if at, wrong := time.Parse(form, s); wrong == nil {
			if strings.Contains(form, "15") {
				return day.ParseMoment(at.Format("2006-01-02T15:04"))
			}
			return day.ParseMoment(at.Format("2006-01-02"))
		}
	}
	return m, err
}

// Write implements exchange.Codec.
func (Format) Write(items []exchange.Item, _ exchange.World) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	w.UseCRLF = true // RFC 4180 section 2.1
	if err := w.Write(Columns()); err != nil {
		return nil, err
	}
	row := make([]string, len(columns))
	for i := range items {
		for n, c := range columns {
			switch {
			case c.write != nil:
				row[n] = safe(c.write(&items[i]))
			case items[i].Under >= 0:
				row[n] = safe(items[items[i].Under].UID)
			default:
				row[n] = ""
			}
		}
		if err := w.Write(row); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return out.Bytes(), w.Error()
}

// formula reports whether a spreadsheet might take a value for a formula.
func formula(s string) bool { return s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) }

// safe is a value as it is written.
func safe(s string) string {
	if formula(s) || s != "" && s[0] == '\'' && (formula(s[1:]) || strings.HasPrefix(s[1:], "'")) {
		return "'" + s
	}
	return s
}

// unsafe is a value as it was before safe.
func unsafe(s string) string {
	if s != "" && s[0] == '\'' && (formula(s[1:]) || strings.HasPrefix(s[1:], "'")) {
		return s[1:]
	}
	return s
}

// Read implements exchange.Codec.
func (Format) Read(file []byte, _ exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
	clean, err := decoded(file)
	if err != nil {
		return nil, nil, err
	}
	r := csv.NewReader(bytes.NewReader(clean))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes = separator(clean), -1, false
	head, err := r.Read()
	if errors.Is(err, io.EOF) {
		return nil, nil, &exchange.Error{Line: 1, Reason: "The file is empty. Its first row names the columns."}
	}
	if err != nil {
		return nil, nil, problem(err)
	}
	found, carries, err := heads(head)
	if err != nil {
		return nil, nil, err
	}
	var items []exchange.Item
	var refused []exchange.Refusal
	at := map[string]int{}
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			return items, refused, nil
		}
		if err != nil {
			return nil, nil, problem(err)
		}
		line, _ := r.FieldPos(0)
		if strings.TrimSpace(strings.Join(row, "")) == "" {
			continue
		}
		item := exchange.Item{Incoming: book.Incoming{Under: -1, Carries: carries}, Line: line, Column: 1}
		if wrong := readRow(&item, row, found); wrong != nil {
			_, wrong.Column = r.FieldPos(min(wrong.Column, len(row)-1))
			wrong.Line = line
			refused = append(refused, exchange.Refusal{Error: *wrong, Title: item.Todo.Title})
			continue
		}
		if up, there := at[item.Parent]; there && item.Parent != "" {
			item.Under, item.Parent = up, ""
		}
		if item.UID != "" {
			if _, twice := at[item.UID]; !twice {
				at[item.UID] = len(items)
			}
		}
		items = append(items, item)
	}
}

// readRow reads a row; what is wrong says in Column which value, from 0.
func readRow(item *exchange.Item, row []string, found []*column) *exchange.Error {
	for n, c := range found {
		if c == nil || n >= len(row) {
			continue
		}
		value := unsafe(row[n])
		if c.name != "notes" {
			value = strings.TrimSpace(value)
		}
		if value == "" {
			continue
		}
		if err := c.read(item, value); err != nil {
			return &exchange.Error{Column: n, Reason: fmt.Sprintf("%s: “%.60s” is not read. %s.", c.name, value, strings.TrimSuffix(upper(err.Error()), "."))}
		}
	}
	if r := item.Todo.Repeat; r != nil && r.Rule == nil {
		item.Todo.Repeat = nil
	}
	if item.Person == "" {
		item.Todo.Person = book.Involved{}
	}
	if item.Todo.Status.Open() {
		item.Todo.Completed = 0
	}
	return nil
}

func upper(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	return strings.ToUpper(string(r)) + s[size:]
}

// heads finds the columns of a first row, and the fields they tell of.
func heads(row []string) ([]*column, book.Fields, error) {
	found := make([]*column, len(row))
	var fields []string
	titled := false
	for n, head := range row {
		head = strings.ToLower(strings.TrimSpace(head))
		for i := range columns {
			c := &columns[i]
			if (c.name == head || slices.Contains(c.also, head)) && !slices.Contains(found, c) {
				found[n] = c
				fields = append(fields, c.field)
				titled = titled || c.name == "title"
				break
			}
		}
	}
	if !titled {
		return nil, 0, &exchange.Error{Line: 1, Column: 1, Reason: fmt.Sprintf("The first row names no column for the title. It has %.200s; “title” is wanted among them.", strings.Join(row, ", "))}
	}
	return found, book.FieldsOf(fields...), nil
}

// separator is what stands between values: what the first line has most of.
func separator(text []byte) rune {
	line, _, _ := bytes.Cut(text, []byte("\n"))
	best, most := ',', bytes.Count(line, []byte(","))
	for _, r := range []rune{';', '\t'} {
		if n := bytes.Count(line, []byte(string(r))); n > most {
			best, most = r, n
		}
	}
	return best
}

// problem is what encoding/csv says is wrong, in our words.
func problem(err error) error {
	var wrong *csv.ParseError
	if !errors.As(err, &wrong) {
		return err
	}
	reason := "The row cannot be read."
	switch {
	case errors.Is(err, csv.ErrQuote):
		reason = "A quotation mark in a quoted value is not doubled, or the value is not closed (RFC 4180 section 2.7)."
	case errors.Is(err, csv.ErrBareQuote):
		reason = "A quotation mark stands in a value that is not quoted as a whole (RFC 4180 section 2.5)."
	}
	return &exchange.Error{Line: wrong.Line, Column: wrong.Column, Reason: reason}
}

// decoded is the text as UTF-8.
func decoded(text []byte) ([]byte, error) {
	var order binary.ByteOrder
	switch {
	case bytes.HasPrefix(text, []byte("\xef\xbb\xbf")):
		text = text[3:]
	case bytes.HasPrefix(text, []byte("\xff\xfe")):
		order = binary.LittleEndian
	case bytes.HasPrefix(text, []byte("\xfe\xff")):
		order = binary.BigEndian
	}
	if order != nil {
		units := make([]uint16, 0, len(text)/2)
		for i := 2; i+1 < len(text); i += 2 {
			units = append(units, order.Uint16(text[i:]))
		}
		return []byte(string(utf16.Decode(units))), nil
	}
	if !utf8.Valid(text) {
		number := 1 + bytes.Count(text[:invalid(text)], []byte("\n"))
		return nil, &exchange.Error{Line: number, Reason: "The file is not UTF-8 text. Save it as UTF-8, or as UTF-16 with its mark at the beginning."}
	}
	return text, nil
}

// invalid is where a text stops to be UTF-8.
func invalid(text []byte) int {
	for i := 0; i < len(text); {
		r, size := utf8.DecodeRune(text[i:])
		if r == utf8.RuneError && size == 1 {
			return i
		}
		i += size
	}
	return len(text)
}
