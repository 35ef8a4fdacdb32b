package store

import (
	"context"
	"database/sql"
	"strings"
)

// The statements that write. They are prepared once, when a file is opened.
const (
	begin    = "BEGIN IMMEDIATE"
	commit   = "COMMIT"
	rollback = "ROLLBACK"

	deleteShelf   = "DELETE FROM shelves WHERE id = ?"
	deleteList    = "DELETE FROM lists WHERE id = ?"
	deleteSection = "DELETE FROM sections WHERE id = ?"
	deleteTag     = "DELETE FROM tags WHERE id = ?"
	deletePerson  = "DELETE FROM people WHERE id = ?"
	deleteView    = "DELETE FROM views WHERE id = ?"
	deleteTodo    = "DELETE FROM todos WHERE id = ?"
	deleteNote    = "DELETE FROM notes WHERE todo = ?"
	putNote       = "REPLACE INTO notes (todo, text) VALUES (?, ?)"
	putHistory    = "INSERT INTO history (seq, at, made_in, kind, says, rows, files) VALUES (?, ?, ?, ?, ?, ?, ?)"
	turnHistory   = "UPDATE history SET turned_by = ? WHERE seq = ?"
	putReply      = `INSERT INTO replies (seq, key, fingerprint, status, etag, location, remake, revision, body, at)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
)

var writing = []string{begin, commit, rollback, deleteShelf, putShelf, deleteList, putList, deleteSection, putSection, deleteTag, putTag, deleteTodo,
	deleteNote, putNote, deletePerson, putPerson, deleteView, putView, numberWords, forgetWords, forgetNames, forgetRow, readWords, putWords, putNames, putDue, takeDue, mergeWords, mergeNames, rowsSoFar, putHistory, turnHistory, putReply}

// The rows are written by upserts, not by REPLACE: that would delete first,
// look for all that refers to the row and take notes along.
var (
	putShelf   = upsert("shelves", "id", "name", "position", "deleted", "revision")
	putList    = upsert("lists", "id", "shelf", "name", "colour", "position", "sorted", "checklist", "pinned", "archived", "template", "deleted", "revision")
	putSection = upsert("sections", "id", "list", "name", "position", "revision")
	putTag     = upsert("tags", "id", "name", "colour", "revision")
	putView    = upsert("views", "id", "name", "question", "icon", "colour", "position", "pinned", "counted", "revision")
	putPerson  = upsert("people", "id", "name", "email", "phone", "note", "revision")
)

// upsert inserts a row, or changes the one whose first column is the same.
func upsert(table string, columns ...string) string {
	sets := make([]string, 0, len(columns))
	for _, c := range columns[1:] {
		sets = append(sets, c+" = excluded."+c)
	}
	return "INSERT INTO " + table + " (" + strings.Join(columns, ", ") + ") VALUES (?" + strings.Repeat(", ?", len(columns)-1) +
		") ON CONFLICT (" + columns[0] + ") DO UPDATE SET " + strings.Join(sets, ", ")
}

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
