package view_test

import (
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// A project says its next action, when anything in it last moved, and flags that
// there is none, or none for two weeks.
func TestProjectsStanding(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026
	project := f.put(book.Capture{Title: "Bench"})
	first := f.put(book.Capture{Title: "Ask the joiner", Parent: project})
	f.put(book.Capture{Title: "Carry the chairs", Parent: project, Plan: day.MustHorizon("parked")})
	standing := func() *view.Standing {
		t.Helper()
		res := mustAsk(t, f.desk, f.clock(), view.Projects)
		return res.Groups[0].Rows[0].Standing
	}
	if s := standing(); s.Next == nil || s.Next.ID != first || s.Moved != day.MustDate("2026-11-24") || s.Quiet != 0 {
		t.Errorf("%+v", s)
	}
	f.now = f.now.AddDate(0, 0, 13)
	if s := standing(); s.Quiet != 0 {
		t.Errorf("after 13 days: %+v", s)
	}
	f.now = f.now.AddDate(0, 0, 1)
	if s := standing(); s.Quiet != view.QuietDays || s.Moved != day.MustDate("2026-11-24") {
		t.Errorf("after 14 days: %+v", s)
	}
	who := f.do(book.AddPerson{Name: "Teodor"}).People[0].After.ID
	f.do(book.Edit{ID: first, Person: &book.Involved{ID: who, Role: book.WaitingOn}})
	if s := standing(); s.Next != nil || s.Quiet != 0 || s.Moved != day.MustDate("2026-12-08") {
		t.Errorf("waiting: %+v", s)
	}
	outcome := "  Somebody sits there.  "
	f.do(book.Edit{ID: project, Outcome: &outcome})
	if row := mustAsk(t, f.desk, f.clock(), view.Projects).Groups[0].Rows[0]; row.Todo.Outcome != "Somebody sits there." {
		t.Errorf("the outcome is %q", row.Todo.Outcome)
	}
}
