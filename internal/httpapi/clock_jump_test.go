package httpapi_test

import (
	"testing"
	"time"

	"tincup/internal/app"
)

// A clock that jumps ahead for a moment takes nothing for good: neither the bin,
// nor the history, nor the answers to retries.
func TestAClockThatJumpsAhead(t *testing.T) {
	s := newSite(t, app.Settings{})
	id := s.want(201, "POST", "/api/todos", `{"title":"a"}`, "Idempotency-Key: k", "Window-Id: w").text(t, "id")
	s.want(200, "DELETE", "/api/todos/"+id, "", "If-Match: *", "Window-Id: w")
	today := func() string { return s.want(200, "GET", "/api/overview", "").text(t, "today") }
	for _, wall := range []string{"2027-06-01T09:00:00", "2026-11-24T09:11:00", "2028-01-01T09:00:00", "2026-11-24T09:12:00"} {
		s.setClock(wall)
		waitFor(t, "the clock", func() bool { return today() == wall[:10] })
		time.Sleep(100 * time.Millisecond) // the turn of the day is told and tidied after
	}
	if total := s.want(200, "GET", "/api/views/bin", "").field(t, "total"); total != float64(1) {
		t.Errorf("the bin holds %v", total)
	}
	if again := s.want(201, "POST", "/api/todos", `{"title":"a"}`, "Idempotency-Key: k", "Window-Id: w"); again.text(t, "id") != id {
		t.Error("a retry made a second to-do")
	}
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	if total := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); total != float64(1) {
		t.Errorf("after undo the Cup holds %v", total)
	}
}
