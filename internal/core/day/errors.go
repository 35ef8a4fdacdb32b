package day

import (
	"errors"
	"fmt"
)

// ErrImpossible marks a text of the right form for which the calendar has no
// day or no time, such as 2026-02-31 or 25:00.
var ErrImpossible = errors.New("no such day or time")

// ParseError says what was read and what would have been right.
type ParseError struct {
	Input string
	// Want describes the right form, with an example.
	Want string
	// Err is ErrImpossible where the form was right, else nil.
	Err error
}

func (e *ParseError) Error() string {
	if e.Err != nil {
		return fmt.Sprintf("%q does not exist in the calendar", shorten(e.Input))
	}
	return fmt.Sprintf("%q is not %s", shorten(e.Input), e.Want)
}

func (e *ParseError) Unwrap() error { return e.Err }

func impossible(input string) error { return &ParseError{Input: input, Err: ErrImpossible} }

// shorten keeps a hostile input out of messages.
func shorten(s string) string {
	const most = 40
	for i := range s {
		if i > most {
			return s[:i] + "…"
		}
	}
	return s
}
