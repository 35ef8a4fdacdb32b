package book

// Diff is one row before and after. A nil Before is a row that came, a nil
// After a row that went.
type Diff[T any] struct {
	Before *T `json:"before,omitempty"`
	After  *T `json:"after,omitempty"`
}

// Note is the notes of one to-do; an empty Text is none.
type Note struct {
	ID   ID
	Text string
}

// Kind names the command a Change came from.
type Kind string

// Change is what one command does to the Book.
type Change struct {
	// Revision is the Book's once the change is applied.
	Revision int64
	Kind     Kind
	// Says tells the person what was done, in one sentence.
	Says     string
	Todos    []Diff[Todo]    `json:",omitempty"`
	Notes    []Diff[Note]    `json:",omitempty"`
	Lists    []Diff[List]    `json:",omitempty"`
	Sections []Diff[Section] `json:",omitempty"`
	Shelves  []Diff[Shelf]   `json:",omitempty"`
	Tags     []Diff[Tag]     `json:",omitempty"`
	People   []Diff[Person]  `json:",omitempty"`
	Views    []Diff[View]    `json:",omitempty"`
}

// Empty reports whether the command found nothing to alter.
func (c *Change) Empty() bool {
	return len(c.Todos)+len(c.Notes) == 0 && !c.Places()
}

// Places reports whether shelves, lists, sections, tags, people or views changed.
func (c *Change) Places() bool {
	return len(c.Lists)+len(c.Sections)+len(c.Shelves)+len(c.Tags)+len(c.People)+len(c.Views) > 0
}

// Todo returns the state after the change of the first to-do it touched, or
// its last state where it went; nil where it touched none.
func (c *Change) Todo() *Todo {
	if len(c.Todos) == 0 {
		return nil
	}
	if d := c.Todos[0]; d.After != nil {
		return d.After
	}
	return c.Todos[0].Before
}
