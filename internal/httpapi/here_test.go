package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
)

// move tells where a device is, and wants it noted.
func (s *site) move(latitude, longitude float64) {
	s.t.Helper()
	s.want(204, "POST", "/api/here", fmt.Sprintf(`{"latitude":%v,"longitude":%v,"accuracy":20}`, latitude, longitude))
}

// A place is made, is arrived at, rings, is renamed, and goes.
func TestWhereOneIs(t *testing.T) {
	s := newSite(t, app.Settings{})
	made := s.want(201, "POST", "/api/places", `{"name":"The museum","middle":"38.7223, -9.1393","radius":300}`, "Idempotency-Key: k")
	if again := s.want(201, "POST", "/api/places", `{"name":"The museum","middle":"38.7223, -9.1393","radius":300}`, "Idempotency-Key: k"); again.body != made.body {
		t.Errorf("a retry says %s, not %s", again.body, made.body)
	}
	museum := made.text(t, "id")
	lamp, _ := s.capture(`{"title":"Count the lamps","reminders":["ARRIVE:the museum"]}`)
	s.want(200, "PATCH", "/api/todos/"+lamp, `{"place":"the museum"}`, "If-Match: *")
	s.capture(`{"title":"Buy bread","reminders":["DEPART;drip:The museum"]}`)
	if p := s.places(t); len(p) != 1 || p[0].Middle != "geo:38.7223,-9.1393" || p[0].Radius != 300 || p[0].Count != 1 || p[0].Here {
		t.Errorf("the places are %+v", p)
	}
	here := s.want(200, "GET", "/api/here", "")
	if here.body != `{"places":[],"watched":true}` {
		t.Errorf("here is %s", here.body)
	}
	if a := s.want(200, "GET", "/api/todos/"+lamp+"/prospect", ""); a.body != `[{"afterDue":false,"prospect":"on-edge","reminder":"ARRIVE:The museum"}]` {
		t.Errorf("it is foreseen that %s", a.body)
	}
	events, stop := s.stream("/api/events")
	defer stop()
	s.setClock("2026-11-24T09:30:00")
	s.move(38.73, -9.1393)
	s.setClock("2026-11-24T09:40:00")
	s.move(38.7224, -9.1393)
	if titles := s.rings(1); titles[0] != "Count the lamps" {
		t.Errorf("arriving, it rings %q", titles)
	}
	if b := s.bell(); b.text(t, "open.0.edge") != "on arriving at The museum" || b.text(t, "open.0.at") != "2026-11-24T09:40" {
		t.Errorf("the bell shows %s", b.body)
	}
	waitFor(t, "an event that says so", func() bool {
		select {
		case e := <-events:
			return strings.Contains(e, "event: moved")
		default:
			return false
		}
	})
	if here := s.want(200, "GET", "/api/here", ""); here.text(t, "places.0.name") != "The museum" || here.text(t, "seen") != "2026-11-24T09:40" || !s.places(t)[0].Here {
		t.Errorf("here is %s", here.body)
	}
	for _, path := range []string{"/api/here/view", "/api/places/" + museum + "/view"} {
		if v := s.want(200, "GET", path, ""); v.value(t, "total") != "1" || !strings.Contains(v.body, "Count the lamps") {
			t.Errorf("%s is %s", path, v.body)
		}
	}
	s.want(200, "PATCH", "/api/places/"+museum, `{"name":"The lamp museum"}`, "If-Match: *")
	if titles := s.rings(1); titles[0] != "Count the lamps" || s.places(t)[0].Name != "The lamp museum" || !s.places(t)[0].Here {
		t.Errorf("renamed: %q, %+v", titles, s.places(t))
	}
	s.setClock("2026-11-24T12:00:00")
	s.move(38.7424, -9.1393)
	if titles := s.rings(2); strings.Join(titles, ", ") != "Buy bread, Count the lamps" {
		t.Errorf("leaving, it rings %q", titles)
	}
	s.want(200, "DELETE", "/api/places/"+museum, "", "If-Match: *")
	if s.rings(0); s.want(200, "GET", "/api/here", "").body != `{"places":[],"watched":false,"seen":"2026-11-24T12:00"}` && len(s.places(t)) != 0 {
		t.Errorf("what is left: %+v", s.places(t))
	}
	s.want(200, "POST", "/api/undo", `{}`)
	if s.rings(2); s.places(t)[0].Name != "The lamp museum" {
		t.Errorf("undone: %+v", s.places(t))
	}
}

// At which places a person is outlives the process, and so does what was told of that.
func TestWhereOneWasBeforeARestart(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.want(201, "POST", "/api/places", `{"name":"The museum","middle":"38.7223, -9.1393"}`)
	s.capture(`{"title":"Count the lamps","reminders":["ARRIVE:The museum"]}`)
	s.setClock("2026-11-24T09:30:00")
	s.move(38.7223, -9.1393)
	s.rings(1)
	s = s.restart()
	s.setClock("2026-11-24T09:45:00")
	s.move(38.7223, -9.1393)
	s.setClock("2026-11-24T09:46:00")
	if b := s.bell(); b.field(t, "openCount") != float64(1) || !s.places(t)[0].Here {
		t.Errorf("after a restart: %s, %+v", b.body, s.places(t))
	}
}

func TestThings(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.capture(`{"title":"Tank up","reminders":["CONNECT:the car"]}`)
	s.want(201, "POST", "/api/places", `{"name":"The museum"}`)
	var car, museum place
	for _, p := range s.places(t) {
		if p.Thing {
			car = p
		} else {
			museum = p
		}
	}
	s.setClock("2026-11-24T09:30:00")
	s.want(204, "POST", "/api/places/"+car.ID+"/connection", `{"connected":true}`)
	if titles := s.rings(1); titles[0] != "Tank up" {
		t.Errorf("it rings %q", titles)
	}
	if a := s.want(409, "POST", "/api/places/"+museum.ID+"/connection", `{"connected":true}`); !strings.Contains(a.text(t, "detail"), "no thing that one connects to") {
		t.Errorf("a museum: %s", a.body)
	}
	s.want(404, "POST", "/api/places/01900000-0000-7000-8000-000000000000/connection", `{"connected":true}`)
}

func TestWhatIsNoPosition(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.want(201, "POST", "/api/places", `{"name":"The museum","middle":"geo:38.7223,-9.1393;u=10"}`)
	museum := s.places(t)[0]
	s.setClock("2026-11-24T09:30:00")
	s.move(38.7223, -9.1393)
	for _, c := range []struct{ body, field, says string }{
		{`{"latitude":91,"longitude":0,"accuracy":1}`, "position", "-90 to 90"},
		{`{"latitude":0,"longitude":-180.5,"accuracy":1}`, "position", "-180 to 180"},
		{`{"latitude":0,"longitude":0,"accuracy":-1}`, "accuracy", "0 m or more"},
		{`{"latitude":0,"longitude":0,"accuracy":1e300}`, "accuracy", "0 m or more"},
		{`{"latitude":0,"longitude":0,"accuracy":1,"age":-30}`, "age", "in the future"},
		{`{"latitude":0,"longitude":0,"accuracy":1,"age":1e300}`, "age", "more than a day old"},
	} {
		if a := s.want(422, "POST", "/api/here", c.body); a.text(t, "field") != c.field || !strings.Contains(a.text(t, "detail"), c.says) {
			t.Errorf("%s is refused with %s", c.body, a.body)
		}
	}
	for _, body := range []string{`{"latitude":NaN,"longitude":0,"accuracy":1}`, `{"latitude":"north","longitude":0,"accuracy":1}`, `{"latitude":1,"longitude":0}`, `{}`} {
		if a := s.call("POST", "/api/here", body); a.status < 400 || a.status >= 500 {
			t.Errorf("%s is answered with %d %s", body, a.status, a.body)
		}
	}
	for _, c := range []struct{ body, field, says string }{
		{`{"radius":0}`, "radius", "50 to 5000"}, {`{"radius":99999999999}`, "radius", "50 to 5000"}, {`{"middle":"north of here"}`, "middle", "is not a position"}, {`{"middle":"91,0"}`, "middle", "-90 to 90"}, {`{"name":" "}`, "name", "empty"},
	} {
		if a := s.want(422, "PATCH", "/api/places/"+museum.ID, c.body, "If-Match: *"); a.text(t, "field") != c.field || !strings.Contains(a.text(t, "detail"), c.says) {
			t.Errorf("%s is refused with %s", c.body, a.body)
		}
	}
	if a := s.want(422, "POST", "/api/places", `{"name":"Shed","radius":0}`); a.text(t, "field") != "radius" {
		t.Errorf("a radius of 0: %s", a.body)
	}
	if after := s.places(t); len(after) != 1 || !after[0].Here || after[0].Revision != museum.Revision {
		t.Errorf("left is %+v", after)
	}
	// Cleared, it is a place that nobody can be at.
	s.want(200, "PATCH", "/api/places/"+museum.ID, `{"middle":null}`, fmt.Sprintf(`If-Match: "%d"`, museum.Revision))
	if p := s.places(t)[0]; p.Middle != "" || p.Here {
		t.Errorf("cleared: %+v", p)
	}
	if a := s.want(412, "PATCH", "/api/places/"+museum.ID, `{"radius":60}`, fmt.Sprintf(`If-Match: "%d"`, museum.Revision)); !strings.Contains(a.body, "middle") {
		t.Errorf("a place as it was: %s", a.body)
	}
}
