package view_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/plan"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// A view read a few rows at a time is the view read at once.
func TestPagesAgree(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 4))
	for round := range 40 {
		clock := clockAt(t, "Europe/Lisbon", "2026-11-24T09:10:00", 0)
		b := randomLife(t, r, clock)
		for _, q := range []view.Query{
			{Of: view.Ready}, {Of: view.WithinAWeek}, {Of: view.Today}, {Of: view.Waiting}, {Of: view.Projects},
			{Of: define(t, `{"order":["-due","estimate"]}`)},
			{Of: define(t, `{"group":"list","order":["-start"]}`)},
		} {
			titles := func(offset, limit int) (found []string) {
				q.Offset, q.Limit = offset, limit
				res, err := view.Ask(b, clock, q)
				if err != nil {
					t.Fatal(err)
				}
				for _, g := range res.Groups {
					for _, row := range g.Rows {
						found = append(found, row.Todo.ID.String())
					}
				}
				return found
			}
			var pages []string
			whole := titles(0, 1000)
			for offset := 0; offset < len(whole); offset += 3 {
				pages = append(pages, titles(offset, 3)...)
			}
			if !slices.Equal(pages, whole) {
				t.Fatalf("seed %d, round %d: %s by threes is %v; whole it is %v", seed, round, q.Of, pages, whole)
			}
		}
	}
}

// Ready stands in the order it says, with the slack of each reckoned by itself.
func TestReadyInItsOrder(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 5))
	pairs := 0
	for range 60 {
		clock := clockAt(t, "Europe/Lisbon", "2026-11-24T09:10:00", 0)
		b := randomLife(t, r, clock)
		res, err := view.Ask(roomy(b, clock), clock, view.Query{Of: view.Ready, Limit: 1000})
		if err != nil {
			t.Fatal(err)
		}
		hours := plan.NewCapacity(clock, plan.DefaultCalendar(), nil, plan.MaxDays)
		key := func(todo *book.Todo) (late, unknown int, spare, priority, created int64) {
			priority, created = -int64(todo.Priority), int64(todo.Created)
			if !todo.Due.IsZero() && !clock.Instant(todo.Due).After(clock.Now) {
				return 0, 0, todo.Due.Ordinal(), priority, created
			}
			slack, known := plan.SlackOf(hours, b, todo, plan.DueOf(b, clock, todo), 0, 30)
			if !known {
				return 1, 1, 0, priority, created
			}
			return 1, 0, int64(slack.Spare), priority, created
		}
		for _, g := range res.Groups {
			for i := 1; i < len(g.Rows); i++ {
				var k [2][5]int64
				for j := range k {
					late, unknown, spare, priority, created := key(g.Rows[i-1+j].Todo)
					k[j] = [5]int64{int64(late), int64(unknown), spare, priority, created}
				}
				if pairs++; slices.Compare(k[0][:], k[1][:]) > 0 {
					t.Errorf("seed %d: %+v stands before %+v", seed, g.Rows[i-1].Todo, g.Rows[i].Todo)
				}
			}
		}
	}
	if pairs < 300 {
		t.Errorf("only %d pairs were looked at", pairs)
	}
}
