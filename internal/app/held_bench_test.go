package app_test

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
)

// heldUp prints how long ticks wait while work goes on, in milliseconds, and how
// long the work takes.
func heldUp(b *testing.B, a *app.Session, tick book.ID, work func() error) {
	b.Helper()
	var waits, works []float64
	for b.Loop() {
		var done atomic.Bool
		ended := make(chan error, 1)
		go func() {
			begun := time.Now()
			err := work()
			works = append(works, float64(time.Since(begun).Microseconds())/1000)
			done.Store(true)
			ended <- err
		}()
		for i := 0; i < 5 || !done.Load(); i++ {
			cmd := book.Command(book.Complete{ID: tick})
			if i%2 == 1 {
				cmd = book.Reopen{ID: tick}
			}
			begun := time.Now()
			if _, err := a.Run(context.Background(), app.Request{Window: "t"}, cmd, nil); err != nil {
				b.Fatal(err)
			}
			waits = append(waits, float64(time.Since(begun).Microseconds())/1000)
		}
		if err := <-ended; err != nil {
			b.Fatal(err)
		}
	}
	slices.Sort(waits)
	slices.Sort(works)
	b.ReportMetric(works[len(works)/2], "ms-work")
	b.ReportMetric(waits[len(waits)/2], "ms-wait-p50")
	b.ReportMetric(waits[len(waits)*99/100], "ms-wait-p99")
	b.ReportMetric(waits[len(waits)-1], "ms-wait-max")
}

// BenchmarkHeldUp prints how long a tick waits while commands on many to-dos are
// carried out, at 100,000 to-dos.
func BenchmarkHeldUp(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	ctx := context.Background()
	run := func(cmd book.Command) error {
		_, err := a.Run(ctx, app.Request{Window: "w"}, cmd, nil)
		return err
	}
	var ids []book.ID
	var tick, one, two, anchor book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		one, two = large.Lists()[0].ID, large.Lists()[1].ID
		for _, t := range large.Open() {
			switch {
			case t.Repeat != nil || !t.Parent.IsZero() || large.HasSubtasks(t.ID):
			case tick.IsZero():
				tick = t.ID
			case t.List == one && anchor.IsZero():
				anchor = t.ID
			case t.List != one && len(ids) < 5000:
				ids = append(ids, t.ID)
			}
		}
	})
	own := book.ByHand
	if err := errors.Join(run(book.EditList{ID: one, Order: &own}), run(book.EditList{ID: two, Order: &own})); err != nil {
		b.Fatal(err)
	}
	friday := day.MustMoment("2026-11-27")
	tags := make([]string, 25)
	for i := range tags {
		tags[i] = fmt.Sprintf("mark%d", i)
	}
	many := func(n int, do func(book.ID) book.Command) func() error {
		return func() error { return run(book.Many{IDs: ids[:n], Do: do}) }
	}
	behind := func(n int) func() error {
		return func() error { // there, in this order, and away again
			return errors.Join(run(book.MoveMany{IDs: ids[:n], To: book.Move{List: one, After: anchor}}),
				run(book.MoveMany{IDs: ids[:n], To: book.Move{List: two}}))
		}
	}
	undone := func(n int, do func(book.ID) book.Command) func() error {
		return func() error {
			if err := many(n, do)(); err != nil {
				return err
			}
			_, err := a.Undo(ctx, app.Request{Window: "w"}, 0, nil)
			return err
		}
	}
	high := book.High
	for _, n := range []int{500, 1000, 5000} {
		for _, c := range []struct {
			name string
			work func() error
		}{
			{"priority", func() error {
				high = 5 - high // high and medium in turns
				return many(n, func(id book.ID) book.Command { p := high; return book.Edit{ID: id, Priority: &p} })()
			}},
			{"due-and-undo", undone(n, func(id book.ID) book.Command { return book.Edit{ID: id, Due: &friday} })},
			{"complete-and-undo", undone(n, func(id book.ID) book.Command { return book.Complete{ID: id} })},
			{"delete-and-restore", func() error {
				return errors.Join(many(n, func(id book.ID) book.Command { return book.Delete{ID: id} })(),
					many(n, func(id book.ID) book.Command { return book.Restore{ID: id} })())
			}},
			{"move-behind-a-row", behind(n)},
			{"tags-25-and-undo", undone(n, func(id book.ID) book.Command { return book.Tagging{ID: id, Add: tags} })},
		} {
			if n == 1000 && c.name != "move-behind-a-row" {
				continue
			}
			b.Run(fmt.Sprintf("%s-%d", c.name, n), func(b *testing.B) { heldUp(b, a, tick, c.work) })
		}
	}
}

// BenchmarkHeldUpByThousands prints how long the tick waits that waits longest while a
// command on 5,000 to-dos is carried out, as a ratio to the bare update of as many rows,
// in turns. Others tick without pause, so that something always comes between the
// command's being worked out and its turn.
func BenchmarkHeldUpByThousands(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	bare := bareRows(b, a)
	defer bare.Close()
	var ids, ticked []book.ID
	var lists [2]book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		lists = [2]book.ID{large.Lists()[0].ID, large.Lists()[1].ID}
		for _, t := range large.Open() {
			switch {
			case t.Repeat != nil || !t.Parent.IsZero() || large.HasSubtasks(t.ID):
			case len(ticked) < 50:
				ticked = append(ticked, t.ID)
			case len(ids) < 5000:
				ids = append(ids, t.ID)
			}
		}
	})
	friday := [2]day.Moment{day.MustMoment("2026-11-27"), day.MustMoment("2026-12-04")}
	all := func(do func(book.ID) book.Command) book.Command { return book.Many{IDs: ids, Do: do} }
	for _, c := range []struct {
		name string
		cmd  func(i int) book.Command
	}{
		{"priority", func(i int) book.Command {
			priority := book.Priority(1 + i%2)
			return all(func(id book.ID) book.Command { return book.Edit{ID: id, Priority: &priority} })
		}},
		{"due", func(i int) book.Command {
			return all(func(id book.ID) book.Command { return book.Edit{ID: id, Due: &friday[i%2]} })
		}},
		{"cancel-or-reopen", func(i int) book.Command {
			return all(func(id book.ID) book.Command { return []book.Command{book.Cancel{ID: id}, book.Reopen{ID: id}}[i%2] })
		}},
		{"move", func(i int) book.Command { return book.MoveMany{IDs: ids, To: book.Move{List: lists[i%2]}} }},
		{"delete-or-restore", func(i int) book.Command {
			return all(func(id book.ID) book.Command { return []book.Command{book.Delete{ID: id}, book.Restore{ID: id}}[i%2] })
		}},
	} {
		b.Run(c.name, func(b *testing.B) {
			var held, rows []float64
			n := 0
			for i := 0; b.Loop(); i++ {
				begun := time.Now()
				if err := updateAll(bare, ids, book.Priority(i%4).String()); err != nil {
					b.Fatal(err)
				}
				rows = append(rows, float64(time.Since(begun).Microseconds())/1000)
				ended := make(chan error, 1)
				go func() {
					_, err := a.Run(context.Background(), app.Request{Window: "w"}, c.cmd(i), nil)
					ended <- err
				}()
				longest := 0.0
				for going := true; going; n++ {
					select {
					case err := <-ended:
						if going = false; err != nil {
							b.Fatal(err)
						}
					default:
					}
					cmd := book.Command(book.Complete{ID: ticked[n%50]})
					if n/50%2 == 1 {
						cmd = book.Reopen{ID: ticked[n%50]}
					}
					begun := time.Now()
					if _, err := a.Run(context.Background(), app.Request{Window: "t"}, cmd, nil); err != nil {
						b.Fatal(err)
					}
					longest = max(longest, float64(time.Since(begun).Microseconds())/1000)
				}
				held = append(held, longest)
			}
			slices.Sort(held)
			slices.Sort(rows)
			bare := rows[len(rows)/2]
			b.ReportMetric(bare, "ms-bare")
			b.ReportMetric(held[len(held)/2], "ms-held-p50")
			b.ReportMetric(held[len(held)-1], "ms-held-max")
			b.ReportMetric(held[len(held)/2]/bare, "x-bare")
		})
	}
}

// BenchmarkReaders prints how long a change waits while eight others read: an edit of
// notes beside eight searches, a capture beside eight questions for a text in notes.
func BenchmarkReaders(b *testing.B) {
	a, _, words := notesBook(b)
	defer a.Close()
	ctx := context.Background()
	var target book.ID
	a.Read(func(large *book.Desk, _ day.Clock) { target = large.Open()[7].ID })
	nth := 0
	beside := func(b *testing.B, read func(worker, i int) error, change func() error) {
		var stop atomic.Bool
		var readers sync.WaitGroup
		reads := atomic.Int64{}
		for w := range 8 {
			readers.Go(func() {
				for i := 0; !stop.Load(); i++ {
					if err := read(w, i); err != nil {
						b.Error(err)
						return
					}
					reads.Add(1)
				}
			})
		}
		time.Sleep(200 * time.Millisecond)
		var waits []float64
		for b.Loop() {
			begun := time.Now()
			if err := change(); err != nil {
				b.Fatal(err)
			}
			waits = append(waits, float64(time.Since(begun).Microseconds())/1000)
			time.Sleep(5 * time.Millisecond)
		}
		stop.Store(true)
		readers.Wait()
		slices.Sort(waits)
		b.ReportMetric(waits[len(waits)/2], "ms-wait-p50")
		b.ReportMetric(waits[len(waits)*99/100], "ms-wait-p99")
		b.ReportMetric(waits[len(waits)-1], "ms-wait-max")
		b.ReportMetric(float64(reads.Load()), "reads")
	}
	b.Run("searches-and-an-edit-of-notes", func(b *testing.B) {
		beside(b, func(w, i int) error {
			q, err := search.Parse(words[(w*31+i)%60] + " " + words[(w*17+i)%200])
			if err != nil {
				return err
			}
			return a.Search(ctx, q, 0, 200, func(*book.Desk, day.Clock, *view.Result, map[book.ID]app.Excerpt) {})
		}, func() error {
			nth++
			text := fmt.Sprint("number ", nth)
			_, err := a.Run(ctx, app.Request{Window: "w"}, book.Edit{ID: target, Notes: &text}, nil)
			return err
		})
	})
	b.Run("text-questions-and-a-capture", func(b *testing.B) {
		beside(b, func(w, i int) error {
			d, err := view.ParseDefinition(fmt.Appendf(nil, `{"filter":{"field":"text","op":"contains","text":"%s%d"}}`, words[(w*31+i)%3000], i))
			if err != nil {
				return err
			}
			answer := a.Check(d.Filter)
			a.Read(func(large *book.Desk, c day.Clock) { _, err = view.Mean(large, c, d, answer) })
			return err
		}, func() error {
			_, err := a.Run(ctx, app.Request{Window: "w"}, book.Capture{Title: "Ring the framer"}, nil)
			return err
		})
	})
}

// BenchmarkHistoryOfMany prints how long the history of 100 changes of 500 to-dos each
// takes to read, with whether each can be undone.
func BenchmarkHistoryOfMany(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	var ids []book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		for _, t := range large.Open()[:500] {
			ids = append(ids, t.ID)
		}
	})
	for i := range 100 {
		priority := book.Priority(i % 4)
		cmd := book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Edit{ID: id, Priority: &priority} }}
		if _, err := a.Run(b.Context(), app.Request{Window: "w"}, cmd, nil); err != nil {
			b.Fatal(err)
		}
	}
	var took []float64
	for b.Loop() {
		begun := time.Now()
		past, err := a.History(b.Context(), 0, 100)
		if err != nil || len(past) != 100 {
			b.Fatal(len(past), err)
		}
		took = append(took, float64(time.Since(begun).Microseconds())/1000)
	}
	slices.Sort(took)
	b.ReportMetric(took[len(took)/2], "ms-p50")
	b.ReportMetric(took[len(took)-1], "ms-max")
}

// BenchmarkSweep prints how long a start takes with 200 attached files that nothing
// names, beside a history of 20,000 changes, and the start without them.
func BenchmarkSweep(b *testing.B) {
	path := filepath.Join(b.TempDir(), "sweep.db")
	a := openFrozen(b, path)
	for i := range 200 {
		if _, err := a.KeepFile("x.txt", strings.NewReader(fmt.Sprint("number ", i))); err != nil {
			b.Fatal(err)
		}
	}
	steps := make([]app.Step, 20_000)
	for i := range steps {
		steps[i] = app.Step{At: benchNow, Command: book.Capture{Title: fmt.Sprint("To-do number ", i)}}
	}
	if err := errors.Join(a.Seed(b.Context(), steps), a.Close()); err != nil {
		b.Fatal(err)
	}
	old := time.Now().AddDate(-1, 0, 0)
	if err := filepath.WalkDir(path+"-files", func(name string, d fs.DirEntry, err error) error {
		return errors.Join(err, os.Chtimes(name, old, old))
	}); err != nil {
		b.Fatal(err)
	}
	start := func() float64 {
		begun := time.Now()
		a := openFrozen(b, path)
		took := time.Since(begun).Seconds()
		if err := a.Close(); err != nil {
			b.Fatal(err)
		}
		return took
	}
	for b.Loop() {
		b.ReportMetric(start(), "s-with")
		b.ReportMetric(start(), "s-without")
	}
	if left, _ := filepath.Glob(path + "-files/??/*"); len(left) > 0 {
		b.Errorf("%d are left", len(left))
	}
}
