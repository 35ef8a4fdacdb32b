package plan_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/plan"
)

// A day has what is planned for it by now, done or not, and what was done on it, whatever it
// was planned for.
func TestPast(t *testing.T) {
	d := newDesk(t) // Tuesday 24 November 2026, 09:00
	d.clock.Now = time.Date(2026, 11, 18, 23, 0, 0, 0, time.UTC)
	d.put("before all", 35, "", "2026-11-18", book.ID{})
	d.put("on the first", 25, "", "2026-11-19", book.ID{})
	d.do(book.Complete{ID: d.put("done before all", 10, "", "", book.ID{})})
	d.clock.Now = time.Date(2026, 11, 19, 0, 0, 0, 0, time.UTC)
	d.do(book.Complete{ID: d.put("done as the first begins", 5, "", "", book.ID{})})
	d.clock.Now = time.Date(2026, 11, 20, 9, 0, 0, 0, time.UTC)
	early := d.put("done on its day", 60, "", "2026-11-20", book.ID{})
	d.put("left open", 30, "", "2026-11-20", book.ID{})
	moved := d.put("moved on", 45, "", "2026-11-20", book.ID{})
	other := d.put("done without a plan", 0, "", "", book.ID{})
	gone := d.put("in the bin", 500, "", "2026-11-21", book.ID{})
	project := d.put("project", 90, "", "2026-11-20", book.ID{})
	part := d.put("part", 20, "", "", project)
	d.do(book.Complete{ID: early})
	d.do(book.Delete{ID: gone})
	d.clock.Now = d.clock.Now.AddDate(0, 0, 1)
	d.do(book.PlanFor{ID: moved, Plan: d.todo(moved).Plan})
	d.do(book.Complete{ID: other})
	d.do(book.Complete{ID: part})
	d.clock.Now = d.clock.Now.AddDate(0, 0, 3)
	d.put("today", 15, "", "2026-11-24", book.ID{})
	d.put("tomorrow", 15, "", "2026-11-25", book.ID{})
	d.do(book.Complete{ID: d.put("done a day ahead", 20, "", "2026-11-25", book.ID{})})
	cancelled := d.put("let go", 10, "", "2026-11-23", book.ID{})
	d.do(book.Cancel{ID: cancelled})
	var got []string
	for _, p := range plan.Past(d.desk, d.clock, 30, 6) {
		got = append(got, fmt.Sprintf("%s %d planned, %d done in %d", p.Date, p.Planned, p.Done, p.Count))
	}
	want := `2026-11-19 25 planned, 5 done in 1
2026-11-20 135 planned, 60 done in 1
2026-11-21 0 planned, 50 done in 2
2026-11-22 0 planned, 0 done in 0
2026-11-23 10 planned, 0 done in 0
2026-11-24 15 planned, 20 done in 1`
	if strings.Join(got, "\n") != want {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
}
