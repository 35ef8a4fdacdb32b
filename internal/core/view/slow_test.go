package view_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// slow reads the model's table of views word by word, one to-do at a time,
// with instants and no shortcuts.
type slow struct{ day.Clock }

func (s slow) dueDay(t *book.Todo) (day.Date, bool) {
	if t.Due.IsZero() {
		return day.Date{}, false
	}
	if t.Due.HasTime() {
		return s.DayOf(s.Instant(t.Due)), true
	}
	return t.Due.Date, true
}

func (s slow) planDays(t *book.Todo) (first, last day.Date, ok bool) {
	if t.Plan.IsZero() || t.Plan.Precision() == day.Parked {
		return first, last, false
	}
	if at, _ := t.Plan.Slot(); !at.IsZero() {
		d := s.DayOf(s.Instant(day.Moment{Date: t.Plan.First(), Time: at}))
		return d, d, true
	}
	return t.Plan.First(), t.Plan.Last(), true
}

func (s slow) late(t *book.Todo) bool {
	d, ok := s.dueDay(t)
	return ok && (d.Before(s.Today()) || t.Due.HasTime() && s.Instant(t.Due).Before(s.Now))
}

func (s slow) today(t *book.Todo) string {
	now := s.Today()
	due, hasDue := s.dueDay(t)
	first, last, planned := s.planDays(t)
	waits := t.Start.After(now)
	switch {
	case s.late(t):
		return "overdue"
	case hasDue && due == now:
		return "due-today"
	case planned && last == now && !waits:
		return "planned-today"
	case planned && last.Before(now) && !waits:
		return "carried-over"
	case !t.Start.IsZero() && !waits && !(planned && first.After(now)) && t.Plan.Precision() != day.Parked:
		return "can-start"
	}
	return ""
}

func (s slow) upcoming(t *book.Todo) string {
	now := s.Today()
	due, hasDue := s.dueDay(t)
	first, last, planned := s.planDays(t)
	coarse := t.Plan.Precision() == day.Week || t.Plan.Precision() == day.Month
	if planned && coarse && !first.After(now) && !last.Before(now) {
		return map[day.Precision]string{day.Week: "this-week ", day.Month: "this-month "}[t.Plan.Precision()] + t.Plan.String()
	}
	var at day.Date
	head := ""
	if hasDue && due.After(now) {
		at, head = due, "day "+due.String()
	}
	if planned && first.After(now) && (at.IsZero() || !first.After(at)) {
		at, head = first, "day "+first.String()
		if coarse {
			head = map[day.Precision]string{day.Week: "week ", day.Month: "month "}[t.Plan.Precision()] + t.Plan.String()
		}
	}
	if t.Plan.IsZero() && !hasDue && t.Start.After(now) {
		at, head = t.Start, "day "+t.Start.String()
	}
	switch {
	case at.IsZero() || at.After(now.AddDays(56)):
		return ""
	case strings.HasPrefix(head, "day ") && at.After(now.AddDays(14)):
		noon, err := time.Parse(time.DateOnly, at.String())
		if err != nil {
			return err.Error()
		}
		year, week := noon.ISOWeek()
		return fmt.Sprintf("week %d-W%02d", year, week)
	}
	return head
}

func (s slow) within(t *book.Todo) string {
	due, ok := s.dueDay(t)
	switch {
	case s.late(t):
		return "overdue"
	case ok && !due.After(s.Today().AddDays(7)):
		return "day " + due.String()
	}
	return ""
}

func (s slow) cup(t *book.Todo) string {
	switch {
	case !t.List.IsZero():
		return ""
	case !t.Start.IsZero() || !t.Due.IsZero() || !t.Plan.IsZero():
		return "laid-by"
	case t.Person.Role == book.WaitingOn:
		return "people-and-notes"
	}
	return "to-sort"
}

func (s slow) overdue(t *book.Todo) string {
	if s.late(t) {
		return "overdue"
	}
	return ""
}

// Random Books, clocks and zones: every view holds exactly what the slow
// reading says, in the groups it says, in the order of a group.
func TestViewsAgainstSlowReading(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 1))
	zones := []string{"UTC", "Europe/Lisbon", "America/New_York", "Australia/Lord_Howe", "America/Havana"}
	for round := range 150 {
		zone := zones[r.IntN(len(zones))]
		clock := clockAt(t, zone, "2026-01-01T00:00:00", time.Duration(r.IntN(7))*time.Hour)
		clock.Now = clock.Now.Add(time.Duration(r.IntN(365*24*60)) * time.Minute)
		b := randomBook(t, r, clock.Today(), 60)
		s := slow{clock}
		for name, rule := range map[view.Name]func(*book.Todo) string{view.Today: s.today, view.Upcoming: s.upcoming,
			view.WithinAWeek: s.within, view.Cup: s.cup, view.Overdue: s.overdue} {
			want := slowAnswer(b, rule)
			if got := setsOf(t, mustAsk(t, b, clock, name)); got != want {
				t.Fatalf("seed %d, round %d, %s, %v in %s, day from %v:\n got %s\nwant %s", seed, round, name,
					clock.Wall(), zone, clock.DayStart, got, want)
			}
		}
		checkSurvey(t, b, s)
	}
}

func checkSurvey(t *testing.T, b *book.Desk, s slow) {
	t.Helper()
	survey := countAnew(b, s.Clock)
	counts := map[view.Name]int{}
	cups := map[string]int{}
	for _, todo := range b.Open() {
		for name, rule := range map[view.Name]func(*book.Todo) string{view.Today: s.today, view.Overdue: s.overdue, view.WithinAWeek: s.within} {
			if rule(todo) != "" {
				counts[name]++
			}
		}
		if s.cup(todo) == "to-sort" {
			counts[view.Cup]++
		}
		if first, _, ok := s.planDays(todo); ok && todo.Plan.Precision() == day.Day {
			cups[first.String()]++
		} else if !todo.Plan.IsZero() {
			cups[todo.Plan.String()]++
		} else if due, ok := s.dueDay(todo); ok {
			cups[due.String()]++
		}
	}
	for name, want := range counts {
		if survey.Counts[name] != want {
			t.Errorf("the badge of %s is %d; want %d", name, survey.Counts[name], want)
		}
	}
	for _, cup := range survey.Rail {
		if cup.Count != cups[cup.Horizon.String()] {
			t.Errorf("the cup %v holds %d; want %d", cup.Horizon, cup.Count, cups[cup.Horizon.String()])
		}
	}
}

func slowAnswer(b *book.Desk, rule func(*book.Todo) string) string {
	groups := map[string][]string{}
	for _, todo := range b.Open() {
		if g := rule(todo); g != "" {
			groups[g] = append(groups[g], todo.Title)
		}
	}
	return writeSets(groups)
}

func setsOf(t *testing.T, res *view.Result) string {
	t.Helper()
	groups := map[string][]string{}
	total := 0
	for _, g := range res.Groups {
		key := string(g.Kind)
		if !g.Horizon.IsZero() {
			key += " " + g.Horizon.String()
		}
		for i, row := range g.Rows {
			groups[key] = append(groups[key], row.Todo.Title)
			slotted := func(i int) bool { at, _ := g.Rows[i].Todo.Plan.Slot(); return !at.IsZero() }
			if i > 0 && !slotted(i) && !slotted(i-1) && g.Rows[i-1].Todo.Priority < row.Todo.Priority {
				t.Errorf("%s: priority %v stands above %v", key, g.Rows[i-1].Todo.Priority, row.Todo.Priority)
			}
		}
		if g.Count != len(g.Rows) {
			t.Errorf("%s counts %d and has %d rows", key, g.Count, len(g.Rows))
		}
		total += g.Count
	}
	if total != res.Total {
		t.Errorf("the total is %d of %d", res.Total, total)
	}
	return writeSets(groups)
}

func writeSets(groups map[string][]string) string {
	var lines []string
	for g, titles := range groups {
		slices.Sort(titles)
		lines = append(lines, g+": "+strings.Join(titles, " "))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n     ")
}

func randomBook(t testing.TB, r *rand.Rand, today day.Date, size int) *book.Desk {
	return randomShelf(t, r, today, size).desk
}

func randomShelf(t testing.TB, r *rand.Rand, today day.Date, size int) *shelf {
	s := newShelf(t)
	list := s.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	near := func() day.Date { return today.AddDays(r.IntN(80) - 20) }
	clockTime := func() string { return fmt.Sprintf("%02d:%02d", r.IntN(24), r.IntN(60)) }
	for i := range size {
		due, plan, start := "", "", ""
		dueDay := near()
		switch r.IntN(3) {
		case 0:
			due = dueDay.String()
		case 1:
			due = dueDay.String() + "T" + clockTime()
		}
		switch r.IntN(7) {
		case 0, 1:
			plan = near().String()
		case 2:
			plan = near().String() + "T" + clockTime() + "/PT30M"
		case 3:
			plan = day.InWeek(near()).String()
		case 4:
			plan = day.InMonth(near()).String()
		case 5:
			plan = "parked"
		}
		if r.IntN(3) == 0 {
			start = dueDay.AddDays(-r.IntN(20)).String()
		}
		id := s.add(fmt.Sprintf("t%03d", i), due, plan, start)
		priority := book.Priority(r.IntN(4))
		s.do(book.Edit{ID: id, Priority: &priority})
		if r.IntN(2) == 0 {
			s.do(book.Move{ID: id, List: list})
		}
		switch r.IntN(8) {
		case 0:
			s.do(book.Complete{ID: id})
		case 1:
			s.do(book.Delete{ID: id})
		}
	}
	return s
}

func TestDoneByDay(t *testing.T) {
	s := newShelf(t)
	for i, at := range []string{"2026-11-23T23:30:00", "2026-11-24T00:30:00", "2026-11-24T05:00:00", "2026-11-20T12:00:00"} {
		id := s.add(fmt.Sprintf("t%d", i), "", "", "")
		s.now = clockAt(t, "Europe/Lisbon", at, 0).Now
		if i == 2 {
			s.do(book.Cancel{ID: id})
		} else {
			s.do(book.Complete{ID: id})
		}
	}
	for dayStart, want := range map[time.Duration]string{
		0:             "day 2026-11-24: t1, t2; day 2026-11-23: t0; day 2026-11-20: t3",
		4 * time.Hour: "day 2026-11-24: t2; day 2026-11-23: t1, t0; day 2026-11-20: t3",
	} {
		clock := clockAt(t, "Europe/Lisbon", "2026-11-24T09:00:00", dayStart)
		if got := groupsOf(t, s.desk, clock, view.Query{Of: view.Done}); got != want {
			t.Errorf("with a day from %v: %q; want %q", dayStart, got, want)
		}
	}
}

// Page by page, Done gives each row once, in one order, under its day.
func TestDonePageByPage(t *testing.T) {
	s := newShelf(t)
	for i := range 40 {
		id := s.add(fmt.Sprintf("t%02d", i), "", "", "")
		s.now = time.Date(2026, 11, 1+i/7, 8+i%7, 0, 0, 0, time.UTC)
		s.do(book.Complete{ID: id})
	}
	clock := clockAt(t, "UTC", "2026-11-24T09:00:00", 0)
	var titles []string
	for offset := 0; offset < 40; offset += 9 {
		res, err := view.Ask(s.desk, clock, view.Query{Of: view.Done, Offset: offset, Limit: 9})
		if err != nil || res.Total != 40 {
			t.Fatalf("rows from %d: %+v, %v", offset, res, err)
		}
		for _, g := range res.Groups {
			for _, r := range g.Rows {
				if got := clock.DayOf(r.Todo.Completed.Time()); day.OnDay(got) != g.Horizon || g.Count > 7 {
					t.Errorf("%s of %v stands under %v, which counts %d", r.Todo.Title, got, g.Horizon, g.Count)
				}
				titles = append(titles, r.Todo.Title)
			}
		}
	}
	if want := mustAsk(t, s.desk, clock, view.Done); len(titles) != 40 || slices.Compare(titles, titlesOf(want)) != 0 {
		t.Errorf("page by page: %v\nat once: %v", titles, titlesOf(want))
	}
}

func titlesOf(res *view.Result) (titles []string) {
	for _, g := range res.Groups {
		for _, r := range g.Rows {
			titles = append(titles, r.Todo.Title)
		}
	}
	return titles
}
