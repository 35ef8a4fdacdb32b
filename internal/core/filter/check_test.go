package filter_test

import (
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/repeat"
)

var seedFlag = flag.Uint64("seed", 0, "seed of the random filters; 0 takes one from the clock")

// small is a Book with the names of a small world: three tags, nested, two
// lists, two people.
type small struct {
	book, parent                              *book.Book // in parent the tried to-do has a subtask
	now                                       time.Time
	ids                                       int
	work, meetings, calls, loans, labels      book.ID
	shelf, ines, abel, otherTag, otherList    book.ID
	otherPerson, section, otherShelf, strange book.ID
	thirdList                                 book.ID
}

func newSmall(t testing.TB) *small {
	s := &small{book: book.New(book.MemoryNotes{}), now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC)}
	s.shelf = s.do(t, book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	s.otherShelf = s.do(t, book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	s.loans = s.do(t, book.AddList{Name: "Loans", Shelf: s.shelf}).Lists[0].After.ID
	s.labels = s.do(t, book.AddList{Name: "Labels", Shelf: s.shelf}).Lists[0].After.ID
	s.otherList = s.do(t, book.AddList{Name: "Flat", Shelf: s.otherShelf}).Lists[0].After.ID
	third := s.do(t, book.AddShelf{Name: "Choir and people"}).Shelves[0].After.ID
	s.thirdList = s.do(t, book.AddList{Name: "Choir", Shelf: third}).Lists[0].After.ID
	s.section = s.do(t, book.AddSection{List: s.loans, Name: "Papers"}).Sections[0].After.ID
	s.ines = s.do(t, book.AddPerson{Name: "Ines"}).People[0].After.ID
	s.abel = s.do(t, book.AddPerson{Name: "Abel"}).People[0].After.ID
	s.otherPerson = s.do(t, book.AddPerson{Name: "Marta"}).People[0].After.ID
	s.do(t, book.Capture{Title: "x", Tags: []string{"work", "work/meetings", "calls", "other"}})
	for _, tag := range s.book.Tags() {
		*map[string]*book.ID{"work": &s.work, "work/meetings": &s.meetings, "calls": &s.calls, "other": &s.otherTag}[tag.Name] = tag.ID
	}
	s.strange = book.ID{0: 9}
	s.parent = book.New(book.MemoryNotes{})
	rows := &book.Change{Todos: []book.Diff[book.Todo]{{After: &book.Todo{ID: book.ID{0: 6}, Title: "sub", Parent: book.ID{0: 7}, Position: "a0"}}}}
	for _, l := range s.book.Lists() {
		rows.Lists = append(rows.Lists, book.Diff[book.List]{After: l})
	}
	for _, tag := range s.book.Tags() {
		rows.Tags = append(rows.Tags, book.Diff[book.Tag]{After: tag})
	}
	s.parent.Load(1, rows)
	return s
}

func (s *small) do(t testing.TB, cmd book.Command) *book.Change {
	t.Helper()
	c, err := s.book.Do(book.Env{Clock: s.clock(), NewID: func() book.ID { s.ids++; return book.ID{14: 1, 15: byte(s.ids)} }}, cmd)
	if err != nil {
		t.Fatal(err)
	}
	s.book.Apply(c)
	return c
}

func (s *small) clock() day.Clock { return day.Clock{Now: s.now, Zone: time.UTC} }

func parse(t testing.TB, format string, args ...any) filter.Filter {
	t.Helper()
	f, err := filter.Parse(fmt.Appendf(nil, format, args...))
	if err != nil {
		t.Fatalf(format+": %v", append(args, err)...)
	}
	return f
}

// Cases by name, from what people save and then find empty.
func TestCheckByName(t *testing.T) {
	s := newSmall(t)
	tag := func(op string, ids ...book.ID) string {
		var q []string
		for _, id := range ids {
			q = append(q, `"`+id.String()+`"`)
		}
		return fmt.Sprintf(`{"field":"tag","op":"%s","values":[%s]}`, op, strings.Join(q, ","))
	}
	const untagged, repeats, plain = `{"field":"tag","op":"none"}`, `{"field":"repeating","op":"yes"}`, `{"field":"repeating","op":"no"}`
	person := fmt.Sprintf(`{"field":"person","op":"any-of","values":["%s"]}`, s.ines)
	for _, c := range []struct {
		name, json   string
		verdict, now filter.Verdict
		because      string
	}{
		{"tagged and untagged", `{"all":[` + tag("any-of", s.calls) + `,` + untagged + `,{"field":"due","op":"within-next","days":7}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"due before today and within the next week", `{"all":[{"field":"due","op":"before","date":"P0D"},{"field":"due","op":"within-next","days":7}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"repeating and not", `{"all":[` + repeats + `,{"field":"priority","op":"any-of","values":["high"]},` + plain + `]}`, filter.Never, filter.Never, "/all/0 /all/2"},
		{"a parent tag out, its child wanted", `{"all":[{"not":` + tag("any-of", s.work) + `},` + tag("all-of", s.meetings) + `]}`, filter.Never, filter.Never, "/all/0/not /all/1"},
		{"a child tag out, its parent wanted", `{"all":[` + tag("none-of", s.meetings) + `,` + tag("any-of", s.work) + `]}`, filter.Possible, filter.Possible, ""},
		{"both halves of everything", `{"any":[` + repeats + `,` + plain + `]}`, filter.Always, filter.Always, "/any/0 /any/1"},
		{"with one person or unassigned", `{"any":[` + person + `,{"field":"person","op":"none"}]}`, filter.Possible, filter.Possible, ""},
		{"parked and planned on a day", `{"all":[{"field":"plan","op":"none"},{"field":"plan","op":"on","date":"P0D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"parked, and planned for a day", `{"all":[{"field":"plan","op":"parked"},{"field":"plan","op":"after","date":"P0D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"parked or not", `{"any":[{"field":"plan","op":"parked"},{"not":{"field":"plan","op":"parked"}}]}`, filter.Always, filter.Always, "/any/0 /any/1/not"},
		{"neither planned on a day nor without a plan", `{"all":[{"not":{"field":"plan","op":"none"}},{"not":{"field":"plan","op":"before","date":"P0D"}},{"not":{"field":"plan","op":"after","date":"-P1D"}}]}`,
			filter.Possible, filter.Possible, ""}, // parked, or a week that holds both days
		{"a closed next action", `{"all":[{"field":"next-action","op":"yes"},{"field":"status","op":"any-of","values":["completed","cancelled"]}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"overdue and due tomorrow", `{"all":[{"field":"overdue","op":"yes"},{"field":"due","op":"on","date":"P1D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"overdue and due today", `{"all":[{"field":"overdue","op":"yes"},{"field":"due","op":"on","date":"P0D"}]}`, filter.Possible, filter.Possible, ""},
		{"overdue and without a due", `{"all":[{"field":"overdue","op":"yes"},{"field":"due","op":"none"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"completed and needs action", `{"all":[{"field":"completed","op":"within-past","days":7},{"field":"status","op":"any-of","values":["needs-action"]}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"put in tomorrow", `{"field":"created","op":"after","date":"P0D"}`, filter.Never, filter.Never, ""},
		{"in the Cup and on a shelf", fmt.Sprintf(`{"all":[{"field":"list","op":"none"},{"field":"shelf","op":"any-of","values":["%s"]}]}`, s.shelf), filter.Never, filter.Never, "/all/0 /all/1"},
		{"in a list of another shelf", fmt.Sprintf(`{"all":[{"field":"list","op":"any-of","values":["%s"]},{"field":"shelf","op":"any-of","values":["%s"]}]}`, s.loans, s.otherShelf), filter.Never, filter.Never, "/all/0 /all/1"},
		{"in a list that is gone", `{"field":"list","op":"any-of","values":["09000000-0000-0000-0000-000000000000"]}`, filter.Never, filter.Never, ""},
		{"not in a list that is gone", `{"not":{"field":"list","op":"any-of","values":["09000000-0000-0000-0000-000000000000"]}}`, filter.Always, filter.Always, "/not"},
		{"with and without a word of it", `{"all":[{"field":"text","op":"contains","text":"Lamp oil"},{"not":{"field":"text","op":"contains","text":"lamp"}}]}`, filter.Never, filter.Never, "/all/0 /all/1/not"},
		{"with a word and without more of it", `{"all":[{"field":"text","op":"contains","text":"lamp"},{"not":{"field":"text","op":"contains","text":"lamp oil"}}]}`, filter.Possible, filter.Possible, ""},
		{"a start after the due", `{"all":[{"field":"start","op":"after","date":"P3D"},{"field":"due","op":"before","date":"P3D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a fixed day that is past, and ahead", `{"all":[{"field":"due","op":"on","date":"2026-11-20"},{"field":"due","op":"after","date":"P0D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a fixed day to come: not today, but one day", `{"all":[{"field":"due","op":"on","date":"2026-12-24"},{"field":"due","op":"within-next","days":3}]}`, filter.Possible, filter.Never, "/all/0 /all/1"},
		{"a fixed day ahead: today always behind it", `{"any":[{"field":"due","op":"none"},{"not":{"field":"due","op":"after","date":"2026-12-24"}},{"field":"due","op":"after","date":"P3D"}]}`, filter.Possible, filter.Always, "/any/1/not /any/2"},
		{"at most ten minutes and at least twenty", `{"all":[{"field":"estimate","op":"at-most","minutes":10},{"field":"estimate","op":"at-least","minutes":20}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"due at a time, on a day without", `{"all":[{"field":"due","op":"time-between","from":"09:00","until":"10:00"},{"field":"due","op":"none"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a note that is paused", `{"all":[{"field":"kind","op":"any-of","values":["note"]},{"field":"paused","op":"yes"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a week that holds today and five days on", `{"all":[{"field":"plan","op":"on","date":"P0D"},{"field":"plan","op":"on","date":"P5D"}]}`, filter.Possible, filter.Possible, ""},
		{"nothing", `{"any":[]}`, filter.Never, filter.Never, ""},
		{"everything", `{"all":[]}`, filter.Always, filter.Always, ""},
	} {
		f := parse(t, "%s", c.json)
		a := f.Check(s.book, s.clock())
		because := strings.Join(a.Because, " ")
		if c.because == "" && a.Verdict != filter.Possible && len(a.Because) == 1 {
			because = "" // one test alone
		}
		if a.Verdict != c.verdict || a.Now != c.now || because != c.because {
			t.Errorf("%s: %s, now %s, because of %q; want %s, %s, %q\n%s", c.name, a.Verdict, a.Now, because, c.verdict, c.now, c.because, f.Sentence(s.book))
		}
	}
}

// random makes filters over the small world.
type random struct {
	*rand.Rand
	s      *small
	fields []string
}

var allFields = []string{"tag", "tag", "list", "shelf", "priority", "due", "due", "plan", "plan", "start", "status", "kind", "person", "role",
	"estimate", "text", "overdue", "repeating", "paused", "has-subtasks", "is-subtask", "in-handful", "completed"}

func (r random) node(depth int) any {
	if depth > 0 && r.IntN(3) > 0 {
		switch r.IntN(5) {
		case 0:
			return map[string]any{"not": r.node(depth - 1)}
		case 1, 2:
			return map[string]any{"any": r.nodes(depth - 1)}
		}
		return map[string]any{"all": r.nodes(depth - 1)}
	}
	return r.test()
}

func (r random) nodes(depth int) []any {
	out := []any{}
	for range 1 + r.IntN(3) {
		out = append(out, r.node(depth))
	}
	return out
}

func pick[T any](r random, of ...T) T { return of[r.IntN(len(of))] }

func (r random) some(of ...string) []string {
	out := []string{of[r.IntN(len(of))]}
	if r.IntN(2) == 0 {
		if next := of[r.IntN(len(of))]; next != out[0] {
			out = append(out, next)
		}
	}
	return out
}

func (r random) date() string {
	if r.IntN(5) == 0 {
		return fmt.Sprintf("2026-11-%02d", 22+r.IntN(6))
	}
	if n := r.IntN(7) - 3; n < 0 {
		return fmt.Sprintf("-P%dD", -n)
	} else {
		return fmt.Sprintf("P%dD", n)
	}
}

func (r random) test() any {
	s := r.s
	field := pick(r, r.fields...)
	t := map[string]any{"field": field}
	switch field {
	case "tag":
		if t["op"] = pick(r, "any-of", "all-of", "none-of", "none"); t["op"] != "none" {
			t["values"] = r.some(s.work.String(), s.meetings.String(), s.calls.String())
		}
	case "list":
		if t["op"] = pick(r, "any-of", "any-of", "none"); t["op"] != "none" {
			t["values"] = r.some(s.loans.String(), s.labels.String(), s.strange.String())
		}
	case "shelf":
		t["op"], t["values"] = "any-of", r.some(s.shelf.String(), s.otherShelf.String())
	case "priority":
		t["op"], t["values"] = "any-of", r.some("none", "low", "medium", "high")
	case "status":
		t["op"], t["values"] = "any-of", r.some("needs-action", "in-process", "completed", "cancelled")
	case "kind":
		t["op"], t["values"] = "any-of", []string{pick(r, "to-do", "note")}
	case "role":
		t["op"], t["values"] = "any-of", r.some("ask", "waiting on", "for")
	case "person":
		if t["op"] = pick(r, "any-of", "none"); t["op"] != "none" {
			t["values"] = r.some(s.ines.String(), s.abel.String())
		}
	case "estimate":
		if t["op"] = pick(r, "at-most", "at-least", "none"); t["op"] != "none" {
			t["minutes"] = pick(r, 10, 30)
		}
	case "text":
		t["op"], t["text"] = "contains", pick(r, "lamp", "lamp oil", "oil")
	case "due", "plan", "start", "completed":
		op := pick(r, "before", "after", "on", "within-next", "within-past", "between", "none", "time-between", "parked")
		if op == "parked" && field != "plan" {
			op = "none"
		}
		if op == "time-between" && (field == "start" || field == "completed") {
			op = "none"
		}
		t["op"] = op
		switch op {
		case "before", "after", "on":
			t["date"] = r.date()
		case "within-next", "within-past":
			t["days"] = r.IntN(4)
		case "between":
			t["date"], t["to"] = "-P2D", pick(r, "P0D", "P3D")
		case "time-between":
			t["from"], t["until"] = "09:00", pick(r, "10:00", "17:00")
		}
	default:
		t["op"] = pick(r, "yes", "no")
	}
	return t
}

// Check against brute force: the verdict for today is what trying every to-do
// of a small world finds, and the set to blame is irreducible.
func TestCheckAgainstBruteForce(t *testing.T) {
	seed := *seedFlag
	if seed == 0 {
		seed = uint64(time.Now().UnixNano())
	}
	t.Logf("seed %d", seed)
	s := newSmall(t)
	counts := map[filter.Verdict]int{}
	const filters = 20_000
	done := 0
	for i := 0; done < filters; i++ {
		r := random{rand.New(rand.NewPCG(seed, uint64(i))), s, nil}
		for range 1 + r.IntN(3) { // few fields, so that tests meet
			r.fields = append(r.fields, pick(r, allFields...))
		}
		packed, err := json.Marshal(r.node(1 + r.IntN(3)))
		if err != nil {
			t.Fatal(err)
		}
		f := parse(t, "%s", packed)
		w := newBrute(s, packed)
		if w.tooLarge {
			continue
		}
		done++
		a := f.Check(s.book, s.clock())
		counts[a.Now]++
		if a.Now == filter.NotDecided {
			continue
		}
		if want := w.verdict(f); a.Now != want {
			t.Fatalf("seed %d, filter %d: %s, and brute force says %s\n%s\n%s", seed, i, a.Now, want, f.Sentence(s.book), packed)
		}
		if a.Verdict != a.Now && a.Verdict != filter.Possible && a.Verdict != filter.NotDecided {
			t.Fatalf("seed %d, filter %d: now %s and %s on every today\n%s", seed, i, a.Now, a.Verdict, packed)
		}
		if a.Now == filter.Possible || len(a.Because) == 0 {
			continue
		}
		if len(a.Because) > 0 && i%4 == 0 {
			w.checkBlame(t, packed, a)
		}
	}
	t.Logf("%d filters: %v", filters, counts)
	if counts[filter.NotDecided] > filters/100 {
		t.Errorf("%d were not decided", counts[filter.NotDecided])
	}
	for _, v := range []filter.Verdict{filter.Never, filter.Always} {
		if counts[v] < filters/200 {
			t.Errorf("only %d are %s", counts[v], v)
		}
	}
}

// brute tries every to-do that differs in what a filter asks about.
type brute struct {
	s     *small
	todos []*book.Todo
	books []*book.Book
	hours []int
	// tooLarge: there are too many to-dos to try.
	tooLarge bool
}

// newBrute makes the to-dos. Of what the filter does not ask about each has one
// value, save where something that holds of every to-do needs another.
func newBrute(s *small, packed []byte) *brute {
	asks := func(fields ...string) bool {
		return slices.ContainsFunc(fields, func(f string) bool { return strings.Contains(string(packed), `"`+f+`"`) })
	}
	w := &brute{s: s, books: []*book.Book{s.book}, hours: []int{9}}
	if asks("overdue") {
		w.hours = []int{0, 9, 10, 13, 23}
	}
	if asks("has-subtasks") {
		w.books = append(w.books, s.parent)
	}
	today := day.MustDate("2026-11-24")
	todos := []book.Todo{{ID: book.ID{0: 7}, Title: "ǂ", Created: 1}}
	vary := func(asked bool, sets ...func(*book.Todo)) {
		if !asked || w.tooLarge {
			return
		}
		if w.tooLarge = len(todos)*len(sets) > 20_000; w.tooLarge {
			return
		}
		var next []book.Todo
		for _, t := range todos {
			for _, set := range sets {
				v := t
				v.Tags = slices.Clone(t.Tags)
				set(&v)
				next = append(next, v)
			}
		}
		todos = next
	}
	same := func(*book.Todo) {}
	for _, tag := range []book.ID{s.work, s.meetings, s.calls, s.otherTag} {
		vary(asks("tag"), same, func(t *book.Todo) { t.Tags = append(t.Tags, tag) })
	}
	vary(asks("list", "shelf"), same, func(t *book.Todo) { t.List = s.loans }, func(t *book.Todo) { t.List = s.labels }, func(t *book.Todo) { t.List = s.otherList }, func(t *book.Todo) { t.List = s.thirdList })
	if asks("priority") {
		vary(true, same, func(t *book.Todo) { t.Priority = book.Low }, func(t *book.Todo) { t.Priority = book.Medium }, func(t *book.Todo) { t.Priority = book.High })
	}
	vary(asks("kind", "status", "overdue"), same, func(t *book.Todo) { t.IsNote = true })
	closing := []func(*book.Todo){same, func(t *book.Todo) { t.Status = book.InProcess }}
	for back := range 6 {
		for _, status := range []book.Status{book.Completed, book.Cancelled} {
			if back > 0 && !asks("completed") {
				continue
			}
			closing = append(closing, func(t *book.Todo) { t.Status, t.Completed = status, day.TimestampOf(s.now.AddDate(0, 0, -back)) })
		}
	}
	vary(asks("status", "overdue", "completed", "paused", "next-action"), closing...)
	var people []func(*book.Todo)
	for _, id := range []book.ID{s.ines, s.abel, s.otherPerson} {
		for role := book.Ask; role <= book.For; role++ {
			people = append(people, func(t *book.Todo) { t.Person = book.Involved{ID: id, Role: role} })
		}
	}
	vary(asks("person", "role"), append(people, same)...)
	vary(asks("estimate"), same, func(t *book.Todo) { t.Estimate = 5 }, func(t *book.Todo) { t.Estimate = 10 }, func(t *book.Todo) { t.Estimate = 20 },
		func(t *book.Todo) { t.Estimate = 30 }, func(t *book.Todo) { t.Estimate = 40 })
	for _, title := range []string{"lamp", "oil", "lamp oil"} {
		vary(asks("text"), same, func(t *book.Todo) { t.Title += "|" + title })
	}
	dues, plans, starts := []func(*book.Todo){same}, []func(*book.Todo){same, func(t *book.Todo) { t.Plan = day.SomeTime() }}, []func(*book.Todo){same}
	timed := strings.Contains(string(packed), "time-between") || asks("overdue")
	for n := -5; n <= 5; n++ {
		d := today.AddDays(n)
		starts = append(starts, func(t *book.Todo) { t.Start = d })
		for _, at := range []string{"", "08:00", "09:30", "12:00", "18:00"} {
			if at != "" && !timed {
				continue
			}
			dues = append(dues, func(t *book.Todo) {
				if t.Due.Date = d; at != "" {
					t.Due = day.MustMoment(d.String() + "T" + at)
				}
			})
			plans = append(plans, func(t *book.Todo) {
				if t.Plan = day.OnDay(d); at != "" {
					t.Plan = day.MustHorizon(d.String() + "T" + at + "/PT30M")
				}
			})
		}
		plans = append(plans, func(t *book.Todo) { t.Plan = day.InWeek(d) }, func(t *book.Todo) { t.Plan = day.InMonth(d) })
	}
	for _, far := range []int{-40, -20, 20, 40} {
		plans = append(plans, func(t *book.Todo) { t.Plan = day.InWeek(today.AddDays(far)) }, func(t *book.Todo) { t.Plan = day.InMonth(today.AddDays(far)) })
	}
	vary(asks("due", "overdue"), dues...)
	vary(asks("plan"), plans...)
	vary(asks("start"), starts...)
	once := &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")}
	vary(asks("repeating", "paused"), same, func(t *book.Todo) { t.Repeat = once })
	vary(asks("paused"), same, func(t *book.Todo) {
		if t.Repeat != nil {
			t.Repeat = &repeat.Repeat{Rule: once.Rule, Paused: today}
		}
	})
	vary(asks("is-subtask"), same, func(t *book.Todo) { t.Parent = book.ID{0: 8} })
	vary(asks("in-handful"), same, func(t *book.Todo) { t.Handful = today })
	for i := range todos {
		t := &todos[i]
		if t.IsNote && (t.Status != book.NeedsAction || t.Repeat != nil || !t.Handful.IsZero()) ||
			!t.Start.IsZero() && !t.Due.IsZero() && t.Start.After(t.Due.Date) {
			continue
		}
		w.todos = append(w.todos, t)
	}
	return w
}

// verdict tries every to-do, with subtasks and without where that is asked, with
// the clock at several times of the day.
func (w *brute) verdict(f filter.Filter) filter.Verdict {
	some, all := false, true
	for _, hour := range w.hours {
		c := w.s.clock()
		c.Now = time.Date(2026, 11, 24, hour, 15, 0, 0, time.UTC)
		for _, b := range w.books {
			m := f.Matcher(b, c, func(*book.Todo) bool { return true })
			for _, t := range w.todos {
				if t.IsNote && b.HasSubtasks(t.ID) {
					continue
				}
				matched, err := m.Match(t)
				if err != nil {
					panic(err)
				}
				if some, all = some || matched, all && matched; some && !all {
					return filter.Possible
				}
			}
		}
	}
	if some {
		return filter.Always
	}
	return filter.Never
}

// checkBlame replaces every test that is not to blame by what makes the verdict
// harder to reach, and finds it still reached; without any one of those to blame
// it is not.
func (w *brute) checkBlame(t *testing.T, packed []byte, a filter.Answer) {
	t.Helper()
	var tree any
	if err := json.Unmarshal(packed, &tree); err != nil {
		t.Fatal(err)
	}
	wanted := a.Now
	without := func(kept []string) filter.Filter {
		again, err := json.Marshal(replace(tree, "", kept, wanted == filter.Never))
		if err != nil {
			t.Fatal(err)
		}
		return parse(t, "%s", again)
	}
	if got := w.verdict(without(a.Because)); got != wanted {
		t.Fatalf("%s because of %v alone is %s; the filter is %s\n%s", wanted, a.Because, got, a.Verdict, packed)
	}
	for i := range a.Because {
		rest := slices.Concat(a.Because[:i], a.Because[i+1:])
		got := without(rest).Check(w.s.book, w.s.clock())
		if a.Verdict == wanted && got.Verdict == wanted || a.Verdict != wanted && got.Now == wanted {
			t.Fatalf("without %s it is still %s: %v is not irreducible\n%s", a.Because[i], wanted, a.Because, packed)
		}
	}
}

// replace puts what is weakest, or strongest, in the place of tests not kept.
func replace(tree any, path string, kept []string, positive bool) any {
	n := tree.(map[string]any)
	for _, group := range []string{"all", "any"} {
		if subs, ok := n[group].([]any); ok {
			out := []any{}
			for i, sub := range subs {
				out = append(out, replace(sub, fmt.Sprintf("%s/%s/%d", path, group, i), kept, positive))
			}
			return map[string]any{group: out}
		}
	}
	if sub, ok := n["not"]; ok {
		return map[string]any{"not": replace(sub, path+"/not", kept, !positive)}
	}
	switch {
	case slices.Contains(kept, path):
		return n
	case positive:
		return map[string]any{"all": []any{}}
	}
	return map[string]any{"any": []any{}}
}

// A filter of a hundred dated tests is too much to try on every day to come: that
// is said, and today's answer given all the same.
func TestCheckGivesUp(t *testing.T) {
	s := newSmall(t)
	var tests []string
	for i := range 50 {
		tests = append(tests, fmt.Sprintf(`{"field":"due","op":"before","date":"P%dD"},{"field":"plan","op":"after","date":"P%dD"}`, i, i))
	}
	f := parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`,{"field":"due","op":"after","date":"P900D"}]}`)
	a := f.Check(s.book, s.clock())
	if a.Verdict != filter.NotDecided || a.Now != filter.Never || len(a.Because) != 2 {
		t.Errorf("%+v", a)
	}
}
