package view

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/question"
)

// Definition is a view as a person may write it: what it holds, in which groups
// and order, and in which shape it is shown. The zero Definition is everything
// open.
//
// A definition holds only what is open, not paused and no note, unless its
// filter asks about status, completed, paused or kind. What is in the bin or in
// a list put away is in none.
type Definition struct {
	Filter filter.Filter `json:"filter"`
	Group  Grouping      `json:"group,omitempty"`
	Order  []Key         `json:"order,omitempty"`
	Shape  Shape         `json:"shape,omitempty"`
	// UrgentDays is how near a due or a plan is urgent in a two-by-two, in days
	// from today; 0 stands for three.
	UrgentDays int `json:"urgentDays,omitempty"`
}

// Shape is how a view is laid out.
type Shape string

// The shapes. A two-by-two has groups of its own.
const (
	InRows    Shape = ""
	InColumns Shape = "columns"
	TwoByTwo  Shape = "two-by-two"
)

// Bounds of a definition.
const (
	MaxUrgentDays = 60
	maxKeys       = 4
	// MaxDefinition is how long its JSON is at most, in bytes.
	MaxDefinition = 64 << 10
)

// FieldError says which part of a definition is wrong.
type FieldError struct{ Field, Reason string }

func (e *FieldError) Error() string { return e.Reason }

// ParseDefinition reads the JSON form. Errors are *FieldError or, with the path
// to the fault, *question.ParseError.
func ParseDefinition(text []byte) (Definition, error) {
	var d Definition
	if len(text) > MaxDefinition {
		return d, &FieldError{"filter", fmt.Sprintf("The view has %d bytes of text; %d is the most.", len(text), MaxDefinition)}
	}
	var raw struct {
		Filter     json.RawMessage `json:"filter"`
		Group      Grouping        `json:"group"`
		Order      []string        `json:"order"`
		Shape      Shape           `json:"shape"`
		UrgentDays int             `json:"urgentDays"`
	}
	if err := json.Unmarshal(text, &raw); err != nil {
		return d, &FieldError{"filter", "This is not a view: " + strings.TrimPrefix(err.Error(), "json: ") + "."}
	}
	if len(raw.Filter) > 0 {
		var err error
		if d.Filter, err = filter.Parse(raw.Filter); err != nil {
			return d, err
		}
	}
	var err error
	if d.Order, err = ParseKeys(raw.Order); err != nil {
		return d, err
	}
	d.Group, d.Shape, d.UrgentDays = raw.Group, raw.Shape, raw.UrgentDays
	switch {
	case !d.Group.known():
		return d, &FieldError{"group", fmt.Sprintf("“%.40s” is not something to group by. One of %s is wanted.", d.Group, listed(groupings))}
	case !slices.Contains([]Shape{InRows, InColumns, TwoByTwo}, d.Shape):
		return d, &FieldError{"shape", fmt.Sprintf("“%.40s” is not a shape: columns or two-by-two is wanted, or none for rows.", d.Shape)}
	case d.UrgentDays < 0 || d.UrgentDays > MaxUrgentDays:
		return d, &FieldError{"urgentDays", fmt.Sprintf("Urgent within %d days: 0 to %d is wanted.", d.UrgentDays, MaxUrgentDays)}
	}
	return d, nil
}

func listed[T ~string](words []T) string {
	out := make([]string, len(words))
	for i, w := range words {
		out[i] = string(w)
	}
	return strings.Join(out, ", ")
}

// wide reports whether the filter itself says which of all to-dos it holds.
func (d Definition) wide() bool {
	return d.Filter.Asks(question.Status, question.Completed, question.Paused, question.Kind)
}

// among returns the to-dos that the definition looks at. The slice may be the
// Book's own.
func (d Definition) among(b *book.Desk) []*book.Todo {
	if !d.wide() {
		return b.Open()
	}
	var parts [][]*book.Todo
	for _, part := range []struct {
		todos []*book.Todo
		sort  filter.Sort
	}{
		{b.Open(), filter.Sort{Open: true}}, {b.Paused(), filter.Sort{Open: true, Paused: true}},
		{b.Closed(), filter.Sort{}}, {b.Notes(), filter.Sort{Open: true, Note: true}},
	} {
		if len(part.todos) > 0 && d.Filter.MayHold(part.sort) {
			parts = append(parts, part.todos)
		}
	}
	if len(parts) == 1 {
		return parts[0]
	}
	return slices.Concat(parts...)
}

// Holds returns the to-dos that the definition holds, in no order. The error is
// that of reading notes.
func (d Definition) Holds(b *book.Desk, c day.Clock) ([]*book.Todo, error) {
	m := at(c).matcher(d.Filter, b)
	var held []*book.Todo
	for _, t := range d.among(b) {
		is, err := m.Match(t)
		if err != nil {
			return nil, err
		}
		if is {
			held = append(held, t)
		}
	}
	return held, nil
}

// Sentence says in words what the definition holds, in which groups and order.
func (d Definition) Sentence(b *book.Desk) string {
	s := d.Filter.Sentence(b)
	if !d.wide() {
		s = d.Filter.SentenceAmong(b, "open")
	}
	var how []string
	if d.Group != "" && d.Shape != TwoByTwo {
		how = append(how, "grouped by "+d.Group.words())
	}
	if len(d.Order) > 0 {
		how = append(how, "ordered by "+keyWords(d.Order))
	}
	if len(how) > 0 {
		how[0] = strings.ToUpper(how[0][:1]) + how[0][1:]
		s += " " + strings.Join(how, ", ") + "."
	}
	return s
}

// ShapeOf returns the shape of a definition that was kept, without reading the rest of
// it; "" where there is none.
func ShapeOf(data []byte) Shape {
	if !bytes.Contains(data, []byte(`"shape"`)) { // as in most, of which the overview asks each
		return ""
	}
	var d struct {
		Shape Shape `json:"shape"`
	}
	if json.Unmarshal(data, &d) != nil {
		return ""
	}
	return d.Shape
}
