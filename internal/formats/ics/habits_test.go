package ics_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/geo"
	"tincup/internal/formats/ics"
)

// tokyo is a zone as a file defines it under a name of its own, and summer one with two changes a
// year (section 3.6.5; its rules are those of the European Union).
const (
	tokyo = "BEGIN:VTIMEZONE\nTZID:Desk 3\nBEGIN:STANDARD\nDTSTART:19510908T000000\nTZOFFSETFROM:+0900\nTZOFFSETTO:+0900\nEND:STANDARD\nEND:VTIMEZONE\n"
	union = "BEGIN:VTIMEZONE\nTZID:Union\nBEGIN:DAYLIGHT\nDTSTART:19810329T020000\nTZOFFSETFROM:+0100\nTZOFFSETTO:+0200\nRRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU\nEND:DAYLIGHT\n" +
		"BEGIN:STANDARD\nDTSTART:19961027T030000\nTZOFFSETFROM:+0200\nTZOFFSETTO:+0100\nRRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU\nEND:STANDARD\nEND:VTIMEZONE\n"
)

// Files of other programs that are as the standard has it are read so. The person is in New York.
func TestAsTheStandardHasIt(t *testing.T) {
	todo := func(lines string) string {
		return "BEGIN:VTODO\nUID:a\nSUMMARY:Oil\n" + lines + "\nEND:VTODO"
	}
	alarm := func(lines string) string { return "BEGIN:VALARM\nACTION:DISPLAY\n" + lines + "\nEND:VALARM" }
	for name, c := range map[string]struct{ body, want string }{
		"an alarm in the morning of a date": {todo("DUE;VALUE=DATE:20261127\n" + alarm("TRIGGER;RELATED=END:PT8H30M")), "Oil due 2026-11-27 remind -PT30M"},
		"an alarm in its evening":           {todo("DUE;VALUE=DATE:20261127\n" + alarm("TRIGGER;RELATED=END:PT18H")), "Oil due 2026-11-27 remind PT9H"},
		"an alarm the evening before":       {todo("DUE;VALUE=DATE:20261127\n" + alarm("TRIGGER;RELATED=END:-PT6H")), "Oil due 2026-11-27 remind -PT15H"},
		"an alarm at midnight of a start":   {todo("DTSTART;VALUE=DATE:20261127\n" + alarm("TRIGGER:PT0S")), "Oil start 2026-11-27 remind -PT9H"},
		"an alarm a week behind a date":     {todo("DUE;VALUE=DATE:20261127\n" + alarm("TRIGGER;RELATED=END:P7D")), "Oil due 2026-11-27"},
		"an alarm before a time":            {todo("DUE:20261127T160000\n" + alarm("TRIGGER;RELATED=END:-PT30M")), "Oil due 2026-11-27T16:00 remind -PT30M"},
		"an alarm of no action":             {todo("DUE:20261127T160000\nBEGIN:VALARM\nACTION:NONE\nTRIGGER;RELATED=END:-PT30M\nEND:VALARM"), "Oil due 2026-11-27T16:00"},
		"ours, moved elsewhere":             {todo("DUE:20261127T160000\n" + alarm("TRIGGER;RELATED=END:-PT15M\nX-TINCUP-REMINDER:-PT30M")), "Oil due 2026-11-27T16:00 remind -PT15M"},
		"ours of an earlier version":        {todo("DUE;VALUE=DATE:20261127\n" + alarm("TRIGGER;RELATED=END:-PT30M\nX-TINCUP-REMINDER:-PT30M")), "Oil due 2026-11-27 remind -PT30M"},

		"a zone of the file":        {tokyo + todo("DUE;TZID=Desk 3:20261127T160000"), "Oil due 2026-11-27T02:00"},
		"its winter":                {union + todo("DUE;TZID=Union:20261127T160000"), "Oil due 2026-11-27T10:00"},
		"its summer":                {union + todo("DUE;TZID=Union:20270727T160000"), "Oil due 2027-07-27T10:00"},
		"the day its summer begins": {union + todo("DUE;TZID=Union:20270328T013000"), "Oil due 2027-03-27T20:30"},
		"the day its summer ends":   {union + todo("DUE;TZID=Union:20261025T033000"), "Oil due 2026-10-24T22:30"},
		"a zone of Windows":         {todo("DUE;TZID=W. Europe Standard Time:20261127T160000"), "Oil due 2026-11-27T10:00"},
		"a zone behind a prefix":    {todo("DUE;TZID=/example.org/2026/Europe/Lisbon:20261127T160000"), "Oil due 2026-11-27T11:00"},
		"a zone nobody knows":       {todo("DUE;TZID=Atlantis:20261127T160000"), "Oil due 2026-11-27T16:00"},

		"a week whose day is moved": {todo("DTSTART;TZID=Asia/Tokyo:20261130T060000\nDUE;TZID=Asia/Tokyo:20261130T060000\nRRULE:FREQ=WEEKLY;BYDAY=MO,WE"),
			"Oil due 2026-11-29T16:00 repeat FREQ=WEEKLY;BYDAY=TU,SU from 2026-11-29"},
		"a month whose day is moved": {todo("DUE;TZID=Asia/Tokyo:20261201T060000\nRRULE:FREQ=MONTHLY;BYMONTHDAY=1"),
			`Oil due 2026-11-30T16:00 notes "Repeats: FREQ=MONTHLY;BYMONTHDAY=1"`},
		"days in a row": {todo("DUE;TZID=Asia/Tokyo:20261201T060000\nRRULE:FREQ=DAILY"), "Oil due 2026-11-30T16:00 repeat FREQ=DAILY from 2026-11-30"},

		"completed on a day":                  {todo("STATUS:COMPLETED\nCOMPLETED;VALUE=DATE:20261120"), "Oil status completed completed 2026-11-20T05:00"},
		"a line folded within a character":    {"BEGIN:VTODO\nUID:a\nSUMMARY:\xc3\n \x96len\nEND:VTODO", "Ölen"},
		"Windows-1252":                        {"BEGIN:VTODO\nUID:a\nSUMMARY:caf\xe9\nEND:VTODO", "café"},
		"a date that is none":                 {todo("DUE:20261399\nPRIORITY:1"), `Oil priority high left "DUE: 20261399"`},
		"a priority of ten, and the year 0":   {todo("PRIORITY:ten\nDTSTART;VALUE=DATE:00000101"), `Oil left "PRIORITY: ten\nDTSTART: 00000101"`},
		"cancelled, and when":                 {todo("STATUS:CANCELLED\nX-TINCUP-CLOSED:20261120T100000Z"), "Oil status cancelled completed 2026-11-20T10:00"},
		"a child, said from above":            {todo("RELATED-TO;RELTYPE=CHILD:b") + "\nBEGIN:VTODO\nUID:b\nSUMMARY:Wipe\nEND:VTODO", "Oil | Wipe under 0"},
		"a child, said before it":             {"BEGIN:VTODO\nUID:b\nSUMMARY:Wipe\nEND:VTODO\n" + todo("RELATED-TO;RELTYPE=CHILD:b"), "Oil | Wipe under 0"},
		"each is its own child":               {todo("RELATED-TO;RELTYPE=CHILD:a"), "Oil"},
		"one after another":                   {todo("") + chainOf("c>b", "b>", "d>c"), "Oil in order | b under 0 | c under 0 | d under 0"},
		"one of three depends on another":     {todo("") + chainOf("c>b", "b>", "d>"), "Oil | b under 0 | c under 0 | d under 0"},
		"each depends on the other, a circle": {todo("") + chainOf("c>b", "b>c"), "Oil in order | b under 0 | c under 0"},
	} {
		items, refused, err := ics.Format{}.Read(calendar(c.body), world(t))
		if err != nil || len(refused) > 0 {
			t.Errorf("%s: %v, %+v", name, err, refused)
			continue
		}
		var got []string
		for _, i := range items {
			s, _, _ := strings.Cut(says(i), " | remarks")
			s = strings.ReplaceAll(s, " | ", " ")
			if !i.Todo.Completed.IsZero() {
				s += " completed " + i.Todo.Completed.Time().UTC().Format("2006-01-02T15:04")
			}
			if i.Left != "" {
				s += fmt.Sprintf(" left %q", i.Left)
			}
			if i.Todo.InOrder {
				s = strings.Replace(s, "Oil", "Oil in order", 1)
			}
			got = append(got, s)
		}
		if s := strings.Join(got, " | "); s != c.want {
			t.Errorf("%s:\n%s\nwant\n%s", name, s, c.want)
		}
	}
}

// chainOf are subtasks of a, each as its name and what it depends on.
func chainOf(all ...string) string {
	var s strings.Builder
	for _, one := range all {
		name, on, _ := strings.Cut(one, ">")
		fmt.Fprintf(&s, "\nBEGIN:VTODO\nUID:%s\nSUMMARY:%s\nRELATED-TO:a\n", name, name)
		if on != "" {
			fmt.Fprintf(&s, "RELATED-TO;RELTYPE=DEPENDS-ON:%s\n", on)
		}
		s.WriteString("END:VTODO")
	}
	return s.String()
}

// A file that goes out has nothing that the standard does not allow: a note has no priority, due, location or alarm (section
// 3.6.3), what was cancelled was not completed, an alarm of a date counts from midnight, and a place
// has its position (RFC 9073 section 7.2). All of it comes back.
func TestWrittenAsTheStandardAllows(t *testing.T) {
	w := world(t)
	w.Places = map[string]geo.Point{"The museum": geo.MustAt(38.7, -9.1)}
	at := day.TimestampOf(time.Date(2026, 11, 20, 10, 0, 0, 0, time.UTC))
	half := []day.Reminder{day.ReminderBefore(30)}
	items := []exchange.Item{
		{Incoming: book.Incoming{UID: "note", Under: -1, Todo: book.Todo{Title: "Lamps", IsNote: true, Priority: book.High, Due: day.MustMoment("2026-11-27T16:00"), Place: "The museum", Reminders: half, Start: day.MustDate("2026-11-25")}}},
		{Incoming: book.Incoming{UID: "date", Under: -1, Todo: book.Todo{Title: "Oil", Due: day.MustMoment("2026-11-27"), Place: "The museum", Reminders: half}}},
		{Incoming: book.Incoming{UID: "over", Under: -1, Todo: book.Todo{Title: "Wipe", Status: book.Cancelled, Completed: at}}},
		{Incoming: book.Incoming{UID: "late", Under: -1, Todo: book.Todo{Title: "Ring", Due: day.MustMoment("2026-11-27"), Reminders: []day.Reminder{day.ReminderBefore(-9 * 60), day.ReminderBefore(24 * 60)}}}},
	}
	out, err := ics.Format{}.Write(items, w)
	if err != nil {
		t.Fatal(err)
	}
	text := strings.ReplaceAll(string(out), "\r\n", "\n")
	note := text[strings.Index(text, "BEGIN:VJOURNAL"):strings.Index(text, "END:VJOURNAL")]
	for _, name := range []string{"\nPRIORITY", "\nDUE", "\nLOCATION", "BEGIN:VALARM", "\nSTATUS"} {
		if strings.Contains(note, name) {
			t.Errorf("the note has %q:\n%s", name, note)
		}
	}
	for _, line := range []string{"TRIGGER;RELATED=END:PT8H30M", "TRIGGER;RELATED=END:PT18H", "TRIGGER;RELATED=END:-PT15H", "GEO:38.7;-9.1", "NAME:The museum", "STATUS:CANCELLED"} {
		if !strings.Contains(text, line+"\n") {
			t.Errorf("%s is not in\n%s", line, text)
		}
	}
	if strings.Contains(text, "\nCOMPLETED:") {
		t.Error("what was cancelled is said to be completed")
	}
	back, refused, err := ics.Format{}.Read(out, w)
	if err != nil || len(refused) > 0 || len(back) != len(items) {
		t.Fatalf("%v, %+v", err, refused)
	}
	for i := range items {
		a, b := items[i].Todo, back[i].Todo
		if says(items[i]) != says(back[i]) || a.Completed != b.Completed || a.Priority != b.Priority {
			t.Errorf("%s\ncomes back as\n%s", says(items[i]), says(back[i]))
		}
	}
}

// Properties that are not taken over are named, each once; those that say nothing of a to-do are not.
func TestPassedProperties(t *testing.T) {
	items, _, _ := ics.Format{}.Read(calendar("BEGIN:VTODO\nUID:a\nSUMMARY:Oil\nSEQUENCE:3\nATTENDEE:mailto:a@museum.example\nATTENDEE:mailto:b@museum.example\nX-COLOUR:red\nX-TINCUP-PLAN:parked\n"+
		"BEGIN:VALARM\nACTION:AUDIO\nTRIGGER:-PT5M\nEND:VALARM\nBEGIN:PARTICIPANT\nUID:p\nEND:PARTICIPANT\nEND:VTODO"), world(t))
	if got := fmt.Sprint(items[0].Passed); got != "[ATTENDEE PARTICIPANT X-COLOUR]" {
		t.Errorf("passed over are %s", got)
	}
}
