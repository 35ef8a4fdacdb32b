package repeat_test

import (
	"fmt"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func ExampleNew() {
	rule := repeat.MustParse("FREQ=MONTHLY;BYDAY=-1FR;UNTIL=20270331")
	series, err := repeat.New(rule, day.MustDate("2026-11-24"), repeat.Options{})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(rule.Words())
	for d := range series.Between(day.MustDate("2027-01-01"), day.MaxDate) {
		fmt.Println(d.Words())
	}
	// Output:
	// every month on the last Friday until 31 Mar 2027
	// Fri 29 Jan 2027
	// Fri 26 Feb 2027
	// Fri 26 Mar 2027
}

func ExampleRepeat_Tick() {
	weekly, err := repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=MO"), First: day.MustDate("2026-11-30")}.Begin(day.TimeOfDay{}, time.UTC)
	if err != nil {
		fmt.Println(err)
		return
	}
	step := weekly.Tick(day.MustDate("2026-12-15"), day.TimeOfDay{}, time.UTC)
	fmt.Println("next", step.Next.Current, "missed", step.Missed)
	// Output: next 2026-12-21 missed 2
}
