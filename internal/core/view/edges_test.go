package view_test

import (
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// shelf is a Book made of to-dos written as "title due plan start".
type shelf struct {
	t    testing.TB
	book *book.Book
	desk *book.Desk
	ids  int
	now  time.Time
	// clock, if set, stands for now in UTC.
	clock *day.Clock
}

func newShelf(t testing.TB) *shelf {
	b, desk := book.Alone(book.MemoryNotes{})
	return &shelf{t: t, book: b, desk: desk, now: time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC)}
}

func (s *shelf) newID() book.ID {
	s.ids++
	return book.ID{13: byte(s.ids >> 16), 14: byte(s.ids >> 8), 15: byte(s.ids)}
}

func (s *shelf) do(cmd book.Command) *book.Change {
	s.t.Helper()
	clock := day.Clock{Now: s.now, Zone: time.UTC}
	if s.clock != nil {
		clock = *s.clock
	}
	c, err := s.desk.Do(book.Env{Clock: clock, NewID: s.newID}, cmd)
	if err != nil {
		s.t.Fatal(err)
	}
	if !c.Empty() {
		s.book.Apply(c)
	}
	return c
}

func (s *shelf) add(title, due, plan, start string) book.ID {
	s.t.Helper()
	cmd := book.Capture{Title: title}
	if cmd.Due.UnmarshalText([]byte(due)) != nil || cmd.Plan.UnmarshalText([]byte(plan)) != nil ||
		cmd.Start.UnmarshalText([]byte(start)) != nil {
		s.t.Fatalf("%s: %q, %q, %q", title, due, plan, start)
	}
	return s.do(cmd).Todo().ID
}

func clockAt(t testing.TB, zone, now string, dayStart time.Duration) day.Clock {
	t.Helper()
	z, err := time.LoadLocation(zone)
	if err != nil {
		t.Fatal(err)
	}
	at, err := time.ParseInLocation("2006-01-02T15:04:05", now, z)
	if err != nil {
		t.Fatal(err)
	}
	return day.Clock{Now: at, Zone: z, DayStart: dayStart}
}

// groupsOf writes an answer as "kind: title, title; kind: title".
func groupsOf(t testing.TB, b *book.Desk, c day.Clock, q view.Query) string {
	t.Helper()
	q.Limit = 1000
	res, err := view.Ask(b, c, q)
	if err != nil {
		t.Fatal(err)
	}
	var groups []string
	for _, g := range res.Groups {
		var titles []string
		for _, r := range g.Rows {
			titles = append(titles, r.Todo.Title)
		}
		head := string(g.Kind)
		if !g.Horizon.IsZero() {
			head += " " + g.Horizon.String()
		}
		groups = append(groups, head+": "+strings.Join(titles, ", "))
	}
	return strings.Join(groups, "; ")
}

// Overdue and due today at the edges of a day: the rules are those of the
// model; the zone changes are those of the tz database.
func TestEdgesOfADay(t *testing.T) {
	const lisbon, newYork = "Europe/Lisbon", "America/New_York"
	four := 4 * time.Hour
	for _, c := range []struct {
		name, zone, now string
		dayStart        time.Duration
		due             string
		want            string // of Today
	}{
		{"a date, at its last minute", lisbon, "2026-11-24T23:59:59", 0, "2026-11-24", "due-today: x"},
		{"a date, at midnight", lisbon, "2026-11-25T00:00:00", 0, "2026-11-24", "overdue: x"},
		{"a date, after midnight before DayStart", lisbon, "2026-11-25T03:59:59", four, "2026-11-24", "due-today: x"},
		{"a date, at DayStart", lisbon, "2026-11-25T04:00:00", four, "2026-11-24", "overdue: x"},
		{"tomorrow's date before DayStart", lisbon, "2026-11-25T03:00:00", four, "2026-11-25", ""},
		{"a time earlier today", lisbon, "2026-11-24T17:00:01", 0, "2026-11-24T17:00", "overdue: x"},
		{"a time to the second", lisbon, "2026-11-24T17:00:00", 0, "2026-11-24T17:00", "due-today: x"},
		{"01:00 belongs to the day before with DayStart 04:00", lisbon, "2026-11-24T20:00:00", four, "2026-11-25T01:00", "due-today: x"},
		{"01:00 passed with DayStart 04:00", lisbon, "2026-11-25T02:00:00", four, "2026-11-25T01:00", "overdue: x"},
		{"spring, Lisbon: 01:30 does not exist and is 02:30", lisbon, "2026-03-29T02:29:00", 0, "2026-03-29T01:30", "due-today: x"},
		{"spring, Lisbon: 02:31 is past it", lisbon, "2026-03-29T02:31:00", 0, "2026-03-29T01:30", "overdue: x"},
		{"spring, New York", newYork, "2026-03-08T03:31:00", 0, "2026-03-08T02:30", "overdue: x"},
		{"spring, New York, before", newYork, "2026-03-08T03:29:00", 0, "2026-03-08T02:30", "due-today: x"},
		{"autumn, Lisbon: the end of a day of 25 hours", lisbon, "2026-10-25T23:59:59", 0, "2026-10-25", "due-today: x"},
		{"autumn, New York: 17:00 stays 17:00", newYork, "2026-11-01T16:59:00", 0, "2026-11-01T17:00", "due-today: x"},
		{"29 February", lisbon, "2028-02-29T12:00:00", 0, "2028-02-29", "due-today: x"},
		{"after 29 February", lisbon, "2028-03-01T00:00:00", 0, "2028-02-29", "overdue: x"},
	} {
		s := newShelf(t)
		s.add("x", c.due, "", "")
		clock := clockAt(t, c.zone, c.now, c.dayStart)
		if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Today}); got != c.want {
			t.Errorf("%s: Today is %q; want %q", c.name, got, c.want)
		}
		wantLate := ""
		if c.want == "overdue: x" {
			wantLate = c.want
		}
		if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Overdue}); got != wantLate {
			t.Errorf("%s: Overdue is %q; want %q", c.name, got, wantLate)
		}
	}
}

// The second 01:30 of an autumn night is after a due of 01:30, which was the first.
func TestAutumnHourThatComesTwice(t *testing.T) {
	s := newShelf(t)
	s.add("x", "2026-10-25T01:30", "", "")
	clock := clockAt(t, "Europe/Lisbon", "2026-10-24T12:00:00", 0)
	clock.Now = time.Date(2026, 10, 25, 0, 29, 0, 0, time.UTC)
	if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Overdue}); got != "" {
		t.Errorf("at the first 01:29: %q", got)
	}
	clock.Now = clock.Now.Add(32 * time.Minute) // the second 01:01
	if wall := clock.Wall().String(); wall != "2026-10-25T01:01" {
		t.Fatalf("the wall shows %s", wall)
	}
	if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Overdue}); got != "overdue: x" {
		t.Errorf("at the second 01:01: %q", got)
	}
}

// ISO weeks 53 of 2026 and 1 of 2027, as time.ISOWeek has them.
func TestWeeksRoundNewYear(t *testing.T) {
	s := newShelf(t)
	s.add("in week 53", "", "2026-W53", "")
	s.add("in week 1", "", "2027-W01", "")
	for _, c := range []struct{ now, want string }{
		{"2026-12-28T09:00:00", ""}, // Monday of week 53
		{"2027-01-02T09:00:00", ""},
		{"2027-01-03T09:00:00", "planned-today: in week 53"}, // its Sunday
		{"2027-01-04T09:00:00", "carried-over: in week 53"},
		{"2027-01-10T09:00:00", "planned-today: in week 1; carried-over: in week 53"},
	} {
		clock := clockAt(t, "UTC", c.now, 0)
		if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Today}); got != c.want {
			t.Errorf("at %s: %q; want %q", c.now, got, c.want)
		}
		y, w := clock.Now.ISOWeek()
		gotY, gotW := clock.Today().ISOWeek()
		if y != gotY || w != gotW {
			t.Errorf("at %s: week %d-%d; time.ISOWeek has %d-%d", c.now, gotY, gotW, y, w)
		}
	}
}

func TestWithinAWeek(t *testing.T) {
	s := newShelf(t)
	s.add("late", "2026-11-20", "", "")
	s.add("today", "2026-11-24", "", "")
	s.add("in 7 days", "2026-12-01T23:59", "", "")
	s.add("in 8 days", "2026-12-02", "", "")
	s.add("planned only", "", "2026-11-25", "")
	got := groupsOf(t, s.desk, clockAt(t, "UTC", "2026-11-24T09:00:00", 0), view.Query{Of: view.WithinAWeek})
	if want := "overdue: late; day 2026-11-24: today; day 2026-12-01: in 7 days"; got != want {
		t.Errorf("it holds %q; want %q", got, want)
	}
}

func TestOrderAndRows(t *testing.T) {
	s := newShelf(t)
	later := s.add("due later", "2026-11-24", "", "")
	s.add("slot at 11", "", "2026-11-24T11:00/PT30M", "")
	s.add("slot at 9", "", "2026-11-24T09:00/PT30M", "")
	s.add("planned", "", "2026-11-24", "")
	s.add("due at 8", "2026-11-24T20:00", "", "")
	high := book.High
	s.do(book.Edit{ID: s.add("high", "", "2026-11-24", ""), Priority: &high})
	s.add("dimmed", "2026-11-23", "", "2026-11-23")
	clock := clockAt(t, "UTC", "2026-11-24T09:00:00", 0)
	want := "overdue: dimmed; due-today: due at 8, due later; planned-today: slot at 9, slot at 11, high, planned"
	if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Today}); got != want {
		t.Errorf("Today is %q; want %q", got, want)
	}
	res, err := view.Ask(s.desk, clock, view.Query{Of: view.Today, Offset: 2, Limit: 2})
	if err != nil || res.Total != 7 || len(res.Groups[0].Rows) != 0 || len(res.Groups[1].Rows) != 1 ||
		res.Groups[1].Rows[0].Todo.ID != later || len(res.Groups[2].Rows) != 1 {
		t.Errorf("rows 2 and 3: %+v, %v", res, err)
	}
	if r := mustAsk(t, s.desk, clock, view.Overdue).Groups[0].Rows[0]; !r.Late || r.DaysLate != 1 || r.Dimmed {
		t.Errorf("the late row is %+v", r)
	}
}

func mustAsk(t *testing.T, b *book.Desk, c day.Clock, of view.Subject) *view.Result {
	t.Helper()
	res, err := view.Ask(b, c, view.Query{Of: of, Limit: 1000})
	if err != nil {
		t.Fatal(err)
	}
	return res
}

func TestNextChange(t *testing.T) {
	s := newShelf(t)
	for _, c := range []struct{ due, now, want string }{
		{"", "2026-11-24T09:00:00", "2026-11-25T00:00:00"},
		{"2026-11-24T17:00", "2026-11-24T09:00:00", "2026-11-24T17:00:00.001"},
		{"2026-11-24T17:00", "2026-11-24T17:00:00", "2026-11-24T17:00:00.001"},
		{"2026-11-24T17:00", "2026-11-24T17:00:01", "2026-11-25T00:00:00"},
		{"2026-11-26T17:00", "2026-11-24T17:00:01", "2026-11-25T00:00:00"},
	} {
		if c.due != "" {
			s.add(c.due, c.due, "", "")
		}
		clock := clockAt(t, "UTC", c.now, 0)
		if got := view.NextChange(s.desk, clock).Format("2006-01-02T15:04:05.999"); got != c.want {
			t.Errorf("due %q at %s: next change %s; want %s", c.due, c.now, got, c.want)
		}
	}
}

func TestBadQueries(t *testing.T) {
	s := newShelf(t)
	clock := clockAt(t, "UTC", "2026-11-24T09:00:00", 0)
	for _, q := range []view.Query{{Of: view.Name("someday")}, {Of: view.Upcoming, Months: 13}, {Of: view.OnRail{}},
		{Of: view.InList{ID: book.ID{1}}}} {
		if _, err := view.Ask(s.desk, clock, q); err == nil {
			t.Errorf("%+v was answered", q)
		}
	}
}
