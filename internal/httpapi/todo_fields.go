package httpapi

import (
	"github.com/oapi-codegen/nullable"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
	"tincup/internal/httpapi/contract"
)

// todoField is a field of a to-do over HTTP. What is nil is not done with it.
type todoField struct {
	// name is the field's in the Book.
	name string
	// write writes it in an answer.
	write func(*writer, *book.Todo)
	// put reads it where a to-do is put in, patch where one is changed.
	put   func(*book.Capture, *contract.NewTodo) error
	patch func(*book.Edit, *contract.TodoPatch) error
	// many reads it where it is set for many at once.
	many func(*contract.Many) (func(book.ID) book.Command, error)
}

// todoFields is every field, in the order in which they are written. One that is missing
// here fails TestEveryFieldIsOverHTTP.
var todoFields = []todoField{
	{name: "title",
		write: func(w *writer, t *book.Todo) { w.string("title", t.Title) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { c.Title = in.Title; return nil },
		// An empty title is refused by the command.
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.Title = cleared(in.Title); return nil }},
	{name: "notes",
		write: func(w *writer, t *book.Todo) { w.bool("hasNotes", t.NotesSize > 0) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { c.Notes = orEmpty(in.Notes); return nil },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.Notes = cleared(in.Notes); return nil }},
	{name: "list",
		write: func(w *writer, t *book.Todo) {
			w.textOrNull("list", t.List)
			w.textIf("parent", t.Parent)
			w.textIf("section", t.Section)
		},
		put: func(c *book.Capture, in *contract.NewTodo) error {
			return firstOf(optional(&c.List, "list", in.List), optional(&c.Parent, "parent", in.Parent),
				optional(&c.Section, "section", in.Section), optional(&c.After, "after", in.After))
		},
		patch: func(e *book.Edit, in *contract.TodoPatch) error { return patched(&e.List, "list", in.List) }},
	{name: "status",
		write: func(w *writer, t *book.Todo) {
			w.string("status", t.Status.String())
			w.textOrNull("completed", t.Completed)
		},
		patch: func(e *book.Edit, in *contract.TodoPatch) error { return patched(&e.Status, "status", in.Status) }},
	{name: "priority",
		write: func(w *writer, t *book.Todo) { w.string("priority", t.Priority.String()) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { return ifSaid(&c.Priority, "priority", in.Priority) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error {
			return patched(&e.Priority, "priority", in.Priority)
		},
		many: func(in *contract.Many) (func(book.ID) book.Command, error) {
			if in.Priority == nil {
				return nil, &book.RuleError{Field: "priority", Reason: "The priority is missing."}
			}
			p, err := read[book.Priority]("priority", string(*in.Priority))
			return func(id book.ID) book.Command { return book.Edit{ID: id, Priority: &p} }, err
		}},
	{name: "start",
		write: func(w *writer, t *book.Todo) { w.textOrNull("start", t.Start) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { return optional(&c.Start, "start", in.Start) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { return patched(&e.Start, "start", in.Start) }},
	{name: "due",
		write: func(w *writer, t *book.Todo) { w.textOrNull("due", t.Due) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { return optional(&c.Due, "due", in.Due) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { return patched(&e.Due, "due", in.Due) },
		many: func(in *contract.Many) (func(book.ID) book.Command, error) {
			var due day.Moment
			err := optional(&due, "due", in.Due)
			return func(id book.ID) book.Command { return book.Edit{ID: id, Due: &due} }, err
		}},
	{name: "plan",
		write: func(w *writer, t *book.Todo) { w.textOrNull("plan", t.Plan) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { return optional(&c.Plan, "plan", in.Plan) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { return patched(&e.Plan, "plan", in.Plan) },
		many: func(in *contract.Many) (func(book.ID) book.Command, error) {
			var plan day.Horizon
			err := optional(&plan, "plan", in.Plan)
			return func(id book.ID) book.Command { return book.PlanFor{ID: id, Plan: plan} }, err
		}},
	{name: "tags", // a patch leaves them: they are added and removed
		write: func(w *writer, t *book.Todo) { w.tags(t.Tags) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { c.Tags = orNone(in.Tags); return nil }},
	{name: "person",
		write: func(w *writer, t *book.Todo) {
			if t.Person.Role != book.NoRole {
				w.any("person", encodeInvolved(t.Person))
			}
		},
		put: func(c *book.Capture, in *contract.NewTodo) error {
			if in.Person == nil {
				return nil
			}
			return readInvolved(&c.Person, &c.Role, in.Person.Id, in.Person.Role)
		},
		patch: func(e *book.Edit, in *contract.TodoPatch) error {
			if !in.Person.IsSpecified() {
				return nil
			}
			e.Person = &book.Involved{}
			p, err := in.Person.Get()
			if err != nil { // null takes the person away
				return nil
			}
			return readInvolved(&e.Person.ID, &e.Person.Role, p.Id, p.Role)
		}},
	{name: "repeat", // changed by commands of its own
		write: func(w *writer, t *book.Todo) {
			if t.Repeat != nil {
				w.any("repeat", encodeRepeat(t.Repeat))
			}
		},
		put: func(c *book.Capture, in *contract.NewTodo) error {
			if in.Repeat == nil {
				return nil
			}
			r, err := decodeRepeat(*in.Repeat)
			c.Repeat = &r
			return err
		}},
	{name: "handful", write: func(w *writer, t *book.Todo) { w.textIf("handful", t.Handful) }},
	{name: "kind",
		write: func(w *writer, t *book.Todo) { w.boolIf("isNote", t.IsNote) },
		put: func(c *book.Capture, in *contract.NewTodo) error {
			c.IsNote = in.IsNote != nil && *in.IsNote
			return nil
		},
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.IsNote = in.IsNote; return nil }},
	{name: "inOrder",
		write: func(w *writer, t *book.Todo) { w.boolIf("inOrder", t.InOrder) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.InOrder = in.InOrder; return nil }},
	{name: "attachments", write: func(w *writer, t *book.Todo) {
		if len(t.Attachments) > 0 {
			w.any("attachments", encodeAttachments(t.Attachments))
		}
	}},
	{name: "outcome",
		write: func(w *writer, t *book.Todo) { w.stringIf("outcome", t.Outcome) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.Outcome = cleared(in.Outcome); return nil }},
	{name: "source", write: func(w *writer, t *book.Todo) {
		if !t.Source.IsZero() {
			w.any("source", map[string]string{"link": t.Source.Link, "words": t.Source.Words})
		}
	}},
	{name: "place",
		write: func(w *writer, t *book.Todo) { w.stringIf("place", t.Place) },
		patch: func(e *book.Edit, in *contract.TodoPatch) error { e.Place = cleared(in.Place); return nil }},
	{name: "estimate",
		write: func(w *writer, t *book.Todo) { w.intIf("estimate", int64(t.Estimate)) },
		put:   func(c *book.Capture, in *contract.NewTodo) error { c.Estimate, _ = in.Estimate.Get(); return nil },
		patch: func(e *book.Edit, in *contract.TodoPatch) error {
			if in.Estimate.IsSpecified() {
				minutes, _ := in.Estimate.Get() // null clears
				e.Estimate = &minutes
			}
			return nil
		},
		many: func(in *contract.Many) (func(book.ID) book.Command, error) {
			minutes, _ := in.Estimate.Get() // null clears
			return func(id book.ID) book.Command { return book.Edit{ID: id, Estimate: &minutes} }, nil
		}},
	{name: "concentration",
		write: func(w *writer, t *book.Todo) {
			if t.Concentration != term.Unset {
				w.string("concentration", t.Concentration.String())
			}
		},
		put: func(c *book.Capture, in *contract.NewTodo) error {
			return orUnset(&c.Concentration, "concentration", in.Concentration)
		},
		patch: func(e *book.Edit, in *contract.TodoPatch) error {
			return patched(&e.Concentration, "concentration", in.Concentration)
		},
		many: func(in *contract.Many) (func(book.ID) book.Command, error) {
			var c term.Concentration
			err := orUnset(&c, "concentration", in.Concentration)
			return func(id book.ID) book.Command { return book.Edit{ID: id, Concentration: &c} }, err
		}},
	{name: "reminders", // added and removed
		write: func(w *writer, t *book.Todo) {
			if len(t.Reminders) > 0 {
				w.any("reminders", reminderTexts(t.Reminders))
			}
		},
		put: func(c *book.Capture, in *contract.NewTodo) (err error) {
			c.Reminders, err = readReminders(in.Reminders)
			return err
		}},
	{name: "record", write: func(w *writer, t *book.Todo) { w.textIf("record", t.Record) }},
	{name: "deleted", write: func(w *writer, t *book.Todo) { w.textOrNull("deleted", t.Deleted) }},
}

// ifSaid reads a word of a closed set where it is given.
func ifSaid[T any, S ~string, P interface {
	*T
	UnmarshalText([]byte) error
}](into *T, field string, in *S) (err error) {
	if in != nil {
		*into, err = read[T, P](field, string(*in))
	}
	return err
}

// orUnset reads a word of a closed set; null and absent leave what is unset.
func orUnset[T any, S ~string, P interface {
	*T
	UnmarshalText([]byte) error
}](into *T, field string, in nullable.Nullable[S]) (err error) {
	if word, absent := in.Get(); absent == nil {
		*into, err = read[T, P](field, string(word))
	}
	return err
}

func readInvolved(person *book.ID, role *book.Role, id string, word contract.Role) (err error) {
	if *person, err = read[book.ID]("person", id); err == nil {
		*role, err = read[book.Role]("role", string(word))
	}
	return err
}

func firstOf(errs ...error) error {
	for _, err := range errs {
		if err != nil {
			return err
		}
	}
	return nil
}

func orEmpty(n nullable.Nullable[string]) string {
	text, _ := n.Get() // null and absent are none
	return text
}

func orNone[T any](list *[]T) []T {
	if list == nil {
		return nil
	}
	return *list
}

// decodeEdit is the edit that a patch asks for, without its to-do.
func decodeEdit(in *contract.TodoPatch) (edit book.Edit, err error) {
	for _, f := range todoFields {
		if err == nil && f.patch != nil {
			err = f.patch(&edit, in)
		}
	}
	return edit, err
}
