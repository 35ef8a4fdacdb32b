package book_test

import (
	"errors"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// undo turns a change round and returns why not, if it is refused.
func (d *desk) undo(c *book.Change) string {
	d.t.Helper()
	back, err := d.desk.Invert(d.env(), c, book.Undo)
	var rule *book.RuleError
	var conflict *book.ConflictError
	switch {
	case errors.As(err, &rule), errors.As(err, &conflict):
		return err.Error()
	case err != nil:
		d.t.Fatal(err)
	}
	d.book.Apply(back)
	d.sound()
	return ""
}

func (d *desk) sound() {
	d.t.Helper()
	for _, f := range d.desk.Faults(day.DateOf(d.now)) {
		d.t.Errorf("a fault: %s", f.Says)
	}
}

// What an undo would write keeps the rules that commands keep: here another change
// came between, made of other fields or rows, so that nothing clashes by itself.
func TestUndoKeepsTheRules(t *testing.T) {
	for name, c := range map[string]struct {
		// change returns the change to undo, after what came between.
		change func(d *desk) *book.Change
		says   string
	}{
		"six in the handful": {func(d *desk) *book.Change {
			first := d.capture("first")
			d.do(book.Pick{ID: first})
			out := d.do(book.Pick{ID: first, Out: true})
			for _, title := range []string{"b", "c", "d", "e", "f"} {
				d.do(book.Pick{ID: d.capture(title)})
			}
			return out
		}, "The handful would hold 6: “first”, “b”, “c”, “d”, “e”, “f”. Take one out first."},
		"a start after its due": {func(d *desk) *book.Change {
			id := d.do(book.Capture{Title: "a", Start: day.MustDate("2026-12-10")}).Todo().ID
			earlier := d.do(book.Edit{ID: id, Start: ptr(day.MustDate("2026-12-01"))})
			d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-12-05"))})
			return earlier
		}, "would start on 2026-12-10, after it is due on 2026-12-05"},
		"a note with a plan": {func(d *desk) *book.Change {
			id := d.do(book.Capture{Title: "a", Plan: day.MustHorizon("2026-11-26")}).Todo().ID
			cleared := d.do(book.PlanFor{ID: id})
			d.do(book.Edit{ID: id, IsNote: ptr(true)})
			return cleared
		}, "a note has no plan"},
		"a note that repeats": {func(d *desk) *book.Change {
			id := d.capture("a")
			d.do(book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=DAILY")})
			ended := d.do(book.EndRepeat{ID: id})
			d.do(book.Edit{ID: id, IsNote: ptr(true)})
			return ended
		}, "a note does not repeat"},
		"a repeat under what is closed": {func(d *desk) *book.Change {
			parent := d.capture("parent")
			id := d.do(book.Capture{Title: "a", Parent: parent}).Todo().ID
			d.do(book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=DAILY")})
			ended := d.do(book.EndRepeat{ID: id})
			d.do(book.Complete{ID: parent})
			return ended
		}, "under which it stands, is closed"},
		"too deep": {func(d *desk) *book.Change {
			low := d.chain(60)
			top := d.do(book.Capture{Title: "other", Parent: low}).Todo().ID
			away := d.do(book.Move{ID: top})
			for last, n := top, 0; n < 60; n++ {
				last = d.do(book.Capture{Title: "y", Parent: last}).Todo().ID
			}
			return away
		}, "more than 100 levels deep"},
		"into an archived list": {func(d *desk) *book.Change {
			list := d.list("Crates")
			id := d.do(book.Capture{Title: "a", List: list}).Todo().ID
			moved := d.do(book.Move{ID: id})
			d.do(book.EditList{ID: list, Archived: ptr(true)})
			return moved
		}, "is archived"},
		"a merge whose tag's name is taken again": {func(d *desk) *book.Change {
			id := d.do(book.Capture{Title: "a", Tags: []string{"calls", "phone"}}).Todo().ID
			both := d.todo(id).Tags
			merged := d.do(book.MergeTags{From: both[0], Into: both[1]})
			d.do(book.EditTag{ID: both[1], Name: ptr("calls")})
			return merged
		}, "“calls” has since been changed further (name)"},
	} {
		t.Run(name, func(t *testing.T) {
			d := newDesk(t)
			change := c.change(d)
			before := snapshot(t, d.desk)
			if why := d.undo(change); !strings.Contains(why, c.says) {
				t.Errorf("it says %q; want “%s”", why, c.says)
			}
			if got := snapshot(t, d.desk); got != before {
				t.Errorf("something was written:\n%s\nwas\n%s", got, before)
			}
		})
	}
}

// chain makes to-dos one under the other and returns the lowest.
func (d *desk) chain(levels int) book.ID {
	last := d.capture("x")
	for range levels {
		last = d.do(book.Capture{Title: "x", Parent: last}).Todo().ID
	}
	return last
}

// A row that comes back to where another stands by now makes room for itself.
func TestUndoMakesRoom(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	d.do(book.EditList{ID: list, Order: ptr(book.ByHand)})
	in := func(title string) book.ID { return d.do(book.Capture{Title: title, List: list}).Todo().ID }
	a, b, c := in("a"), in("b"), in("c")
	moved := d.do(book.Move{ID: c, List: list, After: a}) // between a and b
	d.undo(moved)
	x := in("x")
	d.do(book.Move{ID: x, List: list, After: a}) // takes the position that c had
	again, err := d.desk.Invert(d.env(), &book.Change{Revision: 1, Kind: book.Undo, Todos: []book.Diff[book.Todo]{
		{Before: moved.Todos[0].After, After: moved.Todos[0].Before}}}, book.Redo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(again)
	d.sound()
	for range 3 { // and a later move finds its place
		d.do(book.Move{ID: b, List: list, After: a})
		d.do(book.Move{ID: x, List: list, After: a})
	}
	d.sound()

	// Lists, sections, shelves and views likewise.
	one, two := d.list("One"), d.list("Two")
	shelf := d.desk.Shelves()[0].ID
	back := d.do(book.MoveList{ID: two, Shelf: shelf, Before: one})
	d.undo(back)
	d.do(book.MoveList{ID: list, Shelf: shelf, Before: one})
	redo, err := d.desk.Invert(d.env(), &book.Change{Kind: book.Undo, Lists: []book.Diff[book.List]{{Before: back.Lists[0].After, After: back.Lists[0].Before}}}, book.Redo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(redo)
	d.sound()
}

func TestPositionsThatLeaveNoRoom(t *testing.T) {
	for _, pair := range [][2]book.Position{{"a0V", "a0V"}, {"b", "a"}} {
		if got := pair[0].Between(pair[1]); got <= pair[0] {
			t.Errorf("between %q and %q: %q", pair[0], pair[1], got)
		}
	}
}

// Mend puts right what a file may hold, and loses nothing that is there.
func TestMend(t *testing.T) {
	d := newDesk(t)
	tag := book.ID{9: 1}
	id := func(n byte) book.ID { return book.ID{15: n} }
	row := func(t book.Todo) book.Diff[book.Todo] { return book.Diff[book.Todo]{After: &t} }
	d.book.Load(7, &book.Change{Actor: d.desk.Account(),
		Tags:  []book.Diff[book.Tag]{{After: &book.Tag{ID: tag, Name: "calls"}}},
		Lists: []book.Diff[book.List]{{After: &book.List{ID: id(100), Owner: d.desk.Account(), Shelf: id(101), Name: "Crates", Position: "a0V"}}},
		Todos: []book.Diff[book.Todo]{
			row(book.Todo{ID: id(1), Title: "twin", Position: "a0V"}),
			row(book.Todo{ID: id(2), Title: "twin too", Position: "a0V"}),
			row(book.Todo{ID: id(3), Title: "behind", Position: "a0W"}),
			row(book.Todo{ID: id(4), Title: "tagged twice", Position: "a0X", Tags: []book.ID{tag, {8: 8}, tag}}),
			row(book.Todo{ID: id(5), Title: "lost", Position: "a0Y", List: id(77)}),
			row(book.Todo{ID: id(6), Title: "ring", Position: "a0V", Parent: id(7)}),
			row(book.Todo{ID: id(7), Title: "ring too", Position: "a0V", Parent: id(6)}),
			row(book.Todo{ID: id(8), Title: "orphan", Position: "a0V", Parent: id(99)}),
			row(book.Todo{ID: id(9), Title: "for nobody", Position: "a0Z", Person: book.Involved{ID: id(98), Role: book.Ask}}),
		},
	})
	count := map[book.Gravity]int{}
	for _, f := range d.desk.Faults(day.DateOf(d.now)) {
		count[f.Gravity]++
	}
	if count[book.Twin] != 2 || count[book.Lost] < 6 {
		t.Errorf("faults: %v in %v", count, d.desk.Faults(day.DateOf(d.now)))
	}
	d.do(book.Mend{})
	d.sound()
	if d.desk.Len() != 9 || !(d.todo(id(1)).Position < d.todo(id(2)).Position && d.todo(id(2)).Position < d.todo(id(3)).Position) {
		t.Error("a to-do is gone, or their order is")
	}
	if c := d.do(book.Mend{}); !c.Empty() {
		t.Errorf("what is whole is mended: %+v", c)
	}
}

func TestNotesHaveNoPlan(t *testing.T) {
	d := newDesk(t)
	id := d.do(book.Capture{Title: "a", Plan: day.MustHorizon("2026-11-26")}).Todo().ID
	gone := d.do(book.Capture{Title: "sub", Parent: id}).Todo().ID
	d.do(book.Delete{ID: gone})
	d.do(book.Edit{ID: id, IsNote: ptr(true)})
	if !d.todo(id).Plan.IsZero() {
		t.Error("a note keeps the plan it had")
	}
	d.do(book.PlanFor{ID: id}) // clearing is no planning
	d.do(book.Restore{ID: gone})
	d.sound()
	parent := d.capture("parent")
	note := d.do(book.Capture{Title: "n", Parent: parent, IsNote: true}).Todo().ID
	d.do(book.Complete{ID: parent})
	if c := d.do(book.Edit{ID: note, IsNote: ptr(false)}); !strings.Contains(c.Says, "“parent” is open again too") {
		t.Errorf("it says %q", c.Says)
	}
	d.sound()
}

func TestIDsThatAreTaken(t *testing.T) {
	d := newDesk(t)
	d.list("Crates")
	shelf := d.desk.Shelves()[0]
	if why := d.refused(book.AddShelf{ID: shelf.ID, Name: "Other"}); !strings.Contains(why, "exists already") {
		t.Errorf("it says %q", why)
	}
	id := d.do(book.Capture{Title: "a", Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-24")}}).Todo().ID
	c := d.do(book.Many{IDs: []book.ID{id, id}, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }})
	if got := d.todo(id).Due.String(); got != "2026-11-25" || len(d.desk.Records(id)) != 1 {
		t.Errorf("ticked once by two names, it is due %s; %q", got, c.Says)
	}
	d.do(book.Tagging{ID: id, Add: []string{"work", "work/calls"}})
	work := d.todo(id).Tags[0]
	if why := d.refused(book.EditTag{ID: work, Name: ptr("work/calls")}); !strings.Contains(why, "exists already") {
		t.Errorf("it says %q", why)
	}
	d.do(book.EditTag{ID: work, Name: ptr("Work")})
	d.sound()
}

// A closed to-do that is begun again is so by one change, with what it stands under.
func TestBeginningWhatIsClosed(t *testing.T) {
	d := newDesk(t)
	parent := d.capture("parent")
	id := d.do(book.Capture{Title: "a", Parent: parent}).Todo().ID
	d.do(book.Complete{ID: parent})
	begun := d.do(book.Edit{ID: id, Status: ptr(book.InProcess)})
	if got := d.todo(id); got.Status != book.InProcess || !got.Completed.IsZero() || !d.todo(parent).Open() || !strings.Contains(begun.Says, "“parent” is open again too") {
		t.Errorf("it is %v, completed %v; %q", got.Status, got.Completed, begun.Says)
	}
	d.sound()
	if why := d.undo(begun); why != "" || d.todo(id).Status != book.Completed || d.todo(parent).Open() {
		t.Errorf("undone: %s", why)
	}
}

// Lines put in behind a row stand in their own order, with what is under them.
func TestLinesBehindARow(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	d.do(book.EditList{ID: list, Order: ptr(book.ByHand)})
	a := d.do(book.Capture{Title: "a", List: list}).Todo().ID
	d.do(book.Capture{Title: "z", List: list})
	item := func(title string, under int) book.TreeItem {
		return book.TreeItem{Capture: book.Capture{Title: title, List: list, After: a}, Under: under}
	}
	d.do(book.CaptureTree{Items: []book.TreeItem{item("b", -1), item("b1", 0), item("b2", 0), item("c", -1), item("c1", 3), item("d", -1)}})
	var got []string
	var walk func(under book.ID, of func(book.ID) []*book.Todo)
	walk = func(under book.ID, of func(book.ID) []*book.Todo) {
		for _, t := range of(under) {
			got = append(got, t.Title)
			walk(t.ID, d.desk.Subtasks)
		}
	}
	walk(list, func(book.ID) []*book.Todo {
		var top []*book.Todo
		for t := range d.desk.OfList(list) {
			if t.Parent.IsZero() {
				top = append(top, t)
			}
		}
		return top
	})
	if s := strings.Join(got, " "); s != "a b b1 b2 c c1 d z" {
		t.Errorf("they stand as %s", s)
	}
	d.sound()
}

// Opening something again does not pick it: a handful stays five.
func TestReopeningIsNotPicking(t *testing.T) {
	d := newDesk(t)
	first := d.capture("first")
	d.do(book.Pick{ID: first})
	d.do(book.Complete{ID: first})
	binned := d.capture("binned")
	d.do(book.Pick{ID: binned})
	d.do(book.Delete{ID: binned})
	for _, title := range []string{"a", "b", "c", "d"} {
		d.do(book.Pick{ID: d.capture(title)})
	}
	d.do(book.Reopen{ID: first}) // the fifth
	if d.todo(first).Handful.IsZero() {
		t.Error("there is room, and it is not in the handful again")
	}
	d.do(book.Restore{ID: binned})
	if !d.todo(binned).Handful.IsZero() {
		t.Error("the handful was full")
	}
	d.sound()
	d.do(book.Complete{ID: first})
	d.now = d.now.AddDate(0, 0, 1)
	d.do(book.Reopen{ID: first})
	if !d.todo(first).Handful.IsZero() {
		t.Error("it was picked for yesterday")
	}
	d.sound()
}

// An undo may put a project back as deep as one may stand, and no deeper.
func TestUndoAsDeepAsMayBe(t *testing.T) {
	chain := func(d *desk, levels int) (first, last book.ID) {
		for n := range levels {
			c := book.Capture{Title: "x", Parent: last}
			if last = d.do(c).Todo().ID; n == 0 {
				first = last
			}
		}
		return first, last
	}
	for more, refused := range map[int]bool{0: false, 1: true} {
		d := newDesk(t)
		_, above := chain(d, 60)
		project, end := chain(d, 41)
		d.do(book.Move{ID: project, Parent: above})
		out := d.do(book.Move{ID: project})
		for range more {
			d.do(book.Capture{Title: "deeper", Parent: end})
		}
		if why := d.undo(out); (why != "") != refused || refused && !strings.Contains(why, "more than 100 levels deep") {
			t.Errorf("%d levels more: %q", more, why)
		}
	}
}

// Undoing what took two to-dos out from under another, which stands under the second by now,
// would make a circle. The first stands beneath it and not in it, and is looked at before.
func TestUndoWouldMakeACircle(t *testing.T) {
	d := newDesk(t)
	above := d.capture("above")
	beneath, a := d.sub(above, "beneath"), d.sub(above, "a")
	out := d.do(book.MoveMany{IDs: []book.ID{beneath, a}})
	d.do(book.Move{ID: above, Parent: a})
	if why := d.undo(out); !strings.Contains(why, "parent") {
		t.Errorf("it says %q", why)
	}
	d.sound()
}
