package httpapi_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
	"tincup/internal/core/capture"
)

// shown reads JSON into a map for a look at several fields at once.
func shown(t *testing.T, a answer) map[string]any {
	t.Helper()
	m := map[string]any{}
	if err := json.Unmarshal([]byte(a.body), &m); err != nil {
		t.Fatalf("%s: %v", a.body, err)
	}
	return m
}

func TestASentenceIsReadAndPutIn(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Night Signals"}`).text(t, "id")
	person := s.want(201, "POST", "/api/people", `{"name":"Registrar","email":"registrar@harbour.example"}`).text(t, "id")
	const text = "Örder “mount” board 🏮, by Friday 4pm, in night signals, high, #suppliers, 20 min, waiting on registrar, remind me 1 hour before, every 2 weeks -- two sheets"
	before := s.revision()
	read := shown(t, s.want(200, "POST", "/api/sentence", `{"text":`+quoted(text)+`}`))
	if s.revision() != before {
		t.Error("reading changed the Book")
	}
	if read["title"] != "Örder mount board 🏮" || read["due"] != "2026-11-27T16:00" || read["list"] != list || read["notes"] != "two sheets" {
		t.Errorf("read as %v", read)
	}
	chip := read["chips"].([]any)[0].(map[string]any)
	span := chip["spans"].([]any)[0].(map[string]any)
	// The lantern is two UTF-16 code units, as in a page.
	if span["start"] != float64(24) || span["end"] != float64(37) || !strings.Contains(chip["without"].(string), `"by Friday 4pm"`) {
		t.Errorf("the chip is %v", chip)
	}
	made := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":`+quoted(text)+`}`, "Idempotency-Key: one"))
	again := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":`+quoted(text)+`}`, "Idempotency-Key: one"))
	if made["id"] != again["id"] {
		t.Error("a retry put a second one in")
	}
	if made["due"] != "2026-11-27T16:00" || made["list"] != list || made["estimate"] != float64(20) || made["notes"] != "two sheets" ||
		fmt.Sprint(made["person"]) != "map[id:"+person+" role:waiting on since:2026-11-24]" || fmt.Sprint(made["reminders"]) != "[-PT1H]" {
		t.Errorf("put in as %v", made)
	}
	rule := made["repeat"].(map[string]any)
	if rule["rule"] != "FREQ=WEEKLY;INTERVAL=2" || rule["first"] != "2026-11-27" || rule["words"] != "every 2 weeks" {
		t.Errorf("it repeats %v", rule)
	}
	// Into a list and a plan of the sheet's, unless it names its own.
	into := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Ring","list":"`+list+`","given":[{"field":"plan","value":"2026-W49"}]}`))
	if into["list"] != list || into["plan"] != "2026-W49" {
		t.Errorf("into the sheet: %v", into)
	}
}

// A list and a person whom nobody has yet are made with the to-do that names them, in one
// change with one undo; a retry, or the name once more, makes no second one.
func TestASentenceMakesWhatItNames(t *testing.T) {
	s := newSite(t, app.Settings{})
	read := shown(t, s.want(200, "POST", "/api/sentence", `{"text":"Order seed, in Garden, ask the framer"}`))
	if offers := fmt.Sprint(read["offers"]); !strings.Contains(offers, "in Garden (new)") || !strings.Contains(offers, "ask the Framer (new)") {
		t.Fatalf("it offers %s", offers)
	}
	text := `{"text":"Order seed, in Garden (new), ask the framer (new)"}`
	before := s.revision()
	read = shown(t, s.want(200, "POST", "/api/sentence", text))
	if read["newList"] != "Garden" || read["newPerson"] != "Framer" || read["title"] != "Order seed" || s.revision() != before {
		t.Fatalf("read as %v", read)
	}
	made := shown(t, s.want(201, "POST", "/api/sentence/todos", text, "Window-Id: w", "Idempotency-Key: one"))
	s.want(201, "POST", "/api/sentence/todos", text, "Window-Id: w", "Idempotency-Key: one")
	second := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Order pots, in Garden (new), ask Framer (new)"}`, "Window-Id: w"))
	if made["list"] != second["list"] || made["list"] == nil {
		t.Errorf("the lists are %v and %v", made["list"], second["list"])
	}
	count := func() (lists, people int) {
		o := shown(t, s.want(200, "GET", "/api/overview", ""))
		for _, shelf := range o["shelves"].([]any) {
			lists += len(shelf.(map[string]any)["lists"].([]any))
		}
		return lists, len(o["people"].([]any))
	}
	if lists, people := count(); lists != 1 || people != 1 {
		t.Errorf("there are %d lists and %d people", lists, people)
	}
	past := fmt.Sprint(s.want(200, "GET", "/api/history", "").body)
	if !strings.Contains(past, "Put in: “Order seed”, and made: the list “Garden”, the person “Framer”") {
		t.Errorf("the history says %s", past)
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	if lists, people := count(); lists != 0 || people != 0 {
		t.Errorf("after undo there are %d lists and %d people", lists, people)
	}
	s.want(200, "POST", "/api/redo", `{}`, "Window-Id: w")
	if lists, people := count(); lists != 1 || people != 1 {
		t.Errorf("after redo there are %d lists and %d people", lists, people)
	}
	// Several lines, two of which name it.
	s.want(201, "POST", "/api/lines/todos", `{"text":"Sow beans, in Allotment (new)\nSow peas, in Allotment (new)"}`, "Window-Id: w")
	if lists, _ := count(); lists != 2 {
		t.Errorf("there are %d lists", lists)
	}
}

// A file that was kept before goes in with its to-do, in the same change.
func TestASentenceWithFiles(t *testing.T) {
	s := newSite(t, app.Settings{})
	lamp := picture(t)
	kept := s.want(201, "POST", "/api/files?name=lamp.png", lamp, octets)
	hash := kept.text(t, "hash")
	if kept.text(t, "type") != "image/png" || s.revision() != float64(0) {
		t.Errorf("kept as %v", kept)
	}
	made := s.want(201, "POST", "/api/sentence/todos", `{"text":"Measure the lamp","files":[{"name":"lamp.png","hash":"`+hash+`"}]}`, "Window-Id: w")
	if made.text(t, "attachments.0.name") != "lamp.png" || made.text(t, "attachments.0.type") != "image/png" {
		t.Errorf("put in as %v", made)
	}
	if got := s.fetch("/api/todos/" + made.text(t, "id") + "/attachments/" + hash); got.body != lamp {
		t.Error("its bytes are not those that were kept")
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	s.want(404, "GET", "/api/todos/"+made.text(t, "id"), "")
	s.want(422, "POST", "/api/sentence/todos", `{"text":"Measure","files":[{"name":"lamp.png","hash":"`+strings.Repeat("0", 64)+`"}]}`)
	s.want(422, "POST", "/api/sentence/todos", `{"text":"Measure","files":[{"name":"../lamp.png","hash":"`+hash+`"}]}`)
	s.want(422, "POST", "/api/files?name=lamp.png", "no picture", octets)
	s.want(422, "POST", "/api/files?name=empty.txt", "", octets)
	s.want(422, "POST", "/api/files?name=a%2Fb", "x", octets)
	s.want(415, "POST", "/api/files?name=a", "{}")
}

func TestASentenceIsReadAsOfWhenItWasTyped(t *testing.T) {
	s := newSite(t, app.Settings{})
	a := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Ring tomorrow at 9am","typed":"2026-11-20T23:30","zone":"America/New_York"}`))
	if a["due"] != "2026-11-21T09:00" {
		t.Errorf("due %v", a["due"])
	}
	// What was to come when it was typed is late now.
	a = shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Ring at 10pm","typed":"2026-11-23T21:00","zone":"Europe/Lisbon"}`))
	if a["due"] != "2026-11-23T22:00" {
		t.Errorf("due %v", a["due"])
	}
}

func TestAPersonsWayOfWritingDates(t *testing.T) {
	s := newSite(t, app.Settings{Writing: capture.Settings{MonthFirst: true, SundayFirst: true}})
	for words, want := range map[string]string{"11/30": "2026-11-30", "end of week": "2026-11-28"} {
		if a := s.want(200, "POST", "/api/when", `{"field":"due","text":"`+words+`"}`); a.text(t, "value") != want {
			t.Errorf("%s: %s, want %s", words, a.body, want)
		}
	}
}

func TestAPersonsPartsOfTheDay(t *testing.T) {
	s := newSite(t, app.Settings{})
	when := func() string {
		return s.want(200, "POST", "/api/when", `{"field":"due","text":"tomorrow evening"}`).text(t, "value")
	}
	if before := when(); before != "2026-11-25T18:00" {
		t.Errorf("an evening is %s by default", before)
	}
	s.want(200, "PATCH", "/api/settings", `{"evening":"19:30"}`, "Window-Id: w")
	if chosen := when(); chosen != "2026-11-25T19:30" {
		t.Errorf("an evening is %s when 19:30 was chosen", chosen)
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	if after := when(); after != "2026-11-25T18:00" {
		t.Errorf("an evening is %s after undo", after)
	}
	if reply := s.want(422, "PATCH", "/api/settings", `{"evening":"09:00"}`); !strings.Contains(reply.body, "a time from 15:00 to 23:59") {
		t.Errorf("refused with %s", reply.body)
	}
}

func TestLinesBecomeATree(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans"}`).text(t, "id")
	text := quoted("# Crates\n- Order, by Friday\n  - Measure, 20 min\n    - [x] Find the tape\n- Paint")
	lines := shown(t, s.want(200, "POST", "/api/lines", `{"text":`+text+`}`))["lines"].([]any)
	depths := ""
	for _, l := range lines {
		m := l.(map[string]any)
		depths += fmt.Sprint(m["depth"], m["section"], m["done"], " ")
	}
	if depths != "0 true false 1 false false 2 false false 3 false true 1 false false " {
		t.Errorf("the tree is %s", depths)
	}
	done := shown(t, s.want(201, "POST", "/api/lines/todos", `{"text":`+text+`,"list":"`+list+`"}`, "Idempotency-Key: tree", "Window-Id: w"))
	if len(done["todos"].([]any)) != 4 { // the heading is a section
		t.Errorf("put in: %v", done)
	}
	top := done["todos"].([]any)[0].(string)
	inside := shown(t, s.want(200, "GET", "/api/todos/"+top+"/inside", ""))
	if len(inside["subtasks"].([]any)) != 1 || fmt.Sprint(inside["progress"]) != "map[done:1 total:1]" {
		t.Errorf("inside: %v", inside)
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	if total := s.want(200, "GET", "/api/lists/"+list+"/view", "").field(t, "total"); total != float64(0) {
		t.Errorf("after undo the list holds %v", total)
	}
}

func TestWordsForADate(t *testing.T) {
	s := newSite(t, app.Settings{})
	for _, c := range []struct{ field, text, value, words string }{
		{"due", "Friday 4pm", "2026-11-27T16:00", "Fri 27 Nov 2026, 16:00"},
		{"due", "by next month", "2026-12-01", "Tue 1 Dec 2026"},
		{"start", "Monday", "2026-11-30", "Mon 30 Nov 2026"},
		{"start", "from next week", "2026-11-30", "Mon 30 Nov 2026"},
		{"plan", "Friday 14:00 for 45 min", "2026-11-27T14:00/PT45M", "Fri 27 Nov 2026, 14:00 for 45 min"},
		{"plan", "next week", "2026-W49", "week 49 of 2026, from Mon 30 Nov 2026"},
		{"plan", "parked", "parked", "parked"},
	} {
		a := s.want(200, "POST", "/api/when", `{"field":"`+c.field+`","text":`+quoted(c.text)+`}`)
		if a.text(t, "value") != c.value || a.text(t, "words") != c.words {
			t.Errorf("%s %q: %s", c.field, c.text, a.body)
		}
	}
	// Words that mean nothing yet are no error of who asks.
	for words, says := range map[string]string{"soon": "not read as a date", "31 February": "There is no day"} {
		if a := s.want(200, "POST", "/api/when", `{"field":"due","text":"`+words+`"}`); a.text(t, "value") != "" || !strings.Contains(a.text(t, "reason"), says) {
			t.Errorf("%q: %s", words, a.body)
		}
	}
}

func TestTheLifeOfARepeatOverHTTP(t *testing.T) {
	s := newSite(t, app.Settings{})
	preview := shown(t, s.want(200, "POST", "/api/repeat", `{"choice":{"every":1,"unit":"MONTHLY","monthDay":31},"lead":3}`))
	if preview["rule"] != "FREQ=MONTHLY;BYMONTHDAY=31;RSCALE=GREGORIAN;SKIP=BACKWARD" ||
		fmt.Sprint(preview["dates"]) != "[2026-11-30 2026-12-31 2027-01-31 2027-02-28 2027-03-31]" ||
		preview["say"] != "every month on the 31st from 30 Nov 2026, 3 days ahead" {
		t.Errorf("preview: %v", preview)
	}
	foreign := shown(t, s.want(200, "POST", "/api/repeat", `{"rule":"FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13"}`))
	if foreign["choice"] != nil || foreign["words"] != "every month on the 13th where it is a Friday" {
		t.Errorf("a rule that is no choice: %v", foreign)
	}
	id, etag := s.capture(`{"title":"Rota","due":"2026-11-24","repeat":{"rule":"FREQ=WEEKLY;BYDAY=TU"},"estimate":30,"reminders":["-PT30M"]}`)
	one := "/api/todos/" + id
	s.capture(`{"title":"Ring round","parent":"` + id + `"}`)
	tick := shown(t, s.want(200, "POST", one+"/complete", ""))
	if tick["due"] != "2026-12-01" || tick["status"] != "needs-action" || !strings.Contains(fmt.Sprint(tick["change"]), "Next: Tue 1 Dec 2026") {
		t.Errorf("ticked: %v", tick)
	}
	inside := shown(t, s.want(200, "GET", one+"/inside", ""))
	records := inside["records"].([]any)
	if len(records) != 1 || len(inside["subtasks"].([]any)) != 1 {
		t.Fatalf("inside: %v", inside)
	}
	record := records[0].(map[string]any)
	if record["date"] != "2026-11-24" {
		t.Errorf("the record is %v", record)
	}
	s.want(412, "PATCH", one, `{"due":"2026-12-03"}`, "If-Match: "+etag)
	if a := s.want(200, "POST", one+"/skip", ""); a.text(t, "due") != "2026-12-08" {
		t.Errorf("skipped: %s", a.body)
	}
	if a := s.want(200, "POST", one+"/pause", ""); a.text(t, "repeat.paused") != "2026-11-24" {
		t.Errorf("paused: %s", a.body)
	}
	s.want(200, "POST", one+"/resume", "")
	if a := s.want(200, "POST", one+"/repeat/move", `{"to":"2026-12-10"}`); a.text(t, "due") != "2026-12-10" || a.text(t, "repeat.rule") != "FREQ=WEEKLY;BYDAY=TH" {
		t.Errorf("moved: %s", a.body)
	}
	if a := s.want(200, "POST", one+"/repeat", `{"rule":"FREQ=DAILY;INTERVAL=30","anchor":"completion"}`); a.text(t, "repeat.words") != "30 days after done" {
		t.Errorf("changed: %s", a.body)
	}
	if a := s.want(200, "POST", one+"/reminders", `{"add":["2026-12-09T08:00"],"remove":["-PT30M"]}`); fmt.Sprint(a.field(t, "reminders")) != "[2026-12-09T08:00]" {
		t.Errorf("reminders: %s", a.body)
	}
	if a := s.want(200, "POST", one+"/end-repeat", ""); a.field(t, "repeat") != nil {
		t.Errorf("ended: %s", a.body)
	}
	etag = s.want(200, "GET", one, "").header.Get("ETag")
	person := s.want(201, "POST", "/api/people", `{"name":"Registrar"}`).text(t, "id")
	s.want(200, "PATCH", "/api/people/"+person, `{"phone":"+351 000 400"}`)
	a := s.want(200, "PATCH", one, `{"estimate":null,"person":{"id":"`+person+`","role":"for"}}`, "If-Match: "+etag)
	if a.field(t, "estimate") != nil || a.text(t, "person.role") != "for" {
		t.Errorf("edited: %s", a.body)
	}
	a = s.want(200, "PATCH", one, `{"person":null}`, "If-Match: "+a.header.Get("ETag"))
	if a.field(t, "person") != nil {
		t.Errorf("the person is still there: %s", a.body)
	}
}

func TestBadSentencesAndRules(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"Ring the framer"}`)
	one := "/api/todos/" + id
	for _, c := range []struct {
		name, path, body string
		status           int
		field, says      string
	}{
		{"no title", "/api/sentence/todos", `{"text":"#calls"}`, 422, "text", "no title yet"},
		{"impossible date", "/api/sentence/todos", `{"text":"Pay 31 February"}`, 422, "text", "There is no day"},
		{"500 clauses", "/api/sentence/todos", `{"text":` + quoted(strings.Repeat("a, ", 500)) + `}`, 422, "text", "clauses"},
		{"100,000 characters", "/api/sentence/todos", `{"text":"` + strings.Repeat("a", 100_000) + `"}`, 422, "text", "100000 bytes"},
		{"300,000 characters", "/api/sentence/todos", `{"text":"` + strings.Repeat("a", 300_000) + `"}`, 400, "text", "wrong"},
		{"control characters", "/api/sentence/todos", `{"text":"Pay\u0007 rent"}`, 422, "text", "U+0007"},
		{"a zone that is none", "/api/sentence", `{"text":"x","zone":"Atlantis"}`, 422, "zone", "not a time zone"},
		{"typed at no time", "/api/sentence", `{"text":"x","typed":"2026-11-24"}`, 422, "typed", "date with time"},
		{"too many lines", "/api/lines/todos", `{"text":` + quoted(strings.Repeat("a\n", 501)) + `}`, 422, "text", "more than 500 lines"},
		{"empty lines", "/api/lines", `{"text":"\n\n"}`, 422, "text", "every line is empty"},
		{"one bad line of two", "/api/lines/todos", `{"text":"Ring\nPay 31 February"}`, 422, "text", "Line 2: There is no day"},
		{"a list within a tree", "/api/lines/todos", `{"text":"Ring\n  Pay #a//b"}`, 422, "text", "Line 2"},
		{"hourly", one + "/repeat", `{"rule":"FREQ=HOURLY"}`, 422, "repeat", "more often than DAILY"},
		{"interval 0", one + "/repeat", `{"rule":"FREQ=DAILY;INTERVAL=0"}`, 422, "repeat", "INTERVAL=0"},
		{"COUNT with UNTIL", one + "/repeat", `{"rule":"FREQ=DAILY;COUNT=2;UNTIL=20271231"}`, 422, "repeat", "cannot stand together"},
		{"month day 32", one + "/repeat", `{"rule":"FREQ=MONTHLY;BYMONTHDAY=32"}`, 422, "repeat", "BYMONTHDAY=32"},
		{"10 kB of rule", one + "/repeat", `{"rule":"FREQ=DAILY;` + strings.Repeat("X", 10_000) + `"}`, 400, "rule", "wrong"},
		{"never", one + "/repeat", `{"rule":"FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"}`, 422, "repeat", "never happens"},
		{"neither rule nor choice", one + "/repeat", `{}`, 422, "repeat", "one of the two"},
		{"both", "/api/repeat", `{"rule":"FREQ=DAILY","choice":{"every":1,"unit":"DAILY"}}`, 422, "repeat", "one of the two"},
		{"an unknown unit", "/api/repeat", `{"choice":{"every":1,"unit":"HOURLY"}}`, 400, "choice.unit", "wrong"},
		{"a reminder that is none", one + "/reminders", `{"add":["soon"]}`, 422, "reminders", "reminder"},
		{"skip what does not repeat", one + "/skip", ``, 422, "repeat", "does not repeat"},
		{"moving what does not repeat", one + "/repeat/move", `{"to":"2026-12-01"}`, 422, "repeat", "does not repeat"},
		{"a person twice", "/api/people", `{"name":""}`, 422, "name", "empty"},
		{"no e-mail", "/api/people", `{"name":"Tomás","email":"at home"}`, 422, "email", "not an e-mail"},
	} {
		before := s.revision()
		a := s.call("POST", c.path, c.body)
		if a.status != c.status || a.text(t, "field") != c.field || !strings.Contains(a.text(t, "detail"), c.says) {
			t.Errorf("%s: %d %.300s; want %d, %s, “%s”", c.name, a.status, a.body, c.status, c.field, c.says)
		}
		if after := s.revision(); after != before {
			t.Errorf("%s: the Book went from revision %v to %v", c.name, before, after)
		}
	}
}
