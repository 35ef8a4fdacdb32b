package capture

import (
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// Limits of a sentence. Characters are Unicode code points.
const (
	MaxText     = 20_000 // bytes of a sentence, its notes left out
	MaxTitle    = term.MaxTitle
	MaxNotes    = term.MaxNotes
	MaxClauses  = 100
	MaxTags     = term.MaxTags
	MaxChips    = 100
	MaxTag      = term.MaxName
	MaxEstimate = term.MaxEstimate
	maxProblems = 20
)

// Env is what reading knows besides the text.
type Env struct {
	Clock day.Clock
	Settings
	Names
}

// Settings are the person's ways of writing.
type Settings struct {
	// MonthFirst reads 11/30 as 30 November.
	MonthFirst bool
	// SundayFirst lets the week end on Saturday.
	SundayFirst bool
	// Parts is what words for a part of the day mean.
	Parts PartsOfDay
	// ReminderHour is when reminders come that name a date and no time; the zero time is 09:00.
	ReminderHour day.TimeOfDay
}

// Names are what the person has.
type Names struct {
	Lists, Tags, People, Places []string
}

// Person is someone named in a sentence; a Role of term.NoRole is nobody.
type Person struct {
	Name string
	Role term.Role
	// New: nobody has the name yet; a person is made with the to-do.
	New bool
}

// Draft is a to-do as a sentence means it. What was not said is none.
type Draft struct {
	Title string
	Notes string
	// Note is set of a note, which has no tick.
	Note bool
	List string
	// NewList: there is no such list yet; it is made with the to-do.
	NewList  bool
	Due      day.Moment
	Start    day.Date
	Plan     day.Horizon
	Priority term.Priority
	// Choices are the values of other fields of closed sets, each field once.
	Choices []Choice
	Tags    []string
	// Repeat is nil, or holds Rule, First, Anchor and Lead.
	Repeat    *repeat.Repeat
	Estimate  int // minutes
	Person    Person
	Reminders []day.Reminder
	// Remark says of words that were understood why no field comes of them; "" for none.
	Remark string
	// Chips are the fields in the order of the sentence.
	Chips []Chip
	// Problems are why it cannot be put in as it stands.
	Problems []Problem
}

// Field names what a chip is about.
type Field string

// The fields of chips.
const (
	FieldDue      Field = "due"
	FieldStart    Field = "start"
	FieldPlan     Field = "plan"
	FieldList     Field = "list"
	FieldPriority Field = "priority"
	FieldTag      Field = "tag"
	FieldRepeat   Field = "repeat"
	FieldLead     Field = "lead"
	FieldEstimate Field = "estimate"
	FieldPerson   Field = "person"
	FieldReminder Field = "reminder"
	FieldKind     Field = "kind"
)

// Span is a stretch of the text in bytes, the end left out.
type Span struct{ Start, End int }

// and is the stretch from the start of one to the end of another.
func (s Span) and(o Span) Span { return Span{s.Start, o.End} }

func (s Span) within(o Span) bool { return s.Start >= o.Start && s.End <= o.End }

// Chip is one field that was read.
type Chip struct {
	Field Field
	// Words are those it was read from, exactly; Spans where they stand.
	Words string
	Spans []Span
	// Value is the full value in words, "" with a Problem.
	Value   string
	Problem string
}

// Problem is words that were understood and cannot be, or a sentence that
// cannot be put in.
type Problem struct {
	Code Code
	// Field and Spans are those of the chip that it is about; none of the whole sentence.
	Field  Field
	Words  string
	Spans  []Span
	Reason string
}

// Code names a kind of problem for programs.
type Code string

// The kinds of problems.
const (
	TooLong    Code = "too-long"
	TooMany    Code = "too-many"
	Characters Code = "characters"
	NoTitle    Code = "no-title"
	Twice      Code = "twice"      // two values for a field that holds one
	Range      Code = "range"      // a number outside of what there can be
	BadTag     Code = "tag"        // no tag can have this name
	NoDate     Code = "no-date"    // no calendar has it, or it is not the weekday that was said
	NoTime     Code = "no-time"    // no clock shows it
	Passed     Code = "passed"     // it was before now
	BadRepeat  Code = "repeat"     // a repeat that never happens
	NeedsDate  Code = "needs-date" // it counts from a date that is not there
	Order      Code = "order"      // a start after the due
	Elsewhere  Code = "elsewhere"  // what is around the sentence does not allow it
)

// Refuse marks a chip as impossible, for a reason that reading alone cannot
// know.
func (d *Draft) Refuse(chip int, reason string) {
	c := &d.Chips[chip]
	c.Value, c.Problem = "", reason
	d.Problems = append(d.Problems, Problem{Code: Elsewhere, Field: c.Field, Words: c.Words, Spans: c.Spans, Reason: reason})
}

// MomentWords says a moment in full: "Fri 27 Nov 2026, 16:00".
func MomentWords(m day.Moment) string {
	if m.HasTime() {
		return m.Date.Words() + ", " + m.Time.String()
	}
	return m.Date.Words()
}

// weekEnd is the last day of the week for the person.
func (s Settings) weekEnd() time.Weekday {
	if s.SundayFirst {
		return time.Saturday
	}
	return time.Sunday
}
