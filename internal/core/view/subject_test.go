package view_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// Every subject says in words what it holds, and what is not there holds nothing and is told
// so.
func TestSubjectsSay(t *testing.T) {
	f := fill(t)
	shelf := f.do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	list := f.do(book.AddList{Name: "Loans", Shelf: shelf}).Lists[0].After.ID
	on := true
	crates := f.do(book.AddList{Name: "Crates"}).Lists[0].After.ID
	f.do(book.EditList{ID: crates, Checklist: &on})
	old := f.do(book.AddList{Name: "Old"}).Lists[0].After.ID
	f.do(book.EditList{ID: old, Archived: &on})
	f.put(book.Capture{Title: "lamp", Tags: []string{"calls"}})
	tag := f.desk.Tags()[0].ID
	who := f.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	own := f.do(book.AddView{Name: "high", Question: `{"filter":{"field":"priority","op":"any-of","values":["high"]}}`}).Views[0].After.ID
	gone := book.ID{15: 240}
	for _, c := range []struct {
		of   view.Subject
		want string
	}{
		{view.Today, "Tuesday 24 November."}, {view.WithinAWeek, "Open, and due on or before Tue 1 Dec 2026."}, {view.Cup, "Open, and in no list yet."},
		{view.Bin, "Deleted. Each stays for 30 days and can be restored."}, {view.Daily, "The Cup, what slipped, and Tuesday."}, {view.Review("yearly"), ""},
		{view.InList{ID: list}, "Open, on the shelf Museum."}, {view.InList{ID: crates}, "A checklist."}, {view.InList{ID: old}, "Archived: in no view but this."}, {view.InList{ID: gone}, ""},
		{view.WithTag{ID: tag}, "Open, and tagged calls or what is nested under it."}, {view.WithTag{ID: gone}, ""}, {view.WithPerson{ID: who}, "What to ask, what they owe, what is for them."},
		{view.OnRail{Cup: day.MustHorizon("2026-11-25")}, "Planned for this day, or due on it."}, {view.OnRail{Cup: day.MustHorizon("2026-W48")}, "Planned for this week and for no day of it."},
		{view.OnRail{Cup: day.MustHorizon("2026-12")}, "Planned for this month and for no day of it."}, {view.OnRail{Cup: day.SomeTime()}, "Some time, maybe."},
		{view.Own{ID: own}, "Open, and of high priority."}, {view.Own{ID: gone}, ""},
	} {
		if got := view.Sentence(f.desk, f.clock(), c.of); got != c.want {
			t.Errorf("%v says %q, want %q", c.of, got, c.want)
		}
	}
	for _, of := range []view.Subject{view.InList{ID: gone}, view.WithTag{ID: gone}, view.WithPerson{ID: gone}, view.Own{ID: gone}} {
		var missing *book.NotFoundError
		if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: of}); !errors.As(err, &missing) {
			t.Errorf("%v: %v", of, err)
		}
	}
	for _, of := range []view.Subject{view.OnRail{}, view.Name("inbox")} {
		if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: of}); err == nil {
			t.Errorf("%v is answered", of)
		}
	}
	if res, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Own{ID: own}, Limit: 9}); err != nil || res.Total != 0 {
		t.Errorf("the view of one's own holds %+v, %v", res, err)
	}
}

// A day's cup holds what is planned for it, what is due on it without a plan, and, said apart,
// what is due on it and planned for another time; what lies there is work, each once.
func TestOnRail(t *testing.T) {
	f := fill(t)
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	put := func(title, due, plan string, parent book.ID) book.ID {
		c := book.Capture{Title: title, Parent: parent, Estimate: 30, List: list}
		if !parent.IsZero() {
			c.List = book.ID{}
		}
		if due != "" {
			c.Due = day.MustMoment(due)
		}
		if plan != "" {
			c.Plan = day.MustHorizon(plan)
		}
		return f.put(c)
	}
	put("planned", "", "2026-11-25", book.ID{})
	put("at ten", "", "2026-11-25T10:00/PT1H", book.ID{})
	put("due", "2026-11-25", "", book.ID{})
	put("due, planned elsewhere", "2026-11-25", "2026-11-24", book.ID{})
	put("in the week", "", "2026-W48", book.ID{})
	put("parked", "2026-11-26", "parked", book.ID{})
	project := put("project", "", "2026-11-25T14:00/PT2H", book.ID{})
	put("inside", "", "", project)
	rail := func(cup string) string {
		var all []string
		for _, g := range mustAsk(t, f.desk, f.clock(), view.OnRail{Cup: day.MustHorizon(cup)}).Groups {
			for _, r := range g.Rows {
				all = append(all, fmt.Sprintf("%s: %s", g.Kind, r.Todo.Title))
			}
		}
		return strings.Join(all, ", ")
	}
	for cup, want := range map[string]string{
		"2026-11-25": "planned: at ten, planned: project, planned: planned, due: due, due-planned-elsewhere: due, planned elsewhere",
		"2026-W48":   "planned: in the week", "parked": "planned: parked", "2026-11-26": "due-planned-elsewhere: parked", "2026-12": "",
	} {
		if got := rail(cup); got != want {
			t.Errorf("%s holds %s, want %s", cup, got, want)
		}
	}
	tally := view.NewTally(f.desk, f.clock())
	tally.Survey(f.desk, f.clock())
	var lying []string
	for _, l := range tally.Lying(f.desk, func(h day.Horizon) bool { return h == day.MustHorizon("2026-11-25") }) {
		lying = append(lying, fmt.Sprintf("%s %d %t", l.Todo.Title, l.Work.Minutes, l.Within == project))
	}
	slices.Sort(lying)
	// The project is drawn for its hour; its own 30 minutes are those of what is inside it.
	if want := []string{"at ten 30 false", "due 30 false", "inside 30 true", "planned 30 false", "project 0 false"}; !slices.Equal(lying, want) {
		t.Errorf("there lie %q, want %q", lying, want)
	}
}

// The places of what is not closed, the most used first, and by name where as many use them.
func TestUsedPlaces(t *testing.T) {
	f := fill(t)
	for i, place := range []string{"store room", "post office", "store room", "", "attic", "attic", "boat"} {
		id := f.put(book.Capture{Title: "lamp"})
		f.do(book.Edit{ID: id, Place: &place})
		if i == 6 {
			f.do(book.Complete{ID: id})
		}
	}
	var places []string
	ids := map[string]book.ID{}
	for _, p := range view.UsedPlaces(f.desk) {
		places = append(places, fmt.Sprint(p.Name, " ", p.Count))
		ids[p.Name] = p.ID
	}
	if got := strings.Join(places, ", "); got != "attic 2, store room 2, post office 1, boat 0" {
		t.Errorf("places: %s", got)
	}
	for _, c := range []struct {
		of         view.Subject
		says, held string
	}{
		{view.AtPlace{ID: ids["attic"]}, "Open, and done at attic.", "all 2"},
		{view.AtPlace{ID: ids["boat"]}, "Open, and done at boat.", ""},
		{view.Here{Places: []book.ID{ids["attic"], ids["boat"], ids["store room"]}}, "Open, and done where you are: attic, boat, store room.", "at-place attic 2, at-place store room 2"},
		{view.Here{Places: []book.ID{{15: 99}, ids["attic"]}}, "Open, and done where you are: attic.", "all 2"},
		{view.Here{}, "You are at none of your places, as far as is known.", ""},
	} {
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: c.of, Limit: 10})
		if err != nil {
			t.Fatal(err)
		}
		var groups []string
		for _, g := range res.Groups {
			groups = append(groups, strings.Join(strings.Fields(fmt.Sprint(g.Kind, " ", g.Title(f.desk), " ", g.Count)), " "))
		}
		if got := strings.Join(groups, ", "); got != c.held || view.Sentence(f.desk, f.clock(), c.of) != c.says {
			t.Errorf("%+v holds %q and says %q; want %q and %q", c.of, got, view.Sentence(f.desk, f.clock(), c.of), c.held, c.says)
		}
	}
	if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.AtPlace{ID: book.ID{15: 99}}}); err == nil {
		t.Error("a place that is not there holds something")
	}
	project := f.put(book.Capture{Title: "project"})
	next := f.put(book.Capture{Title: "first", Parent: project})
	f.put(book.Capture{Title: "second", Parent: project})
	whole, err := f.desk.Todo(project)
	if err != nil {
		t.Fatal(err)
	}
	if got := view.NextAction(f.desk, f.clock(), whole); got == nil || got.ID != next {
		t.Errorf("next is %v", got)
	}
}
