package book

import "tincup/internal/core/term"

// The words of package term, as commands and rows use them.
type (
	ID       = term.ID
	Status   = term.Status
	Priority = term.Priority
	Role     = term.Role
	Colour   = term.Colour
)

// ParseID reads the 36 character form of an id, in either case.
func ParseID(s string) (ID, error) { return term.ParseID(s) }

// The values of Status, Priority, Role and Colour.
const (
	NeedsAction = term.NeedsAction
	InProcess   = term.InProcess
	Completed   = term.Completed
	Cancelled   = term.Cancelled

	NoPriority = term.NoPriority
	Low        = term.Low
	Medium     = term.Medium
	High       = term.High

	NoRole    = term.NoRole
	Ask       = term.Ask
	WaitingOn = term.WaitingOn
	For       = term.For

	Moss  = term.Moss
	Slate = term.Slate
	Plum  = term.Plum
	Ochre = term.Ochre
	Sea   = term.Sea
	Clay  = term.Clay
	Stone = term.Stone
	Berry = term.Berry
)

// Limits on text. Titles and names are counted in characters (Unicode code points), notes
// in bytes, and what a to-do takes in minutes.
const (
	MaxTitle    = term.MaxTitle
	MaxNotes    = term.MaxNotes
	MaxName     = term.MaxName
	MaxTags     = term.MaxTags
	MaxEstimate = term.MaxEstimate
)
