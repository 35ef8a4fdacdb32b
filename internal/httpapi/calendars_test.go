package httpapi_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/outside/feed"
	"tincup/internal/standin/calendar"
)

// calendars is a site, and a simulated service with the demo's calendars.
func calendars(t *testing.T) (*site, *httptest.Server) {
	t.Helper()
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	service := calendar.New(lisbon, func() time.Time { return time.Date(2026, 11, 24, 9, 10, 0, 0, lisbon) })
	service.Demo(day.MustDate("2026-11-24"))
	served := httptest.NewServer(service)
	t.Cleanup(served.Close)
	return newSite(t, app.Settings{Calendars: feed.NewReader(true)}), served
}

// change sends something to the simulated service.
func change(t *testing.T, method, address, body string) {
	t.Helper()
	if err := calendar.Send(t.Context(), method, address, body); err != nil {
		t.Fatal(err)
	}
}

// soon waits until something holds.
func soon(t *testing.T, what string, holds func() bool) {
	t.Helper()
	for range 500 {
		if holds() {
			return
		}
		time.Sleep(10 * time.Millisecond)
	}
	t.Fatalf("in five seconds it was not so: %s", what)
}

// The events of a calendar take hours from days, are named in their heads, follow the
// address, and go with the calendar; each act is undone.
func TestCalendars(t *testing.T) {
	s, served := calendars(t)
	s.want(201, "POST", "/api/todos", `{"title":"Label text","estimate":60,"plan":"2026-11-26"}`)
	head := func() (capacity any, events string) {
		for i := range 9 {
			up := s.want(200, "GET", "/api/views/upcoming", "")
			if up.field(t, fmt.Sprintf("groups.%d.horizon", i)) == "2026-11-26" {
				return up.field(t, fmt.Sprintf("groups.%d.load.capacity", i)), up.text(t, fmt.Sprintf("groups.%d.events", i))
			}
		}
		return nil, ""
	}
	free, _ := head()
	made := s.want(201, "POST", "/api/calendars", `{"address":" `+served.URL+`/museum.ics "}`, "Idempotency-Key: once")
	id := made.text(t, "id")
	if again := s.want(201, "POST", "/api/calendars", `{"address":" `+served.URL+`/museum.ics "}`, "Idempotency-Key: once"); again.text(t, "id") != id {
		t.Error("a retry added another")
	}
	all := s.want(200, "GET", "/api/calendars", "")
	if all.text(t, "0.name") != "Museum" || all.field(t, "0.events").(float64) < 50 || all.field(t, "0.leftOut") != 0.0 {
		t.Errorf("it is known as %s", all.body)
	}
	if capacity, events := head(); free != 450.0 || capacity != 330.0 || events != "“Volunteers’ meeting” takes 2 h" {
		t.Errorf("Thursday has %v of %v, and says %q", capacity, free, events)
	}
	// The address changes, and is asked again after a quarter of an hour.
	change(t, "PUT", served.URL+"/museum/volunteers@museum", `{"title": "Volunteers’ meeting", "start": "2026-11-26T14:00", "end": "2026-11-26T17:00"}`)
	s.setClock("2026-11-24T09:24:00")
	time.Sleep(60 * time.Millisecond)
	if capacity, _ := head(); capacity != 330.0 {
		t.Errorf("it was asked before its time: %v", capacity)
	}
	s.setClock("2026-11-24T09:25:30")
	soon(t, "Thursday has 270 minutes", func() bool { c, _ := head(); return c == 270.0 })
	// It fails: what was read before stands, and the page says since when.
	change(t, "PUT", served.URL+"/museum/fault", "page")
	failed := s.want(200, "POST", "/api/calendars/"+id+"/refresh", "")
	if !strings.Contains(failed.text(t, "problem"), "a web page") || failed.text(t, "changed") > failed.text(t, "asked") {
		t.Errorf("it says %s", failed.body)
	}
	if capacity, _ := head(); capacity != 270.0 {
		t.Errorf("what was read is gone: %v", capacity)
	}
	change(t, "PUT", served.URL+"/museum/fault", "")
	if mended := s.want(200, "POST", "/api/calendars/"+id+"/refresh", ""); strings.Contains(mended.body, "problem\"") {
		t.Errorf("it still says %s", mended.body)
	}
	// A whole day takes its hours where the calendar says so.
	week := func() string {
		return s.want(200, "GET", "/api/happenings?first=2026-12-08&days=1", "").body
	}
	if !strings.Contains(week(), `"takes":0`) {
		t.Errorf("it takes hours: %s", week())
	}
	s.want(200, "PATCH", "/api/calendars/"+id, `{"allDayTakes":true,"name":"House"}`)
	if !strings.Contains(week(), `"takes":450`) {
		t.Errorf("it takes none: %s", week())
	}
	s.want(200, "DELETE", "/api/calendars/"+id, "", "Window-Id: w")
	if capacity, events := head(); capacity != 450.0 || events != "" {
		t.Errorf("without it Thursday has %v, and says %q", capacity, events)
	}
	s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	soon(t, "the events are back", func() bool { c, _ := head(); return c == 270.0 })
}

// Text of a file is a calendar too; it is not asked again.
func TestCalendarFile(t *testing.T) {
	s, _ := calendars(t)
	text := "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Low tide walk\r\nDTSTART:20261126T100000\r\nDURATION:PT2H\r\nEND:VEVENT\r\n" +
		"BEGIN:VEVENT\r\nSUMMARY:Odd\r\nDTSTART:20261126T1\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
	octets := "Content-Type: application/octet-stream"
	id := s.want(201, "POST", "/api/calendars/file?name=tides.ics", text, octets).text(t, "id")
	all := s.want(200, "GET", "/api/calendars", "")
	if all.text(t, "0.name") != "tides.ics" || all.field(t, "0.leftOut") != 1.0 || !strings.Contains(all.text(t, "0.problems.0"), "“Odd”") {
		t.Errorf("it is known as %s", all.body)
	}
	if refused := s.want(409, "POST", "/api/calendars/"+id+"/refresh", ""); !strings.Contains(refused.text(t, "detail"), "came from a file") {
		t.Errorf("%s", refused.body)
	}
	for body, want := range map[string]string{"<html>": "a web page", "BEGIN:VCALENDAR\r\n": "cut off"} {
		if got := s.want(422, "POST", "/api/calendars/file?name=a.ics", body, octets); !strings.Contains(got.text(t, "detail"), want) || got.text(t, "field") != "file" {
			t.Errorf("%q: %s", body, got.body)
		}
	}
	if big := s.call("POST", "/api/calendars/file?name=a.ics", strings.Repeat("x", 10<<20+1), octets); big.status != 413 {
		t.Errorf("%d: %s", big.status, big.body)
	}
}

// What cannot be read is not added, and the answer says at which field and why.
func TestCalendarsThatAreRefused(t *testing.T) {
	s, served := calendars(t)
	s.want(201, "POST", "/api/calendars", `{"address":"`+served.URL+`/choir.ics"}`)
	for body, want := range map[string][2]string{
		`{"address":""}`: {"address", "is empty"}, `{"address":"museum"}`: {"address", "is not an address"},
		`{"address":"http://127.0.0.1:1/a"}`:                             {"address", "Nothing answers"},
		`{"address":"` + served.URL + `/nothing.ics"}`:                   {"address", "(404)"},
		`{"address":"` + served.URL + `/choir.ics"}`:                     {"address", "“Choir” has this address already"},
		`{"address":"` + served.URL + `/museum.ics","name":"choir"}`:     {"name", "called “Choir” exists already"},
		`{"address":"` + served.URL + `/museum.ics","colour":"crimson"}`: {"colour", ""},
	} {
		got := s.call("POST", "/api/calendars", body)
		if got.status < 400 || got.status >= 500 || got.text(t, "field") != want[0] || !strings.Contains(got.text(t, "detail"), want[1]) {
			t.Errorf("%s: %d %s", body, got.status, got.body)
		}
	}
	if all := s.want(200, "GET", "/api/calendars", ""); strings.Count(all.body, `"id"`) != 1 {
		t.Errorf("there are %s", all.body)
	}
}

// A to-do made of an event is planned for its day and says what it was made of, also once the
// calendar is gone.
func TestTodoOfAnEvent(t *testing.T) {
	s, served := calendars(t)
	id := s.want(201, "POST", "/api/calendars", `{"address":"`+served.URL+`/museum.ics"}`).text(t, "id")
	made := s.want(201, "POST", "/api/happenings/todo", `{"calendar":"`+id+`","uid":"volunteers@museum","day":"2026-11-26"}`)
	if made.text(t, "title") != "Volunteers’ meeting" || made.text(t, "plan") != "2026-11-26T14:00/PT120M" || made.text(t, "source.link") != "event:"+id+"/volunteers@museum#2026-11-26T14:00/PT120M" ||
		made.text(t, "source.words") != "“Volunteers’ meeting” of the calendar “Museum”, Thu 26 Nov 2026, 14:00 to 16:00" {
		t.Errorf("made %s", made.body)
	}
	// Within its event it takes no time of its own, and lies under nothing; beside it it does.
	thursday := func() string {
		o, w := s.want(200, "GET", "/api/overview", ""), s.want(200, "GET", "/api/week?of=2026-11-26", "")
		return fmt.Sprint(o.field(t, "rail.2.load.minutes"), " of ", o.field(t, "rail.2.load.capacity"), ", ", w.field(t, "days.3.slips.0.minutes"), " ", w.field(t, "days.3.slips.0.under"))
	}
	edit := func(plan string) {
		todo := s.want(200, "GET", "/api/todos/"+made.text(t, "id"), "")
		s.want(200, "PATCH", "/api/todos/"+made.text(t, "id"), `{"plan":"`+plan+`"}`, "If-Match: "+todo.header.Get("ETag"))
	}
	for _, c := range [][2]string{
		{"2026-11-26T14:00/PT120M", "0 of 330, 0 <nil>"}, {"2026-11-26T14:30/PT1H30M", "0 of 330, 0 <nil>"},
		{"2026-11-26T15:30/PT1H", "30 of 330, 30 Volunteers’ meeting"}, {"2026-11-26T09:00/PT1H", "30 of 330, 30 <nil>"}, {"2026-11-26", "30 of 330, 30 <nil>"},
	} {
		edit(c[0])
		if got := thursday(); got != c[1] {
			t.Errorf("planned for %s: %s; want %s", c[0], got, c[1])
		}
	}
	s.want(200, "DELETE", "/api/calendars/"+id, "")
	if got := s.want(200, "GET", "/api/todos/"+made.text(t, "id"), ""); got.text(t, "source.words") == "" {
		t.Errorf("it has forgotten: %s", got.body)
	}
	for _, body := range []string{`{"calendar":"` + id + `","uid":"volunteers@museum","day":"2026-11-26"}`, `{"calendar":"` + id + `","uid":"x","day":"tomorrow"}`, `{"calendar":"x","uid":"x","day":"2026-11-26"}`} {
		if got := s.call("POST", "/api/happenings/todo", body); got.status != 422 && got.status != 400 {
			t.Errorf("%s: %d %s", body, got.status, got.body)
		}
	}
}

// A calendar that is removed while its address is asked stays removed, and leaves nothing.
func TestCalendarRemovedWhileItIsRead(t *testing.T) {
	s, served := calendars(t)
	id := s.want(201, "POST", "/api/calendars", `{"address":"`+served.URL+`/choir.ics"}`).text(t, "id")
	change(t, "PUT", served.URL+"/choir/fault", "slow")
	done := make(chan int)
	go func() { done <- s.call("POST", "/api/calendars/"+id+"/refresh", "").status }()
	soon(t, "it is being asked", func() bool { return s.want(200, "GET", "/api/calendars", "").field(t, "0.asking") == true })
	s.want(200, "DELETE", "/api/calendars/"+id, "")
	change(t, "PUT", served.URL+"/choir/fault", "")
	if status := <-done; status != 404 {
		t.Errorf("the refresh ends with %d", status)
	}
	if all := s.want(200, "GET", "/api/calendars", ""); all.body != "[]\n" && all.body != "[]" {
		t.Errorf("there are %s", all.body)
	}
}

// A calendar of 20,000 events that all last for twenty years costs no more than twenty a day: each
// day lists as many, counts the others, and the answers stay small.
func TestCalendarOfManyLongEvents(t *testing.T) {
	var text strings.Builder
	text.WriteString("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Loans//EN\r\n")
	const many = 20_000
	for i := range many {
		fmt.Fprintf(&text, "BEGIN:VEVENT\r\nUID:%d@loans\r\nDTSTAMP:20200101T000000Z\r\nDTSTART;VALUE=DATE:2016%02d01\r\nDTEND;VALUE=DATE:20361231\r\nSUMMARY:Loan %d\r\nEND:VEVENT\r\n", i, 1+i%12, i)
	}
	text.WriteString("END:VCALENDAR\r\n")
	served := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { fmt.Fprint(w, text.String()) }))
	t.Cleanup(served.Close)
	s := newSite(t, app.Settings{Calendars: feed.NewReader(true)})
	id := s.want(201, "POST", "/api/calendars", `{"address":"`+served.URL+`/loans.ics"}`).text(t, "id")
	s.want(200, "GET", "/api/overview", "")
	week := s.want(200, "GET", "/api/week", "")
	if len(week.body) > 100_000 {
		t.Errorf("the week takes %d bytes", len(week.body))
	}
	if got := week.value(t, "days.3.moreEvents"); got != fmt.Sprint(many-plan.MostListed) {
		t.Errorf("Friday has %s more events", got)
	}
	on := s.want(200, "GET", "/api/happenings?days=1&first=2026-11-26", "")
	if listed, more := strings.Count(on.body, `"title"`), on.value(t, "0.moreEvents"); listed != plan.MostListed || more != "19980" {
		t.Errorf("Thursday lists %d, and has %s more", listed, more)
	}
	s.want(201, "POST", "/api/todos", `{"title":"Label text","plan":"2026-11-26"}`)
	if head := s.want(200, "GET", "/api/views/upcoming", "").text(t, "groups.0.events"); !strings.HasSuffix(head, " and 19998 more") {
		t.Errorf("the head of Thursday says %q", head)
	}
	// An event that is not listed may become a to-do too.
	s.want(201, "POST", "/api/happenings/todo", `{"calendar":"`+id+`","uid":"19999@loans","day":"2026-11-26"}`)
}
