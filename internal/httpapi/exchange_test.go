package httpapi_test

import (
	"fmt"
	"net/url"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
)

const lampFile = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VTODO\r\nUID:lamps@harbour.example\r\nSUMMARY:Count the lamps\r\nDUE;VALUE=DATE:20261127\r\nCATEGORIES:calls\r\nEND:VTODO\r\n" +
	"BEGIN:VTODO\r\nUID:wicks@harbour.example\r\nSUMMARY:Trim the wicks\r\nRELATED-TO:lamps@harbour.example\r\nEND:VTODO\r\nBEGIN:VTODO\r\nSUMMARY:Wrong\r\nRECURRENCE-ID:20261127\r\nEND:VTODO\r\nEND:VCALENDAR\r\n"

// A file is looked at, brought in, brought in again with a change, undone, and goes out again.
func TestFilesInAndOut(t *testing.T) {
	s := newSite(t, app.Settings{})
	look := func(file string) answer {
		return s.want(200, "POST", "/api/import/look?name=lamps.ics", file, octets)
	}
	before := s.revision()
	p := look(lampFile)
	if p.value(t, "new") != "2" || p.value(t, "refused") != "1" || p.text(t, "rows.0.what") != "refused" || p.value(t, "rows.0.line") != "16" || p.text(t, "rows.1.title") != "Count the lamps" || p.value(t, "rows.2.depth") != "1" {
		t.Errorf("it would become %s", p.body)
	}
	if s.revision() != before {
		t.Error("looking changed something")
	}
	in := s.want(200, "POST", "/api/import?name=lamps.ics", lampFile, octets, "Idempotency-Key: k", "Window-Id: w")
	if again := s.want(200, "POST", "/api/import?name=lamps.ics", lampFile, octets, "Idempotency-Key: k", "Window-Id: w"); again.body != in.body || in.text(t, "change.says") != "Brought in: 2 new" {
		t.Errorf("%s, and a retry %s", in.body, again.body)
	}
	if p := look(lampFile); p.value(t, "same") != "2" || p.value(t, "new") != "0" {
		t.Errorf("once more it would become %s", p.body)
	}
	other := strings.Replace(strings.Replace(lampFile, "20261127", "20261130", 1), "Trim the wicks", "Trim all wicks", 1)
	p = look(other)
	if p.value(t, "changed") != "2" || p.text(t, "rows.1.fields.0.field") != "due" || p.text(t, "rows.1.fields.0.was") != "2026-11-27" || p.text(t, "rows.1.fields.0.is") != "2026-11-30" {
		t.Errorf("changed, it would become %s", p.body)
	}
	out := s.want(200, "GET", "/api/export?format=ics&list=cup", "")
	if !strings.Contains(out.body, "UID:lamps@harbour.example\r\n") || !strings.Contains(out.body, "RELATED-TO;RELTYPE=PARENT:lamps@harbour.example") || !strings.Contains(out.header.Get("Content-Disposition"), "The Cup.ics") {
		t.Errorf("out goes %v %s", out.header, out.body)
	}
	if p := look(out.body); p.value(t, "same") != "2" {
		t.Errorf("what goes out would become %s", p.body)
	}
	if v := s.want(200, "GET", "/api/export?view=overdue", ""); strings.Contains(v.body, "VTODO") {
		t.Errorf("nothing is overdue, and out goes %s", v.body)
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	if v := s.want(200, "GET", "/api/views/cup", ""); v.value(t, "total") != "0" {
		t.Errorf("undone: %s", v.body)
	}
	for _, c := range []struct{ path, body, says string }{
		{"/api/import?name=a.ics", "BEGIN:VCALENDAR\nBEGIN:VTODO\n", "Line 2: The file is cut off"},
		{"/api/import?name=a.odt", "hello", "of no format that is known here: ics"},
		{"/api/import?name=a.txt", "hello", "There is no to-do in the file"},
		{"/api/import?name=a.ics", "hello", "no iCalendar file"},
		{"/api/import?name=a.ics", "BEGIN:VCALENDAR\nEND:VCALENDAR\n", "There is no to-do in the file"},
		{"/api/import?name=a.ics&list=01900000-0000-7000-8000-000000000000", lampFile, "There is no list"},
	} {
		if a := s.want(422, "POST", c.path, c.body, octets); !strings.Contains(a.text(t, "detail"), c.says) {
			t.Errorf("%s %.30s: %s", c.path, c.body, a.body)
		}
	}
	s.want(404, "GET", "/api/export?list=01900000-0000-7000-8000-000000000000", "")
}

// A file is stopped at some moment: then nothing of it is there, and otherwise all of it.
func TestStoppedImports(t *testing.T) {
	s := newSite(t, app.Settings{})
	window := "Window-Id: w"
	if a := s.want(204, "GET", "/api/import/progress", "", window); a.body != "" {
		t.Errorf("nothing comes in, and it has got to %s", a.body)
	}
	s.want(204, "DELETE", "/api/import/progress", "", window)
	const items = 3000
	ends, stages := map[string]int{}, map[string]bool{}
	seen := func() bool { return ends["409 false"] > 0 && ends["200 true"] > 0 && stages["working"] }
	for try := 0; try < 24 || try < 240 && !seen(); try++ {
		var file strings.Builder
		for i := range items {
			fmt.Fprintf(&file, "- [ ] Lamp %d of %d\n", i, try)
		}
		before := s.revision()
		in, key := make(chan answer), fmt.Sprint("Idempotency-Key: ", try)
		go func() { in <- s.call("POST", "/api/import?name=lamps.md", file.String(), octets, window, key) }()
		for begun := false; !begun; {
			begun = s.want(204, "GET", "/api/import/progress", "", "Window-Id: another").status == 204 &&
				s.call("GET", "/api/import/progress", "", window).status == 200
		}
		time.Sleep(time.Duration(try) * 4 * time.Millisecond)
		if is := s.call("GET", "/api/import/progress", "", window); is.status == 200 {
			stages[is.text(t, "stage")] = true
			if is.text(t, "stage") == "working" && is.value(t, "total") != fmt.Sprint(items) {
				t.Errorf("it has got to %s", is.body)
			}
		}
		stop, told := s.call("DELETE", "/api/import/progress", "", window, key), <-in
		end := fmt.Sprint(told.status, " ", s.revision() != before)
		ends[end]++
		if end != "200 true" && end != "409 false" || (stop.status == 409) != (told.status == 200) || stop.status >= 500 {
			t.Errorf("stopping is answered %d, and the import %s: %s", stop.status, end, told.body)
		}
		// Sent again, as where the answer was lost, it ends as it did.
		if again := s.call("POST", "/api/import?name=lamps.md", file.String(), octets, window, key); again.status != told.status || again.body != told.body {
			t.Errorf("sent again it is answered %d: %.200s", again.status, again.body)
		}
	}
	if !seen() {
		t.Errorf("the ends are %v, the stages seen %v", ends, stages)
	}
	t.Log(ends, stages)
}

// What is stopped before it arrives does not begin; what is kept is not said to be stopped.
func TestImportsStoppedTooSoonOrTooLate(t *testing.T) {
	s := newSite(t, app.Settings{})
	const lamps = "- [ ] Count the lamps\n"
	s.want(204, "DELETE", "/api/import/progress", "", "Window-Id: w", "Idempotency-Key: soon")
	s.want(409, "POST", "/api/import?name=a.md", lamps, octets, "Window-Id: w", "Idempotency-Key: soon")
	if v := s.want(200, "GET", "/api/views/cup", ""); v.value(t, "total") != "0" {
		t.Errorf("it was stopped before it came, and there is %s", v.body)
	}
	s.want(200, "POST", "/api/import?name=a.md", lamps, octets, "Window-Id: another", "Idempotency-Key: soon")
	kept := s.want(200, "POST", "/api/import?name=a.md", lamps, octets, "Window-Id: w", "Idempotency-Key: late")
	if a := s.want(409, "DELETE", "/api/import/progress", "", "Window-Id: w", "Idempotency-Key: late"); a.text(t, "detail") != "It is kept already. Undo takes it back." {
		t.Errorf("too late: %s", a.body)
	}
	if again := s.want(200, "POST", "/api/import?name=a.md", lamps, octets, "Window-Id: w", "Idempotency-Key: late"); again.body != kept.body {
		t.Errorf("%s, and a retry %s", kept.body, again.body)
	}
}

// A table whose dates can be read either way says so, reads them as it is told, and remembers that
// for the next file with the same heads; a row that is left out comes with what stands in the file.
func TestTableThatAsks(t *testing.T) {
	s := newSite(t, app.Settings{})
	const octets = "Content-Type: application/octet-stream"
	const file = "Task;Deadline;Duration\nOil the hinge;03/04/2027;long\n;05/06/2027;\n"
	look := s.want(200, "POST", "/api/import/look?name=a.csv", file, octets)
	if form, says := look.value(t, "columns.1.form"), look.value(t, "columns.1.forms.1.says"); form != "day-first" || !strings.HasPrefix(says, "03/04/2027 is Thu 4 Mar 2027") {
		t.Errorf("it is read %s, and could be %q", form, says)
	}
	if n, head, raw := look.value(t, "toNotes"), look.value(t, "rawHead"), look.value(t, "rows.0.raw"); n != "1" || head != "Task;Deadline;Duration" || raw != ";05/06/2027;" {
		t.Errorf("%s to the notes, of %q, and left out is %q", n, head, raw)
	}
	s.want(200, "POST", "/api/import?name=a.csv&columns=deadline%3Ddue%3Amonth-first", file, octets)
	if due := s.want(200, "GET", "/api/views/cup", "").value(t, "groups.0.rows.0.todo.due"); due != "2027-03-04" {
		t.Errorf("it is due %s", due)
	}
	next := s.want(200, "POST", "/api/import/look?name=b.csv", "Task;Deadline\nWipe;07/08/2027\n", octets)
	if form, due := next.value(t, "columns.1.form"), next.value(t, "rows.0.due"); form != "month-first" || due != "2027-07-08" {
		t.Errorf("the next is read %s: %s", form, due)
	}
}

// A line of Markdown offers what the capture line would, and is brought in with what was taken; a line whose
// comments say more than it does offers nothing.
func TestOffersOfMarkdown(t *testing.T) {
	s := newSite(t, app.Settings{})
	const octets = "Content-Type: application/octet-stream"
	const file = "# Shop\n\n- [ ] Email Tom by Friday about the boiler\n  - [ ] Read the manual 20 min\n- [ ] Meet Ada Friday about it <!-- estimate: 20 min -->\n- [ ] Wipe\n"
	look := s.want(200, "POST", "/api/import/look?name=a.md", file, octets)
	for path, want := range map[string]string{
		"rows.0.sentence": "Email Tom by Friday about the boiler", "rows.0.offers.0.words": "by Friday",
		"rows.0.offers.0.taken": "Email Tom about the boiler, by Friday", "rows.1.offers.0.field": "estimate",
	} {
		if got := look.value(t, path); got != want {
			t.Errorf("%s is %q, not %q", path, got, want)
		}
	}
	if strings.Contains(look.body, "Meet Ada Friday about it\",\"offers") || look.value(t, "rows.2.title") != "Meet Ada Friday about it" {
		t.Errorf("a line with comments: %s", look.body)
	}
	taken := "&instead=" + url.QueryEscape("3="+url.QueryEscape("Email Tom about the boiler, by Friday")+"&4="+url.QueryEscape("Read the manual, 20 min"))
	look = s.want(200, "POST", "/api/import/look?name=a.md"+taken, file, octets)
	if title, due := look.value(t, "rows.0.title"), look.value(t, "rows.0.due"); title != "Email Tom about the boiler" || due != "2026-11-27" {
		t.Errorf("taken: %q, due %s", title, due)
	}
	for range 2 {
		s.want(200, "POST", "/api/import?name=a.md"+taken, file, octets, "Idempotency-Key: one")
	}
	s.want(422, "POST", "/api/import?name=a.md", file, octets, "Idempotency-Key: one") // another request under its key
	cup := s.want(200, "GET", "/api/views/cup", "")
	if total := cup.value(t, "total"); total != "4" || !strings.Contains(cup.body, `"due":"2026-11-27"`) || strings.Count(cup.body, `"estimate":20`) != 2 {
		t.Errorf("brought in: %s", cup.body)
	}
	for _, wrong := range []string{"x=Wipe", "%25zz"} {
		s.want(422, "POST", "/api/import/look?name=a.md&instead="+wrong, file, octets)
	}
}

// A file without UIDs says what in it looks like a to-do that is there, which may be left out, and
// what of it is not taken over; a retry is answered as the first try was.
func TestImportOfWhatLooksAlike(t *testing.T) {
	s := newSite(t, app.Settings{})
	const octets = "Content-Type: application/octet-stream"
	const file = "title,due\nOil the hinge,2026-11-27\nWipe,\n"
	s.want(200, "POST", "/api/import?name=a.csv", file, octets)
	look := s.want(200, "POST", "/api/import/look?name=a.csv", file+"Sweep,\n", octets)
	if like, first, new := look.value(t, "like"), look.value(t, "rows.0.like"), look.value(t, "new"); like != "2" || first != "true" || new != "3" {
		t.Errorf("%s look alike, the first %s, of %s", like, first, new)
	}
	if left := s.want(200, "POST", "/api/import/look?name=a.csv&likes=leave", file+"Sweep,\n", octets); left.value(t, "new") != "1" {
		t.Errorf("without them: %s", left.body)
	}
	for range 2 {
		done := s.want(200, "POST", "/api/import?name=a.csv&likes=leave", file+"Sweep,\n", octets, "Idempotency-Key: one")
		if says := done.text(t, "change.says"); says != "Brought in: “Sweep”" {
			t.Errorf("it says %q", says)
		}
	}
	s.want(422, "POST", "/api/import?name=a.csv&likes=leave", file, octets, "Idempotency-Key: another")
	passed := s.want(200, "POST", "/api/import/look?name=a.ics", "BEGIN:VCALENDAR\nBEGIN:VTODO\nUID:a\nSUMMARY:Oil\nATTENDEE:mailto:a@museum.example\nEND:VTODO\nBEGIN:VTODO\nUID:b\nSUMMARY:Wipe\nATTENDEE:x\nCLASS:PUBLIC\nEND:VTODO\nEND:VCALENDAR\n", octets)
	if got := passed.value(t, "passed.0.name") + " " + passed.value(t, "passed.0.count") + ", " + passed.value(t, "passed.1.name"); got != "ATTENDEE 2, CLASS" {
		t.Errorf("not taken over are %s", got)
	}
}
