package httpapi_test

import (
	"strings"
	"testing"

	"tincup/internal/app"
)

// A walk has its steps with their rows; finishing it is kept, told and undone; what is kept
// is asked about no more.
func TestReview(t *testing.T) {
	s := newSite(t, app.Settings{})
	thought := s.want(201, "POST", "/api/todos", `{"title":"Thought"}`).text(t, "id")
	s.want(201, "POST", "/api/todos", `{"title":"Lamp","due":"2026-11-24","estimate":30}`)
	walk := s.want(200, "GET", "/api/review/daily", "")
	if walk.text(t, "groups.0.kind") != "to-sort" || walk.text(t, "groups.0.rows.0.todo.title") != "Thought" || walk.field(t, "groups.1.count") != 0.0 {
		t.Errorf("daily: %s", walk.body)
	}
	if walk.text(t, "groups.2.rows.0.todo.title") != "Lamp" || !strings.HasPrefix(walk.text(t, "holds"), "30 min of work, ") {
		t.Errorf("the day: %s", walk.body)
	}
	if weekly := s.want(200, "GET", "/api/review/weekly", ""); len(weekly.field(t, "groups").([]any)) != 8 {
		t.Errorf("weekly: %s", weekly.body)
	}
	done := s.want(200, "POST", "/api/review/daily", `{"decided":3,"minutes":7}`, "Window-Id: w")
	if says := done.text(t, "change.says"); says != "Daily review done: 3 decided in 7 min" {
		t.Errorf("%q", says)
	}
	last := func() string { return s.want(200, "GET", "/api/overview", "").text(t, "settings.reviewedDaily") }
	if got := last(); got != "2026-11-24" {
		t.Errorf("last done %s", got)
	}
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	if got := last(); got != "never" {
		t.Errorf("after undo last done %s", got)
	}
	kept := s.want(200, "POST", "/api/todos/"+thought+"/keep", "", "Window-Id: w")
	if says := kept.text(t, "change.says"); says != "Kept: “Thought”" {
		t.Errorf("%q", says)
	}
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	s.want(200, "POST", "/api/todos/"+thought+"/complete", "")
	past := s.want(200, "GET", "/api/past", "")
	if past.text(t, "27.day") != "2026-11-24" || past.field(t, "27.done") != 30.0 || past.field(t, "27.count") != 1.0 || past.text(t, "0.day") != "2026-10-28" {
		t.Errorf("the past: %s", past.body)
	}
	s.want(422, "POST", "/api/review/daily", `{"decided":-1,"minutes":7}`)
	s.want(422, "POST", "/api/review/daily", `{"decided":1,"minutes":100000}`)
	if bad := s.call("GET", "/api/review/yearly", ""); bad.status < 400 || bad.status > 499 {
		t.Errorf("yearly: %d %s", bad.status, bad.body)
	}
}
