package term

import "errors"

// Class says what sort of failure an error is, for who answers it: over HTTP the status
// goes by it.
type Class uint8

// The classes. An error without one is a fault in the program.
const (
	Unclassed Class = iota
	NotFound
	Refused     // a rule is against it; saying it otherwise helps
	Forbidden   // another's
	Conflict    // not in this state
	Stale       // what it was about has changed since
	Incomplete  // it did not arrive whole
	TooLarge    // more than there may be
	NoSpace     // there is no room to keep it
	Unavailable // not now; later, or when somebody has put it right
)

// Failure is an error with a class that is compared by itself, as with errors.New.
type Failure struct {
	class Class
	text  string
}

// Fail makes a Failure.
func Fail(class Class, text string) *Failure { return &Failure{class, text} }

// Error implements error.
func (f *Failure) Error() string { return f.text }

// Class is the one it was made with.
func (f *Failure) Class() Class { return f.class }

// ClassOf returns the class of an error, or of the first that it wraps and that has one.
func ClassOf(err error) Class {
	var classed interface{ Class() Class }
	if errors.As(err, &classed) {
		return classed.Class()
	}
	return Unclassed
}
