package question

import (
	"encoding/json"
	"fmt"
	"strings"

	"tincup/internal/core/term"
)

// Saved reads the tree of a saved view: the part "filter" of a JSON object, of which
// nothing else is looked at. "" asks nothing. Errors are *ParseError.
func Saved(text string) (Tree, error) {
	parts, err := partsOf(text)
	if err != nil || parts["filter"] == nil {
		return Tree{}, err
	}
	return Parse(parts["filter"])
}

// SavedInstead is the text of a saved view with [Tree.Instead] done to its tree, and the
// same text where that changes nothing.
func SavedInstead(text string, f Field, from, into term.ID) (string, error) {
	tree, err := Saved(text)
	if err != nil {
		return text, err
	}
	next := tree.Instead(f, from, into)
	if next == tree {
		return text, nil
	}
	parts, err := partsOf(text)
	if err == nil {
		parts["filter"], err = json.Marshal(next)
	}
	if err != nil {
		return text, err
	}
	again, err := json.Marshal(parts)
	return string(again), err
}

func partsOf(text string) (map[string]json.RawMessage, error) {
	var parts map[string]json.RawMessage
	if text == "" {
		return nil, nil
	}
	if err := json.Unmarshal([]byte(text), &parts); err != nil {
		return nil, &ParseError{Reason: fmt.Sprintf("This is not a view: %s.", strings.TrimPrefix(err.Error(), "json: "))}
	}
	return parts, nil
}
