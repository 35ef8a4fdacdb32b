package day

import "fmt"

// Words returns the date as "Fri 27 Nov 2026", or "" for none.
func (d Date) Words() string {
	if d.IsZero() {
		return ""
	}
	year, month, dom := d.Civil()
	return fmt.Sprintf("%.3s %d %.3s %d", d.Weekday(), dom, month, year)
}

// Words returns the horizon as a person says it: "Fri 27 Nov 2026, 14:00 for
// 30 min", "week 48 of 2026", "November 2026", "parked"; "" for none.
func (h Horizon) Words() string {
	switch h.precision {
	case Day:
		if !h.slot.IsZero() {
			return fmt.Sprintf("%s, %s for %d min", h.first.Words(), h.slot, h.minutes)
		}
		return h.first.Words()
	case Week:
		year, week := h.first.ISOWeek()
		return fmt.Sprintf("week %d of %d", week, year)
	case Month:
		year, month, _ := h.first.Civil()
		return fmt.Sprintf("%s %d", month, year)
	case Parked:
		return "parked"
	}
	return ""
}
