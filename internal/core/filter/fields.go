package filter

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// spec is all that a filter knows of a field. A field that is missing here cannot be
// asked for; one whose entry is not whole fails TestEveryFieldIsWhole.
type spec struct {
	// vars name what the answer depends on, as the check tells it apart (world.go).
	vars []string
	// ask makes a test ready to be asked of many to-dos.
	ask func(*Matcher, *question.Test) predicate
	// holds answers a test from facts; whatever is absent answers no.
	holds func(t *question.Test, f *facts, today day.Date) bool
	// say says a test in plain English, and some that there is a value, where None says
	// that there is none.
	say  func(*question.Test, *book.Desk) string
	some string
}

// specs has an entry for each field.
var specs = merge(map[question.Field]*spec{
	question.Text: {vars: []string{"text"},
		ask:   func(m *Matcher, t *question.Test) predicate { return predicate{m.text(fold(t.Text)), 200} },
		holds: func(t *question.Test, f *facts, _ day.Date) bool { return strings.Contains(f.text, fold(t.Text)) },
		say: func(t *question.Test, _ *book.Desk) string {
			return fmt.Sprintf("with “%s” in its title or notes", t.Text)
		}},
	question.Place: {vars: []string{"place"}, some: "with a place",
		ask: askPlace,
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			if t.Op == question.None {
				return f.place == ""
			}
			return strings.Contains(f.place, fold(t.Text))
		},
		say: func(t *question.Test, _ *book.Desk) string {
			return orNone(t, "without a place", func() string { return fmt.Sprintf("with “%s” in its place", t.Text) })
		}},

	question.List:    row("home", "in ", "in no list", "in a list", func(f *facts) book.ID { return f.list }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.List }),
	question.Shelf:   row("home", "on the shelf ", "", "", func(f *facts) book.ID { return f.shelf }, 30, (*Matcher).shelf),
	question.Section: row("home", "in the section ", "in no section", "in a section", func(f *facts) book.ID { return f.section }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.Section }),
	question.Person:  row("person", "with ", "with nobody", "with somebody", func(f *facts) book.ID { return f.person }, 4, func(_ *Matcher, t *book.Todo) book.ID { return t.Person.ID }),
	question.Tag: {some: "tagged", // its variables go by the tags that there are
		ask:   func(m *Matcher, t *question.Test) predicate { return predicate{m.tagged(t), 10} },
		holds: func(t *question.Test, f *facts, _ day.Date) bool { return isTagged(t, f) },
		say: func(t *question.Test, b *book.Desk) string {
			switch t.Op {
			case question.None:
				return "untagged"
			case question.AllOf:
				return "tagged " + names(t, b, "and")
			case question.NoneOf:
				return "tagged none of " + names(t, b, "and")
			}
			return "tagged " + names(t, b, "or")
		}},

	question.Status: {vars: []string{"status", "kind"},
		ask: func(_ *Matcher, t *question.Test) predicate {
			is := among(t, question.Status.Words())
			return predicate{func(t *book.Todo) bool { return is[t.Status] && !t.IsNote }, 1}
		},
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			return !f.note && slices.Contains(t.Words, f.status.String())
		},
		say: func(t *question.Test, _ *book.Desk) string {
			return join(t.Words, "or", func(w string) string {
				return map[string]string{"needs-action": "not begun", "in-process": "begun"}[w] + keep(w, "completed", "cancelled")
			})
		}},
	question.Kind: {vars: []string{"kind"},
		ask: func(_ *Matcher, t *question.Test) predicate {
			is := among(t, question.Kind.Words())
			return predicate{func(t *book.Todo) bool { return is[toInt(t.IsNote)] }, 1}
		},
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			return slices.Contains(t.Words, question.Kind.Words()[toInt(f.note)])
		},
		say: func(t *question.Test, _ *book.Desk) string {
			return join(t.Words, "or", func(w string) string { return "a " + w })
		}},
	question.Role: {vars: []string{"person"},
		ask: func(_ *Matcher, t *question.Test) predicate {
			is := among(t, []string{"", "ask", "waiting on", "for"})
			return predicate{func(t *book.Todo) bool { return t.Person.Role != book.NoRole && is[t.Person.Role] }, 1}
		},
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			return f.role != book.NoRole && slices.Contains(t.Words, f.role.String())
		},
		say: func(t *question.Test, _ *book.Desk) string {
			words := map[string]string{"ask": "to ask someone", "waiting on": "waiting on someone", "for": "for someone"}
			return join(t.Words, "or", func(w string) string { return words[w] })
		}},

	question.Due: date("due", "due", "without a due", "with a due",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.due), f.dueTime, day.Date{}
		}),
	question.Plan: date("plan", "planned", "without a plan", "with a plan or parked",
		func(f *facts, today day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return f.plan, f.planTime, f.planToday(today)
		}),
	question.Start: date("start", "starting", "without a start", "with a start",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.start), day.TimeOfDay{}, day.Date{}
		}),
	question.Created: date("created", "put in", "", "",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.created), day.TimeOfDay{}, day.Date{}
		}),
	question.Completed: date("completed", "completed or cancelled", "neither completed nor cancelled", "completed or cancelled already",
		func(f *facts, _ day.Date) (day.Horizon, day.TimeOfDay, day.Date) {
			return day.OnDay(f.completed), day.TimeOfDay{}, day.Date{}
		}),
	question.Estimate: {vars: []string{"estimate"}, some: "with an estimate",
		ask: func(_ *Matcher, t *question.Test) predicate { return predicate{estimate(t), 1} },
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			switch t.Op {
			case question.AtMost:
				return f.estimate > 0 && f.estimate <= t.Minutes
			case question.AtLeast:
				return f.estimate >= t.Minutes
			}
			return f.estimate == 0
		},
		say: func(t *question.Test, _ *book.Desk) string {
			switch t.Op {
			case question.AtMost:
				return fmt.Sprintf("taking at most %d min", t.Minutes)
			case question.AtLeast:
				return fmt.Sprintf("taking at least %d min", t.Minutes)
			}
			return "without an estimate"
		}},

	question.Slack: {vars: []string{"slack"}, some: "with a due ahead",
		ask: func(m *Matcher, t *question.Test) predicate { return predicate{m.slack(t), 150} },
		holds: func(t *question.Test, f *facts, _ day.Date) bool {
			switch t.Op {
			case question.AtMost:
				return f.hasSlack && f.slack <= t.Minutes
			case question.AtLeast:
				return f.hasSlack && f.slack >= t.Minutes
			}
			return !f.hasSlack
		},
		say: func(t *question.Test, _ *book.Desk) string {
			switch t.Op {
			case question.AtMost:
				return fmt.Sprintf("with at most %d min to spare", t.Minutes)
			case question.AtLeast:
				return fmt.Sprintf("with at least %d min to spare", t.Minutes)
			}
			return "without a due ahead"
		}},
	question.AtRisk: flag("at risk", []string{"slack"}, func(f *facts) bool { return f.hasSlack && f.slack < 0 }, 150,
		func(m *Matcher, t *book.Todo) bool { spare, known := m.book.Spare(t); return known && spare < 0 }),

	question.Overdue: flag("overdue", []string{"due", "status", "kind"}, func(f *facts) bool { return f.passed && f.status.Open() && !f.note }, 5, (*Matcher).overdue),
	question.Repeating: flag("repeating", []string{"repeating"}, func(f *facts) bool { return f.repeating }, 1,
		func(_ *Matcher, t *book.Todo) bool { return t.Repeat != nil && t.Record.IsZero() }),
	question.Paused: flag("paused", []string{"paused"}, func(f *facts) bool { return f.paused }, 2, func(_ *Matcher, t *book.Todo) bool { return t.Paused() }),
	question.HasSubtasks: flag("with subtasks", []string{"has-subtasks"}, func(f *facts) bool { return f.hasSubtasks }, 60,
		func(m *Matcher, t *book.Todo) bool { return m.book.HasSubtasks(t.ID) }),
	question.IsSubtask: flag("a subtask", []string{"is-subtask"}, func(f *facts) bool { return f.isSubtask }, 1,
		func(_ *Matcher, t *book.Todo) bool { return !t.Parent.IsZero() }),
	question.NextAction: flag("a next action", []string{"next-action"}, func(f *facts) bool { return f.next }, 400, (*Matcher).isNext),
	question.Attachment: flag("with a file", []string{"attachment"}, func(f *facts) bool { return f.attachment }, 8, // it lies far off in memory
		func(_ *Matcher, t *book.Todo) bool { return len(t.Attachments) > 0 }),
	question.InHandful: flag("in today's handful", []string{"in-handful"}, func(f *facts) bool { return f.handful }, 1,
		func(m *Matcher, t *book.Todo) bool { return t.Handful == m.today }),
	question.PlannedPast: flag("planned past its due", []string{"planned-past-due"}, func(f *facts) bool { return f.plannedPast }, 10, (*Matcher).plannedPast),
}, choiceSpecs)

// merge is one table of two.
func merge(a, b map[question.Field]*spec) map[question.Field]*spec {
	for field, s := range b {
		a[field] = s
	}
	return a
}
