package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
)

// What two windows type into one field is never overwritten unasked, whatever the
// row is: the second to come is told what is there now.
func TestEveryRowHasAnETag(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans"}`).text(t, "id")
	shelf := s.want(200, "GET", "/api/overview", "").text(t, "shelves.0.id")
	section := s.want(201, "POST", "/api/lists/"+list+"/sections", `{"name":"Crates"}`).text(t, "id")
	person := s.want(201, "POST", "/api/people", `{"name":"Ines","phone":"1"}`).text(t, "id")
	view := s.want(201, "POST", "/api/own-views", `{"name":"Calls","definition":{"filter":{"field":"text","op":"contains","text":"call"}}}`).text(t, "id")
	s.want(201, "POST", "/api/todos", `{"title":"a","tags":["calls"]}`)
	tag := s.want(200, "GET", "/api/overview", "").text(t, "tags.0.id")
	for _, c := range []struct{ kind, path, overview string }{
		{"list", "/api/lists/" + list, "shelves.0.lists.0"},
		{"shelf", "/api/shelves/" + shelf, "shelves.0"},
		{"section", "/api/sections/" + section, "shelves.0.lists.0.sections.0"},
		{"tag", "/api/tags/" + tag, "tags.0"},
		{"person", "/api/people/" + person, "people.0"},
		{"view", "/api/own-views/" + view, "views.0"},
	} {
		t.Run(c.kind, func(t *testing.T) {
			revision := func() string {
				return fmt.Sprintf(`"%v"`, s.want(200, "GET", "/api/overview", "").field(t, c.overview+".revision"))
			}
			seen := revision()
			none := s.want(428, "PATCH", c.path, `{"name":"mine"}`, "If-Match: ")
			if !strings.Contains(none.body, "If-Match") {
				t.Errorf("it says %s", none.body)
			}
			first := s.want(200, "PATCH", c.path, `{"name":"theirs"}`, "If-Match: "+seen)
			if got := revision(); first.header.Get("ETag") != got || got == seen {
				t.Errorf("the ETag is %s, the overview says %s, it was %s", first.header.Get("ETag"), got, seen)
			}
			late := s.want(412, "PATCH", c.path, `{"name":"mine"}`, "If-Match: "+seen)
			if late.text(t, "currentRow.name") != "theirs" || late.header.Get("ETag") != revision() || fmt.Sprint(late.field(t, "changed")) != "[name]" ||
				!strings.Contains(late.text(t, "detail"), "This "+c.kind) {
				t.Errorf("it answers %s", late.body)
			}
			s.want(412, "DELETE", c.path, "", "If-Match: "+seen)
			same := s.want(200, "PATCH", c.path, `{"name":"theirs"}`, "If-Match: "+revision())
			if same.header.Get("ETag") != revision() {
				t.Errorf("nothing was changed, and the ETag is %s", same.header.Get("ETag"))
			}
			s.want(400, "PATCH", c.path, `{"name":"x"}`, "If-Match: 7")
		})
	}
	for _, path := range []string{"/api/own-views/" + view, "/api/people/" + person, "/api/tags/" + tag, "/api/sections/" + section, "/api/lists/" + list} {
		s.want(428, "DELETE", path, "", "If-Match: ")
		s.want(200, "DELETE", path, "", "If-Match: *")
	}
}
