package store

import (
	"context"
	"database/sql"
)

// The statements that write. They are prepared once, when a file is opened.
const (
	begin    = "BEGIN IMMEDIATE"
	commit   = "COMMIT"
	rollback = "ROLLBACK"

	deleteShelf    = "DELETE FROM shelves WHERE id = ?"
	putShelf       = "REPLACE INTO shelves (id, name, position, revision) VALUES (?, ?, ?, ?)"
	deleteList     = "DELETE FROM lists WHERE id = ?"
	putList        = "REPLACE INTO lists (id, shelf, name, colour, position, revision) VALUES (?, ?, ?, ?, ?, ?)"
	deleteTag      = "DELETE FROM tags WHERE id = ?"
	putTag         = "REPLACE INTO tags (id, name, colour, revision) VALUES (?, ?, ?, ?)"
	deleteTodo     = "DELETE FROM todos WHERE id = ?"
	deleteTodoTags = "DELETE FROM todo_tags WHERE todo = ?"
	putTodoTag     = "INSERT INTO todo_tags (todo, nth, tag) VALUES (?, ?, ?)"
	deleteNote     = "DELETE FROM notes WHERE todo = ?"
	putNote        = "REPLACE INTO notes (todo, text) VALUES (?, ?)"
	putHistory     = "INSERT INTO history (seq, at, made_in, kind, says, rows) VALUES (?, ?, ?, ?, ?, ?)"
	turnHistory    = "UPDATE history SET turned_by = ? WHERE seq = ?"
	deletePerson   = "DELETE FROM people WHERE id = ?"
	putPerson      = `INSERT INTO people (id, name, email, phone, revision) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, email = excluded.email, phone = excluded.phone,
			revision = excluded.revision`
	putReply = `INSERT INTO replies (key, fingerprint, status, etag, location, body, at)
		VALUES (?, ?, ?, ?, ?, ?, ?)`
	// An upsert, not REPLACE: that would delete first and take notes along.
	putTodo = `INSERT INTO todos (id, title, notes_size, list, position, status, priority, start, due, plan,
			created, changed, completed, deleted, revision, parent, estimate, reminders, person, role, since, repeat, record)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET title = excluded.title, notes_size = excluded.notes_size,
			list = excluded.list, position = excluded.position, status = excluded.status,
			priority = excluded.priority, start = excluded.start, due = excluded.due, plan = excluded.plan,
			created = excluded.created, changed = excluded.changed, completed = excluded.completed,
			deleted = excluded.deleted, revision = excluded.revision, parent = excluded.parent,
			estimate = excluded.estimate, reminders = excluded.reminders, person = excluded.person,
			role = excluded.role, since = excluded.since, repeat = excluded.repeat, record = excluded.record`
)

var writing = []string{begin, commit, rollback, deleteShelf, putShelf, deleteList, putList, deleteTag, putTag, deleteTodo,
	deleteTodoTags, putTodoTag, deleteNote, putNote, deletePerson, putPerson, putHistory, turnHistory, putReply, putTodo}

// prepare compiles the statements that write, on the connection that will run
// them.
func prepare(ctx context.Context, conn *sql.Conn) (map[string]*sql.Stmt, error) {
	statements := make(map[string]*sql.Stmt, len(writing))
	for _, query := range writing {
		statement, err := conn.PrepareContext(ctx, query)
		if err != nil {
			return nil, err
		}
		statements[query] = statement
	}
	return statements, nil
}
