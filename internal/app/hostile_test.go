package app_test

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
	"tincup/internal/seed"
	"tincup/internal/store"
)

var long = flag.Bool("long", false, "let as many writers write as in a full run")

// crowd is many windows that change one Book at once.
type crowd struct {
	t       *testing.T
	app     *app.Session
	mu      sync.Mutex
	ids     []book.ID
	lists   []book.ID
	done    atomic.Int64
	refused atomic.Int64
	last    atomic.Int64 // the latest revision any of them made
}

func (c *crowd) some(r *rand.Rand, of *[]book.ID) book.ID {
	c.mu.Lock()
	defer c.mu.Unlock()
	if len(*of) == 0 {
		return book.ID{}
	}
	return (*of)[r.IntN(len(*of))]
}

// command is one of every sort, on rows that may be gone by now.
func (c *crowd) command(r *rand.Rand, nth int) book.Command {
	id, other, list := c.some(r, &c.ids), c.some(r, &c.ids), c.some(r, &c.lists)
	due := day.MustMoment("2026-12-01")
	note, begun := r.IntN(2) == 0, book.InProcess
	title := fmt.Sprintf("title %d", nth)
	many := []book.ID{id, other, c.some(r, &c.ids), c.some(r, &c.ids)}
	commands := []book.Command{
		book.Capture{Title: title, Notes: strings.Repeat("word ", r.IntN(20)), List: list, Tags: []string{fmt.Sprint("t", r.IntN(9))}},
		book.Capture{Title: title, Parent: id, Due: due}, book.Edit{ID: id, Title: &title, Due: &due}, book.Edit{ID: id, Notes: &title},
		book.Edit{ID: id, IsNote: &note}, book.Edit{ID: id, Status: &begun}, book.Complete{ID: id}, book.Complete{ID: id}, book.Reopen{ID: id},
		book.Cancel{ID: id}, book.Delete{ID: id}, book.Restore{ID: id}, book.Move{ID: id, List: list}, book.Move{ID: id, Parent: other},
		book.PlanFor{ID: id, Plan: day.MustHorizon("2026-W50")}, book.Pick{ID: id}, book.Pick{ID: id, Out: true},
		book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=3")}, book.Skip{ID: id}, book.EndRepeat{ID: id},
		book.Tagging{ID: id, Add: []string{fmt.Sprint("t", r.IntN(9))}}, book.MoveMany{IDs: many, To: book.Move{List: list}},
		book.Many{IDs: many, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }},
		book.Postpone{IDs: many, By: book.ByDays(3)}, book.DeleteList{ID: list}, book.RestoreList{ID: list}, book.StartOver{List: list},
		book.AddList{Name: fmt.Sprintf("list %d", nth)}, book.AddSection{List: list, Name: title},
	}
	return commands[r.IntN(len(commands))]
}

// keep takes note of what a command made.
func (c *crowd) keep(o *app.Outcome) (*store.Reply, error) {
	c.mu.Lock()
	defer c.mu.Unlock()
	for _, d := range o.Change.Todos {
		if d.Before == nil && len(c.ids) < 400 {
			c.ids = append(c.ids, d.After.ID)
		}
	}
	for _, d := range o.Change.Lists {
		if d.Before == nil {
			c.lists = append(c.lists, d.After.ID)
		}
	}
	c.last.Store(o.Change.Revision)
	return &store.Reply{Status: 200, Body: []byte("{}")}, nil
}

func (c *crowd) write(r *rand.Rand, window string, nth int) {
	ctx := context.Background()
	req := app.Request{Window: window, Key: fmt.Sprintf("%s-%d", window, nth), Fingerprint: []byte("f")}
	var err error
	switch r.IntN(16) {
	case 0:
		_, err = c.app.Undo(ctx, req, 0, c.keep)
	case 1:
		_, err = c.app.Undo(ctx, req, 1+r.Int64N(max(c.last.Load(), 1)), c.keep)
	case 2:
		_, err = c.app.Redo(ctx, req, c.keep)
	default:
		_, err = c.app.Run(ctx, req, c.command(r, nth), c.keep)
	}
	var rule *book.RuleError
	var conflict *book.ConflictError
	switch {
	case err == nil:
		c.done.Add(1)
	case errors.As(err, &rule), errors.As(err, &conflict), errors.Is(err, book.ErrNotFound), errors.Is(err, store.ErrNothing):
		c.refused.Add(1)
	default:
		c.t.Errorf("%s: %v", window, err)
	}
}

func (c *crowd) read(r *rand.Rand) {
	ctx := context.Background()
	switch r.IntN(4) {
	case 0:
		q, err := search.Parse("word title")
		if err == nil {
			err = c.app.Search(ctx, q, 0, 50, func(*book.Desk, day.Clock, *view.Result, map[book.ID]app.Excerpt) {})
		}
		if err != nil {
			c.t.Error(err)
		}
	case 1:
		if _, err := c.app.History(ctx, 0, 20); err != nil {
			c.t.Error(err)
		}
	case 2:
		c.app.Read(func(b *book.Desk, clock day.Clock) { view.NewTally(b, clock).Survey(b, clock).Complete(b, clock) })
	default:
		d, err := view.ParseDefinition(fmt.Appendf(nil, `{"filter":{"field":"text","op":"contains","text":"word %d"}}`, r.IntN(90)))
		answer := c.app.Check(d.Filter)
		c.app.Read(func(b *book.Desk, clock day.Clock) { _, err = view.Mean(b, clock, d, answer) })
		if err != nil {
			c.t.Error(err)
		}
	}
}

// Many windows write and read at once: no rule is broken, and the file holds what memory
// does.
func TestACrowd(t *testing.T) {
	writers, each := 12, 40
	if *long {
		writers, each = 50, 400
	}
	seed := seed.New(t)
	path := filepath.Join(t.TempDir(), "crowd.db")
	c := &crowd{t: t, app: openFrozen(t, path)}
	for i := range 60 {
		for _, cmd := range []book.Command{book.AddList{Name: fmt.Sprint("first ", i)}, book.Capture{Title: fmt.Sprint("first ", i)}}[min(i/5, 1):] {
			if _, err := c.app.Run(t.Context(), app.Request{Window: "first"}, cmd, c.keep); err != nil {
				t.Fatal(err)
			}
		}
	}
	var working, reading sync.WaitGroup
	var stop atomic.Bool
	for i := range 4 {
		reading.Go(func() {
			for r := rand.New(rand.NewPCG(seed, uint64(1000+i))); !stop.Load(); {
				c.read(r)
			}
		})
	}
	for i := range writers {
		working.Go(func() {
			r := rand.New(rand.NewPCG(seed, uint64(i)))
			for nth := range each {
				c.write(r, fmt.Sprint("window ", i), i*each+nth)
			}
		})
	}
	faults := func(a *app.Session) (todos int, said string) {
		a.Read(func(b *book.Desk, clock day.Clock) {
			todos = b.Len()
			for _, f := range b.Faults(clock.Today()) {
				t.Errorf("a fault: %s", f.Says)
			}
			said = fmt.Sprint(b.Revision(), len(b.Open()), len(b.Closed()), len(b.Bin()), len(b.Lists()), len(b.Tags()))
		})
		return todos, said
	}
	ended := make(chan struct{})
	go func() { working.Wait(); close(ended) }()
	for looking := true; looking; {
		select {
		case <-ended:
			looking = false
		case <-time.After(100 * time.Millisecond):
			faults(c.app)
		}
	}
	stop.Store(true)
	reading.Wait()
	todos, before := faults(c.app)
	if err := c.app.Close(); err != nil {
		t.Fatal(err)
	}
	again := openFrozen(t, path)
	defer again.Close()
	if _, after := faults(again); after != before {
		t.Errorf("memory had %s; the file has %s", before, after)
	}
	t.Logf("%d writers: %d changes or nothing to change, %d refused, %d to-dos", writers, c.done.Load(), c.refused.Load(), todos)
}
