package view_test

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
)

// Upcoming ends after its weeks, and says how many rows lie further ahead; each month asked
// for takes some of them in.
func TestBeyondUpcoming(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026; its weeks end on 19 January
	for _, due := range []string{"2026-11-30", "2027-01-15", "2027-02-10", "2027-02-20", "2027-04-01", "2028-01-01"} {
		f.put(book.Capture{Title: due, Due: day.Moment{Date: day.MustDate(due)}})
	}
	for _, c := range []struct{ months, total, beyond int }{{0, 2, 4}, {2, 4, 2}, {4, 5, 1}, {12, 5, 1}} {
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Upcoming, Months: c.months, Limit: 100})
		if err != nil || res.Total != c.total || res.Beyond != c.beyond {
			t.Errorf("%d months: %d rows, %d beyond, %v; want %d and %d", c.months, res.Total, res.Beyond, err, c.total, c.beyond)
		}
	}
	if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Upcoming, Months: view.MaxMonths + 1}); err == nil {
		t.Error("thirteen months are shown")
	}
}

// Groups by a field of a few words stand in its order: the highest priority first.
func TestClosedGroupsInOrder(t *testing.T) {
	f := fill(t)
	for p := book.NoPriority; p <= book.High; p++ {
		f.put(book.Capture{Title: p.String(), Priority: p})
	}
	for _, c := range []term.Concentration{term.Light, term.Deep} {
		f.put(book.Capture{Title: c.String(), Concentration: c})
	}
	words := func(g view.Grouping) string {
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Ready, Group: g, Limit: 100})
		if err != nil {
			t.Fatal(err)
		}
		var all []string
		for _, group := range res.Groups {
			all = append(all, group.Word())
		}
		return strings.Join(all, " ")
	}
	if got := words(view.GroupByPriority); got != "high medium low none" {
		t.Errorf("priorities stand as %s", got)
	}
	if got := words(view.GroupByConcentration); !strings.HasPrefix(got, "deep light") {
		t.Errorf("kinds of attention stand as %s", got)
	}
}

// By plan stand what is carried over, days, weeks and months as they come, what is parked and
// what has none.
func TestPlansInOrder(t *testing.T) {
	f := fill(t) // on Tuesday 24 November 2026
	for _, plan := range []string{"", "parked", "2027-01", "2026-12-03", "2026-W49", "2026-12", "2026-11-23", "2026-11-24"} {
		var h day.Horizon
		if plan != "" {
			h = day.MustHorizon(plan)
		}
		f.put(book.Capture{Title: cmp.Or(plan, "none"), Plan: h})
	}
	res, err := view.Ask(f.desk, f.clock(), view.Query{Of: define(t, `{"filter":{"all":[]},"group":"plan"}`), Limit: 100})
	if err != nil {
		t.Fatal(err)
	}
	var got []string
	for _, g := range res.Groups {
		for _, r := range g.Rows {
			got = append(got, r.Todo.Title)
		}
	}
	if want := "2026-11-23 2026-11-24 2026-W49 2026-12 2026-12-03 2027-01 parked none"; strings.Join(got, " ") != want {
		t.Errorf("%s, want %s", strings.Join(got, " "), want)
	}
}

// What has no value of a key stands last, forwards and back.
func TestNoValueLast(t *testing.T) {
	f := fill(t)
	f.put(book.Capture{Title: "none"})
	f.put(book.Capture{Title: "late", Due: day.MustMoment("2026-12-02"), Estimate: 10})
	f.put(book.Capture{Title: "soon", Due: day.MustMoment("2026-12-01"), Estimate: 90})
	f.put(book.Capture{Title: "none too"})
	for order, want := range map[string]string{"due": "soon late none none too", "-due": "late soon none none too", "estimate": "late soon none none too", "-estimate": "soon late none none too",
		"priority due": "soon late none none too", "priority -estimate": "soon late none none too"} {
		keys, err := view.ParseKeys(strings.Fields(order))
		if err != nil {
			t.Fatal(err)
		}
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Ready, Order: keys, Limit: 100})
		if err != nil {
			t.Fatal(err)
		}
		var titles []string
		for _, r := range res.Groups[0].Rows {
			titles = append(titles, r.Todo.Title)
		}
		if got := strings.Join(titles, " "); got != want {
			t.Errorf("by %s: %s, want %s", order, got, want)
		}
	}
	if _, err := view.ParseKeys(slices.Repeat([]string{"due"}, 5)); err == nil {
		t.Error("five keys are taken")
	}
}

// A definition may have its greatest length and no more; a view of one's own is counted only
// where that was chosen.
func TestDefinitionsAtTheirBounds(t *testing.T) {
	padded := func(n int) []byte {
		text := `{"filter":{"all":[]}}`
		return []byte(text + strings.Repeat(" ", n-len(text)))
	}
	if _, err := view.ParseDefinition(padded(view.MaxDefinition)); err != nil {
		t.Errorf("the longest: %v", err)
	}
	if _, err := view.ParseDefinition(padded(view.MaxDefinition + 1)); err == nil {
		t.Error("one byte more is taken")
	}
	f := fill(t)
	f.put(book.Capture{Title: "lamp"})
	question := `{"filter":{"field":"status","op":"any-of","values":["needs-action"]}}`
	counted := f.do(book.AddView{Name: "counted", Question: question, Counted: true}).Views[0].After.ID
	plain := f.do(book.AddView{Name: "plain", Question: question}).Views[0].After.ID
	survey := view.NewTally(f.desk, f.clock()).Survey(f.desk, f.clock())
	if survey.Views[counted] != 1 || survey.Views[plain] != 0 {
		t.Errorf("counts of views: %v", fmt.Sprint(survey.Views))
	}
}

// What is done at the very moment a day begins is that day's, also where days are 23 and 25
// hours long (Europe/Lisbon changes its clocks on 25 October 2026 and 28 March 2027).
func TestDoneAtMidnight(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	for _, first := range []string{"2026-10-23", "2027-03-26", "2026-12-01"} {
		f := fill(t)
		clock := func(now time.Time) day.Clock { return day.Clock{Now: now, Zone: zone} }
		var want []string
		for i := range 5 {
			d := day.MustDate(first).AddDays(i)
			for _, off := range []time.Duration{0, -time.Millisecond} {
				f.now = clock(f.now).StartOf(d).Add(off)
				id := f.put(book.Capture{Title: "lamp"})
				f.do(book.Complete{ID: id})
			}
		}
		for i := 4; i >= -1; i-- {
			n := 2
			if i == 4 || i == -1 {
				n = 1
			}
			want = append(want, fmt.Sprintf("%s %d", day.MustDate(first).AddDays(i), n))
		}
		res, err := view.Ask(f.desk, clock(f.now.AddDate(0, 0, 1)), view.Query{Of: view.Done, Limit: 100})
		if err != nil {
			t.Fatal(err)
		}
		var got []string
		for _, g := range res.Groups {
			got = append(got, fmt.Sprintf("%s %d", g.Horizon, g.Count))
		}
		if !slices.Equal(got, want) {
			t.Errorf("from %s: %v, want %v", first, got, want)
		}
	}
}

// Of several tags the first in the order of tags says the group; in a list what is paused
// stands behind its sections, and in a checklist what is ticked behind that.
func TestPlacesInOrder(t *testing.T) {
	f := fill(t)
	for _, tags := range [][]string{{"calls"}, {"loans"}, {"loans", "calls"}, {}} {
		f.put(book.Capture{Title: "lamp", Tags: tags})
	}
	res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Ready, Group: view.GroupByTag, Limit: 100})
	if err != nil {
		t.Fatal(err)
	}
	var got []string
	for _, g := range res.Groups {
		got = append(got, fmt.Sprintf("%s %d", g.Title(f.desk), g.Count))
	}
	if want := []string{"calls 2", "loans 1", " 1"}; !slices.Equal(got, want) {
		t.Errorf("tags: %q, want %q", got, want)
	}
	on := true
	list := f.do(book.AddList{Name: "Crates"}).Lists[0].After.ID
	f.do(book.EditList{ID: list, Checklist: &on})
	section := f.do(book.AddSection{List: list, Name: "Oak"}).Sections[0].After.ID
	rule, err := repeat.Parse("FREQ=DAILY")
	if err != nil {
		t.Fatal(err)
	}
	paused := f.put(book.Capture{Title: "paused", List: list, Repeat: &repeat.Repeat{Rule: rule, First: day.MustDate("2026-11-24")}})
	f.do(book.Pause{ID: paused})
	ticked := f.put(book.Capture{Title: "ticked", List: list})
	f.do(book.Complete{ID: ticked})
	f.put(book.Capture{Title: "in it", List: list, Section: section})
	f.put(book.Capture{Title: "plain", List: list})
	f.put(book.Capture{Title: "a note", List: list, IsNote: true})
	var kinds []string
	for _, g := range mustAsk(t, f.desk, f.clock(), view.InList{ID: list}).Groups {
		kinds = append(kinds, string(g.Kind))
		if notes := map[view.Kind]int{view.All: 1}[g.Kind]; g.Notes != notes {
			t.Errorf("%s has %d notes, want %d", g.Kind, g.Notes, notes)
		}
	}
	if want := "all section paused ticked"; strings.Join(kinds, " ") != want {
		t.Errorf("the list stands as %v, want %s", kinds, want)
	}
}
