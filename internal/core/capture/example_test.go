package capture_test

import (
	"fmt"

	"tincup/internal/core/capture"
)

func ExampleRead() {
	d := capture.Read("Order mount board, by Friday 4pm, in Night Signals, high, 20 min", at(tuesday))
	fmt.Println(d.Title)
	for _, c := range d.Chips {
		fmt.Printf("%s %s (from %q)\n", c.Field, c.Value, c.Words)
	}
	// Output:
	// Order mount board
	// due Fri 27 Nov 2026, 16:00 (from "by Friday 4pm")
	// list Night Signals (from "in Night Signals")
	// priority high (from "high")
	// estimate 20 min (from "20 min")
}

func ExampleSay() {
	d := capture.Read(`Read "Tomorrow" next Friday at noon`, at(tuesday))
	fmt.Println(capture.Say(d, at(tuesday)))
	// Output: Read Tomorrow, by 4 Dec 2026 12:00
}
