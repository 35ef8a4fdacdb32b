package httpapi_test

import (
	"fmt"
	"net/url"
	"strings"
	"testing"

	"tincup/internal/app"
)

func TestSearchPage(t *testing.T) {
	s := newSite(t, app.Settings{})
	find := func(text string) answer { return s.want(200, "GET", "/api/search?q="+url.QueryEscape(text), "") }
	s.capture(`{"title":"😀 Lámparas","notes":"the lens of the lamp"}`)
	done, _ := s.capture(`{"title":"Lamp, done"}`)
	s.want(200, "POST", "/api/todos/"+done+"/complete", "")
	gone, etag := s.capture(`{"title":"Lamp, gone"}`)
	s.want(200, "DELETE", "/api/todos/"+gone, "", "If-Match: "+etag)
	list := s.want(201, "POST", "/api/lists", `{"name":"Autumn"}`).text(t, "id")
	s.capture(`{"title":"Lamp, away","list":"` + list + `"}`)
	s.want(200, "PATCH", "/api/lists/"+list, `{"archived":true}`)
	s.capture(`{"title":"Lamp, a note","isNote":true}`)
	a := find("lamp")
	got := a.text(t, "groups.0.rows.0.todo.title") + "; " + a.text(t, "groups.0.rows.1.todo.title")
	if got != "Lamp, a note; 😀 Lámparas" && got != "😀 Lámparas; Lamp, a note" {
		t.Errorf("open are %q", got)
	}
	for i, want := range []string{"found-done Lamp, done", "found-away Lamp, away", "found-bin Lamp, gone"} {
		at := fmt.Sprintf("groups.%d.", i+1)
		if got := a.text(t, at+"kind") + " " + a.text(t, at+"rows.0.todo.title"); got != want {
			t.Errorf("%q; want %q", got, want)
		}
	}
	if a.text(t, "sentence") != "5 hold these words, the best first." {
		t.Errorf("%s", a.text(t, "sentence"))
	}
	// Spans count UTF-16 code units: the face before the word takes two.
	if only := find("lamparas"); only.value(t, "groups.0.rows.0.found.title.0.start") != "3" || only.value(t, "groups.0.rows.0.found.title.0.end") != "11" {
		t.Errorf("%s", only.body)
	}
	if notes := find("lens"); notes.text(t, "groups.0.rows.0.found.notes") != "the lens of the lamp" {
		t.Errorf("%s", notes.body)
	}
	shed, etag := s.capture(`{"title":"Sweep the floor"}`)
	s.want(200, "PATCH", "/api/todos/"+shed, `{"place":"The lifeboat shed"}`, "If-Match: "+etag)
	if at := find("lifeb"); at.value(t, "groups.0.rows.0.found.place.0.start") != "4" || at.value(t, "groups.0.rows.0.found.place.0.end") != "12" {
		t.Errorf("%s", at.body)
	}
	if f := s.want(200, "GET", "/api/search/filter?q=lifeb+-lamp", ""); f.text(t, "all.0.any.1.field")+f.text(t, "all.1.not.text") != "placelamp" {
		t.Errorf("%s", f.body)
	}
	if f := s.call("GET", "/api/search/filter?q=-lamp", ""); f.status != 422 || f.text(t, "field") != "q/1" {
		t.Errorf("%d %s", f.status, f.body)
	}
	if none := find("nothing like it"); none.value(t, "total") != "0" || !strings.Contains(none.text(t, "sentence"), "not even the bin") {
		t.Errorf("%s", none.body)
	}
	for text, says := range map[string]string{"-": "no word", `"`: "not closed", `lamp "oil`: "character 6", "-lamp": "only what to leave out",
		strings.Repeat("x", 5000): "5000 characters", "": "no word", "* ( ) AND": ""} {
		a := s.call("GET", "/api/search?q="+url.QueryEscape(text), "")
		if says == "" {
			if a.status != 200 {
				t.Errorf("%q: %d", text, a.status)
			}
			continue
		}
		if a.status != 422 || !strings.Contains(a.text(t, "detail"), says) || !strings.HasPrefix(a.text(t, "field"), "q") {
			t.Errorf("%.20q: %d %s; want %q", text, a.status, a.body, says)
		}
	}
	if a := s.call("GET", "/api/search", ""); a.status != 400 {
		t.Errorf("%d", a.status)
	}
}
