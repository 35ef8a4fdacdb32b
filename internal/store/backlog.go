package store

import (
	"slices"
	"sync"
	"time"

	"tincup/internal/core/book"
)

// backlogFrom is of how many to-dos a change is at least whose rows are written a few at a time.
const backlogFrom = 500

const (
	putBacklog  = "INSERT INTO backlog (seq) VALUES (?)"
	takeBacklog = "DELETE FROM backlog"
)

// backlog is the part of a large change that is not in its tables yet. Save puts such a change into
// the history, which is enough to find it again, and leaves the rows of to-dos and notes to
// IndexSome. A change that comes meanwhile has the rows written first that it touches; after a crash
// the next start writes the rest.
type backlog struct {
	mu     sync.RWMutex
	change *book.Change // nil where nothing waits
	// todos and notes are indices into the change, by to-do.
	todos, notes map[book.ID]int
	waits        []bool // by index of the to-do
	// taken are the indices that the running transaction writes; all: it writes all that waits.
	taken map[int]bool
	all   bool
	// order is the order in which the to-dos can be written, each after what it refers to. Those
	// before next are written.
	order []int
	next  int
	// from is backlogFrom, and atOnce how many to-dos are written before it is looked whether the turn,
	// which is indexingTurn, is over.
	from, atOnce int
	turn         time.Duration
}

func newBacklog() backlog {
	return backlog{from: backlogFrom, atOnce: manyRows, turn: indexingTurn, taken: map[int]bool{}}
}

// defers reports whether the rows of an entry can wait: the history must have them, each note must
// come with its to-do, whose revision tells later whether it was written, and a ring must find its
// to-do.
func (b *backlog) defers(e Entry) bool {
	c := e.Change
	if e.Final || len(c.Todos) < b.from {
		return false
	}
	is := make(map[book.ID]bool, len(c.Todos)) // whether it is new
	for _, d := range c.Todos {
		if d.After != nil {
			is[d.After.ID] = d.Before == nil
		} else {
			is[d.Before.ID] = false
		}
	}
	for _, d := range c.Notes {
		if _, ok := is[noteOf(d)]; !ok {
			return false
		}
	}
	for _, d := range c.Rings {
		if d.After != nil && is[d.After.Todo] {
			return false
		}
	}
	return true
}

func noteOf(d book.Diff[book.Note]) book.ID {
	if d.After != nil {
		return d.After.ID
	}
	return d.Before.ID
}

func todoOf(d book.Diff[book.Todo]) book.ID {
	if d.After != nil {
		return d.After.ID
	}
	return d.Before.ID
}

// saveFirst writes what cannot wait of a change that defers, and a mark that the rest does.
func saveFirst(w writer, c *book.Change) error {
	first, _ := halves(c)
	if err := saveChange(w, first); err != nil {
		return err
	}
	return w.exec(putBacklog, c.Revision)
}

// add takes in a change whose first half is written; nothing may wait any more.
func (b *backlog) add(c *book.Change) {
	todos, notes := make(map[book.ID]int, len(c.Todos)), make(map[book.ID]int, len(c.Notes))
	waits := make([]bool, len(c.Todos))
	for i, d := range c.Todos {
		todos[todoOf(d)], waits[i] = i, true
	}
	for i, d := range c.Notes {
		notes[noteOf(d)] = i
	}
	order := writable(c.Todos, todos)
	b.mu.Lock()
	defer b.mu.Unlock()
	b.change, b.todos, b.notes, b.waits, b.order, b.next = c, todos, notes, waits, order, 0
}

// write writes the to-dos with some indices, and their notes, within a transaction.
func (b *backlog) write(w writer, indices []int) error {
	diffs := make([]book.Diff[book.Todo], len(indices))
	var notes []book.Diff[book.Note]
	for i, index := range indices {
		diffs[i], b.taken[index] = b.change.Todos[index], true
		if n, ok := b.notes[todoOf(diffs[i])]; ok {
			notes = append(notes, b.change.Notes[n])
		}
	}
	return saveChange(w, &book.Change{Revision: b.change.Revision, Actor: b.change.Actor, Todos: diffs, Notes: notes})
}

// some returns the indices of the next to-dos that wait, from one of the order on and no more than n,
// and how far it came.
func (b *backlog) some(from, n int) (indices []int, next int) {
	for next = from; next < len(b.order) && len(indices) < n; next++ {
		if i := b.order[next]; b.waits[i] && !b.taken[i] {
			indices = append(indices, i)
		}
	}
	return indices, next
}

// finish writes what comes after the to-dos, and takes the mark away.
func (b *backlog) finish(w writer) error {
	b.all = true
	_, last := halves(b.change)
	if err := saveChange(w, last); err != nil {
		return err
	}
	return w.exec(takeBacklog)
}

// rest writes all that waits.
func (b *backlog) rest(w writer) error {
	if b.change == nil || b.all {
		return nil
	}
	indices, _ := b.some(b.next, len(b.order))
	if err := b.write(w, indices); err != nil {
		return err
	}
	return b.finish(w)
}

// before writes what a change needs to find written: the rows that it touches or puts something
// under, and all of them where it changes what many may refer to, takes one of them away for good,
// or is large itself.
func (b *backlog) before(w writer, e Entry) error {
	if b.change == nil || b.all {
		return nil
	}
	if b.defers(e) || b.unsettles(e.Change) {
		return b.rest(w)
	}
	var first []int
	take := func(todo book.ID) {
		for i, ok := b.todos[todo]; ok && b.waits[i] && !b.taken[i]; i, ok = b.todos[todo] {
			b.taken[i] = true
			first = append(first, i)
			if b.change.Todos[i].After == nil {
				return
			}
			todo = b.change.Todos[i].After.Parent
		}
	}
	for _, d := range e.Change.Todos {
		take(todoOf(d))
		if d.After != nil {
			take(d.After.Parent)
			take(d.After.Record)
		}
	}
	for _, d := range e.Change.Notes {
		take(noteOf(d))
	}
	for _, d := range e.Change.Rings {
		if d.After != nil {
			take(d.After.Todo)
		}
	}
	slices.Reverse(first) // what something stands under comes before it
	return b.write(w, first)
}

// unsettles reports whether a change cannot be written while some rows wait: it changes rows that
// they may refer to, or removes one of their to-dos, which the next start would put back.
func (b *backlog) unsettles(c *book.Change) bool {
	if c.Arranges() {
		return true
	}
	return slices.ContainsFunc(c.Todos, func(d book.Diff[book.Todo]) bool {
		_, known := b.todos[todoOf(d)]
		return known && d.After == nil
	})
}

// ended is told that a transaction was carried out, or that it failed.
func (b *backlog) ended(failed error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	switch {
	case failed != nil:
	case b.all:
		b.change, b.todos, b.notes, b.waits, b.order, b.next = nil, nil, nil, nil, nil, 0
	default:
		for i := range b.taken {
			b.waits[i] = false
		}
	}
	b.taken, b.all = map[int]bool{}, false
}

// empty reports whether nothing waits.
func (b *backlog) empty() bool {
	b.mu.RLock()
	defer b.mu.RUnlock()
	return b.change == nil
}

// note returns the notes of a to-do whose row waits; known is false for any other.
func (b *backlog) note(todo book.ID) (text string, known bool) {
	b.mu.RLock()
	defer b.mu.RUnlock()
	i, ok := b.todos[todo]
	if !ok || !b.waits[i] {
		return "", false
	}
	n, ok := b.notes[todo]
	if !ok {
		return "", false // they are as they were
	}
	if d := b.change.Notes[n]; d.After != nil {
		text = d.After.Text
	}
	return text, true
}

// texts are the notes of every to-do whose row waits, where they change.
func (b *backlog) texts() map[book.ID]string {
	b.mu.RLock()
	defer b.mu.RUnlock()
	if len(b.notes) == 0 {
		return nil
	}
	texts := make(map[book.ID]string, len(b.notes))
	for todo, n := range b.notes {
		if b.waits[b.todos[todo]] {
			texts[todo] = ""
			if d := b.change.Notes[n]; d.After != nil {
				texts[todo] = d.After.Text
			}
		}
	}
	return texts
}
