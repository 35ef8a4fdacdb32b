package ics_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/ics"
)

func world(t testing.TB) exchange.World {
	t.Helper()
	zone, err := time.LoadLocation("America/New_York")
	if err != nil {
		t.Fatal(err)
	}
	return exchange.World{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, zone), Zone: zone}
}

func calendar(body string) []byte {
	return []byte("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//x//EN\n" + body + "\nEND:VCALENDAR\n")
}

// says sums an item up.
func says(i exchange.Item) string {
	t := i.Todo
	parts := []string{t.Title}
	add := func(name, value string) {
		if value != "" {
			parts = append(parts, name+" "+value)
		}
	}
	if t.IsNote {
		parts = append(parts, "note")
	}
	if t.Status != book.NeedsAction {
		add("status", t.Status.String())
	}
	if t.Priority != book.NoPriority {
		add("priority", t.Priority.String())
	}
	add("start", t.Start.String())
	add("due", t.Due.String())
	if t.Repeat != nil {
		add("repeat", t.Repeat.Rule.String())
		add("from", t.Repeat.First.String())
	}
	add("place", t.Place)
	add("tags", strings.Join(i.Tags, " "))
	for _, r := range t.Reminders {
		add("remind", r.String())
	}
	if i.Notes != "" {
		add("notes", fmt.Sprintf("%q", i.Notes))
	}
	if i.Under >= 0 {
		add("under", fmt.Sprint(i.Under))
	}
	add("remarks", strings.Join(i.Remarks, " / "))
	return strings.Join(parts, " | ")
}

func read(t *testing.T, body string) (string, []exchange.Refusal) {
	t.Helper()
	items, refused, err := ics.Format{}.Read(calendar(body), world(t))
	if err != nil {
		t.Fatalf("%v\n%s", err, body)
	}
	var all []string
	for _, i := range items {
		all = append(all, says(i))
	}
	return strings.Join(all, "\n"), refused
}

// The examples of the standards, from memory: RFC 5545 sections 3.6.2 (VTODO), 3.6.3 (VJOURNAL) and
// 3.6.6 (VALARM), RFC 9074 sections 6.1, 7.1 and 8.2.
func TestExamplesOfTheStandards(t *testing.T) {
	for name, c := range map[string]struct{ body, want string }{
		"3.6.2, the first": {`BEGIN:VTODO
UID:20070313T123432Z-456553@example.com
DTSTAMP:20070313T123432Z
DUE;VALUE=DATE:20070501
SUMMARY:Submit Quebec Income Tax Return for 2006
CLASS:CONFIDENTIAL
CATEGORIES:FAMILY,FINANCE
STATUS:NEEDS-ACTION
END:VTODO`, "Submit Quebec Income Tax Return for 2006 | due 2007-05-01 | tags FAMILY FINANCE"},
		"3.6.2, the second": {`BEGIN:VTODO
UID:20070514T103211Z-123404@example.com
DTSTAMP:20070514T103211Z
DTSTART:20070514T110000Z
DUE:20070709T130000Z
COMPLETED:20070707T100000Z
SUMMARY:Submit Revised Internet-Draft
PRIORITY:1
STATUS:NEEDS-ACTION
END:VTODO`, "Submit Revised Internet-Draft | priority high | start 2007-05-14 | due 2007-07-09T09:00 | remarks The time of the start, 07:00, is not kept: a start is a day here."},
		"3.6.3": {`BEGIN:VJOURNAL
UID:19970901T130000Z-123405@example.com
DTSTAMP:19970901T130000Z
DTSTART;VALUE=DATE:19970317
SUMMARY:Staff meeting minutes
DESCRIPTION:1. Staff meeting: Participants include Joe\,
  Lisa\, and Bob. Aurora project plans were reviewed.
  There is currently no budget reserves for this project.
  Lisa will escalate to management. Next meeting on Tuesday.\n
END:VJOURNAL`, `Staff meeting minutes | note | start 1997-03-17 | notes "1. Staff meeting: Participants include Joe, Lisa, and Bob. Aurora project plans were reviewed. There is currently no budget reserves for this project. Lisa will escalate to management. Next meeting on Tuesday.\n"`},
		"3.6.6, at a time, with REPEAT": {`BEGIN:VTODO
SUMMARY:Meeting
BEGIN:VALARM
TRIGGER;VALUE=DATE-TIME:19970317T133000Z
REPEAT:4
DURATION:PT15M
ACTION:AUDIO
ATTACH;FMTTYPE=audio/basic:ftp://example.com/pub/sounds/bell-01.aud
END:VALARM
END:VTODO`, "Meeting | remind 1997-03-17T08:30"},
		"3.6.6, 30 minutes before": {`BEGIN:VTODO
SUMMARY:Breakfast meeting
DUE:20070314T083000
BEGIN:VALARM
TRIGGER:-PT30M
REPEAT:2
DURATION:PT15M
ACTION:DISPLAY
DESCRIPTION:Breakfast meeting with executive\n
 team at 8:30 AM EST.
END:VALARM
END:VTODO`, "Breakfast meeting | due 2007-03-14T08:30 | remind -PT30M"},
		"3.6.6, two days before the end": {`BEGIN:VTODO
SUMMARY:Weekly staff meeting
DTSTART:20070312T090000
DUE:20070314T083000
BEGIN:VALARM
TRIGGER;RELATED=END:-P2D
ACTION:EMAIL
ATTENDEE:mailto:john_doe@example.com
SUMMARY:*** REMINDER: SEND AGENDA FOR WEEKLY STAFF MEETING ***
DESCRIPTION:A draft agenda needs to be sent out.
END:VALARM
END:VTODO`, "Weekly staff meeting | start 2007-03-12 | due 2007-03-14T08:30 | remind -P2D | remarks The time of the start, 09:00, is not kept: a start is a day here."},
		"9074, acknowledged": {`BEGIN:VTODO
SUMMARY:Event
DUE;TZID=America/New_York:20210302T103000
BEGIN:VALARM
UID:8297C37D-BA2D-4476-91AE-C1EAA364F8E1
TRIGGER:-PT15M
DESCRIPTION:Event reminder
ACTION:DISPLAY
ACKNOWLEDGED:20210302T151514Z
END:VALARM
END:VTODO`, "Event | due 2021-03-02T10:30 | remind -PT15M"},
		"9074, on departing": {`BEGIN:VTODO
SUMMARY:Remember to buy milk
BEGIN:VALARM
UID:77D80D14-906B-4257-963F-85B1E734DBB6
ACTION:DISPLAY
TRIGGER;VALUE=DATE-TIME:19760401T005545Z
DESCRIPTION:Remember to buy milk
PROXIMITY:DEPART
BEGIN:VLOCATION
UID:123456-abcdef-98765432
NAME:Office
URL:geo:40.443,-79.945;u=10
END:VLOCATION
END:VALARM
END:VTODO`, "Remember to buy milk | remind DEPART:Office"},
	} {
		if got, refused := read(t, c.body); got != c.want || len(refused) > 0 {
			t.Errorf("%s reads\n%s %+v\nwant\n%s", name, got, refused, c.want)
		}
	}
}

// What other programs write; no source.
func TestLenient(t *testing.T) {
	for name, c := range map[string]struct{ body, want string }{
		"a subtask before what it is under": {"BEGIN:VTODO\nUID:b\nSUMMARY:sub\nRELATED-TO:a\nEND:VTODO\nBEGIN:VTODO\nUID:a\nSUMMARY:top\nEND:VTODO", "top\nsub | under 0"},
		"under each other":                  {"BEGIN:VTODO\nUID:b\nSUMMARY:b\nRELATED-TO:a\nEND:VTODO\nBEGIN:VTODO\nUID:a\nSUMMARY:a\nRELATED-TO:b\nEND:VTODO", "b | remarks It stands under itself in the file; here it stands by itself.\na | under 0"},
		"under what is not there":           {"BEGIN:VTODO\nUID:b\nSUMMARY:b\nRELATED-TO:a\nEND:VTODO", "b"},
		"no title":                          {"BEGIN:VTODO\nDESCRIPTION:Ring him\\nabout the key\nEND:VTODO", `Ring him | notes "about the key"`},
		"a duration":                        {"BEGIN:VTODO\nSUMMARY:x\nDTSTART;VALUE=DATE:20261126\nDURATION:P2D\nEND:VTODO", "x | start 2026-11-26 | due 2026-11-28"},
		"done by its percent":               {"BEGIN:VTODO\nSUMMARY:x\nPERCENT-COMPLETE:100\nEND:VTODO", "x | status completed"},
		"priorities":                        {"BEGIN:VTODO\nSUMMARY:x\nPRIORITY:4\nEND:VTODO\nBEGIN:VTODO\nSUMMARY:y\nPRIORITY:7\nEND:VTODO", "x | priority high\ny | priority low"},
		"another zone":                      {"BEGIN:VTODO\nSUMMARY:x\nDUE;TZID=Europe/Lisbon:20261127T160000\nEND:VTODO", "x | due 2026-11-27T11:00"},
		"a zone nobody knows":               {"BEGIN:VTODO\nSUMMARY:x\nDUE;TZID=\"Harbour Time\":20261127T160000\nEND:VTODO", "x | due 2026-11-27T16:00 | remarks The time zone “Harbour Time” is not known; DUE is taken as it stands."},
		"a repeat":                          {"BEGIN:VTODO\nSUMMARY:x\nDTSTART:20261127T160000\nDUE:20261127T160000\nRRULE:FREQ=WEEKLY;COUNT=3\nEND:VTODO", "x | due 2026-11-27T16:00 | repeat FREQ=WEEKLY;COUNT=3 | from 2026-11-27 | remarks The time of the start, 16:00, is not kept: a start is a day here."},
		"a rule no to-do has":               {"BEGIN:VTODO\nSUMMARY:x\nDTSTART:20261127T160000\nRRULE:FREQ=HOURLY\nEND:VTODO", ""},
		"a start after the due":             {"BEGIN:VTODO\nSUMMARY:x\nDTSTART;VALUE=DATE:20261128\nDUE;VALUE=DATE:20261127\nEND:VTODO", "x | due 2026-11-27 | remarks Its start, 2026-11-28, is after its due and was left out."},
		"categories that are no tags":       {"BEGIN:VTODO\nSUMMARY:x\nCATEGORIES:To do\\, soon,1st,#calls,Calls\nEND:VTODO", "x | tags To-do-soon st calls"},
		"an alarm that comes after":         {"BEGIN:VTODO\nSUMMARY:x\nDUE:20261127T160000\nBEGIN:VALARM\nTRIGGER:PT15M\nEND:VALARM\nEND:VTODO", "x | due 2026-11-27T16:00 | remarks A reminder was not read: it comes after what it reminds of"},
		"other parts":                       {"BEGIN:VEVENT\nSUMMARY:x\nEND:VEVENT\nBEGIN:VTIMEZONE\nTZID:x\nEND:VTIMEZONE", ""},
	} {
		got, refused := read(t, c.body)
		if name == "a rule no to-do has" {
			if !strings.Contains(got, "Repeats: FREQ=HOURLY") || !strings.Contains(got, "remarks") {
				t.Errorf("%s reads %s", name, got)
			}
			continue
		}
		if got != c.want || len(refused) > 0 {
			t.Errorf("%s reads\n%s %+v\nwant\n%s", name, got, refused, c.want)
		}
	}
}

func TestWhatIsRefused(t *testing.T) {
	for name, c := range map[string]struct {
		body string
		line int
		says string
	}{
		"one occurrence alone": {"BEGIN:VTODO\nUID:a\nSUMMARY:x\nRECURRENCE-ID:20261127\nEND:VTODO", 7, "one occurrence"},
	} {
		_, refused := read(t, c.body)
		if len(refused) != 1 || refused[0].Line != c.line || !strings.Contains(refused[0].Reason, c.says) || refused[0].Title != "x" {
			t.Errorf("%s: %+v; line %d, %q is wanted", name, refused, c.line, c.says)
		}
	}
	for name, c := range map[string]struct {
		text string
		line int
		says string
	}{
		"nothing":             {"hello\n", 1, "no iCalendar file"},
		"a page":              {"<!doctype html>\n<p>", 1, "no iCalendar file"},
		"no text":             {"BEGIN:VCALENDAR\nNAME:caf\xe9\x00\nEND:VCALENDAR\n", 1, "no text"},
		"cut off":             {"BEGIN:VCALENDAR\nBEGIN:VTODO\nSUMMARY:x\n", 3, "cut off: VTODO, begun in line 2"},
		"ends that are none":  {"BEGIN:VCALENDAR\nEND:VTODO\n", 2, "ends VTODO"},
		"a line that is none": {"BEGIN:VCALENDAR\nBEGIN:VTODO\nSUMMARY x\nEND:VTODO\nEND:VCALENDAR\n", 3, "no line of iCalendar"},
		"too deep":            {strings.Repeat("BEGIN:VCALENDAR\n", 20), 9, "within 8 other parts"},
		"a card":              {"BEGIN:VCARD\nEND:VCARD\n", 1, "VCARD, and not with VCALENDAR"},
	} {
		_, _, err := ics.Format{}.Read([]byte(c.text), world(t))
		var wrong *exchange.Error
		if !errors.As(err, &wrong) || wrong.Line != c.line || !strings.Contains(wrong.Reason, c.says) {
			t.Errorf("%s: %+v; line %d, %q is wanted", name, err, c.line, c.says)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("BEGIN:VTODO\nUID:a\nSUMMARY:x\nDUE:20261127T160000Z\nRRULE:FREQ=DAILY\nBEGIN:VALARM\nTRIGGER:-PT5M\nEND:VALARM\nEND:VTODO")
	f.Add("BEGIN:VTODO\nRELATED-TO;RELTYPE=PARENT:a\nX-TINCUP-PERSON;X-ROLE=\"ask\":Ada\nEND:VTODO")
	w := world(f)
	f.Fuzz(func(t *testing.T, body string) {
		items, _, err := ics.Format{}.Read(calendar(body), w)
		if err != nil {
			return
		}
		text, err := ics.Format{}.Write(items, w)
		if err != nil {
			t.Fatal(err)
		}
		back, refused, err := ics.Format{}.Read(text, w)
		if err != nil || len(refused) > 0 || len(back) != len(items) {
			t.Fatalf("%d items come back as %d, %+v, %v in\n%s", len(items), len(back), refused, err, text)
		}
	})
}
