package book

import (
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Shelf holds lists: an area of life, such as work or home.
type Shelf struct {
	ID       ID       `json:"ID"`
	Name     string   `json:"Name"`
	Position Position `json:"Position"`
	// Hours are those that the to-dos of its lists take.
	Hours    term.Hours    `json:"Hours,omitzero"`
	Deleted  day.Timestamp `json:"Deleted,omitzero"` // when put in the bin
	Revision int64         `json:"Revision"`
}

// List holds to-dos.
type List struct {
	ID ID `json:"ID"`
	// Owner is the account whose list it is, and what is in it. The history of before
	// there were accounts has none: then it is the owner's of the installation.
	Owner    ID       `json:"Owner,omitzero"`
	Shelf    ID       `json:"Shelf"` // the account's own, as Position and Pinned are
	Name     string   `json:"Name"`
	Colour   Colour   `json:"Colour"`
	Position Position `json:"Position"`
	Order    Order    `json:"Order,omitzero"`
	// Checklist: its ticked to-dos sink to the foot and can be started over.
	Checklist bool `json:"Checklist,omitzero"`
	// Pinned lists stand at the head of the index as well.
	Pinned bool `json:"Pinned,omitzero"`
	// Archived is when it was put away: out of the index and of all views.
	Archived day.Timestamp `json:"Archived,omitzero"`
	// Due is the day by which all of it is to be done: a deadline of each of its to-dos.
	Due day.Date `json:"Due,omitzero"`
	// Outcome is the sentence that will be true when all of it is done, to MaxOutcome characters.
	Outcome string `json:"Outcome,omitempty"`
	// With is the person with whom it is done; what is put in is to be asked of them, unless it says
	// another.
	With ID `json:"With,omitzero"`
	// Template is the day from which the dates of a template count; none for a
	// list that is none.
	Template day.Date      `json:"Template,omitzero"`
	Deleted  day.Timestamp `json:"Deleted,omitzero"` // when put in the bin
	Revision int64         `json:"Revision"`
}

// Away reports whether no view but its own page holds the list's to-dos.
func (l *List) Away() bool { return !l.Archived.IsZero() || !l.Template.IsZero() }

// Listed reports whether the list stands on its shelf in the index.
func (l *List) Listed() bool { return !l.Away() && l.Deleted.IsZero() }

// Section is a titled stretch of a list.
type Section struct {
	ID       ID       `json:"ID"`
	List     ID       `json:"List"`
	Name     string   `json:"Name"`
	Position Position `json:"Position"`
	Revision int64    `json:"Revision"`
}

// Tag is a word that cuts across lists. Its name nests with a slash.
type Tag struct {
	ID     ID     `json:"ID"`
	Name   string `json:"Name"`
	Colour Colour `json:"Colour"`
	// Unmade: what made it was undone while another to-do carried it. It goes by the undo that takes
	// it from the last.
	Unmade   bool  `json:"Unmade,omitempty"`
	Revision int64 `json:"Revision"`
}

// Person is someone the to-dos tell of.
type Person struct {
	ID       ID     `json:"ID"`
	Name     string `json:"Name"`
	Email    string `json:"Email,omitempty"`
	Phone    string `json:"Phone,omitempty"`
	Note     string `json:"Note,omitempty"` // a few lines, to MaxPersonNote bytes
	Revision int64  `json:"Revision"`
}

func (s Shelf) key() ID   { return s.ID }
func (l List) key() ID    { return l.ID }
func (s Section) key() ID { return s.ID }
func (t Tag) key() ID     { return t.ID }
func (p Person) key() ID  { return p.ID }

func (s Shelf) revised() int64   { return s.Revision }
func (l List) revised() int64    { return l.Revision }
func (s Section) revised() int64 { return s.Revision }
func (t Tag) revised() int64     { return t.Revision }
func (p Person) revised() int64  { return p.Revision }

func (s Shelf) at(revision int64) Shelf     { s.Revision = revision; return s }
func (l List) at(revision int64) List       { l.Revision = revision; return l }
func (s Section) at(revision int64) Section { s.Revision = revision; return s }
func (t Tag) at(revision int64) Tag         { t.Revision = revision; return t }
func (p Person) at(revision int64) Person   { p.Revision = revision; return p }

var shelfAttributes = []attribute[Shelf]{
	attr("name", func(s *Shelf) *string { return &s.Name }),
	attr("place", func(s *Shelf) *Position { return &s.Position }),
	attr("hours", func(s *Shelf) *term.Hours { return &s.Hours }),
	attr("deleted", func(s *Shelf) *day.Timestamp { return &s.Deleted }),
}

var listAttributes = []attribute[List]{
	attr("name", func(l *List) *string { return &l.Name }),
	attr("colour", func(l *List) *Colour { return &l.Colour }),
	attr("order", func(l *List) *Order { return &l.Order }),
	attr("checklist", func(l *List) *bool { return &l.Checklist }),
	attr("pinned", func(l *List) *bool { return &l.Pinned }),
	attr("archived", func(l *List) *day.Timestamp { return &l.Archived }),
	attr("due", func(l *List) *day.Date { return &l.Due }),
	attr("outcome", func(l *List) *string { return &l.Outcome }),
	attr("person", func(l *List) *ID { return &l.With }),
	attr("template", func(l *List) *day.Date { return &l.Template }),
	attr("deleted", func(l *List) *day.Timestamp { return &l.Deleted }),
	{"place", func(a, b *List) bool { return a.Shelf == b.Shelf && a.Position == b.Position },
		func(to, from *List) { to.Shelf, to.Position = from.Shelf, from.Position }},
}

var sectionAttributes = []attribute[Section]{
	attr("name", func(s *Section) *string { return &s.Name }),
	attr("place", func(s *Section) *Position { return &s.Position }),
}

var tagAttributes = []attribute[Tag]{
	attr("name", func(t *Tag) *string { return &t.Name }),
	attr("colour", func(t *Tag) *Colour { return &t.Colour }),
	attr("unmade", func(t *Tag) *bool { return &t.Unmade }),
}

var personAttributes = []attribute[Person]{
	attr("name", func(p *Person) *string { return &p.Name }),
	attr("email", func(p *Person) *string { return &p.Email }),
	attr("phone", func(p *Person) *string { return &p.Phone }),
	attr("note", func(p *Person) *string { return &p.Note }),
}
