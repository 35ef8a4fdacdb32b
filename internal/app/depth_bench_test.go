package app_test

import (
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/formats"
)

// chains is a Book of about 3,000 open to-dos, each of which stands alone in the to-do above it,
// so many levels deep. The first of each chain are returned, and the last.
func chains(levels int) (rows *book.Change, tops, leaves []book.ID) {
	r := rand.New(rand.NewPCG(20, 26))
	rows = &book.Change{Revision: 1, Kind: "bench"}
	shelf := &book.Shelf{ID: book.ID{0: 3, 15: 1}, Name: "Museum", Position: "a0V", Revision: 1}
	rows.Shelves = append(rows.Shelves, book.Diff[book.Shelf]{After: shelf})
	list := &book.List{ID: book.ID{0: 2, 15: 1}, Shelf: shelf.ID, Name: "Night Signals", Position: "a0V", Revision: 1}
	rows.Lists = append(rows.Lists, book.Diff[book.List]{After: list})
	today := day.DateOf(benchNow)
	position, above := book.Position(""), book.ID{}
	for i := range 3000 / levels * levels {
		position = position.After()
		t := &book.Todo{ID: book.ID{0: 1, 14: byte(i >> 8), 15: byte(i)}, Title: fmt.Sprintf("Label %d of the lamps", i), Position: position, List: list.ID,
			Priority: book.Priority(r.IntN(4)), Created: day.TimestampOf(benchNow), Changed: day.TimestampOf(benchNow), Revision: 1}
		if r.IntN(2) == 0 {
			t.Due.Date = today.AddDays(r.IntN(60) - 5)
		}
		if r.IntN(4) == 0 {
			t.Plan = day.OnDay(today.AddDays(r.IntN(60)))
		}
		if r.IntN(3) == 0 {
			t.Estimate = int32(5 + r.IntN(20))
		}
		if t.Parent = above; i%levels == 0 {
			t.Parent = book.ID{}
			tops = append(tops, t.ID)
		}
		if above = t.ID; i%levels == levels-1 {
			leaves = append(leaves, t.ID)
		}
		rows.Todos = append(rows.Todos, book.Diff[book.Todo]{After: t})
	}
	return rows, tops, leaves
}

// BenchmarkDepth prints what takes how long in chains of 100 subtasks as a ratio to the same in
// chains of three, with as many to-dos in all (bar 3): a start, each answer, each export, and
// commands that write as many rows on both sides, with what follows from them. A command is
// carried out and undone.
func BenchmarkDepth(b *testing.B) {
	type side struct {
		path         string
		app          *app.Session
		url          string
		list         book.ID
		tops, leaves []book.ID
		levels       int
	}
	var sides []*side
	for _, levels := range []int{3, book.MaxDepth} {
		s := &side{path: filepath.Join(b.TempDir(), fmt.Sprint(levels, ".db")), levels: levels}
		var rows *book.Change
		rows, s.tops, s.leaves = chains(levels)
		s.list = rows.Lists[0].After.ID
		writeBook(b, s.path, rows)
		sides = append(sides, s)
	}
	compare := func(name string, do func(s *side) error) {
		b.Run(name, func(b *testing.B) {
			var took [2][]float64
			for b.Loop() {
				for i, s := range sides {
					begun := time.Now()
					if err := do(s); err != nil {
						b.Fatal(s.levels, err)
					}
					took[i] = append(took[i], float64(time.Since(begun).Microseconds())/1000)
				}
			}
			for i := range took {
				slices.Sort(took[i])
			}
			shallow, deep := took[0][len(took[0])/2], took[1][len(took[1])/2]
			b.ReportMetric(deep, "ms-100-deep")
			b.ReportMetric(deep/shallow, "x-3-deep")
		})
	}
	compare("start", func(s *side) error { return openFrozen(b, s.path).Close() })
	for _, s := range sides {
		s.app = openFrozen(b, s.path)
		defer s.app.Close()
		s.url = serve(b, s.app).URL
	}
	get := func(path string) func(*side) error {
		return func(s *side) error {
			res, err := http.Get(s.url + path)
			if err != nil {
				return err
			}
			_, err = io.Copy(io.Discard, res.Body)
			if res.StatusCode != http.StatusOK {
				return fmt.Errorf("%s: %s", path, res.Status)
			}
			return err
		}
	}
	for _, path := range []string{"/views/today", "/views/overdue", "/views/upcoming", "/views/within-a-week", "/views/ready", "/views/waiting",
		"/views/projects", "/overview", "/week", "/week/level", "/week/hours", "/week/give", "/review/weekly", "/past",
		"/lists/" + sides[0].list.String() + "/view", "/search?q=label"} {
		compare(path[1:], get("/api"+path))
	}
	for _, f := range formats.All {
		compare("export-"+f.Name, func(s *side) error {
			items, err := s.app.Take(b.Context(), app.What{})
			if err == nil {
				_, err = f.Write(items, s.app.World())
			}
			return err
		})
	}
	// run carries a command out and undoes it, each with the counts that windows ask for then.
	run := func(s *side, cmd book.Command) error {
		_, err := s.app.Run(b.Context(), app.Request{Window: "w"}, cmd, nil)
		if err == nil {
			err = get("/api/overview")(s)
		}
		if err == nil {
			_, err = s.app.Undo(b.Context(), app.Request{Window: "w"}, 0, nil)
		}
		return err
	}
	edited := func(e book.Edit) func(id book.ID) book.Command {
		return func(id book.ID) book.Command { e.ID = id; return e }
	}
	title, due, minutes := "Have the labels of the lamps read", day.MustMoment("2026-12-01"), 45
	for name, do := range map[string]func(book.ID) book.Command{
		"title": edited(book.Edit{Title: &title}), "due": edited(book.Edit{Due: &due}), "estimate": edited(book.Edit{Estimate: &minutes}),
	} {
		compare(name+"-of-the-first", func(s *side) error { return run(s, do(s.tops[3])) })
		compare(name+"-of-the-last", func(s *side) error { return run(s, do(s.leaves[3])) })
	}
	compare("capture-below-the-last-but-one", func(s *side) error {
		var parent book.ID
		s.app.Read(func(d *book.Desk, _ day.Clock) {
			if t, err := d.Todo(s.leaves[3]); err == nil {
				parent = t.Parent
			}
		})
		return run(s, book.Capture{Title: "Ring the framer", Parent: parent})
	})
	for name, do := range map[string]func(book.ID) book.Command{
		"complete": func(id book.ID) book.Command { return book.Complete{ID: id} },
		"cancel":   func(id book.ID) book.Command { return book.Cancel{ID: id} },
		"delete":   func(id book.ID) book.Command { return book.Delete{ID: id} },
		"move":     func(id book.ID) book.Command { return book.Move{ID: id} },
	} {
		compare(name+"-300", func(s *side) error {
			return run(s, book.Many{IDs: s.tops[:300/s.levels], Do: do})
		})
	}
	compare("tick-each-of-300", func(s *side) error {
		var ids []book.ID
		s.app.Read(func(d *book.Desk, _ day.Clock) {
			for _, top := range s.tops[:300/s.levels] {
				ids = append(ids, top)
				for t := range d.OfList(top) {
					ids = append(ids, t.ID)
				}
			}
		})
		return run(s, book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }})
	})
}
