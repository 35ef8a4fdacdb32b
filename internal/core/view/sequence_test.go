package view_test

import (
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"reflect"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

var sequences = flag.Float64("sequences", 0.02, "share of the random sequences of a full run")

// counted is a run whose counts are kept beside it.
type counted struct {
	*sequence.Run
	tally *view.Tally
}

func newCounted(account book.ID) *counted {
	r := &counted{Run: sequence.New(account)}
	r.Applied = func(c *book.Change) {
		if r.tally != nil {
			r.tally.Follow(r.Desk, c)
		}
	}
	return r
}

// compare compares the counts that are kept with a full count.
func (r *counted) compare() error {
	clock := r.Env().Clock
	if r.tally == nil {
		r.tally = view.NewTally(r.Desk, clock)
	}
	kept, full := r.tally.Survey(r.Desk, clock), countAnew(r.Desk, clock)
	kept.Complete(r.Desk, clock)
	if !reflect.DeepEqual(kept, full) {
		return fmt.Errorf("the counts that are kept are\n%+v\nwant\n%+v", *kept, *full)
	}
	if loads, err := slowLoads(r.Desk, clock); err != nil || !maps.Equal(kept.Loads, loads) {
		return fmt.Errorf("the loads that are kept are\n%v\nadded up one by one they are\n%v, %v", kept.Loads, loads, err)
	}
	lying := map[day.Horizon]view.Loads{}
	for _, l := range r.tally.Lying(r.Desk, func(day.Horizon) bool { return true }) {
		if l.Work.Minutes > 0 { // no project whose subtasks have the work, and none who waits
			add(lying, l.On, r.Desk.HoursOf(l.Todo), l.Work)
		}
	}
	if !maps.Equal(lying, kept.Loads) {
		return fmt.Errorf("what lies there is\n%v\nand its load\n%v", lying, kept.Loads)
	}
	for _, v := range r.Desk.Views() {
		d, err := view.Own{ID: v.ID}.Definition(r.Desk)
		if err != nil {
			return err
		}
		held, err := d.Holds(r.Desk, clock)
		if n, counted := kept.Views[v.ID]; err != nil || counted != v.Counted || counted && n != len(held) {
			return fmt.Errorf("the view %s is counted as %d (%t); it holds %d, %v", v.Question, n, counted, len(held), err)
		}
	}
	return nil
}

// add adds work to the load of its kind of hours; what takes none is in no load.
func add(to map[day.Horizon]view.Loads, cup day.Horizon, kind term.Hours, work plan.Work) {
	loads := to[cup]
	switch {
	case kind == term.NoHours:
		return
	case work.Assumed:
		loads[kind].Assumed += work.Minutes
	}
	loads[kind].Minutes += work.Minutes
	to[cup] = loads
}

// slowLoads adds the work of each open to-do to the cup it lies in: today's, where Today shows it
// for another reason than that it can be started.
func slowLoads(desk *book.Desk, clock day.Clock) (map[day.Horizon]view.Loads, error) {
	shown, err := view.Ask(desk, clock, view.Query{Of: view.Today, Limit: 1000})
	if err != nil {
		return nil, err
	}
	today := map[book.ID]bool{}
	for _, g := range shown.Groups {
		for _, row := range g.Rows {
			today[row.Todo.ID] = g.Kind != view.CanStart
		}
	}
	chosen, _ := desk.Settings()
	loads := map[day.Horizon]view.Loads{}
	for _, t := range desk.Open() {
		work, cup := plan.WorkOf(desk, t, chosen.AssumedMinutes()), plan.CupOf(desk, clock, t)
		if today[t.ID] {
			cup = day.OnDay(clock.Today())
		}
		if work.Minutes == 0 || cup.IsZero() {
			continue
		}
		add(loads, cup, desk.HoursOf(t), work)
	}
	return loads, nil
}

// After each step of a random sequence, there and back, the counts that are kept are those of a
// full count.
func TestKeptCountsOverSequences(t *testing.T) {
	random := seed.New(t)
	for name, weights := range map[string]map[string]int{"everyday": sequence.Everyday, "trees": sequence.Trees, "shelves": sequence.Shelves,
		"labels": sequence.Labels, "places": sequence.Places, "settings": sequence.Chosen} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			choices := sequence.Choices(weights)
			for i := range int(1000 * *sequences) {
				r := newCounted(book.ID{15: 1})
				for n, s := range sequence.Generate(rand.New(rand.NewPCG(random, uint64(i))), choices) {
					_, err := r.Take(s)
					if err == nil {
						err = r.compare()
					}
					if err != nil {
						t.Fatalf("seed %d, sequence %d, step %d, %v: %v", random, i, n, s, err)
					}
				}
				if err := r.ThereAndBack(sequence.Dump(sequence.New(book.ID{15: 1}).Desk), func(string, string) error { return r.compare() }); err != nil {
					t.Fatalf("seed %d, sequence %d: %v", random, i, err)
				}
			}
		})
	}
}

// Counts of views of one's own follow what tags are nested under, on which shelf a list stands, and
// whether it is put away, though no to-do is written by it.
func TestCountedViewsFollowNames(t *testing.T) {
	r := newCounted(book.ID{15: 1})
	do := func(cmd book.Command) *book.Change {
		t.Helper()
		c, err := r.Desk.Do(r.Env(), cmd)
		if err != nil {
			t.Fatal(err)
		}
		r.Keep(c)
		if err := r.compare(); err != nil {
			t.Errorf("%s: %v", c.Says, err)
		}
		return c
	}
	home := do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	museum := do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	list := do(book.AddList{Name: "Loans", Shelf: museum}).Lists[0].After.ID
	made := do(book.Capture{Title: "a", List: list, Tags: []string{"calls"}})
	work := do(book.Capture{Title: "b", Tags: []string{"work"}}).Todo().Tags[0]
	view := func(question string) book.ID {
		return do(book.AddView{Name: question, Question: question, Counted: true}).Views[0].After.ID
	}
	tagged := view(fmt.Sprintf(`{"filter":{"field":"tag","op":"any-of","values":[%q]}}`, work))
	there := view(fmt.Sprintf(`{"filter":{"field":"shelf","op":"any-of","values":[%q]}}`, museum))
	counts := func() string {
		s := r.tally.Survey(r.Desk, r.Env().Clock)
		return fmt.Sprint(s.Views[tagged], s.Views[there])
	}
	name := "work/calls"
	yes, no := true, false
	for _, step := range []struct {
		cmd  book.Command
		want string
	}{
		{book.EditTag{ID: made.Todo().Tags[0], Name: &name}, "2 1"},
		{book.MoveList{ID: list, Shelf: home}, "2 0"},
		{book.MoveList{ID: list, Shelf: museum}, "2 1"},
		{book.EditList{ID: list, Archived: &yes}, "1 0"},
		{book.EditList{ID: list, Archived: &no}, "2 1"},
		{book.DeleteTag{ID: made.Todo().Tags[0]}, "1 1"},
	} {
		if c := do(step.cmd); counts() != step.want {
			t.Errorf("%s: %s; want %s", c.Says, counts(), step.want)
		}
	}
}
