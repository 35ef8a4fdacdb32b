package app_test

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"path/filepath"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/formats"
)

// BenchmarkWorstWait prints the longest that a tick waits, in milliseconds, while other work goes
// on at 100,000 to-dos (bar 50): the five exports, an import of 10,000 with its preview, a bulk of
// 5,000 and its undo, a backup, and twenty windows that each ask for a view and the counts after
// every change. Ticks come every two milliseconds from one window, and beside the windows every
// fifty. The percentiles tell whether the longest was one of many, and the longest bare update of
// one row with fsync, which follows each tick in a file of its own, how long the disk alone took.
func BenchmarkWorstWait(b *testing.B) {
	path := filepath.Join(b.TempDir(), "large.db")
	rows := largeBook()
	r := rand.New(rand.NewPCG(20, 27))
	for i, d := range rows.Todos { // one in five has notes
		if r.IntN(5) == 0 {
			d.After.NotesSize = 200
			rows.Notes = append(rows.Notes, book.Diff[book.Note]{After: &book.Note{ID: d.After.ID, Text: fmt.Sprintf("%-200d", i)}})
		}
	}
	writeBook(b, path, rows)
	a := openFrozen(b, path)
	defer a.Close()
	bare := bareRows(b, a)
	defer bare.Close()
	url := serve(b, a).URL
	get := func(path string) error {
		res, err := http.Get(url + path)
		if err != nil {
			return err
		}
		defer res.Body.Close()
		if _, err = io.Copy(io.Discard, res.Body); err == nil && res.StatusCode != http.StatusOK {
			err = errors.New(path + ": " + res.Status)
		}
		return err
	}
	post := func(path string, body []byte) error {
		req, err := http.NewRequest(http.MethodPost, url+path, bytes.NewReader(body))
		if err != nil {
			return err
		}
		req.Header.Set("Content-Type", "application/octet-stream")
		req.Header.Set("Idempotency-Key", app.NewID().String())
		req.Header.Set("Window-Id", "w")
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			return err
		}
		defer res.Body.Close()
		said, err := io.ReadAll(res.Body)
		if err == nil && res.StatusCode >= 300 {
			err = fmt.Errorf("%s: %s: %.300s", path, res.Status, said)
		}
		return err
	}
	var tick book.ID
	var ids []book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		for _, t := range large.Open() {
			switch {
			case t.Repeat != nil || !t.Parent.IsZero() || large.HasSubtasks(t.ID):
			case tick.IsZero():
				tick = t.ID
			case len(ids) < 5000:
				ids = append(ids, t.ID)
			}
		}
	})
	run := func(cmd book.Command) error {
		_, err := a.Run(b.Context(), app.Request{Window: "w"}, cmd, nil)
		return err
	}
	undo := func() error {
		_, err := a.Undo(b.Context(), app.Request{Window: "w"}, 0, nil)
		return err
	}
	due := day.MustMoment("2026-12-01")
	var csv bytes.Buffer
	csv.WriteString("title,due,list,notes\r\n")
	for i := range 10_000 {
		fmt.Fprintf(&csv, "Lamp %d to be labelled,2026-12-%02d,List %d,from the store room\r\n", i, 1+i%28, i%40)
	}
	type named struct {
		name string
		work func() error
	}
	works := []named{{"nothing", func() error { time.Sleep(time.Second); return nil }}}
	for _, f := range formats.All {
		works = append(works, named{"export-" + f.Name, func() error { return get("/api/export?format=" + f.Name) }})
	}
	works = append(works, []named{
		{"export-everything", func() error { return get("/api/everything") }},
		{"import-10000", func() error {
			return errors.Join(post("/api/import/look?format=csv&name=lamps.csv", csv.Bytes()), post("/api/import?format=csv&name=lamps.csv", csv.Bytes()), undo())
		}},
		{"bulk-5000-and-undo", func() error {
			return errors.Join(run(book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Edit{ID: id, Due: &due} }}), undo())
		}},
		{"backup", func() error {
			_, err := a.CopyTo(b.Context(), filepath.Join(b.TempDir(), app.NewID().String()))
			return err
		}},
	}...)
	for _, w := range works {
		b.Run(w.name, func(b *testing.B) { worstWait(b, a, bare, tick, 2*time.Millisecond, w.work) })
	}
	b.Run("20-windows", func(b *testing.B) {
		worstWait(b, a, bare, tick, 50*time.Millisecond, func() error { return windows(b.Context(), a, 20, get) })
	})
}

// windows are so many that follow each change for a second, and ask for a view and the counts.
func windows(ctx context.Context, a *app.Session, n int, get func(string) error) error {
	ctx, stop := context.WithTimeout(ctx, time.Second)
	defer stop()
	var all sync.WaitGroup
	failed := make(chan error, n)
	for i := range n {
		all.Go(func() {
			path := []string{"/api/views/today", "/api/views/upcoming", "/api/views/ready", "/api/week"}[i%4]
			for last := int64(-1); ctx.Err() == nil; {
				if now := a.Revision(); now == last {
					time.Sleep(time.Millisecond)
					continue
				} else {
					last = now
				}
				if err := errors.Join(get(path), get("/api/overview")); err != nil {
					failed <- err
					return
				}
			}
		})
	}
	all.Wait()
	close(failed)
	return <-failed
}

// worstWait carries ticks out, so long after each other, while work goes on.
func worstWait(b *testing.B, a *app.Session, bare *sql.DB, tick book.ID, pause time.Duration, work func() error) {
	var waits, took, alone []float64
	for b.Loop() {
		var done atomic.Bool
		ended := make(chan error, 1)
		begun := time.Now()
		go func() {
			err := work()
			done.Store(true)
			ended <- err
		}()
		for i := 0; i%2 == 1 || !done.Load(); i++ {
			cmd := book.Command(book.Complete{ID: tick})
			if i%2 == 1 {
				cmd = book.Reopen{ID: tick}
			}
			ticked := time.Now()
			if _, err := a.Run(context.Background(), app.Request{Window: "t"}, cmd, nil); err != nil {
				b.Fatal(err)
			}
			waits = append(waits, float64(time.Since(ticked).Microseconds())/1000)
			ticked = time.Now()
			if err := updateAll(bare, []book.ID{tick}, fmt.Sprint(i)); err != nil {
				b.Fatal(err)
			}
			alone = append(alone, float64(time.Since(ticked).Microseconds())/1000)
			time.Sleep(pause)
		}
		if err := <-ended; err != nil {
			b.Fatal(err)
		}
		took = append(took, time.Since(begun).Seconds())
	}
	slices.Sort(waits)
	slices.Sort(took)
	b.ReportMetric(took[len(took)/2], "s-work")
	b.ReportMetric(waits[len(waits)/2], "ms-p50")
	b.ReportMetric(waits[len(waits)*99/100], "ms-p99")
	b.ReportMetric(waits[len(waits)-1], "ms-worst")
	b.ReportMetric(slices.Max(alone), "ms-worst-bare")
	b.ReportMetric(waits[len(waits)-1]/50, "of-bar")
}
