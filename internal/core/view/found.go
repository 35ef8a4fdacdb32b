package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// The groups of what a search found, each in the order it was found in.
const (
	FoundOpen Kind = "found"
	FoundDone Kind = "found-done"
	FoundAway Kind = "found-away"
	FoundBin  Kind = "found-bin"
)

// Found groups what a search found: what is open or a note first, then what is
// closed, what is in an archived list or a template, and the bin. Ids that are
// not in the Book are passed over.
func Found(b *book.Desk, c day.Clock, ids []book.ID, offset, limit int) *Result {
	now := at(c)
	kinds := [...]Kind{FoundOpen, FoundDone, FoundAway, FoundBin}
	var groups [len(kinds)]bucket
	var ranked [len(kinds)][]*book.Todo
	for _, id := range ids {
		t, err := b.Todo(id)
		if err != nil {
			continue
		}
		i := 0
		switch l, err := b.List(t.List); {
		case !t.Deleted.IsZero():
			i = 3
		case err == nil && l.Away():
			i = 2
		case !t.Open() && !t.IsNote:
			i = 1
		}
		groups[i].add(b, t)
		ranked[i] = append(ranked[i], t)
	}
	res := &Result{}
	for i, todos := range ranked {
		if len(todos) == 0 {
			continue
		}
		g := Group{Kind: kinds[i], Count: len(todos), Notes: groups[i].notes, Minutes: groups[i].family(b).minutes, Assumed: groups[i].blank * assumedBy(b)}
		from, to := max(offset-res.Total, 0), min(offset+limit-res.Total, len(todos))
		for at := from; at < to; at++ {
			r := now.row(todos[at])
			r.Path = path(b, todos[at])
			r.Progress = b.Progress(todos[at])
			g.Rows = append(g.Rows, r)
		}
		res.Total += len(todos)
		res.Groups = append(res.Groups, g)
	}
	return res
}
