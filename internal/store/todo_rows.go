package store

import (
	"context"
	"database/sql"
	"maps"
	"reflect"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/repeat"
)

// column is a column of todos and what a to-do has in it.
type column struct {
	name  string
	value func(*book.Todo) any
}

// fieldColumns are the columns of each field that a person can change. The text of
// notes is in a table of its own.
var fieldColumns = map[string][]column{
	"title": {{"title", func(t *book.Todo) any { return t.Title }}},
	"notes": {{"notes_size", func(t *book.Todo) any { return t.NotesSize }}},
	"list": {{"list", func(t *book.Todo) any { return id(t.List) }}, {"section", func(t *book.Todo) any { return id(t.Section) }},
		{"parent", func(t *book.Todo) any { return id(t.Parent) }}, {"position", func(t *book.Todo) any { return string(t.Position) }}},
	"kind":        {{"is_note", func(t *book.Todo) any { return t.IsNote }}},
	"inOrder":     {{"in_order", func(t *book.Todo) any { return t.InOrder }}},
	"outcome":     {{"outcome", func(t *book.Todo) any { return t.Outcome }}},
	"place":       {{"place", func(t *book.Todo) any { return t.Place }}},
	"handful":     {{"handful", func(t *book.Todo) any { return t.Handful.String() }}},
	"attachments": {{"attachments", func(t *book.Todo) any { return attachments(t.Attachments) }}},
	"status": {{"status", func(t *book.Todo) any { return t.Status.String() }},
		{"completed", func(t *book.Todo) any { return int64(t.Completed) }}},
	"priority":  {{"priority", func(t *book.Todo) any { return t.Priority.String() }}},
	"start":     {{"start", func(t *book.Todo) any { return t.Start.String() }}},
	"due":       {{"due", func(t *book.Todo) any { return t.Due.String() }}},
	"plan":      {{"plan", func(t *book.Todo) any { return t.Plan.String() }}},
	"estimate":  {{"estimate", func(t *book.Todo) any { return t.Estimate }}},
	"reminders": {{"reminders", func(t *book.Todo) any { return joinReminders(t.Reminders) }}},
	"person": {{"person", func(t *book.Todo) any { return id(t.Person.ID) }}, {"role", func(t *book.Todo) any { return t.Person.Role.String() }},
		{"since", func(t *book.Todo) any { return t.Person.Since.String() }}},
	"repeat":  {{"repeat", func(t *book.Todo) any { return repeated{t.Repeat} }}},
	"record":  {{"record", func(t *book.Todo) any { return id(t.Record) }}},
	"deleted": {{"deleted", func(t *book.Todo) any { return int64(t.Deleted) }}},
	"tags":    {{"tags", func(t *book.Todo) any { return tagList(t.Tags) }}},
}

// always are written with every change.
var always = []column{
	{"changed", func(t *book.Todo) any { return int64(t.Changed) }},
	{"revision", func(t *book.Todo) any { return t.Revision }},
}

// whole is every column of a new row.
var whole = func() []column {
	columns := []column{
		{"id", func(t *book.Todo) any { return id(t.ID) }},
		{"created", func(t *book.Todo) any { return int64(t.Created) }},
	}
	for _, field := range slices.Sorted(maps.Keys(fieldColumns)) {
		columns = append(columns, fieldColumns[field]...)
	}
	return append(columns, always...)
}()

var insertQuery = func() string {
	names := make([]string, len(whole))
	for i, c := range whole {
		names[i] = c.name
	}
	return "INSERT INTO todos (" + strings.Join(names, ", ") + ") VALUES (?" + strings.Repeat(", ?", len(names)-1) + ")"
}()

func insertTodo(w writer, t *book.Todo) error {
	args := make([]any, len(whole))
	for i, c := range whole {
		args[i] = c.value(t)
	}
	return w.exec(insertQuery, args...)
}

// saveTodos writes rows. Those that get the same values in the same columns are
// written by one statement, as after an edit of many.
func saveTodos(w writer, diffs []book.Diff[book.Todo]) error {
	var alike batch
	for _, d := range diffs {
		if d.Before == nil || d.After == nil {
			if err := alike.write(w); err != nil {
				return err
			}
		}
		var err error
		switch {
		case d.After == nil:
			err = w.exec(deleteTodo, id(d.Before.ID))
		case d.Before == nil:
			err = insertTodo(w, d.After)
		default:
			err = alike.add(w, d)
		}
		if err != nil {
			return err
		}
	}
	return alike.write(w)
}

// update writes some fields of a row, or of manyRows at once.
type update struct {
	one, many string
	columns   []column
	// placed: the position is written as well, of each row its own.
	placed bool
}

// written is what an update writes: some fields, and of where a to-do stands the
// columns that differ.
type written struct {
	fields book.Fields
	place  place
}

type place struct{ list, section, parent, position bool }

// manyRows is how many rows one statement changes, where there are so many.
const manyRows = 50

// batch is rows that get the same values, but for their positions.
type batch struct {
	update update
	values []any
	rows   []any // of each row its position, where that is written, and its id
	count  int
}

// add takes a row in, after writing what is there where the row is unlike it.
// Only what was altered is written, so that a change costs what it touches.
func (b *batch) add(w writer, d book.Diff[book.Todo]) error {
	was, t := d.Before, d.After
	what := written{book.Altered(was, t), place{was.List != t.List, was.Section != t.Section, was.Parent != t.Parent, was.Position != t.Position}}
	u, ok := w.store.updates[what]
	if !ok {
		u = makeUpdate(what)
		w.store.updates[what] = u
	}
	values := make([]any, 0, len(u.columns))
	for _, c := range u.columns {
		values = append(values, c.value(t))
	}
	if b.update.one != u.one || !reflect.DeepEqual(b.values, values) {
		if err := b.write(w); err != nil {
			return err
		}
		b.update, b.values = u, values
	}
	if u.placed {
		b.rows = append(b.rows, string(t.Position))
	}
	b.rows = append(b.rows, id(t.ID))
	b.count++
	return nil
}

func (b *batch) write(w writer) error {
	for b.count > 0 {
		query, n := b.update.one, 1
		if b.count >= manyRows {
			query, n = b.update.many, manyRows
		}
		b.count -= n
		if b.update.placed {
			n *= 2
		}
		if err := w.exec(query, slices.Concat(b.values, b.rows[:n])...); err != nil {
			return err
		}
		b.rows = b.rows[n:]
	}
	return nil
}

func makeUpdate(what written) update {
	var u update
	differs := map[string]bool{"list": what.place.list, "section": what.place.section, "parent": what.place.parent}
	for _, field := range what.fields.Names() {
		for _, c := range fieldColumns[field] {
			switch {
			case field != "list" || differs[c.name]:
				u.columns = append(u.columns, c)
			case c.name == "position":
				u.placed = what.place.position
			}
		}
	}
	u.columns = append(u.columns, always...)
	sets := make([]string, len(u.columns))
	for i, c := range u.columns {
		sets[i] = c.name + " = ?"
	}
	set := "UPDATE todos SET " + strings.Join(sets, ", ")
	if !u.placed {
		u.one = set + " WHERE id = ?"
		u.many = set + " WHERE id IN (?" + strings.Repeat(", ?", manyRows-1) + ")"
		return u
	}
	u.one = set + ", position = ? WHERE id = ?"
	u.many = set + ", position = v.column1 FROM (VALUES (?, ?)" + strings.Repeat(", (?, ?)", manyRows-1) + ") AS v WHERE todos.id = v.column2"
	return u
}

const selectTodos = `SELECT id, title, notes_size, list, position, status, priority, start, due, plan, created, changed, completed,
	deleted, revision, parent, estimate, reminders, person, role, since, repeat, record, section, is_note, in_order, handful, attachments, outcome, place, tags
	FROM todos`

func loadTodos(ctx context.Context, db *sql.DB, into *book.Change) error {
	return each(ctx, db, selectTodos, func(r *sql.Rows) error {
		t := &book.Todo{}
		err := r.Scan((*id)(&t.ID), &t.Title, &t.NotesSize, (*id)(&t.List), &t.Position, text{&t.Status},
			text{&t.Priority}, text{&t.Start}, text{&t.Due}, text{&t.Plan},
			&t.Created, &t.Changed, &t.Completed, &t.Deleted, &t.Revision, (*id)(&t.Parent), &t.Estimate,
			(*reminders)(&t.Reminders), (*id)(&t.Person.ID), text{&t.Person.Role}, text{&t.Person.Since},
			packed[*repeat.Repeat]{&t.Repeat}, (*id)(&t.Record), (*id)(&t.Section), &t.IsNote, &t.InOrder, text{&t.Handful},
			packed[attachments]{(*attachments)(&t.Attachments)}, &t.Outcome, &t.Place, (*tagList)(&t.Tags))
		into.Todos = append(into.Todos, book.Diff[book.Todo]{After: t})
		return err
	})
}
