package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
)

// MaxMonths is how many months Upcoming shows beyond its days at most.
const MaxMonths = 12

// Query is one question.
type Query struct {
	// Of is what it is about.
	Of Subject
	// Narrow holds of every row, beside what the subject asks.
	Narrow filter.Filter
	// Group and Order, if set, take the place of the subject's own; UrgentDays is
	// for a two-by-two.
	Group      Grouping
	Order      []Key
	UrgentDays int
	// Months is how many months Upcoming shows beyond its days, 0 to MaxMonths.
	Months int
	// Offset and Limit choose rows, counted over all groups in order. A Limit
	// of 0 gives none but the counts.
	Offset, Limit int
}

// Kind says what holds a group together.
type Kind string

// The kinds of groups. Those with a day, week or month carry it in Horizon.
const (
	ToSort         Kind = "to-sort"
	LaidBy         Kind = "laid-by"
	PeopleAndNotes Kind = "people-and-notes"
	Late           Kind = "overdue"
	DueToday       Kind = "due-today"
	PlannedToday   Kind = "planned-today"
	CarriedOver    Kind = "carried-over"
	CanStart       Kind = "can-start"
	ThisWeek       Kind = "this-week"
	ThisMonth      Kind = "this-month"
	OnDay          Kind = "day"
	InWeek         Kind = "week"
	InMonth        Kind = "month"
	Planned        Kind = "planned"
	DueThen        Kind = "due"
	DueElsewhere   Kind = "due-planned-elsewhere"
	PausedKind     Kind = "paused"
	Coming         Kind = "comes-round"
	Ended          Kind = "ended"
	Handful        Kind = "handful"
	InSection      Kind = "section"
	Ticked         Kind = "ticked"
	Tagged         Kind = "tagged"
	ToAsk          Kind = "to-ask"
	TheyOwe        Kind = "they-owe"
	ForThem        Kind = "for-them"
	OfPlace        Kind = "at-place"
	All            Kind = "all"
)

// Group is rows that belong together.
type Group struct {
	Kind    Kind
	Horizon day.Horizon
	// Of is the section, the tag or the place of a group that is one's.
	Of book.ID
	// Count is all of the group's rows, also those outside Offset and Limit.
	// Notes of them are kind note, which a person is told no count of.
	Count, Notes int
	// Minutes is the work in it: of each row its estimate, or that of its
	// subtasks here where that is more. Assumed is what stands for the estimates that rows have
	// not, in minutes: it is beside Minutes.
	Minutes, Assumed int
	Rows             []Row
	// ComesRound are to-dos of other days whose repeat has a date on this one.
	// They are neither rows nor counted.
	ComesRound []*book.Todo
	// Lists are those that are due here, the earliest first. They are neither rows nor counted.
	Lists []ListRow
	code  uint8
}

// ListRow is a list with a due, as it stands in a view.
type ListRow struct {
	List     *book.List
	Progress book.Progress
	// Late: the due has passed, DaysLate days ago.
	Late     bool
	DaysLate int
}

// Row is a to-do as it stands in a view.
type Row struct {
	Todo *book.Todo
	// Late: the due has passed. DaysLate counts whole days, 0 when it passed
	// earlier today.
	Late     bool
	DaysLate int
	// Dimmed: its start has not come yet.
	Dimmed bool
	// Depth is how deep it stands below another row of its group; Path names
	// the to-dos above one whose parent is not there.
	Depth int
	Path  []string
	// Progress is that of a project, with a Total of 0 where it has no
	// subtasks.
	Progress book.Progress
	// Standing is how a project stands, in Projects.
	Standing *Standing
	// Why says why the row stands where it does, in Ready.
	Why string
	// Waited is how many days someone has been waited for, in Waiting.
	Waited int
}

// Result is the answer to a Query.
type Result struct {
	Groups []Group
	// Total is the rows of all groups.
	Total int
	// Beyond is what Upcoming would show with more months.
	Beyond int
}
