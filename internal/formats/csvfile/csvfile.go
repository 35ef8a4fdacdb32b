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
// common; commas, semicolons, tabs or bars between values, also as a first line such as sep=; says;
// UTF-8, UTF-16 or Windows-1252; dates, lengths, priorities and what is done in the forms and words
// of package column. Where the day stands in 03/04/2026 is told by the file, if a day above 12 shows
// it, or else by World.Columns or the account's setting; so is what bare numbers of a priority mean.
// A column that is not there leaves its field as it is; one that is not known is passed over. A value
// that cannot be read, or for which there is no column, goes to the notes.
package csvfile

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
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
	t, err := readTable(file)
	if err != nil {
		return nil, nil, err
	}
	found := heads(t.head, world)
	carries, err := carried(t.head, found)
	if err != nil {
		return nil, nil, err
	}
	forms := formsOf(t, found, world)
	items := make([]exchange.Item, len(t.records))
	for i, r := range t.records {
		items[i] = exchange.Item{Incoming: book.Incoming{Under: -1, Carries: carries}, Line: r.line, Column: 1, Raw: t.raw(r.values)}
		readRow(&items[i], t, r, forms)
	}
	return exchange.Arranged(items, under(items)), nil, nil
}

// readRow reads a row. A value that cannot be read, and one for which there is no column, is left
// for the notes.
func readRow(item *exchange.Item, t *table, r record, forms *forms) {
	for n, value := range r.values {
		switch {
		case n >= len(t.head):
			if strings.TrimSpace(value) != "" {
				item.Leave("", value, fmt.Sprintf("“%.60s” stands behind the last column. It goes to the notes.", value))
			}
		case forms.found[n] != nil:
			value = column.Unsafe(value)
			if wrong := forms.found[n].Take(item, value, forms.form(n)); wrong != "" {
				item.Leave(t.head[n], value, wrong+" It goes to the notes.")
				item.Carries &^= book.FieldsOf(forms.found[n].Field) // what is there already stays
			}
		}
	}
	if title := []rune(item.Todo.Title); len(title) > book.MaxTitle {
		item.Leave("title", item.Todo.Title, fmt.Sprintf("The title has %d characters; the first %d are the title, and all of it goes to the notes.", len(title), book.MaxTitle))
		item.Todo.Title = strings.TrimSpace(string(title[:book.MaxTitle]))
	}
	if due := item.Todo.Due; !due.IsZero() && item.Todo.Start.After(due.Date) {
		item.Leave("start", item.Todo.Start.String(), fmt.Sprintf("The start, %s, is after the due. It goes to the notes.", item.Todo.Start))
		item.Todo.Start = day.Date{}
	}
	column.Settle(item)
}

// under finds the row of which each is a subtask, by the UID that it names, or else by the title
// where only one row has it; -1 for none.
func under(items []exchange.Item) []int {
	uids, titles := map[string]int{}, map[string]int{}
	for i, item := range items {
		if _, twice := uids[item.UID]; !twice {
			uids[item.UID] = i
		}
		name := strings.ToLower(item.Todo.Title)
		if _, twice := titles[name]; twice {
			titles[name] = -1
		} else {
			titles[name] = i
		}
	}
	above := make([]int, len(items))
	for i := range items {
		item := &items[i]
		above[i] = -1
		up, there := uids[item.Parent]
		if !there {
			up, there = titles[strings.ToLower(item.Parent)]
		}
		if item.Parent != "" && there && up >= 0 && up != i {
			above[i], item.Parent = up, ""
		}
	}
	return above
}
