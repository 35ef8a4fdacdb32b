package app_test

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/repeat"
	"tincup/internal/core/view"
	"tincup/internal/httpapi"
	"tincup/internal/store"
)

// The Book of the bars: 100,000 to-dos, 20,000 of them open, 40 lists.
const (
	benchTodos = 100_000
	benchOpen  = 20_000
	benchLists = 40
)

// benchRepeats are what the Book's repeats are made of.
var benchRepeats = []*repeat.Repeat{
	{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=2")}, {Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=MO,TH")},
	{Rule: repeat.MustParse("FREQ=MONTHLY;BYDAY=-1FR")}, {Rule: repeat.MustParse("FREQ=YEARLY")},
}

var benchNow = time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC)

// largeBook is what the bars are measured on, as rows.
func largeBook() *book.Change { return bookOf(benchTodos, benchOpen) }

// bookOf is a Book of so many to-dos, the first of them open.
func bookOf(todos, open int) *book.Change {
	r := rand.New(rand.NewPCG(20, 26))
	rows := &book.Change{Revision: 1, Kind: "bench"}
	var ids uint32
	id := func() book.ID {
		ids++
		return book.ID{0: 1, 12: byte(ids >> 24), 13: byte(ids >> 16), 14: byte(ids >> 8), 15: byte(ids)}
	}
	shelf := &book.Shelf{ID: id(), Name: "All", Position: "a0V", Revision: 1}
	rows.Shelves = append(rows.Shelves, book.Diff[book.Shelf]{After: shelf})
	var lists []book.ID
	for i := range benchLists {
		l := &book.List{ID: id(), Shelf: shelf.ID, Name: fmt.Sprintf("List %d", i), Position: book.Position(fmt.Sprintf("a0V%03d", i)), Revision: 1}
		lists = append(lists, l.ID)
		rows.Lists = append(rows.Lists, book.Diff[book.List]{After: l})
	}
	var tags, people []book.ID
	for i := range 30 {
		t := &book.Tag{ID: id(), Name: fmt.Sprintf("tag%d", i), Revision: 1}
		tags = append(tags, t.ID)
		rows.Tags = append(rows.Tags, book.Diff[book.Tag]{After: t})
	}
	for i := range 20 {
		p := &book.Person{ID: id(), Name: fmt.Sprintf("Person %d", i), Revision: 1}
		people = append(people, p.ID)
		rows.People = append(rows.People, book.Diff[book.Person]{After: p})
	}
	var project *book.Todo
	today := day.DateOf(benchNow)
	position := book.Position("")
	for i := range todos {
		position = position.After()
		made := benchNow.Add(-time.Duration(r.IntN(3*365*24)) * time.Hour)
		t := &book.Todo{ID: id(), Title: fmt.Sprintf("To-do number %d about something or other", i), Position: position,
			Priority: book.Priority(r.IntN(4)), Created: day.TimestampOf(made), Changed: day.TimestampOf(made), Revision: 1}
		if r.IntN(50) > 0 {
			t.List = lists[r.IntN(len(lists))]
		}
		near := today.AddDays(r.IntN(400) - 5)
		switch r.IntN(4) {
		case 0:
			t.Due.Date = near
		case 1:
			t.Due = day.MustMoment(near.String() + "T16:00")
		}
		switch r.IntN(8) {
		case 0:
			t.Plan = day.OnDay(near)
		case 1:
			t.Plan = day.InWeek(near)
		case 2:
			t.Plan = day.SomeTime()
		}
		if i%20 == 0 && !t.Due.IsZero() { // one in forty repeats
			rep := *benchRepeats[i/20%len(benchRepeats)]
			rep.First, rep.Current = t.Due.Date, t.Due.Date
			t.Repeat = &rep
		}
		for range r.IntN(3) {
			if tag := tags[r.IntN(len(tags))]; !t.HasTag(tag) {
				t.Tags = append(t.Tags, tag)
			}
		}
		if r.IntN(3) == 0 {
			t.Estimate = int32(5 + r.IntN(120))
		}
		if r.IntN(20) == 0 {
			t.Person = book.Involved{ID: people[r.IntN(len(people))], Role: book.Role(1 + r.IntN(3)), Since: today.AddDays(-r.IntN(60))}
		}
		switch { // one in forty is a project of four subtasks
		case i%40 == 0:
			project = t
		case i%40 < 5 && i < open:
			t.Parent, t.List = project.ID, project.List
		}
		if i >= open {
			t.Status = book.Completed
			t.Completed = day.TimestampOf(made.Add(time.Hour))
		}
		rows.Todos = append(rows.Todos, book.Diff[book.Todo]{After: t})
	}
	r.Shuffle(len(rows.Todos), func(i, j int) { rows.Todos[i], rows.Todos[j] = rows.Todos[j], rows.Todos[i] })
	return rows
}

func inMemory(rows *book.Change) *book.Desk {
	b, desk := book.Alone(book.MemoryNotes{})
	rows.By(desk.Account())
	b.Load(1, rows)
	return desk
}

// bareLoop is what views are measured against: one pass over all to-dos that
// reads status and due of each and keeps the count.
func bareLoop(todos []*book.Todo, today day.Date) int {
	n := 0
	for _, t := range todos {
		if t.Status.Open() && !t.Due.IsZero() && !t.Due.Date.After(today) {
			n++
		}
	}
	return n
}

// timed returns the median of several runs, in nanoseconds.
func timed(f func()) float64 {
	var runs []float64
	for range 15 {
		begun := time.Now()
		f()
		runs = append(runs, float64(time.Since(begun).Nanoseconds()))
	}
	slices.Sort(runs)
	return runs[len(runs)/2]
}

var sink int

// BenchmarkViews prints each view, asked cold for its first 200 rows, as a
// ratio to the bare loop; where more than 5,000 match, to the loop and a sort.
func BenchmarkViews(b *testing.B) {
	rows := largeBook()
	large := inMemory(rows)
	c := day.Clock{Now: benchNow, Zone: time.UTC}
	all := slices.Concat(large.Open(), large.Closed())
	queries := []view.Query{{Of: view.Cup}, {Of: view.Today}, {Of: view.Overdue}, {Of: view.Upcoming},
		{Of: view.Upcoming, Months: 12}, {Of: view.WithinAWeek}, {Of: view.Done}, {Of: view.Ready},
		{Of: view.Waiting}, {Of: view.Projects},
		{Of: view.InList{ID: rows.Lists[0].After.ID}}, {Of: view.OnRail{Cup: day.SomeTime()}}, {Of: view.Bin}}
	for _, q := range queries {
		q.Limit = 200
		name := fmt.Sprintf("%T", q.Of)
		if ships, ok := q.Of.(view.Name); ok {
			name = string(ships)
		}
		if q.Months > 0 {
			name += "-12-months"
		}
		b.Run(name, func(b *testing.B) { benchView(b, large, c, all, q) })
	}
	// Slack is reckoned anew after each change and each minute: Ready with that.
	hours := plan.NewCapacity(c, plan.DefaultCalendar(), nil, plan.MaxDays)
	room := func() *book.Desk { return large.With(book.MemoryNotes{}, plan.NewSlacks(hours, large, 30)) }
	b.Run("slack", func(b *testing.B) {
		loop := timed(func() { sink += bareLoop(all, c.Today()) })
		for b.Loop() {
			room()
		}
		b.ReportMetric(timed(func() { room() })/loop, "x-loop")
	})
	b.Run("ready-by-slack", func(b *testing.B) {
		benchView(b, room(), c, all, view.Query{Of: view.Ready, Limit: 200})
	})
	b.Run("survey", func(b *testing.B) {
		loop := timed(func() { sink += bareLoop(all, c.Today()) })
		ask := func() { sink += len(view.NewTally(large, c).Survey(large, c).Rail) }
		for b.Loop() {
			ask()
		}
		b.ReportMetric(timed(ask)/loop, "x-loop")
	})
}

// benchView prints a view, asked cold, as a ratio to the bare loop and its bar.
func benchView(b *testing.B, large *book.Desk, c day.Clock, all []*book.Todo, q view.Query) {
	ask := func() {
		res, err := view.Ask(large, c, q)
		if err != nil {
			b.Fatal(err)
		}
		sink += res.Total
	}
	res, err := view.Ask(large, c, q)
	if err != nil {
		b.Fatal(err)
	}
	loop := timed(func() { sink += bareLoop(all, c.Today()) })
	bar := 5 * loop
	if res.Total > 5000 {
		matching := all[:res.Total]
		bar = 2 * (loop + timed(func() { slices.SortFunc(slices.Clone(matching), byKey) }))
	}
	for b.Loop() {
		ask()
	}
	took := timed(ask)
	b.ReportMetric(float64(res.Total), "match")
	b.ReportMetric(took/loop, "x-loop")
	b.ReportMetric(took/bar, "of-bar")
}

func byKey(a, b *book.Todo) int {
	if a.Priority != b.Priority {
		return int(b.Priority) - int(a.Priority)
	}
	if c := a.Due.Compare(b.Due); c != 0 {
		return c
	}
	return strings.Compare(string(a.Position), string(b.Position))
}

// largeFile writes the large Book to a file and opens it.
func largeFile(b *testing.B) (*app.Session, string) {
	b.Helper()
	path := filepath.Join(b.TempDir(), "large.db")
	writeBook(b, path, largeBook())
	return openFrozen(b, path), path
}

// writeBook writes rows to a new file, and their words to its index.
func writeBook(b *testing.B, path string, rows *book.Change) {
	b.Helper()
	s, err := store.Open(b.Context(), path)
	if err == nil {
		var owner book.ID
		owner, err = ownerOf(b.Context(), s)
		rows.By(owner)
	}
	if err == nil {
		err = s.Save(b.Context(), store.Entry{Change: rows, Final: true})
	}
	for more := true; err == nil && more; {
		more, err = s.IndexSome(b.Context())
	}
	if err == nil {
		err = s.Close()
	}
	if err != nil {
		b.Fatal(err)
	}
}

// ownerOf tells whose a new file is.
func ownerOf(ctx context.Context, s *store.Store) (book.ID, error) {
	empty, err := s.Load(ctx)
	if err != nil {
		return book.ID{}, err
	}
	return empty.Owner(), nil
}

// openFrozen opens a file as its owner uses it, with the clock standing at benchNow.
func openFrozen(b testing.TB, path string) *app.Session {
	b.Helper()
	a, err := app.Open(b.Context(), path, clock.Frozen(benchNow), app.Settings{Zone: time.UTC},
		slog.New(slog.NewTextHandler(io.Discard, nil)))
	if err != nil {
		b.Fatal(err)
	}
	return a.Owner()
}

// BenchmarkStart prints the seconds to open the large Book and the memory then.
func BenchmarkStart(b *testing.B) {
	a, path := largeFile(b)
	if err := a.Close(); err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		debug.FreeOSMemory() // what making the file has left behind
		begun := time.Now()
		a := openFrozen(b, path)
		b.ReportMetric(time.Since(begun).Seconds(), "s-start")
		runtime.GC()
		b.ReportMetric(residentMB(b), "MB-resident")
		if err := a.Close(); err != nil {
			b.Fatal(err)
		}
	}
}

func residentMB(b *testing.B) float64 {
	status, err := os.ReadFile("/proc/self/status")
	if err != nil {
		b.Fatal(err)
	}
	for line := range strings.Lines(string(status)) {
		if fields := strings.Fields(line); len(fields) == 3 && fields[0] == "VmRSS:" {
			kb, err := strconv.ParseFloat(fields[1], 64)
			if err != nil {
				b.Fatal(err)
			}
			return kb / 1000
		}
	}
	return 0
}

// BenchmarkTick prints a durable tick as a ratio to a bare SQLite update of
// one row with fsync, in turns on the same file system.
func BenchmarkTick(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	bare, err := sql.Open("sqlite", "file:"+filepath.Join(b.TempDir(), "bare.db")+
		"?_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_txlock=immediate")
	if err != nil {
		b.Fatal(err)
	}
	defer bare.Close()
	bare.SetMaxOpenConns(1)
	for _, q := range []string{"CREATE TABLE t (id INTEGER PRIMARY KEY, done INTEGER)", "INSERT INTO t VALUES (1, 0)"} {
		if _, err := bare.Exec(q); err != nil {
			b.Fatal(err)
		}
	}
	var ids []book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		for _, t := range large.Open() {
			ids = append(ids, t.ID)
		}
	})
	// Somebody has asked for the counts: they are kept from here on.
	a.Read(func(large *book.Desk, c day.Clock) { a.Survey(large, c) })
	ctx := context.Background()
	var ticks, updates []float64
	for i := 0; b.Loop(); i++ {
		begun := time.Now()
		respond := func(o *app.Outcome) (*store.Reply, error) { return &store.Reply{Status: 200, Body: []byte("{}")}, nil }
		if _, err := a.Run(ctx, app.Request{Window: "w", Key: fmt.Sprint("k", i), Fingerprint: []byte("f")},
			book.Complete{ID: ids[i%len(ids)]}, respond); err != nil {
			b.Fatal(err)
		}
		ticks = append(ticks, float64(time.Since(begun).Microseconds()))
		begun = time.Now()
		if _, err := bare.Exec("UPDATE t SET done = ? WHERE id = 1", i); err != nil {
			b.Fatal(err)
		}
		updates = append(updates, float64(time.Since(begun).Microseconds()))
	}
	slices.Sort(ticks)
	slices.Sort(updates)
	b.ReportMetric(ticks[len(ticks)/2], "us-tick")
	b.ReportMetric(updates[len(updates)/2], "us-bare-update")
	b.ReportMetric(ticks[len(ticks)/2]/updates[len(updates)/2], "x-bare-update")
}

// BenchmarkTickBySize prints the whole work of a tick, with counts and all, in a Book of
// 100,000 to-dos as a ratio to that in one of 10,000, in turns (bar 1.5).
func BenchmarkTickBySize(b *testing.B) {
	type side struct {
		app  *app.Session
		ids  []book.ID
		took []float64
	}
	var sides []*side
	for _, size := range []int{benchTodos / 10, benchTodos} {
		path := filepath.Join(b.TempDir(), fmt.Sprint(size, ".db"))
		writeBook(b, path, bookOf(size, size/5))
		s := &side{app: openFrozen(b, path)}
		defer s.app.Close()
		s.app.Read(func(desk *book.Desk, c day.Clock) {
			s.app.Survey(desk, c)
			for _, t := range desk.Open()[:1000] {
				s.ids = append(s.ids, t.ID)
			}
		})
		sides = append(sides, s)
	}
	for i := 0; b.Loop(); i++ {
		for _, s := range sides {
			var cmd book.Command = book.Complete{ID: s.ids[i/2%len(s.ids)]}
			if i%2 == 1 {
				cmd = book.Reopen{ID: s.ids[i/2%len(s.ids)]}
			}
			begun := time.Now()
			if _, err := s.app.Run(b.Context(), app.Request{Window: "w"}, cmd, nil); err != nil {
				b.Fatal(err)
			}
			s.took = append(s.took, float64(time.Since(begun).Microseconds()))
		}
	}
	median := func(s *side) float64 {
		slices.Sort(s.took)
		return s.took[len(s.took)/2]
	}
	b.ReportMetric(median(sides[0]), "us-10k")
	b.ReportMetric(median(sides[1]), "us-100k")
	b.ReportMetric(median(sides[1])/median(sides[0]), "x-10k")
}

// serve answers for an App until the benchmark ends.
func serve(b *testing.B, a *app.Session) *httptest.Server {
	b.Helper()
	handler, err := httpapi.New(a.App, httpapi.OwnerAlone(a.App), fstest.MapFS{}, slog.New(slog.NewTextHandler(io.Discard, nil)))
	if err != nil {
		b.Fatal(err)
	}
	server := httptest.NewServer(handler)
	b.Cleanup(server.Close)
	return server
}

// BenchmarkHTTP prints p50 and p99 of the first 200 rows of each view.
func BenchmarkHTTP(b *testing.B) {
	a, _ := largeFile(b)
	defer a.Close()
	server := serve(b, a)
	var list string
	var ids []book.ID
	a.Read(func(large *book.Desk, _ day.Clock) {
		list = large.Lists()[0].ID.String()
		for _, t := range large.Open() {
			ids = append(ids, t.ID)
		}
	})
	paths := map[string]string{"cup": "/api/views/cup", "today": "/api/views/today", "overdue": "/api/views/overdue",
		"upcoming": "/api/views/upcoming", "within-a-week": "/api/views/within-a-week", "done": "/api/views/done",
		"list": "/api/lists/" + list + "/view", "parked": "/api/rail/parked", "overview": "/api/overview",
		"ready": "/api/views/ready", "week": "/api/week", "level": "/api/week/level", "review": "/api/review/weekly", "past": "/api/past", "hours": "/api/week/hours", "give": "/api/week/give", "waiting": "/api/views/waiting", "projects": "/api/views/projects"}
	for name, id := range saveViews(b, a) {
		paths["saved-"+name] = "/api/own-views/" + id.String() + "/view"
	}
	for name, path := range paths {
		b.Run(name, func(b *testing.B) {
			var took []float64
			for i := 0; b.Loop(); i++ {
				if name == "overview" { // the counts are those after a change
					if _, err := a.Run(b.Context(), app.Request{Window: "w"}, book.Complete{ID: ids[i%len(ids)]}, nil); err != nil {
						b.Fatal(err)
					}
				}
				begun := time.Now()
				res, err := http.Get(server.URL + path)
				if err != nil {
					b.Fatal(err)
				}
				body, err := io.ReadAll(res.Body)
				took = append(took, float64(time.Since(begun).Microseconds())/1000)
				if err != nil || res.StatusCode != 200 || !json.Valid(body) {
					b.Fatal(res.Status, err)
				}
				if err := res.Body.Close(); err != nil {
					b.Fatal(err)
				}
			}
			slices.Sort(took)
			b.ReportMetric(took[len(took)/2], "ms-p50")
			b.ReportMetric(took[len(took)*99/100], "ms-p99")
		})
	}
}
