package repeat_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// example is one of the date lists of RFC 5545 section 3.8.5.3, in the order
// of that section, under the words it carries there. The lists were written
// down from memory; where no UNTIL, EXDATE or SKIP is in play, rrule-go is asked
// for them too. The occurrences are at 09:00
// in New York. Those of a frequency finer than daily, or with BYHOUR, are left
// out: such rules are refused here.
type example struct {
	name, start, rule string
	// dates are "1997-09 2 9 16", months apart by ";"; "…" at the end: it goes on.
	dates   string
	without string
}

var examples = []example{
	{"daily for 10 occurrences", "1997-09-02", "FREQ=DAILY;COUNT=10", "1997-09 2-11", ""},
	{"daily until December 24, 1997", "1997-09-02", "FREQ=DAILY;UNTIL=19971224T000000Z",
		"1997-09 2-30; 1997-10 1-31; 1997-11 1-30; 1997-12 1-23", ""},
	{"every other day, forever", "1997-09-02", "FREQ=DAILY;INTERVAL=2",
		"1997-09 2 4 6 8 10 12 14 16 18 20 22 24 26 28 30; 1997-10 2 4 6 8 10 12 14 16 18 20 22 24 26 28 30; 1997-11 1 3…", ""},
	{"every 10 days, 5 occurrences", "1997-09-02", "FREQ=DAILY;INTERVAL=10;COUNT=5", "1997-09 2 12 22; 1997-10 2 12", ""},
	{"every day in January, for 3 years (yearly)", "1998-01-01",
		"FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA", "1998-01 1-31; 1999-01 1-31; 2000-01 1-31", ""},
	{"every day in January, for 3 years (daily)", "1998-01-01",
		"FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1", "1998-01 1-31; 1999-01 1-31; 2000-01 1-31", ""},
	{"weekly for 10 occurrences", "1997-09-02", "FREQ=WEEKLY;COUNT=10", "1997-09 2 9 16 23 30; 1997-10 7 14 21 28; 1997-11 4", ""},
	{"weekly until December 24, 1997", "1997-09-02", "FREQ=WEEKLY;UNTIL=19971224T000000Z",
		"1997-09 2 9 16 23 30; 1997-10 7 14 21 28; 1997-11 4 11 18 25; 1997-12 2 9 16 23", ""},
	{"every other week, forever", "1997-09-02", "FREQ=WEEKLY;INTERVAL=2;WKST=SU",
		"1997-09 2 16 30; 1997-10 14 28; 1997-11 11 25; 1997-12 9 23; 1998-01 6 20; 1998-02 3 17…", ""},
	{"weekly on Tuesday and Thursday for 5 weeks (until)", "1997-09-02", "FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH",
		"1997-09 2 4 9 11 16 18 23 25 30; 1997-10 2", ""},
	{"weekly on Tuesday and Thursday for 5 weeks (count)", "1997-09-02", "FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH",
		"1997-09 2 4 9 11 16 18 23 25 30; 1997-10 2", ""},
	{"every other week on Monday, Wednesday and Friday until December 24, 1997", "1997-09-01",
		"FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR",
		"1997-09 1 3 5 15 17 19 29; 1997-10 1 3 13 15 17 27 29 31; 1997-11 10 12 14 24 26 28; 1997-12 8 10 12 22", ""},
	{"every other week on Tuesday and Thursday, for 8 occurrences", "1997-09-02",
		"FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH", "1997-09 2 4 16 18 30; 1997-10 2 14 16", ""},
	{"monthly on the first Friday for 10 occurrences", "1997-09-05", "FREQ=MONTHLY;COUNT=10;BYDAY=1FR",
		"1997-09 5; 1997-10 3; 1997-11 7; 1997-12 5; 1998-01 2; 1998-02 6; 1998-03 6; 1998-04 3; 1998-05 1; 1998-06 5", ""},
	{"monthly on the first Friday until December 24, 1997", "1997-09-05", "FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR",
		"1997-09 5; 1997-10 3; 1997-11 7; 1997-12 5", ""},
	{"every other month on the first and last Sunday for 10 occurrences", "1997-09-07",
		"FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU", "1997-09 7 28; 1997-11 2 30; 1998-01 4 25; 1998-03 1 29; 1998-05 3 31", ""},
	{"monthly on the second-to-last Monday for 6 months", "1997-09-22", "FREQ=MONTHLY;COUNT=6;BYDAY=-2MO",
		"1997-09 22; 1997-10 20; 1997-11 17; 1997-12 22; 1998-01 19; 1998-02 16", ""},
	{"monthly on the third-to-last day of the month, forever", "1997-09-28", "FREQ=MONTHLY;BYMONTHDAY=-3",
		"1997-09 28; 1997-10 29; 1997-11 28; 1997-12 29; 1998-01 29; 1998-02 26…", ""},
	{"monthly on the 2nd and 15th for 10 occurrences", "1997-09-02", "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15",
		"1997-09 2 15; 1997-10 2 15; 1997-11 2 15; 1997-12 2 15; 1998-01 2 15", ""},
	{"monthly on the first and last day for 10 occurrences", "1997-09-30", "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1",
		"1997-09 30; 1997-10 1 31; 1997-11 1 30; 1997-12 1 31; 1998-01 1 31; 1998-02 1", ""},
	{"every 18 months on the 10th thru 15th for 10 occurrences", "1997-09-10",
		"FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15", "1997-09 10-15; 1999-03 10-13", ""},
	{"every Tuesday, every other month", "1997-09-02", "FREQ=MONTHLY;INTERVAL=2;BYDAY=TU",
		"1997-09 2 9 16 23 30; 1997-11 4 11 18 25; 1998-01 6 13 20 27; 1998-03 3 10 17 24 31…", ""},
	{"yearly in June and July for 10 occurrences", "1997-06-10", "FREQ=YEARLY;COUNT=10;BYMONTH=6,7",
		"1997-06 10; 1997-07 10; 1998-06 10; 1998-07 10; 1999-06 10; 1999-07 10; 2000-06 10; 2000-07 10; 2001-06 10; 2001-07 10", ""},
	{"every other year on January, February and March for 10 occurrences", "1997-03-10",
		"FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3",
		"1997-03 10; 1999-01 10; 1999-02 10; 1999-03 10; 2001-01 10; 2001-02 10; 2001-03 10; 2003-01 10; 2003-02 10; 2003-03 10", ""},
	{"every third year on the 1st, 100th and 200th day for 10 occurrences", "1997-01-01",
		"FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200",
		"1997-01 1; 1997-04 10; 1997-07 19; 2000-01 1; 2000-04 9; 2000-07 18; 2003-01 1; 2003-04 10; 2003-07 19; 2006-01 1", ""},
	{"every 20th Monday of the year, forever", "1997-05-19", "FREQ=YEARLY;BYDAY=20MO", "1997-05 19; 1998-05 18; 1999-05 17…", ""},
	{"Monday of week number 20, forever", "1997-05-12", "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "1997-05 12; 1998-05 11; 1999-05 17…", ""},
	{"every Thursday in March, forever", "1997-03-13", "FREQ=YEARLY;BYMONTH=3;BYDAY=TH",
		"1997-03 13 20 27; 1998-03 5 12 19 26; 1999-03 4 11 18 25…", ""},
	{"every Thursday, but only during June, July and August, forever", "1997-06-05", "FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8",
		"1997-06 5 12 19 26; 1997-07 3 10 17 24 31; 1997-08 7 14 21 28; 1998-06 4 11 18 25; 1998-07 2 9 16 23 30; " +
			"1998-08 6 13 20 27; 1999-06 3 10 17 24; 1999-07 1 8 15 22 29; 1999-08 5 12 19 26…", ""},
	{"every Friday the 13th, forever (with EXDATE)", "1997-09-02", "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13",
		"1998-02 13; 1998-03 13; 1998-11 13; 1999-08 13; 2000-10 13…", "1997-09-02"},
	{"the first Saturday that follows the first Sunday of the month, forever", "1997-09-13",
		"FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13",
		"1997-09 13; 1997-10 11; 1997-11 8; 1997-12 13; 1998-01 10; 1998-02 7; 1998-03 7; 1998-04 11; 1998-05 9; 1998-06 13…", ""},
	{"every 4 years, the first Tuesday after a Monday in November, forever", "1996-11-05",
		"FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8", "1996-11 5; 2000-11 7; 2004-11 2…", ""},
	{"the third instance into the month of Tuesday, Wednesday or Thursday, for 3 months", "1997-09-04",
		"FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3", "1997-09 4; 1997-10 7; 1997-11 6", ""},
	{"the second-to-last weekday of the month", "1997-09-29", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2",
		"1997-09 29; 1997-10 30; 1997-11 27; 1997-12 30; 1998-01 29; 1998-02 26; 1998-03 30…", ""},
	{"days generated with WKST=MO", "1997-08-05", "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO", "1997-08 5 10 19 24", ""},
	{"days generated with WKST=SU", "1997-08-05", "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU", "1997-08 5 17 19 31", ""},
	{"an invalid date (February 30) is ignored", "2007-01-15", "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5",
		"2007-01 15 30; 2007-02 15; 2007-03 15 30", ""},
	// An EXDATE that is one of the dates: section 3.8.5.1, the list is ours.
	{"EXDATE takes a date out and COUNT still counts it", "1997-09-02", "FREQ=DAILY;COUNT=10", "1997-09 2 3 5-11", "1997-09-04"},
}

// The examples of RFC 7529 section 4.2 with RSCALE=GREGORIAN, from memory.
var skipExamples = []example{
	{"every leap day, the day after in other years", "2012-02-29", "RSCALE=GREGORIAN;FREQ=YEARLY;SKIP=FORWARD",
		"2012-02 29; 2013-03 1; 2014-03 1; 2015-03 1; 2016-02 29; 2017-03 1…", ""},
	{"every leap day, the day before in other years", "2012-02-29", "RSCALE=GREGORIAN;FREQ=YEARLY;SKIP=BACKWARD",
		"2012-02 29; 2013-02 28; 2014-02 28; 2015-02 28; 2016-02 29…", ""},
	{"every leap day and no other", "2012-02-29", "RSCALE=GREGORIAN;FREQ=YEARLY;SKIP=OMIT", "2012-02 29; 2016-02 29; 2020-02 29…", ""},
	{"the last day of months without a 31st", "2014-01-31", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD;COUNT=4",
		"2014-01 31; 2014-02 28; 2014-03 31; 2014-04 30", ""},
	{"the day after months without a 31st", "2014-01-31", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=FORWARD;COUNT=4",
		"2014-01 31; 2014-03 1 31; 2014-05 1", ""},
	{"no date in months without a 31st", "2014-01-31", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=OMIT;COUNT=4",
		"2014-01 31; 2014-03 31; 2014-05 31; 2014-07 31", ""},
}

// expand turns "1997-09 2 4-6; 1997-10 1…" into dates.
func (e example) expand(t testing.TB) (dates []day.Date, goesOn bool) {
	text, goesOn := strings.CutSuffix(e.dates, "…")
	for stretch := range strings.SplitSeq(text, "; ") {
		month, days, _ := strings.Cut(stretch, " ")
		for field := range strings.FieldsSeq(days) {
			var from, to int
			if n, _ := fmt.Sscanf(field, "%d-%d", &from, &to); n == 1 {
				to = from
			} else if n != 2 {
				t.Fatalf("%s: %q is not a day", e.name, field)
			}
			for n := from; n <= to; n++ {
				dates = append(dates, day.MustDate(fmt.Sprintf("%s-%02d", month, n)))
			}
		}
	}
	return dates, goesOn
}

func (e example) series(t testing.TB) *repeat.Series {
	zone, err := time.LoadLocation("America/New_York")
	if err != nil {
		t.Fatal(err)
	}
	nine, _ := day.NewTimeOfDay(9, 0)
	o := repeat.Options{Time: nine, Zone: zone}
	if e.without != "" {
		o.Without = []day.Date{day.MustDate(e.without)}
	}
	s, err := repeat.New(repeat.MustParse(e.rule), day.MustDate(e.start), o)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func TestExamplesOfTheStandards(t *testing.T) {
	for _, e := range slices.Concat(examples, skipExamples) {
		t.Run(e.name, func(t *testing.T) {
			want, goesOn := e.expand(t)
			s := e.series(t)
			var got []day.Date
			for d := range s.From(day.Date{}) {
				if got = append(got, d); len(got) == len(want)+1 {
					break
				}
			}
			if goesOn && len(got) > len(want) {
				got = got[:len(want)]
			}
			if !slices.Equal(got, want) {
				t.Fatalf("%s from %s:\n got %v\nwant %v", e.rule, e.start, got, want)
			}
			if e.without == "" && !strings.Contains(e.rule, "UNTIL") && !strings.Contains(e.rule, "SKIP") {
				if theirs := referenceDates(t, e, len(want)); !slices.Equal(theirs, want) {
					t.Fatalf("rrule-go has %v, the list %v", theirs, want)
				}
			}
			for i := 1; i < len(want); i++ { // from within
				if s.After(want[i-1]) != want[i] {
					t.Fatalf("after %s comes %s, want %s", want[i-1], s.After(want[i-1]), want[i])
				}
			}
		})
	}
}

// referenceDates asks rrule-go for the first dates of an example.
func referenceDates(t *testing.T, e example, count int) []day.Date {
	rule, err := reference(e.rule, day.MustDate(e.start))
	if err != nil {
		t.Fatal(err)
	}
	var dates []day.Date
	for next := rule.Iterator(); len(dates) < count; {
		d, ok := next()
		if !ok {
			break
		}
		dates = append(dates, day.DateOf(d))
	}
	return dates
}
