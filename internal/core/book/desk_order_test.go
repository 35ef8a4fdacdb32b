package book_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// refused carries a command out that must be refused, and returns the refusal.
func (d *desk) refused(cmd book.Command) string {
	d.t.Helper()
	c, err := d.desk.Do(d.env(), cmd)
	if err == nil {
		d.t.Fatalf("%T was not refused: %s", cmd, c.Says)
	}
	return err.Error()
}

// shown names a place's to-dos as its list orders them.
func (d *desk) shown(place book.ID, order book.Order) string {
	todos := d.desk.Subtasks(place)
	slices.SortFunc(todos, order.Compare)
	var titles []string
	for _, t := range todos {
		titles = append(titles, t.Title)
	}
	return strings.Join(titles, " ")
}

func (d *desk) fill(list book.ID, titles ...string) map[string]book.ID {
	ids := map[string]book.ID{}
	for _, title := range titles {
		ids[title] = d.do(book.Capture{Title: title, List: list}).Todo().ID
	}
	return ids
}

func TestMoveAmongSiblings(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	at := d.fill(list, "a", "b", "c", "d")
	d.do(book.EditList{ID: list, Order: ptr(book.ByHand)})
	for _, c := range []struct {
		cmd  book.Move
		want string
	}{
		{book.Move{ID: at["d"], List: list, Before: at["a"]}, "d a b c"},
		{book.Move{ID: at["d"], List: list, After: at["b"]}, "a b d c"},
		{book.Move{ID: at["a"], List: list, After: at["c"]}, "b d c a"},
		{book.Move{ID: at["a"], List: list, Before: at["c"]}, "b d a c"},
	} {
		change := d.do(c.cmd)
		if got := d.shown(list, book.ByHand); got != c.want {
			t.Errorf("%q; want %q", got, c.want)
		}
		if len(change.Todos) != 1 {
			t.Errorf("a move renumbered %d rows", len(change.Todos))
		}
	}
}

// In a list with another order, a move among equals keeps it; one that the
// order forbids makes the list keep what it shows, by hand.
func TestMoveInAnotherOrder(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	at := d.fill(list, "a", "b", "c", "d")
	d.do(book.Edit{ID: at["d"], Priority: ptr(book.High)})
	d.do(book.Move{ID: at["c"], List: list, Before: at["a"]})
	l, _ := d.desk.List(list)
	if got := d.shown(list, l.Order); got != "d c a b" || l.Order != book.ByPriority {
		t.Errorf("among equals: %q by %v", got, l.Order)
	}
	c := d.do(book.Move{ID: at["d"], List: list, After: at["a"]})
	l, _ = d.desk.List(list)
	if got := d.shown(list, l.Order); got != "c a d b" || l.Order != book.ByHand || !strings.Contains(c.Says, "keeps your own order now") {
		t.Errorf("across the order: %q by %v, %q", got, l.Order, c.Says)
	}
	back, err := d.desk.Invert(d.env(), c, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if l, _ = d.desk.List(list); l.Order != book.ByPriority || d.shown(list, l.Order) != "d c a b" {
		t.Errorf("undone: %q by %v", d.shown(list, l.Order), l.Order)
	}
	if why := d.refused(book.Move{ID: d.do(book.Capture{Title: "x", Priority: book.High}).Todo().ID, After: d.capture("y")}); !strings.Contains(why, "order of priority") {
		t.Errorf("in the Cup: %s", why)
	}
}

func TestOrders(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	at := d.fill(list, "beta", "Alpha", "gamma", "delta")
	d.do(book.Edit{ID: at["gamma"], Priority: ptr(book.High)})
	d.do(book.Edit{ID: at["beta"], Priority: ptr(book.Medium), Due: ptr(day.MustMoment("2026-12-04"))})
	d.do(book.Edit{ID: at["delta"], Due: ptr(day.MustMoment("2026-12-01"))})
	for order, want := range map[book.Order]string{
		book.ByPriority: "gamma beta delta Alpha", book.ByHand: "beta Alpha gamma delta", book.ByDue: "delta beta Alpha gamma",
		book.ByTitle: "Alpha beta delta gamma", book.ByCreated: "delta gamma Alpha beta", book.HighFirst: "gamma beta Alpha delta",
		book.NewestByPriority: "gamma beta delta Alpha",
	} {
		if got := d.shown(list, order); got != want {
			t.Errorf("%v: %q; want %q", order, got, want)
		}
	}
}

func TestMoveUnderAndOut(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	section := d.do(book.AddSection{List: list, Name: "Lids"}).Sections[0].After.ID
	a, b := d.capture("a"), d.capture("b")
	sub := d.do(book.Capture{Title: "sub", Parent: b}).Todo().ID
	d.do(book.Move{ID: b, Parent: a})
	d.do(book.Move{ID: a, List: list, Section: section})
	for _, id := range []book.ID{a, b, sub} {
		if got := d.todo(id); got.List != list || got.Section != section {
			t.Errorf("%s did not go along: %v %v", got.Title, got.List, got.Section)
		}
	}
	for _, under := range []book.ID{a, b, sub} {
		if why := d.refused(book.Move{ID: a, Parent: under}); !strings.Contains(why, "its own subtasks") {
			t.Errorf("a cycle: %s", why)
		}
	}
	// Whatever leaves an open subtask under a closed parent reopens it.
	d.do(book.Complete{ID: a})
	c := d.do(book.Move{ID: d.capture("late"), Parent: sub})
	if !d.todo(a).Open() || !d.todo(sub).Open() || !strings.Contains(c.Says, "“a” is open again too") {
		t.Errorf("moved under a closed one: %q", c.Says)
	}
	d.do(book.DeleteSection{ID: section})
	if got := d.todo(sub); !got.Section.IsZero() || got.List != list {
		t.Errorf("without its section: %v %v", got.List, got.Section)
	}
}

func TestDepth(t *testing.T) {
	d := newDesk(t)
	top := d.capture("0")
	at := top
	for range book.MaxDepth {
		at = d.do(book.Capture{Title: "deeper", Parent: at}).Todo().ID
	}
	if why := d.refused(book.Capture{Title: "too deep", Parent: at}); !strings.Contains(why, "100 levels") {
		t.Errorf("captured: %s", why)
	}
	other := d.capture("with one below")
	d.do(book.Capture{Title: "below", Parent: other})
	parent := d.todo(at).Parent
	if why := d.refused(book.Move{ID: other, Parent: parent}); !strings.Contains(why, "100 levels") {
		t.Errorf("moved: %s", why)
	}
	items := []book.TreeItem{{Capture: book.Capture{Title: "0"}, Under: -1}}
	for i := range book.MaxTree - 1 {
		items = append(items, book.TreeItem{Capture: book.Capture{Title: "x"}, Under: i})
	}
	if why := d.refused(book.CaptureTree{Items: items}); !strings.Contains(why, "100 levels") {
		t.Errorf("pasted: %s", why)
	}
}

// Facts of the trade: common practice, no source.
func TestProgressIsSaid(t *testing.T) {
	d := newDesk(t)
	labels := d.capture("Labels")
	var subs []book.ID
	for _, title := range []string{"one", "two", "three", "four"} {
		subs = append(subs, d.do(book.Capture{Title: title, Parent: labels}).Todo().ID)
	}
	d.do(book.Cancel{ID: subs[3]}) // leaves the count
	c := d.do(book.Complete{ID: subs[0]})
	if !strings.HasSuffix(c.Says, "Labels: 1 of 3 done, 33 %, 2 left") {
		t.Errorf("%q", c.Says)
	}
	d.do(book.Complete{ID: subs[1]})
	c, err := d.desk.Do(d.env(), book.Complete{ID: subs[2]})
	if err != nil {
		t.Fatal(err)
	}
	// A parent with all subtasks done is offered, not closed.
	if p := d.desk.Project(c); p == nil || !p.Finished || p.Percent() != 100 || p.ID != labels {
		t.Errorf("the last one: %+v", p)
	}
	d.book.Apply(c)
	if !d.todo(labels).Open() {
		t.Error("the parent was closed unasked")
	}
	if got := (book.Progress{Done: 199, Total: 200}).Percent(); got != 99 {
		t.Errorf("199 of 200 is %d %%", got)
	}
	note := d.do(book.Capture{Title: "a note", Parent: labels, IsNote: true}).Todo().ID
	if got := d.desk.Progress(d.todo(labels)); got.Total != 3 {
		t.Errorf("with a note: %v", got)
	}
	for _, cmd := range []book.Command{book.Complete{ID: note}, book.Capture{Title: "x", Parent: note}, book.PlanFor{ID: note, Plan: day.SomeTime()},
		book.Edit{ID: note, Plan: ptr(day.SomeTime())}, book.Edit{ID: note, Status: ptr(book.InProcess)}, book.Pick{ID: note},
		book.ChangeRule{ID: note, Rule: repeat.MustParse("FREQ=DAILY")}} {
		if why := d.refused(cmd); !strings.Contains(why, "is a note") {
			t.Errorf("%T: %s", cmd, why)
		}
	}
	if why := d.refused(book.Edit{ID: labels, IsNote: ptr(true)}); !strings.Contains(why, "has subtasks") {
		t.Errorf("a project made a note: %s", why)
	}
}

func TestNextAction(t *testing.T) {
	d := newDesk(t)
	top := d.capture("top")
	a := d.do(book.Capture{Title: "a", Parent: top}).Todo().ID
	a1 := d.do(book.Capture{Title: "a1", Parent: a}).Todo().ID
	b := d.do(book.Capture{Title: "b", Parent: top}).Todo().ID
	next := func(not ...book.ID) string {
		t := d.desk.Next(d.todo(top), func(t *book.Todo) bool { return !slices.Contains(not, t.ID) })
		if t == nil {
			return ""
		}
		return t.Title
	}
	if next() != "a1" || next(a1) != "b" || next(a1, b) != "" {
		t.Errorf("next: %q %q %q", next(), next(a1), next(a1, b))
	}
	d.do(book.Edit{ID: top, InOrder: ptr(true)})
	if next() != "a1" || next(a1) != "" {
		t.Errorf("one after another: %q %q", next(), next(a1))
	}
	d.do(book.Complete{ID: a})
	if next() != "b" {
		t.Errorf("after the first: %q", next())
	}
}

func TestHandful(t *testing.T) {
	d := newDesk(t)
	var ids []book.ID
	for _, title := range []string{"one", "two", "three", "four", "five", "six"} {
		ids = append(ids, d.capture(title))
	}
	for _, id := range ids[:5] {
		d.do(book.Pick{ID: id})
	}
	why := d.refused(book.Pick{ID: ids[5]})
	for _, title := range []string{"“one”", "“two”", "“three”", "“four”", "“five”"} {
		if !strings.Contains(why, title) {
			t.Errorf("the refusal does not name %s: %s", title, why)
		}
	}
	d.do(book.Complete{ID: ids[0]})
	d.do(book.Pick{ID: ids[5]})
	d.now = d.now.AddDate(0, 0, 1) // it lapses when the day ends
	for _, id := range ids[1:] {
		d.do(book.Pick{ID: id})
	}
}

// A list that comes to stand by hand keeps the positions that fit the order it shows: those alone
// are written that do not, and what is moved.
func TestFewPositionsAreWrittenByHand(t *testing.T) {
	for name, c := range map[string]struct {
		dues    []int // of to-dos in their order by hand, in days from today
		written int
	}{
		"as it is shown":           {[]int{1, 2, 3, 4, 5, 6}, 1},
		"one is out of place":      {[]int{1, 6, 2, 3, 4, 5}, 2},
		"two are out of place":     {[]int{5, 1, 2, 6, 3, 4}, 3},
		"the other way round":      {[]int{6, 5, 4, 3, 2, 1}, 6},
		"the last two the other":   {[]int{1, 2, 3, 4, 6, 5}, 2},
		"halves that were swapped": {[]int{4, 5, 6, 1, 2, 3}, 4},
	} {
		d := newDesk(t)
		list := d.list("Crates")
		d.do(book.EditList{ID: list, Order: ptr(book.ByDue)})
		at := map[int]book.ID{}
		for _, n := range c.dues {
			at[n] = d.do(book.Capture{Title: fmt.Sprint(n), List: list, Due: day.Moment{Date: day.DateOf(d.now).AddDays(n)}}).Todo().ID
		}
		// The one that is shown last comes before that which is shown first.
		change := d.do(book.Move{ID: at[6], List: list, Before: at[1]})
		if shown := d.shown(list, book.ByHand); shown != "6 1 2 3 4 5" || !strings.HasSuffix(change.Says, ". The list keeps your own order now") {
			t.Errorf("%s: %s, %q", name, shown, change.Says)
		}
		if len(change.Todos) > c.written {
			t.Errorf("%s: %d rows are written; %d do", name, len(change.Todos), c.written)
		}
	}
}
