package app

import (
	"context"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
	"tincup/internal/store"
)

// Search looks for to-dos and hands f what it found, as the Book has it, with
// where in each row of it. f must not keep the Book, block or change anything.
func (a *App) Search(ctx context.Context, q search.Query, offset, limit int,
	f func(b *book.Book, c day.Clock, res *view.Result, excerpts map[book.ID]store.Excerpt)) error {
	found, err := a.store.Search(ctx, q)
	if err != nil {
		return err
	}
	var shown []book.ID
	a.Read(func(b *book.Book, c day.Clock) {
		for _, g := range view.Found(b, c, found, offset, limit).Groups {
			for _, r := range g.Rows {
				shown = append(shown, r.Todo.ID)
			}
		}
	})
	excerpts, err := a.store.Excerpts(ctx, q, shown)
	if err != nil {
		return err
	}
	a.Read(func(b *book.Book, c day.Clock) { f(b, c, view.Found(b, c, found, offset, limit), excerpts) })
	return nil
}
