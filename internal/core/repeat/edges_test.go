package repeat_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// Rules that are nearly one that has words of its own, and times at their end.
func TestWordsOfLikeRules(t *testing.T) {
	for rule, want := range map[string]string{
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1":                         "on the first working day of every month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1":                        "on the last working day of every month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1,2":                       "every month on a Monday, Tuesday, Wednesday, Thursday or Friday, only the 1st and 2nd of these in each month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,SA;BYSETPOS=1":                         "every month on a Monday, Tuesday, Wednesday, Thursday or Saturday, only the 1st of these in each month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH;BYSETPOS=1":                            "every month on a Monday, Tuesday, Wednesday or Thursday, only the 1st of these in each month",
		"FREQ=MONTHLY;INTERVAL=2;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1":              "every 2 months on a Monday, Tuesday, Wednesday, Thursday or Friday, only the 1st of these in each month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1;BYMONTH=3":               "every month in March on a Monday, Tuesday, Wednesday, Thursday or Friday, only the 1st of these in each month",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1;BYMONTH=3;BYMONTHDAY=10": "every month in March on the 10th where it is a Monday, Tuesday, Wednesday, Thursday or Friday, only the 1st of these in each month",
		"FREQ=YEARLY;BYMONTH=3;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1":                "every year in March on a Monday, Tuesday, Wednesday, Thursday or Friday, only the 1st of these in each year",
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14;BYDAY=MO":                         "every year in March on the 14th where it is a Monday",
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14;BYDAY=MO;BYSETPOS=1":              "every year in March on the 14th where it is a Monday, only the 1st of these in each year",
		"FREQ=DAILY;UNTIL=20261220T093000":                                     "every day until 20 Dec 2026, 09:30",
		"FREQ=DAILY;UNTIL=20261220T000000":                                     "every day until 20 Dec 2026, 00:00",
		"FREQ=DAILY;UNTIL=20261220T235959":                                     "every day until 20 Dec 2026, 23:59",
		"FREQ=MONTHLY;SKIP=BACKWARD":                                           "every month, or the last day of a shorter month",
		"FREQ=WEEKLY;SKIP=BACKWARD":                                            "every week",
		"FREQ=MONTHLY;BYMONTHDAY=28;SKIP=BACKWARD":                             "every month on the 28th",
		"FREQ=YEARLY;BYYEARDAY=366;SKIP=BACKWARD":                              "every year on day 366 of the year, or the last day of a shorter year",
	} {
		if got := repeat.MustParse(rule).Words(); got != want {
			t.Errorf("%s: %q, want %q", rule, got, want)
		}
	}
}

// A rule that more than one of these parts narrows is not moved.
func TestMovedWithoutTwoParts(t *testing.T) {
	from, to := day.MustDate("2026-11-23"), day.MustDate("2026-11-24")
	for _, rule := range []string{"FREQ=YEARLY;BYYEARDAY=327;BYSETPOS=1", "FREQ=YEARLY;BYYEARDAY=327;BYWEEKNO=48", "FREQ=YEARLY;BYWEEKNO=48;BYDAY=MO;BYSETPOS=1", "FREQ=MONTHLY;BYDAY=MO;BYSETPOS=1"} {
		if r := repeat.MustParse(rule); r.MovedTo(from, to) != r {
			t.Errorf("%s becomes %s", rule, r.MovedTo(from, to))
		}
	}
}

// Each part at its edge: the last number that is read, and the first that is not.
func TestLimitsOfRules(t *testing.T) {
	for good, bad := range map[string]string{
		"FREQ=YEARLY;BYYEARDAY=366,-366":     "FREQ=YEARLY;BYYEARDAY=-367",
		"FREQ=MONTHLY;BYMONTHDAY=31,-31":     "FREQ=MONTHLY;BYMONTHDAY=-32",
		"FREQ=YEARLY;BYWEEKNO=53,-53":        "FREQ=YEARLY;BYWEEKNO=54",
		"FREQ=YEARLY;BYMONTH=12":             "FREQ=YEARLY;BYMONTH=-1",
		"FREQ=YEARLY;BYDAY=53MO,-53MO":       "FREQ=YEARLY;BYDAY=-54MO",
		"FREQ=MONTHLY;BYDAY=MO;BYSETPOS=366": "FREQ=MONTHLY;BYDAY=MO;BYSETPOS=367",
	} {
		if _, err := repeat.Parse(good); err != nil {
			t.Errorf("%s: %v", good, err)
		}
		var wrong *repeat.ParseError
		if _, err := repeat.Parse(bad); !errors.As(err, &wrong) {
			t.Errorf("%s is read, or %v", bad, err)
		}
	}
	for n, want := range map[int]string{40: strings.Repeat("X", 40) + ":", 41: strings.Repeat("X", 40) + "…:"} {
		if _, err := repeat.Parse("FREQ=" + strings.Repeat("X", n)); err == nil || !strings.Contains(err.Error(), "="+want) {
			t.Errorf("%d letters: %v", n, err)
		}
	}
	var many []day.Date
	for i := range 1001 {
		many = append(many, day.MustDate("2026-12-01").AddDays(i))
	}
	r := repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-24"), Without: many[:1000]}
	if _, err := r.Begin(day.TimeOfDay{}, time.UTC); err != nil {
		t.Errorf("a thousand dates left out: %v", err)
	}
	r.Without = many
	if _, err := r.Begin(day.TimeOfDay{}, time.UTC); err == nil {
		t.Error("a date more is left out")
	}
}

// Counted from when it was done, each frequency goes on by its interval.
func TestIntervalsAfterDone(t *testing.T) {
	for rule, want := range map[string]string{
		"FREQ=DAILY;INTERVAL=10": "2026-12-04", "FREQ=WEEKLY;INTERVAL=3": "2026-12-15", "FREQ=MONTHLY;INTERVAL=2": "2027-01-24", "FREQ=YEARLY;INTERVAL=2": "2028-11-24",
		"FREQ=DAILY;UNTIL=20261124": "over", "FREQ=DAILY;UNTIL=20261125": "2026-11-25",
	} {
		r, err := repeat.Repeat{Rule: repeat.MustParse(rule), First: day.MustDate("2026-11-20"), Anchor: repeat.Completion}.Begin(day.TimeOfDay{}, time.UTC)
		if err != nil {
			t.Fatal(err)
		}
		step := r.Tick(day.MustDate("2026-11-24"), day.TimeOfDay{}, time.UTC)
		got := step.Next.Current.String()
		if step.Over {
			got = "over"
		}
		if got != want {
			t.Errorf("%s: %s, want %s", rule, got, want)
		}
	}
	at, _ := day.NewTimeOfDay(9, 30)
	for rule, want := range map[string]string{
		"FREQ=DAILY;UNTIL=20261220": "FREQ=DAILY;UNTIL=20261220T093000", "FREQ=DAILY;UNTIL=20261220T170000": "FREQ=DAILY;UNTIL=20261220T170000", "FREQ=DAILY": "FREQ=DAILY",
	} {
		if got := fmt.Sprint(repeat.MustParse(rule).At(at)); got != want {
			t.Errorf("%s beside a time: %s, want %s", rule, got, want)
		}
		if got := fmt.Sprint(repeat.MustParse(rule).At(day.TimeOfDay{})); got != rule {
			t.Errorf("%s beside a date: %s", rule, got)
		}
	}
	for rule, plain := range map[string]bool{
		"FREQ=DAILY;INTERVAL=2;COUNT=3": true, "FREQ=YEARLY;BYMONTH=1;BYMONTHDAY=1": false, "FREQ=YEARLY;BYWEEKNO=1": false, "FREQ=YEARLY;BYYEARDAY=1;BYWEEKNO=1": false,
		"FREQ=MONTHLY;BYDAY=MO;BYSETPOS=1": false, "FREQ=MONTHLY;BYMONTHDAY=1;BYDAY=MO": false,
	} {
		if got := repeat.MustParse(rule).Plain(); got != plain {
			t.Errorf("%s is plain: %t", rule, got)
		}
	}
}
