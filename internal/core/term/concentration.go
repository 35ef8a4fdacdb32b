package term

// Concentration is the kind of attention that a to-do takes.
type Concentration uint8

// The concentrations. Unset is the zero value.
const (
	Unset Concentration = iota
	Deep
	Light
)

var concentrationWords = words{"unset", "deep", "light"}

// String returns the word.
func (c Concentration) String() string { return concentrationWords[c] }

// MarshalText implements encoding.TextMarshaler.
func (c Concentration) MarshalText() ([]byte, error) {
	return concentrationWords.text("concentration", int(c))
}

// UnmarshalText implements encoding.TextUnmarshaler.
func (c *Concentration) UnmarshalText(text []byte) error {
	i, err := concentrationWords.index("concentration", text)
	*c = Concentration(i)
	return err
}
