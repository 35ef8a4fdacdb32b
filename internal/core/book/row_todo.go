package book

import (
	"slices"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Todo is one thing to do. In JSON, as the history keeps it, what is not set is
// left out. What views look at of every to-do stands first, and what they look at
// most in the second 32 bytes of it: these lie in one cache line, whether a to-do
// begins with a line or in the middle of one.
type Todo struct {
	ID      ID            `json:"ID"`
	Deleted day.Timestamp `json:"Deleted,omitzero"` // when put in the bin
	// Handful is the day for which it was picked; it lapses when the day ends.
	Handful day.Date `json:"Handful,omitzero"`
	// Estimate is the minutes it takes, 0 for none, to MaxEstimate.
	Estimate int32 `json:"Estimate,omitzero"`

	Completed day.Timestamp `json:"Completed,omitzero"` // when completed or cancelled
	// Cleared: it is ticked, and out of its checklist's sight. An open to-do never is.
	Cleared bool          `json:"Cleared,omitzero"`
	Created day.Timestamp `json:"Created,omitzero"`
	// Due is the last moment it may be finished.
	Due day.Moment `json:"Due,omitzero"`
	// Start is the first day it can be worked on.
	Start    day.Date `json:"Start,omitzero"`
	Status   Status   `json:"Status,omitzero"`
	Priority Priority `json:"Priority,omitzero"`
	// IsNote: kind note, with nothing to tick (RFC 5545 VJOURNAL).
	IsNote bool `json:"IsNote,omitzero"`
	// InOrder: its subtasks are done one after another.
	InOrder bool `json:"InOrder,omitzero"`

	// Plan is when the person means to do it.
	Plan   day.Horizon `json:"Plan,omitzero"`
	Person Involved    `json:"Person,omitzero"`
	// Parent is the to-do it is a subtask of.
	Parent ID `json:"Parent,omitzero"`
	// Repeat is how it comes round; it is not written to.
	Repeat *repeat.Repeat `json:"Repeat,omitzero"`
	// List is none for the Cup. A subtask is in its parent's list.
	List ID `json:"List,omitzero"`
	// Tags are ids in the order they were added, each once.
	Tags []ID `json:"Tags,omitzero"`
	// Record is set on what is kept of an occurrence that was ticked, and names
	// the to-do it is a record of. Its Repeat is as it was then.
	Record   ID       `json:"Record,omitzero"`
	Position Position `json:"Position,omitzero"`
	// Section is one of its list's, none for the stretch before the first. A
	// subtask is in its parent's section.
	Section ID `json:"Section,omitzero"`
	// Title is one line of 1 to 500 characters.
	Title string `json:"Title"`
	// NotesSize is the length of the notes in bytes, 0 to MaxNotes. The text
	// itself stays with the Notes the Book was made with.
	NotesSize int32 `json:"NotesSize,omitzero"`
	// Concentration is the kind of attention it takes.
	Concentration term.Concentration `json:"Concentration,omitzero"`
	// Outcome is what will be true when a project is done, to MaxOutcome
	// characters on one line.
	Outcome string `json:"Outcome,omitzero"`
	// Source is what it was made of; the zero Source for none.
	Source Source `json:"Source,omitzero"`
	// Place is the name of the Place where it is done; "" for none (LOCATION, RFC 5545 section
	// 3.8.1.7).
	Place string `json:"Place,omitzero"`
	// Reminders are in the order they were added, each once.
	Reminders []day.Reminder `json:"Reminders,omitzero"`
	// RemindFrom is since when they are as they are: what should have rung by then does not
	// ring any more.
	RemindFrom day.Timestamp `json:"RemindFrom,omitzero"`
	// Attachments are in the order they were added.
	Attachments []Attachment  `json:"Attachments,omitzero"`
	Changed     day.Timestamp `json:"Changed,omitzero"`
	// UID is what it came with and is known by elsewhere, for as long as it is there; "" for one
	// that was made here, which is known by its id (RFC 5545 section 3.8.4.7).
	UID string `json:"UID,omitzero"`
	// Revision is that of the change that last touched the row.
	Revision int64 `json:"Revision,omitzero"`
}

// Open reports whether the to-do is still to be done and not in the bin. What
// is kept of a ticked occurrence is not, whatever became of its subtasks, and a
// note is not.
func (t *Todo) Open() bool {
	return t.Status.Open() && t.Deleted.IsZero() && t.Record.IsZero() && !t.IsNote
}

// Paused reports whether it repeats and stands still: no view but its list
// holds it.
func (t *Todo) Paused() bool { return t.Repeat != nil && !t.Repeat.Paused.IsZero() && t.Open() }

// kept reports whether it is a subtask within a record.
func (t *Todo) kept() bool { return !t.Record.IsZero() && !t.Parent.IsZero() }

// RemindedOf is what its reminders ahead come before; none where it has no such moment.
func (t *Todo) RemindedOf() day.Moment { return day.RemindedOf(t.Due, t.Plan, t.Start) }

// Reminds reports whether the to-do has a reminder, with whatever sound.
func (t *Todo) Reminds(r day.Reminder) bool {
	return slices.ContainsFunc(t.Reminders, func(has day.Reminder) bool { return has.Silent() == r.Silent() })
}

// HasTag reports whether the to-do carries the tag itself.
func (t *Todo) HasTag(tag ID) bool { return slices.Contains(t.Tags, tag) }

// home is what a to-do's siblings share: its parent, or else its list.
func (t *Todo) home() ID {
	if t.Parent.IsZero() {
		return t.List
	}
	return t.Parent
}

// Attachment is a file that belongs to a to-do. Its bytes are kept once, by
// their hash.
type Attachment struct {
	// Name is one line of 1 to 200 characters, without a path.
	Name string `json:"Name"`
	// Hash is the SHA-256 of the bytes, 64 hexadecimal digits.
	Hash string `json:"Hash"`
	// Type is the media type that the bytes show, not the one that was claimed.
	Type string `json:"Type"`
	Size int64  `json:"Size"` // bytes
}

// Involved is a person and what they are to a to-do; a Role of NoRole is nobody.
type Involved struct {
	ID   ID   `json:"ID"`
	Role Role `json:"Role"`
	// Since is the day the role was set.
	Since day.Date `json:"Since"`
}
