package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
)

// A week says whether it holds, proposes days, takes them all with one undo, and says what was
// done on its days.
func TestWeek(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.want(201, "POST", "/api/todos", `{"title":"Hang the lamps","estimate":300,"plan":"2026-11-25"}`)
	s.want(201, "POST", "/api/todos", `{"title":"Label text","estimate":200,"plan":"2026-11-25"}`)
	loose := s.want(201, "POST", "/api/todos", `{"title":"Rota","estimate":60,"plan":"2026-W48"}`).text(t, "id")
	also := s.want(201, "POST", "/api/todos", `{"title":"Crates","plan":"2026-W48"}`).text(t, "id")
	done := s.want(201, "POST", "/api/todos", `{"title":"Ring Ada","estimate":20}`).text(t, "id")
	s.want(200, "POST", "/api/todos/"+done+"/complete", "")
	week := func(of string) answer { return s.want(200, "GET", "/api/week"+of, "") }
	w := week("")
	if got := w.text(t, "says"); got != "Wednesday holds 50 min more than it can. Moving “Label text” to Thursday keeps every due." {
		t.Errorf("it says %q", got)
	}
	if w.text(t, "first") != "2026-11-23" || w.text(t, "week") != "2026-W48" || w.text(t, "relief.to") != "2026-11-26" {
		t.Errorf("it is %s", w.body)
	}
	if minutes, capacity, worked := w.field(t, "days.2.load.minutes"), w.field(t, "days.2.load.capacity"), w.field(t, "days.0.worked"); minutes != 500.0 || capacity != 450.0 || worked != 450.0 {
		t.Errorf("Wednesday holds %v of %v, Monday had %v", minutes, capacity, worked)
	}
	if got := w.text(t, "days.1.done.0.todo.title"); got != "Ring Ada" {
		t.Errorf("on Tuesday was done %q", got)
	}
	if one, two := w.text(t, "loose.0.todo.title"), w.text(t, "loose.1.todo.title"); one != "Rota" || two != "Crates" || w.field(t, "loose.1.assumed") != true {
		t.Errorf("loose are %q and %q", one, two)
	}
	level := s.want(200, "GET", "/api/week/level", "")
	if got := level.text(t, "says"); !strings.HasPrefix(got, "With these the fullest day is 67 % full") || len(level.field(t, "proposals").([]any)) != 4 {
		t.Errorf("levelled: %s", level.body)
	}
	// A day that holds more than any could is said to be in need of pieces; where all lies well, that is said.
	big := s.want(201, "POST", "/api/todos", `{"title":"Catalogue","estimate":6000,"plan":"2026-11-24"}`).text(t, "id")
	if pieces := s.want(200, "GET", "/api/week/level", ""); !strings.Contains(pieces.text(t, "says"), "Longer than any day it could be on: “Catalogue”.") || pieces.text(t, "tooLong.0.id") != big {
		t.Errorf("of a job of 100 h it says %s", pieces.body)
	}
	s.want(200, "DELETE", "/api/todos/"+big, "", "If-Match: "+s.want(200, "GET", "/api/todos/"+big, "").header.Get("ETag"))
	// Work on a day without hours was put outside of them on purpose, and stays.
	s.want(200, "PATCH", "/api/settings", `{"hoursSunday":"none"}`)
	sunday := s.want(201, "POST", "/api/todos", `{"title":"Guard duty","estimate":60,"plan":"2026-11-29"}`).text(t, "id")
	if level := s.want(200, "GET", "/api/week/level", ""); strings.Contains(level.body, sunday) {
		t.Errorf("Sunday’s duty would move: %s", level.body)
	}
	s.want(200, "DELETE", "/api/todos/"+sunday, "", "If-Match: "+s.want(200, "GET", "/api/todos/"+sunday, "").header.Get("ETag"))
	var plans []string
	for i := range 4 {
		plans = append(plans, fmt.Sprintf(`{"id":%q,"plan":%q}`, level.text(t, fmt.Sprintf("proposals.%d.id", i)), level.text(t, fmt.Sprintf("proposals.%d.day", i))))
	}
	took := s.want(200, "POST", "/api/plans", `{"plans":[`+strings.Join(plans, ",")+`]}`, "Window-Id: w")
	if took.text(t, "change.says") != "Planned day by day: 3 to-dos; 1 stood so already" {
		t.Errorf("it says %s", took.body)
	}
	if w := week(""); len(w.field(t, "loose").([]any)) != 0 {
		t.Errorf("loose are still %v", w.field(t, "loose"))
	}
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	if w := week(""); len(w.field(t, "loose").([]any)) != 2 {
		t.Errorf("after the undo loose are %v", w.field(t, "loose"))
	}
	// Another week, and one that is over.
	if w := week("?of=2026-12-02"); w.text(t, "first") != "2026-11-30" || w.text(t, "says") != "Nothing lies on a day of this week yet." {
		t.Errorf("next week is %s", w.body)
	}
	if w := week("?of=2026-11-18"); w.text(t, "says") != "This week is over." {
		t.Errorf("last week says %q", w.text(t, "says"))
	}
	// Sunday first: the week of this Tuesday begins on the 22nd.
	s.want(200, "PATCH", "/api/settings", `{"weekStart":"sunday"}`)
	if w := week(""); w.text(t, "first") != "2026-11-22" || w.text(t, "week") != "2026-W48" || len(w.field(t, "loose").([]any)) != 2 {
		t.Errorf("with Sunday first it is %s", w.body)
	}
	for body, want := range map[string]string{
		`{"plans":[]}`: "", `{"plans":[{"id":"x","plan":"2026-11-25"}]}`: "", `{"plans":[{"id":"` + loose + `","plan":"soon"}]}`: "",
		`{"plans":[{"id":"` + loose + `","plan":"2026-11-25"},{"id":"` + loose + `","plan":"2026-11-26"}]}`:               "named twice",
		`{"plans":[{"id":"` + also + `","plan":"2026-11-25"},{"id":"01a220ba-0000-7000-8000-000000000000","plan":null}]}`: "Nothing was changed",
	} {
		if got := s.call("POST", "/api/plans", body); got.status < 400 || got.status > 499 || !strings.Contains(got.body, want) {
			t.Errorf("%s: %d %s", body, got.status, got.body)
		}
	}
	if bad := s.call("GET", "/api/week?of=soon", ""); bad.status != 400 && bad.status != 422 {
		t.Errorf("%d %s", bad.status, bad.body)
	}
}

// What was done on a day stands with the latest first, whatever was opened again meanwhile.
func TestDoneOfADay(t *testing.T) {
	s := newSite(t, app.Settings{})
	ids := map[string]string{}
	tick := func(at, title, act string) {
		t.Helper()
		s.setClock("2026-11-24T" + at + ":00")
		if ids[title] == "" {
			ids[title] = s.want(201, "POST", "/api/todos", `{"title":"`+title+`"}`).text(t, "id")
		}
		s.want(200, "POST", "/api/todos/"+ids[title]+"/"+act, "")
	}
	tick("09:10", "first", "complete")
	tick("09:20", "second", "complete")
	tick("09:30", "third", "complete")
	tick("09:40", "first", "reopen")
	tick("09:50", "fourth", "complete")
	tick("10:00", "first", "complete")
	w := s.want(200, "GET", "/api/week", "")
	var got []string
	for i := range w.field(t, "days.1.done").([]any) {
		got = append(got, w.text(t, fmt.Sprintf("days.1.done.%d.todo.title", i)))
	}
	if strings.Join(got, " ") != "first fourth third second" {
		t.Errorf("done were %v, the latest first", got)
	}
}
