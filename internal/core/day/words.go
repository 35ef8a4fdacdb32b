package day

import (
	"fmt"
	"strconv"
)

// Words returns the date as "Fri 27 Nov 2026", or "" for none.
func (d Date) Words() string {
	if d.IsZero() {
		return ""
	}
	year, month, dom := d.Civil()
	b := make([]byte, 0, len("Fri 27 Nov 2026"))
	b = append(b, d.Weekday().String()[:3]...)
	b = strconv.AppendInt(append(b, ' '), int64(dom), 10)
	b = append(append(b, ' '), month.String()[:3]...)
	return string(strconv.AppendInt(append(b, ' '), int64(year), 10))
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
