package question

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// ParseError says what is wrong in a filter's JSON, and where.
type ParseError struct {
	Path   string // a JSON pointer (RFC 6901), "" for the whole
	Reason string
}

func (e *ParseError) Error() string {
	if e.Path == "" {
		return e.Reason
	}
	return fmt.Sprintf("%s: %s", e.Path, e.Reason)
}

func wrong(path, format string, args ...any) error {
	return &ParseError{path, fmt.Sprintf(format, args...)}
}

// written is a node as JSON has it.
type written struct {
	All     *[]json.RawMessage `json:"all,omitempty"`
	Any     *[]json.RawMessage `json:"any,omitempty"`
	Not     *json.RawMessage   `json:"not,omitempty"`
	Field   Field              `json:"field,omitempty"`
	Op      Op                 `json:"op,omitempty"`
	Text    *string            `json:"text,omitempty"`
	Values  *[]string          `json:"values,omitempty"`
	Date    *string            `json:"date,omitempty"`
	To      *string            `json:"to,omitempty"`
	Days    *int               `json:"days,omitempty"`
	From    *string            `json:"from,omitempty"`
	Until   *string            `json:"until,omitempty"`
	Minutes *int               `json:"minutes,omitempty"`
}

// Parse reads the JSON form. Errors are *ParseError.
func Parse(data []byte) (Tree, error) {
	tests := 0
	root, err := parse(data, "", 0, &tests)
	return Tree{root}, err
}

// MarshalJSON implements json.Marshaler.
func (t Tree) MarshalJSON() ([]byte, error) {
	if t.root == nil {
		return []byte(`{"all":[]}`), nil
	}
	return json.Marshal(t.root.written())
}

// UnmarshalJSON implements json.Unmarshaler.
func (t *Tree) UnmarshalJSON(data []byte) (err error) {
	*t, err = Parse(data)
	return err
}

func parse(data []byte, path string, depth int, tests *int) (*Node, error) {
	if depth > MaxDepth {
		return nil, wrong(path, "Groups are nested more than %d deep. Take one out.", MaxDepth)
	}
	var w written
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&w); err != nil {
		return nil, wrong(path, "This is not a node of a filter: %s.", strings.TrimPrefix(err.Error(), "json: "))
	}
	n := &Node{Path: path}
	groups := 0
	for _, g := range []struct {
		kind  NodeKind
		name  string
		nodes *[]json.RawMessage
	}{{IsAll, "all", w.All}, {IsAny, "any", w.Any}} {
		if g.nodes == nil {
			continue
		}
		groups++
		n.Kind = g.kind
		for i, raw := range *g.nodes {
			sub, err := parse(raw, fmt.Sprintf("%s/%s/%d", path, g.name, i), depth+1, tests)
			if err != nil {
				return nil, err
			}
			n.Nodes = append(n.Nodes, sub)
		}
	}
	if w.Not != nil {
		groups++
		n.Kind = IsNot
		sub, err := parse(*w.Not, path+"/not", depth+1, tests)
		if err != nil {
			return nil, err
		}
		n.Nodes = []*Node{sub}
	}
	if w.Field != "" || w.Op != "" {
		groups++
		if *tests++; *tests > MaxTests {
			return nil, wrong(path, "There are more than %d tests. Take some out.", MaxTests)
		}
		test, err := w.read(path)
		if err != nil {
			return nil, err
		}
		n.Kind, n.Test = IsTest, test
	}
	if groups != 1 {
		return nil, wrong(path, "A node is one of all, any, not, or a field with its op.")
	}
	return n, nil
}

// read checks the parts of a test against its operator.
func (w written) read(path string) (*Test, error) {
	field, known := forms[w.Field]
	if !known {
		return nil, wrong(path+"/field", "There is no field “%.40s”; one of %v is wanted.", w.Field, Fields())
	}
	if !slices.Contains(field.ops, w.Op) {
		return nil, wrong(path+"/op", "The field %s takes one of %v, not “%.40s”.", w.Field, field.ops, w.Op)
	}
	t := &Test{Field: w.Field, Op: w.Op}
	var err error
	switch w.Op {
	case Contains:
		if w.Text == nil || strings.TrimSpace(*w.Text) == "" {
			return nil, wrong(path+"/text", "The text is missing. Give it at least one word.")
		}
		if n := utf8.RuneCountInString(*w.Text); n > MaxText {
			return nil, wrong(path+"/text", "The text has %d characters; %d is the most.", n, MaxText)
		}
		if strings.ContainsAny(*w.Text, "\r\n") {
			return nil, wrong(path+"/text", "The text has more than one line. Look for one line at a time.")
		}
		t.Text = *w.Text
	case AnyOf, AllOf, NoneOf:
		err = w.readValues(t, path)
	case Before, After, On:
		t.Date, err = readWhen(w.Date, path+"/date")
	case Between:
		if t.Date, err = readWhen(w.Date, path+"/date"); err == nil {
			t.To, err = readWhen(w.To, path+"/to")
		}
		if err == nil && t.Date.relative == t.To.relative && (t.To.days < t.Date.days || t.To.date.Before(t.Date.date)) {
			err = wrong(path+"/to", "The range ends before it begins.")
		}
	case WithinNext, WithinPast:
		if w.Days == nil || *w.Days < 0 || *w.Days > MaxDays {
			return nil, wrong(path+"/days", "A number of days from 0 to %d is wanted.", MaxDays)
		}
		t.Days = *w.Days
	case TimeBetween:
		if t.From, err = readTime(w.From, path+"/from"); err == nil {
			t.Until, err = readTime(w.Until, path+"/until")
		}
		if err == nil && t.Until.Compare(t.From) < 0 {
			err = wrong(path+"/until", "The range ends before it begins.")
		}
	case AtMost, AtLeast:
		if w.Minutes == nil || *w.Minutes < 1 || *w.Minutes > term.MaxEstimate {
			return nil, wrong(path+"/minutes", "Minutes from 1 to %d are wanted.", term.MaxEstimate)
		}
		t.Minutes = *w.Minutes
	}
	return t, err
}

func (w written) readValues(t *Test, path string) error {
	if w.Values == nil || len(*w.Values) == 0 || len(*w.Values) > MaxValues {
		return wrong(path+"/values", "1 to %d values are wanted.", MaxValues)
	}
	for i, v := range *w.Values {
		at := path + "/values/" + strconv.Itoa(i)
		if words := t.Field.Words(); words != nil {
			if !slices.Contains(words, v) {
				return wrong(at, "“%.40s” is not a %s: one of %v is wanted.", v, t.Field, words)
			}
			t.Words = append(t.Words, v)
			continue
		}
		id, err := term.ParseID(v)
		if err != nil {
			return wrong(at, "“%.40s” is not the id of a %s.", v, t.Field)
		}
		t.IDs = append(t.IDs, id)
	}
	return nil
}

// readWhen reads a date, or a duration of days or weeks from today: P7D, -P2W.
func readWhen(text *string, path string) (When, error) {
	if text == nil {
		return When{}, wrong(path, "The date is missing.")
	}
	s, sign := strings.TrimPrefix(*text, "-"), 1
	if s != *text {
		sign = -1
	}
	if strings.HasPrefix(s, "P") {
		n, err := 0, error(nil)
		if len(s) > 2 {
			n, err = strconv.Atoi(s[1 : len(s)-1])
		}
		switch unit := s[len(s)-1]; {
		case err != nil || len(s) < 3 || unit != 'D' && unit != 'W':
			return When{}, wrong(path, "“%.40s” is not a duration of days or weeks, such as P7D or -P2W.", *text)
		case unit == 'W':
			n *= 7
		}
		if n < 0 || n > MaxDays {
			return When{}, wrong(path, "“%.40s” is more than %d days.", *text, MaxDays)
		}
		return FromToday(sign * n), nil
	}
	d, err := day.ParseDate(*text)
	if err != nil {
		return When{}, wrong(path, "“%.40s” is not a date such as 2026-12-01, nor a duration from today such as P7D.", *text)
	}
	return Fixed(d), nil
}

func readTime(text *string, path string) (day.TimeOfDay, error) {
	if text == nil {
		return day.TimeOfDay{}, wrong(path, "The time is missing.")
	}
	t, err := day.ParseTimeOfDay(*text)
	if err != nil {
		return t, wrong(path, "“%.40s” is not a time such as 09:00.", *text)
	}
	return t, nil
}

func (n *Node) written() map[string]any {
	sub := func() []any {
		out := make([]any, 0, len(n.Nodes))
		for _, s := range n.Nodes {
			out = append(out, s.written())
		}
		return out
	}
	switch n.Kind {
	case IsAll:
		return map[string]any{"all": sub()}
	case IsAny:
		return map[string]any{"any": sub()}
	case IsNot:
		return map[string]any{"not": n.Nodes[0].written()}
	}
	t := n.Test
	out := map[string]any{"field": t.Field, "op": t.Op}
	switch t.Op {
	case Contains:
		out["text"] = t.Text
	case AnyOf, AllOf, NoneOf:
		values := slices.Clone(t.Words)
		for _, id := range t.IDs {
			values = append(values, id.String())
		}
		out["values"] = values
	case Between:
		out["date"], out["to"] = t.Date.String(), t.To.String()
	case Before, After, On:
		out["date"] = t.Date.String()
	case WithinNext, WithinPast:
		out["days"] = t.Days
	case TimeBetween:
		out["from"], out["until"] = t.From.String(), t.Until.String()
	case AtMost, AtLeast:
		out["minutes"] = t.Minutes
	}
	return out
}
