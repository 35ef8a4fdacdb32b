package store

import (
	"context"
	"database/sql"
	"fmt"
	"maps"
	"strings"
	"sync"

	"tincup/internal/core/book"
)

const (
	selectNote  = "SELECT text FROM notes WHERE todo = ?"
	selectNotes = "SELECT todo, text FROM notes"
)

// Note returns the text of a to-do's notes.
func (s *Store) Note(todo book.ID) (string, error) {
	if text, waits := s.backlog.note(todo); waits {
		return text, nil
	}
	return note(context.Background(), s.read, todo)
}

// CommandNotes are the notes that a command reads, on the connection that writes: no
// reading of others is in its way. Like Save they are used by one goroutine at a time.
func (s *Store) CommandNotes() book.Notes { return commandNotes{s} }

type commandNotes struct{ store *Store }

// Note implements book.Notes.
func (n commandNotes) Note(todo book.ID) (string, error) {
	if text, waits := n.store.backlog.note(todo); waits {
		return text, nil
	}
	return note(context.Background(), n.store.conn, todo)
}

// Holding implements book.Notes.
func (n commandNotes) Holding(text string) (map[book.ID]bool, error) { return n.store.Holding(text) }

// HeldNotes are notes for a reader that waits for no disk: texts that are not held in
// memory are noted as missing and refused.
func (s *Store) HeldNotes() *HeldNotes { return &HeldNotes{store: s} }

// HeldNotes implements book.Notes.
type HeldNotes struct {
	store *Store
	// Missing are the texts that were asked for and not held.
	Missing []string
}

// Note implements book.Notes.
func (n *HeldNotes) Note(todo book.ID) (string, error) { return n.store.Note(todo) }

// Holding implements book.Notes.
func (n *HeldNotes) Holding(text string) (map[book.ID]bool, error) {
	n.store.held.mu.Lock()
	found, known := n.store.held.texts[text]
	n.store.held.mu.Unlock()
	if !known {
		n.Missing = append(n.Missing, text)
		return nil, errNotHeld
	}
	return found, nil
}

var errNotHeld = fmt.Errorf("%w: which notes hold the text is not known", ErrBroken)

// queryRower is a pool of connections, or one of them.
type queryRower interface {
	QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row
}

func note(ctx context.Context, db queryRower, todo book.ID) (string, error) {
	var text string
	err := db.QueryRowContext(ctx, selectNote, id(todo)).Scan(&text)
	if err == sql.ErrNoRows {
		return "", nil
	}
	return text, explain(err)
}

// NotesOf returns the notes of some to-dos; those without any are not in it.
func (s *Store) NotesOf(ctx context.Context, todos []book.ID) (map[book.ID]string, error) {
	notes := make(map[book.ID]string, len(todos))
	if len(todos) == 0 {
		return notes, nil
	}
	args := make([]any, len(todos))
	for i, t := range todos {
		args[i] = id(t)
	}
	waiting := s.backlog.texts()
	err := each(ctx, s.look, "SELECT todo, text FROM notes WHERE todo IN (?"+strings.Repeat(", ?", len(todos)-1)+")", func(r *sql.Rows) error {
		var todo book.ID
		var text string
		err := r.Scan((*id)(&todo), &text)
		notes[todo] = text
		return err
	}, args...)
	for _, t := range todos {
		if text, ok := waiting[t]; ok {
			notes[t] = text
		}
	}
	maps.DeleteFunc(notes, func(_ book.ID, text string) bool { return text == "" })
	return notes, explain(err)
}

// held remembers which notes hold a text: saved views ask for the same few texts
// after every change of anything. The sets are given away, so that none is
// written to; one that changes is copied.
type held struct {
	mu    sync.Mutex
	texts map[string]map[book.ID]bool
	// changes counts the times that notes have changed.
	changes int
}

// maxHeld is how many texts are remembered.
const maxHeld = 40

// Holding returns the to-dos whose notes hold a text in lower case. Texts that were
// asked for are remembered; for another all notes are read.
func (s *Store) Holding(text string) (map[book.ID]bool, error) {
	s.held.mu.Lock()
	found, known := s.held.texts[text]
	changes := s.held.changes
	s.held.mu.Unlock()
	if known {
		return found, nil
	}
	found, err := holding(s.look, text, s.backlog.texts())
	if err != nil {
		return nil, err
	}
	s.held.mu.Lock()
	defer s.held.mu.Unlock()
	if s.held.changes == changes {
		if s.held.texts == nil || len(s.held.texts) >= maxHeld {
			s.held.texts = map[string]map[book.ID]bool{}
		}
		s.held.texts[text] = found
	}
	return found, nil
}

// holding reads all notes, and returns the to-dos whose notes hold a text in lower case; of some
// their notes are waiting to be written.
func holding(db queryer, text string, waiting map[book.ID]string) (map[book.ID]bool, error) {
	found := map[book.ID]bool{}
	err := each(context.Background(), db, selectNotes, func(r *sql.Rows) error {
		var todo book.ID
		var note string
		err := r.Scan((*id)(&todo), &note)
		if strings.Contains(strings.ToLower(note), text) {
			found[todo] = true
		}
		return err
	})
	for todo, note := range waiting {
		delete(found, todo)
		if strings.Contains(strings.ToLower(note), text) {
			found[todo] = true
		}
	}
	return found, explain(err)
}

// follow brings the sets up to date with notes that have changed.
func (h *held) follow(notes []book.Diff[book.Note]) {
	if len(notes) == 0 {
		return
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	h.changes++
	for text, found := range h.texts {
		copied := false
		for _, d := range notes {
			is, todo := false, book.ID{}
			if d.After != nil {
				todo, is = d.After.ID, strings.Contains(strings.ToLower(d.After.Text), text)
			} else {
				todo = d.Before.ID
			}
			if found[todo] == is {
				continue
			}
			if !copied {
				found, copied = maps.Clone(found), true
				h.texts[text] = found
			}
			if is {
				found[todo] = true
			} else {
				delete(found, todo)
			}
		}
	}
}

// forget drops the sets, where it is not known what has become of the notes.
func (h *held) forget() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.texts = nil
	h.changes++
}
