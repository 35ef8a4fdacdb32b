package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
	"tincup/internal/seed"
)

// plainly reckons a to-do as the model says it, walking up and down anew each time.
type plainly struct{ *desk }

func (p plainly) work(t *book.Todo) plan.Work {
	if t.Person.Role == term.WaitingOn {
		return plan.Work{}
	}
	sum, some := 0, false
	var below func(*book.Todo)
	below = func(t *book.Todo) {
		for _, sub := range p.desk.desk.Subtasks(t.ID) {
			if p.desk.desk.IsOpen(sub) {
				sum, some = sum+p.work(sub).Minutes, true
				below(sub)
			}
		}
	}
	switch below(t); {
	case some:
		return plan.Work{Minutes: max(int(t.Estimate)-sum, 0)}
	case t.Estimate == 0:
		return plan.Work{Minutes: 30, Assumed: true}
	}
	return plan.Work{Minutes: int(t.Estimate)}
}

// above are a to-do and those above it, the nearest first.
func (p plainly) above(t *book.Todo) (all []*book.Todo) {
	for all = append(all, t); !t.Parent.IsZero(); all = append(all, t) {
		t = p.todo(t.Parent)
	}
	return all
}

func (p plainly) due(t *book.Todo) (due day.Moment) {
	for _, up := range p.above(t) {
		if !up.Due.IsZero() && (due.IsZero() || p.clock.Instant(up.Due).Before(p.clock.Instant(due))) {
			due = up.Due
		}
	}
	return due
}

func (p plainly) hour(t *book.Todo) book.ID {
	for _, up := range p.above(t) {
		if _, slot := up.Plan.Slot(); !up.Plan.IsZero() {
			if slot > 0 && up != t {
				return up.ID
			}
			break
		}
	}
	return book.ID{}
}

func (p plainly) cup(t *book.Todo) day.Horizon {
	h := day.Horizon{}
	for _, up := range p.above(t) {
		if h = up.Plan; !h.IsZero() {
			break
		}
	}
	if h.IsZero() && !t.Due.IsZero() {
		h = day.OnDay(t.Due.Date)
	}
	if _, slot := h.Slot(); slot > 0 {
		h = day.OnDay(h.First())
	}
	if h.Past(p.clock.Today()) {
		h = day.OnDay(p.clock.Today())
	}
	return h
}

// A Tree, asked of all to-dos in any order, says what each is when reckoned by itself.
func TestTreeAgainstPlainReckoning(t *testing.T) {
	random := seed.New(t)
	for n := range 40 {
		r := rand.New(rand.NewPCG(random, uint64(n)))
		d := newDesk(t)
		who := d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
		ids := []book.ID{{}}
		for i := range 60 {
			due := []string{"", "", "2026-11-20", "2026-11-26", "2026-11-26T10:00", "2026-12-09"}[r.IntN(6)]
			planned := []string{"", "", "", "2026-11-23", "2026-11-25", "2026-11-25T14:00/PT30M", "2026-W49", "parked"}[r.IntN(8)]
			ids = append(ids, d.put(fmt.Sprint(i), []int{0, 0, 10, 25, 90, 400}[r.IntN(6)], due, planned, ids[max(0, len(ids)-1-r.IntN(4))]))
		}
		for range 12 { // refused ones change nothing
			id := ids[1+r.IntN(60)]
			cmd := []book.Command{book.Complete{ID: id}, book.Cancel{ID: id}, book.Delete{ID: id},
				book.Edit{ID: id, Person: &book.Involved{ID: who, Role: book.WaitingOn}}}[r.IntN(4)]
			if c, err := d.desk.Do(book.Env{Clock: d.clock, NewID: func() book.ID { d.ids++; return book.ID{15: byte(d.ids)} }}, cmd); err == nil {
				d.book.Apply(c)
			}
		}
		plainly, tree := plainly{d}, plan.NewTree(d.desk, d.clock, 30)
		for _, i := range r.Perm(60) {
			todo := d.todo(ids[1+i])
			if !d.desk.IsOpen(todo) {
				continue
			}
			for what, pair := range map[string][2]any{"work": {tree.Work(todo), plainly.work(todo)}, "due": {tree.Due(todo), plainly.due(todo)},
				"hour": {tree.HourAbove(todo), plainly.hour(todo)}, "cup": {tree.Cup(todo), plainly.cup(todo)}} {
				if pair[0] != pair[1] {
					t.Fatalf("seed %d, desk %d, %s of %q: %v, reckoned by itself %v", random, n, what, todo.Title, pair[0], pair[1])
				}
			}
		}
	}
}

// A chain of 100 subtasks is reckoned like any other: each to-do by what its own estimate is
// above the work below it.
func TestTreeOfAChain(t *testing.T) {
	d := newDesk(t)
	ids := []book.ID{d.put("0", 1000+book.MaxDepth, "2026-11-30", "2026-11-25", book.ID{})}
	for i := range book.MaxDepth {
		ids = append(ids, d.put(fmt.Sprint(i+1), 10, "", "", ids[i]))
	}
	tree := plan.NewTree(d.desk, d.clock, 30)
	for i, want := range map[int]int{0: 990 + book.MaxDepth, 1: 0, book.MaxDepth - 1: 0, book.MaxDepth: 10} {
		if got := tree.Work(d.todo(ids[i])); got != (plan.Work{Minutes: want}) {
			t.Errorf("level %d: %+v, want %d minutes", i, got, want)
		}
	}
	last := d.todo(ids[book.MaxDepth])
	if got := plan.WorkOf(d.desk, d.todo(ids[0]), 30).Minutes; got != 990+book.MaxDepth {
		t.Errorf("the first alone: %d minutes", got)
	}
	if due, cup := tree.Due(last), tree.Cup(last); due != day.MustMoment("2026-11-30") || cup != day.MustHorizon("2026-11-25") {
		t.Errorf("the last is due %v, and lies on %v", due, cup)
	}
	if got := len(plan.Gather(d.desk, d.clock, term.WorkingHours, 30, day.Date{}).Jobs); got != 2 {
		t.Errorf("%d jobs, want that of the first and that of the last", got)
	}
	k := d.capacity()
	of, ok := plan.SlackOf(k, d.desk, d.todo(ids[0]), d.todo(ids[0]).Due, 0, 30)
	spare, known := plan.NewSlacks(k, d.desk, 30).Spare(d.desk, last)
	if !ok || !known || of.Work != 1000+book.MaxDepth || of.Spare != spare {
		t.Errorf("slack of the first %+v, %v, of the last %d, %v", of, ok, spare, known)
	}
}
