package store

import (
	"context"
	"database/sql"
	"maps"
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

// fieldColumns are the columns of each field that a person can change; what is
// in no column here, such as tags, is in a table of its own.
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
	"tags":    {},
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

// update writes some fields of a row.
type update struct {
	query   string
	columns []column
}

// updateTodo writes what was altered, so that a change costs what it touches.
func updateTodo(w writer, t *book.Todo, altered book.Fields) error {
	u, ok := w.store.updates[altered]
	if !ok {
		u = makeUpdate(altered)
		w.store.updates[altered] = u
	}
	args := make([]any, 0, len(u.columns)+1)
	for _, c := range u.columns {
		args = append(args, c.value(t))
	}
	return w.exec(u.query, append(args, id(t.ID))...)
}

func makeUpdate(altered book.Fields) update {
	var u update
	for _, field := range altered.Names() {
		u.columns = append(u.columns, fieldColumns[field]...)
	}
	u.columns = append(u.columns, always...)
	sets := make([]string, len(u.columns))
	for i, c := range u.columns {
		sets[i] = c.name + " = ?"
	}
	u.query = "UPDATE todos SET " + strings.Join(sets, ", ") + " WHERE id = ?"
	return u
}

const selectTodos = `SELECT id, title, notes_size, list, position, status, priority, start, due, plan, created, changed, completed,
	deleted, revision, parent, estimate, reminders, person, role, since, repeat, record, section, is_note, in_order, handful, attachments, outcome, place
	FROM todos`

func loadTodos(ctx context.Context, db *sql.DB, into *book.Change) error {
	tags := map[book.ID][]book.ID{}
	err := each(ctx, db, "SELECT todo, tag FROM todo_tags ORDER BY todo, nth", func(r *sql.Rows) error {
		var todo, tag book.ID
		err := r.Scan((*id)(&todo), (*id)(&tag))
		tags[todo] = append(tags[todo], tag)
		return err
	})
	if err != nil {
		return err
	}
	return each(ctx, db, selectTodos, func(r *sql.Rows) error {
		t := &book.Todo{}
		err := r.Scan((*id)(&t.ID), &t.Title, &t.NotesSize, (*id)(&t.List), &t.Position, text{&t.Status},
			text{&t.Priority}, text{&t.Start}, text{&t.Due}, text{&t.Plan},
			&t.Created, &t.Changed, &t.Completed, &t.Deleted, &t.Revision, (*id)(&t.Parent), &t.Estimate,
			(*reminders)(&t.Reminders), (*id)(&t.Person.ID), text{&t.Person.Role}, text{&t.Person.Since},
			packed[*repeat.Repeat]{&t.Repeat}, (*id)(&t.Record), (*id)(&t.Section), &t.IsNote, &t.InOrder, text{&t.Handful},
			packed[attachments]{(*attachments)(&t.Attachments)}, &t.Outcome, &t.Place)
		t.Tags = tags[t.ID]
		into.Todos = append(into.Todos, book.Diff[book.Todo]{After: t})
		return err
	})
}
