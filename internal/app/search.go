package app

import (
	"context"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
	"tincup/internal/store"
)

// Excerpt is where a search found its words in a to-do.
type Excerpt struct {
	Title, Place []search.Span
	// Notes is a stretch of the notes, and Files are the names of the files; ""
	// where nothing was found in them.
	Notes, Files     string
	InNotes, InFiles []search.Span
}

// Search looks for to-dos and hands f what it found, as the Book has it, with
// where in each row of it. f must not keep the Book, block or change anything.
func (a *Session) Search(ctx context.Context, q search.Query, offset, limit int,
	f func(b *book.Desk, c day.Clock, res *view.Result, excerpts map[book.ID]Excerpt)) error {
	if err := a.indexed(ctx); err != nil {
		return err
	}
	found, err := a.store.Search(ctx, a.Account(), q)
	if err != nil {
		return err
	}
	var shown []book.ID
	var res *view.Result
	var revision int64
	a.Read(func(b *book.Desk, c day.Clock) {
		res, revision = view.Found(b, c, found, offset, limit), b.Revision()
		for _, g := range res.Groups {
			for _, r := range g.Rows {
				if r.Todo.NotesSize > 0 {
					shown = append(shown, r.Todo.ID)
				}
			}
		}
	})
	notes, err := a.store.NotesOf(ctx, shown)
	if err != nil {
		return err
	}
	m := search.NewMarker(q, store.Fold)
	a.Read(func(b *book.Desk, c day.Clock) {
		if b.Revision() != revision {
			res = view.Found(b, c, found, offset, limit)
		}
		excerpts := map[book.ID]Excerpt{}
		for _, g := range res.Groups {
			for _, r := range g.Rows {
				excerpts[r.Todo.ID] = excerpt(m, r.Todo, notes[r.Todo.ID])
			}
		}
		f(b, c, res, excerpts)
	})
	return nil
}

// SearchFilter returns the filter that holds what a search finds by now.
func (a *Session) SearchFilter(q search.Query) (f filter.Filter, err error) {
	a.Read(func(b *book.Desk, _ day.Clock) { f, err = filter.Found(b, q, store.Fold) })
	return f, err
}

func excerpt(m *search.Marker, t *book.Todo, notes string) Excerpt {
	e := Excerpt{Title: m.Marks(t.Title, 0), Place: m.Marks(t.Place, 0)}
	e.Notes, e.InNotes = m.Excerpt(notes)
	var names []string
	for _, file := range t.Attachments {
		if len(m.Marks(file.Name, 1)) > 0 {
			names = append(names, file.Name)
		}
	}
	e.Files = strings.Join(names, ", ")
	e.InFiles = m.Marks(e.Files, 0)
	return e
}
