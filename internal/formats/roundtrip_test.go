package formats_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"regexp"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/geo"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
	"tincup/internal/formats"
	"tincup/internal/formats/csvfile"
	"tincup/internal/formats/everything"
	"tincup/internal/formats/ics"
	"tincup/internal/formats/jscal"
	"tincup/internal/formats/markdown"
)

var (
	books = flag.Int("books", 60, "random Books that go through each format")
	seed  = flag.Uint64("seed", 0, "of the random Books; 0 takes another each time")
)

// shop is an empty desk, with a clock that stands.
type shop struct {
	book *book.Book
	desk *book.Desk
	now  time.Time
	zone *time.Location
	ids  int
}

func newShop(t *testing.T) *shop {
	t.Helper()
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	b, desk := book.Alone(book.MemoryNotes{})
	return &shop{book: b, desk: desk, zone: zone, now: time.Date(2026, 11, 24, 9, 10, 0, 0, zone)}
}

func (s *shop) env() book.Env {
	return book.Env{Clock: day.Clock{Now: s.now, Zone: s.zone}, NewID: func() book.ID {
		s.ids++
		return book.ID{1, 0xa2, 6: 0x70, 8: 0x80, 13: byte(s.ids >> 16), 14: byte(s.ids >> 8), 15: byte(s.ids)}
	}}
}

func (s *shop) world() exchange.World {
	return exchange.World{Now: s.now, Zone: s.zone, Name: "Lamps", Sentences: capture.Env{Clock: day.Clock{Now: s.now, Zone: s.zone}}, Places: map[string]geo.Point{"The museum": geo.MustAt(38.7, -9.1)}}
}

// bring imports items, and fails where one is left out.
func (s *shop) bring(t *testing.T, items []exchange.Item) *book.Change {
	t.Helper()
	cmd := exchange.Command(items, book.ID{})
	change, err := s.desk.Do(s.env(), cmd)
	if err != nil {
		t.Fatal(err)
	}
	for i, told := range cmd.Report {
		if told.Err != nil {
			t.Fatalf("“%s” is left out: %v", items[i].Todo.Title, told.Err)
		}
	}
	if !change.Empty() {
		s.book.Apply(change)
	}
	for _, f := range s.desk.Faults(day.DateOf(s.now)) {
		t.Errorf("a fault: %s", f.Says)
	}
	return change
}

// dump is everything of a desk as text, an item a line, without what each Book has for itself.
func (s *shop) dump(t *testing.T, forgets func(*exchange.Item)) []string {
	t.Helper()
	items, err := exchange.Take(s.desk, exchange.Everything(s.desk))
	if err != nil {
		t.Fatal(err)
	}
	var lines []string
	for i, item := range items {
		if forgets != nil {
			forgets(&item)
		}
		row := &item.Todo
		row.ID, row.List, row.Section, row.Parent, row.Person.ID, row.Position, row.Tags = book.ID{}, book.ID{}, book.ID{}, book.ID{}, book.ID{}, "", nil
		row.Revision, row.NotesSize, row.Changed, row.RemindFrom, row.UID = 0, 0, 0, 0, ""
		text, err := json.Marshal(row)
		if err != nil {
			t.Fatal(err)
		}
		lines = append(lines, fmt.Sprintf("%d under %d: %s %q in %q/%q, %q, tags %v, notes %q", i, item.Under, text, item.UID, item.List, item.Section, item.Person, item.Tags, item.Notes))
	}
	return lines
}

// Random to-dos go out and in again, and are the same, in their order.
func TestRoundTrip(t *testing.T) {
	random := *seed
	if random == 0 {
		random = rand.Uint64()
	}
	// A line of Markdown has no UID, and does not say when it was made or done.
	lines := func(item *exchange.Item) {
		item.UID, item.Todo.Created, item.Todo.Person.Since = "", 0, day.Date{}
		if !item.Todo.Completed.IsZero() {
			item.Todo.Completed = 1
		}
	}
	for name, format := range map[string]struct {
		exchange.Codec
		forgets func(*exchange.Item)
	}{
		"iCalendar": {ics.Format{}, nil}, "CSV": {csvfile.Format{}, nil}, "JSCalendar": {jscal.Format{}, nil},
		"Markdown": {markdown.Format{}, lines},
	} {
		codec := format.Codec
		t.Run(name, func(t *testing.T) {
			t.Logf("seed %d", random)
			todos := 0
			for n := range *books {
				r := rand.New(rand.NewPCG(random, uint64(n)))
				from, to := newShop(t), newShop(t)
				from.bring(t, randomItems(r, from))
				want := from.dump(t, format.forgets)
				items, err := exchange.Take(from.desk, exchange.Everything(from.desk))
				if err != nil {
					t.Fatal(err)
				}
				file, err := codec.Write(items, from.world())
				if err != nil {
					t.Fatal(err)
				}
				back, refused, err := codec.Read(file, to.world())
				if err != nil || len(refused) > 0 {
					t.Fatalf("seed %d, book %d: %v, %+v\n%s", random, n, err, refused, file)
				}
				to.bring(t, back)
				got := to.dump(t, format.forgets)
				for i := range max(len(got), len(want)) {
					if i >= len(got) || i >= len(want) || got[i] != want[i] {
						t.Fatalf("seed %d, book %d: it comes back as\n%s\nwant\n%s\nin\n%s", random, n, at(got, i), at(want, i), file)
					}
				}
				todos += len(want)
				if format.forgets != nil {
					continue
				}
				// Once more, and nothing is new.
				cmd := exchange.Command(back, book.ID{})
				if again, err := to.desk.Do(to.env(), cmd); err != nil || !again.Empty() {
					t.Fatalf("seed %d, book %d: brought in again, %q, %v, %+v", random, n, again.Says, err, cmd.Report)
				}
			}
			t.Logf("%d Books, %d to-dos", *books, todos)
		})
	}
}

// Everything goes out and into an empty Book, and is the same to the last row.
func TestEverythingRoundTrip(t *testing.T) {
	random := *seed
	if random == 0 {
		random = rand.Uint64()
	}
	t.Logf("seed %d", random)
	rows := 0
	for n := range *books {
		r := rand.New(rand.NewPCG(random, uint64(n)))
		from, to := newShop(t), newShop(t)
		from.bring(t, randomItems(r, from))
		whole, err := from.desk.Whole()
		if err != nil {
			t.Fatal(err)
		}
		var file bytes.Buffer
		if err := everything.Write(t.Context(), &file, everything.Contents{Rows: whole, World: from.world()}); err != nil {
			t.Fatal(err)
		}
		archive, err := everything.Read(bytes.NewReader(file.Bytes()), int64(file.Len()))
		if err != nil {
			t.Fatalf("seed %d, book %d: %v", random, n, err)
		}
		change, err := to.desk.Do(to.env(), book.MoveIn{Rows: archive.Rows})
		if err != nil {
			t.Fatalf("seed %d, book %d: %v", random, n, err)
		}
		to.book.Apply(change)
		want, got := allRows(t, from.desk), allRows(t, to.desk)
		for row := range want {
			if !got[row] {
				t.Fatalf("seed %d, book %d: missing is %s", random, n, row)
			}
		}
		if len(got) != len(want) {
			t.Fatalf("seed %d, book %d: %d rows, want %d", random, n, len(got), len(want))
		}
		rows += len(want)
	}
	t.Logf("%d Books, %d rows", *books, rows)
}

var revisions = regexp.MustCompile(`,?"Revision":\d+`)

// allRows are the rows of a desk as text, without their revisions.
func allRows(t *testing.T, desk *book.Desk) map[string]bool {
	t.Helper()
	whole, err := desk.Whole()
	if err != nil {
		t.Fatal(err)
	}
	rows := map[string]bool{}
	for kind, all := range map[string]any{"to-dos": whole.Todos, "notes": whole.Notes, "lists": whole.Lists, "sections": whole.Sections, "shelves": whole.Shelves,
		"tags": whole.Tags, "people": whole.People, "places": whole.Places, "views": whole.Views} {
		text, err := json.Marshal(all)
		if err != nil {
			t.Fatal(err)
		}
		var each []json.RawMessage
		if err := json.Unmarshal(text, &each); err != nil {
			t.Fatal(err)
		}
		for _, row := range each {
			rows[kind+" "+string(revisions.ReplaceAll(row, nil))] = true
		}
	}
	return rows
}

func at(lines []string, i int) string {
	if i < len(lines) {
		return lines[i]
	}
	return "nothing"
}

func pick[T any](r *rand.Rand, from ...T) T { return from[r.IntN(len(from))] }

func randomText(r *rand.Rand, words int) string {
	var all []string
	for range 1 + r.IntN(words) {
		all = append(all, pick(r, "lamp", "Order", "été", "crate;", "a,b", `back\slash`, `"quoted"`, "日本", "🏮", "עברית", "by Friday", "#tag", "- [ ]", "x:y", "=1+1", "<b>", "-- no", "*star*", "1."))
	}
	return strings.Join(all, " ")
}

// randomItems are to-dos that a Book can hold.
func randomItems(r *rand.Rand, s *shop) []exchange.Item {
	today := day.DateOf(s.now)
	var items []exchange.Item
	for i := range 1 + r.IntN(25) {
		id := book.ID{1, 0xa3, 4: byte(r.Uint32()), 5: byte(i), 6: 0x70, 8: 0x80, 12: byte(r.Uint32()), 13: byte(r.Uint32()), 15: byte(i)}
		item := exchange.Item{Incoming: book.Incoming{UID: id.String(), Under: -1, Carries: exchange.All}}
		if r.IntN(4) == 0 {
			item.UID = fmt.Sprintf("%s-%d@elsewhere.example", randomText(r, 2), i)
		}
		t := &item.Todo
		t.Title, t.Created = randomText(r, 8), day.TimestampOf(s.now.Add(-time.Duration(r.IntN(1e6))*time.Second))
		if r.IntN(3) == 0 {
			item.Notes = randomText(r, 30) + pick(r, "", "\n\nand more\n\tindented", "\n- a list\n- of two")
		}
		t.IsNote = r.IntN(10) == 0
		if len(items) > 0 && r.IntN(3) == 0 {
			if up := r.IntN(len(items)); !items[up].Todo.IsNote && items[up].Todo.Status.Open() {
				item.Under = up
			}
		}
		if item.Under < 0 && r.IntN(3) > 0 {
			item.List = pick(r, "Loans", "Night Signals, spring", "Lamps; old")
			item.Section = pick(r, "", "", "Before", "After, all")
		}
		t.Priority = pick(r, book.NoPriority, book.Low, book.Medium, book.High)
		if r.IntN(2) == 0 {
			t.Due = day.Moment{Date: today.AddDays(r.IntN(60) - 20)}
			if r.IntN(2) == 0 {
				t.Due.Time, _ = day.NewTimeOfDay(r.IntN(24), r.IntN(60))
			}
		}
		if r.IntN(3) == 0 {
			t.Start = today.AddDays(r.IntN(40) - 20)
			if !t.Due.IsZero() && t.Start.After(t.Due.Date) {
				t.Start = t.Due.Date.AddDays(-r.IntN(5))
			}
		}
		if r.IntN(3) == 0 && !t.IsNote {
			t.Plan = day.MustHorizon(pick(r, "2026-11-26", "2026-W49", "2026-12", "parked", "2026-11-27T14:00/PT30M"))
		}
		if r.IntN(3) == 0 {
			t.Estimate = int32(1 + r.IntN(600))
		}
		t.Concentration = pick(r, term.Unset, term.Unset, term.Deep, term.Light)
		t.InOrder = r.IntN(6) == 0
		t.Place = pick(r, "", "", "The museum", "shed; old")
		if r.IntN(5) == 0 {
			t.Outcome = randomText(r, 5)
		}
		if r.IntN(6) == 0 {
			t.Source = book.Source{Link: "https://harbour.example/a?b=1;c=2", Words: pick(r, "", randomText(r, 4))}
		}
		for range r.IntN(3) {
			tag := pick(r, "calls", "work/meetings", "ünï_code", "quick")
			if !strings.Contains(strings.Join(item.Tags, " "), tag) {
				item.Tags = append(item.Tags, tag)
			}
		}
		if r.IntN(4) == 0 {
			item.Person = pick(r, "Ada Field", "Ravi, the framer")
			t.Person = book.Involved{Role: pick(r, book.Ask, book.WaitingOn, book.For), Since: today.AddDays(-r.IntN(30))}
		}
		for _, text := range []string{"-PT30M", "2026-11-26T10:00;drip", "ARRIVE:The museum", "-P1D;kettle", "PT8H", "DEPART;drip:shed; old"} {
			if r.IntN(6) == 0 {
				reminder, err := day.ParseReminder(text)
				if err != nil {
					panic(err)
				}
				t.Reminders = append(t.Reminders, reminder)
			}
		}
		if r.IntN(4) == 0 && !t.IsNote {
			t.Repeat = randomRepeat(r, s, t)
		}
		if r.IntN(6) == 0 && !t.IsNote && t.Repeat == nil {
			t.Status = pick(r, book.InProcess, book.Completed, book.Cancelled)
			if !t.Status.Open() {
				t.Completed = t.Created + 1000
			}
		}
		items = append(items, item)
	}
	return items
}

func randomRepeat(r *rand.Rand, s *shop, t *book.Todo) *repeat.Repeat {
	rule := repeat.MustParse(pick(r, "FREQ=DAILY", "FREQ=WEEKLY;BYDAY=MO,WE", "FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD", "FREQ=MONTHLY;BYMONTHDAY=30;RSCALE=GREGORIAN;SKIP=BACKWARD",
		"FREQ=YEARLY", "FREQ=WEEKLY;INTERVAL=2;COUNT=7", "FREQ=MONTHLY;BYDAY=-1FR;UNTIL=20271231", "FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=FORWARD"))
	begin := repeat.Repeat{Rule: rule, First: t.Due.Date}
	if begin.First.IsZero() {
		if begin.First = t.Start; begin.First.IsZero() {
			begin.First = day.DateOf(s.now)
		}
	}
	switch r.IntN(5) {
	case 0:
		begin.Lead = 3
	case 1:
		if rule.String() == "FREQ=DAILY" {
			begin.Anchor = repeat.Completion
		}
	}
	begun, err := begin.Begin(t.Due.Time, s.zone)
	if err != nil {
		return nil
	}
	return &begun
}

// A to-do that repeats some days after it was done, and was done well before it was first due, comes back in
// each format with the date that it has.
func TestDoneEarlyComesBack(t *testing.T) {
	for _, f := range formats.All {
		s := newShop(t)
		s.bring(t, []exchange.Item{{Incoming: book.Incoming{UID: "kettle@x", Under: -1, Carries: exchange.All,
			Todo: book.Todo{Title: "Descale the kettle", Due: day.MustMoment("2027-03-01"), Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=30"), Anchor: repeat.Completion}}}}})
		kettle := s.desk.ByUID("kettle@x")
		c, err := s.desk.Do(s.env(), book.Complete{ID: kettle.ID})
		if err != nil {
			t.Fatal(err)
		}
		s.book.Apply(c)
		before := *s.desk.ByUID("kettle@x")
		items, err := exchange.Take(s.desk, exchange.Everything(s.desk))
		if err != nil {
			t.Fatal(err)
		}
		text, err := f.Write(items, s.world())
		if err != nil {
			t.Fatal(err)
		}
		other := newShop(t)
		back, refused, err := f.Read(text, other.world())
		if err != nil || len(refused) > 0 {
			t.Fatalf("%s: %v, %+v", f.Name, err, refused)
		}
		other.bring(t, back)
		for todo := range other.desk.All() {
			if todo.Open() && (todo.Due != before.Due || todo.Repeat == nil || todo.Repeat.Current != before.Repeat.Current) {
				t.Errorf("%s: it is due %v, and was %v; %+v", f.Name, todo.Due, before.Due, todo.Repeat)
			}
		}
	}
}

// Blanks within a title, at the beginning and end of notes and of their lines, and the case of tags
// come back in each format as they went.
func TestBlanksAndCasesComeBack(t *testing.T) {
	for _, f := range formats.All {
		for _, notes := range []string{"", "one  \n two \t\n\n  three", "ends  ", "  begins", "ends in a line\n", "\n\nbegins in one", "a\n\n\n\nb", "- [ ] not a to-do", "# no heading"} {
			s := newShop(t)
			item := exchange.Item{Incoming: book.Incoming{UID: "a@x", Under: -1, Carries: exchange.All, Notes: notes, Tags: []string{"Calls", "work/Meetings"}, Todo: book.Todo{Title: "Oil  the   hinge"}}}
			s.bring(t, []exchange.Item{item})
			items, err := exchange.Take(s.desk, exchange.Everything(s.desk))
			if err != nil {
				t.Fatal(err)
			}
			text, err := f.Write(items, s.world())
			if err != nil {
				t.Fatal(err)
			}
			back, refused, err := f.Read(text, s.world())
			if err != nil || len(refused) > 0 || len(back) != 1 {
				t.Fatalf("%s: %v, %+v, %+v", f.Name, err, refused, back)
			}
			if b := back[0]; b.Todo.Title != items[0].Todo.Title || b.Notes != items[0].Notes || strings.Join(b.Tags, " ") != strings.Join(items[0].Tags, " ") {
				t.Errorf("%s: %q, %q, %q come back as %q, %q, %q in\n%s", f.Name, items[0].Todo.Title, items[0].Notes, items[0].Tags, b.Todo.Title, b.Notes, b.Tags, text)
			}
		}
	}
}
