package app

import (
	"context"
	"math"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/geo"
	"tincup/internal/core/view"
	"tincup/internal/store"
)

// What says which to-dos go out: those of a list, of a view, some by their ids, or all; one of them.
type What struct {
	// List is the Cup where it is none and InList is set.
	InList bool
	List   book.ID
	View   view.Subject
	// Some are to-dos by their ids, in the order in which they go out.
	Some []book.ID
	// Query narrows the view, and puts it in another order.
	Query view.Query
}

// NameOf is the name of a list or of a view of one's own; otherwise what is given.
func (a *Session) NameOf(id book.ID, otherwise string) (name string) {
	name = otherwise
	a.Read(func(b *book.Desk, _ day.Clock) {
		if l, err := b.List(id); err == nil {
			name = l.Name
		} else if v, err := b.View(id); err == nil {
			name = v.Name
		}
	})
	return name
}

// World is what formats may know of the account's surroundings.
func (a *Session) World() (w exchange.World) {
	a.Read(func(b *book.Desk, c day.Clock) {
		w = exchange.World{Now: c.Now, Zone: c.Zone, Places: map[string]geo.Point{}, Sentences: a.envOf(b, c)}
		for _, p := range b.Places() {
			w.Places[p.Name] = p.Middle
		}
	})
	chosen := a.inForce(a.Account()).settings
	w.Columns, w.ReminderHour = chosen.CSVColumns(), chosen.ReminderHour()
	return w
}

// Take returns to-dos as items, as of one moment. Errors are a *book.NotFoundError, of the view, or
// of reading notes.
func (a *Session) Take(ctx context.Context, what What) (items []exchange.Item, err error) {
	err = a.still(ctx, func(b *book.Desk, c day.Clock) error {
		items, err = what.take(b, c)
		return err
	})
	return items, err
}

func (what What) take(b *book.Desk, c day.Clock) ([]exchange.Item, error) {
	switch {
	case len(what.Some) > 0:
		some := make([]*book.Todo, len(what.Some))
		for i, id := range what.Some {
			var err error
			if some[i], err = b.Todo(id); err != nil {
				return nil, err
			}
		}
		return exchange.Only(b, some)
	case what.View != nil:
		q := what.Query
		q.Of, q.Offset, q.Limit = what.View, 0, math.MaxInt32
		res, err := view.Ask(b, c, q)
		if err != nil {
			return nil, err
		}
		var some []*book.Todo
		for _, g := range res.Groups {
			for _, r := range g.Rows {
				some = append(some, r.Todo)
			}
		}
		return exchange.Only(b, some)
	case what.InList:
		if !what.List.IsZero() {
			if _, err := b.List(what.List); err != nil {
				return nil, err
			}
		}
		return exchange.Take(b, exchange.OfList(b, what.List))
	}
	return exchange.Take(b, exchange.Everything(b))
}

// Without returns items without those that look like a to-do that is there, and what is under them.
func (a *Session) Without(items []exchange.Item, list book.ID) (kept []exchange.Item) {
	a.Read(func(b *book.Desk, _ day.Clock) { kept = exchange.Without(items, exchange.Likes(b, items, list)) })
	return kept
}

// Look works out what would become of items that come in, into a list where they name none.
// progress may be nil.
func (a *Session) Look(ctx context.Context, items []exchange.Item, refused []exchange.Refusal, list book.ID, progress *Importing) (p exchange.Preview, err error) {
	env := a.env()
	err = a.still(ctx, func(b *book.Desk, _ day.Clock) (err error) {
		p, err = exchange.Look(b, env, items, refused, list, progress.each(len(items)))
		return err
	})
	return p, err
}

// BringIn imports items: one change, with one undo. What breaks a rule is left out, as Look says.
// progress may be nil; where it is stopped nothing is kept.
func (a *Session) BringIn(ctx context.Context, req Request, items []exchange.Item, list book.ID, respond Responder, progress *Importing) (*store.Reply, error) {
	cmd := exchange.Command(items, list)
	cmd.Each = progress.each(len(items))
	return a.Run(ctx, req, cmd, respond)
}
