package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
	"tincup/internal/core/day"
)

// The hours that an account chooses are what its days hold, on the rail, in Today's sentence,
// in the heads of Upcoming and in the room that a due has.
func TestHoursOfDays(t *testing.T) {
	s := newSite(t, app.Settings{})
	today := s.want(200, "GET", "/api/overview", "").text(t, "today")
	set := func(hours string) { s.want(200, "PATCH", "/api/settings", `{"hoursOn":"`+hours+`"}`) }
	set(today + " 00:00-24:00")
	s.want(201, "POST", "/api/todos", `{"title":"Label text","estimate":90,"due":"`+today+`"}`)
	id := s.want(201, "POST", "/api/todos", `{"title":"Hang the lamps","due":"`+today+`","priority":"high"}`).text(t, "id")
	load := s.want(200, "GET", "/api/overview", "")
	if minutes, assumed := load.field(t, "rail.0.load.minutes"), load.field(t, "rail.0.load.assumed"); minutes != 120.0 || assumed != 30.0 {
		t.Errorf("today holds %v minutes, %v of them assumed", minutes, assumed)
	}
	if holds := s.want(200, "GET", "/api/views/today", "").text(t, "holds"); !strings.HasPrefix(holds, "2 h of work (30 min assumed), ") || strings.Contains(holds, "late") {
		t.Errorf("it says %q", holds)
	}
	if words := s.want(200, "GET", "/api/todos/"+id+"/slack", "").text(t, "words"); !strings.HasPrefix(words, "30 min of work (all of it assumed), ") || !strings.HasSuffix(words, " to spare") {
		t.Errorf("its slack is %q", words)
	}
	set(today + " none")
	if holds := s.want(200, "GET", "/api/views/today", "").text(t, "holds"); holds != "2 h of work (30 min assumed), no working hours left; “Hang the lamps” and “Label text” need 2 h outside your working hours." {
		t.Errorf("without hours it says %q", holds)
	}
	short := s.want(200, "GET", "/api/todos/"+id+"/slack?minutes=45", "")
	if words := short.text(t, "words"); words != "45 min of work; needs 45 min outside your working hours" || short.field(t, "short") != true {
		t.Errorf("its slack is %q", words)
	}
	if got := s.want(200, "GET", "/api/overview", "").field(t, "rail.0.load.capacity"); got != 0.0 {
		t.Errorf("a day without hours offers %v", got)
	}
}

// A to-do on a shelf that takes own hours is reckoned in these alone, and one that takes none is in
// no load; the shelf's choice can be undone.
func TestHoursOfAShelf(t *testing.T) {
	s := newSite(t, app.Settings{})
	shelf := s.want(201, "POST", "/api/shelves", `{"name":"Allotment"}`).text(t, "id")
	list := s.want(201, "POST", "/api/lists", `{"name":"Beds","shelf":"`+shelf+`"}`).text(t, "id")
	id := s.want(201, "POST", "/api/todos", `{"title":"Dig","list":"`+list+`","estimate":45,"due":"2026-11-24"}`).text(t, "id")
	for _, c := range []struct{ hours, load, own, holds, slack string }{
		{"working", "45", "<nil>", "45 min of work, 7 h 20 left.", "45 min of work, 6 h 35 to spare"},
		{"own", "0", "map[capacity:180 minutes:45]", "In own hours: 45 min of work, 3 h left.", "45 min of work, 2 h 15 to spare"},
		{"none", "0", "map[capacity:180 minutes:0]", "<nil>", "<nil>"},
	} {
		s.want(200, "PATCH", "/api/shelves/"+shelf, `{"hours":"`+c.hours+`"}`, "Window-Id: w")
		o, week := s.want(200, "GET", "/api/overview", ""), s.want(200, "GET", "/api/week", "")
		for what, pair := range map[string][2]string{
			"the shelf takes": {o.value(t, "shelves.0.hours"), c.hours}, "its slip takes": {week.value(t, "days.1.slips.0.hours"), c.hours},
			"the rail": {o.value(t, "rail.0.load.minutes"), c.load}, "of own hours": {o.value(t, "rail.0.load.own"), c.own},
			"the week's own hours": {week.value(t, "days.1.load.own"), c.own},
			"Today":                {s.want(200, "GET", "/api/views/today", "").value(t, "holds"), c.holds},
			"the slack":            {s.want(200, "GET", "/api/todos/"+id+"/slack", "").value(t, "words"), c.slack},
		} {
			if pair[0] != pair[1] {
				t.Errorf("%s hours: %s %q; want %q", c.hours, what, pair[0], pair[1])
			}
		}
	}
	// A slot of what takes other hours takes its time of working hours; one that waits for someone takes none.
	capacity := func() float64 {
		n, _ := s.want(200, "GET", "/api/overview", "").field(t, "rail.0.load.capacity").(float64)
		return n
	}
	edit := func(body string) {
		s.want(200, "PATCH", "/api/todos/"+id, body, "If-Match: "+s.want(200, "GET", "/api/todos/"+id, "").header.Get("ETag"))
	}
	edit(`{"plan":"2026-11-24T14:00/PT60M"}`)
	if got := capacity(); got != 380 {
		t.Errorf("beside an hour of the allotment %v minutes are left", got)
	}
	ines := s.want(201, "POST", "/api/people", `{"name":"Ines"}`).text(t, "id")
	edit(`{"person":{"id":"` + ines + `","role":"waiting on"}}`)
	if got := capacity(); got != 440 {
		t.Errorf("beside what waits for someone %v minutes are left", got)
	}
	s.want(200, "PATCH", "/api/shelves/"+shelf, `{"hours":"own"}`, "Window-Id: w")
	s.want(200, "PATCH", "/api/shelves/"+shelf, `{"hours":"none"}`, "Window-Id: w")
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	if hours := s.want(200, "GET", "/api/overview", "").value(t, "shelves.0.hours"); hours != "own" {
		t.Errorf("undone, it takes %v hours", hours)
	}
	if refused := s.call("PATCH", "/api/shelves/"+shelf, `{"hours":"night"}`); refused.status != 400 && refused.status != 422 {
		t.Errorf("hours that there are not: %d %s", refused.status, refused.body)
	}
}

// Before many are moved, the days that they go to say how full they would be.
func TestFillsOfAPostponement(t *testing.T) {
	s := newSite(t, app.Settings{})
	one := s.want(201, "POST", "/api/todos", `{"title":"a","estimate":90,"plan":"2026-11-24"}`).text(t, "id")
	s.want(201, "POST", "/api/todos", `{"title":"b","estimate":400,"plan":"2026-11-25"}`)
	two := s.want(201, "POST", "/api/todos", `{"title":"c","due":"2026-11-24"}`).text(t, "id")
	far := s.want(201, "POST", "/api/todos", `{"title":"d","plan":"2026-11-28"}`).text(t, "id")
	preview := s.want(200, "POST", "/api/postpone/preview", `{"ids":["`+one+`","`+two+`","`+far+`"],"distance":"P1D"}`)
	for at, want := range []string{"2026-11-25", "2026-11-29"} {
		if got := preview.text(t, fmt.Sprintf("fills.%d.horizon", at)); got != want {
			t.Errorf("fills %s, want %s", got, want)
		}
	}
	if minutes, assumed, capacity := preview.field(t, "fills.0.load.minutes"), preview.field(t, "fills.0.load.assumed"), preview.field(t, "fills.0.load.capacity"); minutes != 520.0 || assumed != 30.0 || capacity != 450.0 {
		t.Errorf("Wednesday would hold %v minutes, %v assumed, of %v", minutes, assumed, capacity)
	}
	// First of all the next day is offered whose hours hold what moves: Wednesday has no room for both.
	room := s.want(200, "POST", "/api/postpone/preview", `{"ids":["`+one+`","`+two+`"],"distance":"room"}`)
	if room.text(t, "room") != "2026-11-26" || room.text(t, "fills.0.horizon") != "2026-11-26" || room.text(t, "moves.0.dates.0.to") != "2026-11-26" {
		t.Errorf("room is made on %s", room.body)
	}
	s.want(422, "POST", "/api/postpone", `{"ids":["`+one+`"],"distance":"room"}`)
	for d := range 70 {
		s.want(201, "POST", "/api/todos", `{"title":"full","estimate":450,"plan":"`+day.MustDate("2026-11-25").AddDays(d).String()+`"}`)
	}
	if full := s.want(200, "POST", "/api/postpone/preview", `{"ids":["`+one+`"],"distance":"room"}`); full.field(t, "room") != nil || full.text(t, "moves.0.dates.0.to") != "2026-11-25" {
		t.Errorf("where no day has room it moves a day: %s", full.body)
	}
}

// Minutes are given to many in one change.
func TestEstimatesOfMany(t *testing.T) {
	s := newSite(t, app.Settings{})
	one, two := s.want(201, "POST", "/api/todos", `{"title":"a"}`).text(t, "id"), s.want(201, "POST", "/api/todos", `{"title":"b","estimate":10}`).text(t, "id")
	s.want(200, "POST", "/api/many", `{"ids":["`+one+`","`+two+`"],"do":"estimate","estimate":45}`)
	for _, id := range []string{one, two} {
		if got := s.want(200, "GET", "/api/todos/"+id, "").field(t, "estimate"); got != 45.0 {
			t.Errorf("it takes %v", got)
		}
	}
	s.want(422, "POST", "/api/many", `{"ids":["`+one+`"],"do":"estimate","estimate":-5}`)
	// Other fields are set alike by a patch, in one change; what is each one's own is not.
	s.want(200, "POST", "/api/many", `{"ids":["`+one+`","`+two+`"],"do":"edit","patch":{"start":"2026-11-26","place":"Store room"}}`)
	for _, id := range []string{one, two} {
		if todo := s.want(200, "GET", "/api/todos/"+id, ""); todo.text(t, "start") != "2026-11-26" || todo.text(t, "place") != "Store room" {
			t.Errorf("set alike: %s", todo.body)
		}
	}
	s.want(200, "POST", "/api/many", `{"ids":["`+one+`","`+two+`"],"do":"edit","patch":{"start":null,"place":null}}`)
	for _, wrong := range []string{`{"title":"Same"}`, `{"notes":""}`, `{"list":null}`, `{"status":"in-process"}`, `{"isNote":true}`, `{"start":"soon"}`} {
		s.want(422, "POST", "/api/many", `{"ids":["`+one+`"],"do":"edit","patch":`+wrong+`}`)
	}
	s.want(422, "POST", "/api/many", `{"ids":["`+one+`"],"do":"edit"}`)
	s.want(200, "POST", "/api/many", `{"ids":["`+one+`"],"do":"estimate","estimate":null}`)
	if got := s.want(200, "GET", "/api/todos/"+one, "").field(t, "estimate"); got != nil {
		t.Errorf("it takes %v", got)
	}
}

func TestHoursThatAreNone(t *testing.T) {
	s := newSite(t, app.Settings{})
	for _, value := range []string{"9 to 5", "09:00-12:00, 11:00-13:00", "12:00-09:00", "09:00-25:00", strings.Repeat("09:00-10:00,", 20)} {
		reply := s.want(422, "PATCH", "/api/settings", `{"hoursMonday":"`+value+`"}`)
		if !strings.Contains(reply.body, "stretches such as 09:00-12:30") || !strings.Contains(reply.body, "hoursMonday") {
			t.Errorf("%s: %s", value, reply.body)
		}
	}
	id := s.want(201, "POST", "/api/todos", `{"title":"Label text"}`).text(t, "id")
	s.want(422, "GET", "/api/todos/"+id+"/slack?due=friday", "")
	s.want(400, "GET", "/api/todos/"+id+"/slack?minutes=0", "")
	s.want(404, "GET", "/api/todos/00000000-0000-7000-8000-000000000000/slack", "")
	if got := s.want(200, "GET", "/api/todos/"+id+"/slack", "").body; strings.TrimSpace(got) != "{}" {
		t.Errorf("without a due its slack is %s", got)
	}
}

// A filter asks for slack as the slip tells it, and Ready stands in its order.
func TestSlackIsAskedFor(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.want(201, "POST", "/api/todos", `{"title":"roomy","estimate":60,"due":"2026-11-30"}`)
	s.want(201, "POST", "/api/todos", `{"title":"tight","estimate":400,"due":"2026-11-24"}`)
	s.want(201, "POST", "/api/todos", `{"title":"late","estimate":60,"due":"2026-11-20"}`)
	s.want(201, "POST", "/api/todos", `{"title":"whenever","estimate":60}`)
	titles := func(filter string) string {
		var all []string
		got := s.want(200, "POST", "/api/questions", `{"filter":`+filter+`}`)
		for i := range got.field(t, "rows").([]any) {
			all = append(all, got.text(t, fmt.Sprintf("rows.%d.todo.title", i)))
		}
		return strings.Join(all, " ")
	}
	for filter, want := range map[string]string{
		`{"field":"at-risk","op":"yes"}`:                                      "tight", // 460 minutes are due by the end of this day, and 440 are left
		`{"field":"slack","op":"at-most","minutes":2000}`:                     "tight roomy",
		`{"field":"slack","op":"at-least","minutes":1}`:                       "roomy",
		`{"all":[{"field":"slack","op":"none"},{"field":"due","op":"none"}]}`: "whenever",
	} {
		if got := titles(filter); got != want {
			t.Errorf("%s holds %q, want %q", filter, got, want)
		}
	}
	ready := s.want(200, "GET", "/api/views/ready", "")
	for i, want := range []string{"late", "tight", "roomy", "whenever"} {
		if got := ready.text(t, fmt.Sprintf("groups.0.rows.%d.todo.title", i)); got != want {
			t.Errorf("in place %d of Ready stands %q, want %q", i, got, want)
		}
	}
	if why := ready.text(t, "groups.0.rows.1.why"); why != "due today, 6 h 40 of work, 20 min more is due by then than can be done" {
		t.Errorf("it says %q", why)
	}
	// The count of a view that asks for it follows what is done to others.
	s.want(201, "POST", "/api/own-views", `{"name":"At risk","counted":true,"definition":{"filter":{"field":"at-risk","op":"yes"}}}`)
	count := func() any { return s.want(200, "GET", "/api/overview", "").field(t, "views.0.count") }
	if count() != 1.0 {
		t.Errorf("%v are at risk", count())
	}
	late := s.want(200, "GET", "/api/views/overdue", "").text(t, "groups.0.rows.0.todo.id")
	s.want(200, "POST", "/api/todos/"+late+"/complete", "")
	if count() != 0.0 {
		t.Errorf("with less work %v are at risk", count())
	}
}
