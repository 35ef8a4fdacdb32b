package feed_test

import (
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/plan"
	"tincup/internal/outside/feed"
)

// wrap makes a calendar of lines.
func wrap(lines ...string) []byte {
	return []byte("BEGIN:VCALENDAR\r\n" + strings.Join(lines, "\r\n") + "\r\nEND:VCALENDAR\r\n")
}

// event wraps lines as the one event of a calendar.
func event(lines ...string) []byte {
	return wrap("BEGIN:VEVENT", "UID:one", strings.Join(lines, "\r\n"), "END:VEVENT")
}

func window(t *testing.T, zone, from, to string) app.Window {
	t.Helper()
	local, err := time.LoadLocation(zone)
	if err != nil {
		t.Fatal(err)
	}
	w := app.Window{Local: local}
	for at, text := range map[*time.Time]string{&w.From: from, &w.To: to} {
		if *at, err = time.ParseInLocation(time.DateOnly, text, local); err != nil {
			t.Fatal(err)
		}
	}
	return w
}

func read(t *testing.T, text []byte, w app.Window) app.Contents {
	t.Helper()
	contents, err := feed.NewReader(false).Read(text, w)
	if err != nil {
		t.Fatal(err)
	}
	return contents
}

// starts are the starts of events on the wall of a zone, or dates.
func starts(events []plan.Event, zone *time.Location) string {
	var all []string
	for _, e := range events {
		if e.AllDay {
			all = append(all, e.From.UTC().Format("2006-01-02"))
		} else {
			all = append(all, e.From.In(zone).Format("2006-01-02T15:04"))
		}
	}
	return strings.Join(all, " ")
}

// The examples of RFC 5545 section 3.8.5.3 are in America/New_York and begin on 2 September
// 1997. Those with a time of day of their own are not asked of to-dos, but of events.
func TestExamplesOfRFC5545(t *testing.T) {
	const start = "DTSTART;TZID=America/New_York:19970902T090000"
	for _, ex := range []struct{ name, start, rule, from, to, want string }{
		{"daily for ten occurrences", start, "FREQ=DAILY;COUNT=10", "1997-09-09", "1997-12-31", "1997-09-09T09:00 1997-09-10T09:00 1997-09-11T09:00"},
		{"daily until December 24, 1997", start, "FREQ=DAILY;UNTIL=19971224T000000Z", "1997-12-22", "1998-02-01", "1997-12-22T09:00 1997-12-23T09:00"},
		{"every other day, forever", start, "FREQ=DAILY;INTERVAL=2", "1997-10-25", "1997-10-30", "1997-10-26T09:00 1997-10-28T09:00"},
		{"every day in January, for three years", "DTSTART;TZID=America/New_York:19980101T090000", "FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA", "2000-01-30", "2001-02-01", "2000-01-30T09:00 2000-01-31T09:00"},
		{"weekly on Tuesday and Thursday for five weeks", start, "FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH", "1997-09-25", "1997-12-31", "1997-09-25T09:00 1997-09-30T09:00 1997-10-02T09:00"},
		{"monthly on the first Friday for ten occurrences", "DTSTART;TZID=America/New_York:19970905T090000", "FREQ=MONTHLY;COUNT=10;BYDAY=1FR", "1998-05-01", "1999-01-01", "1998-05-01T09:00 1998-06-05T09:00"},
		{"the third to the last day of the month, forever", "DTSTART;TZID=America/New_York:19970928T090000", "FREQ=MONTHLY;BYMONTHDAY=-3", "1998-01-01", "1998-03-01", "1998-01-29T09:00 1998-02-26T09:00"},
		{"U.S. presidential election day", "DTSTART;TZID=America/New_York:19961105T090000", "FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8", "1997-01-01", "2005-01-01", "2000-11-07T09:00 2004-11-02T09:00"},
		{"every three hours from 9 to 5 on a day", start, "FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T170000Z", "1997-09-01", "1997-10-01", "1997-09-02T09:00 1997-09-02T12:00"}, // erratum 3883 gives 210000Z for 15:00 too
		{"an invalid date is ignored", "DTSTART;TZID=America/New_York:20070115T090000", "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5", "2007-01-01", "2008-01-01", "2007-01-15T09:00 2007-01-30T09:00 2007-02-15T09:00 2007-03-15T09:00 2007-03-30T09:00"},
	} {
		t.Run(ex.name, func(t *testing.T) {
			w := window(t, "America/New_York", ex.from, ex.to)
			got := read(t, event(ex.start, "DURATION:PT1H", "RRULE:"+ex.rule, "SUMMARY:It"), w)
			if s := starts(got.Events, w.Local); s != ex.want || len(got.Problems) > 0 {
				t.Errorf("%s\nwant\n%s\n%v", s, ex.want, got.Problems)
			}
		})
	}
}

// What events say in one way or another, read for November 2026 in Lisbon.
func TestRead(t *testing.T) {
	w := window(t, "Europe/Lisbon", "2026-10-20", "2026-12-01")
	for name, ex := range map[string]struct {
		text []byte
		// want is the starts, the length of the first in hours, and a part of what is wrong.
		want  string
		hours float64
		wrong string
	}{
		"a floating time is the person's own":     {event("DTSTART:20261124T090000", "DURATION:PT1H"), "2026-11-24T09:00", 1, ""},
		"a time in UTC":                           {event("DTSTART:20261124T090000Z", "DTEND:20261124T093000Z"), "2026-11-24T09:00", 0.5, ""},
		"a zone whose name follows a path":        {event("DTSTART;TZID=/somewhere/2026/Europe/Berlin:20261124T090000", "DURATION:PT1H"), "2026-11-24T08:00", 1, ""},
		"a zone in quotes":                        {event(`DTSTART;TZID="Europe/Berlin":20261124T090000`, "DURATION:PT1H"), "2026-11-24T08:00", 1, ""},
		"a zone that nobody defines is one's own": {event("DTSTART;TZID=Harbour clock:20261124T090000", "DURATION:PT1H"), "2026-11-24T09:00", 1, "“Harbour clock” is not known"},
		"a day":                                     {event("DTSTART;VALUE=DATE:20261124"), "2026-11-24", 24, ""},
		"days up to one":                            {event("DTSTART;VALUE=DATE:20261124", "DTEND;VALUE=DATE:20261127"), "2026-11-24", 72, ""},
		"a day without VALUE":                       {event("DTSTART:20261124"), "2026-11-24", 24, ""},
		"no end is a moment":                        {event("DTSTART:20261124T090000"), "2026-11-24T09:00", 0, ""},
		"a day that is an hour longer":              {event("DTSTART;TZID=Europe/Lisbon:20261024T120000", "DURATION:P1D"), "2026-10-24T12:00", 25, ""},
		"24 hours are not a day":                    {event("DTSTART;TZID=Europe/Lisbon:20261024T120000", "DURATION:PT24H"), "2026-10-24T12:00", 24, ""},
		"what began before the window":              {event("DTSTART;VALUE=DATE:20261001", "DTEND;VALUE=DATE:20261026"), "2026-10-01", 600, ""},
		"what is over before it":                    {event("DTSTART:20261001T090000", "DURATION:PT1H"), "", 0, ""},
		"folded lines":                              {event("DTSTART:2026112\r\n 4T090000", "DURATION:PT1\r\n\tH"), "2026-11-24T09:00", 1, ""},
		"bare line feeds":                           {[]byte("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20261124T090000\nDURATION:PT1H\nEND:VEVENT\nEND:VCALENDAR"), "2026-11-24T09:00", 1, ""},
		"two calendars in one text":                 {append(event("DTSTART:20261124T090000"), event("DTSTART:20261125T090000")...), "2026-11-25T09:00", 0, ""},
		"of two with one UID the later sequence":    {wrap("BEGIN:VEVENT", "UID:a", "SEQUENCE:2", "DTSTART:20261124T090000", "END:VEVENT", "BEGIN:VEVENT", "UID:a", "SEQUENCE:1", "DTSTART:20261125T090000", "END:VEVENT"), "2026-11-24T09:00", 0, ""},
		"cancelled":                                 {event("DTSTART:20261124T090000", "STATUS:CANCELLED"), "", 0, ""},
		"weekly but once":                           {event("DTSTART:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=4", "EXDATE:20261109T090000"), "2026-11-02T09:00 2026-11-16T09:00 2026-11-23T09:00", 0, ""},
		"an EXDATE without time takes out that day": {event("DTSTART:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=3", "EXDATE;VALUE=DATE:20261109"), "2026-11-02T09:00 2026-11-16T09:00", 0, ""},
		"an EXDATE in another zone":                 {event("DTSTART:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=3", "EXDATE;TZID=Europe/Berlin:20261109T100000"), "2026-11-02T09:00 2026-11-16T09:00", 0, ""},
		"single dates, one of them a period":        {event("DTSTART:20261102T090000", "DURATION:PT1H", "RDATE:20261104T100000,20261105T110000/PT2H"), "2026-11-02T09:00 2026-11-04T10:00 2026-11-05T11:00", 1, ""},
		"the rule says when on the wall":            {event("DTSTART;TZID=Europe/Lisbon:20261023T090000", "RRULE:FREQ=DAILY;COUNT=4"), "2026-10-23T09:00 2026-10-24T09:00 2026-10-25T09:00 2026-10-26T09:00", 0, ""},
		"a rule in small letters":                   {event("DTSTART:20261102T090000", "RRULE:freq=weekly;count=2"), "2026-11-02T09:00 2026-11-09T09:00", 0, ""},
		"until a day of one's own":                  {event("DTSTART:20261102T230000", "RRULE:FREQ=DAILY;UNTIL=20261104"), "2026-11-02T23:00 2026-11-03T23:00 2026-11-04T23:00", 0, ""},
		"a rule that is none stands once":           {event("DTSTART:20261102T090000", "RRULE:FREQ=SOMETIMES"), "2026-11-02T09:00", 0, "stands once"},
		"each second is too often":                  {event("DTSTART:20261102T090000", "RRULE:FREQ=SECONDLY"), "2026-11-02T09:00", 0, "more often than each hour"},
		"a rule that never comes":                   {event("DTSTART:20261102T090000", "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"), "2026-11-02T09:00", 0, ""},
		"one of them at another time":               {wrap("BEGIN:VEVENT", "UID:a", "DTSTART:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=3", "END:VEVENT", "BEGIN:VEVENT", "UID:a", "RECURRENCE-ID:20261109T090000", "DTSTART:20261110T150000", "END:VEVENT"), "2026-11-02T09:00 2026-11-10T15:00 2026-11-16T09:00", 0, ""},
		"all of them from one on at another time":   {wrap("BEGIN:VEVENT", "UID:a", "DTSTART:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=4", "END:VEVENT", "BEGIN:VEVENT", "UID:a", "RECURRENCE-ID;RANGE=THISANDFUTURE:20261109T090000", "DTSTART:20261110T150000", "DURATION:PT2H", "END:VEVENT"), "2026-11-02T09:00 2026-11-10T15:00 2026-11-17T15:00 2026-11-24T15:00", 0, ""},
		"a change without what it changes":          {event("RECURRENCE-ID:20261109T090000", "DTSTART:20261110T150000"), "2026-11-10T15:00", 0, ""},
		"no start":                                  {event("SUMMARY:Nothing"), "", 0, "“Nothing”: of its start, there is no time"},
		"a start that is none":                      {event("SUMMARY:Nothing", "DTSTART:20261131T090000"), "", 0, "is no date or time"},
		"an end before the start":                   {event("SUMMARY:Back", "DTSTART:20261124T090000", "DTEND:20261124T080000"), "", 0, "“Back”: it ends before it begins"},
		"a duration that runs backwards":            {event("DTSTART:20261124T090000", "DURATION:-PT1H"), "", 0, "no duration"},
		"a line that is none":                       {event("DTSTART:20261124T090000", "nothing of ours", ";X=1:2", `X;Y="open:1`), "2026-11-24T09:00", 0, ""},
		"a zone that tells changes for ever":        {wrap("BEGIN:VTIMEZONE", "TZID:H", "BEGIN:STANDARD", "TZOFFSETFROM:+0100", "TZOFFSETTO:+0200", "DTSTART:19700101T000000", "RRULE:FREQ=SECONDLY", "END:STANDARD", "END:VTIMEZONE", "BEGIN:VEVENT", "DTSTART;TZID=H:20261124T090000", "END:VEVENT"), "2026-11-24T07:00", 0, ""},
	} {
		t.Run(name, func(t *testing.T) {
			got := read(t, ex.text, w)
			if s := starts(got.Events, w.Local); s != ex.want {
				t.Errorf("%s\nwant\n%s", s, ex.want)
			}
			if len(got.Events) > 0 && got.Events[0].To.Sub(got.Events[0].From).Hours() != ex.hours {
				t.Errorf("it is %v long, want %v h", got.Events[0].To.Sub(got.Events[0].From), ex.hours)
			}
			if all := strings.Join(got.Problems, " "); (ex.wrong == "") != (all == "") || !strings.Contains(all, ex.wrong) {
				t.Errorf("wrong is %q, want %q", all, ex.wrong)
			}
		})
	}
}

func TestWhatAnEventSays(t *testing.T) {
	w := window(t, "Europe/Lisbon", "2026-11-20", "2026-12-01")
	text := wrap("NAME:Museum\\, house", "BEGIN:VEVENT", "UID:a@b", `SUMMARY:Tea\, with\nOdile`, "DTSTART:20261124T090000", "TRANSP:TRANSPARENT", "END:VEVENT",
		"BEGIN:VEVENT", "DTSTART:20261125T090000", "SUMMARY:"+strings.Repeat("é", 600), "END:VEVENT")
	got := read(t, text, w)
	if got.Name != "Museum, house" || len(got.Events) != 2 {
		t.Fatalf("%q, %d events", got.Name, len(got.Events))
	}
	tea, long := got.Events[0], got.Events[1]
	if tea.Title != "Tea, with Odile" || tea.UID != "a@b" || tea.Busy || !long.Busy || len([]rune(long.Title)) != 500 || long.UID == "" {
		t.Errorf("%+v, %d characters, %+v", tea, len([]rune(long.Title)), long.UID)
	}
}

// What is no calendar is refused with a sentence, and costs little.
func TestNoCalendar(t *testing.T) {
	w := window(t, "Europe/Lisbon", "2026-11-20", "2026-12-01")
	deep := strings.Repeat("BEGIN:VEVENT\r\n", 500_000)
	for name, ex := range map[string]struct{ text, want string }{
		"nothing":           {"", "no calendar"},
		"a page":            {" <!doctype html><title>Sign in</title>", "a web page"},
		"bytes":             {"\x00\xff\x80", "no calendar"},
		"cut off":           {"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:2026", "cut off: after line 3 the part “VEVENT”"},
		"parts without end": {"BEGIN:VCALENDAR\r\n" + deep, "Line 9 begins a part within 8"},
		"an end of another": {"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nEND:VTODO\r\n", "Line 3 ends a part that is not open"},
		"more than is read": {"BEGIN:VCALENDAR\r\n" + strings.Repeat("X:1\r\n", feed.MaxBytes/5), "more than 10 MB"},
		"too many events":   {string(manyEvents(feed.MaxEvents + 1)), "20001 events, and 20000 is the most"},
	} {
		if _, err := feed.NewReader(false).Read([]byte(ex.text), w); err == nil || !strings.Contains(err.Error(), ex.want) {
			t.Errorf("%s: %v, want %q", name, err, ex.want)
		}
	}
	// A parameter of megabytes is left out before it is looked into.
	begun := time.Now()
	read(t, event("DTSTART:20261124T090000", `X;Y="`+strings.Repeat("a", 5<<20)+`":1`), w)
	if took := time.Since(begun); took > 5*time.Second {
		t.Errorf("a long parameter took %v", took)
	}
}

func manyEvents(n int) []byte {
	var lines []string
	for i := range n {
		lines = append(lines, "BEGIN:VEVENT", "UID:"+strings.Repeat("u", 1+i%7)+time.Duration(i).String(), "DTSTART:20261124T090000", "END:VEVENT")
	}
	return wrap(lines...)
}

// Most events that are allowed are read whole.
func TestMostEvents(t *testing.T) {
	got := read(t, manyEvents(feed.MaxEvents), window(t, "Europe/Lisbon", "2026-11-20", "2026-12-01"))
	if len(got.Events) != feed.MaxEvents || len(got.Problems) > 0 {
		t.Errorf("%d events, %v", len(got.Events), got.Problems)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(event("DTSTART;TZID=Europe/Lisbon:20261102T090000", "RRULE:FREQ=WEEKLY;COUNT=4", "EXDATE:20261109T090000"))
	f.Add(wrap("BEGIN:VTIMEZONE", "TZID:H", "BEGIN:STANDARD", "TZOFFSETFROM:+0100", "TZOFFSETTO:+0200", "DTSTART:19700101T000000", "END:STANDARD", "END:VTIMEZONE"))
	w := app.Window{Local: time.UTC, From: time.Date(2026, 11, 1, 0, 0, 0, 0, time.UTC), To: time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)}
	f.Fuzz(func(t *testing.T, text []byte) {
		got, err := feed.NewReader(false).Read(text, w)
		if err != nil && (len(err.Error()) < 20 || len(got.Events) > 0) {
			t.Errorf("%d events with %q", len(got.Events), err)
		}
		for _, e := range got.Events {
			if e.To.Before(e.From) || e.Title == "" || e.UID == "" {
				t.Errorf("%+v", e)
			}
		}
	})
}

// The VEVENT examples of RFC 5545 section 3.6.1, and that of section 3.8.1.5 with its
// VTIMEZONE from section 3.6.5; texts from memory.
func TestEventExamplesOfRFC5545(t *testing.T) {
	const eastern = "BEGIN:VTIMEZONE\r\nTZID:America/New_York\r\nLAST-MODIFIED:20050809T050000Z\r\nBEGIN:STANDARD\r\nDTSTART:20071104T020000\r\nTZOFFSETFROM:-0400\r\nTZOFFSETTO:-0500\r\nTZNAME:EST\r\nEND:STANDARD\r\nBEGIN:DAYLIGHT\r\nDTSTART:20070311T020000\r\nTZOFFSETFROM:-0500\r\nTZOFFSETTO:-0400\r\nTZNAME:EDT\r\nEND:DAYLIGHT\r\nEND:VTIMEZONE"
	for name, ex := range map[string]struct {
		lines    []string
		from, to string
		want     string
		length   time.Duration
		busy     bool
	}{
		"a meeting for part of a day": {[]string{"UID:19970901T130000Z-123401@example.com", "DTSTAMP:19970901T130000Z", "DTSTART:19970903T163000Z", "DTEND:19970903T190000Z",
			"SUMMARY:Annual Employee Review", "CLASS:PRIVATE", "CATEGORIES:BUSINESS,HUMAN RESOURCES"}, "1997-09-01", "1997-10-01", "1997-09-03T16:30", 150 * time.Minute, true},
		"a reminder that takes no time": {[]string{"UID:19970901T130000Z-123402@example.com", "DTSTAMP:19970901T130000Z", "DTSTART:19970401T163000Z", "DTEND:19970402T010000Z",
			"SUMMARY:Laurel is in sensitivity awareness class.", "CLASS:PUBLIC", "CATEGORIES:BUSINESS,HUMAN RESOURCES", "TRANSP:TRANSPARENT"}, "1997-04-01", "1997-05-01", "1997-04-01T16:30", 510 * time.Minute, false},
		"an anniversary each year": {[]string{"UID:19970901T130000Z-123403@example.com", "DTSTAMP:19970901T130000Z", "DTSTART;VALUE=DATE:19971102", "SUMMARY:Our Blissful Anniversary",
			"TRANSP:TRANSPARENT", "CLASS:CONFIDENTIAL", "CATEGORIES:ANNIVERSARY,PERSONAL,SPECIAL OCCASION", "RRULE:FREQ=YEARLY"}, "1997-01-01", "2000-01-01", "1997-11-02 1998-11-02 1999-11-02", 24 * time.Hour, false},
		"up to, but not the ninth of July": {[]string{"UID:20070423T123432Z-541111@example.com", "DTSTAMP:20070423T123432Z", "DTSTART;VALUE=DATE:20070628", "DTEND;VALUE=DATE:20070709",
			"SUMMARY:Festival International de Jazz de Montreal", "TRANSP:TRANSPARENT"}, "2007-07-08", "2007-08-01", "2007-06-28", 11 * 24 * time.Hour, false},
		"in a zone that comes with it": {[]string{"UID:a", "DTSTART;TZID=America/New_York:20080104T100000", "DURATION:PT1H", "SUMMARY:It"}, "2008-01-01", "2008-02-01", "2008-01-04T15:00", time.Hour, true},
	} {
		t.Run(name, func(t *testing.T) {
			text := wrap(append(append([]string{eastern, "BEGIN:VEVENT"}, ex.lines...), "END:VEVENT")...)
			got := read(t, text, window(t, "UTC", ex.from, ex.to))
			if s := starts(got.Events, time.UTC); s != ex.want || len(got.Problems) > 0 {
				t.Fatalf("%s, want %s; %v", s, ex.want, got.Problems)
			}
			if e := got.Events[0]; e.To.Sub(e.From) != ex.length || e.Busy != ex.busy {
				t.Errorf("%v long, busy %t", e.To.Sub(e.From), e.Busy)
			}
		})
	}
}

// A date that stands as a period has the period's length, whatever the event's is (RFC 5545 section
// 3.8.5.2, whose second example has such periods).
func TestPeriodsHaveTheirOwnLength(t *testing.T) {
	got := read(t, event("DTSTART:20261124T090000Z", "DTEND:20261124T100000Z",
		"RDATE;VALUE=PERIOD:20261125T090000Z/20261125T113000Z,20261126T090000Z/PT15M", "RDATE:20261127T090000Z",
		"RDATE;VALUE=PERIOD:20261128T090000Z/20261127T090000Z,20261129T090000Z/soon"), window(t, "Europe/Lisbon", "2026-11-20", "2026-12-01"))
	var lengths []string
	for _, e := range got.Events {
		lengths = append(lengths, e.From.UTC().Format("2 15:04 ")+e.To.Sub(e.From).String())
	}
	// Of what is no period the start alone is read.
	if s, want := strings.Join(lengths, ", "), "24 09:00 1h0m0s, 25 09:00 2h30m0s, 26 09:00 15m0s, 27 09:00 1h0m0s, 28 09:00 1h0m0s, 29 09:00 1h0m0s"; s != want {
		t.Errorf("%s, want %s", s, want)
	}
}
