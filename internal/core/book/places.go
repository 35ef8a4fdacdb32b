package book

// Shelf holds lists: an area of life, such as work or home.
type Shelf struct {
	ID       ID
	Name     string
	Position Position
	Revision int64
}

// List holds to-dos.
type List struct {
	ID       ID
	Shelf    ID
	Name     string
	Colour   Colour
	Position Position
	Revision int64
}

// Tag is a word that cuts across lists. Its name nests with a slash.
type Tag struct {
	ID       ID
	Name     string
	Colour   Colour
	Revision int64
}

// Person is someone the to-dos tell of.
type Person struct {
	ID       ID
	Name     string
	Email    string `json:",omitempty"`
	Phone    string `json:",omitempty"`
	Revision int64
}

// Colour is one of the eight named colours of lists and tags.
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
	colours // how many there are
)
