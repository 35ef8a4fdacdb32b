package repeat_test

import (
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func TestParseAndFormat(t *testing.T) {
	// Text and canonical form; "" where they are the same.
	for text, want := range map[string]string{
		"FREQ=DAILY":                               "",
		"RRULE:FREQ=DAILY;INTERVAL=1":              "FREQ=DAILY",
		" freq=weekly;byday=th,mo ":                "FREQ=WEEKLY;BYDAY=MO,TH",
		"BYDAY=-1FR;INTERVAL=02;FREQ=MONTHLY":      "FREQ=MONTHLY;INTERVAL=2;BYDAY=-1FR",
		"FREQ=MONTHLY;BYDAY=+1MO,MO":               "FREQ=MONTHLY;BYDAY=1MO,MO",
		"FREQ=YEARLY;BYDAY=20MO":                   "",
		"SKIP=BACKWARD;FREQ=MONTHLY;BYMONTHDAY=31": "FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD",
		"FREQ=YEARLY;RSCALE=gregorian;SKIP=OMIT":   "FREQ=YEARLY",
		"FREQ=WEEKLY;WKST=MO;COUNT=3":              "FREQ=WEEKLY;COUNT=3",
		"FREQ=WEEKLY;UNTIL=20261220;WKST=SU":       "FREQ=WEEKLY;WKST=SU;UNTIL=20261220",
		"FREQ=DAILY;UNTIL=20261220T170000Z":        "",
		"FREQ=DAILY;UNTIL=20261220T170060":         "FREQ=DAILY;UNTIL=20261220T170059",
		"FREQ=YEARLY;BYWEEKNO=20,-1;BYDAY=MO":      "",
		"FREQ=YEARLY;BYYEARDAY=1,100,-1":           "",
		"FREQ=MONTHLY;BYDAY=TU,WE,TH;BYSETPOS=3,3": "FREQ=MONTHLY;BYDAY=TU,WE,TH;BYSETPOS=3",
	} {
		r, err := repeat.Parse(text)
		if err != nil {
			t.Errorf("%s: %v", text, err)
			continue
		}
		if want == "" {
			want = text
		}
		if r.String() != want {
			t.Errorf("%s: canonical form %s, want %s", text, r, want)
		}
		if again, err := repeat.Parse(r.String()); err != nil || again.String() != want {
			t.Errorf("%s: %s does not read back: %v", text, r, err)
		}
	}
}

func TestRefusedRules(t *testing.T) {
	for text, want := range map[string]string{
		"":                                  "empty",
		"FREQ=HOURLY":                       "nothing comes round more often than DAILY",
		"FREQ=MINUTELY":                     "more often than DAILY",
		"FREQ=DAYLY":                        "DAILY, WEEKLY, MONTHLY or YEARLY is wanted",
		"INTERVAL=2":                        "FREQ is missing",
		"FREQ=DAILY;INTERVAL=0":             "INTERVAL=0: a number from 1",
		"FREQ=DAILY;INTERVAL=-1":            "INTERVAL=-1",
		"FREQ=DAILY;INTERVAL=+1":            "INTERVAL=+1",
		"FREQ=DAILY;INTERVAL=99999999":      "INTERVAL=",
		"FREQ=DAILY;INTERVAL=":              "INTERVAL=",
		"FREQ=DAILY;COUNT=0":                "COUNT=0",
		"FREQ=DAILY;COUNT=3;UNTIL=20261220": "COUNT and UNTIL cannot stand together",
		"FREQ=MONTHLY;BYMONTHDAY=32":        "BYMONTHDAY=32: numbers from 1 to 31",
		"FREQ=MONTHLY;BYMONTHDAY=0":         "BYMONTHDAY=0",
		"FREQ=YEARLY;BYMONTH=13":            "BYMONTH=13",
		"FREQ=YEARLY;BYMONTH=-1":            "BYMONTH=-1",
		"FREQ=YEARLY;BYYEARDAY=367":         "BYYEARDAY=367",
		"FREQ=YEARLY;BYWEEKNO=54":           "BYWEEKNO=54",
		"FREQ=MONTHLY;BYWEEKNO=5":           "BYWEEKNO goes only with FREQ=YEARLY",
		"FREQ=DAILY;BYYEARDAY=5":            "BYYEARDAY goes only with FREQ=YEARLY",
		"FREQ=WEEKLY;BYMONTHDAY=5":          "BYMONTHDAY does not go with FREQ=WEEKLY",
		"FREQ=WEEKLY;BYDAY=1MO":             "numbered weekday",
		"FREQ=YEARLY;BYWEEKNO=5;BYDAY=1MO":  "does not go with BYWEEKNO",
		"FREQ=MONTHLY;BYDAY=54MO":           "BYDAY=54MO",
		"FREQ=WEEKLY;BYDAY=XX":              "BYDAY=XX: weekdays are wanted",
		"FREQ=WEEKLY;BYDAY=":                "BYDAY=",
		"FREQ=WEEKLY;BYSETPOS=1":            "BYSETPOS picks from what another BY part gives",
		"FREQ=DAILY;BYHOUR=9":               "a repeat has days, not hours",
		"FREQ=DAILY;BYMINUTE=9":             "a repeat has days, not hours",
		"FREQ=DAILY;RSCALE=HEBREW":          "only GREGORIAN is known",
		"FREQ=DAILY;SKIP=SIDEWAYS":          "OMIT, BACKWARD or FORWARD",
		"FREQ=DAILY;UNTIL=2026":             "UNTIL=2026: a date such as",
		"FREQ=DAILY;UNTIL=20260231":         "UNTIL=20260231",
		"FREQ=DAILY;UNTIL=20261220T2500Z":   "UNTIL=",
		"FREQ=DAILY;FREQ=DAILY":             "each part may stand once",
		"FREQ=DAILY;COLOUR=RED":             "there is no such part",
		"FREQ=DAILY;":                       "is not a part of a rule",
		"every day":                         "is not a part of a rule",
		"FREQ=DAILY;BYMONTH=" + strings.Repeat("1,", 5000) + "1": "2000 is the most",
	} {
		r, err := repeat.Parse(text)
		var pe *repeat.ParseError
		if !errors.As(err, &pe) {
			t.Errorf("%.60s: read as %v, error %v", text, r, err)
			continue
		}
		if !strings.Contains(err.Error(), want) || len(err.Error()) > 200 {
			t.Errorf("%.60s: %q, want %q in it", text, err, want)
		}
	}
	for _, text := range []string{"FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "FREQ=MONTHLY;BYDAY=1MO;BYMONTHDAY=20",
		"FREQ=DAILY;INTERVAL=7;BYDAY=TU", "FREQ=DAILY;BYDAY=MO;BYSETPOS=2"} {
		if _, err := repeat.New(repeat.MustParse(text), day.MustDate("2026-11-23"), repeat.Options{}); !errors.Is(err, repeat.ErrNever) {
			t.Errorf("%s: %v, want ErrNever", text, err)
		}
	}
}

func TestWords(t *testing.T) {
	for rule, want := range map[string]string{
		"FREQ=DAILY":                                   "every day",
		"FREQ=DAILY;INTERVAL=3":                        "every 3 days",
		"FREQ=DAILY;BYMONTH=1":                         "every day in January",
		"FREQ=WEEKLY;BYDAY=MO,TH":                      "every Monday and Thursday",
		"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR":             "every weekday",
		"FREQ=WEEKLY;INTERVAL=2;BYDAY=WE;COUNT=10":     "every 2 weeks on Wednesday, 10 times",
		"FREQ=WEEKLY":                                  "every week",
		"FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SU;WKST=SU":   "every 2 weeks on Tuesday and Sunday, weeks from Sunday",
		"FREQ=MONTHLY;BYMONTHDAY=3":                    "every month on the 3rd",
		"FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD":     "every month on the 31st, or the last day of a shorter month",
		"FREQ=MONTHLY;BYMONTHDAY=1,22,-1":              "every month on the 1st, 22nd and last day",
		"FREQ=MONTHLY;BYDAY=-1FR;UNTIL=20261220":       "every month on the last Friday until 20 Dec 2026",
		"FREQ=MONTHLY;BYDAY=1SU,-2SU":                  "every month on the 1st Sunday and the 2nd last Sunday",
		"FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13":          "every month on the 13th where it is a Friday",
		"FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1":         "every month on a Monday or Tuesday, only the last of these in each month",
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14":          "every year on 14 March",
		"FREQ=YEARLY;INTERVAL=2;BYMONTH=1,2":           "every 2 years in January and February",
		"FREQ=YEARLY;BYDAY=20MO":                       "every year on the 20th Monday of the year",
		"FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO":             "every year in week 20 on a Monday",
		"FREQ=YEARLY;BYYEARDAY=100,-1":                 "every year on day 100 of the year and the last day of the year",
		"FREQ=YEARLY;SKIP=FORWARD":                     "every year, or the day after a shorter month",
		"FREQ=YEARLY;BYYEARDAY=-366;SKIP=FORWARD":      "every year on the 366th last day of the year",
		"FREQ=YEARLY;BYYEARDAY=366;SKIP=FORWARD":       "every year on day 366 of the year, or the day after a shorter year",
		"FREQ=YEARLY;BYYEARDAY=365;SKIP=FORWARD":       "every year on day 365 of the year",
		"FREQ=YEARLY;BYWEEKNO=-1;BYDAY=MO":             "every year in the last week on a Monday",
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14;BYDAY=SA": "every year in March on the 14th where it is a Saturday",
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=-14":         "every year in March on the 14th last day",
		"FREQ=DAILY;UNTIL=20261220T170000Z":            "every day until 20 Dec 2026, 17:00 UTC",
		"FREQ=YEARLY;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2": "every year in November on the 2nd where it is a Tuesday",
		"FREQ=DAILY;COUNT=1":                           "every day, once",
	} {
		if got := repeat.MustParse(rule).Words(); got != want {
			t.Errorf("%s: %q, want %q", rule, got, want)
		}
	}
	r := repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=30"), Anchor: repeat.Completion, Lead: 14, Paused: day.MustDate("2026-11-24")}
	if got, want := r.Words(), "30 days after done, 14 days ahead, paused"; got != want {
		t.Errorf("%q, want %q", got, want)
	}
	for n, want := range map[int]string{1: "1st", 2: "2nd", 3: "3rd", 4: "4th", 11: "11th", 12: "12th", 13: "13th", 21: "21st", 112: "112th", 103: "103rd"} {
		if got := repeat.Ordinal(n); got != want {
			t.Errorf("%d: %q, want %q", n, got, want)
		}
	}
}

func TestChoices(t *testing.T) {
	for rule, isChoice := range map[string]bool{
		"FREQ=DAILY;INTERVAL=3":                                              true,
		"FREQ=WEEKLY;BYDAY=MO,TH;COUNT=4":                                    true,
		"FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD":          true,
		"FREQ=MONTHLY;BYMONTHDAY=-1;UNTIL=20270101":                          true,
		"FREQ=MONTHLY;BYDAY=-1FR":                                            true,
		"FREQ=MONTHLY":                                                       true,
		"FREQ=MONTHLY;RSCALE=GREGORIAN;SKIP=BACKWARD":                        true,
		"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14":                                true,
		"FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;RSCALE=GREGORIAN;SKIP=BACKWARD": true,
		"FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU":                                   true,
		"FREQ=MONTHLY;BYMONTHDAY=1,15":                                       false,
		"FREQ=MONTHLY;BYDAY=1SU,-1SU":                                        false,
		"FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13":                                false,
		"FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO":                                   false,
		"FREQ=DAILY;BYMONTH=1":                                               false,
		"FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SU;WKST=SU":                         false,
		"FREQ=MONTHLY;BYMONTHDAY=31":                                         false, // a person who picks it means the last day too
	} {
		r := repeat.MustParse(rule)
		c, ok := r.Choice()
		if ok != isChoice {
			t.Errorf("%s: a choice %v, want %v", rule, ok, isChoice)
			continue
		}
		if !ok {
			continue
		}
		back, err := c.Rule()
		if err != nil || back.String() != rule && r.Skip != repeat.Backward {
			t.Errorf("%s: comes back as %v (%v)", rule, back, err)
		}
	}
}

func TestMovedTo(t *testing.T) {
	for _, c := range []struct{ rule, from, to, want string }{
		{"FREQ=WEEKLY;BYDAY=MO", "2026-11-23", "2026-11-25", "FREQ=WEEKLY;BYDAY=WE"},
		{"FREQ=WEEKLY;BYDAY=MO,TH", "2026-11-23", "2026-11-25", "FREQ=WEEKLY;BYDAY=TH,WE"},
		{"FREQ=MONTHLY;BYMONTHDAY=3", "2026-12-03", "2026-12-31", "FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD"},
		{"FREQ=MONTHLY;BYDAY=2TU", "2026-12-08", "2026-12-16", "FREQ=MONTHLY;BYDAY=3WE"},
		{"FREQ=MONTHLY;BYDAY=-1FR", "2026-11-27", "2026-11-24", "FREQ=MONTHLY;BYDAY=-1TU"},
		{"FREQ=MONTHLY;BYDAY=-1FR", "2026-11-27", "2026-11-19", "FREQ=MONTHLY;BYDAY=-1FR"}, // not a last one
		{"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14", "2027-03-14", "2027-04-02", "FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=2"},
		{"FREQ=DAILY;INTERVAL=3", "2026-11-24", "2026-11-25", "FREQ=DAILY;INTERVAL=3"},
		{"FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1", "2026-11-30", "2026-11-27", "FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1"},
	} {
		got := repeat.MustParse(c.rule).MovedTo(day.MustDate(c.from), day.MustDate(c.to)).String()
		if sorted := repeat.MustParse(c.want).String(); got != sorted {
			t.Errorf("%s from %s to %s: %s, want %s", c.rule, c.from, c.to, got, sorted)
		}
	}
}

func TestFirstOn(t *testing.T) {
	for _, c := range []struct{ rule, from, want string }{
		{"FREQ=WEEKLY;INTERVAL=2;BYDAY=MO", "2026-11-24", "2026-11-30"},
		{"FREQ=MONTHLY;INTERVAL=6;BYMONTHDAY=1", "2026-11-24", "2026-12-01"},
		{"FREQ=YEARLY;INTERVAL=4;BYMONTH=2;BYMONTHDAY=29;SKIP=BACKWARD", "2026-11-24", "2027-02-28"},
		{"FREQ=DAILY;INTERVAL=3;COUNT=1", "2026-11-24", "2026-11-24"},
		{"FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "2026-11-24", ""},
	} {
		got := repeat.MustParse(c.rule).FirstOn(day.MustDate(c.from))
		if got.String() != c.want {
			t.Errorf("%s from %s begins on %s, want %s", c.rule, c.from, got, c.want)
		}
	}
}

var noon, _ = day.NewTimeOfDay(12, 0)

func begin(t *testing.T, rule, first string, anchor repeat.Anchor) repeat.Repeat {
	t.Helper()
	r, err := repeat.Repeat{Rule: repeat.MustParse(rule), First: day.MustDate(first), Anchor: anchor}.Begin(noon, time.UTC)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func TestLifeOfARepeat(t *testing.T) {
	d := day.MustDate
	r := begin(t, "FREQ=WEEKLY;BYDAY=MO;COUNT=8", "2026-11-24", repeat.Schedule) // 30 Nov … 18 Jan
	if r.Current != d("2026-11-30") || r.Last != d("2027-01-18") {
		t.Fatalf("begins at %s and ends at %s", r.Current, r.Last)
	}
	early := r.Tick(d("2026-11-28"), noon, time.UTC)
	if early.Next.Current != d("2026-12-07") || early.Missed != 0 {
		t.Errorf("ticked two days early: %+v", early)
	}
	late := r.Tick(d("2026-12-15"), noon, time.UTC)
	if late.Next.Current != d("2026-12-21") || late.Missed != 2 || late.Next.Missed != 2 || late.Next.Ticks != 1 || late.Next.LastDone != d("2026-12-15") {
		t.Errorf("ticked a fortnight late: %+v", late)
	}
	onTheDay := r.Tick(d("2026-12-14"), noon, time.UTC) // a later one's own day is passed over too
	if onTheDay.Next.Current != d("2026-12-21") || onTheDay.Missed != 2 {
		t.Errorf("ticked on a later pattern date: %+v", onTheDay)
	}
	if s := r.Skip(d("2026-11-24"), noon, time.UTC); s.Next.Current != d("2026-12-07") || s.Missed != 0 || s.Next.Ticks != 0 {
		t.Errorf("skipped: %+v", s)
	}
	if s := r.Skip(d("2026-12-14"), noon, time.UTC); s.Next.Current != d("2026-12-14") || s.Missed != 1 {
		t.Errorf("skipped when overdue: %+v", s)
	}
	paused := r
	paused.Paused = d("2026-12-01")
	if s := paused.Resume(d("2026-12-31"), noon, time.UTC); s.Next.Current != d("2027-01-04") || s.Missed != 0 || s.Next.Missed != 0 || !s.Next.Paused.IsZero() {
		t.Errorf("resumed: %+v", s)
	}
	if s := paused.Resume(d("2026-11-25"), noon, time.UTC); s.Next.Current != d("2026-11-30") {
		t.Errorf("resumed before its date: %+v", s)
	}
	if s := paused.Resume(d("2027-03-01"), noon, time.UTC); !s.Over {
		t.Errorf("resumed after its end: %+v", s)
	}
	end := r
	end.Current = d("2027-01-18")
	if s := end.Tick(d("2027-01-18"), noon, time.UTC); !s.Over || s.Next.Ticks != 1 {
		t.Errorf("ticked the last: %+v", s)
	}
	if got := r.Coming(d("2026-11-24"), d("2026-12-20"), noon, time.UTC); !slices.Equal(got, []day.Date{d("2026-12-07"), d("2026-12-14")}) {
		t.Errorf("coming: %v", got)
	}
	if got := paused.Coming(d("2026-11-24"), d("2026-12-20"), noon, time.UTC); got != nil {
		t.Errorf("coming while paused: %v", got)
	}
}

func TestRepeatsThatCannotBegin(t *testing.T) {
	d := day.MustDate
	for name, c := range map[string]struct {
		repeat repeat.Repeat
		want   string
	}{
		"no rule":             {repeat.Repeat{First: d("2026-11-24")}, "needs a rule"},
		"no first date":       {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")}, "a first date"},
		"ended before":        {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;UNTIL=20261120"), First: d("2026-11-24")}, "ends before its first date"},
		"ended, after done":   {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;UNTIL=20261120"), First: d("2026-11-24"), Anchor: repeat.Completion}, "ends before"},
		"all dates left out":  {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;COUNT=1"), First: d("2026-11-24"), Without: []day.Date{d("2026-11-24")}}, "ends before"},
		"a lead of two years": {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: d("2026-11-24"), Lead: 700}, "0 to 366"},
		"too much left out":   {repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: d("2026-11-24"), Without: make([]day.Date, 1001)}, "1000 is the most"},
		"never":               {repeat.Repeat{Rule: repeat.MustParse("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"), First: d("2026-11-24")}, "never happens"},
	} {
		if _, err := c.repeat.Begin(noon, time.UTC); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v, want %q", name, err, c.want)
		}
	}
}

func TestAfterDone(t *testing.T) {
	d := day.MustDate
	for _, c := range []struct{ rule, done, want string }{
		{"FREQ=DAILY;INTERVAL=30", "2026-11-24", "2026-12-24"},
		{"FREQ=WEEKLY;INTERVAL=2", "2026-11-24", "2026-12-08"},
		{"FREQ=MONTHLY", "2027-01-31", "2027-02-28"},
		{"FREQ=YEARLY", "2028-02-29", "2029-02-28"},
	} {
		r := begin(t, c.rule, "2026-11-24", repeat.Completion)
		if s := r.Tick(d(c.done), noon, time.UTC); s.Over || s.Next.Current != d(c.want) {
			t.Errorf("%s done on %s: %+v, want %s", c.rule, c.done, s, c.want)
		}
	}
	r := begin(t, "FREQ=DAILY;INTERVAL=30;COUNT=2", "2026-11-24", repeat.Completion)
	first := r.Tick(d("2026-11-24"), noon, time.UTC)
	if skipped := first.Next.Skip(d("2026-12-01"), noon, time.UTC); skipped.Next.Current != d("2027-01-23") || skipped.Next.Ticks != 1 {
		t.Errorf("skipped: %+v", skipped)
	}
	if second := first.Next.Tick(d("2026-12-26"), noon, time.UTC); first.Over || !second.Over {
		t.Errorf("two ticks were to be the end: %+v, %+v", first, second)
	}
	until := begin(t, "FREQ=DAILY;INTERVAL=30;UNTIL=20261201", "2026-11-24", repeat.Completion)
	if s := until.Tick(d("2026-11-24"), noon, time.UTC); !s.Over {
		t.Errorf("past its end: %+v", s)
	}
	bad := repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=MO"), First: d("2026-11-24"), Anchor: repeat.Completion}
	if _, err := bad.Begin(noon, time.UTC); err == nil {
		t.Error("BYDAY counted from when it was done was taken")
	}
	if got := until.Preview(5, noon, time.UTC); len(got) != 1 {
		t.Errorf("preview: %v", got)
	}
	if got := begin(t, "FREQ=MONTHLY", "2027-01-31", repeat.Completion).Preview(3, noon, time.UTC); !slices.Equal(got, []day.Date{d("2027-01-31"), d("2027-02-28"), d("2027-03-28")}) {
		t.Errorf("preview: %v", got)
	}
}

func TestUntilInUTC(t *testing.T) {
	tokyo, err := time.LoadLocation("Asia/Tokyo")
	if err != nil {
		t.Fatal(err)
	}
	clock := func(s string) day.TimeOfDay { at, _ := day.ParseTimeOfDay(s); return at }
	for _, c := range []struct {
		until, at string
		zone      *time.Location
		want      string
	}{
		{"20261220T000000Z", "09:00", tokyo, "2026-12-20"}, // 09:00 in Tokyo is just 00:00 UTC
		{"20261220T000000Z", "09:01", tokyo, "2026-12-19"},
		{"20261219T235900Z", "09:00", tokyo, "2026-12-19"},
		{"20261220T000000Z", "", tokyo, "2026-12-20"},
		{"20261220T090000", "09:00", tokyo, "2026-12-20"}, // local
		{"20261220T085959", "09:00", tokyo, "2026-12-19"},
		{"20261220", "23:59", tokyo, "2026-12-20"},
		{"20261220T120000Z", "12:00", time.UTC, "2026-12-20"},
		{"20261220T115959Z", "12:00", time.UTC, "2026-12-19"},
	} {
		at := day.TimeOfDay{}
		if c.at != "" {
			at = clock(c.at)
		}
		s, err := repeat.New(repeat.MustParse("FREQ=DAILY;UNTIL="+c.until), day.MustDate("2026-12-01"), repeat.Options{Time: at, Zone: c.zone})
		if err != nil {
			t.Fatal(err)
		}
		if got := s.Last(); got != day.MustDate(c.want) {
			t.Errorf("until %s at %q in %s: the last is %s, want %s", c.until, c.at, c.zone, got, c.want)
		}
	}
}

func TestRepeatAsJSON(t *testing.T) {
	r := begin(t, "FREQ=MONTHLY;BYDAY=-1FR;COUNT=5", "2026-11-24", repeat.Schedule)
	r.Without, r.Missed, r.Paused = []day.Date{day.MustDate("2026-12-25")}, 3, day.MustDate("2026-11-28")
	packed, err := json.Marshal(r)
	if err != nil {
		t.Fatal(err)
	}
	var back repeat.Repeat
	if err := json.Unmarshal(packed, &back); err != nil || !back.Same(r) {
		t.Errorf("%s came back as %+v (%v)", packed, back, err)
	}
	back.Lead = 3
	if back.Same(r) {
		t.Error("another lead is the same repeat")
	}
}

func FuzzParse(f *testing.F) {
	for _, e := range examples {
		f.Add(e.rule)
	}
	for _, s := range []string{"RRULE:FREQ=YEARLY;SKIP=FORWARD;RSCALE=GREGORIAN;BYYEARDAY=366", "FREQ=MONTHLY;BYDAY=53SU,-53MO;BYSETPOS=-366", "FREQ=;;=", "FREQ=DAILY;UNTIL=99991231T235960Z"} {
		f.Add(s)
	}
	start := day.MustDate("2026-01-31")
	f.Fuzz(func(t *testing.T, s string) {
		r, err := repeat.Parse(s)
		if err != nil {
			if len(err.Error()) > 300 {
				t.Fatalf("an error of %d bytes", len(err.Error()))
			}
			return
		}
		again, err := repeat.Parse(r.String())
		if err != nil || again.String() != r.String() {
			t.Fatalf("%q reads as %s, which reads as %v (%v)", s, r, again, err)
		}
		if r.Words() == "" {
			t.Fatalf("%s has no words", r)
		}
		series, err := repeat.New(r, start, repeat.Options{})
		if err != nil {
			return
		}
		last := day.Date{}
		n := 0
		for d := range series.From(start) {
			if !last.IsZero() && !d.After(last) || !series.Holds(d) {
				t.Fatalf("%s: %s after %s", r, d, last)
			}
			if last = d; n == 20 {
				break
			}
			n++
		}
	})
}
