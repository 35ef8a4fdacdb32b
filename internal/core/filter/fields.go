package filter

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// spec is all that a filter knows of a field. A field that is missing here cannot be
// asked for; one whose entry is not whole fails TestEveryFieldIsWhole.
type spec struct {
	ops []Op
	// words are those that a field of a closed set knows.
	words []string
	// vars name what the answer depends on, as the check tells it apart (world.go).
	vars []string
	// ask makes a test ready to be asked of many to-dos.
	ask func(*Matcher, *Test) question
	// holds answers a test from facts; whatever is absent answers no.
	holds func(t *Test, f *facts, today day.Date) bool
	// say says a test in plain English, and some that there is a value, where None says
	// that there is none.
	say  func(*Test, *book.Desk) string
	some string
}

var (
	dateOps = []Op{Before, After, On, WithinNext, WithinPast, Between, None}
	flagOps = []Op{Yes, No}
)

var (
	statusWords = []string{"needs-action", "in-process", "completed", "cancelled"}
	kindWords   = []string{"to-do", "note"}
)

// specs has an entry for each field.
var specs = merge(map[Field]*spec{
	Text: {ops: []Op{Contains}, vars: []string{"text"},
		ask:   func(m *Matcher, t *Test) question { return question{m.text(fold(t.Text)), 200} },
		holds: func(t *Test, f *facts, _ day.Date) bool { return strings.Contains(f.text, fold(t.Text)) },
		say: func(t *Test, _ *book.Desk) string {
			return fmt.Sprintf("with “%s” in its title or notes", t.Text)
		}},
	Place: {ops: []Op{Contains, None}, vars: []string{"place"}, some: "with a place",
		ask: askPlace,
		holds: func(t *Test, f *facts, _ day.Date) bool {
			if t.Op == None {
				return f.place == ""
			}
			return strings.Contains(f.place, fold(t.Text))
		},
		say: func(t *Test, _ *book.Desk) string {
			return orNone(t, "without a place", func() string { return fmt.Sprintf("with “%s” in its place", t.Text) })
		}},

	List:    row([]Op{AnyOf, None}, "home", "in ", "in no list", "in a list", func(f *facts) book.ID { return f.list }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.List }),
	Shelf:   row([]Op{AnyOf}, "home", "on the shelf ", "", "", func(f *facts) book.ID { return f.shelf }, 30, (*Matcher).shelf),
	Section: row([]Op{AnyOf, None}, "home", "in the section ", "in no section", "in a section", func(f *facts) book.ID { return f.section }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.Section }),
	Person:  row([]Op{AnyOf, None}, "person", "with ", "with nobody", "with somebody", func(f *facts) book.ID { return f.person }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.Person.ID }),
	Tag: {ops: []Op{AnyOf, AllOf, NoneOf, None}, some: "tagged", // its variables go by the tags that there are
		ask:   func(m *Matcher, t *Test) question { return question{m.tagged(t), 10} },
		holds: func(t *Test, f *facts, _ day.Date) bool { return t.tagged(f) },
		say: func(t *Test, b *book.Desk) string {
			switch t.Op {
			case None:
				return "untagged"
			case AllOf:
				return "tagged " + t.names(b, "and")
			case NoneOf:
				return "tagged none of " + t.names(b, "and")
			}
			return "tagged " + t.names(b, "or")
		}},

	Status: {ops: []Op{AnyOf}, words: statusWords, vars: []string{"status", "kind"},
		ask: func(_ *Matcher, t *Test) question {
			is := among(t, statusWords)
			return question{func(t *book.Todo) bool { return is[t.Status] && !t.IsNote }, 1}
		},
		holds: func(t *Test, f *facts, _ day.Date) bool {
			return !f.note && slices.Contains(t.Words, f.status.String())
		},
		say: func(t *Test, _ *book.Desk) string {
			return join(t.Words, "or", func(w string) string {
				return map[string]string{"needs-action": "not begun", "in-process": "begun"}[w] + keep(w, "completed", "cancelled")
			})
		}},
	Kind: {ops: []Op{AnyOf}, words: kindWords, vars: []string{"kind"},
		ask: func(_ *Matcher, t *Test) question {
			is := among(t, kindWords)
			return question{func(t *book.Todo) bool { return is[toInt(t.IsNote)] }, 1}
		},
		holds: func(t *Test, f *facts, _ day.Date) bool { return slices.Contains(t.Words, kindWords[toInt(f.note)]) },
		say: func(t *Test, _ *book.Desk) string {
			return join(t.Words, "or", func(w string) string { return "a " + w })
		}},
	Role: {ops: []Op{AnyOf}, words: []string{"ask", "waiting on", "for"}, vars: []string{"person"},
		ask: func(_ *Matcher, t *Test) question {
			is := among(t, []string{"", "ask", "waiting on", "for"})
			return question{func(t *book.Todo) bool { return t.Person.Role != book.NoRole && is[t.Person.Role] }, 1}
		},
		holds: func(t *Test, f *facts, _ day.Date) bool {
			return f.role != book.NoRole && slices.Contains(t.Words, f.role.String())
		},
		say: func(t *Test, _ *book.Desk) string {
			words := map[string]string{"ask": "to ask someone", "waiting on": "waiting on someone", "for": "for someone"}
			return join(t.Words, "or", func(w string) string { return words[w] })
		}},

	Due: date(append([]Op{TimeBetween}, dateOps...), "due", "due", "without a due", "with a due",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.due), f.dueTime, day.Date{}
		}),
	Plan: date(append([]Op{TimeBetween, Parked}, dateOps...), "plan", "planned", "without a plan", "with a plan or parked",
		func(f *facts, today day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return f.plan, f.planTime, f.planToday(today)
		}),
	Start: date(dateOps, "start", "starting", "without a start", "with a start",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.start), day.TimeOfDay{}, day.Date{}
		}),
	Created: date(dateOps[:6], "created", "put in", "", "",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.created), day.TimeOfDay{}, day.Date{}
		}),
	Completed: date(dateOps, "completed", "completed or cancelled", "neither completed nor cancelled", "completed or cancelled already",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.completed), day.TimeOfDay{}, day.Date{}
		}),
	Estimate: {ops: []Op{AtMost, AtLeast, None}, vars: []string{"estimate"}, some: "with an estimate",
		ask: func(_ *Matcher, t *Test) question { return question{estimate(t), 1} },
		holds: func(t *Test, f *facts, _ day.Date) bool {
			switch t.Op {
			case AtMost:
				return f.estimate > 0 && f.estimate <= t.Minutes
			case AtLeast:
				return f.estimate >= t.Minutes
			}
			return f.estimate == 0
		},
		say: func(t *Test, _ *book.Desk) string {
			switch t.Op {
			case AtMost:
				return fmt.Sprintf("taking at most %d min", t.Minutes)
			case AtLeast:
				return fmt.Sprintf("taking at least %d min", t.Minutes)
			}
			return "without an estimate"
		}},

	Overdue: flag("overdue", []string{"due", "status", "kind"}, func(f *facts) bool { return f.passed && f.status.Open() && !f.note }, 5, (*Matcher).overdue),
	Repeating: flag("repeating", []string{"repeating"}, func(f *facts) bool { return f.repeating }, 1,
		func(_ *Matcher, t *book.Todo) bool { return t.Repeat != nil && t.Record.IsZero() }),
	Paused: flag("paused", []string{"paused"}, func(f *facts) bool { return f.paused }, 2, func(_ *Matcher, t *book.Todo) bool { return t.Paused() }),
	HasSubtasks: flag("with subtasks", []string{"has-subtasks"}, func(f *facts) bool { return f.hasSubtasks }, 60,
		func(m *Matcher, t *book.Todo) bool { return m.book.HasSubtasks(t.ID) }),
	IsSubtask: flag("a subtask", []string{"is-subtask"}, func(f *facts) bool { return f.isSubtask }, 1,
		func(_ *Matcher, t *book.Todo) bool { return !t.Parent.IsZero() }),
	NextAction: flag("a next action", []string{"next-action"}, func(f *facts) bool { return f.next }, 400, (*Matcher).isNext),
	Attachment: flag("with a file", []string{"attachment"}, func(f *facts) bool { return f.attachment }, 8, // it lies far off in memory
		func(_ *Matcher, t *book.Todo) bool { return len(t.Attachments) > 0 }),
	InHandful: flag("in today's handful", []string{"in-handful"}, func(f *facts) bool { return f.handful }, 1,
		func(m *Matcher, t *book.Todo) bool { return t.Handful == m.today }),
}, choiceSpecs)

// merge is one table of two.
func merge(a, b map[Field]*spec) map[Field]*spec {
	for field, s := range b {
		a[field] = s
	}
	return a
}

// Fields returns every field that a filter can ask about, in the order of their names.
func Fields() []Field {
	fields := make([]Field, 0, len(specs))
	for f := range specs {
		fields = append(fields, f)
	}
	slices.Sort(fields)
	return fields
}
