package book

// Diff is one row before and after. A nil Before is a row that came, a nil
// After a row that went.
type Diff[T any] struct {
	Before *T `json:"before,omitempty"`
	After  *T `json:"after,omitempty"`
}

// Note is the notes of one to-do; an empty Text is none.
type Note struct {
	ID   ID     `json:"ID"`
	Text string `json:"Text"`
}

// Kind names the command a Change came from.
type Kind string

// Change is what one command does to the Book.
type Change struct {
	// Revision is the Book's once the change is applied.
	Revision int64 `json:"Revision"`
	// Actor is the account that makes it. The history keeps it beside the rows.
	Actor ID   `json:"-"`
	Kind  Kind `json:"Kind"`
	// Says tells the person what was done, in one sentence.
	Says      string           `json:"Says"`
	Todos     []Diff[Todo]     `json:"Todos,omitempty"`
	Notes     []Diff[Note]     `json:"Notes,omitempty"`
	Lists     []Diff[List]     `json:"Lists,omitempty"`
	Sections  []Diff[Section]  `json:"Sections,omitempty"`
	Shelves   []Diff[Shelf]    `json:"Shelves,omitempty"`
	Tags      []Diff[Tag]      `json:"Tags,omitempty"`
	People    []Diff[Person]   `json:"People,omitempty"`
	Views     []Diff[View]     `json:"Views,omitempty"`
	Settings  []Diff[Chosen]   `json:"Settings,omitempty"`
	Calendars []Diff[Calendar] `json:"Calendars,omitempty"`
	Rings     []Diff[Ring]     `json:"Rings,omitempty"`
	Places    []Diff[Place]    `json:"Places,omitempty"`
}

// Empty reports whether the command found nothing to alter.
func (c *Change) Empty() bool {
	return len(c.Todos)+len(c.Notes)+len(c.Rings) == 0 && !c.Arranges()
}

// Arranges reports whether shelves, lists, sections, tags, people, views, settings,
// calendars or places changed.
func (c *Change) Arranges() bool {
	return len(c.Lists)+len(c.Sections)+len(c.Shelves)+len(c.Tags)+len(c.People)+len(c.Views)+len(c.Settings)+len(c.Calendars)+len(c.Places) > 0
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

// By says which account made a change that was read from the history, and whose the
// lists in it are where that is not told.
func (c *Change) By(account ID) {
	c.Actor = account
	for _, d := range c.Lists {
		for _, l := range []*List{d.Before, d.After} {
			if l != nil && l.Owner.IsZero() {
				l.Owner = account
			}
		}
	}
}
