package httpapi_test

import (
	"net/url"
	"strings"
	"testing"

	"tincup/internal/app"
)

// Concentration goes through the whole server: put in, patched, cleared, set for many,
// asked for, grouped by, said in a sentence and told in the history.
func TestConcentration(t *testing.T) {
	s := newSite(t, app.Settings{})
	id := s.want(201, "POST", "/api/todos", `{"title":"Draft the label text","concentration":"deep"}`).text(t, "id")
	is := func(want any) {
		t.Helper()
		if got := s.want(200, "GET", "/api/todos/"+id, "").field(t, "concentration"); got != want {
			t.Errorf("it is %v, want %v", got, want)
		}
	}
	is("deep")
	s.want(200, "PATCH", "/api/todos/"+id, `{"concentration":"light"}`, "If-Match: *")
	is("light")
	s.want(200, "PATCH", "/api/todos/"+id, `{"concentration":null}`, "If-Match: *")
	is(nil)
	s.want(400, "PATCH", "/api/todos/"+id, `{"concentration":"shallow"}`, "If-Match: *")
	if said := s.want(200, "GET", "/api/history", "").text(t, "changes.0.says"); said != "Changed: “Draft the label text”, concentration: light → none" {
		t.Errorf("the history says %s", said)
	}
	other := s.want(201, "POST", "/api/sentence/todos", `{"text":"Sort the screws, light, 20 min"}`).text(t, "id")
	if got := s.want(200, "GET", "/api/todos/"+other, "").text(t, "concentration"); got != "light" {
		t.Errorf("a sentence makes it %q", got)
	}
	s.want(200, "POST", "/api/many", `{"ids":["`+id+`","`+other+`"],"do":"concentration","concentration":"deep"}`)
	is("deep")
	s.want(200, "POST", "/api/many", `{"ids":["`+other+`"],"do":"concentration","concentration":null}`)
	narrowed := func(filter string) string {
		return s.want(200, "GET", "/api/views/cup?group=concentration&narrow="+url.QueryEscape(filter), "").body
	}
	deep := narrowed(`{"field":"concentration","op":"any-of","values":["deep"]}`)
	unset := narrowed(`{"field":"concentration","op":"none"}`)
	if !strings.Contains(deep, id) || strings.Contains(deep, other) || strings.Contains(unset, id) || !strings.Contains(unset, other) {
		t.Errorf("deep holds %s, and none %s", deep, unset)
	}
	if !strings.Contains(deep, `"name":"Deep work"`) || !strings.Contains(unset, `"name":"Neither deep nor light"`) || !strings.Contains(unset, `"word":"unset"`) {
		t.Errorf("the groups are headed otherwise: %s, %s", deep, unset)
	}
	s.want(422, "GET", "/api/views/cup?narrow="+url.QueryEscape(`{"field":"concentration","op":"any-of","values":["shallow"]}`), "")
}
