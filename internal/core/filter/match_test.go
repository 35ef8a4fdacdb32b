package filter_test

import (
	"encoding/json"
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

// slow evaluates a filter's JSON on a to-do in the most obvious way.
type slow struct {
	s     *small
	today day.Date
	// What is around the to-do: it is the only open subtask of a project, and has
	// one of its own, which is open.
	inProject, hasSub bool
}

// fakeSlack takes the slack of a to-do from its revision, which nothing else looks at here.
type fakeSlack struct{ clock day.Clock }

func (r fakeSlack) Spare(_ *book.Desk, t *book.Todo) (minutes int, known bool) {
	if t.Revision == 0 || !t.Open() || t.IsNote || r.clock.Passed(t.Due) {
		return 0, false
	}
	return int(t.Revision) - 1000, true
}

func (e slow) holds(n map[string]any, t *book.Todo) bool {
	if subs, ok := n["all"].([]any); ok {
		for _, sub := range subs {
			if !e.holds(sub.(map[string]any), t) {
				return false
			}
		}
		return true
	}
	if subs, ok := n["any"].([]any); ok {
		for _, sub := range subs {
			if e.holds(sub.(map[string]any), t) {
				return true
			}
		}
		return false
	}
	if sub, ok := n["not"].(map[string]any); ok {
		return !e.holds(sub, t)
	}
	return e.test(n, t)
}

func (e slow) test(n map[string]any, t *book.Todo) bool {
	op := n["op"].(string)
	var values []string
	if list, ok := n["values"].([]any); ok {
		for _, v := range list {
			values = append(values, v.(string))
		}
	}
	one := func(of string) bool {
		if op == "none" {
			return of == ""
		}
		return slices.Contains(values, of)
	}
	number := func(name string) int { f, _ := n[name].(float64); return int(f) }
	flag := func(is bool) bool { return is == (op == "yes") }
	open := !t.IsNote && (t.Status == book.NeedsAction || t.Status == book.InProcess)
	switch n["field"] {
	case "text":
		return strings.Contains(strings.ToLower(t.Title), strings.ToLower(n["text"].(string)))
	case "place":
		if op == "none" {
			return t.Place == ""
		}
		return strings.Contains(strings.ToLower(t.Place), strings.ToLower(n["text"].(string)))
	case "section":
		return one(t.Section.String())
	case "planned-past-due":
		return flag(!t.Due.IsZero() && !t.Plan.IsZero() && t.Plan.Precision() != day.Parked && t.Plan.First().Sub(t.Due.Date) > 0)
	case "attachment":
		return flag(len(t.Attachments) > 0)
	case "has-subtasks":
		return flag(e.hasSub)
	case "next-action":
		waits := t.Person.Role == book.WaitingOn
		later := t.Plan.Precision() == day.Parked || !t.Plan.IsZero() && t.Plan.First().Sub(e.today) > 0
		notYet := !t.Start.IsZero() && t.Start.Sub(e.today) > 0
		return flag(e.inProject && !t.Parent.IsZero() && !e.hasSub && open && !(t.Repeat != nil && !t.Repeat.Paused.IsZero()) && !waits && !later && !notYet)
	case "created":
		on := day.DateOf(t.Created.Time())
		return e.days(n, on, on, false, "")
	case "list":
		return one(t.List.String())
	case "shelf":
		l, err := e.s.desk.List(t.List)
		return err == nil && one(l.Shelf.String())
	case "tag":
		has := map[string]bool{}
		for _, id := range t.Tags {
			has[id.String()] = true
			if id == e.s.meetings {
				has[e.s.work.String()] = true
			}
		}
		n := 0
		for _, v := range values {
			if has[v] {
				n++
			}
		}
		return map[string]bool{"any-of": n > 0, "all-of": n == len(values), "none-of": n == 0, "none": len(has) == 0}[op]
	case "priority":
		return one([]string{"none", "low", "medium", "high"}[t.Priority])
	case "status":
		return !t.IsNote && one([]string{"needs-action", "in-process", "completed", "cancelled"}[t.Status])
	case "kind":
		return one(map[bool]string{true: "note", false: "to-do"}[t.IsNote])
	case "person":
		return one(t.Person.ID.String())
	case "role":
		return one(map[book.Role]string{book.Ask: "ask", book.WaitingOn: "waiting on", book.For: "for"}[t.Person.Role])
	case "slack":
		spare, known := fakeSlack{e.s.clock()}.Spare(nil, t)
		return map[string]bool{"at-most": known && spare <= number("minutes"), "at-least": known && spare >= number("minutes"), "none": !known}[op]
	case "at-risk":
		spare, known := fakeSlack{e.s.clock()}.Spare(nil, t)
		return flag(known && spare < 0)
	case "estimate":
		return map[string]bool{"at-most": t.Estimate > 0 && int(t.Estimate) <= number("minutes"), "at-least": int(t.Estimate) >= number("minutes"),
			"none": t.Estimate == 0}[op]
	case "overdue":
		late := !t.Due.IsZero() && (t.Due.Date.Before(e.today) || t.Due.Date == e.today && t.Due.HasTime() && t.Due.String()[11:] < "09:10")
		return flag(late && open)
	case "repeating":
		return flag(t.Repeat != nil)
	case "paused":
		return flag(t.Repeat != nil && !t.Repeat.Paused.IsZero() && open)
	case "is-subtask":
		return flag(!t.Parent.IsZero())
	case "in-handful":
		return flag(t.Handful == e.today)
	case "due":
		return e.days(n, t.Due.Date, t.Due.Date, t.Due.IsZero(), t.Due.Time.String())
	case "start":
		return e.days(n, t.Start, t.Start, t.Start.IsZero(), "")
	case "completed":
		on := day.Date{}
		if t.Completed != 0 {
			on = day.DateOf(t.Completed.Time())
		}
		return e.days(n, on, on, t.Completed == 0, "")
	case "plan":
		at, _ := t.Plan.Slot()
		return e.days(n, t.Plan.First(), t.Plan.Last(), t.Plan.IsZero(), at.String())
	}
	panic(fmt.Sprint("no field ", n["field"]))
}

func (e slow) days(n map[string]any, first, last day.Date, none bool, at string) bool {
	when := func(name string) day.Date {
		s, _ := n[name].(string)
		if d, err := day.ParseDate(s); err == nil {
			return d
		}
		days := 0
		fmt.Sscanf(strings.TrimPrefix(s, "-"), "P%dD", &days)
		if strings.HasPrefix(s, "-") {
			days = -days
		}
		return e.today.AddDays(days)
	}
	if n["op"] == "none" {
		return none
	}
	if n["op"] == "parked" {
		return !none && first.IsZero()
	}
	if first.IsZero() {
		return false
	}
	within, _ := n["days"].(float64)
	// Every day from the first to the last is looked at.
	some := func(f func(day.Date) bool) bool {
		for d := first; !d.After(last); d = d.AddDays(1) {
			if f(d) {
				return true
			}
		}
		return false
	}
	all := func(f func(day.Date) bool) bool { return !some(func(d day.Date) bool { return !f(d) }) }
	switch n["op"] {
	case "before":
		return all(func(d day.Date) bool { return d.Sub(when("date")) < 0 })
	case "after":
		return all(func(d day.Date) bool { return d.Sub(when("date")) > 0 })
	case "on":
		return some(func(d day.Date) bool { return d == when("date") })
	case "within-next":
		return some(func(d day.Date) bool { return d.Sub(e.today) >= 0 && d.Sub(e.today) <= int(within) })
	case "within-past":
		return some(func(d day.Date) bool { return e.today.Sub(d) >= 0 && e.today.Sub(d) <= int(within) })
	case "between":
		return some(func(d day.Date) bool { return d.Sub(when("date")) >= 0 && d.Sub(when("to")) <= 0 })
	}
	return at != "" && at >= n["from"].(string) && at <= n["until"].(string)
}

// todo makes a random one, near to what random tests ask for.
func (r random) todo() *book.Todo {
	today := day.MustDate("2026-11-24")
	near := func() day.Date { return today.AddDays(r.IntN(9) - 4) }
	t := &book.Todo{ID: book.ID{0: 7, 15: 1}, Title: "x " + pick(r, "", "Lamp", "lamp oil", "oil"), List: pick(r, book.ID{}, r.s.loans, r.s.labels, r.s.otherList),
		Priority: book.Priority(r.IntN(4)), IsNote: r.IntN(3) == 0, Estimate: pick[int32](r, 0, 5, 10, 30, 60), Created: day.TimestampOf(r.s.now.AddDate(0, 0, -r.IntN(6))), Place: pick(r, "", "", "Museum", "the museum shed", "shed")}
	switch t.List {
	case r.s.loans:
		t.Section = pick(r, book.ID{}, r.s.section)
	case r.s.labels:
		t.Section = pick(r, book.ID{}, r.s.otherSection)
	}
	if r.IntN(2) == 0 {
		t.Attachments = []book.Attachment{{Name: "a.png"}}
	}
	for _, tag := range []book.ID{r.s.work, r.s.meetings, r.s.calls} {
		if r.IntN(3) == 0 {
			t.Tags = append(t.Tags, tag)
		}
	}
	if t.Status = book.Status(r.IntN(4)); !t.Status.Open() {
		t.Completed = day.TimestampOf(r.s.now.AddDate(0, 0, -r.IntN(4)))
	}
	if r.IntN(3) > 0 {
		t.Person = book.Involved{ID: pick(r, r.s.ines, r.s.abel, r.s.otherPerson), Role: book.Ask + book.Role(r.IntN(3))}
	}
	times := []string{"", "", "T08:00", "T09:30", "T10:00", "T16:59", "T18:00"}
	if r.IntN(4) > 0 {
		t.Due = day.MustMoment(near().String() + pick(r, times...))
	}
	if r.IntN(3) > 0 {
		t.Start = near()
	}
	switch r.IntN(7) {
	case 0:
		t.Plan = day.InWeek(near())
	case 1:
		t.Plan = day.InMonth(near())
	case 2:
		t.Plan = day.SomeTime()
	case 3:
	default:
		at := pick(r, times...)
		if at != "" {
			at += "/PT30M"
		}
		t.Plan = day.MustHorizon(near().String() + at)
	}
	if r.IntN(2) == 0 {
		t.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")}
		if r.IntN(2) == 0 {
			t.Repeat.Paused = today
		}
	}
	if r.IntN(2) == 0 {
		t.Parent = book.ID{0: 8}
	}
	if r.IntN(2) == 0 {
		t.Handful = today
	}
	if r.IntN(4) > 0 {
		t.Revision = 1000 + pick[int64](r, -30, 0, 5, 10, 25, 30, 40)
	}
	return t
}

func TestMatchAgainstTheObvious(t *testing.T) {
	seed := seed.New(t)
	s := newSmall(t)
	truths := map[string][2]int{} // by field, of filters of one test
	for i := range share(100_000) {
		r := random{rand.New(rand.NewPCG(seed, uint64(i))), s, allFields}
		packed := pack(t, r.node(i%4))
		var tree map[string]any
		if err := json.Unmarshal(packed, &tree); err != nil {
			t.Fatal(err)
		}
		todo := r.todo()
		e := slow{s: s, today: day.MustDate("2026-11-24")}
		around := []*book.Todo{todo}
		if e.inProject = r.IntN(4) > 0; e.inProject {
			around = append(around, &book.Todo{ID: book.ID{0: 8}, Title: "project", Created: 1})
		}
		if e.hasSub = r.IntN(3) == 0; e.hasSub {
			around = append(around, &book.Todo{ID: book.ID{0: 6}, Title: "sub", Parent: todo.ID, Position: "a0", Created: 1})
		}
		b := s.desk
		if strings.Contains(string(packed), "next-action") || strings.Contains(string(packed), "has-subtasks") {
			b = s.with(around...)
		}
		got, err := parse(t, "%s", packed).Matcher(b.With(book.MemoryNotes{}, fakeSlack{s.clock()}), s.clock(), s.ready).Match(todo)
		if err != nil {
			t.Fatal(err)
		}
		if want := e.holds(tree, todo); got != want {
			t.Fatalf("seed %d, pair %d: %v; the obvious answer is %v\n%s\n%+v", seed, i, got, want, packed, todo)
		}
		if field, ok := tree["field"].(string); ok {
			counts := truths[field]
			if got {
				counts[1]++
			} else {
				counts[0]++
			}
			truths[field] = counts
		}
	}
	for field, n := range truths {
		if share := 100 * n[1] / (n[0] + n[1]); share < 20 || share > 80 {
			t.Errorf("%s is true of %d %%", field, share)
		}
	}
	if len(truths) < 25 {
		t.Errorf("only %d fields were asked for", len(truths))
	}
}
