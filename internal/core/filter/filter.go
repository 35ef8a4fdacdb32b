package filter

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Bounds of a filter.
const (
	MaxDepth = 40
	MaxTests = 300
	MaxText  = 500    // characters of a text test
	MaxDays  = 36_500 // of a relative date
)

// Filter is a tree of tests. The zero Filter holds everything.
type Filter struct{ root *node }

// kind says what a node is.
type kind uint8

const (
	isTest kind = iota
	isAll
	isAny
	isNot
)

type node struct {
	kind  kind
	nodes []*node // of all and any; one of not
	test  *Test
	path  string // where it stands, as a JSON pointer (RFC 6901)
}

// Test is one question about one field. Which parts are set depends on Op.
type Test struct {
	Field Field
	spec  *spec // of the field
	Op    Op
	// Text is what a text, or a place, contains.
	Text string
	// IDs are lists, shelves, sections, tags or people; Words are priorities,
	// statuses, kinds or roles.
	IDs   []book.ID
	Words []string
	// Date and To are days; Days is a number of days.
	Date, To When
	Days     int
	// From and Until are times of the day, both counted in.
	From, Until day.TimeOfDay
	Minutes     int
}

// Field is what a test is about.
type Field string

// The fields.
const (
	Text        Field = "text"
	Place       Field = "place"
	List        Field = "list"
	Shelf       Field = "shelf"
	Section     Field = "section"
	Tag         Field = "tag"
	Priority    Field = "priority"
	Status      Field = "status"
	Kind        Field = "kind"
	Due         Field = "due"
	Start       Field = "start"
	Plan        Field = "plan"
	Created     Field = "created"
	Completed   Field = "completed"
	Overdue     Field = "overdue"
	Estimate    Field = "estimate"
	Repeating   Field = "repeating"
	Paused      Field = "paused"
	HasSubtasks Field = "has-subtasks"
	IsSubtask   Field = "is-subtask"
	NextAction  Field = "next-action"
	Person      Field = "person"
	Role        Field = "role"
	Attachment  Field = "attachment"
	InHandful   Field = "in-handful"
)

// Op is what a test asks.
type Op string

// The operators. None is true of an absent value: in the Cup, untagged,
// unassigned, without a due.
const (
	Contains    Op = "contains"
	AnyOf       Op = "any-of"
	AllOf       Op = "all-of"
	NoneOf      Op = "none-of"
	None        Op = "none"
	Before      Op = "before"
	After       Op = "after"
	On          Op = "on"
	WithinNext  Op = "within-next"
	WithinPast  Op = "within-past"
	Between     Op = "between"
	TimeBetween Op = "time-between"
	AtMost      Op = "at-most"
	AtLeast     Op = "at-least"
	Parked      Op = "parked" // a plan for some time, maybe
	Yes         Op = "yes"
	No          Op = "no"
)

// When is a day, fixed or counted from today. The zero When is none.
type When struct {
	date     day.Date
	days     int
	relative bool
}

// Fixed is a day of the calendar.
func Fixed(d day.Date) When { return When{date: d} }

// FromToday is so many days after today, or before.
func FromToday(days int) When { return When{days: days, relative: true} }

// IsZero reports whether there is no day.
func (w When) IsZero() bool { return !w.relative && w.date.IsZero() }

// At returns the day as of a today.
func (w When) At(today day.Date) day.Date {
	if w.relative {
		return today.AddDays(w.days)
	}
	return w.date
}

// tests calls f for every test with its polarity: positive where making the
// test true can only make the filter truer.
func (f Filter) tests(visit func(n *node, positive bool)) {
	var walk func(n *node, positive bool)
	walk = func(n *node, positive bool) {
		switch {
		case n == nil:
		case n.kind == isTest:
			visit(n, positive)
		default:
			for _, sub := range n.nodes {
				walk(sub, positive != (n.kind == isNot))
			}
		}
	}
	walk(f.root, true)
}
