package term

import "fmt"

// words maps the values of a small closed set to the words used outside.
type words []string

func (w words) text(kind string, i int) ([]byte, error) {
	if i >= len(w) {
		return nil, fmt.Errorf("term: no %s %d", kind, i)
	}
	return []byte(w[i]), nil
}

func (w words) index(kind string, text []byte) (int, error) {
	for i, word := range w {
		if word == string(text) {
			return i, nil
		}
	}
	return 0, fmt.Errorf("%.40q is not a %s: one of %v is wanted", text, kind, []string(w))
}

// Status is RFC 5545 STATUS for a VTODO (section 3.8.1.11).
type Status uint8

// The statuses. Open is the first two.
const (
	NeedsAction Status = iota
	InProcess
	Completed
	Cancelled
)

var statusWords = words{"needs-action", "in-process", "completed", "cancelled"}

// Open reports whether there is still something to do.
func (s Status) Open() bool { return s <= InProcess }

// String returns the word.
func (s Status) String() string { return statusWords[s] }

// MarshalText implements encoding.TextMarshaler.
func (s Status) MarshalText() ([]byte, error) { return statusWords.text("status", int(s)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (s *Status) UnmarshalText(text []byte) error {
	i, err := statusWords.index("status", text)
	*s = Status(i)
	return err
}

// Priority is one of four steps, written as RFC 5545 PRIORITY 0, 9, 5 and 1
// (section 3.8.1.9) outside. A larger Priority matters more.
type Priority uint8

// The priorities.
const (
	NoPriority Priority = iota
	Low
	Medium
	High
)

var priorityWords = words{"none", "low", "medium", "high"}

// String returns the word.
func (p Priority) String() string { return priorityWords[p] }

// MarshalText implements encoding.TextMarshaler.
func (p Priority) MarshalText() ([]byte, error) { return priorityWords.text("priority", int(p)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (p *Priority) UnmarshalText(text []byte) error {
	i, err := priorityWords.index("priority", text)
	*p = Priority(i)
	return err
}

// Role is what a person is to a to-do.
type Role uint8

// The roles.
const (
	NoRole Role = iota
	Ask
	WaitingOn
	For
)

var roleWords = words{"none", "ask", "waiting on", "for"}

// String returns the words.
func (r Role) String() string { return roleWords[r] }

// MarshalText implements encoding.TextMarshaler.
func (r Role) MarshalText() ([]byte, error) { return roleWords.text("role", int(r)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (r *Role) UnmarshalText(text []byte) error {
	i, err := roleWords.index("role", text)
	*r = Role(i)
	return err
}

// Colour is one of the eight named colours of lists, tags and views.
type Colour uint8

// The colours.
const (
	Moss Colour = iota
	Slate
	Plum
	Ochre
	Sea
	Clay
	Stone
	Berry
)

var colourWords = words{"moss", "slate", "plum", "ochre", "sea", "clay", "stone", "berry"}

// NthColour is the colour of the nth of many, which take turns.
func NthColour(n int) Colour { return Colour(n % len(colourWords)) }

// String returns the word.
func (c Colour) String() string { return colourWords[c] }

// MarshalText implements encoding.TextMarshaler.
func (c Colour) MarshalText() ([]byte, error) { return colourWords.text("colour", int(c)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (c *Colour) UnmarshalText(text []byte) error {
	i, err := colourWords.index("colour", text)
	*c = Colour(i)
	return err
}
