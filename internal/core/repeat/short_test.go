package repeat_test

import (
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// A row says all of a rule's days.
func TestShort(t *testing.T) {
	for rule, want := range map[string]string{
		"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH":                 "every Mon to Thu",
		"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR":              "every weekday",
		"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR,SA,SU":        "every Mon to Sun",
		"FREQ=WEEKLY;BYDAY=MO,WE,FR,SA,SU":              "every Mon, Wed and Fri to Sun",
		"FREQ=WEEKLY;BYDAY=SA,SU":                       "every Sat and Sun",
		"FREQ=WEEKLY;BYDAY=SU,MO,TU":                    "every Mon, Tue and Sun",
		"FREQ=WEEKLY;BYDAY=FR":                          "every Friday",
		"FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,WE,TH;WKST=SU": "every 2 weeks on Tue to Thu",
		"FREQ=WEEKLY;INTERVAL=2;BYDAY=TU;WKST=SU":       "every 2 weeks on Tuesday",
		"FREQ=MONTHLY;BYMONTHDAY=1,15,31":               "every month on the 1st, 15th and 31st",
		"FREQ=MONTHLY;BYMONTHDAY=31;COUNT=4":            "every month on the 31st",
		"FREQ=DAILY;UNTIL=20261220":                     "every day until 20 Dec 2026",
		"FREQ=YEARLY;BYMONTH=10;BYMONTHDAY=9":           "every year on 9 October",
		"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1": "on the last working day of every month",
		"FREQ=WEEKLY;BYDAY=MO,TU;BYMONTH=1":             "every Monday and Tuesday in January",
	} {
		r, err := repeat.Parse(rule)
		if err != nil {
			t.Fatal(err)
		}
		if got := (repeat.Repeat{Rule: r}).Short(); got != want {
			t.Errorf("%s is %q, want %q", rule, got, want)
		}
	}
	r, _ := repeat.Parse("FREQ=DAILY;INTERVAL=30")
	if got := (repeat.Repeat{Rule: r, Anchor: repeat.Completion, Lead: 3, Paused: day.MustDate("2026-11-24")}).Short(); got != "30 days after done, paused" {
		t.Errorf("counted from when it was done: %q", got)
	}
}
