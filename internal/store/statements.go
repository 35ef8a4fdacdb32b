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

	deleteShelf    = "DELETE FROM shelves WHERE id = ?"
	deleteList     = "DELETE FROM lists WHERE id = ?"
	deleteSection  = "DELETE FROM sections WHERE id = ?"
	deleteTag      = "DELETE FROM tags WHERE id = ?"
	deletePerson   = "DELETE FROM people WHERE id = ?"
	deleteView     = "DELETE FROM views WHERE id = ?"
	deleteCalendar = "DELETE FROM calendars WHERE id = ?"
	deleteSettings = "DELETE FROM settings WHERE account = ?"
	deleteTodo     = "DELETE FROM todos WHERE id = ?"
	deletePersonal = "DELETE FROM personal WHERE todo = ? AND account = ?"
	deleteNote     = "DELETE FROM notes WHERE todo = ?"
	putNote        = "REPLACE INTO notes (todo, text) VALUES (?, ?)"
	putHistory     = "INSERT INTO history (seq, account, at, made_in, kind, says, rows, files) VALUES (?, ?, ?, ?, ?, ?, ?, ?)"
	turnHistory    = "UPDATE history SET turned_by = ? WHERE seq = ?"
	putReply       = `INSERT INTO replies (seq, account, key, fingerprint, status, etag, location, remake, revision, body, at)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
)

var writing = []string{begin, commit, rollback, deleteShelf, putShelf, deleteList, putList, putListPlace, deleteSection, putSection, deleteTag, putTag, deleteTodo, deletePersonal,
	deleteNote, putNote, deletePerson, putPerson, deleteView, putView, deleteCalendar, putCalendar, deleteRing, putRing, deletePlace, putPlace, putPresence, putFeed, deleteSettings, putSettings, numberWords, forgetWords, forgetNames, forgetRow, readWords, putWords, putNames, putDue, takeDue, mergeWords, mergeNames, rowsSoFar, putHistory, turnHistory, putReply, putBacklog, takeBacklog}

// The rows are written by upserts, not by REPLACE: that would delete first,
// look for all that refers to the row and take notes along.
var (
	putShelf     = upsert("shelves", "id", "account", "name", "position", "hours", "deleted", "revision")
	putList      = upsert("lists", "id", "owner", "name", "colour", "sorted", "checklist", "archived", "due", "outcome", "person", "template", "deleted", "revision")
	putListPlace = upsertBy("list_places", 2, "list", "account", "shelf", "position", "pinned")
	putSection   = upsert("sections", "id", "list", "name", "position", "revision")
	putTag       = upsert("tags", "id", "account", "name", "colour", "unmade", "revision")
	putView      = upsert("views", "id", "account", "name", "question", "icon", "colour", "position", "pinned", "counted", "revision")
	putCalendar  = upsert("calendars", "id", "account", "name", "colour", "address", "file", "all_day_takes", "revision")
	putFeed      = upsert("feeds", "calendar", "text", "etag", "modified", "changed", "asked", "problem")
	putSettings  = upsert("settings", "account", "chosen", "revision")
	putPerson    = upsert("people", "id", "account", "name", "email", "phone", "note", "revision")
)

// upsert inserts a row, or changes the one whose first column is the same.
func upsert(table string, columns ...string) string { return upsertBy(table, 1, columns...) }

// upsertBy inserts a row, or changes the one whose first columns, so many, are the same.
func upsertBy(table string, key int, columns ...string) string {
	sets := make([]string, 0, len(columns))
	for _, c := range columns[key:] {
		sets = append(sets, c+" = excluded."+c)
	}
	return "INSERT INTO " + table + " (" + strings.Join(columns, ", ") + ") VALUES (?" + strings.Repeat(", ?", len(columns)-1) +
		") ON CONFLICT (" + strings.Join(columns[:key], ", ") + ") DO UPDATE SET " + strings.Join(sets, ", ")
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
