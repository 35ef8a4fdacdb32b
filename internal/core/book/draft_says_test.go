package book_test

import (
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// What was done names what changed, from what to what. Today is Tue 24 Nov 2026.
func TestSaysWhatChanged(t *testing.T) {
	d := newDesk(t)
	loans, crates := d.list("Loans"), d.list("Crates")
	ines := d.do(book.AddPerson{Name: "Ines Vidal"}).People[0].After.ID
	id := d.do(book.Capture{Title: "Lamp", List: loans, Due: day.MustMoment("2026-11-26")}).Todo().ID
	due := func(s string) book.Command {
		m := day.Moment{}
		if s != "" {
			m = day.MustMoment(s)
		}
		return book.Edit{ID: id, Due: &m}
	}
	plan := func(s string) book.Command {
		h := day.Horizon{}
		if s != "" {
			var err error
			if h, err = day.ParseHorizon(s); err != nil {
				t.Fatal(err)
			}
		}
		return book.PlanFor{ID: id, Plan: h}
	}
	high, low, minutes, none := book.High, book.Low, 90, 0
	begun, title, outcome, empty, kitchen, yes := book.InProcess, "Lamp, cleaned", "It shines", "", "kitchen", true
	remind := func(s string) day.Reminder {
		r, err := day.ParseReminder(s)
		if err != nil {
			t.Fatal(err)
		}
		return r
	}
	for _, c := range []struct {
		cmd  book.Command
		want string
	}{
		{due("2026-11-27"), "Changed: “Lamp”, due: Thu 26 → Fri 27 Nov"},
		{due("2026-11-27T16:00"), "Changed: “Lamp”, due: Fri 27 → Fri 27 Nov 16:00"},
		{due("2026-12-01"), "Changed: “Lamp”, due: Fri 27 Nov 16:00 → Tue 1 Dec"},
		{due("2027-01-04"), "Changed: “Lamp”, due: Tue 1 Dec → Mon 4 Jan 2027"},
		{due("2027-01-05"), "Changed: “Lamp”, due: Mon 4 → Tue 5 Jan 2027"},
		{due(""), "Changed: “Lamp”, due: Tue 5 Jan 2027 → none"},
		{book.Edit{ID: id, Priority: &high, Estimate: &minutes}, "Changed: “Lamp”, priority: none → high, takes: none → 1 h 30 min"},
		{book.Edit{ID: id, Priority: &low, Estimate: &none}, "Changed: “Lamp”, priority: high → low, takes: 1 h 30 min → none"},
		{book.Edit{ID: id, Status: &begun}, "Changed: “Lamp”, status: not begun → begun"},
		{book.Edit{ID: id, Title: &title}, "Changed: “Lamp, cleaned”, before: “Lamp”"},
		{book.Edit{ID: id, Outcome: &outcome}, "Changed: “Lamp, cleaned”, outcome: none → “It shines”"},
		{book.Edit{ID: id, Outcome: &empty, InOrder: &yes}, "Changed: “Lamp, cleaned”, outcome: “It shines” → none, subtasks: in any order → one after another"},
		{book.Edit{ID: id, Place: &kitchen}, "Changed: “Lamp, cleaned”, place: none → kitchen"},
		{book.Edit{ID: id, Person: &book.Involved{ID: ines, Role: book.Ask}}, "Changed: “Lamp, cleaned”, person: none → ask Ines Vidal"},
		{book.Edit{ID: id, Notes: &outcome}, "Changed: “Lamp, cleaned”, notes"},
		{plan("2026-11-25"), "Planned for Wed 25 Nov 2026: “Lamp, cleaned”"},
		{plan("2026-11-26T14:00/PT30M"), "Planned for Thu 26 Nov 2026, 14:00 for 30 min: “Lamp, cleaned” (before: Wed 25 Nov)"},
		{plan("parked"), "Parked: “Lamp, cleaned” (before: Thu 26 Nov 14:00 for 30 min)"},
		{plan(""), "No longer planned: “Lamp, cleaned” (before: parked)"},
		{book.Move{ID: id, List: crates}, "Moved to Crates: “Lamp, cleaned” (before: Loans)"},
		{book.Tagging{ID: id, Add: []string{"calls", "quick"}}, "Tags changed: “Lamp, cleaned”, added calls, quick"},
		{book.Tagging{ID: id, Add: []string{"heavy"}, Remove: []string{"calls"}}, "Tags changed: “Lamp, cleaned”, added heavy, without calls"},
		{book.Remind{ID: id, Add: []day.Reminder{remind("2026-11-30T09:30")}}, "Reminders changed: “Lamp, cleaned”, added Mon 30 Nov 2026, 09:30"},
	} {
		if got := d.do(c.cmd).Says; got != c.want {
			t.Errorf("it says\n %s\nwant\n %s", got, c.want)
		}
	}
	other := d.capture("Oil")
	friday := day.MustMoment("2026-11-27")
	change := d.do(book.Many{IDs: []book.ID{id, other}, Do: func(id book.ID) book.Command { return book.Edit{ID: id, Due: &friday} }})
	if want := "Changed: 2 to-dos, due: Fri 27 Nov"; change.Says != want {
		t.Errorf("many: %q; want %q", change.Says, want)
	}
}

// Ticking a parent says how many of its subtasks went with it, at every depth.
func TestSaysWhatWentAlong(t *testing.T) {
	d := newDesk(t)
	top := d.capture("Labels")
	sub := d.do(book.Capture{Title: "Proof", Parent: top}).Todo().ID
	d.do(book.Capture{Title: "Print", Parent: sub})
	done := d.do(book.Capture{Title: "Measure", Parent: top}).Todo().ID
	if got := d.do(book.Complete{ID: done}).Says; got != "Done: “Measure”. Labels: 1 of 2 done, 50 %, 1 left" {
		t.Errorf("%q", got)
	}
	if got := d.do(book.Complete{ID: top}).Says; got != "Done: “Labels”, with 2 subtasks" {
		t.Errorf("%q", got)
	}
	if got := d.do(book.Complete{ID: top}).Says; got != "Done: “Labels”" {
		t.Errorf("again: %q", got)
	}
}
