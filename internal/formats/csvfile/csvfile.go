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
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
	"tincup/internal/formats/plaintext"
)

// Format is the codec.
type Format struct{}

var _ exchange.Codec = Format{}

// Columns names the columns in the order in which they are written.
func Columns() []string {
	names := make([]string, len(column.All))
	for i := range column.All {
		names[i] = column.All[i].Name
	}
	return names
}

// Write implements exchange.Codec.
func (Format) Write(items []exchange.Item, _ exchange.World) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	w.UseCRLF = true // RFC 4180 section 2.1
	if err := w.Write(Columns()); err != nil {
		return nil, err
	}
	row := make([]string, len(column.All))
	for i := range items {
		for n, c := range column.All {
			switch {
			case c.Write != nil:
				row[n] = column.Safe(c.Write(&items[i]))
			case items[i].Under >= 0:
				row[n] = column.Safe(items[items[i].Under].UID)
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

// Read implements exchange.Codec.
func (Format) Read(file []byte, world exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
	r, head, err := begin(file)
	if err != nil {
		return nil, nil, err
	}
	found := heads(head, world)
	carries, err := carried(head, found)
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
func readRow(item *exchange.Item, row []string, found []*column.Column) *exchange.Error {
	for n, c := range found {
		if c == nil || n >= len(row) {
			continue
		}
		if wrong := c.Take(item, column.Unsafe(row[n])); wrong != "" {
			return &exchange.Error{Column: n, Reason: wrong}
		}
	}
	column.Settle(item)
	return nil
}

// begin reads the first row of a file, which names the columns.
func begin(file []byte) (*csv.Reader, []string, error) {
	clean, err := plaintext.Decode(file)
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
	return r, head, nil
}

// Head is a column of a file.
type Head struct {
	// Name is what the file calls it; Is the column of ours that it is read as, "" for none.
	Name, Is string
	// Sample is the first value in it, cut to a few words.
	Sample string
}

// sampleRows is in how many rows a sample is looked for.
const sampleRows = 20

// Heads says as what each column of a file is read. The error is an *exchange.Error.
func Heads(file []byte, world exchange.World) ([]Head, error) {
	r, head, err := begin(file)
	if err != nil {
		return nil, err
	}
	all := make([]Head, len(head))
	for n, c := range heads(head, world) {
		if all[n].Name = head[n]; c != nil {
			all[n].Is = c.Name
		}
	}
	for range sampleRows {
		row, err := r.Read()
		if err != nil {
			break // the end, or what Read will say
		}
		for n := range min(len(row), len(all)) {
			if words := []rune(exchange.OneLine(row[n])); all[n].Sample == "" {
				all[n].Sample = string(words[:min(len(words), 40)])
			}
		}
	}
	return all, nil
}

// heads finds the columns of a first row: by hand where that was said, or else by their names.
func heads(row []string, world exchange.World) []*column.Column {
	found := make([]*column.Column, len(row))
	take := func(n int, is func(*column.Column) bool) {
		for i := range column.All {
			if c := &column.All[i]; is(c) && !slices.Contains(found, c) {
				found[n] = c
				return
			}
		}
	}
	byHand := make([]bool, len(row))
	for n, head := range row {
		var name string
		if name, byHand[n] = world.Columns[key(head)]; byHand[n] {
			take(n, func(c *column.Column) bool { return c.Name == name })
		}
	}
	for n, head := range row {
		if !byHand[n] {
			take(n, func(c *column.Column) bool { return c.Name == key(head) || slices.Contains(c.Also, key(head)) })
		}
	}
	return found
}

// key is a head as columns are known by it.
func key(head string) string { return strings.ToLower(strings.TrimSpace(head)) }

// carried are the fields that columns tell of; one of them must be the title.
func carried(row []string, found []*column.Column) (book.Fields, error) {
	var fields []string
	titled := false
	for _, c := range found {
		if c != nil {
			fields = append(fields, c.Field)
			titled = titled || c.Name == "title"
		}
	}
	if !titled {
		return 0, &exchange.Error{Line: 1, Column: 1, Reason: fmt.Sprintf("The first row names no column for the title. It has %.200s; “title” is wanted among them.", strings.Join(row, ", "))}
	}
	return book.FieldsOf(fields...), nil
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
