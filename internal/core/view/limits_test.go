package view_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/view"
)

// A page of Done has no day of which it shows nothing, wherever it begins and ends.
func TestDoneHasNoEmptyDays(t *testing.T) {
	f := fill(t)
	var days []string // of each row, the newest first
	for _, n := range []int{3, 2, 4} {
		for i := range n {
			f.do(book.Complete{ID: f.put(book.Capture{Title: fmt.Sprint(f.now.Day(), " ", i)})})
			days = append([]string{day.DateOf(f.now).String()}, days...)
		}
		f.now = f.now.AddDate(0, 0, 1)
	}
	for offset := range len(days) {
		for limit := 1; limit <= len(days)-offset; limit++ {
			res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Done, Offset: offset, Limit: limit})
			if err != nil {
				t.Fatal(err)
			}
			var got []string
			for _, g := range res.Groups {
				got = append(got, g.Horizon.String())
			}
			if want := slices.Compact(slices.Clone(days[offset : offset+limit])); !slices.Equal(got, want) {
				t.Errorf("%d rows from %d on stand on %v, want %v", limit, offset, got, want)
			}
		}
	}
}

// Done is grouped and ordered like any other view, where that is asked.
func TestDoneInAnotherOrder(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	for _, c := range []book.Capture{{Title: "b", List: list, Priority: book.High}, {Title: "a"}, {Title: "c", List: list}} {
		f.do(book.Complete{ID: f.put(c)})
		f.now = f.now.Add(time.Minute)
	}
	compare(t, f.show(view.Query{Of: view.Done}), "day 2026-11-24 3\n  c\n  a\n  b\n")
	byTitle := []view.Key{{By: view.ByTitle}}
	compare(t, f.show(view.Query{Of: view.Done, Order: byTitle}), "day 2026-11-24 3\n  a\n  b\n  c\n")
	compare(t, f.show(view.Query{Of: view.Done, Group: view.GroupByList, Order: byTitle}), "in-list  1\n  a\nin-list  2\n  b\n  c\n")
	compare(t, f.show(view.Query{Of: view.Done, Narrow: filter.Must(`{"field":"priority","op":"any-of","values":["high"]}`)}), "day 2026-11-24 1\n  b\n")
}

// Which test is offered to be dropped: one without which there is more, the last of those without
// which there is most, and none where that changes nothing.
func TestWhichTestIsOffered(t *testing.T) {
	f := fill(t)
	for _, c := range []book.Capture{{Title: "blue lamp"}, {Title: "red lamp"}, {Title: "red cable"}, {Title: "green cable"}, {Title: "rope"}} {
		f.put(c)
	}
	text := func(s string) string { return fmt.Sprintf(`{"field":"text","op":"contains","text":"%s"}`, s) }
	for tests, want := range map[string]string{
		text("blue") + "," + text("cable"):                  "Without “with “blue” in its title or notes”, 2 to-dos match now.",
		text("blue") + "," + text("rope"):                   "Without “with “rope” in its title or notes”, 1 to-do matches now.", // as many either way
		text("blue") + "," + text("lamp"):                   "Without “with “blue” in its title or notes”, 2 to-dos match now.",
		text("lamp") + "," + text("lamp"):                   "",
		text("boat") + "," + text("ship") + "," + text("x"): "",
		text("boat"): "",
	} {
		d, err := view.ParseDefinition([]byte(`{"filter":{"all":[` + tests + `]}}`))
		if err != nil {
			t.Fatal(err)
		}
		m, err := view.Mean(f.desk, f.clock(), d, d.Filter.Check(f.desk, f.clock()))
		if err != nil || m.OfferSays != want {
			t.Errorf("%s: it offers %q, %v; want %q", tests, m.OfferSays, err, want)
		}
	}
	own := f.do(book.AddView{Name: "blue cables", Question: `{"filter":{"all":[` + text("blue") + "," + text("cable") + `]}}`}).Views[0].After.ID
	if got := view.WhyEmpty(f.desk, f.clock(), view.Query{Of: view.Own{ID: own}}); !strings.Contains(got, "Without “with “blue” in its title or notes”, 2") {
		t.Errorf("of a view of one's own: %q", got)
	}
}

// A to-do is untouched from the very start of the day after sixty that nothing changed.
func TestUntouchedToTheMillisecond(t *testing.T) {
	f := fill(t)
	now := f.now
	edge := time.Date(2026, 11, 24, 0, 0, 0, 0, time.UTC).AddDate(0, 0, -view.UntouchedDays)
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	for title, at := range map[string]time.Time{"just touched": edge, "untouched": edge.Add(-time.Millisecond)} {
		f.now = at
		f.put(book.Capture{Title: title, List: list})
	}
	f.now = now
	if got := f.walked(view.Weekly); !strings.Contains(got, "\nuntouched: untouched") || strings.Contains(got, "just touched") {
		t.Errorf("the week's walk is\n%s", got)
	}
}

// What is inside others and changes there is counted with the outermost of them.
func TestLyingWorkOfWholes(t *testing.T) {
	f := fill(t)
	whole := f.put(book.Capture{Title: "whole", Plan: day.MustHorizon("2026-11-25")})
	part := f.put(book.Capture{Title: "part", Parent: whole})
	f.put(book.Capture{Title: "piece", Parent: part, Estimate: 20})
	tally := view.NewTally(f.desk, f.clock())
	tally.Survey(f.desk, f.clock())
	lying := func() string {
		var all []string
		for _, l := range tally.Lying(f.desk, func(day.Horizon) bool { return true }) {
			all = append(all, fmt.Sprint(l.Todo.Title, " ", l.Work.Minutes))
		}
		slices.Sort(all)
		return strings.Join(all, ", ")
	}
	// The whole and the part have no work beside that of what is in them, and no hour of the day.
	if got := lying(); got != "piece 20" {
		t.Errorf("there lie %s", got)
	}
	more := 50
	tally.Follow(f.desk, f.do(book.Edit{ID: part, Estimate: &more}))
	if got := lying(); got != "part 30, piece 20" {
		t.Errorf("with more for the part there lie %s", got)
	}
	most := 90
	tally.Follow(f.desk, f.do(book.Edit{ID: whole, Estimate: &most}))
	if got := lying(); got != "part 30, piece 20, whole 40" {
		t.Errorf("with more for the whole there lie %s", got)
	}
}

// A due that work just fits before has nothing to spare, and is not late.
func TestReadyWithNothingToSpare(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026, 09:00
	f.put(book.Capture{Title: "label", Due: day.MustMoment("2026-11-24"), Estimate: 450})
	f.desk = roomy(f.desk, f.clock())
	if why := mustAsk(t, f.desk, f.clock(), view.Ready).Groups[0].Rows[0].Why; !strings.Contains(why, ", 0 min to spare") {
		t.Errorf("it says %q", why)
	}
}

// Samoa had no 30 December 2011 (the IANA time zone database): what is done as the 31st begins was
// done on it.
func TestDoneBehindADayThatNeverWas(t *testing.T) {
	s := newShelf(t)
	clock := clockAt(t, "Pacific/Apia", "2011-12-29T12:00:00", 0)
	s.clock = &clock
	for _, at := range []string{"2011-12-29T12:00:00", "2011-12-29T23:59:00", "2011-12-31T00:00:00", "2012-01-01T00:00:00"} {
		clock = clockAt(t, "Pacific/Apia", at, 0)
		s.do(book.Complete{ID: s.add(at, "", "", "")})
	}
	want := "2012-01-01: 2012-01-01T00:00:00; 2011-12-31: 2011-12-31T00:00:00; 2011-12-29: 2011-12-29T23:59:00, 2011-12-29T12:00:00"
	var got []string
	for _, g := range mustAsk(t, s.desk, clock, view.Done).Groups {
		var titles []string
		for _, r := range g.Rows {
			titles = append(titles, r.Todo.Title)
		}
		got = append(got, g.Horizon.String()+": "+strings.Join(titles, ", "))
	}
	if strings.Join(got, "; ") != want {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "; "), want)
	}
}

// The head of a group and the cup of the rail say the same work, with what is assumed of it.
func TestGroupsSayTheLoadOfTheirCup(t *testing.T) {
	f := fill(t)
	tomorrow := day.DateOf(f.now).AddDays(1)
	inHall := day.OnDay(tomorrow)
	f.put(book.Capture{Title: "known", Estimate: 25, Plan: inHall})
	f.put(book.Capture{Title: "unknown", Plan: inHall})
	f.put(book.Capture{Title: "waits", Plan: inHall, NewPerson: "Ines", Role: book.WaitingOn})
	project := f.put(book.Capture{Title: "project", Plan: inHall})
	f.put(book.Capture{Title: "part", Parent: project, Plan: inHall})
	res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.OnRail{Cup: inHall}})
	if err != nil {
		t.Fatal(err)
	}
	minutes, assumed := 0, 0
	for _, g := range res.Groups {
		minutes, assumed = minutes+g.Minutes+g.Assumed, assumed+g.Assumed
	}
	load := view.NewTally(f.desk, f.clock()).Survey(f.desk, f.clock()).Loads[inHall][0]
	if minutes != 85 || assumed != 60 || load != (view.Load{Minutes: minutes, Assumed: assumed}) {
		t.Errorf("the groups hold %d minutes, %d of them assumed, and the cup %+v", minutes, assumed, load)
	}
}

// Cleared to-dos are out of their checklist's sight, and stand in Done and in its progress.
func TestClearedStaysInDone(t *testing.T) {
	f := fill(t)
	list, yes := f.do(book.AddList{Name: "Crates"}).Lists[0].After.ID, true
	f.do(book.EditList{ID: list, Checklist: &yes})
	crate := f.put(book.Capture{Title: "Crate", List: list})
	f.do(book.Complete{ID: f.put(book.Capture{Title: "Straps", Parent: crate})})
	f.put(book.Capture{Title: "Tissue", Parent: crate})
	titles := func(of view.Subject) string { return strings.Join(titlesOf(mustAsk(t, f.desk, f.clock(), of)), " ") }
	if got := titles(view.InList{ID: list}); got != "Crate Tissue Straps" {
		t.Errorf("before: %s", got)
	}
	f.do(book.ClearDone{List: list})
	parent, _ := f.desk.Todo(crate)
	if got, done := titles(view.InList{ID: list}), titles(view.Done); got != "Crate Tissue" || done != "Straps" || f.desk.Progress(parent).Done != 1 {
		t.Errorf("cleared: %s; done: %s, %+v", got, done, f.desk.Progress(parent))
	}
}

// Open holds everything open by list, the Cup first; another grouping takes the place of that.
func TestOpenIsByList(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	f.put(book.Capture{Title: "in the Cup"})
	f.put(book.Capture{Title: "in Loans", List: list, Plan: day.MustHorizon("parked")})
	f.do(book.Complete{ID: f.put(book.Capture{Title: "done", List: list})})
	for group, want := range map[view.Grouping]int{"": 2, view.GroupByPriority: 1} {
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Open, Group: group, Limit: 10})
		if err != nil {
			t.Fatal(err)
		}
		if got := strings.Join(titlesOf(res), ", "); got != "in the Cup, in Loans" || len(res.Groups) != want {
			t.Errorf("grouped by %q: %s in %d groups; want %d", group, got, len(res.Groups), want)
		}
	}
}
