package app_test

import (
	"context"
	"database/sql"
	"fmt"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// bareFile is a table of rows as plain as can be, kept as durably as ours.
func bareFile(b *testing.B, rows int) *sql.DB {
	b.Helper()
	bare, err := sql.Open("sqlite", "file:"+filepath.Join(b.TempDir(), "bare.db")+
		"?_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_txlock=immediate")
	if err != nil {
		b.Fatal(err)
	}
	bare.SetMaxOpenConns(1)
	if _, err := bare.Exec("CREATE TABLE t (id INTEGER PRIMARY KEY, done INTEGER)"); err != nil {
		b.Fatal(err)
	}
	for i := range rows {
		if _, err := bare.Exec("INSERT INTO t VALUES (?, 0)", i+1); err != nil {
			b.Fatal(err)
		}
	}
	return bare
}

// against carries out ours and theirs in turns and prints the medians' ratio.
func against(b *testing.B, ours, theirs func(i int) error) {
	b.Helper()
	var mine, bare []float64
	for i := 0; b.Loop(); i++ {
		for _, side := range []struct {
			work func(int) error
			took *[]float64
		}{{ours, &mine}, {theirs, &bare}} {
			begun := time.Now()
			if err := side.work(i); err != nil {
				b.Fatal(err)
			}
			*side.took = append(*side.took, float64(time.Since(begun).Microseconds()))
		}
	}
	slices.Sort(mine)
	slices.Sort(bare)
	b.ReportMetric(mine[len(mine)/2], "us-ours")
	b.ReportMetric(bare[len(bare)/2], "us-bare")
	b.ReportMetric(mine[len(mine)/2]/bare[len(bare)/2], "x-bare")
}

// bareRows is a table of as many rows as the Book has to-dos, with their ids,
// their titles and one thing to change.
func bareRows(b *testing.B, a *app.Session) *sql.DB {
	b.Helper()
	bare := bareFile(b, 0)
	if _, err := bare.Exec("CREATE TABLE rows (id BLOB PRIMARY KEY, title TEXT, priority TEXT) WITHOUT ROWID"); err != nil {
		b.Fatal(err)
	}
	tx, err := bare.Begin()
	if err != nil {
		b.Fatal(err)
	}
	a.Read(func(large *book.Desk, _ day.Clock) {
		for t := range large.All() {
			if _, err := tx.Exec("INSERT INTO rows VALUES (?, ?, 'none')", t.ID[:], t.Title+strings.Repeat(" ", 150)); err != nil {
				b.Fatal(err)
			}
		}
	})
	if err := tx.Commit(); err != nil {
		b.Fatal(err)
	}
	return bare
}

// BenchmarkMany prints durable changes of 500 and of 5,000 to-dos at once as a ratio to
// as many bare row updates in one SQLite transaction, of the same ids in a table of as
// many rows.
func BenchmarkMany(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	bare := bareRows(b, a)
	defer bare.Close()
	var open []book.ID
	var lists [2]book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		lists = [2]book.ID{large.Lists()[0].ID, large.Lists()[1].ID}
		for _, t := range large.Open() {
			if t.Repeat == nil && t.Parent.IsZero() && !large.HasSubtasks(t.ID) && len(open) < 5000 {
				open = append(open, t.ID)
			}
		}
	})
	friday := [2]day.Moment{day.MustMoment("2026-11-27"), day.MustMoment("2026-12-04")}
	for _, many := range []int{500, 5000} {
		ids := open[:many]
		all := func(do func(book.ID) book.Command) book.Command { return book.Many{IDs: ids, Do: do} }
		for _, c := range []struct {
			name string
			cmd  func(i int) book.Command
		}{
			{"priority", func(i int) book.Command {
				priority := book.Priority(i % 4)
				return all(func(id book.ID) book.Command { return book.Edit{ID: id, Priority: &priority} })
			}},
			{"due", func(i int) book.Command {
				return all(func(id book.ID) book.Command { return book.Edit{ID: id, Due: &friday[i%2]} })
			}},
			{"complete-or-reopen", func(i int) book.Command {
				return all(func(id book.ID) book.Command { return []book.Command{book.Complete{ID: id}, book.Reopen{ID: id}}[i%2] })
			}},
			{"move", func(i int) book.Command { return book.MoveMany{IDs: ids, To: book.Move{List: lists[i%2]}} }},
		} {
			b.Run(fmt.Sprintf("%s-%d", c.name, many), func(b *testing.B) {
				against(b, func(i int) error {
					nth++
					_, err := a.Run(context.Background(), keyed(nth), c.cmd(i), plain)
					return err
				}, func(i int) error { return updateAll(bare, ids, book.Priority(i%4).String()) })
			})
		}
	}
}

// nth makes a new key of each request.
var nth = 1_000_000

func updateAll(bare *sql.DB, ids []book.ID, priority string) error {
	tx, err := bare.Begin()
	if err != nil {
		return err
	}
	update, err := tx.Prepare("UPDATE rows SET priority = ? WHERE id = ?")
	if err != nil {
		return err
	}
	for _, id := range ids {
		if _, err := update.Exec(priority, id[:]); err != nil {
			return err
		}
	}
	return tx.Commit()
}

func keyed(i int) app.Request {
	return app.Request{Window: "w", Key: fmt.Sprint("k", i), Fingerprint: []byte("f")}
}

func plain(*app.Outcome) (*store.Reply, error) {
	return &store.Reply{Status: 200, Body: []byte("{}")}, nil
}

// BenchmarkArrange prints reordering, indenting and lifting in a list of some
// 2,000 as a ratio to a bare one-row update with fsync.
func BenchmarkArrange(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	own := book.ByHand
	var list book.ID
	var ids []book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		list = large.Lists()[0].ID
		for t := range large.OfList(list) {
			if t.Open() && t.Parent.IsZero() && !large.HasSubtasks(t.ID) {
				ids = append(ids, t.ID)
			}
		}
	})
	if _, err := a.Run(context.Background(), app.Request{}, book.EditList{ID: list, Order: &own}, nil); err != nil {
		b.Fatal(err)
	}
	n := len(ids)
	for _, c := range []struct {
		name string
		cmd  func(i int) book.Command
	}{
		{"reorder", func(i int) book.Command {
			return book.Move{ID: ids[i*7%n], List: list, After: ids[(i*13+n/2+1)%n]}
		}},
		{"indent-and-lift", func(i int) book.Command { // in turns, so that each moves something
			at := i / 2 % (n / 2)
			if i%2 == 0 {
				return book.Move{ID: ids[at+n/2], Parent: ids[at]}
			}
			return book.Move{ID: ids[at+n/2], List: list, After: ids[at]}
		}},
	} {
		b.Run(c.name, func(b *testing.B) {
			bare := bareFile(b, 1)
			defer bare.Close()
			against(b, func(i int) error {
				if ids[i*7%n] == ids[(i*13+n/2+1)%n] {
					i++
				}
				_, err := a.Run(context.Background(), app.Request{Window: "w"}, c.cmd(i), plain)
				return err
			}, func(i int) error {
				_, err := bare.Exec("UPDATE t SET done = ? WHERE id = 1", i)
				return err
			})
		})
	}
}
