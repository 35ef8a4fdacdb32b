package remind

import (
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
)

// Later is a time to which a ring is often put off.
type Later struct {
	Words string
	// Minutes are from now; 0 where it is a time of its own.
	Minutes int
	Until   time.Time
}

// Laters are the times to which a ring is often put off: in ten minutes, in an hour, tonight
// where that is still to come, and tomorrow at the hour of reminders.
func Laters(clock day.Clock, s settings.Settings) []Later {
	all := []Later{
		{Words: "In 10 minutes", Minutes: 10, Until: clock.Now.Add(10 * time.Minute)},
		{Words: "In an hour", Minutes: 60, Until: clock.Now.Add(time.Hour)},
	}
	today := clock.Today()
	if tonight := clock.Instant(day.Moment{Date: today, Time: s.PartOfDay(settings.Tonight)}); tonight.After(clock.Now) {
		all = append(all, Later{Words: "Tonight", Until: tonight})
	}
	return append(all, Later{Words: "Tomorrow", Until: clock.Instant(day.Moment{Date: today.AddDays(1), Time: s.ReminderHour()})})
}
