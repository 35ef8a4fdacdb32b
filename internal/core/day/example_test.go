package day_test

import (
	"errors"
	"fmt"
	"time"

	"tincup/internal/core/day"
)

func ExampleParseHorizon() {
	today := day.MustDate("2026-11-24")
	for _, s := range []string{"2026-11-27", "2026-W48", "2026-12", "parked", "2026-02-31"} {
		h, err := day.ParseHorizon(s)
		if errors.Is(err, day.ErrImpossible) {
			fmt.Println(err)
			continue
		}
		fmt.Printf("%s: %q, later %v, current %v\n", h, h.Words(), h.Later(today), h.Current(today))
	}
	// Output:
	// 2026-11-27: "Fri 27 Nov 2026", later true, current false
	// 2026-W48: "week 48 of 2026", later false, current true
	// 2026-12: "December 2026", later true, current false
	// parked: "parked", later false, current false
	// "2026-02-31" does not exist in the calendar
}

func ExampleClock_DayOf() {
	late := time.Date(2026, 11, 25, 1, 30, 0, 0, time.UTC)
	fmt.Println(day.Clock{Zone: time.UTC}.DayOf(late))
	fmt.Println(day.Clock{Zone: time.UTC, DayStart: 4 * time.Hour}.DayOf(late))
	// Output:
	// 2026-11-25
	// 2026-11-24
}

func ExampleDate_AddMonths() {
	fmt.Println(day.MustDate("2026-01-31").AddMonths(1))
	// Output: 2026-02-28
}
