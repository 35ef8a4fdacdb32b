package book

import "strings"

// Notes finds the text of a to-do's notes, which the Book does not hold.
type Notes interface {
	// Note returns "" for a to-do without notes.
	Note(id ID) (string, error)
	// Holding returns the to-dos whose notes, in lower case, hold a text that is
	// in lower case. The caller does not write to what it gets.
	Holding(text string) (map[ID]bool, error)
}

// noteKeeper is Notes that live in memory and follow the Book.
type noteKeeper interface{ keep(Diff[Note]) }

// MemoryNotes keeps notes in memory, for Books without a file.
type MemoryNotes map[ID]string

// Note implements Notes.
func (m MemoryNotes) Note(id ID) (string, error) { return m[id], nil }

// Holding implements Notes.
func (m MemoryNotes) Holding(text string) (map[ID]bool, error) {
	found := map[ID]bool{}
	for id, note := range m {
		if strings.Contains(strings.ToLower(note), text) {
			found[id] = true
		}
	}
	return found, nil
}

func (m MemoryNotes) keep(d Diff[Note]) {
	if d.After == nil || d.After.Text == "" {
		delete(m, d.Before.ID)
		return
	}
	m[d.After.ID] = d.After.Text
}
