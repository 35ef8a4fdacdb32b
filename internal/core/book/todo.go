package book

import (
	"slices"

	"tincup/internal/core/day"
)

// Status is RFC 5545 STATUS for a VTODO (section 3.8.1.11).
type Status uint8

// The statuses. Open is the first two.
const (
	NeedsAction Status = iota
	InProcess
	Completed
	Cancelled
)

// Open reports whether there is still something to do.
func (s Status) Open() bool { return s <= InProcess }

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

// Todo is one thing to do. In JSON, as the history keeps it, what is not set is
// left out.
type Todo struct {
	ID ID
	// Title is one line of 1 to 500 characters.
	Title string
	// NotesSize is the length of the notes in bytes, 0 to MaxNotes. The text
	// itself stays with the Notes the Book was made with.
	NotesSize int32 `json:",omitzero"`
	// List is none for the Cup.
	List     ID `json:",omitzero"`
	Position Position
	Status   Status   `json:",omitzero"`
	Priority Priority `json:",omitzero"`
	// Start is the first day it can be worked on.
	Start day.Date `json:",omitzero"`
	// Due is the last moment it may be finished.
	Due day.Moment `json:",omitzero"`
	// Plan is when the person means to do it.
	Plan day.Horizon `json:",omitzero"`
	// Tags are ids in the order they were added, each once.
	Tags      []ID `json:",omitzero"`
	Created   day.Timestamp
	Changed   day.Timestamp
	Completed day.Timestamp `json:",omitzero"` // when completed or cancelled
	Deleted   day.Timestamp `json:",omitzero"` // when put in the bin
	// Revision is that of the change that last touched the row.
	Revision int64
}

// Open reports whether the to-do is still to be done and not in the bin.
func (t *Todo) Open() bool { return t.Status.Open() && t.Deleted.IsZero() }

// InCup reports whether it is open and in no list.
func (t *Todo) InCup() bool { return t.List.IsZero() && t.Open() }

// HasTag reports whether the to-do carries the tag itself.
func (t *Todo) HasTag(tag ID) bool { return slices.Contains(t.Tags, tag) }
