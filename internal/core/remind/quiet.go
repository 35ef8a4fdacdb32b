package remind

import (
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
)

// Quiet returns when the pause or the quiet hours end in which Now lies; ok is false where it
// rings now.
func Quiet(clock day.Clock, s settings.Settings) (end time.Time, ok bool) {
	at := clock.Now
	for range 3 { // a pause may end within quiet hours, and these within the pause
		next := at
		if paused := s.PausedUntil(); !paused.IsZero() {
			if until := clock.Instant(paused); until.After(next) {
				next = until
			}
		}
		if until, quiet := quietHours(clock, s, next); quiet {
			next = until
		}
		if !next.After(at) {
			break
		}
		at = next
	}
	return at, at.After(clock.Now)
}

// quietHours returns the end of the quiet hours in which an instant lies.
func quietHours(clock day.Clock, s settings.Settings, at time.Time) (end time.Time, ok bool) {
	from, to, any := s.QuietHours()
	if !any {
		return end, false
	}
	today := clock.WallOf(at).Date
	for _, begins := range []day.Date{today.AddDays(-1), today} {
		ends := begins
		if to.Minutes() <= from.Minutes() {
			ends = begins.AddDays(1)
		}
		first, last := clock.Instant(day.Moment{Date: begins, Time: from}), clock.Instant(day.Moment{Date: ends, Time: to})
		if !at.Before(first) && at.Before(last) {
			return last, true
		}
	}
	return end, false
}
