package httpapi_test

import (
	"encoding/json"
	"fmt"
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
	if got := s.placeCounts(t); got != "Lantern room 2, store room 1" {
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
	if got := s.placeCounts(t); got != "Lantern room 1, store room 1" {
		t.Errorf("with one ticked, the places are %s", got)
	}
}

// place is one as the API tells of it.
type place struct {
	ID, Name, Middle string
	Revision         int64
	Radius, Count    int
	Thing, Here      bool
}

func (s *site) places(t *testing.T) []place {
	t.Helper()
	var all []place
	if err := json.Unmarshal([]byte(s.want(200, "GET", "/api/places", "").body), &all); err != nil {
		t.Fatal(err)
	}
	return all
}

func (s *site) placeCounts(t *testing.T) string {
	t.Helper()
	var all []string
	for _, p := range s.places(t) {
		all = append(all, fmt.Sprintf("%s %d", p.Name, p.Count))
	}
	return strings.Join(all, ", ")
}
