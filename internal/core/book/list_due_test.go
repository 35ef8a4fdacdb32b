package book_test

import (
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// A list has a due and an outcome; where its due moves, its dates move along if asked, but those
// of repeats.
func TestDueOfAList(t *testing.T) {
	d := newDesk(t)
	list := d.list("Night Signals")
	put := func(c book.Capture) book.ID {
		c.List = list
		return d.do(c).Todo().ID
	}
	hang := put(book.Capture{Title: "Hang the plan", Start: day.MustDate("2026-11-25"), Due: day.MustMoment("2026-11-27T16:00"),
		Plan: day.MustHorizon("2026-11-26T14:00/PT30M")})
	week := put(book.Capture{Title: "Print", Plan: day.MustHorizon("2026-W49")})
	bare := put(book.Capture{Title: "Undated"})
	rota := d.repeating("Rota", "FREQ=WEEKLY", "2026-11-27", func(c *book.Capture) { c.List = list })
	done := put(book.Capture{Title: "Done", Due: day.MustMoment("2026-11-25")})
	d.do(book.Complete{ID: done})

	if c := d.do(book.EditList{ID: list, Due: ptr(day.MustDate("2026-12-11")), Shift: true}); c.Says != "“Night Signals” is due Fri 11 Dec 2026" || len(c.Todos) > 0 {
		t.Errorf("the first due says %q and writes %d to-dos", c.Says, len(c.Todos))
	}
	c := d.do(book.EditList{ID: list, Due: ptr(day.MustDate("2026-12-18")), Shift: true})
	if want := "“Night Signals” is due Fri 18 Dec 2026 (before: Fri 11 Dec 2026), and the dates of 2 to-dos are 7 days later; left alone: 1 repeat"; c.Says != want {
		t.Errorf("it says %q, want %q", c.Says, want)
	}
	if got := d.todo(hang); got.Start.String() != "2026-12-02" || got.Due.String() != "2026-12-04T16:00" || got.Plan.String() != "2026-12-03T14:00/PT30M" {
		t.Errorf("moved to %v, %v, %v", got.Start, got.Due, got.Plan)
	}
	if got := d.todo(week).Plan.String(); got != "2026-W50" {
		t.Errorf("the week is %s", got)
	}
	if d.todo(rota).Due.String() != "2026-11-27" || d.todo(done).Due.String() != "2026-11-25" || !d.todo(bare).Due.IsZero() {
		t.Error("a repeat, what is done or what has no date moved")
	}
	d.undo(c)
	if l, _ := d.desk.List(list); l.Due.String() != "2026-12-11" || d.todo(hang).Due.String() != "2026-11-27T16:00" {
		t.Errorf("undone, the list is due %v and the to-do %v", l.Due, d.todo(hang).Due)
	}
	if c := d.do(book.EditList{ID: list, Outcome: ptr(" The lamps hang. ")}); c.Lists[0].After.Outcome != "The lamps hang." {
		t.Errorf("the outcome is %q", c.Lists[0].After.Outcome)
	}
	for _, c := range []struct{ says, outcome string }{{"line break", "a\nb"}, {"501 characters", strings.Repeat("x", 501)}} {
		if why := d.refused(book.EditList{ID: list, Outcome: &c.outcome}); !strings.Contains(why, c.says) {
			t.Errorf("an outcome is refused with %q, want %q", why, c.says)
		}
	}
	for due, shifts := range map[string]bool{"2036-12-18": true, "2036-12-20": false, "2016-12-01": false} {
		_, err := d.desk.Do(d.env(), book.EditList{ID: list, Due: ptr(day.MustDate(due)), Shift: true})
		if shifts != (err == nil) || err != nil && !strings.Contains(err.Error(), "3660 at most") {
			t.Errorf("moved to %s: %v", due, err)
		}
	}
	if c := d.do(book.EditList{ID: list, Due: &day.Date{}}); c.Says != "No due any more: “Night Signals”" {
		t.Errorf("without a due it says %q", c.Says)
	}
}

// Finishing a list archives it, and does with what is open in it what is said; one undo brings
// all back.
func TestFinishList(t *testing.T) {
	for rest, want := range map[book.Rest]struct {
		says, status string
		inCup        bool
	}{
		book.RestStays:     {"2 open to-dos left in it", "needs-action", false},
		book.RestDone:      {"2 open to-dos completed", "completed", false},
		book.RestCancelled: {"2 open to-dos cancelled", "cancelled", false},
		book.RestToCup:     {"2 open to-dos in the Cup", "needs-action", true},
	} {
		d := newDesk(t)
		list := d.list("Night Signals")
		whole := d.do(book.Capture{Title: "Loans", List: list}).Todo().ID
		part := d.do(book.Capture{Title: "Sign", Parent: whole}).Todo().ID
		done := d.do(book.Capture{Title: "Ask", Parent: whole}).Todo().ID
		d.do(book.Complete{ID: done})
		note := d.do(book.Capture{Title: "Thought", List: list}).Todo().ID
		d.do(book.Edit{ID: note, IsNote: ptr(true)})
		if p := d.desk.ListProgress(list); p != (book.Progress{Done: 1, Total: 2}) {
			t.Errorf("progress is %v", p)
		}
		before := snapshot(t, d.desk)
		c := d.do(book.FinishList{ID: list, Rest: rest})
		if !strings.HasSuffix(c.Says, want.says) {
			t.Errorf("%v says %q", rest, c.Says)
		}
		for _, id := range []book.ID{whole, part} {
			if got := d.todo(id); got.Status.String() != want.status || got.List.IsZero() != want.inCup {
				t.Errorf("%v: %q is %v, in list %v", rest, got.Title, got.Status, got.List)
			}
		}
		if got := d.todo(part).Parent; got != whole {
			t.Errorf("%v: the subtask stands under %v", rest, got)
		}
		if l, _ := d.desk.List(list); l.Archived.IsZero() || d.todo(note).List != list {
			t.Errorf("%v: not archived, or the note has left", rest)
		}
		if why := d.refused(book.FinishList{ID: list}); !strings.Contains(why, "archived already") {
			t.Errorf("finished twice: %q", why)
		}
		if faults := d.desk.Faults(day.MustDate("2026-11-24")); len(faults) > 0 {
			t.Errorf("%v: %v", rest, faults)
		}
		d.undo(c)
		if after := snapshot(t, d.desk); after != before {
			t.Errorf("%v: undone it is\n%s\nwas\n%s", rest, after, before)
		}
	}
	d := newDesk(t)
	list := d.list("Fair")
	d.do(book.Capture{Title: "x", List: list})
	template := d.do(book.SaveTemplate{List: list, Name: "Fair"}).Lists[0].After.ID
	if why := d.refused(book.FinishList{ID: template}); !strings.Contains(why, "is a template") {
		t.Errorf("a template: %q", why)
	}
}

// A copy of a to-do stands behind it with all that is open under it, and shares nothing with it.
func TestDuplicates(t *testing.T) {
	d := newDesk(t)
	list := d.list("Loans")
	d.do(book.EditList{ID: list, Order: ptr(book.ByHand), Due: ptr(day.MustDate("2026-12-11")), Outcome: ptr("All is home.")})
	section := d.do(book.AddSection{List: list, Name: "Lamps"}).Sections[0].After.ID
	whole := d.do(book.Capture{Title: "Fog horn", Notes: "heavy", List: list, Section: section, Tags: []string{"loans"}}).Todo().ID
	d.do(book.Capture{Title: "Crate", Parent: whole, Notes: "two handles"})
	d.do(book.Complete{ID: d.do(book.Capture{Title: "Ring", Parent: whole}).Todo().ID})
	behind := d.do(book.Capture{Title: "Behind", List: list, Section: section}).Todo().ID
	d.do(book.Pick{ID: whole})

	c := d.do(book.Duplicate{ID: whole})
	copied := c.Todos[0].After
	if c.Says != "Duplicated: “Fog horn”, with 1 subtask" || copied.Title != "Fog horn" || copied.Section != section || len(copied.Tags) != 1 || !copied.Handful.IsZero() {
		t.Errorf("%q made %+v", c.Says, copied)
	}
	if note, _ := d.desk.Note(d.todo(copied.ID)); note != "heavy" {
		t.Errorf("its notes are %q", note)
	}
	if subs := d.desk.Subtasks(copied.ID); len(subs) != 1 || subs[0].Title != "Crate" {
		t.Errorf("under it stand %v", subs)
	}
	if !(d.todo(whole).Position < d.todo(copied.ID).Position && d.todo(copied.ID).Position < d.todo(behind).Position) {
		t.Error("it does not stand behind what it is of")
	}
	d.do(book.Edit{ID: copied.ID, Title: ptr("Another")})
	if d.todo(whole).Title != "Fog horn" {
		t.Error("an edit of the copy has changed the first")
	}
	closed := d.do(book.Duplicate{ID: d.desk.Subtasks(whole)[1].ID}).Todos[0].After
	if closed.Status != book.NeedsAction || closed.Parent != whole {
		t.Errorf("a copy of what is done is %v under %v", closed.Status, closed.Parent)
	}

	rota := d.repeating("Rota", "FREQ=WEEKLY", "2026-11-27")
	record := d.do(book.Complete{ID: rota}).Todos[1].After
	if copied := d.do(book.Duplicate{ID: record.ID}).Todos[0].After; record.Record != rota || copied.Repeat != nil || !copied.Record.IsZero() {
		t.Errorf("a copy of the record %v repeats: %v", record.Record, copied.Repeat)
	}

	c = d.do(book.DuplicateList{ID: list})
	made := c.Lists[0].After
	if made.Name != "Loans (2)" || made.Due.String() != "2026-12-11" || made.Outcome != "All is home." || made.Order != book.ByHand {
		t.Errorf("the copy of the list is %+v", made)
	}
	if n := len(d.desk.Sections(made.ID)); n != 1 {
		t.Errorf("it has %d sections", n)
	}
	d.undo(c)
	if _, err := d.desk.List(made.ID); err == nil {
		t.Error("undone, the copy of the list is there")
	}
	if why := d.refused(book.Duplicate{ID: whole, As: whole}); !strings.Contains(why, "exists already") {
		t.Errorf("a copy with an id that is taken: %q", why)
	}
}
