package view_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/view"
)

// filled is a Book filled by commands.
type filled struct {
	t    *testing.T
	book *book.Book
	desk *book.Desk
	now  time.Time
	ids  byte
}

func fill(t *testing.T) *filled {
	b, desk := book.Alone(book.MemoryNotes{})
	return &filled{t: t, book: b, desk: desk, now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)}
}

func (f *filled) clock() day.Clock { return day.Clock{Now: f.now, Zone: time.UTC} }

func (f *filled) do(cmd book.Command) *book.Change {
	f.t.Helper()
	c, err := f.desk.Do(book.Env{Clock: f.clock(), NewID: func() book.ID { f.ids++; return book.ID{15: f.ids} }}, cmd)
	if err != nil {
		f.t.Fatal(err)
	}
	f.book.Apply(c)
	return c
}

func (f *filled) put(c book.Capture) book.ID { f.t.Helper(); return f.do(c).Todo().ID }

// show writes a view: group heads, and rows indented by their depth.
func (f *filled) show(q view.Query) string {
	f.t.Helper()
	q.Limit = 100
	res, err := view.Ask(f.desk, f.clock(), q)
	if err != nil {
		f.t.Fatal(err)
	}
	var b strings.Builder
	for _, g := range res.Groups {
		fmt.Fprintf(&b, "%s %s %d\n", g.Kind, g.Horizon, g.Count)
		for _, r := range g.Rows {
			b.WriteString(strings.Repeat("  ", r.Depth+1) + r.Todo.Title)
			if len(r.Path) > 0 {
				b.WriteString(" < " + strings.Join(r.Path, " < "))
			}
			if r.Progress.Total > 0 {
				fmt.Fprintf(&b, " (%d of %d)", r.Progress.Done, r.Progress.Total)
			}
			b.WriteByte('\n')
		}
		for _, t := range g.ComesRound {
			b.WriteString("  ~ " + t.Title + "\n")
		}
	}
	return b.String()
}

func compare(t *testing.T, got, want string) {
	t.Helper()
	if want = strings.TrimPrefix(want, "\n"); got != want {
		t.Errorf("got\n%swant\n%s", got, want)
	}
}

// Sorting is among siblings (common practice, no source): a medium subtask of a
// high parent stands above a medium to-do that has none.
func TestSubtasksStandUnderTheirParent(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Night Signals"}).Lists[0].After.ID
	loose := f.put(book.Capture{Title: "Loose, medium", List: list, Priority: book.Medium})
	parent := f.put(book.Capture{Title: "Loans, high", List: list, Priority: book.High})
	f.put(book.Capture{Title: "Crates, low", Parent: parent, Priority: book.Low})
	medium := f.put(book.Capture{Title: "Agreement, medium", Parent: parent, Priority: book.Medium})
	f.put(book.Capture{Title: "Signature", Parent: medium, Due: day.MustMoment("2026-11-24")})
	done := f.put(book.Capture{Title: "Ring first", Parent: parent})
	f.do(book.Complete{ID: done})
	gone := f.put(book.Capture{Title: "Fax it", Parent: parent})
	f.do(book.Cancel{ID: gone})
	compare(t, f.show(view.Query{Of: view.InList{ID: list}}), `
all  5
  Loans, high (1 of 3)
    Agreement, medium (0 of 1)
      Signature
    Crates, low
  Loose, medium
`)
	compare(t, f.show(view.Query{Of: view.Today}), `
due-today  1
  Signature < Loans, high < Agreement, medium
`)
	f.do(book.Edit{ID: loose, Due: ptrTo(day.MustMoment("2026-11-24"))})
	f.do(book.Edit{ID: medium, Due: ptrTo(day.MustMoment("2026-11-24"))})
	compare(t, f.show(view.Query{Of: view.Today}), `
due-today  3
  Loose, medium
  Agreement, medium < Loans, high (0 of 1)
    Signature
`)
}

func ptrTo[T any](v T) *T { return &v }

func TestUpcomingFoldsWhatComesRound(t *testing.T) {
	f := fill(t)
	rep := func(title, rule, first string, anchor repeat.Anchor) book.ID {
		return f.put(book.Capture{Title: title, Due: day.MustMoment(first),
			Repeat: &repeat.Repeat{Rule: repeat.MustParse(rule), First: day.MustMoment(first).Date, Anchor: anchor}})
	}
	rep("Feed the cat", "FREQ=DAILY;INTERVAL=9", "2026-11-24", repeat.Schedule)
	rep("Choir", "FREQ=WEEKLY;INTERVAL=2;BYDAY=TH", "2026-11-26", repeat.Schedule)
	rep("Rota", "FREQ=MONTHLY;BYMONTHDAY=3", "2026-11-03", repeat.Schedule) // overdue
	rep("Descale", "FREQ=DAILY;INTERVAL=5", "2026-11-25", repeat.Completion)
	paused := rep("Water", "FREQ=DAILY", "2026-11-25", repeat.Schedule)
	f.do(book.Pause{ID: paused})
	f.put(book.Capture{Title: "Ring the framer", Due: day.MustMoment("2026-12-03")})
	compare(t, f.show(view.Query{Of: view.Upcoming}), `
day 2026-11-25 1
  Descale
day 2026-11-26 1
  Choir
day 2026-12-03 1
  Ring the framer
  ~ Rota
  ~ Feed the cat
week 2026-W50 0
  ~ Feed the cat
  ~ Choir
week 2026-W52 0
  ~ Feed the cat
  ~ Choir
week 2026-W53 0
  ~ Rota
  ~ Feed the cat
week 2027-W01 0
  ~ Feed the cat
  ~ Choir
week 2027-W02 0
  ~ Feed the cat
`)
	res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Upcoming, Limit: 100})
	if err != nil || res.Total != 3 {
		t.Errorf("%d in all, %v; what comes round is not counted", res.Total, err)
	}
}

// Today is Tuesday 24 November 2026: single days go to 8 December, a Tuesday, and weeks
// to 19 January 2027, a Tuesday too.
func TestHeadsOfUpcoming(t *testing.T) {
	f := fill(t)
	plan := func(title, horizon string) {
		h, err := day.ParseHorizon(horizon)
		if err != nil {
			t.Fatal(err)
		}
		f.put(book.Capture{Title: title, Plan: h})
	}
	due := func(title, on string) { f.put(book.Capture{Title: title, Due: day.MustMoment(on)}) }
	plan("This month", "2026-11")
	plan("This week", "2026-W48")
	plan("Next week", "2026-W49")
	plan("The week that days end in", "2026-W50")
	due("Last day", "2026-12-08")
	due("Day after it", "2026-12-09")
	plan("A day of that week", "2026-12-12")
	plan("December", "2026-12")
	plan("January", "2027-01")
	due("Last of the weeks", "2027-01-19")
	due("Behind the weeks", "2027-01-20")
	plan("A week behind them", "2027-W05")
	due("In February", "2027-02-28")
	plan("March", "2027-03")
	heads := `
this-week 2026-W48 1
  This week
this-month 2026-11 1
  This month
week 2026-W49 1
  Next week
month 2026-12 1
  December
day 2026-12-08 1
  Last day
week 2026-W50 3
  Day after it
  The week that days end in
  A day of that week
week 2027-W03 1
  Last of the weeks
`
	compare(t, f.show(view.Query{Of: view.Upcoming}), heads+`month 2027-01 1
  January
`)
	compare(t, f.show(view.Query{Of: view.Upcoming, Months: 2}), heads+`month 2027-01 2
  Behind the weeks
  January
month 2027-02 2
  In February
  A week behind them
`)
	res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Upcoming, Months: 12, Limit: 100})
	if err != nil || res.Total != 14 || res.Beyond != 0 {
		t.Errorf("%d in all and %d beyond, %v; want all 14", res.Total, res.Beyond, err)
	}
}

func TestGroupsOfTheCup(t *testing.T) {
	f := fill(t)
	person := f.do(book.AddPerson{Name: "Ines Vidal"}).People[0].After.ID
	with := func(title string, role book.Role, due string) {
		c := book.Capture{Title: title, Person: person, Role: role}
		if due != "" {
			c.Due = day.MustMoment(due)
		}
		f.put(c)
	}
	f.put(book.Capture{Title: "Buy string"})
	with("Order cake", book.For, "")
	with("Lamp papers", book.WaitingOn, "")
	with("Ask about the key", book.Ask, "")
	with("Hear of the crate", book.WaitingOn, "2026-12-01")
	f.put(book.Capture{Title: "Pay the rent", Due: day.MustMoment("2026-12-01")})
	f.put(book.Capture{Title: "What the lamp weighs", IsNote: true})
	compare(t, f.show(view.Query{Of: view.Cup}), `
to-sort  3
  Buy string
  Order cake
  Ask about the key
laid-by  2
  Hear of the crate
  Pay the rent
people-and-notes  2
  Lamp papers
  What the lamp weighs
`)
	if n := countAnew(f.desk, f.clock()).Counts[view.Cup]; n != 3 {
		t.Errorf("the badge says %d; the head says 3", n)
	}
}

func TestMonthsOfTheRail(t *testing.T) {
	f := fill(t)
	months := func() (all []string) {
		for _, c := range countAnew(f.desk, f.clock()).Rail {
			if c.Horizon.Precision() == day.Month {
				all = append(all, c.Horizon.String())
			}
		}
		return all
	}
	if got := months(); len(got) != 13 || got[0] != "2026-11" || got[12] != "2027-11" {
		t.Errorf("the months are %v", got)
	}
	far, _ := day.ParseHorizon("2029-02")
	f.put(book.Capture{Title: "Renew the lease", Plan: far})
	if got := months(); len(got) != 28 || got[27] != "2029-02" {
		t.Errorf("with a plan for February 2029 the months are %v", got)
	}
	never, _ := day.ParseHorizon("9998-02")
	f.put(book.Capture{Title: "Look again", Plan: never})
	if got := months(); len(got) != 121 {
		t.Errorf("there are %d months; 121 are the most", len(got))
	}
}

func TestPausedIsOnlyInItsList(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Allotment"}).Lists[0].After.ID
	for _, l := range []book.ID{list, {}} {
		id := f.put(book.Capture{Title: "Water", List: l, Due: day.MustMoment("2026-11-20"),
			Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=30"), First: day.MustDate("2026-11-20")}})
		f.do(book.Pause{ID: id})
	}
	for _, name := range []view.Name{view.Today, view.Overdue, view.Upcoming, view.WithinAWeek} {
		if got := f.show(view.Query{Of: name}); got != "" {
			t.Errorf("%s holds\n%s", name, got)
		}
	}
	compare(t, f.show(view.Query{Of: view.InList{ID: list}}), "paused  1\n  Water\n")
	compare(t, f.show(view.Query{Of: view.Cup}), "laid-by  1\n  Water\n")
	s := countAnew(f.desk, f.clock())
	if s.Counts[view.Overdue] != 0 || s.Counts[view.Cup] != 0 || s.Lists[list] != 0 || slices.ContainsFunc(s.Rail, func(c view.RailCup) bool { return c.Count > 0 }) {
		t.Errorf("it is counted: %+v", s)
	}
}

func TestDoneShowsARecordOnce(t *testing.T) {
	f := fill(t)
	id := f.put(book.Capture{Title: "Rota", Due: day.MustMoment("2026-11-24"),
		Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY"), First: day.MustDate("2026-11-24")}})
	sub := f.put(book.Capture{Title: "Ring round", Parent: id})
	f.put(book.Capture{Title: "Pin it up", Parent: id})
	f.do(book.Complete{ID: sub})
	f.do(book.Complete{ID: id})
	compare(t, f.show(view.Query{Of: view.Done}), `
day 2026-11-24 1
  Rota (1 of 2)
`)
}

// Facts of the trade: common practice, no source.
func TestSiblingsAreSortedUnderTheirParent(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Labels"}).Lists[0].After.ID
	low := f.put(book.Capture{Title: "next parent", List: list, Priority: book.Low})
	f.put(book.Capture{Title: "medium alone", List: list, Priority: book.Medium})
	high := f.put(book.Capture{Title: "high parent", List: list, Priority: book.High})
	f.put(book.Capture{Title: "low subtask", Parent: high, Priority: book.Low})
	f.put(book.Capture{Title: "medium subtask", Parent: high, Priority: book.Medium})
	f.put(book.Capture{Title: "its own", Parent: low, Priority: book.High})
	compare(t, f.show(view.Query{Of: view.InList{ID: list}}), `
all  6
  high parent (0 of 2)
    medium subtask
    low subtask
  medium alone
  next parent (0 of 1)
    its own
`)
}

func TestSectionsTickedAndNotes(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Crates"}).Lists[0].After.ID
	lids := f.do(book.AddSection{List: list, Name: "Lids"}).Sections[0].After.ID
	f.do(book.AddSection{List: list, Name: "Empty"})
	done := f.put(book.Capture{Title: "gloves", List: list})
	f.put(book.Capture{Title: "lamps", List: list})
	f.put(book.Capture{Title: "labels", List: list, Section: lids})
	f.put(book.Capture{Title: "colours", List: list, IsNote: true})
	f.do(book.Complete{ID: done})
	f.do(book.EditList{ID: list, Checklist: ptrTo(true), Order: ptrTo(book.ByHand)})
	compare(t, f.show(view.Query{Of: view.InList{ID: list}}), `
all  2
  lamps
  colours
section  1
  labels
section  0
ticked  1
  gloves
`)
	if survey := countAnew(f.desk, f.clock()); survey.Lists[list] != 2 {
		t.Errorf("the list's badge is %d", survey.Lists[list])
	}
}

func TestPeopleTagsWaitingHandful(t *testing.T) {
	f := fill(t)
	ines := f.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	owed := f.put(book.Capture{Title: "papers", Person: ines, Role: book.WaitingOn})
	f.now = f.now.AddDate(0, 0, 7)
	f.put(book.Capture{Title: "lamp", Person: ines, Role: book.WaitingOn, Tags: []string{"work/loans"}})
	f.put(book.Capture{Title: "key", Person: ines, Role: book.Ask, Priority: book.High})
	f.put(book.Capture{Title: "cake", Person: ines, Role: book.For, Tags: []string{"work"}})
	compare(t, f.show(view.Query{Of: view.WithPerson{ID: ines}}), `
to-ask  1
  key
they-owe  2
  papers
  lamp
for-them  1
  cake
`)
	res := mustAsk(t, f.desk, f.clock(), view.Waiting)
	if rows := res.Groups[0].Rows; len(rows) != 2 || rows[0].Todo.ID != owed || rows[0].Waited != 7 || rows[1].Waited != 0 {
		t.Errorf("waiting: %+v", res.Groups)
	}
	tags := f.desk.Tags()
	work := tags[slices.IndexFunc(tags, func(t *book.Tag) bool { return t.Name == "work" })].ID
	compare(t, f.show(view.Query{Of: view.WithTag{ID: work}}), `
tagged  1
  cake
tagged  1
  lamp
`)
	f.do(book.Pick{ID: owed})
	if got := f.show(view.Query{Of: view.Today}); !strings.Contains(got, "handful  1") {
		t.Errorf("today: %s", got)
	}
	f.now = f.now.AddDate(0, 0, 1)
	if got := f.show(view.Query{Of: view.Today}); strings.Contains(got, "handful") {
		t.Errorf("the day after: %s", got)
	}
}
