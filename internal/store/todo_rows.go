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

// column is a column of todos, what a to-do has in it, and where what is read goes.
type column struct {
	name  string
	value func(*book.Todo) any
	scan  func(*book.Todo) any
}

// fieldColumns are the columns of each field that a person can change: in todos, or in
// personal where each account has the field for itself (book.Personal). The text of
// notes is in a table of its own. A field that is missing here fails TestEveryColumn.
var fieldColumns = map[string][]column{
	"title": {{"title", func(t *book.Todo) any { return t.Title }, func(t *book.Todo) any { return &t.Title }}},
	"notes": {{"notes_size", func(t *book.Todo) any { return t.NotesSize }, func(t *book.Todo) any { return &t.NotesSize }}},
	"list": {{"list", func(t *book.Todo) any { return id(t.List) }, func(t *book.Todo) any { return (*id)(&t.List) }},
		{"section", func(t *book.Todo) any { return id(t.Section) }, func(t *book.Todo) any { return (*id)(&t.Section) }},
		{"parent", func(t *book.Todo) any { return id(t.Parent) }, func(t *book.Todo) any { return (*id)(&t.Parent) }},
		{"position", func(t *book.Todo) any { return string(t.Position) }, func(t *book.Todo) any { return &t.Position }}},
	"kind":        {{"is_note", func(t *book.Todo) any { return t.IsNote }, func(t *book.Todo) any { return &t.IsNote }}},
	"inOrder":     {{"in_order", func(t *book.Todo) any { return t.InOrder }, func(t *book.Todo) any { return &t.InOrder }}},
	"outcome":     {{"outcome", func(t *book.Todo) any { return t.Outcome }, func(t *book.Todo) any { return &t.Outcome }}},
	"source":      {{"source", func(t *book.Todo) any { return madeOf(t.Source) }, func(t *book.Todo) any { return (*madeOf)(&t.Source) }}},
	"place":       {{"place", func(t *book.Todo) any { return t.Place }, func(t *book.Todo) any { return &t.Place }}},
	"handful":     {{"handful", func(t *book.Todo) any { return t.Handful.String() }, func(t *book.Todo) any { return text{&t.Handful} }}},
	"attachments": {{"attachments", func(t *book.Todo) any { return attachments(t.Attachments) }, func(t *book.Todo) any { return packed[attachments]{(*attachments)(&t.Attachments)} }}},
	"status": {{"status", func(t *book.Todo) any { return t.Status.String() }, func(t *book.Todo) any { return text{&t.Status} }},
		{"completed", func(t *book.Todo) any { return int64(t.Completed) }, func(t *book.Todo) any { return &t.Completed }},
		{"cleared", func(t *book.Todo) any { return t.Cleared }, func(t *book.Todo) any { return &t.Cleared }}},
	"priority":      {{"priority", func(t *book.Todo) any { return t.Priority.String() }, func(t *book.Todo) any { return text{&t.Priority} }}},
	"start":         {{"start", func(t *book.Todo) any { return t.Start.String() }, func(t *book.Todo) any { return text{&t.Start} }}},
	"due":           {{"due", func(t *book.Todo) any { return t.Due.String() }, func(t *book.Todo) any { return text{&t.Due} }}},
	"plan":          {{"plan", func(t *book.Todo) any { return t.Plan.String() }, func(t *book.Todo) any { return text{&t.Plan} }}},
	"estimate":      {{"estimate", func(t *book.Todo) any { return t.Estimate }, func(t *book.Todo) any { return &t.Estimate }}},
	"concentration": {{"concentration", func(t *book.Todo) any { return t.Concentration.String() }, func(t *book.Todo) any { return text{&t.Concentration} }}},
	"reminders":     {{"reminders", func(t *book.Todo) any { return joinReminders(t.Reminders) }, func(t *book.Todo) any { return (*reminders)(&t.Reminders) }}},
	"person": {{"person", func(t *book.Todo) any { return id(t.Person.ID) }, func(t *book.Todo) any { return (*id)(&t.Person.ID) }},
		{"role", func(t *book.Todo) any { return t.Person.Role.String() }, func(t *book.Todo) any { return text{&t.Person.Role} }},
		{"since", func(t *book.Todo) any { return t.Person.Since.String() }, func(t *book.Todo) any { return text{&t.Person.Since} }}},
	"repeat":  {{"repeat", func(t *book.Todo) any { return repeated{t.Repeat} }, func(t *book.Todo) any { return packed[*repeat.Repeat]{&t.Repeat} }}},
	"record":  {{"record", func(t *book.Todo) any { return id(t.Record) }, func(t *book.Todo) any { return (*id)(&t.Record) }}},
	"deleted": {{"deleted", func(t *book.Todo) any { return int64(t.Deleted) }, func(t *book.Todo) any { return &t.Deleted }}},
	"tags":    {{"tags", func(t *book.Todo) any { return tagList(t.Tags) }, func(t *book.Todo) any { return (*tagList)(&t.Tags) }}},
}

// always are written with every change.
var always = []column{
	{"changed", func(t *book.Todo) any { return int64(t.Changed) }, func(t *book.Todo) any { return &t.Changed }},
	{"revision", func(t *book.Todo) any { return t.Revision }, func(t *book.Todo) any { return &t.Revision }},
}

// whole is every column of a new row of todos but its owner.
var whole = func() []column {
	columns := []column{
		{"id", func(t *book.Todo) any { return id(t.ID) }, func(t *book.Todo) any { return (*id)(&t.ID) }},
		{"created", func(t *book.Todo) any { return int64(t.Created) }, func(t *book.Todo) any { return &t.Created }},
		{"uid", func(t *book.Todo) any { return t.UID }, func(t *book.Todo) any { return &t.UID }},
	}
	for _, field := range slices.Sorted(maps.Keys(fieldColumns)) {
		if !book.Personal(field) {
			columns = append(columns, fieldColumns[field]...)
		}
	}
	return append(columns, always...)
}()

var insertQuery = "INSERT INTO todos (owner, " + columnNames(whole) + ") VALUES (?" + strings.Repeat(", ?", len(whole)) + ")"

func columnNames(columns []column) string {
	names := make([]string, len(columns))
	for i, c := range columns {
		names[i] = c.name
	}
	return strings.Join(names, ", ")
}

func insertTodo(w writer, owner id, t *book.Todo) error {
	args := make([]any, 0, len(whole)+1)
	args = append(args, owner)
	for _, c := range whole {
		args = append(args, c.value(t))
	}
	return w.exec(insertQuery, args...)
}

// saveTodos writes rows. Those that get the same values in the same columns are
// written by one statement, as after an edit of many.
func saveTodos(w writer, actor book.ID, diffs []book.Diff[book.Todo]) error {
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
			err = insertTodo(w, id(actor), d.After)
		default:
			err = alike.add(w, d)
		}
		if err != nil {
			return err
		}
	}
	if err := alike.write(w); err != nil {
		return err
	}
	return savePersonal(w, id(actor), diffs)
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
	home   home
}

type home struct{ list, section, parent, position bool }

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
	what := written{book.Altered(was, t), home{was.List != t.List, was.Section != t.Section, was.Parent != t.Parent, was.Position != t.Position}}
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
	differs := map[string]bool{"list": what.home.list, "section": what.home.section, "parent": what.home.parent}
	for _, field := range what.fields.Names() {
		if book.Personal(field) {
			continue
		}
		for _, c := range fieldColumns[field] {
			switch {
			case field != "list" || differs[c.name]:
				u.columns = append(u.columns, c)
			case c.name == "position":
				u.placed = what.home.position
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

// selectTodos reads every to-do with its owner and what that one has of it for itself.
var selectTodos = "SELECT owner, " + columnNames(whole) + ", " + personalOrNone + " FROM todos LEFT JOIN personal ON todo = id AND account = owner"

func loadTodos(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return eachTodo(ctx, db, selectTodos, func(owner book.ID, t *book.Todo) {
		c := into.of(owner)
		c.Todos = append(c.Todos, book.Diff[book.Todo]{After: t})
	})
}

// eachTodo reads the to-dos that a query like selectTodos finds.
func eachTodo(ctx context.Context, db queryer, query string, take func(owner book.ID, t *book.Todo), args ...any) error {
	cells := make([]any, 1+len(whole)+len(personal))
	return each(ctx, db, query, func(r *sql.Rows) error {
		t := &book.Todo{}
		var owner book.ID
		cells[0] = (*id)(&owner)
		for i, c := range whole {
			cells[1+i] = c.scan(t)
		}
		for i, c := range personal {
			cells[1+len(whole)+i] = c.scan(t)
		}
		if err := r.Scan(cells...); err != nil {
			return err
		}
		take(owner, t)
		return nil
	}, args...)
}
