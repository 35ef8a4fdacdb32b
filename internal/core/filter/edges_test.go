package filter_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/seed"
)

// On every field with dates, in odd zones and with days that begin late, a test
// holds for the days that instants and wall times belong to, and changes exactly
// at the day's edge.
func TestEdgesOfEveryDate(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 7))
	_, b := book.Alone(book.MemoryNotes{})
	zones := []string{"UTC", "Europe/Lisbon", "America/New_York", "Australia/Lord_Howe", "America/Havana", "Pacific/Apia"}
	truths := map[string][2]int{}
	for round := range share(4000) {
		zone, err := time.LoadLocation(zones[round%len(zones)])
		if err != nil {
			t.Fatal(err)
		}
		c := day.Clock{Zone: zone, DayStart: time.Duration(r.IntN(7)) * time.Hour}
		c.Now = time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC).Add(time.Duration(r.IntN(365*24*60)) * time.Minute)
		today := c.Today()
		// Near an edge: a minute on either side of a day's start, or anywhere.
		edge := c.StartOf(today.AddDays(r.IntN(9) - 4))
		instant := edge.Add(time.Duration(r.IntN(3)-1) * time.Minute)
		if r.IntN(3) == 0 {
			instant = edge.Add(time.Duration(r.IntN(48*60)) * time.Minute)
		}
		wall := day.MustMoment(instant.In(zone).Format("2006-01-02T15:04"))
		todo := &book.Todo{ID: book.ID{1}, Created: day.TimestampOf(instant), Completed: day.TimestampOf(instant), Status: book.Completed,
			Due: wall, Start: wall.Date, Plan: day.MustHorizon(wall.String() + "/PT30M")}
		days := map[string]day.Date{"created": c.DayOf(instant), "completed": c.DayOf(instant), "start": wall.Date,
			"due": c.DayOf(c.Instant(wall)), "plan": c.DayOf(c.Instant(wall))}
		n := r.IntN(5)
		for field, on := range days {
			away := on.Sub(today)
			for test, want := range map[string]bool{
				fmt.Sprintf(`"op":"on","date":"%s"`, today.AddDays(n)):                  away == n,
				fmt.Sprintf(`"op":"before","date":"P%dD"`, n):                           away < n,
				fmt.Sprintf(`"op":"after","date":"-P%dD"`, n):                           away > -n,
				fmt.Sprintf(`"op":"within-next","days":%d`, n):                          away >= 0 && away <= n,
				fmt.Sprintf(`"op":"within-past","days":%d`, n):                          away <= 0 && away >= -n,
				fmt.Sprintf(`"op":"between","date":"-P1D","to":"%s"`, today.AddDays(3)): away >= -1 && away <= 3,
			} {
				f := parse(t, `{"field":"%s",%s}`, field, test)
				got, err := f.Matcher(b, c, nil).Match(todo)
				if err != nil || got != want {
					t.Fatalf("seed %d, %s in %s, day from %v: %s %s of %v, which is on %v: %v, %v; want %v", seed, c.Wall(), zone, c.DayStart, field, test, instant.In(zone), on, got, err, want)
				}
				counts := truths[field]
				if want {
					counts[1]++
				} else {
					counts[0]++
				}
				truths[field] = counts
			}
		}
	}
	for field, n := range truths {
		if n[0] < share(4000) || n[1] < share(4000) {
			t.Errorf("%s was true %d times and false %d", field, n[1], n[0])
		}
	}
}
