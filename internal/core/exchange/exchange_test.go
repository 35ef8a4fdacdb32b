package exchange_test

import (
	"errors"
	"flag"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

var sequences = flag.Float64("sequences", 0.02, "share of the random sequences of a full run")

// desk is a Book on Tuesday 24 November 2026, 09:00.
type desk struct {
	t    *testing.T
	book *book.Book
	desk *book.Desk
	ids  int
}

func newDesk(t *testing.T) *desk {
	b, d := book.Alone(book.MemoryNotes{})
	return &desk{t: t, book: b, desk: d}
}

func (d *desk) env() book.Env {
	clock := day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}
	return book.Env{Clock: clock, NewID: func() book.ID { d.ids++; return book.ID{15: byte(d.ids)} }}
}

func (d *desk) do(cmd book.Command) *book.Change {
	d.t.Helper()
	c, err := d.desk.Do(d.env(), cmd)
	if err != nil {
		d.t.Fatal(err)
	}
	d.book.Apply(c)
	return c
}

func (d *desk) put(cmd book.Capture) book.ID {
	d.t.Helper()
	return d.do(cmd).Todo().ID
}

func (d *desk) todo(id book.ID) *book.Todo {
	d.t.Helper()
	t, err := d.desk.Todo(id)
	if err != nil {
		d.t.Fatal(err)
	}
	return t
}

// written is items as "title list/section #tag person: notes", further in the deeper they stand.
func written(items []exchange.Item) string {
	var lines []string
	depth := make([]int, len(items))
	for i, item := range items {
		if item.Under >= 0 {
			depth[i] = depth[item.Under] + 1
		}
		line := strings.Repeat("  ", depth[i]) + item.Todo.Title
		if item.List != "" {
			line += " " + item.List + "/" + item.Section
		}
		for _, tag := range item.Tags {
			line += " #" + tag
		}
		if item.Person != "" {
			line += " " + item.Person
		}
		if item.Notes != "" {
			line += ": " + item.Notes
		}
		lines = append(lines, line)
	}
	return strings.Join(lines, "\n")
}

func titles(todos []*book.Todo) string {
	var all []string
	for _, t := range todos {
		all = append(all, t.Title)
	}
	return strings.Join(all, " ")
}

// Items have names in the place of ids, each with what is under it, in the order of positions,
// and without what is in the bin.
func TestTake(t *testing.T) {
	d := newDesk(t)
	list := d.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	section := d.do(book.AddSection{List: list, Name: "May"}).Sections[0].After.ID
	who := d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	top := d.put(book.Capture{Title: "Return the vase", List: list, Section: section, Tags: []string{"calls", "work/vases"}, Person: who, Role: book.Ask, Notes: "In its box."})
	second := d.put(book.Capture{Title: "Pack it", Parent: top})
	first := d.put(book.Capture{Title: "Find the box", Parent: top})
	d.do(book.Move{ID: first, Parent: top, Before: second})
	deep := d.put(book.Capture{Title: "Ask the attic", Parent: first})
	gone := d.put(book.Capture{Title: "Buy a box", Parent: top})
	d.do(book.Delete{ID: gone})
	alone := d.put(book.Capture{Title: "Write to the lender"})
	take := func(ids ...book.ID) string {
		t.Helper()
		var roots []*book.Todo
		for _, id := range ids {
			roots = append(roots, d.todo(id))
		}
		items, err := exchange.Take(d.desk, roots)
		if err != nil {
			t.Fatal(err)
		}
		return written(items)
	}
	tree := "Return the vase Loans/May #calls #work/vases Ines: In its box.\n  Find the box Loans/May\n    Ask the attic Loans/May\n  Pack it Loans/May"
	for what, pair := range map[string][2]string{
		"a tree":               {take(top), tree},
		"what is under it too": {take(top, deep, second), tree},
		"the bin's":            {take(gone), ""},
		"in the order asked":   {take(alone, second), "Write to the lender\nPack it Loans/May"},
	} {
		if pair[0] != pair[1] {
			t.Errorf("%s:\n%s\nwant\n%s", what, pair[0], pair[1])
		}
	}
	for what, c := range map[string]struct {
		some []book.ID
		want string
	}{
		"a part":            {[]book.ID{top, second}, "Return the vase Loans/May #calls #work/vases Ines: In its box.\n  Pack it Loans/May"},
		"by their siblings": {[]book.ID{second, first, top}, "Return the vase Loans/May #calls #work/vases Ines: In its box.\n  Find the box Loans/May\n  Pack it Loans/May"},
		"one is left out between": {[]book.ID{top, deep},
			"Return the vase Loans/May #calls #work/vases Ines: In its box.\nAsk the attic Loans/May"},
		"none": {nil, ""},
	} {
		var some []*book.Todo
		for _, id := range c.some {
			some = append(some, d.todo(id))
		}
		items, err := exchange.Only(d.desk, some)
		if got := written(items); err != nil || got != c.want {
			t.Errorf("only %s:\n%s\nwant\n%s", what, got, c.want)
		}
	}
	items, _ := exchange.Take(d.desk, []*book.Todo{d.todo(top)})
	if item := items[0]; item.UID != top.String() || item.Carries != exchange.All || exchange.All&book.FieldsOf("notes") == 0 || exchange.All&book.FieldsOf("record") != 0 {
		t.Errorf("%s carries %v", item.UID, item.Carries)
	}
}

// A list is taken by its sections and positions, everything list after list in the order of the
// index, without templates and what is put away.
func TestOrderOfLists(t *testing.T) {
	d := newDesk(t)
	list := func(name string, shelf book.ID) book.ID {
		return d.do(book.AddList{Name: name, Shelf: shelf}).Lists[0].After.ID
	}
	museum := d.do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	home := d.do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	garden, loans, labels, old := list("Garden", home), list("Loans", museum), list("Labels", museum), list("Old", museum)
	d.do(book.MoveList{ID: labels, Shelf: museum, Before: loans})
	june := d.do(book.AddSection{List: loans, Name: "June"}).Sections[0].After.ID
	may := d.do(book.AddSection{List: loans, Name: "May"}).Sections[0].After.ID
	d.do(book.MoveSection{ID: may, Before: june})
	for _, c := range []book.Capture{
		{Title: "june", List: loans, Section: june}, {Title: "may-1", List: loans, Section: may}, {Title: "may-2", List: loans, Section: may}, {Title: "no-section", List: loans},
		{Title: "dig", List: garden}, {Title: "print", List: labels}, {Title: "old", List: old}, {Title: "cup-1"}, {Title: "cup-2"},
	} {
		d.put(c)
	}
	sub := d.put(book.Capture{Title: "sub", Parent: d.put(book.Capture{Title: "cup-3"})})
	d.do(book.Delete{ID: d.put(book.Capture{Title: "gone"})})
	if d.todo(sub).Parent.IsZero() {
		t.Fatal("the subtask stands by itself")
	}
	yes := true
	d.do(book.EditList{ID: old, Archived: &yes})
	d.do(book.SaveTemplate{List: garden, Name: "Template"})
	for what, pair := range map[string][2]string{
		"a list":     {titles(exchange.OfList(d.desk, loans)), "no-section may-1 may-2 june"},
		"the Cup":    {titles(exchange.OfList(d.desk, book.ID{})), "cup-1 cup-2 cup-3"},
		"everything": {titles(exchange.Everything(d.desk)), "cup-1 cup-2 cup-3 print no-section may-1 may-2 june dig"},
	} {
		if pair[0] != pair[1] {
			t.Errorf("%s: %s, want %s", what, pair[0], pair[1])
		}
	}
}

// A preview says what would become of each item, and changes nothing.
func TestLook(t *testing.T) {
	d := newDesk(t)
	list := d.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	top := d.put(book.Capture{Title: "Return the vase", List: list, Estimate: 30})
	d.put(book.Capture{Title: "Pack it", Parent: top})
	items, err := exchange.Take(d.desk, []*book.Todo{d.todo(top)})
	if err != nil {
		t.Fatal(err)
	}
	high, due := book.High, day.MustMoment("2026-11-27T16:00")
	changed := &items[0].Todo
	changed.Title, changed.Status, changed.Priority, changed.Estimate = "Return both vases", book.Completed, high, 90
	changed.Start, changed.Due, changed.Plan, changed.Place, changed.Outcome = day.MustDate("2026-11-25"), due, day.MustHorizon("2026-11-26"), "Depot", "Signed for"
	items[0].Notes, items[0].Line, items[0].Column, items[0].Remarks = "In their boxes.", 7, 2, []string{"A colour was left out."}
	more := []exchange.Item{
		{Incoming: book.Incoming{UID: "new", Under: -1, List: "Loans", Todo: book.Todo{Title: "Write to the lender", Due: due}, Carries: exchange.All}, Line: 20},
		{Incoming: book.Incoming{UID: "wrong", Under: 2, Todo: book.Todo{Title: "", Due: due}, Carries: exchange.All}, Line: 30},
	}
	items = append(items, more...)
	refused := []exchange.Refusal{{Error: exchange.Error{Line: 40, Column: 3, Reason: "It has no end."}, Title: "Half"}}
	before := sequence.Dump(d.desk)
	p, err := exchange.Look(d.desk, d.env(), items, refused, book.ID{}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if now := sequence.Dump(d.desk); now != before {
		t.Error("looking changed something")
	}
	if p.New != 1 || p.Changed != 1 || p.Same != 1 || p.Refused != 2 || len(p.Rows) != 5 || p.Says != "Brought in: 1 new, 1 changed" {
		t.Fatalf("%d new, %d changed, %d the same, %d refused, %d rows, %q", p.New, p.Changed, p.Same, p.Refused, len(p.Rows), p.Says)
	}
	half, vase, pack, letter, wrong := p.Rows[0], p.Rows[1], p.Rows[2], p.Rows[3], p.Rows[4]
	if half.What != exchange.Refused || half.Title != "Half" || half.Line != 40 || half.Column != 3 || half.Reason != "It has no end." {
		t.Errorf("what could not be read: %+v", half)
	}
	if vase.What != exchange.Changed || vase.Depth != 0 || vase.Line != 7 || vase.Column != 2 || vase.Due != due || vase.List != "Loans" || !slices.Equal(vase.Remarks, []string{"A colour was left out."}) {
		t.Errorf("what is changed: %+v", vase)
	}
	said := map[string]string{}
	for _, f := range vase.Fields {
		said[f.Field] = f.Was + " → " + f.Is
	}
	for field, want := range map[string]string{
		"title": "Return the vase → Return both vases", "priority": "none → high", "estimate": "30 min → 90 min", "start": " → 2026-11-25",
		"due": " → 2026-11-27T16:00", "plan": " → 2026-11-26", "place": " → Depot", "outcome": " → Signed for", "notes": " → ",
	} {
		if said[field] != want {
			t.Errorf("%s: %q, want %q", field, said[field], want)
		}
	}
	if len(said) != 9 { // it is open as before, for what is under it
		t.Errorf("it is changed in %v", said)
	}
	if pack.What != exchange.Same || pack.Depth != 1 {
		t.Errorf("what is the same: %+v", pack)
	}
	if letter.What != exchange.New || letter.Depth != 0 || letter.Line != 20 {
		t.Errorf("what is new: %+v", letter)
	}
	if wrong.What != exchange.Refused || wrong.Depth != 1 || wrong.Line != 30 || wrong.Reason == "" {
		t.Errorf("what breaks a rule: %+v", wrong)
	}
	// Nothing but what could not be read, and one who ends it.
	if p, err := exchange.Look(d.desk, d.env(), nil, refused, book.ID{}, nil); err != nil || p.Refused != 1 || len(p.Rows) != 1 || p.Says != "" {
		t.Errorf("only what is refused: %+v, %v", p, err)
	}
	stop := errors.New("enough")
	if _, err := exchange.Look(d.desk, d.env(), items, nil, book.ID{}, func(int) error { return stop }); !errors.Is(err, stop) {
		t.Errorf("ended: %v", err)
	}
}

// What is taken out of any Book, all of it or a part, is the same when it comes in again, also by
// way of another Book.
func TestTakenIsTheSame(t *testing.T) {
	random := seed.New(t)
	choices := sequence.Choices(sequence.AllKinds)
	taken := 0
	for i := range int(2000 * *sequences) {
		r := rand.New(rand.NewPCG(random, uint64(i)))
		run := sequence.New(book.ID{15: 1})
		for _, s := range sequence.Generate(r, choices) {
			if _, err := run.Take(s); err != nil {
				t.Fatalf("seed %d, sequence %d: %v", random, i, err)
			}
		}
		var some []*book.Todo
		for _, t := range run.Desk.Open() {
			if r.IntN(2) == 0 {
				some = append(some, t)
			}
		}
		all, err := exchange.Take(run.Desk, exchange.Everything(run.Desk))
		if err != nil {
			t.Fatal(err)
		}
		part, err := exchange.Only(run.Desk, some)
		if err != nil || len(part) != len(some) {
			t.Fatalf("seed %d, sequence %d: %d of %d taken, %v", random, i, len(part), len(some), err)
		}
		other := sequence.New(book.ID{15: 2})
		other.Now = run.Now
		if len(all) > 0 {
			c, err := other.Desk.Do(other.Env(), exchange.Command(all, book.ID{}))
			if err != nil {
				t.Fatalf("seed %d, sequence %d: %v", random, i, err)
			}
			other.Keep(c)
		}
		back, err := exchange.Take(other.Desk, exchange.Everything(other.Desk))
		if err != nil || len(back) != len(all) {
			t.Fatalf("seed %d, sequence %d: %d of %d come back, %v", random, i, len(back), len(all), err)
		}
		for what, items := range map[string][]exchange.Item{"all": all, "a part": part, "by way of another": back} {
			taken += len(items)
			p, err := exchange.Look(run.Desk, run.Env(), items, nil, book.ID{}, nil)
			if err != nil || p.Same != len(items) {
				t.Fatalf("seed %d, sequence %d, %s: %d of %d are the same, %v\n%s", random, i, what, p.Same, len(items), err, others(p))
			}
		}
	}
	t.Logf("%d taken", taken)
	if taken == 0 {
		t.Error("nothing was taken")
	}
}

func others(p exchange.Preview) string {
	var lines []string
	for _, row := range p.Rows {
		if row.What != exchange.Same {
			lines = append(lines, fmt.Sprintf("%+v", row))
		}
	}
	return strings.Join(lines, "\n")
}
