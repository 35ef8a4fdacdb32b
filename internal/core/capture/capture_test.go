package capture_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"tincup/internal/core/capture"
)

func TestChips(t *testing.T) {
	d := capture.Read("Order mount board, by Friday, in Night Signals, 4pm, #suppliers, every 2 weeks until 1 May, 3 days ahead, 1h30, remind me 1 hour before", at(tuesday))
	want := []capture.Chip{
		{Field: capture.FieldDue, Words: "by Friday, 4pm", Value: "Fri 27 Nov 2026, 16:00"},
		{Field: capture.FieldList, Words: "in Night Signals", Value: "Night Signals"},
		{Field: capture.FieldTag, Words: "#suppliers", Value: "suppliers"},
		{Field: capture.FieldRepeat, Words: "every 2 weeks until 1 May", Value: "every 2 weeks until 1 May 2027, first Fri 27 Nov 2026, 16:00"},
		{Field: capture.FieldLead, Words: "3 days ahead", Value: "from Tue 24 Nov 2026 on"},
		{Field: capture.FieldEstimate, Words: "1h30", Value: "1 h 30"},
		{Field: capture.FieldReminder, Words: "remind me 1 hour before", Value: "Fri 27 Nov 2026, 15:00"},
	}
	if len(d.Chips) != len(want) {
		t.Fatalf("chips: %+v", d.Chips)
	}
	for i, c := range d.Chips {
		if c.Field != want[i].Field || c.Words != want[i].Words || c.Value != want[i].Value {
			t.Errorf("chip %d is %+v, want %+v", i, c, want[i])
		}
	}
}

func TestTakingAChipAwayLeavesItsWords(t *testing.T) {
	const text = "Ring the framer tomorrow, high, at 5pm"
	d := capture.Read(text, at(tuesday))
	due := d.Chips[slices.IndexFunc(d.Chips, func(c capture.Chip) bool { return c.Field == capture.FieldDue })]
	left := capture.Quote(text, due)
	if want := `Ring the framer "tomorrow", high, "at 5pm"`; left != want {
		t.Errorf("%s, want %s", left, want)
	}
	if got, want := brief(capture.Read(left, at(tuesday))), "Ring the framer tomorrow, at 5pm | high"; got != want {
		t.Errorf("%s, want %s", got, want)
	}
}

func TestReasons(t *testing.T) {
	for sentence, want := range map[string]string{
		"Pay on 31 February":                   "There is no day “31 February”.",
		"Pay tomorrow 25:00":                   "There is no such time of day.",
		"Pay from Friday, by Thursday":         "The start, Fri 27 Nov 2026, is after the due, Thu 26 Nov 2026.",
		"Pay this Monday":                      "This Monday, Mon 23 Nov 2026, has passed.",
		"Pay by Thursday, by Friday":           "There are two words for “due”: “by Thursday” and “by Friday”. Keep one.",
		"Pay Thu 27 Nov 2026":                  "Fri 27 Nov 2026 is not a Thursday.",
		"Pay, remind me 1 hour before":         "There is no due, slot or start to be before.",
		"":                                     "There is no title yet. Say what is to be done.",
		"#calls":                               "There is no title yet. Say what is to be done.",
		strings.Repeat("a", 501):               "The title has 501 characters; 500 is the most. Put the rest behind “ -- ” as notes.",
		strings.Repeat("a ", 50_000):           "The sentence has 100000 bytes; 20000 is the most.",
		"Pay\x07 the rent":                     "The sentence has a control character (U+0007); take it out.",
		"Pay \xff":                             "The sentence is not valid UTF-8 text.",
		"x" + strings.Repeat(", high", 500):    "The sentence has 501 clauses; only the first 100 are read.",
		strings.Repeat("#a ", 500):             "The sentence says 500 things besides its title; 100 is the most.",
		"x -- " + strings.Repeat("n", 70_000):  "The notes have 70000 bytes; 65536 is the most.",
		"x #" + strings.Repeat("t", 101):       "A tag has at most 100 characters.",
		"Pay every day until 20 November 2026": "It would end on Fri 20 Nov 2026, before its first date, Tue 24 Nov 2026.",
		"Pay the rent, in Choir, in Flat":      "This is a second word for “list”. Keep one.",
		"Pay every month on the 30th from 9 December, 1000000000": "",
	} {
		d := capture.Read(sentence, at(tuesday))
		if want == "" {
			if len(d.Problems) > 0 {
				t.Errorf("%.40q: %+v", sentence, d.Problems)
			}
			continue
		}
		if !slices.ContainsFunc(d.Problems, func(p capture.Problem) bool { return p.Reason == want }) {
			t.Errorf("%.40q: %+v, want %q", sentence, d.Problems, want)
		}
		if len(d.Problems) > 20 || utf8.RuneCountInString(d.Title) > 20_000 {
			t.Errorf("%.40q: %d problems and a title of %d bytes", sentence, len(d.Problems), len(d.Title))
		}
	}
}

func TestReadLines(t *testing.T) {
	const text = "# Opening evening\r\n" +
		"- Send the invitations, by Friday, high\n" +
		"  - [ ] Check addresses #calls\n" +
		"\t* [x] Print cards\n" +
		"    1. Choose paper, 20 min\n" +
		"\n" +
		" - Order wine -- two crates\n" +
		"Hire chairs\n" +
		"      Count guests\n" +
		"   Ring the hall\n" +
		"## After\n" +
		"12) Send thanks next week\n" +
		"#calls\n"
	lines, err := capture.ReadLines(text, at(tuesday))
	if err != nil {
		t.Fatal(err)
	}
	want := []struct {
		number, depth, parent int
		section, done         bool
		brief                 string
	}{
		{1, 0, -1, true, false, "Opening evening"},
		{2, 0, -1, false, false, "Send the invitations | due 2026-11-27 | high"},
		{3, 1, 1, false, false, "Check addresses | #calls"},
		{4, 1, 1, false, true, "Print cards"},
		{5, 2, 3, false, false, "Choose paper | 20 min"},
		{7, 0, -1, false, false, "Order wine | -- two crates"},
		{8, 0, -1, false, false, "Hire chairs"},
		{9, 1, 6, false, false, "Count guests"},
		{10, 1, 6, false, false, "Ring the hall"},
		{11, 0, -1, true, false, "After"},
		{12, 0, -1, false, false, "Send thanks | plan 2026-W49"},
		{13, 0, -1, false, false, " | #calls | !"},
	}
	if len(lines) != len(want) {
		t.Fatalf("%d lines, want %d", len(lines), len(want))
	}
	for i, l := range lines {
		w := want[i]
		if l.Number != w.number || l.Depth != w.depth || l.Parent != w.parent || l.Section != w.section || l.Done != w.done || brief(l.Draft) != w.brief {
			t.Errorf("line %d: %+v %q, want %+v", i, l, brief(l.Draft), w)
		}
	}
	// What is a mark of a line, and what is just none.
	for text, want := range map[string]string{
		"# x": "section x", "###### x": "section x", "####### x": "####### x", "#x": " | #x | !", "# ": "section  | !",
		"1. x": "x", "1) x": "x", "123456789. x": "x", "1234567890. x": "1234567890. x", ". x": ". x", "1.x": "1.x", "1 x": "1 x",
		"- [x] a": "done a", "- [X] a": "done a", "- [ ] a": "a", "- [x]": "done  | !", "- [x]a": "[x]a", "- [y] a": "[y] a", "[x] a": "[x] a",
		"- (x] a": "(x] a", "- [x) a": "[x) a", "- [x": "[x", "- x]": "x]", "-x": "-x", "+ x": "x", "12. [x] a": "done a",
	} {
		lines, err := capture.ReadLines(text, at(tuesday))
		if err != nil || len(lines) != 1 {
			t.Fatalf("%q: %v, %v", text, lines, err)
		}
		got := brief(lines[0].Draft)
		if lines[0].Section {
			got = "section " + got
		}
		if lines[0].Done {
			got = "done " + got
		}
		if got != want {
			t.Errorf("%q reads %q, want %q", text, got, want)
		}
	}
	if _, err := capture.ReadLines(strings.Repeat("a\n", capture.MaxLines+1), at(tuesday)); err == nil {
		t.Error("too many lines were read")
	}
	if _, err := capture.ReadLines(strings.Repeat("a\n\n", capture.MaxLines), at(tuesday)); err != nil {
		t.Error(err)
	}
}

// Words for one field alone. What says more than that, or another field, is none.
func TestReadWhen(t *testing.T) {
	env := at(tuesday)
	long := strings.Repeat("é", 40)
	for _, c := range []struct{ words, due, start, plan string }{
		{"Friday", "2026-11-27", "2026-11-27", "2026-11-27"},
		{" by Friday 4pm ", "2026-11-27T16:00", "", ""},
		{"Friday 4pm", "2026-11-27T16:00", "", "2026-11-27T16:00/PT30M"},
		{"Thu 2-4pm", "", "", "2026-11-26T14:00/PT120M"},
		{"next week", "2026-11-30", "2026-11-30", "2026-W49"},
		{"week 50", "", "", "2026-W50"},
		{"December", "2026-12-01", "2026-12-01", "2026-12"},
		{"parked", "", "", "parked"},
		{"not before Monday", "", "2026-11-30", ""},
		{"30 February", "", "", ""},
		{"Friday, high", "", "", ""}, {"Friday high", "", "", ""}, {"Friday #calls", "", "", ""}, {"Friday -- note", "", "", ""},
		{"high", "", "", ""}, {"soonish", "", "", ""}, {"", "", "", ""}, {long + "x", "", "", ""},
	} {
		due, err := capture.ReadDue(c.words, env)
		if due.String() != c.due || (err == nil) != (c.due != "") {
			t.Errorf("%q as a due: %s, %v; want %s", c.words, due, err, c.due)
		}
		start, err := capture.ReadStart(c.words, env)
		if start.String() != c.start || (err == nil) != (c.start != "") {
			t.Errorf("%q as a start: %s, %v; want %s", c.words, start, err, c.start)
		}
		plan, err := capture.ReadPlan(c.words, env)
		if plan.String() != c.plan || (err == nil) != (c.plan != "") {
			t.Errorf("%q as a plan: %s, %v; want %s", c.words, plan, err, c.plan)
		}
	}
	for words, want := range map[string]string{
		"30 February": "There is no day “30 February”.",
		long:          "“" + long + "” is not read as a date.",
		long + "x":    "“" + long + "…” is not read as a date.",
	} {
		if _, err := capture.ReadDue(words, env); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%q: %v, want %s", words, err, want)
		}
	}
}

// Words for a repeat alone, with the time that is said, and for a length.
func TestReadRepeatAndEstimate(t *testing.T) {
	env := at(tuesday)
	for words, want := range map[string]string{
		"every weekday":                      "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR 2026-11-24  0",
		"weekday":                            "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR 2026-11-24  0",
		"weekdays":                           "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR 2026-11-24  0",
		"every weekday at 8:45":              "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR 2026-11-25 08:45 0",
		"yearly 9 October":                   "FREQ=YEARLY 2027-10-09  0",
		"9 October":                          "FREQ=YEARLY;BYMONTH=10;BYMONTHDAY=9 2027-10-09  0",
		"every year on 9 Oct, 3 weeks ahead": "FREQ=YEARLY;BYMONTH=10;BYMONTHDAY=9 2027-10-09  21",
		"first of the month":                 "FREQ=MONTHLY;BYMONTHDAY=1 2026-12-01  0",
		"the first of every month":           "FREQ=MONTHLY;BYMONTHDAY=1 2026-12-01  0",
		"on the 3rd of the month":            "FREQ=MONTHLY;BYMONTHDAY=3 2026-12-03  0",
		"1st and 15th of the month":          "FREQ=MONTHLY;BYMONTHDAY=1,15 2026-12-01  0",
		"last working day of the month":      "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1 2026-11-30  0",
		"Mon, Wed and Fri":                   "FREQ=WEEKLY;BYDAY=MO,WE,FR 2026-11-25  0",
		"2 weeks":                            "FREQ=WEEKLY;INTERVAL=2 2026-11-24  0",
		"fortnight":                          "FREQ=WEEKLY;INTERVAL=2 2026-11-24  0",
		"30 days after done":                 "FREQ=DAILY;INTERVAL=30 2026-11-24  0",
		"monthly until 20 December":          "FREQ=MONTHLY;UNTIL=20261220 2026-11-24  0",
		"every 2 hours":                      "", "soonish": "", "": "", "every weekday, high": "", "every weekday #calls": "",
		"every 31 February": "", "Friday by Monday, every day until yesterday": "",
	} {
		r, err := capture.ReadRepeat(words, env)
		got := ""
		if err == nil {
			got = fmt.Sprint(r.Rule, " ", r.First, " ", r.Time, " ", r.Lead)
		}
		if got != want {
			t.Errorf("%q is %q, %v; want %q", words, got, err, want)
		}
	}
	for words, want := range map[string]int{"20 min": 20, "1h30": 90, "an hour": 60, "takes 2 hours": 120, "half an hour": 30, "1 h 30": 90, "16 h 40": 1000, "1 h 05": 65, "2h 15": 135, "1 h 5": 0, "1 h 75": 0, "20 min 30": 0, "20": 0, "0 min": 0, "200h": 0, "Friday": 0, "20 min high": 0} {
		if got, err := capture.ReadEstimate(words, env); got != want || (err == nil) != (want > 0) {
			t.Errorf("%q takes %d, %v; want %d", words, got, err, want)
		}
	}
}

func TestReadReminder(t *testing.T) {
	env := at(tuesday)
	for _, c := range []struct{ words, alone, ahead string }{
		{"tomorrow 9am", "2026-11-25T09:00", "2026-11-25T09:00"},
		{"in 20 min", "2026-11-24T09:20", "2026-11-24T09:20"},
		{"Friday", "2026-11-27T09:00", "2026-11-27T09:00"},
		{"1 hour before", "", "-PT1H"},
		{"the day before", "", "-P1D"},
		{"when I get to the museum", "ARRIVE:The museum", "ARRIVE:The museum"},
		{"leaving post office", "DEPART:Post office", "DEPART:Post office"},
		{"when I leave the harbour", "", ""},
		{"soonish", "", ""},
		{"by Friday, 1 hour before", "", ""},
	} {
		for ahead, want := range map[bool]string{false: c.alone, true: c.ahead} {
			r, err := capture.ReadReminder(c.words, ahead, env)
			if r.String() != want || (err == nil) != (want != "") {
				t.Errorf("%q, ahead %v: %s, %v; want %q", c.words, ahead, r, err, want)
			}
		}
	}
	// What is refused is refused for what it says, and not for the due it could come before.
	if _, err := capture.ReadReminder("yesterday 9am", true, env); err == nil || strings.Contains(err.Error(), "two times") {
		t.Errorf("yesterday: %v", err)
	}
	if _, err := capture.ReadReminder("when I leave the harbour", true, env); err == nil || !strings.Contains(err.Error(), "None of your places is called “the harbour”") {
		t.Errorf("a place nobody knows: %v", err)
	}
}
