package repeat_test

import (
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// BenchmarkNext reckons the next date of a rule, begun thirty years or a week
// ago, as a ratio to rrule-go's time. The bars are 1/100 and 1.
func BenchmarkNext(b *testing.B) {
	today := day.MustDate("2026-11-24")
	for name, rule := range map[string]string{
		"daily": "FREQ=DAILY;INTERVAL=3", "weekday": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
		"monthly-ordinal": "FREQ=MONTHLY;BYDAY=-1FR", "yearly": "FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14",
	} {
		for age, start := range map[string]day.Date{"30-years": today.AddMonths(-360), "last-week": today.AddDays(-7)} {
			b.Run(name+"/"+age, func(b *testing.B) {
				b.ReportAllocs()
				series, err := repeat.New(repeat.MustParse(rule), start, repeat.Options{})
				if err != nil {
					b.Fatal(err)
				}
				theirs, err := reference(rule, start)
				if err != nil {
					b.Fatal(err)
				}
				now := instant(today)
				if day.DateOf(theirs.After(now, false)) != series.After(today) {
					b.Fatal("they do not agree")
				}
				for b.Loop() {
					series.After(today)
				}
				ours := float64(b.Elapsed()) / float64(b.N)
				rounds, begun := 0, time.Now()
				for time.Since(begun) < 200*time.Millisecond {
					theirs.After(now, false)
					rounds++
				}
				took := float64(time.Since(begun)) / float64(rounds)
				b.ReportMetric(ours/took, "x-rrule-go")
				b.ReportMetric(took, "ns-rrule-go")
			})
		}
	}
}
