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
func (Format) Read(file []byte, _ exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
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

// heads finds the columns of a first row, and the fields they tell of.
func heads(row []string) ([]*column.Column, book.Fields, error) {
	found := make([]*column.Column, len(row))
	var fields []string
	titled := false
	for n, head := range row {
		head = strings.ToLower(strings.TrimSpace(head))
		for i := range column.All {
			c := &column.All[i]
			if (c.Name == head || slices.Contains(c.Also, head)) && !slices.Contains(found, c) {
				found[n] = c
				fields = append(fields, c.Field)
				titled = titled || c.Name == "title"
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
