package jscal

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"

	"tincup/internal/core/exchange"
)

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
