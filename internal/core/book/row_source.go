package book

import (
	"strings"
	"unicode"
)

// Source is what a to-do was made of: a link, and words that say what that was, also once
// it is gone. It is set when the to-do is put in and stays.
type Source struct {
	// Link is a URI; of an event of a calendar it is event: with the calendar's id and the
	// UID.
	Link string `json:"Link,omitzero"`
	// Words are one line.
	Words string `json:"Words,omitzero"`
}

const (
	maxLink        = 2000
	maxSourceWords = 1000
)

// IsZero reports whether it is none.
func (s Source) IsZero() bool { return s == Source{} }

// checkSource cuts what is too long to be kept.
func checkSource(s Source) (Source, error) {
	if len(s.Link) > maxLink || strings.ContainsFunc(s.Link, unicode.IsSpace) {
		return s, refuse("source", "The link to what it came from has %d characters, or a space; %d without a space are the most.", len(s.Link), maxLink)
	}
	var err error
	s.Words, err = lineOrNone("source", "", &s.Words, maxSourceWords)
	return s, err
}
