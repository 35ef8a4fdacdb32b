package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
)

// Hours are proposed for what has none, a time that something else takes too is said, and a
// date has hours of its own until it is set back.
func TestHoursOfADay(t *testing.T) {
	s := newSite(t, app.Settings{}) // Tuesday 24 November, 09:10
	s.want(201, "POST", "/api/todos", `{"title":"Call","estimate":30,"plan":"2026-11-25T10:00/PT30M"}`)
	label := s.want(201, "POST", "/api/todos", `{"title":"Label","estimate":60,"concentration":"deep","plan":"2026-11-25"}`).text(t, "id")
	s.want(201, "POST", "/api/todos", `{"title":"Catalogue","estimate":600,"plan":"2026-11-25"}`)
	laid := s.want(200, "GET", "/api/week/hours?of=2026-11-25", "")
	if laid.text(t, "proposals.0.id") != label || laid.text(t, "proposals.0.plan") != "2026-11-25T10:30/PT60M" {
		t.Errorf("laid: %s", laid.body)
	}
	if got := laid.text(t, "says"); got != "1 would have its hour. No stretch is long enough for “Catalogue”." {
		t.Errorf("it says %q", got)
	}
	for _, of := range []string{"2026-11-20", "2031-01-01"} {
		if laid := s.want(200, "GET", "/api/week/hours?of="+of, ""); len(laid.field(t, "proposals").([]any)) != 0 {
			t.Errorf("%s: %s", of, laid.body)
		}
	}
	if laid := s.want(200, "GET", "/api/week/hours", ""); laid.text(t, "says") != "All that lies here has its hour." {
		t.Errorf("today: %s", laid.body)
	}
	// Over the other's time: said, by the one that begins later.
	s.want(200, "POST", "/api/plans", `{"plans":[{"id":"`+label+`","plan":"2026-11-25T10:15/PT1H"}]}`)
	w := s.want(200, "GET", "/api/week", "")
	if says := w.text(t, "says"); !strings.HasSuffix(says, "“Label”, Wednesday 10:15, lies under “Call”.") || w.text(t, "days.2.slips.1.under") != "Call" {
		t.Errorf("it says %q; %s", says, w.body)
	}
	if now, from, usual := w.text(t, "now"), w.text(t, "days.2.hours.1.from"), w.text(t, "days.2.usual"); now != "2026-11-24T09:10" || from != "2026-11-25T13:30" || usual != "09:00-12:30, 13:30-17:30" {
		t.Errorf("now %s, hours from %s, usually %s", now, from, usual)
	}
	away := s.want(200, "POST", "/api/week/hours", `{"day":"2026-11-25","hours":"none"}`, "Window-Id: w")
	if says := away.text(t, "change.says"); says != "Hours on Wed 25 Nov: away" {
		t.Errorf("%q", says)
	}
	w = s.want(200, "GET", "/api/week", "")
	if worked := w.field(t, "days.2.worked"); worked != 0.0 || w.field(t, "days.2.apart") != true || w.text(t, "days.2.usual") != "09:00-12:30, 13:30-17:30" {
		t.Errorf("away, %v minutes are worked: %s", worked, w.body)
	}
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	if w = s.want(200, "GET", "/api/week", ""); w.field(t, "days.2.worked") != 450.0 {
		t.Errorf("after undo %v minutes are worked", w.field(t, "days.2.worked"))
	}
	s.want(200, "POST", "/api/week/hours", `{"day":"2026-11-25","hours":"9-11"}`)
	s.want(200, "POST", "/api/week/hours", `{"day":"2026-11-25","hours":null}`)
	for body, want := range map[string]string{
		`{"day":"2026-11-25","hours":"late"}`: "Stretches such as", `{"day":"someday","hours":"none"}`: "day", `{"day":"2026-11-25"}`: "hours",
	} {
		if got := s.call("POST", "/api/week/hours", body); got.status < 400 || got.status > 499 || !strings.Contains(got.body, want) {
			t.Errorf("%s: %d %s", body, got.status, got.body)
		}
	}
}

// What has to give is the least that is lost, each with a due that it could keep; what is
// longer than a day is named, and split.
func TestWhatHasToGive(t *testing.T) {
	s := newSite(t, app.Settings{})
	if none := s.want(200, "GET", "/api/week/give", ""); none.text(t, "says") != "Everything that is due can be done by then." {
		t.Errorf("with nothing: %s", none.body)
	}
	for i := range 4 {
		s.want(201, "POST", "/api/todos", fmt.Sprintf(`{"title":"Lamp %d","estimate":400,"priority":"high","due":"2026-11-26"}`, i))
	}
	small := s.want(201, "POST", "/api/todos", `{"title":"Rota","estimate":300,"due":"2026-11-26"}`).text(t, "id")
	w := s.want(200, "GET", "/api/week", "")
	if w.field(t, "late") != true {
		t.Errorf("the week is not late: %s", w.body)
	}
	give := s.want(200, "GET", "/api/week/give", "")
	late := give.field(t, "late").([]any)
	if len(late) != 2 || give.field(t, "proved") != true || give.text(t, "says") != "If these 2 give, all else is done in time. Nothing costs less." {
		t.Errorf("%s", give.body)
	}
	for i := range late {
		if later := give.text(t, fmt.Sprintf("late.%d.later", i)); later != "2026-11-27" && later != "2026-11-28" && later != "2026-11-30" {
			t.Errorf("the due could be %s: %s", later, give.body)
		}
	}
	// Every due moved as proposed, nothing has to give any more.
	for i := range late {
		id, later := give.text(t, fmt.Sprintf("late.%d.todo.id", i)), give.text(t, fmt.Sprintf("late.%d.later", i))
		s.want(200, "PATCH", "/api/todos/"+id, `{"due":"`+later+`"}`, "If-Match: *")
	}
	if after := s.want(200, "GET", "/api/week/give?of=2026-11-30", ""); len(after.field(t, "late").([]any)) != 0 {
		t.Errorf("after the moves: %s", after.body)
	}
	long := s.want(201, "POST", "/api/todos", `{"title":"Catalogue","estimate":1000,"plan":"2026-W48"}`).text(t, "id")
	level := s.want(200, "GET", "/api/week/level", "")
	if level.text(t, "tooLong.0.id") != long || level.field(t, "tooLong.0.parts") != 3.0 {
		t.Errorf("levelled: %s", level.body)
	}
	split := s.want(200, "POST", "/api/todos/"+long+"/split", `{"parts":3}`)
	if says := split.text(t, "change.says"); says != "Split: “Catalogue” into 3 parts of 5 h 35 min" {
		t.Errorf("%q", says)
	}
	if level := s.want(200, "GET", "/api/week/level", ""); len(level.field(t, "tooLong").([]any)) != 0 {
		t.Errorf("split, and levelled: %s", level.body)
	}
	s.want(422, "POST", "/api/todos/"+small+"/split", `{"parts":1}`)
	s.want(404, "POST", "/api/todos/01a220ba-0000-7000-8000-000000000000/split", `{"parts":2}`)
}
