package plan_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/repeat"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// desk is a Book of to-dos on Tuesday 24 November 2026, 09:00.
type desk struct {
	t     *testing.T
	book  *book.Book
	desk  *book.Desk
	clock day.Clock
	ids   int
}

func newDesk(t *testing.T) *desk {
	b, d := book.Alone(book.MemoryNotes{})
	return &desk{t, b, d, day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}, 0}
}

func (d *desk) do(cmd book.Command) *book.Change {
	d.t.Helper()
	c, err := d.desk.Do(book.Env{Clock: d.clock, NewID: func() book.ID { d.ids++; return book.ID{13: byte(d.ids >> 16), 14: byte(d.ids >> 8), 15: byte(d.ids)} }}, cmd)
	if err != nil {
		d.t.Fatal(err)
	}
	d.book.Apply(c)
	return c
}

// put puts a to-do in: minutes, and its due and plan where these are not "".
func (d *desk) put(title string, minutes int, due, planned string, parent book.ID) book.ID {
	d.t.Helper()
	cmd := book.Capture{Title: title, Estimate: minutes, Parent: parent}
	if cmd.Due.UnmarshalText([]byte(due)) != nil || cmd.Plan.UnmarshalText([]byte(planned)) != nil {
		d.t.Fatalf("%s: %q, %q", title, due, planned)
	}
	return d.do(cmd).Todo().ID
}

func (d *desk) todo(id book.ID) *book.Todo {
	t, err := d.desk.Todo(id)
	if err != nil {
		d.t.Fatal(err)
	}
	return t
}

func (d *desk) capacity() *plan.Capacity {
	return plan.NewCapacity(d.clock, plan.CalendarOf(settings.Settings{}, term.WorkingHours), nil, 30)
}

// written is jobs as "title minutes due day after", one a line, in the order of their titles.
func (d *desk) written(g plan.Gathered) string {
	var lines []string
	for i, j := range g.Jobs {
		line := fmt.Sprintf("%s %d", g.Todos[i].Title, j.Minutes)
		for _, word := range []string{j.Due.String(), j.Day.String()} {
			if word != "" {
				line += " " + word
			}
		}
		for _, before := range j.After {
			line += " after " + g.Todos[before].Title
		}
		lines = append(lines, line)
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}

// A leaf has its estimate or the assumed one, a project what it is above its leaves; a leaf
// lies on its own plan, else that above it, else its due, and is due when the first above it
// is; who waits has no work; one after another wait for each other.
func TestGather(t *testing.T) {
	d := newDesk(t)
	show := d.put("show", 300, "2026-11-30", "", book.ID{})
	d.put("hang", 90, "", "2026-11-26", show)
	d.put("light", 0, "2026-12-04", "", show)
	oak := d.put("oak", 60, "", "2026-11-25", book.ID{})
	saw := d.put("saw", 20, "", "", oak)
	d.put("plane", 30, "", "", oak)
	inOrder, who := true, d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	d.do(book.Edit{ID: oak, InOrder: &inOrder})
	wait := d.put("wait", 40, "2026-11-25", "", book.ID{})
	d.do(book.Edit{ID: wait, Person: &book.Involved{ID: who, Role: book.WaitingOn}})
	d.put("some time", 10, "", "parked", book.ID{})
	d.put("loose", 10, "", "", book.ID{})
	d.put("meeting", 45, "2026-11-27", "2026-11-24T14:00/PT45M", book.ID{})
	d.put("late", 15, "2026-11-20", "", book.ID{})
	d.put("week", 25, "2026-12-01", "2026-W48", book.ID{})
	g := plan.Gather(d.desk, d.clock, term.WorkingHours, 30, day.Date{})
	want := `hang 90 2026-11-30 2026-11-26
late 15 2026-11-20
light 30 2026-11-30
oak 10 2026-11-25
plane 30 2026-11-25 after saw
saw 20 2026-11-25
show 180 2026-11-30
week 25 2026-12-01`
	if got := d.written(g); got != want {
		t.Errorf("got\n%s\nwant\n%s", got, want)
	}
	if at := plan.MinuteOf(time.Date(2026, 11, 24, 14, 0, 0, 0, time.UTC)); !slices.Equal(g.Busy, []plan.Stretch{{From: at, To: at + 45}}) {
		t.Errorf("busy %v", g.Busy)
	}
	if got := d.written(plan.Gather(d.desk, d.clock, term.WorkingHours, 30, day.MustDate("2026-11-24"))); got != "late 15 2026-11-20" {
		t.Errorf("due by today: %s", got)
	}
	if got := plan.WorkOf(d.desk, d.todo(saw), 30); got != (plan.Work{Minutes: 20}) {
		t.Errorf("%+v", got)
	}
	if got := plan.CupOf(d.desk, d.clock, d.todo(saw)); got != day.MustHorizon("2026-11-25") {
		t.Errorf("what stands under a planned one lies on %v", got)
	}
	d.clock.Now = d.clock.Now.AddDate(0, 0, 10)
	if got := plan.CupOf(d.desk, d.clock, d.todo(saw)); got != day.MustHorizon("2026-12-04") {
		t.Errorf("a plan that is past lies on %v", got)
	}
}

// For the days up to one there is the work of what is planned for them, for a week that begins by
// then, or due by then and planned for no time.
func TestGatherUntil(t *testing.T) {
	d := newDesk(t)
	for _, c := range []struct{ title, due, planned string }{
		{"planned", "", "2026-11-26"}, {"planned later", "", "2026-11-27"}, {"planned later, due", "2026-11-25", "2026-11-27"},
		{"due", "2026-11-26", ""}, {"due later", "2026-11-27", ""}, {"due much later", "2026-12-24", ""},
		{"parked, due", "2026-11-26", "parked"}, {"parked, due later", "2026-11-27", "parked"}, {"parked", "", "parked"},
		{"this week", "", "2026-W48"}, {"next week", "", "2026-W49"}, {"this month", "", "2026-11"},
		{"at a time", "", "2026-11-26T14:00/PT30M"}, {"at a time later", "", "2026-11-27T14:00/PT30M"}, {"over", "2026-11-25", "2026-11-24T08:00/PT60M"},
	} {
		d.put(c.title, 20, c.due, c.planned, book.ID{})
	}
	d.deep(d.put("deep", 20, "2026-11-26", "", book.ID{}))
	g := plan.GatherUntil(d.desk, d.clock, term.WorkingHours, 30, day.MustDate("2026-11-26"))
	var titles []string
	for i, t := range g.Todos {
		if titles = append(titles, t.Title); g.Jobs[i].Deep != (t.Title == "deep") {
			titles = append(titles, "which is deep")
		}
	}
	slices.Sort(titles)
	if got := strings.Join(titles, "; "); got != "deep; due; over; parked, due; planned; this week" || len(g.Busy) != 1 {
		t.Errorf("%s; busy %v", got, g.Busy)
	}
	sunday := plan.GatherUntil(d.desk, d.clock, term.WorkingHours, 30, day.MustDate("2026-11-30"))
	if got := d.written(sunday); !strings.Contains(got, "next week") || !strings.Contains(got, "this month") {
		t.Errorf("up to a Monday: %s", got)
	}
}

// What is due in the small hours of the day after the last, before a day begins, is due on the last.
func TestGatherUntilADayThatBeginsAtFour(t *testing.T) {
	d := newDesk(t)
	d.clock.DayStart = 4 * time.Hour
	for _, due := range []string{"2026-11-26", "2026-11-27T03:59", "2026-11-27T04:00", "2026-11-27", "2026-11-28T03:59"} {
		d.put(due, 20, due, "", book.ID{})
	}
	var titles []string
	for _, t := range plan.GatherUntil(d.desk, d.clock, term.WorkingHours, 30, day.MustDate("2026-11-26")).Todos {
		titles = append(titles, t.Title)
	}
	slices.Sort(titles)
	if want := []string{"2026-11-26", "2026-11-27T03:59"}; !slices.Equal(titles, want) {
		t.Errorf("by the 26th are due %q, want %q", titles, want)
	}
}

// A due at the very end of the days that are reckoned is within them.
func TestSlackAtTheEnd(t *testing.T) {
	d := newDesk(t)
	last := d.put("last", 20, "2026-11-26", "", book.ID{})
	after := d.put("after", 20, "2026-11-27", "", book.ID{})
	k := plan.NewCapacity(d.clock, plan.Calendar{}, nil, 3) // no hours: each due is the end of its day
	slacks := plan.NewSlacks(k, d.desk, 30)
	for id, known := range map[book.ID]bool{last: true, after: false} {
		todo := d.todo(id)
		s, ok := plan.SlackOf(k, d.desk, todo, todo.Due, 0, 30)
		minutes, has := slacks.Spare(d.desk, todo)
		if ok != known || has != known || known && (s.Spare != -20 || minutes != -20) {
			t.Errorf("%s: %+v, %t; %d, %t", todo.Title, s, ok, minutes, has)
		}
	}
}

// What stands under a paused to-do is work like any other, and no more than the whole has.
func TestWorkUnderAPausedOne(t *testing.T) {
	d := newDesk(t)
	whole := d.put("whole", 100, "2026-11-25", "", book.ID{})
	daily := d.put("daily", 20, "2026-11-24", "", whole)
	d.put("part", 60, "", "", daily)
	d.do(book.ChangeRule{ID: daily, Rule: repeat.MustParse("FREQ=DAILY")})
	d.do(book.Pause{ID: daily})
	if got := plan.WorkOf(d.desk, d.todo(whole), 30); got.Minutes != 40 {
		t.Errorf("beside its parts the whole has %d minutes", got.Minutes)
	}
	if s, ok := plan.SlackOf(d.capacity(), d.desk, d.todo(whole), d.todo(whole).Due, 0, 30); !ok || s.Work != 100 || s.Spare != 800 {
		t.Errorf("%+v, %t", s, ok)
	}
}

// A subtask that is due at a time behind the hours of a day is due with what it is under, which is
// due on the day.
func TestSlackBehindTheHours(t *testing.T) {
	d := newDesk(t)
	whole := d.put("whole", 0, "2026-11-24", "", book.ID{})
	part := d.put("part", 60, "2026-11-24T22:00", "", whole)
	slacks := plan.NewSlacks(d.capacity(), d.desk, 30)
	for _, id := range []book.ID{whole, part} {
		todo := d.todo(id)
		one, ok := plan.SlackOf(d.capacity(), d.desk, todo, todo.Due, 0, 30)
		if all, known := slacks.Spare(d.desk, todo); !ok || !known || one.Spare != 390 || all != 390 {
			t.Errorf("%s: %d, %t; with all others %d, %t", todo.Title, one.Spare, ok, all, known)
		}
	}
}

// Slack is the work time until a due less all that is due by then.
func TestSlack(t *testing.T) {
	d := newDesk(t)
	label := d.put("label", 120, "2026-11-25", "", book.ID{})
	d.put("call", 30, "2026-11-24T10:00", "", book.ID{})
	d.put("late", 60, "2026-11-20", "", book.ID{})
	d.put("later", 500, "2026-11-26", "", book.ID{})
	loose := d.put("loose", 0, "", "", book.ID{})
	for _, c := range []struct {
		id      book.ID
		due     string
		minutes int
		words   string
	}{
		// Two days of 7 h 30, less 2 h, 30 min and the hour that is late.
		{label, "2026-11-25", 0, "2 h of work, 11 h 30 to spare"},
		{label, "2026-11-25", 810, "13 h 30 of work, nothing to spare"},
		{label, "2026-11-25", 900, "15 h of work; needs 1 h 30 outside your working hours"},
		{label, "2026-11-24T17:30", 600, "10 h of work; only 8 h 30 left until it is due"},
		{label, "2026-11-24T10:00", 0, "2 h of work; only 1 h left until it is due"},
		{label, "2026-11-24", 370, "6 h 10 of work; needs 10 min outside your working hours"},
		{loose, "2026-11-26", 0, "30 min of work (all of it assumed), 10 h 10 to spare"},
		{loose, "2026-11-23", 0, ""}, {loose, "", 0, ""}, {loose, "2029-01-01", 0, ""},
	} {
		var due day.Moment
		if err := due.UnmarshalText([]byte(c.due)); err != nil {
			t.Fatal(err)
		}
		s, ok := plan.SlackOf(d.capacity(), d.desk, d.todo(c.id), due, c.minutes, 30)
		if ok != (c.words != "") || ok && s.Words() != c.words {
			t.Errorf("due %s, %d minutes: %q, %t; want %q", c.due, c.minutes, s.Words(), ok, c.words)
		}
	}
	project := d.put("project", 0, "2026-12-04", "", book.ID{})
	d.put("part", 45, "", "", project)
	d.put("other part", 0, "2026-11-30", "", project)
	if s, ok := plan.SlackOf(d.capacity(), d.desk, d.todo(project), d.todo(project).Due, 0, 30); !ok || s.Work != 75 {
		t.Errorf("a project has the work of its parts, not %+v, %t", s, ok)
	}
}

func TestDayFitWords(t *testing.T) {
	one, four := []string{"Label text"}, []string{"a", "b", "c", "d"}
	for want, fit := range map[string]plan.DayFit{
		"":                          {Left: 60},
		"4 h of work, 5 h 20 left.": {Work: 240, Left: 320},
		"1 h of work, 1 h left.":    {Work: 60, Left: 60},
		"4 h 10 of work (30 min assumed), 3 h 05 left: 1 h 05 more than the day holds.":          {Work: 250, Assumed: 30, Left: 185},
		"30 min of work (all of it assumed), no working hours left.":                             {Work: 30, Assumed: 30},
		"2 h of work, 1 h left; “Label text” would be late.":                                     {Work: 120, Left: 60, Late: one},
		"2 h of work, 1 h left; “a”, “b” and “c” would be late.":                                 {Work: 120, Left: 60, Late: four[:3]},
		"2 h of work, 1 h left; “a”, “b” and 2 more would be late.":                              {Work: 120, Left: 60, Late: four},
		"1 h of work, no working hours left; “Label text” needs 1 h outside your working hours.": {Work: 60, Outside: one, Beyond: 60},
		"3 h of work, 1 h left; “a” would be late, and “b” and “c” need 45 min outside your working hours.": {Work: 180, Left: 60, Late: four[:1],
			Outside: four[1:3], Beyond: 45},
		"In own hours: 1 h of work, no own hours left; “Label text” needs 1 h outside your own hours.": {Kind: term.OwnHours, Work: 60, Outside: one, Beyond: 60},
	} {
		if got := fit.Words(); got != want {
			t.Errorf("%q; want %q", got, want)
		}
	}
}
