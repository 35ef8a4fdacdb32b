package csvfile

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
)

// Head is a column of a file.
type Head struct {
	// Name is what the file calls it; Is the column of ours that it is read as, "" for none.
	Name, Is string
	// Sample is the first value in it, cut to a few words.
	Sample string
	// Form is how values of it are read that can be read in several ways, one of Forms; both are
	// empty where there is one way, or where the file shows which it is.
	Form  string
	Forms []FormOf
}

// FormOf is a way in which the values of a column can be read.
type FormOf struct {
	// Name is what World.Columns calls it, behind the column and a colon: "due:month-first".
	Name string
	// Says is the way in words, with the first values as they are read so.
	Says string
}

// samples is of how many values of a column it is shown how they are read.
const samples = 3

// Heads says as what each column of a file is read; raw is the first row as it could stand in
// another file. The error is an *exchange.Error.
func Heads(file []byte, world exchange.World) (all []Head, raw string, err error) {
	t, err := readTable(file)
	if err != nil {
		return nil, "", err
	}
	all = make([]Head, len(t.head))
	found := heads(t.head, world)
	forms := formsOf(t, found, world)
	for n, c := range found {
		h := &all[n]
		if h.Name = t.head[n]; c != nil {
			h.Is = c.Name
			h.Form, h.Forms = forms.choices(t, n)
		}
		for _, r := range t.records {
			if n < len(r.values) && strings.TrimSpace(r.values[n]) != "" {
				words := []rune(exchange.OneLine(r.values[n]))
				h.Sample = string(words[:min(len(words), 40)])
				break
			}
		}
	}
	return all, t.raw(t.head), nil
}

// Is reports whether a text is a table with a column for the title: its first row has one by its
// name, and another column beside it.
func Is(text []byte) bool {
	line, _, _ := bytes.Cut(text, []byte("\n"))
	if bytes.HasPrefix(bytes.ToLower(line), []byte("sep=")) {
		return true
	}
	t, err := readTable(line)
	return err == nil && len(t.head) > 1 && titled(heads(t.head, exchange.World{}))
}

// heads finds the columns of a first row: by hand where that was said, or else by their names.
// Where none is the title by its name, what describes a to-do is.
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
			name, _, _ = strings.Cut(name, ":")
			take(n, func(c *column.Column) bool { return c.Name == name })
		}
	}
	for n, head := range row {
		if !byHand[n] {
			take(n, func(c *column.Column) bool { return c.Name == key(head) || slices.Contains(c.Also, key(head)) })
		}
	}
	if !titled(found) {
		for n, head := range row {
			if !byHand[n] && slices.Contains([]string{"description", "details", "content", "body"}, key(head)) {
				found[n] = nil
				take(n, func(c *column.Column) bool { return c.Name == "title" })
				break
			}
		}
	}
	return found
}

func titled(found []*column.Column) bool {
	return slices.ContainsFunc(found, func(c *column.Column) bool { return c != nil && c.Name == "title" })
}

// key is a head as columns are known by it: in small letters, with single spaces in the place of
// what parts its words.
func key(head string) string {
	return strings.Join(strings.FieldsFunc(strings.ToLower(head), func(r rune) bool { return r == '_' || r == ' ' || r == '\t' || r == '\u00a0' }), " ")
}

// carried are the fields that columns tell of; one of them must be the title.
func carried(row []string, found []*column.Column) (book.Fields, error) {
	var fields []string
	for _, c := range found {
		if c != nil {
			fields = append(fields, c.Field)
		}
	}
	if !titled(found) {
		return 0, &exchange.Error{Line: 1, Column: 1, Reason: fmt.Sprintf("The first row names no column for the title. It has %.200s; “title” is wanted among them.", strings.Join(row, ", "))}
	}
	return book.FieldsOf(fields...), nil
}
