package httpapi_test

import (
	"testing"

	"tincup/internal/app"
)

// A list with a due stands in the overview, in Projects and on its shelf's page; it moves its
// to-dos along, gives its person to what is put in, is duplicated and finished.
func TestAListAsAProject(t *testing.T) {
	s := newSite(t, app.Settings{}) // Tuesday 24 November
	list := s.want(201, "POST", "/api/lists", `{"name":"Night Signals"}`).text(t, "id")
	ines := s.want(201, "POST", "/api/people", `{"name":"Ines"}`).text(t, "id")
	path := "/api/lists/" + list
	s.want(200, "PATCH", path, `{"due":"2026-12-11","outcome":"The lamps hang.","person":"`+ines+`"}`)
	a, _ := s.capture(`{"title":"a","list":"` + list + `","due":"2026-12-01"}`)
	b, _ := s.capture(`{"title":"b","list":"` + list + `"}`)
	s.want(200, "POST", "/api/todos/"+b+"/complete", "")
	// By a sentence from anywhere, which names the list: its person comes along.
	said := s.want(201, "POST", "/api/sentence/todos", `{"text":"c, in Night Signals"}`)
	if said.text(t, "person.id") != ines || said.text(t, "person.role") != "ask" {
		t.Errorf("put in as %s", said.body)
	}
	of := s.want(200, "GET", "/api/overview", "")
	at := "shelves.0.lists.0."
	for field, want := range map[string]string{"due": "2026-12-11", "outcome": "The lamps hang.", "person": ines} {
		if got := of.text(t, at+field); got != want {
			t.Errorf("%s is %q", field, got)
		}
	}
	for field, want := range map[string]float64{"progress.done": 1, "progress.total": 3, "dated": 1} {
		if got := of.field(t, at+field); got != want {
			t.Errorf("%s is %v, want %v", field, got, want)
		}
	}
	for _, view := range []string{"/api/views/projects", "/api/views/upcoming"} {
		groups := s.want(200, "GET", view, "").field(t, "groups").([]any)
		found := 0
		for _, g := range groups {
			if lists, has := g.(map[string]any)["lists"].([]any); has {
				found += len(lists)
				if l := lists[0].(map[string]any); l["id"] != list || l["due"] != "2026-12-11" || l["late"] != false {
					t.Errorf("%s has %v", view, l)
				}
			}
		}
		if found != 1 {
			t.Errorf("%s has %d lists", view, found)
		}
	}
	s.want(200, "PATCH", path, `{"due":"2026-12-13","shift":true}`)
	if got := s.want(200, "GET", "/api/todos/"+a, "").text(t, "due"); got != "2026-12-03" {
		t.Errorf("the to-do is due %s", got)
	}
	shelf := of.text(t, "shelves.0.id")
	if n := s.want(200, "GET", "/api/shelves/"+shelf+"/view", "").field(t, "total"); n != float64(2) {
		t.Errorf("the page of the shelf has %v", n)
	}
	copied := s.want(201, "POST", "/api/todos/"+a+"/duplicate", "").text(t, "id")
	if got := s.want(200, "GET", "/api/todos/"+copied, ""); got.text(t, "title") != "a" || got.text(t, "due") != "2026-12-03" {
		t.Errorf("the copy is %s", got.body)
	}
	second := s.want(201, "POST", path+"/duplicate", "").text(t, "id")
	if n := s.want(200, "GET", "/api/lists/"+second+"/view", "").field(t, "total"); n != float64(3) {
		t.Errorf("the copy of the list has %v", n)
	}
	s.want(200, "POST", path+"/finish", `{"rest":"complete"}`)
	if got := s.want(200, "GET", "/api/todos/"+a, "").text(t, "status"); got != "completed" {
		t.Errorf("after finishing it is %s", got)
	}
	s.want(200, "PATCH", "/api/lists/"+second, `{"due":null,"outcome":null,"person":null}`)
	if _, has := s.want(200, "GET", "/api/overview", "").field(t, at[:len(at)-1]).(map[string]any)["due"]; has {
		t.Error("a due that was taken away is there")
	}
}
