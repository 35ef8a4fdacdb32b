package httpapi_test

import (
	"net/url"
	"strings"
	"testing"

	"tincup/internal/app"
)

// A place is set, refused, undone, listed and filtered by.
func TestPlaces(t *testing.T) {
	s := newSite(t, app.Settings{})
	hinges, _ := s.capture(`{"title":"Oil the hinges"}`)
	bench, _ := s.capture(`{"title":"Carry the bench up"}`)
	shelves, _ := s.capture(`{"title":"Label the shelves"}`)
	at := func(id, place string) answer {
		return s.want(200, "PATCH", "/api/todos/"+id, `{"place":"`+place+`"}`, "If-Match: *")
	}
	at(hinges, " Lantern room ")
	at(bench, "Lantern room")
	at(shelves, "store room")
	if got := s.want(200, "GET", "/api/places", "").body; got != `[{"name":"Lantern room","count":2},{"name":"store room","count":1}]` {
		t.Errorf("the places are %s", got)
	}
	for bad, says := range map[string]string{strings.Repeat("x", 201): "201 characters; 200", `a\nb`: "one line", `a\u0007`: "control character"} {
		a := s.want(422, "PATCH", "/api/todos/"+hinges, `{"place":"`+bad+`"}`, "If-Match: *")
		if a.text(t, "field") != "place" || !strings.Contains(a.text(t, "detail"), says) {
			t.Errorf("%.20s is refused with %s", bad, a.body)
		}
	}
	total := func(filter string) string {
		return s.want(200, "GET", "/api/views/cup?narrow="+url.QueryEscape(filter), "").value(t, "total")
	}
	for filter, want := range map[string]string{
		`{"field":"place","op":"contains","text":"ROOM"}`:    "3",
		`{"field":"place","op":"contains","text":"lantern"}`: "2",
		`{"field":"place","op":"none"}`:                      "0",
	} {
		if got := total(filter); got != want {
			t.Errorf("%s holds %s; want %s", filter, got, want)
		}
	}
	at(bench, "")
	if got := total(`{"field":"place","op":"none"}`); got != "1" {
		t.Errorf("without a place: %s", got)
	}
	s.want(200, "POST", "/api/undo", `{}`)
	if got := s.want(200, "GET", "/api/todos/"+bench, "").text(t, "place"); got != "Lantern room" {
		t.Errorf("undone, it is at %q", got)
	}
	s.want(200, "POST", "/api/todos/"+hinges+"/complete", "")
	if got := s.want(200, "GET", "/api/places", "").body; !strings.Contains(got, `"Lantern room","count":1`) {
		t.Errorf("with one ticked, the places are %s", got)
	}
}
