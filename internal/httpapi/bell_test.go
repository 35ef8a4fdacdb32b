package httpapi_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"tincup/internal/app"
)

func (s *site) bell() answer { return s.want(200, "GET", "/api/bell", "") }

// rings waits until so many rings are open, and returns their titles.
func (s *site) rings(n int) []string {
	s.t.Helper()
	var titles []string
	waitFor(s.t, fmt.Sprintf("%d rings", n), func() bool {
		titles = nil
		for _, r := range s.bell().field(s.t, "open").([]any) {
			titles = append(titles, r.(map[string]any)["title"].(string))
		}
		return len(titles) == n
	})
	return titles
}

func TestBell(t *testing.T) {
	s := newSite(t, app.Settings{})
	events, stop := s.stream("/api/events")
	defer stop()
	todo, _ := s.capture(`{"title":"Ring the insurer","due":"2026-11-24T10:00","reminders":["-PT30M"]}`)
	s.capture(`{"title":"Feed the cat","reminders":["2026-11-24T09:30;drip"]}`)
	if b := s.bell(); b.text(t, "next") != "2026-11-24T09:30" || b.field(t, "openCount") != float64(0) {
		t.Errorf("before it rings: %s", b.body)
	}
	s.setClock("2026-11-24T09:30:00")
	if titles := s.rings(2); !slices.Contains(titles, "Ring the insurer") {
		t.Errorf("it rings %q", titles)
	}
	waitFor(t, "an event that says so", func() bool {
		select {
		case e := <-events:
			return strings.Contains(e, `"rings":true`)
		default:
			return false
		}
	})
	ids := map[string]string{}
	for _, r := range s.bell().field(t, "open").([]any) {
		ring := r.(map[string]any)
		ids[ring["title"].(string)] = ring["id"].(string)
		if ring["at"] != "2026-11-24T09:30" || ring["rang"] != "2026-11-24T09:30" || ring["missed"] != false || (ring["sound"] == "drip") != (ring["title"] == "Feed the cat") {
			t.Errorf("it reads %v", ring)
		}
	}
	// Undo in the window that put something off reaches what was done before that.
	s.want(200, "POST", "/api/todos/"+todo+"/tags", `{"add":["calls"]}`, "Window-Id: w", "If-Match: *")
	off := s.want(200, "POST", "/api/bell/later", `{"rings":["`+ids["Ring the insurer"]+`"],"minutes":10}`, "Window-Id: w", "Idempotency-Key: k")
	if again := s.want(200, "POST", "/api/bell/later", `{"rings":["`+ids["Ring the insurer"]+`"],"minutes":10}`, "Window-Id: w", "Idempotency-Key: k"); again.body != off.body {
		t.Errorf("a retry says %s, not %s", again.body, off.body)
	}
	s.want(200, "POST", "/api/bell/seen", `{"rings":["`+ids["Feed the cat"]+`"]}`, "Window-Id: w")
	if b := s.bell(); b.field(t, "openCount") != float64(0) || b.text(t, "later.0.later") != "2026-11-24T09:40" {
		t.Errorf("after the answers: %s", b.body)
	}
	if says := s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w").text(t, "change.says"); !strings.Contains(says, "calls") {
		t.Errorf("undone was %q", says)
	}
	var told []string
	for _, h := range s.want(200, "GET", "/api/history", "").field(t, "changes").([]any) {
		says := h.(map[string]any)["says"].(string)
		told = append(told, says)
		if why, _ := h.(map[string]any)["why"].(string); strings.HasPrefix(says, "Rang") && !strings.HasPrefix(why, "What has rung has rung.") {
			t.Errorf("why %q is not undone: %q", says, why)
		}
	}
	for _, says := range []string{"Seen: “Feed the cat”", "Rings again Tue 24 Nov 09:40: “Ring the insurer”", "Rang: 2 reminders"} {
		if !slices.Contains(told, says) {
			t.Errorf("the history lacks %q: %q", says, told)
		}
	}
	s.setClock("2026-11-24T09:40:00")
	s.rings(1)
	s.want(200, "POST", "/api/todos/"+todo+"/complete", `{}`, "If-Match: *", "Window-Id: w")
	s.rings(0)
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	s.rings(1)
}

func TestBellRefuses(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.capture(`{"title":"x","reminders":["2026-11-24T09:30"]}`)
	s.setClock("2026-11-24T09:30:00")
	s.rings(1)
	ring := s.bell().text(t, "open.0.id")
	for body, want := range map[string]string{
		`{"rings":["` + ring + `"]}`:                                        "One of minutes and until is wanted.",
		`{"rings":["` + ring + `"],"minutes":5,"until":"2026-11-24T19:00"}`: "One of minutes and until is wanted.",
		`{"rings":["` + ring + `"],"until":"2026-11-24T09:00"}`:             "has passed",
		`{"rings":["` + ring + `"],"until":"2029-11-24T09:00"}`:             "too far ahead",
		`{"rings":["` + ring + `"],"until":"2026-11-25"}`:                   "A date with a time is wanted",
		`{"rings":["` + ring + `"],"until":"soon"}`:                         "soon",
		`{"rings":["nothing"],"minutes":5}`:                                 "nothing",
		`{"rings":[],"minutes":5}`:                                          "rings",
		`{"rings":["` + ring + `"],"minutes":0}`:                            "minutes",
	} {
		a := s.call("POST", "/api/bell/later", body)
		if a.status < 400 || a.status > 499 || !strings.Contains(a.body, want) {
			t.Errorf("%s: %d %s; want %q", body, a.status, a.body, want)
		}
	}
	s.want(422, "POST", "/api/bell/seen", `{}`)
	s.want(422, "POST", "/api/bell/seen", `{"rings":["`+ring+`"],"all":true}`)
	s.want(404, "POST", "/api/bell/seen", `{"rings":["0192e4a0-0000-7000-8000-000000000000"]}`)
	s.want(422, "POST", "/api/windows", `{"inSight":true,"notifies":false}`)
	for text, value := range map[string]string{"in 20 min": "2026-11-24T09:50", "tomorrow 3pm": "2026-11-25T15:00", "Friday": "2026-11-27T09:00"} {
		if got := s.want(200, "POST", "/api/when", `{"field":"later","text":"`+text+`"}`).text(t, "value"); got != value {
			t.Errorf("%q reads as %s", text, got)
		}
	}
	if a := s.want(200, "POST", "/api/when", `{"field":"later","text":"1 hour before"}`); !strings.Contains(a.text(t, "reason"), "no due, slot or start to be before") {
		t.Errorf("later: %s", a.body)
	}
	if got := s.want(200, "POST", "/api/when", `{"field":"reminder","text":"1 hour before"}`).text(t, "value"); got != "-PT1H" {
		t.Errorf("an hour before reads as %s", got)
	}
	if len(s.rings(1)) != 1 {
		t.Error("something of it was done")
	}
}

func TestQuietHoursOfAnAccount(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.capture(`{"title":"x","reminders":["2026-11-24T22:30"]}`)
	s.want(200, "PATCH", "/api/settings", `{"quietHours":"22:00-07:00"}`)
	s.setClock("2026-11-24T22:30:00")
	waitFor(t, "it to be muted", func() bool { return s.bell().field(t, "muted") == true })
	if b := s.bell(); b.text(t, "quietUntil") != "2026-11-25T07:00" || b.field(t, "openCount") != float64(0) {
		t.Errorf("in quiet hours: %s", b.body)
	}
	s.want(200, "PATCH", "/api/settings", `{"quietHours":"none"}`) // which ends them
	s.rings(1)
}

// aDesktop is a desktop of the test.
type aDesktop struct {
	mu      sync.Mutex
	shown   map[string]app.Notice
	times   map[string]int
	answers chan app.NoticeAnswer
}

func (d *aDesktop) Notify(_ context.Context, n app.Notice) error {
	d.mu.Lock()
	defer d.mu.Unlock()
	d.shown[n.Key] = n
	d.times[n.Title]++
	return nil
}

func (d *aDesktop) Withdraw(_ context.Context, key string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	delete(d.shown, key)
}

func (d *aDesktop) Answers() <-chan app.NoticeAnswer { return d.answers }

func (d *aDesktop) titles() (keys map[string]string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	keys = map[string]string{}
	for key, n := range d.shown {
		keys[n.Title] = key
	}
	return keys
}

// A ring goes to the desktop only where no window tells of it, and what is done to it there
// or elsewhere ends it everywhere.
func TestDesktop(t *testing.T) {
	desktop := &aDesktop{shown: map[string]app.Notice{}, times: map[string]int{}, answers: make(chan app.NoticeAnswer)}
	s := newSite(t, app.Settings{Notifier: desktop})
	done, _ := s.capture(`{"title":"done there","reminders":["2026-11-24T09:20"]}`)
	elsewhere, _ := s.capture(`{"title":"done elsewhere","reminders":["2026-11-24T09:20"]}`)
	s.setClock("2026-11-24T09:20:00")
	s.rings(2)
	waitFor(t, "both on the desktop", func() bool { return len(desktop.titles()) == 2 })
	desktop.answers <- app.NoticeAnswer{Key: desktop.titles()["done there"], Answer: app.NoticeDone}
	s.want(200, "POST", "/api/todos/"+elsewhere+"/complete", `{}`, "If-Match: *")
	waitFor(t, "both to be withdrawn", func() bool { return len(desktop.titles()) == 0 })
	if status := s.want(200, "GET", "/api/todos/"+done, "").text(t, "status"); status != "completed" {
		t.Errorf("what was pressed made it %s", status)
	}
	s.capture(`{"title":"later","reminders":["2026-11-24T09:25"]}`)
	s.setClock("2026-11-24T09:25:00")
	waitFor(t, "it on the desktop", func() bool { return len(desktop.titles()) == 1 })
	desktop.answers <- app.NoticeAnswer{Key: desktop.titles()["later"], Answer: app.NoticeLater}
	waitFor(t, "it put off", func() bool { return s.bell().field(t, "laterCount") == float64(1) })
	// With a window in sight there is nothing on the desktop.
	s.want(204, "POST", "/api/windows", `{"inSight":true,"notifies":false}`, "Window-Id: w")
	s.capture(`{"title":"a card","reminders":["2026-11-24T09:30"]}`)
	s.setClock("2026-11-24T09:30:00")
	s.rings(1)
	time.Sleep(100 * time.Millisecond)
	if len(desktop.titles()) != 0 {
		t.Errorf("with a window in sight the desktop shows %v", desktop.titles())
	}
	s.want(204, "POST", "/api/windows", `{"inSight":false,"notifies":false,"gone":true}`, "Window-Id: w")
	s.want(204, "POST", "/api/bell/try", "")
	if desktop.titles()["Tin Cup rings here"] == "" {
		t.Error("trying shows nothing")
	}
	desktop.Withdraw(t.Context(), "try")
	// Many at once are one notice.
	for n := range 9 {
		s.capture(fmt.Sprintf(`{"title":"of many %d","reminders":["2026-11-24T09:45"]}`, n))
	}
	s.setClock("2026-11-24T09:45:00")
	s.rings(11) // with the card, and what was put off
	waitFor(t, "one of many", func() bool { return len(desktop.titles()) == 1 })
	if desktop.titles()["10 reminders"] == "" {
		t.Errorf("it says %v", desktop.titles())
	}
	s.want(200, "POST", "/api/bell/seen", `{"all":true}`)
	s.rings(0)
	waitFor(t, "it to be withdrawn", func() bool { return len(desktop.titles()) == 0 })
}
