package httpapi_test

import (
	"testing"

	"tincup/internal/app"
)

// A list with a due stands in the overview, in Projects and on its shelf's page; its person comes
// along with a sentence that names it.
func TestAListAsAProject(t *testing.T) {
	s := newSite(t, app.Settings{}) // Tuesday 24 November
	list := s.want(201, "POST", "/api/lists", `{"name":"Night Signals"}`).text(t, "id")
	ines := s.want(201, "POST", "/api/people", `{"name":"Ines"}`).text(t, "id")
	path := "/api/lists/" + list
	s.want(200, "PATCH", path, `{"due":"2026-12-11","outcome":"The lamps hang.","person":"`+ines+`"}`)
	a, _ := s.capture(`{"title":"a","list":"` + list + `","due":"2026-12-01"}`)
	said := s.want(201, "POST", "/api/sentence/todos", `{"text":"c, in Night Signals"}`)
	if said.text(t, "person.id") != ines || said.text(t, "person.role") != "ask" {
		t.Errorf("put in as %s", said.body)
	}
	of := s.want(200, "GET", "/api/overview", "")
	const at = "shelves.0.lists.0"
	if of.text(t, at+".due") != "2026-12-11" || of.text(t, at+".outcome") != "The lamps hang." || of.text(t, at+".person") != ines || of.field(t, at+".progress.total") != float64(2) {
		t.Errorf("the overview has %v", of.field(t, at))
	}
	in := s.want(200, "GET", "/api/views/projects", "").field(t, "groups.0.lists.0").(map[string]any)
	if in["id"] != list || in["due"] != "2026-12-11" || in["late"] != false {
		t.Errorf("Projects has %v", in)
	}
	if n := s.want(200, "GET", "/api/shelves/"+of.text(t, "shelves.0.id")+"/view", "").field(t, "total"); n != float64(2) {
		t.Errorf("the page of the shelf has %v", n)
	}
	s.want(200, "PATCH", path, `{"due":"2026-12-13","shift":true}`)
	copied := s.want(201, "POST", "/api/todos/"+a+"/duplicate", "").text(t, "id")
	if got := s.want(200, "GET", "/api/todos/"+copied, "").text(t, "due"); got != "2026-12-03" {
		t.Errorf("the copy is due %s", got)
	}
	second := s.want(201, "POST", path+"/duplicate", "").text(t, "id")
	s.want(200, "POST", path+"/finish", `{"rest":"complete"}`)
	if got := s.want(200, "GET", "/api/todos/"+a, "").text(t, "status"); got != "completed" {
		t.Errorf("after finishing it is %s", got)
	}
	s.want(200, "PATCH", "/api/lists/"+second, `{"due":null,"outcome":null,"person":null}`)
	if _, has := s.want(200, "GET", "/api/overview", "").field(t, at).(map[string]any)["due"]; has {
		t.Error("a due that was taken away is there")
	}
}
