package book

import "fmt"

// words maps the values of a small closed set to the words used outside.
type words []string

func (w words) text(kind string, i int) ([]byte, error) {
	if i >= len(w) {
		return nil, fmt.Errorf("book: no %s %d", kind, i)
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

var (
	statusWords   = words{"needs-action", "in-process", "completed", "cancelled"}
	priorityWords = words{"none", "low", "medium", "high"}
	roleWords     = words{"none", "ask", "waiting on", "for"}
	orderWords    = words{"priority", "own", "due", "title", "created", "high-first"}
	colourWords   = words{"moss", "slate", "plum", "ochre", "sea", "clay", "stone", "berry"}
)

func (s Status) String() string   { return statusWords[s] }
func (p Priority) String() string { return priorityWords[p] }
func (c Colour) String() string   { return colourWords[c] }
func (r Role) String() string     { return roleWords[r] }
func (o Order) String() string    { return orderWords[o] }

// MarshalText implements encoding.TextMarshaler.
func (s Status) MarshalText() ([]byte, error) { return statusWords.text("status", int(s)) }

// MarshalText implements encoding.TextMarshaler.
func (p Priority) MarshalText() ([]byte, error) { return priorityWords.text("priority", int(p)) }

// MarshalText implements encoding.TextMarshaler.
func (c Colour) MarshalText() ([]byte, error) { return colourWords.text("colour", int(c)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (s *Status) UnmarshalText(text []byte) error {
	i, err := statusWords.index("status", text)
	*s = Status(i)
	return err
}

// UnmarshalText implements encoding.TextUnmarshaler.
func (p *Priority) UnmarshalText(text []byte) error {
	i, err := priorityWords.index("priority", text)
	*p = Priority(i)
	return err
}

// UnmarshalText implements encoding.TextUnmarshaler.
func (c *Colour) UnmarshalText(text []byte) error {
	i, err := colourWords.index("colour", text)
	*c = Colour(i)
	return err
}

// MarshalText implements encoding.TextMarshaler.
func (r Role) MarshalText() ([]byte, error) { return roleWords.text("role", int(r)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (r *Role) UnmarshalText(text []byte) error {
	i, err := roleWords.index("role", text)
	*r = Role(i)
	return err
}

// MarshalText implements encoding.TextMarshaler.
func (o Order) MarshalText() ([]byte, error) { return orderWords.text("order", int(o)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (o *Order) UnmarshalText(text []byte) error {
	i, err := orderWords.index("order", text)
	*o = Order(i)
	return err
}

// count says how many there are of something, "1 to-do" or "3 to-dos".
func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
