package httpapi_test

import (
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
)

// A setting holds at once for all that follows from it, is told in the history, is undone,
// outlives a start, and gives way to what a run is told from outside.
func TestSettings(t *testing.T) {
	s := newSite(t, app.Settings{})
	value := func(name string) (string, string) {
		t.Helper()
		a := s.want(200, "GET", "/api/settings", "")
		for _, row := range a.field(t, "settings").([]any) {
			if m := row.(map[string]any); m["name"] == name {
				chosen, _ := m["chosen"].(string)
				return m["value"].(string), chosen
			}
		}
		t.Fatalf("there is no setting %s in %s", name, a.body)
		return "", ""
	}
	set := func(body string) { t.Helper(); s.want(200, "PATCH", "/api/settings", body, "Window-Id: w") }
	if v, _ := value("dayStart"); v != "00:00" {
		t.Errorf("a day starts at %s", v)
	}
	id, _ := s.capture(`{"title":"today's","due":"2026-11-24"}`)
	events, hangUp := s.stream("/api/events")
	defer hangUp()
	next(t, events, "hello")

	s.setClock("2026-11-25T02:00:00")
	next(t, events, "time")
	if late := s.want(200, "GET", "/api/views/overdue", "").body; !strings.Contains(late, id) {
		t.Errorf("after midnight it is not late: %s", late)
	}
	set(`{"dayStart":"04:00","urgentDays":"5","look":"dark"}`)
	next(t, events, "change")
	if e := next(t, events, "time"); !strings.Contains(e, `"today":"2026-11-24"`) {
		t.Errorf("the stream says %s", e)
	}
	if late := s.want(200, "GET", "/api/views/overdue", ""); strings.Contains(late.body, id) || late.text(t, "today") != "2026-11-24" {
		t.Errorf("in a day that ends at four it is late: %s", late.body)
	}
	if o := s.want(200, "GET", "/api/overview", ""); o.text(t, "settings.look") != "dark" || o.text(t, "settings.urgentDays") != "5" || o.field(t, "settingsEver") != true {
		t.Errorf("the overview says %s", o.body)
	}
	if said := s.want(200, "GET", "/api/history", "").text(t, "changes.0.says"); said != "Settings, start of the day: 00:00 → 04:00, look: system → dark, days that count as urgent: 3 → 5" {
		t.Errorf("the history says %s", said)
	}
	set(`{"look":"light"}`)
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	if v, _ := value("look"); v != "dark" {
		t.Errorf("undone, the look is %s", v)
	}
	set(`{"look":null}`)
	if v, _ := value("look"); v != "system" {
		t.Errorf("set back, the look is %s", v)
	}
	set(`{"dateOrder":"month-first"}`)
	if read := s.want(200, "POST", "/api/sentence", `{"text":"Ring Sam, by 12/1"}`).text(t, "due"); read != "2026-12-01" {
		t.Errorf("12/1 is read as %s", read)
	}
	for _, bad := range []string{`{"dayStart":"07:00"}`, `{"dayStart":"four"}`, `{"zone":"Mars/Olympus"}`, `{"zone":"Local"}`, `{"urgentDays":"0"}`, `{"look":"loud"}`, `{"mood":"good"}`, `{"look":""}`} {
		if refused := s.want(422, "PATCH", "/api/settings", bad); !strings.Contains(refused.body, "“") && !strings.Contains(refused.body, "empty") {
			t.Errorf("%s is refused with %s", bad, refused.body)
		}
	}
	// The zone of newSite is told from outside, as by a flag.
	set(`{"zone":"America/New_York"}`)
	if v, chosen := value("zone"); v != "Europe/Lisbon" || chosen != "America/New_York" {
		t.Errorf("the zone in force is %s, and chosen is %s", v, chosen)
	}
}

// A zone that is chosen moves the day, also after a start anew.
func TestZoneIsChosen(t *testing.T) {
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	s := newSite(t, app.Settings{Machine: lisbon})
	if now := s.want(200, "GET", "/api/overview", ""); now.text(t, "now") != "2026-11-24T09:10" {
		t.Errorf("on the machine it is %s", now.text(t, "now"))
	}
	s.want(200, "PATCH", "/api/settings", `{"zone":"Pacific/Auckland"}`)
	if there := s.want(200, "GET", "/api/overview", ""); there.text(t, "now") != "2026-11-24T22:10" || there.text(t, "zone") != "Pacific/Auckland" {
		t.Errorf("in Auckland it is %s", there.body)
	}
}
