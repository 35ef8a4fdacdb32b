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
	"tincup/internal/seed"
)

// small is a Book with the names of a small world: three tags, nested, two
// lists, two people.
type small struct {
	book                                      *book.Book
	desk                                      *book.Desk
	now                                       time.Time
	ids                                       int
	work, meetings, calls, loans, labels      book.ID
	shelf, ines, abel, otherTag, otherList    book.ID
	otherPerson, section, otherShelf, strange book.ID
	thirdList, otherSection, unnamedList      book.ID
	under                                     *book.Desk // in which the tried to-do has an open subtask
}

func newSmall(t testing.TB) *small {
	s := &small{now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC)}
	s.book, s.desk = book.Alone(book.MemoryNotes{})
	s.shelf = s.do(t, book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	s.otherShelf = s.do(t, book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	s.loans = s.do(t, book.AddList{Name: "Loans", Shelf: s.shelf}).Lists[0].After.ID
	s.labels = s.do(t, book.AddList{Name: "Labels", Shelf: s.shelf}).Lists[0].After.ID
	// Of those a filter may name, Loans and Labels are not all that is on their shelf.
	s.unnamedList = s.do(t, book.AddList{Name: "Visits", Shelf: s.shelf}).Lists[0].After.ID
	s.otherList = s.do(t, book.AddList{Name: "Flat", Shelf: s.otherShelf}).Lists[0].After.ID
	third := s.do(t, book.AddShelf{Name: "Choir and people"}).Shelves[0].After.ID
	s.thirdList = s.do(t, book.AddList{Name: "Choir", Shelf: third}).Lists[0].After.ID
	s.section = s.do(t, book.AddSection{List: s.loans, Name: "Papers"}).Sections[0].After.ID
	s.otherSection = s.do(t, book.AddSection{List: s.labels, Name: "Frames"}).Sections[0].After.ID
	s.ines = s.do(t, book.AddPerson{Name: "Ines"}).People[0].After.ID
	s.abel = s.do(t, book.AddPerson{Name: "Abel"}).People[0].After.ID
	s.otherPerson = s.do(t, book.AddPerson{Name: "Marta"}).People[0].After.ID
	s.do(t, book.Capture{Title: "x", Tags: []string{"work", "work/meetings", "calls", "other"}})
	for _, tag := range s.desk.Tags() {
		*map[string]*book.ID{"work": &s.work, "work/meetings": &s.meetings, "calls": &s.calls, "other": &s.otherTag}[tag.Name] = tag.ID
	}
	s.strange = book.ID{0: 9}
	s.under = s.with(&book.Todo{ID: book.ID{0: 6}, Title: "sub", Parent: book.ID{0: 7}, Position: "a0"})
	return s
}

func (s *small) do(t testing.TB, cmd book.Command) *book.Change {
	t.Helper()
	c, err := s.desk.Do(book.Env{Clock: s.clock(), NewID: func() book.ID { s.ids++; return book.ID{14: 1, 15: byte(s.ids)} }}, cmd)
	if err != nil {
		t.Fatal(err)
	}
	s.book.Apply(c)
	return c
}

// with is the small world with some to-dos in it.
func (s *small) with(todos ...*book.Todo) *book.Desk {
	b, desk := book.Alone(book.MemoryNotes{})
	rows := &book.Change{Actor: desk.Account()}
	for _, t := range todos {
		rows.Todos = append(rows.Todos, book.Diff[book.Todo]{After: t})
	}
	for _, l := range s.desk.Lists() {
		rows.Lists = append(rows.Lists, book.Diff[book.List]{After: l})
	}
	for _, tag := range s.desk.Tags() {
		rows.Tags = append(rows.Tags, book.Diff[book.Tag]{After: tag})
	}
	b.Load(1, rows)
	return desk
}

// ready tells what could be done on the small world's today, by the model's
// words for a next action.
func (s *small) ready(t *book.Todo) bool {
	today := s.clock().Today()
	return t.Open() && !t.Paused() && t.Person.Role != book.WaitingOn && !t.Start.After(today) &&
		(t.Plan.IsZero() || !t.Plan.First().IsZero() && !t.Plan.First().After(today))
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
		{"at risk with room to spare", `{"all":[{"field":"at-risk","op":"yes"},{"field":"slack","op":"at-least","minutes":1}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"at risk without a due ahead", `{"all":[{"field":"at-risk","op":"yes"},{"field":"slack","op":"none"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"at risk and late", `{"all":[{"field":"at-risk","op":"yes"},{"field":"overdue","op":"yes"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"at risk and completed", `{"all":[{"field":"at-risk","op":"yes"},{"field":"status","op":"any-of","values":["completed"]}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"at risk or some room or none", `{"any":[{"field":"at-risk","op":"yes"},{"field":"slack","op":"at-most","minutes":60},{"field":"slack","op":"at-least","minutes":61},{"field":"slack","op":"none"}]}`, filter.Always, filter.Always, "/any/1 /any/2 /any/3"},
		{"at risk and without a due of its own", `{"all":[{"field":"at-risk","op":"yes"},{"field":"due","op":"none"}]}`, filter.Possible, filter.Possible, ""},
		{"at most ten minutes and at least twenty", `{"all":[{"field":"estimate","op":"at-most","minutes":10},{"field":"estimate","op":"at-least","minutes":20}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"due at a time, on a day without", `{"all":[{"field":"due","op":"time-between","from":"09:00","until":"10:00"},{"field":"due","op":"none"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a note that is paused", `{"all":[{"field":"kind","op":"any-of","values":["note"]},{"field":"paused","op":"yes"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a week that holds today and five days on", `{"all":[{"field":"plan","op":"on","date":"P0D"},{"field":"plan","op":"on","date":"P5D"}]}`, filter.Possible, filter.Possible, ""},
		{"a next action that waits on someone", `{"all":[{"field":"next-action","op":"yes"},{"field":"role","op":"any-of","values":["waiting on"]}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a next action that is parked", `{"all":[{"field":"plan","op":"parked"},{"field":"next-action","op":"yes"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a next action planned for tomorrow or later", `{"all":[{"field":"next-action","op":"yes"},{"field":"plan","op":"after","date":"P0D"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a next action planned for a day that comes", `{"all":[{"field":"next-action","op":"yes"},{"field":"plan","op":"on","date":"2026-12-24"}]}`, filter.Possible, filter.Never, "/all/0 /all/1"}, // not today, but in December
		{"in a section, in the Cup", fmt.Sprintf(`{"all":[{"field":"section","op":"any-of","values":["%s"]},{"field":"list","op":"none"}]}`, s.section), filter.Never, filter.Never, "/all/0 /all/1"},
		{"in a section of another list", fmt.Sprintf(`{"all":[{"field":"section","op":"any-of","values":["%s"]},{"field":"list","op":"any-of","values":["%s"]}]}`, s.section, s.labels), filter.Never, filter.Never, "/all/0 /all/1"},
		{"with a word in its place, and without a place", `{"all":[{"field":"place","op":"contains","text":"shed"},{"field":"place","op":"none"}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"a longer place without a part of it", `{"all":[{"field":"place","op":"contains","text":"Museum shed"},{"not":{"field":"place","op":"contains","text":"museum"}}]}`, filter.Never, filter.Never, "/all/0 /all/1/not"},
		{"two words in a place", `{"all":[{"field":"place","op":"contains","text":"museum"},{"field":"place","op":"contains","text":"shed"}]}`, filter.Possible, filter.Possible, ""},
		{"closed after a day to come, and before today", `{"all":[{"field":"completed","op":"before","date":"P0D"},{"field":"completed","op":"after","date":"2026-11-25"}]}`, filter.Possible, filter.Never, "/all/1"},
		{"off a shelf, or in no section", fmt.Sprintf(`{"any":[{"not":{"field":"shelf","op":"any-of","values":["%s"]}},{"field":"section","op":"none"}]}`, s.otherShelf), filter.Possible, filter.Possible, ""},
		{"on the last of the next days alone", `{"all":[{"field":"due","op":"within-next","days":7},{"not":{"field":"due","op":"within-next","days":6}}]}`, filter.Possible, filter.Possible, ""},
		{"on the first of the past days alone", `{"all":[{"field":"due","op":"within-past","days":7},{"not":{"field":"due","op":"within-past","days":6}}]}`, filter.Possible, filter.Possible, ""},
		{"within the next days and not within more of them", `{"all":[{"field":"due","op":"within-next","days":6},{"not":{"field":"due","op":"within-next","days":7}}]}`, filter.Never, filter.Never, "/all/0 /all/1/not"},
		{"at midnight alone", `{"all":[{"field":"due","op":"time-between","from":"00:00","until":"23:59"},{"not":{"field":"due","op":"time-between","from":"00:01","until":"23:59"}}]}`, filter.Possible, filter.Possible, ""},
		{"before midnight alone", `{"all":[{"field":"due","op":"time-between","from":"00:00","until":"23:59"},{"not":{"field":"due","op":"time-between","from":"00:00","until":"23:58"}}]}`, filter.Possible, filter.Possible, ""},
		{"with time just enough, and not at risk", `{"all":[{"field":"at-risk","op":"no"},{"field":"slack","op":"at-most","minutes":1},{"not":{"field":"slack","op":"at-least","minutes":1}}]}`, filter.Possible, filter.Possible, ""},
		{"of no concentration, and deep", `{"all":[{"field":"concentration","op":"none"},{"field":"concentration","op":"any-of","values":["deep"]}]}`, filter.Never, filter.Never, "/all/0 /all/1"},
		{"of no concentration", `{"field":"concentration","op":"none"}`, filter.Possible, filter.Possible, ""},
		{"neither of a concentration nor of none", `{"not":{"any":[{"field":"concentration","op":"none"},{"field":"concentration","op":"any-of","values":["deep","light"]}]}}`, filter.Never, filter.Never, "/not/any/0 /not/any/1"},
		{"one alone behind two that are to blame too", `{"all":[` + repeats + `,` + plain + `,{"field":"list","op":"any-of","values":["09000000-0000-0000-0000-000000000000"]}]}`, filter.Never, filter.Never, "/all/2"},
		{"two behind three that are to blame too", `{"all":[{"field":"priority","op":"any-of","values":["high","medium"]},{"field":"priority","op":"any-of","values":["medium","low"]},{"field":"priority","op":"any-of","values":["low","high"]},` +
			repeats + `,` + plain + `]}`, filter.Never, filter.Never, "/all/3 /all/4"},
		{"one of two people, and next", `{"all":[` + person + `,{"field":"next-action","op":"yes"}]}`, filter.Possible, filter.Possible, ""},
		{"a letter that stands for what is between", `{"all":[{"field":"text","op":"contains","text":"ǂ"},{"not":{"field":"text","op":"contains","text":"ǃ"}}]}`, filter.Possible, filter.Possible, ""},
		{"not with it alone", `{"all":[{"field":"text","op":"contains","text":"a"},{"not":{"field":"text","op":"contains","text":"ǂ"}}]}`, filter.Possible, filter.Possible, ""},
		{"nothing", `{"any":[]}`, filter.Never, filter.Never, ""},
		{"everything", `{"all":[]}`, filter.Always, filter.Always, ""},
	} {
		f := parse(t, "%s", c.json)
		a := f.Check(s.desk, s.clock())
		because := strings.Join(a.Because, " ")
		if c.because == "" && a.Verdict != filter.Possible && len(a.Because) == 1 {
			because = "" // one test alone
		}
		if a.Verdict != c.verdict || a.Now != c.now || because != c.because {
			t.Errorf("%s: %s, now %s, because of %q; want %s, %s, %q\n%s", c.name, a.Verdict, a.Now, because, c.verdict, c.now, c.because, f.Sentence(s.desk))
		}
	}
}

// As many texts as can be told apart are; with one more, or longer ones than there is room for, it
// is said that nothing is decided.
func TestCheckOfManyTexts(t *testing.T) {
	s := newSmall(t)
	of := func(field, last string, n int) filter.Filter {
		var tests []string
		for i := range n {
			tests = append(tests, fmt.Sprintf(`{"field":%q,"op":"contains","text":"%c"}`, field, 'a'+i))
		}
		tests = append(tests, fmt.Sprintf(`{"not":{"field":%q,"op":"contains","text":%q}}`, field, last))
		return parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`]}`)
	}
	most := strings.Repeat("z", book.MaxPlace)
	for name, c := range map[string]struct {
		filter filter.Filter
		want   filter.Verdict
	}{
		"ten":              {of("text", "z", 9), filter.Possible},
		"eleven":           {of("text", "z", 10), filter.NotDecided},
		"as long as fits":  {of("place", most[:book.MaxPlace-4], 1), filter.Possible},
		"one letter more":  {of("place", most[:book.MaxPlace-3], 1), filter.NotDecided},
		"all of the place": {of("place", most, 1), filter.NotDecided},
	} {
		if a := c.filter.Check(s.desk, s.clock()); a.Verdict != c.want {
			t.Errorf("%s: %s; want %s", name, a.Verdict, c.want)
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
	"estimate", "text", "place", "overdue", "repeating", "paused", "has-subtasks", "is-subtask", "next-action", "in-handful", "completed",
	"created", "attachment", "section", "slack", "at-risk"}

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
	case "estimate", "slack":
		if t["op"] = pick(r, "at-most", "at-least", "none"); t["op"] != "none" {
			t["minutes"] = pick(r, 10, 30)
		}
	case "text":
		t["op"], t["text"] = "contains", pick(r, "lamp", "lamp oil", "oil")
	case "place":
		if t["op"] = pick(r, "contains", "contains", "none"); t["op"] != "none" {
			t["text"] = pick(r, "Museum", "museum shed", "shed")
		}
	case "section":
		if t["op"] = pick(r, "any-of", "any-of", "none"); t["op"] != "none" {
			t["values"] = r.some(s.section.String(), s.otherSection.String(), s.strange.String())
		}
	case "due", "plan", "start", "completed", "created":
		op := pick(r, "before", "after", "on", "within-next", "within-past", "between", "none", "time-between", "parked")
		if op == "parked" && field != "plan" {
			op = "none"
		}
		if op == "time-between" && field != "due" && field != "plan" {
			op = "none"
		}
		if op == "none" && field == "created" {
			op = "on"
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

var filters = flag.Float64("filters", 0.15, "share of the random filters of a full run")

// share is how many of a full run's are tried.
func share(full int) int { return int(float64(full) * *filters) }

// Check against brute force: the verdict for today is what trying every to-do
// of a small world finds, on two todays, of which one has the end of a month ahead;
// what is said of every today holds on the later one too; and the set to blame is
// irreducible.
func TestCheckAgainstBruteForce(t *testing.T) {
	seed := seed.New(t)
	s := newSmall(t)
	counts := map[filter.Verdict]int{}
	todays := [2]time.Time{s.now, time.Date(2026, 11, 27, 9, 10, 0, 0, time.UTC)}
	filters := share(20_000)
	done, asked := 0, map[string]int{}
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
		s.now = todays[i%2]
		w := newBrute(s, packed)
		if w.tooLarge {
			continue
		}
		done++
		for _, field := range allFields {
			if strings.Contains(string(packed), `"`+field+`"`) {
				asked[field]++
			}
		}
		a := f.Check(s.desk, s.clock())
		counts[a.Now]++
		if a.Now == filter.NotDecided {
			continue
		}
		if want := w.verdict(f); a.Now != want {
			t.Fatalf("seed %d, filter %d: %s, and brute force says %s\n%s\n%s", seed, i, a.Now, want, f.Sentence(s.desk), packed)
		}
		if a.Verdict != a.Now && a.Verdict != filter.Possible && a.Verdict != filter.NotDecided {
			t.Fatalf("seed %d, filter %d: now %s and %s on every today\n%s", seed, i, a.Now, a.Verdict, packed)
		}
		if a.Now == a.Verdict && a.Now != filter.Possible && i%2 == 0 {
			s.now = todays[1]
			if later := newBrute(s, packed).verdict(f); later != a.Verdict {
				t.Fatalf("seed %d, filter %d: %s on every today, and three days on it is %s\n%s\n%s", seed, i, a.Verdict, later, f.Sentence(s.desk), packed)
			}
			s.now = todays[0]
		}
		if a.Now == filter.Possible || len(a.Because) == 0 {
			continue
		}
		if len(a.Because) > 0 && i%4 == 0 {
			w.checkBlame(t, packed, a)
		}
	}
	t.Logf("%d filters: %v, asking %v", filters, counts, asked)
	for _, field := range allFields {
		if asked[field] < share(300) {
			t.Errorf("only %d ask for %s", asked[field], field)
		}
	}
	if counts[filter.NotDecided] > filters/100 {
		t.Errorf("%d were not decided", counts[filter.NotDecided])
	}
	for _, v := range []filter.Verdict{filter.Never, filter.Always} {
		if counts[v] < filters/200 {
			t.Errorf("only %d are %s", counts[v], v)
		}
	}
}

// Eight cards in seven drawers, each card in one and no drawer with two, is more
// than can be tried: that is said, and soon.
func TestCheckGivesUp(t *testing.T) {
	s := newSmall(t)
	const cards, drawers = 8, 7
	var names []string
	for i := range cards * drawers {
		names = append(names, fmt.Sprint("drawer-", i))
	}
	for some := range slices.Chunk(names, book.MaxTags) {
		s.do(t, book.Capture{Title: "x", Tags: some})
	}
	ids := map[string]string{}
	for _, tag := range s.desk.Tags() {
		ids[tag.Name] = `"` + tag.ID.String() + `"`
	}
	at := func(card, drawer int) string { return ids[fmt.Sprint("drawer-", card*drawers+drawer)] }
	var tests []string
	for card := range cards {
		var in []string
		for drawer := range drawers {
			in = append(in, at(card, drawer))
			for other := range card {
				tests = append(tests, fmt.Sprintf(`{"not":{"field":"tag","op":"all-of","values":[%s,%s]}}`, at(card, drawer), at(other, drawer)))
			}
		}
		tests = append(tests, fmt.Sprintf(`{"field":"tag","op":"any-of","values":[%s]}`, strings.Join(in, ",")))
	}
	f := parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`]}`)
	if a := f.Check(s.desk, s.clock()); a.Verdict != filter.NotDecided || a.Now != filter.NotDecided || a.Because != nil {
		t.Errorf("%+v", a)
	}
}

// Whatever a list, section, shelf or person is called, it is there.
func TestNamesThatSayTheyAreGone(t *testing.T) {
	s := newSmall(t)
	const name = "Everything that is gone"
	shelf := s.do(t, book.AddShelf{Name: name}).Shelves[0].After.ID
	list := s.do(t, book.AddList{Name: name, Shelf: shelf}).Lists[0].After.ID
	section := s.do(t, book.AddSection{List: list, Name: name}).Sections[0].After.ID
	person := s.do(t, book.AddPerson{Name: name}).People[0].After.ID
	for field, id := range map[string]book.ID{"list": list, "section": section, "shelf": shelf, "person": person} {
		f := parse(t, `{"field":"%s","op":"any-of","values":["%s"]}`, field, id)
		if a := f.Check(s.desk, s.clock()); a.Verdict != filter.Possible {
			t.Errorf("%s: %v", field, a.Verdict)
		}
	}
}
