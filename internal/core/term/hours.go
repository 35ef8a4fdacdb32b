package term

// Hours says which of a person's hours a to-do takes. The zero value is WorkingHours.
type Hours uint8

// The kinds of hours. Kinds is how many of them are hours that a person has.
const (
	WorkingHours Hours = iota
	OwnHours
	NoHours

	Kinds = int(NoHours)
)

var hoursWords = words{"working", "own", "none"}

// String returns the word.
func (h Hours) String() string { return hoursWords[h] }

// MarshalText implements encoding.TextMarshaler.
func (h Hours) MarshalText() ([]byte, error) { return hoursWords.text("kind of hours", int(h)) }

// UnmarshalText implements encoding.TextUnmarshaler.
func (h *Hours) UnmarshalText(text []byte) error {
	i, err := hoursWords.index("kind of hours", text)
	*h = Hours(i)
	return err
}
