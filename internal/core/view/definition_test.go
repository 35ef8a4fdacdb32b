package view_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/question"
	"tincup/internal/core/repeat"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// randomLife is a random Book with something of everything in it.
func randomLife(t testing.TB, r *rand.Rand, c day.Clock) *book.Desk {
	s := randomShelf(t, r, c.Today(), 60)
	s.clock = &c
	who := s.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	var top book.ID
	for _, todo := range slices.SortedFunc(s.desk.All(), func(a, b *book.Todo) int { return strings.Compare(a.Title, b.Title) }) {
		id := todo.ID
		if !todo.Open() {
			continue
		}
		minutes := r.IntN(200)
		s.do(book.Edit{ID: id, Estimate: &minutes})
		switch r.IntN(9) {
		case 0:
			s.do(book.Edit{ID: id, Person: &book.Involved{ID: who, Role: book.Role(1 + r.IntN(3))}})
		case 1, 2:
			if !top.IsZero() {
				s.do(book.Move{ID: id, Parent: top})
				continue
			}
		case 3:
			if n := countAnew(s.desk, c).Handful; n < 5 {
				s.do(book.Pick{ID: id})
			}
		case 4:
			s.do(book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=WEEKLY")})
			s.do(book.Pause{ID: id})
			continue
		case 5:
			if todo.Plan.IsZero() && todo.Parent.IsZero() && !s.desk.HasSubtasks(id) {
				note := true
				s.do(book.Edit{ID: id, IsNote: &note})
				continue
			}
		case 6:
			s.do(book.Tagging{ID: id, Add: []string{fmt.Sprintf("tag%d", r.IntN(3)), fmt.Sprintf("tag%d/sub", r.IntN(3))}})
		}
		top = id
	}
	return s.desk
}

// Every shipped view holds what its definition says, at every hour of odd days
// in odd zones.
func TestShippedViewsAreFilters(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 2))
	zones := []string{"UTC", "Europe/Lisbon", "America/New_York", "Australia/Lord_Howe", "America/Havana"}
	rows := map[view.Name]int{}
	for round := range 120 {
		clock := clockAt(t, zones[round%len(zones)], "2026-01-01T00:00:00", time.Duration(r.IntN(7))*time.Hour)
		clock.Now = clock.Now.Add(time.Duration(r.IntN(365*24*60)) * time.Minute)
		b := randomLife(t, r, clock)
		for _, name := range []view.Name{view.Cup, view.Today, view.Overdue, view.Upcoming, view.WithinAWeek, view.Ready, view.Waiting,
			view.Projects, view.Open, view.Done} {
			d, ok := view.Shipped(name)
			if !ok {
				t.Fatalf("%s has no definition", name)
			}
			held, err := d.Holds(b, clock)
			if err != nil {
				t.Fatal(err)
			}
			var want []string
			for _, todo := range held {
				want = append(want, todo.Title)
			}
			got := titlesOf(mustAsk(t, b, clock, name))
			slices.Sort(got)
			slices.Sort(want)
			if !slices.Equal(got, want) {
				t.Fatalf("seed %d, round %d, %s at %v, day from %v:\nshown %v\nby its definition %v", seed, round, name, clock.Wall(), clock.DayStart, got, want)
			}
			rows[name] += len(got)
			if s := d.Sentence(b); !strings.HasSuffix(s, ".") || strings.Contains(s, "gone") {
				t.Errorf("%s reads %q", name, s)
			}
		}
	}
	for name, n := range rows {
		if n < 120 {
			t.Errorf("%s held only %d in all", name, n)
		}
	}
}

func define(t testing.TB, text string) view.Definition {
	t.Helper()
	d, err := view.ParseDefinition([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	return d
}

// However it is grouped and ordered, a view holds each to-do once, in a group
// that it belongs to, siblings by their keys with the empty ones last.
func TestGroupingsAndKeys(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 3))
	for round := range 60 {
		clock := clockAt(t, "Europe/Lisbon", "2026-11-24T09:10:00", 0)
		b := randomLife(t, r, clock)
		for _, group := range []string{"", "due", "plan", "priority", "list", "shelf", "tag", "person", "status", "estimate"} {
			order := []string{"priority", "-due", "start", "-estimate", "plan", "title", "-title", "created", "changed", "own"}[r.IntN(10)]
			d := define(t, fmt.Sprintf(`{"filter":{"field":"status","op":"any-of","values":["needs-action","in-process","completed"]},"group":%q,"order":[%q,"title"]}`, group, order))
			res, err := view.Ask(b, clock, view.Query{Of: d, Limit: 1000})
			if err != nil {
				t.Fatal(err)
			}
			held, _ := d.Holds(b, clock)
			seen := map[book.ID]string{}
			for _, g := range res.Groups {
				checkGroup(t, b, clock, group, order, g, seen)
			}
			if len(seen) != len(held) || res.Total != len(held) {
				t.Fatalf("seed %d, round %d, by %s: %d rows of %d, total %d", seed, round, group, len(seen), len(held), res.Total)
			}
		}
	}
}

func checkGroup(t *testing.T, b *book.Desk, c day.Clock, group, order string, g view.Group, seen map[book.ID]string) {
	t.Helper()
	before, under := map[book.ID]*book.Todo{}, map[book.ID][]*book.Todo{}
	stack := []book.ID{}
	for _, row := range g.Rows {
		todo := row.Todo
		if _, twice := seen[todo.ID]; twice {
			t.Errorf("by %s: %s stands twice", group, todo.Title)
		}
		seen[todo.ID] = string(g.Kind)
		if !belongs(b, c, group, g, todo) {
			t.Errorf("by %s: %+v stands in %s %q %v", group, todo, g.Kind, g.Title(b), g.Horizon)
		}
		stack = append(stack[:row.Depth], todo.ID)
		parent := book.ID{}
		if row.Depth > 0 {
			parent = stack[row.Depth-1]
		}
		under[parent] = append(under[parent], todo)
		if last := before[parent]; last != nil && !inOrder(order, last, todo) {
			t.Errorf("by %s: %+v stands before %+v", order, last, todo)
		}
		before[parent] = todo
	}
	var work func(id book.ID) int
	work = func(id book.ID) (sum int) {
		for _, todo := range under[id] {
			sum += max(int(todo.Estimate), work(todo.ID))
		}
		return sum
	}
	if minutes := work(book.ID{}); g.Count != len(g.Rows) || g.Minutes != minutes {
		t.Errorf("by %s: %s counts %d rows of %d, %d minutes; want %d", group, g.Kind, g.Count, len(g.Rows), g.Minutes, minutes)
	}
}

// belongs says word by word what a group may hold.
func belongs(b *book.Desk, c day.Clock, group string, g view.Group, t *book.Todo) bool {
	late := t.Open() && !t.Due.IsZero() && c.Instant(t.Due).Before(c.Now)
	switch group {
	case "due":
		switch g.Kind {
		case view.WithoutDue:
			return t.Due.IsZero()
		case view.Late:
			return late
		}
		on := t.Due.Date
		if t.Due.HasTime() {
			on = c.DayOf(c.Instant(t.Due))
		}
		return !late && g.Horizon == day.OnDay(on)
	case "plan":
		switch g.Kind {
		case view.Unplanned:
			return t.Plan.IsZero()
		case view.Parked:
			return t.Plan.Precision() == day.Parked
		case view.CarriedOver:
			return t.Open() && t.Plan.Past(c.Today())
		}
		return g.Horizon.First() == t.Plan.First() && g.Horizon.Precision() == t.Plan.Precision()
	case "priority":
		return g.Word() == t.Priority.String()
	case "status":
		return g.Word() == t.Status.String()
	case "list":
		return g.Of == t.List
	case "shelf":
		l, err := b.List(t.List)
		return err != nil && g.Title(b) == "The Cup" || err == nil && l.Shelf == g.Of
	case "tag":
		names := []string{}
		for _, id := range t.Tags {
			tag, _ := b.Tag(id)
			names = append(names, tag.Name)
		}
		slices.Sort(names)
		return len(names) == 0 && g.Kind == view.Untagged || len(names) > 0 && g.Title(b) == names[0]
	case "person":
		return g.Of == t.Person.ID
	case "estimate":
		word, e := g.Word(), int(t.Estimate)
		return map[string]bool{"15": e > 0 && e <= 15, "30": e > 15 && e <= 30, "60": e > 30 && e <= 60, "120": e > 60 && e <= 120, "more": e > 120, "0": e == 0}[word]
	}
	return g.Kind == view.All
}

func inOrder(key string, a, b *book.Todo) bool {
	name, back := strings.CutPrefix(key, "-")
	of := func(t *book.Todo) (value string, none bool) {
		switch name {
		case "priority":
			return fmt.Sprint(9 - t.Priority), false
		case "due":
			at := t.Due.String()
			if len(at) == 10 {
				at += "T99" // a time of the day stands before none
			}
			return at, t.Due.IsZero()
		case "start":
			return t.Start.String(), t.Start.IsZero()
		case "estimate":
			return fmt.Sprintf("%05d", t.Estimate), t.Estimate == 0
		case "plan":
			return t.Plan.First().String(), t.Plan.First().IsZero()
		case "title":
			return t.Title, false
		case "created", "changed":
			at := map[string]day.Timestamp{"created": t.Created, "changed": t.Changed}[name]
			return fmt.Sprintf("%020d", at), false
		}
		return string(t.Position), false
	}
	x, noX := of(a)
	y, noY := of(b)
	switch {
	case noX || noY:
		return noY
	case back:
		return x >= y
	}
	return x <= y
}

func TestTwoByTwo(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026
	put := func(title string, p book.Priority, due, plan string) {
		c := book.Capture{Title: title, Priority: p}
		if due != "" {
			c.Due = day.MustMoment(due)
		}
		if plan != "" {
			c.Plan = day.MustHorizon(plan)
		}
		f.put(c)
	}
	put("both", book.High, "2026-11-27", "")
	put("late", book.Medium, "2026-11-01", "")
	put("planned", book.Low, "", "2026-W48")
	put("far", book.High, "2026-11-28", "")
	put("parked", book.Medium, "", "parked")
	put("plain", book.NoPriority, "2026-12-24", "2026-12")
	q := view.Query{Of: define(t, `{"shape":"two-by-two"}`), Limit: 100}
	res, err := view.Ask(f.desk, f.clock(), q)
	if err != nil {
		t.Fatal(err)
	}
	got := ""
	for _, g := range res.Groups {
		got += g.Word() + ":"
		for _, r := range g.Rows {
			got += " " + r.Todo.Title
		}
		got += "\n"
	}
	if want := "important-urgent: both late\nimportant: far parked\nurgent: planned\nneither: plain\n"; got != want {
		t.Errorf("%s; want %s", got, want)
	}
	q.UrgentDays = 4
	if res, _ = view.Ask(f.desk, f.clock(), q); res.Groups[0].Count != 3 {
		t.Errorf("within four days %d are important and urgent; want 3", res.Groups[0].Count)
	}
}

// Any view is narrowed, grouped and ordered anew without leaving it.
func TestNarrowed(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	f.put(book.Capture{Title: "a call", Due: day.MustMoment("2026-11-24"), Tags: []string{"calls"}, Estimate: 20})
	f.put(book.Capture{Title: "late call", Due: day.MustMoment("2026-11-20"), Tags: []string{"calls/short"}, List: list, Estimate: 5})
	f.put(book.Capture{Title: "other", Due: day.MustMoment("2026-11-24"), Tags: []string{"ask"}})
	tag := f.desk.Tags()
	slices.SortFunc(tag, func(a, b *book.Tag) int { return strings.Compare(a.Name, b.Name) })
	calls := filter.Must(fmt.Sprintf(`{"field":"tag","op":"any-of","values":["%s"]}`, tag[1].ID))
	compare(t, f.show(view.Query{Of: view.Today, Narrow: calls}), `
overdue  1
  late call
due-today  1
  a call
`)
	compare(t, f.show(view.Query{Of: view.Today, Narrow: calls, Group: view.GroupByList}), `
in-list  1
  a call
in-list  1
  late call
`)
	compare(t, f.show(view.Query{Of: view.Today, Group: view.GroupByPriority, Order: []view.Key{{By: view.ByTitle, Back: true}}}), `
priority  3
  other
  late call
  a call
`)
	id := f.put(book.Capture{Title: "done call", Tags: []string{"calls"}})
	f.do(book.Complete{ID: id})
	compare(t, f.show(view.Query{Of: view.Done, Narrow: calls}), `
day 2026-11-24 1
  done call
`)
}

func TestDefinitionText(t *testing.T) {
	f := fill(t)
	f.put(book.Capture{Title: "x", Tags: []string{"calls"}})
	tag := f.desk.Tags()[0].ID.String()
	for text, want := range map[string]string{
		`{}`: "Everything open.",
		`{"filter":{"field":"tag","op":"any-of","values":["` + tag + `"]},"group":"list","order":["due","-title"]}`:   "Open, and tagged calls. Grouped by list, ordered by due, then title, from the end of the alphabet.",
		`{"filter":{"any":[{"field":"overdue","op":"yes"},{"field":"plan","op":"parked"}]},"order":["-due"]}`:         "Open, and (overdue, or parked). Ordered by due, the last first.",
		`{"filter":{"all":[{"any":[{"field":"overdue","op":"yes"},{"field":"plan","op":"parked"}]}]}}`:                "Open, and (overdue, or parked).",
		`{"filter":{"field":"status","op":"any-of","values":["completed"]},"shape":"two-by-two","urgentDays":5}`:      "Completed.",
		`{"filter":{"all":[{"field":"due","op":"within-next","days":7},{"field":"repeating","op":"no"}]},"group":""}`: "Open, and due within the next 7 days, and not repeating.",
	} {
		d := define(t, text)
		if got := d.Sentence(f.desk); got != want {
			t.Errorf("%s reads %q; want %q", text, got, want)
		}
		again, err := json.Marshal(d)
		if err != nil || define(t, string(again)).Sentence(f.desk) != want {
			t.Errorf("%s is written as %s, %v", text, again, err)
		}
	}
	for text, field := range map[string]string{
		`[]`:                 "filter",
		`{"group":"colour"}`: "group",
		`{"order":["size"]}`: "order",
		`{"order":["due","title","start","plan","own"]}`: "order",
		`{"shape":"round"}`: "shape",
		`{"urgentDays":61}`: "urgentDays",
		`{"filter":{"all":[]},"x":"` + strings.Repeat("x", view.MaxDefinition) + `"}`: "filter",
	} {
		var wrong *view.FieldError
		if _, err := view.ParseDefinition([]byte(text)); !errors.As(err, &wrong) || wrong.Field != field || !strings.HasSuffix(wrong.Reason, ".") {
			t.Errorf("%.60s: %v; want it to name %s", text, err, field)
		}
	}
	var wrong *question.ParseError
	if _, err := view.ParseDefinition([]byte(`{"filter":{"all":[{"field":"nope","op":"yes"}]}}`)); !errors.As(err, &wrong) || wrong.Path != "/all/0/field" {
		t.Errorf("%v", err)
	}
}
