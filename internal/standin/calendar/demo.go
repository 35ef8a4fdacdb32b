package calendar

import (
	"time"

	"tincup/internal/core/day"
)

// Demo fills the service with the two calendars of the demo, dated round a day.
func (s *Service) Demo(today day.Date) {
	at := func(in int, clock string) string { return today.AddDays(in).String() + "T" + clock }
	// A weekday some weeks ago, from which on something repeats.
	since := func(weekday time.Weekday, clock string) string {
		from := today.AddDays(-70)
		for from.Weekday() != weekday {
			from = from.AddDays(1)
		}
		return from.String() + "T" + clock
	}
	s.Put("museum", "Museum",
		Event{UID: "staff@museum", Title: "Staff meeting", Start: since(time.Monday, "09:30"), End: since(time.Monday, "10:15"), Rule: "FREQ=WEEKLY"},
		Event{UID: "drill@museum", Title: "Fire drill", Start: at(1, "11:00"), End: at(1, "11:30")},
		Event{UID: "volunteers@museum", Title: "Volunteers’ meeting", Start: at(2, "14:00"), End: at(2, "16:00")},
		Event{UID: "lamp@museum", Title: "The great lamp is lit for visitors", Start: at(3, "17:00"), End: at(3, "17:30"), Free: true},
		Event{UID: "school@museum", Title: "Class from the harbour school", Start: at(8, "10:00"), End: at(8, "12:00")},
		Event{UID: "trustees@museum", Title: "Trustees", Start: at(9, "15:00"), End: at(9, "16:30")},
		Event{UID: "inventory@museum", Title: "Inventory week", Start: today.AddDays(14).String(), End: today.AddDays(19).String()},
	)
	s.Put("choir", "Choir",
		Event{UID: "practice@choir", Title: "Choir practice", Start: since(time.Thursday, "19:30"), End: since(time.Thursday, "21:30"), Rule: "FREQ=WEEKLY"},
		Event{UID: "concert@choir", Title: "Carol concert", Start: at(20, "17:00"), End: at(20, "19:00")},
		Event{UID: "weekend@choir", Title: "Choir weekend", Start: today.AddDays(11).String(), End: today.AddDays(13).String()},
	)
}
