package remind_test

import (
	"testing"
	"time"

	"tincup/internal/core/day"
)

// slowZone is a zone as its walls read minute by minute.
type slowZone struct {
	zone *time.Location
	// first is the first instant, in minutes, at which each wall minute reads.
	first map[day.Moment]int64
	// gaps are wall minutes that never read, with the instant that stands for each.
	gaps map[day.Moment]int64
}

// readZone reads every minute of some days around an instant.
func readZone(zone *time.Location, around time.Time, days int) slowZone {
	s := slowZone{zone, map[day.Moment]int64{}, map[day.Moment]int64{}}
	from, to := around.AddDate(0, 0, -days).Unix()/60, around.AddDate(0, 0, days).Unix()/60
	wall := func(minute int64) time.Time { return time.Unix(minute*60, 0).In(zone) }
	var before time.Time
	for minute := from; minute < to; minute++ {
		now := wall(minute)
		read := naive(now)
		if _, twice := s.first[moment(read)]; !twice {
			s.first[moment(read)] = minute
		}
		if !before.IsZero() {
			// The clocks went over these: each moves forward by the gap.
			skipped := int64(0)
			for missing := before.Add(time.Minute); missing.Before(read); missing = missing.Add(time.Minute) {
				s.gaps[moment(missing)] = minute + skipped
				skipped++
			}
		}
		before = read
	}
	return s
}

// naive is the wall time of an instant as if it were UTC.
func naive(at time.Time) time.Time {
	return time.Date(at.Year(), at.Month(), at.Day(), at.Hour(), at.Minute(), 0, 0, time.UTC)
}

func moment(at time.Time) day.Moment {
	t, _ := day.NewTimeOfDay(at.Hour(), at.Minute())
	return day.Moment{Date: day.DateOf(at), Time: t}
}

func (s slowZone) instant(m day.Moment) (minute int64, known bool) {
	if at, reads := s.first[m]; reads {
		return at, true
	}
	at, gap := s.gaps[m]
	return at, gap
}

// Reminders before dues, with and without a time, around each change of the clock of a year,
// against zones that were read minute by minute.
func TestAroundEveryChangeOfTheClock(t *testing.T) {
	hour, _ := day.NewTimeOfDay(9, 0)
	changes, compared := 0, 0
	for _, name := range []string{"Europe/Lisbon", "America/New_York", "Australia/Lord_Howe"} {
		zone, err := time.LoadLocation(name)
		if err != nil {
			t.Fatal(err)
		}
		for at := time.Date(2026, 1, 1, 0, 0, 0, 0, zone); at.Year() == 2026; {
			_, change := at.ZoneBounds()
			if change.IsZero() || change.In(zone).Year() != 2026 {
				break
			}
			changes++
			slow := readZone(zone, change, 5)
			clock := day.Clock{Now: at, Zone: zone}
			for quarter := -3 * 96; quarter < 3*96; quarter++ {
				due := moment(naive(change.In(zone)).Add(time.Duration(quarter) * 15 * time.Minute))
				if quarter%96 == 0 {
					due.Time = day.TimeOfDay{} // a date alone
				}
				for _, before := range []int{0, 5, 60, 90, 180, 24 * 60, 25 * 60, 2 * 24 * 60, 49*60 + 10} {
					of := due
					if !of.HasTime() {
						of.Time = hour
					}
					of.Date = of.Date.AddDays(-(before / (24 * 60))) // days are counted on the calendar
					minute, known := slow.instant(of)
					if !known {
						t.Fatalf("%s: %s reads never", name, of)
					}
					minute -= int64(before % (24 * 60)) // hours and minutes pass one by one
					got := clock.Rings(day.ReminderBefore(before), due, hour)
					if got.Unix() != minute*60 {
						t.Errorf("%s, due %s, %d min before: %v, want %v", name, due, before, got, time.Unix(minute*60, 0).In(zone))
					}
					compared++
				}
				if at := clock.Rings(day.ReminderAt(due), day.Moment{}, hour); due.HasTime() {
					if minute, _ := slow.instant(due); at.Unix() != minute*60 {
						t.Errorf("%s, at %s: %v", name, due, at)
					}
				}
			}
			at = change.In(zone)
		}
	}
	if changes != 6 || compared < 30_000 {
		t.Errorf("%d changes of the clock and %d reminders were compared", changes, compared)
	}
}
