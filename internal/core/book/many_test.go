package book_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/seed"
)

func TestManyAllOrNone(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	a, b, c := d.capture("a"), d.capture("b"), d.capture("c")
	sub := d.do(book.Capture{Title: "sub", Parent: b}).Todo().ID
	before := snapshot(t, d.desk)
	move := func(id book.ID) book.Command { return book.Move{ID: id, List: list} }
	if why := d.refused(book.Many{IDs: []book.ID{a, {15: 200}}, Do: move}); !strings.Contains(why, "Nothing was changed") {
		t.Errorf("a bad id: %s", why)
	}
	if why := d.refused(book.Many{IDs: make([]book.ID, 20_000), Do: move}); !strings.Contains(why, "20000 to-dos are chosen; 1 to 5000") {
		t.Errorf("20,000: %s", why)
	}
	if got := snapshot(t, d.desk); got != before {
		t.Errorf("something changed:\n%s\nwas\n%s", got, before)
	}
	// A subtask chosen with its parent goes along and stays its subtask.
	change := d.do(book.Many{IDs: []book.ID{a, b, sub}, Do: move})
	if got := d.todo(sub); got.Parent != b || got.List != list || change.Says != "Moved to Crates: 2 to-dos" {
		t.Errorf("%v in %v; %q", got.Parent, got.List, change.Says)
	}
	change = d.do(book.Many{IDs: []book.ID{a, c}, Do: move})
	if change.Says != "Moved to Crates: 1 to-do; 1 stood so already" {
		t.Errorf("%q", change.Says)
	}
	// One undo turns it all round.
	change = d.do(book.Many{IDs: []book.ID{a, b, c}, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }})
	if change.Says != "Done: 3 to-dos" || d.todo(sub).Open() {
		t.Errorf("%q, the subtask is %v", change.Says, d.todo(sub).Status)
	}
	back, err := d.desk.Invert(d.env(), change, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	for _, id := range []book.ID{a, b, c, sub} {
		if !d.todo(id).Open() {
			t.Errorf("%s stayed closed", d.todo(id).Title)
		}
	}
}

// For each reason to hold back a to-do, all in one selection.
func TestSafePostpone(t *testing.T) {
	d := newDesk(t) // a Tuesday, 24 November 2026
	put := func(title, due, plan, start string, change ...func(*book.Capture)) book.ID {
		c := book.Capture{Title: title}
		if due != "" {
			c.Due = day.MustMoment(due)
		}
		if plan != "" {
			c.Plan = day.MustHorizon(plan)
		}
		if start != "" {
			c.Start = day.MustDate(start)
		}
		for _, f := range change {
			f(&c)
		}
		return d.do(c).Todo().ID
	}
	parent := put("has subtasks", "2026-11-24", "", "")
	d.do(book.Capture{Title: "x", Parent: parent})
	picked := put("in the handful", "2026-11-24", "", "")
	d.do(book.Pick{ID: picked})
	done := put("done", "2026-11-24", "", "")
	d.do(book.Complete{ID: done})
	weekly := func(c *book.Capture) { c.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=TU")} }
	paused := put("paused", "2026-11-24", "", "", weekly)
	d.do(book.Pause{ID: paused})
	repeats := put("repeats", "2026-11-24T17:00", "", "", weekly)
	high := put("high", "2026-11-23", "", "", func(c *book.Capture) { c.Priority = book.High })
	subtask := put("is a subtask", "2026-11-24", "", "", func(c *book.Capture) { c.Parent = put("its parent", "", "", "") })
	ids := []book.ID{repeats, parent, subtask, high, picked, done, paused,
		put("late", "2026-11-19", "", ""), put("due ahead", "2026-11-27", "2026-11-24", ""),
		put("slot", "", "2026-11-24T14:00/PT30M", ""), put("next week", "", "2026-W49", ""), put("this week", "2026-11-24", "2026-W48", ""),
		put("start only", "", "", "2026-11-20"), put("start stays", "2026-11-24", "", "2026-11-20"),
		put("parked", "2026-11-24", "parked", ""), put("no date", "", "", ""), put("note", "", "", "2026-11-20", func(c *book.Capture) { c.IsNote = true })}

	show := func(c book.Postpone) string {
		t.Helper()
		p, err := d.desk.Postponement(d.env(), c)
		if err != nil {
			t.Fatal(err)
		}
		var lines []string
		for _, m := range p.Moves {
			lines = append(lines, fmt.Sprintf("%s: due %v plan %v start %v", m.After.Title, m.After.Due, m.After.Plan, m.After.Start))
		}
		for _, h := range p.Stays {
			lines = append(lines, fmt.Sprintf("%s stays: %s (%v)", h.Todo.Title, h.Why(), h.Releasable()))
		}
		return strings.Join(lines, "\n")
	}
	held := `has subtasks stays: a project's dates belong together (true)
is a subtask stays: a project's dates belong together (true)`
	byADay := show(book.Postpone{IDs: ids, By: book.ByDays(1)})
	want := `late: due 2026-11-25 plan  start 
due ahead: due 2026-11-27 plan 2026-11-25 start 
slot: due  plan 2026-11-25T14:00/PT30M start 
this week: due 2026-11-25 plan 2026-W48 start 
start only: due  plan  start 2026-11-25
start stays: due 2026-11-25 plan  start 2026-11-20
repeats stays: it repeats (true)
` + held + `
high stays: high priority (true)
in the handful stays: in today's handful (true)
done stays: done with (false)
paused stays: its repeat is paused (false)
parked stays: parked (false)
no date stays: it has no date (false)
note stays: a note (false)`
	// "next week" is base its Monday: a day on is its Tuesday, within it.
	want = strings.Replace(want, "parked stays", "next week stays: there already, or later (false)\nparked stays", 1)
	if byADay != want {
		t.Errorf("by a day:\n%s\nwant\n%s", byADay, want)
	}
	week := show(book.Postpone{IDs: ids[7:13], By: book.ByDays(7)})
	wantWeek := `late: due 2026-12-01 plan  start 
due ahead: due 2026-12-01 plan 2026-12-01 start 
slot: due  plan 2026-12-01T14:00/PT30M start 
next week: due  plan 2026-W50 start 
this week: due 2026-12-01 plan 2026-W49 start 
start only: due  plan  start 2026-12-01`
	if week != wantWeek {
		t.Errorf("by a week:\n%s\nwant\n%s", week, wantWeek)
	}
	// To a date: what is there or later stays.
	to := show(book.Postpone{IDs: ids[8:11], By: book.ToDate(day.MustDate("2026-11-27"))})
	if wantTo := "due ahead: due 2026-11-27 plan 2026-11-27 start \nslot: due  plan 2026-11-27T14:00/PT30M start \nnext week stays: there already, or later (false)"; to != wantTo {
		t.Errorf("to a date:\n%s\nwant\n%s", to, wantTo)
	}

	// Released, all four kinds move; the repeat's pattern stays where it was.
	c := d.do(book.Postpone{IDs: ids, By: book.ByDays(1), Release: ids})
	if !strings.HasPrefix(c.Says, "Moved by 1 day: 11 to-dos; 6 stayed") {
		t.Errorf("%q", c.Says)
	}
	got := d.todo(repeats)
	if got.Due.String() != "2026-11-25T17:00" || got.Repeat.Current.String() != "2026-11-24" {
		t.Errorf("the repeat: %v, pattern %v", got.Due, got.Repeat.Current)
	}
	d.do(book.Complete{ID: repeats})
	if got := d.todo(repeats); got.Due.String() != "2026-12-01T17:00" {
		t.Errorf("its next date is %v; want the pattern's Tuesday", got.Due)
	}
	if got := d.todo(picked); !got.Handful.IsZero() {
		t.Error("what was moved away is still in the handful")
	}
}

func TestDistances(t *testing.T) {
	today := day.MustDate("2026-11-24")
	for text, want := range map[string]string{
		"P1D": "Moved by 1 day", "P2D": "Moved by 2 days", "P1W": "Moved by 1 week", "P14D": "Moved by 2 weeks",
		"next-week": "Moved to Mon 30 Nov 2026", "next-month": "Moved to Tue 1 Dec 2026", "2026-12-24": "Moved to Thu 24 Dec 2026",
	} {
		by, err := book.ParseDistance(text, today)
		if err != nil {
			t.Errorf("%s: %v", text, err)
			continue
		}
		d := newDesk(t)
		c := d.do(book.Postpone{IDs: []book.ID{d.do(book.Capture{Title: "x", Due: day.MustMoment("2026-11-24")}).Todo().ID}, By: by})
		if !strings.HasPrefix(c.Says, want+":") {
			t.Errorf("%s: %q; want %q", text, c.Says, want)
		}
	}
	for _, text := range []string{"", "P", "P0D", "P-1D", "P1M", "P367D", "tomorrow", "2026-11-23", "2026-02-30"} {
		if _, err := book.ParseDistance(text, today); err == nil {
			t.Errorf("%q is a distance", text)
		}
	}
}

// What a person may not expect among many is told, each to-do counted once.
func TestReach(t *testing.T) {
	d := newDesk(t)
	away := d.list("Old loans")
	open, done, archived := d.capture("a"), d.capture("b"), d.do(book.Capture{Title: "c", List: away}).Todo().ID
	d.do(book.Complete{ID: done})
	d.do(book.EditList{ID: away, Archived: ptr(true)})
	got, err := d.desk.Reach([]book.ID{open, done, archived, done, archived})
	if err != nil || got != (book.Reach{Closed: 1, Archived: 1}) {
		t.Errorf("it reaches %+v, %v", got, err)
	}
	for name, ids := range map[string][]book.ID{"none": nil, "one that is not there": {open, {9}}, "too many": make([]book.ID, book.MaxMany+1)} {
		if _, err := d.desk.Reach(ids); err == nil {
			t.Errorf("%s: it is not refused", name)
		}
	}
}

// From 200 on it is worth while to work out ahead.
func TestWhatIsWorthPreparing(t *testing.T) {
	tick := func(kind func(book.ID) book.Command) func(n int) book.Command {
		return func(n int) book.Command { return book.Many{IDs: make([]book.ID, n), Do: kind} }
	}
	for name, c := range map[string]struct {
		of   func(n int) book.Command
		ever bool
	}{
		"move":     {func(n int) book.Command { return book.MoveMany{IDs: make([]book.ID, n)} }, true},
		"delete":   {tick(func(id book.ID) book.Command { return book.Delete{ID: id} }), true},
		"complete": {tick(func(id book.ID) book.Command { return book.Complete{ID: id} }), true},
		"import":   {func(n int) book.Command { return book.Import{Items: make([]book.Incoming, n)} }, true},
		"alone":    {func(n int) book.Command { return book.Complete{} }, false},
		"nothing":  {func(n int) book.Command { return book.Many{IDs: make([]book.ID, n)} }, false},
	} {
		if book.WorthPreparing(c.of(199)) || book.WorthPreparing(c.of(200)) != c.ever {
			t.Errorf("%s: of 199 %t, of 200 %t", name, book.WorthPreparing(c.of(199)), book.WorthPreparing(c.of(200)))
		}
	}
	change := &book.Change{Todos: make([]book.Diff[book.Todo], 199)}
	if change.WorthPreparing() {
		t.Error("an undo of 199")
	}
	if change.Todos = make([]book.Diff[book.Todo], 200); !change.WorthPreparing() {
		t.Error("an undo of 200")
	}
}

// Many that are put beside one stand there in their order: in a list by hand always; in one by due
// where their dues let them, or else it comes to stand by hand if one of them was in it already.
func TestManyBesideOne(t *testing.T) {
	random := seed.New(t)
	stayed, byHand := 0, 0
	for i := range int(20_000 * *sequences) {
		r := rand.New(rand.NewPCG(random, uint64(i)))
		d := newDesk(t)
		list, other := d.list("Crates"), d.list("Loans")
		order := []book.Order{book.ByHand, book.ByDue}[r.IntN(2)]
		d.do(book.EditList{ID: list, Order: &order})
		dues, names := map[book.ID]int{}, map[book.ID]string{}
		put := func(list book.ID) book.ID {
			n := 1 + r.IntN(3)
			id := d.do(book.Capture{Title: fmt.Sprint(len(names)), List: list, Due: day.Moment{Date: day.DateOf(d.now).AddDays(n)}}).Todo().ID
			dues[id], names[id] = n, fmt.Sprint(len(names))
			return id
		}
		var here []book.ID
		for range 2 + r.IntN(6) {
			here = append(here, put(list))
		}
		if order == book.ByDue {
			slices.SortStableFunc(here, func(a, b book.ID) int { return dues[a] - dues[b] })
		}
		anchor := here[r.IntN(len(here))]
		var moved []book.ID
		here = slices.DeleteFunc(here, func(id book.ID) bool {
			if id == anchor || r.IntN(3) > 0 {
				return false
			}
			moved = append(moved, id)
			return true
		})
		own := len(moved)
		for range r.IntN(3) {
			moved = append(moved, put(other))
		}
		if len(moved) == 0 {
			continue
		}
		after := r.IntN(2) == 0
		at := slices.Index(here, anchor)
		if after {
			at++
		}
		// What stands on both sides of the gap, and whether all may stand in it.
		fits := func(id book.ID) bool {
			return (at == 0 || dues[here[at-1]] <= dues[id]) && (at == len(here) || dues[id] <= dues[here[at]])
		}
		if order == book.ByDue && slices.ContainsFunc(moved[:own], func(id book.ID) bool { return !fits(id) }) {
			order = book.ByHand
		}
		want := slices.Insert(slices.Clone(here), at, moved...)
		if order == book.ByDue {
			// Those with the due of a neighbour stand beside it, the others behind all of theirs.
			var beside, end []book.ID
			for _, id := range moved {
				if at > 0 && dues[here[at-1]] == dues[id] || at < len(here) && dues[here[at]] == dues[id] {
					beside = append(beside, id)
				} else {
					end = append(end, id)
				}
			}
			want = append(slices.Insert(slices.Clone(here), at, beside...), end...)
			slices.SortStableFunc(want, func(a, b book.ID) int { return dues[a] - dues[b] })
			stayed++
		} else {
			byHand++
		}
		to := book.Move{List: list, Before: anchor}
		if after {
			to = book.Move{List: list, After: anchor}
		}
		d.do(book.MoveMany{IDs: moved, To: to})
		var titles []string
		for _, id := range want {
			titles = append(titles, names[id])
		}
		l, err := d.desk.List(list)
		if err != nil {
			t.Fatal(err)
		}
		if got, want := d.shown(list, l.Order), strings.Join(titles, " "); got != want || l.Order != order {
			t.Fatalf("seed %d, %d: %v beside %s, after %t: %s by %v; want %s by %v; dues %v", random, i, moved, names[anchor], after, got, l.Order, want, order, dues)
		}
		d.sound()
	}
	if stayed < 50 || byHand < 50 {
		t.Errorf("%d stayed by due, %d came to stand by hand", stayed, byHand)
	}
}

// Many are planned in one change, each for its own time; one that cannot be leaves all as they are.
func TestPlanEach(t *testing.T) {
	d := newDesk(t)
	a, b, note := d.capture("a"), d.capture("b"), d.do(book.Capture{Title: "n", IsNote: true}).Todo().ID
	plan := func(id book.ID, on string) book.PlanFor { return book.PlanFor{ID: id, Plan: day.MustHorizon(on)} }
	if c := d.do(book.PlanEach{Plans: []book.PlanFor{plan(a, "2026-11-26"), plan(b, "2026-W49")}}); c.Says != "Planned day by day: 2 to-dos" || len(c.Todos) != 2 {
		t.Errorf("it says %q", c.Says)
	}
	if c := d.do(book.PlanEach{Plans: []book.PlanFor{plan(a, "2026-11-27")}}); c.Says != "Planned for Fri 27 Nov 2026: “a” (before: Thu 26 Nov)" {
		t.Errorf("of one it says %q", c.Says)
	}
	before := snapshot(t, d.desk)
	for says, plans := range map[string][]book.PlanFor{
		"A to-do is named twice. Each has one plan.":    {plan(a, "2026-11-26"), plan(b, "2026-11-26"), plan(a, "2026-11-28")},
		"0 to-dos are chosen; 1 to 5000 can be changed": nil,
		"Nothing was changed.":                          {plan(a, "2026-11-26"), plan(note, "2026-11-26")},
		"any more. Nothing was changed.":                {plan(a, "2026-11-26"), plan(book.ID{9}, "2026-11-26")},
	} {
		if why := d.refused(book.PlanEach{Plans: plans}); !strings.Contains(why, says) {
			t.Errorf("%q; want %q", why, says)
		}
	}
	if snapshot(t, d.desk) != before {
		t.Error("a refused plan changed something")
	}
}
