package view_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// Counts that are kept are those of counting anew, as time passes, forwards and back, over
// dues and days, in zones and with days that begin late; and after changes in between.
func TestKeptCountsAsTimePasses(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 5))
	for round := range 30 {
		zone := []string{"UTC", "Europe/Lisbon", "America/New_York", "Australia/Lord_Howe"}[round%4]
		clock := clockAt(t, zone, "2026-10-20T09:00:00", time.Duration(r.IntN(7))*time.Hour)
		s := randomShelf(t, r, clock.Today(), 40)
		s.clock = &clock
		for i, asks := range []string{`{"field":"overdue","op":"yes"}`, `{"any":[{"field":"overdue","op":"yes"},{"field":"paused","op":"yes"},
			{"field":"status","op":"any-of","values":["completed"]}]}`, `{"field":"due","op":"within-next","days":1}`} {
			s.do(book.AddView{Name: fmt.Sprintf("view %d", i), Question: `{"filter":` + asks + `}`, Counted: true})
		}
		tally := view.NewTally(s.desk, clock)
		for step := range 60 {
			switch r.IntN(6) {
			case 0:
				clock.Now = clock.Now.Add(-time.Duration(r.IntN(3*24*60)) * time.Minute)
			case 1:
				clock.DayStart = time.Duration(r.IntN(7)) * time.Hour
			case 2, 3:
				clock.Now = clock.Now.Add(time.Duration(r.IntN(10*60*60)) * time.Second)
			default:
				all := s.desk.Open()
				if len(all) == 0 {
					continue
				}
				due := day.Moment{Date: clock.Today().AddDays(r.IntN(5) - 2)}
				if r.IntN(2) == 0 {
					due.Time, _ = day.NewTimeOfDay(r.IntN(24), r.IntN(60))
				}
				// Some start after it, and are refused.
				c, err := s.desk.Do(book.Env{Clock: clock, NewID: s.newID}, book.Edit{ID: all[r.IntN(len(all))].ID, Due: &due})
				if err != nil || c.Empty() {
					continue
				}
				s.book.Apply(c)
				tally.Follow(s.desk, c)
			}
			kept, full := tally.Survey(s.desk, clock), countAnew(s.desk, clock)
			if !reflect.DeepEqual(kept, full) {
				t.Fatalf("seed %d, round %d, step %d, %s: kept\n%+v\nwant\n%+v", seed, round, step, clock.Wall(), *kept, *full)
			}
		}
	}
}
