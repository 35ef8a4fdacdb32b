package httpapi_test

import (
	"database/sql"
	"net/http"
	"strings"
	"testing"

	"tincup/internal/app"
)

// Every refusal has its status, names its field and changes nothing.
func TestBadInput(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, etag := s.capture(`{"title":"Ring the framer","due":"2026-11-27"}`)
	s.want(200, "POST", "/api/todos/"+id+"/complete", "", "Idempotency-Key: used")
	s.want(200, "POST", "/api/todos/"+id+"/reopen", "")
	now := s.want(200, "GET", "/api/todos/"+id, "").header.Get("ETag")
	one := "/api/todos/" + id
	const stranger = "01890000-0000-7000-8000-000000000000"
	for _, c := range []struct {
		name, method, path, body string
		headers                  []string
		status                   int
		field, says              string
	}{
		{"empty title", "POST", "/api/todos", `{"title":"  "}`, nil, 422, "title", "empty"},
		{"no title", "POST", "/api/todos", `{"notes":"x"}`, nil, 400, "title", "missing"},
		{"title of 501", "POST", "/api/todos", `{"title":` + quoted(strings.Repeat("é", 501)) + `}`, nil, 422, "title", "501 characters; 500"},
		{"line break", "POST", "/api/todos", `{"title":"a\nb"}`, nil, 422, "title", "line break"},
		{"control character", "POST", "/api/todos", `{"title":"a\u0007b"}`, nil, 422, "title", "U+0007"},
		{"title of a number", "POST", "/api/todos", `{"title":7}`, nil, 400, "title", "wrong"},
		{"impossible date", "POST", "/api/todos", `{"title":"x","due":"2026-02-31"}`, nil, 422, "due", "does not exist"},
		{"not a date", "POST", "/api/todos", `{"title":"x","start":"soon"}`, nil, 422, "start", "such as 2026-11-27"},
		{"impossible week", "POST", "/api/todos", `{"title":"x","plan":"2027-W53"}`, nil, 422, "plan", "does not exist"},
		{"unknown list", "POST", "/api/todos", `{"title":"x","list":"` + stranger + `"}`, nil, 422, "list", "no list"},
		{"list that is no id", "POST", "/api/todos", `{"title":"x","list":"Loans"}`, nil, 422, "list", "not an id"},
		{"unknown field", "POST", "/api/todos", `{"title":"x","colour":"red"}`, nil, 400, "colour", "no field"},
		{"unknown priority", "POST", "/api/todos", `{"title":"x","priority":"urgent"}`, nil, 400, "priority", "wrong"},
		{"start after due", "POST", "/api/todos", `{"title":"x","start":"2026-11-28","due":"2026-11-27"}`, nil, 422, "start", "after the due"},
		{"JSON cut off", "POST", "/api/todos", `{"title":"x`, nil, 400, "", "not the JSON"},
		{"no body", "POST", "/api/todos", ``, nil, 400, "", ""},
		{"another type", "POST", "/api/todos", `title=x`, []string{"Content-Type: text/plain"}, 415, "", "Content-Type"},
		{"JSON sent as bytes", "POST", "/api/todos", `{"title":"x","colour":"red"}`, []string{octets}, 415, "", "Content-Type"},
		{"an unknown deed sent as bytes", "POST", "/api/many", `{"ids":["` + id + `"],"do":"paint"}`, []string{octets}, 415, "", "Content-Type"},
		{"20,000 tags", "POST", one + "/tags", `{"add":["` + strings.Repeat(`x","`, 20_000) + `x"]}`, nil, 400, "add", "maximum number of items is 100"},
		{"bytes sent as JSON", "POST", one + "/attachments?name=x.txt", `{}`, nil, 415, "", "Content-Type"},
		{"10 MB", "POST", "/api/todos", `{"title":"` + strings.Repeat("x", 10<<20) + `"}`, nil, 413, "", "1048576 bytes"},
		{"missing ETag", "PATCH", one, `{"title":"y"}`, nil, 428, "", "If-Match"},
		{"stale ETag", "PATCH", one, `{"title":"y"}`, []string{"If-Match: " + etag}, 412, "", "has changed since"},
		{"unreadable ETag", "PATCH", one, `{"title":"y"}`, []string{"If-Match: W/7"}, 400, "If-Match", "double quotes"},
		{"missing ETag on delete", "DELETE", one, ``, nil, 428, "", "If-Match"},
		{"edit: unknown field", "PATCH", one, `{"color":"red"}`, []string{"If-Match: " + now}, 400, "color", "no field"},
		{"edit: title null", "PATCH", one, `{"title":null}`, []string{"If-Match: " + now}, 422, "title", "empty"},
		{"edit: due empty", "PATCH", one, `{"due":""}`, []string{"If-Match: " + now}, 422, "due", "null to clear"},
		{"edit: start after due", "PATCH", one, `{"start":"2026-12-24"}`, []string{"If-Match: " + now}, 422, "start", "after the due"},
		{"edit: to completed", "PATCH", one, `{"status":"completed"}`, []string{"If-Match: " + now}, 400, "status", "wrong"},
		{"unknown to-do", "POST", "/api/todos/" + stranger + "/complete", ``, nil, 404, "", "no to-do"},
		{"to-do that is no id", "GET", "/api/todos/7", ``, nil, 404, "", "nothing with this id"},
		{"key used for another body", "POST", "/api/todos", `{"title":"other"}`, []string{"Idempotency-Key: used"}, 422, "", "new key"},
		{"foreign Host", "GET", "/api/overview", ``, []string{"Host: tincup.example"}, 421, "", "not this machine"},
		{"foreign Host with a port", "POST", "/api/todos", `{"title":"x"}`, []string{"Host: evil.example:7420"}, 421, "", "not this machine"},
		{"foreign Origin", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: http://evil.example"}, 403, "", "another site"},
		{"Origin null", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: null"}, 403, "", "another site"},
		{"an Origin with a user", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: http://me@HOST"}, 403, "", "another site"},
		{"an Origin with a path", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: http://HOST/x"}, 403, "", "another site"},
		{"our Origin and another", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: http://HOST", "Origin: http://evil.example"}, 403, "", "another site"},
		{"another port's Origin", "POST", "/api/todos", `{"title":"x"}`, []string{"Origin: http://127.0.0.1:1"}, 403, "", "another site"},
		{"cross-site fetch", "GET", "/api/overview", ``, []string{"Sec-Fetch-Site: cross-site", "Sec-Fetch-Mode: no-cors"}, 403, "", "another site"},
		{"unknown view", "GET", "/api/views/someday", ``, nil, 400, "view", "wrong"},
		{"offset below 0", "GET", "/api/views/today?offset=-1", ``, nil, 400, "offset", "wrong"},
		{"limit of words", "GET", "/api/views/today?limit=all", ``, nil, 400, "", ""},
		{"impossible cup", "GET", "/api/rail/2026-02-31", ``, nil, 422, "cup", "does not exist"},
		{"unknown address", "GET", "/api/nothing", ``, nil, 404, "", "nothing at this address"},
		{"method not taken", "PUT", "/api/todos", `{}`, nil, 405, "", "PUT"},
		{"nothing to undo", "POST", "/api/undo", `{}`, []string{"Window-Id: fresh"}, 409, "", "nothing to undo"},
		{"nothing to redo", "POST", "/api/redo", ``, []string{"Window-Id: fresh"}, 409, "", "nothing to undo or redo"},
		{"undo of no change", "POST", "/api/undo", `{"change":999}`, nil, 409, "", "nothing to undo"},
		{"tag with an empty part", "POST", one + "/tags", `{"add":["a//b"]}`, nil, 422, "tags", "empty part"},
		{"list without a name", "POST", "/api/lists", `{"name":""}`, nil, 422, "name", "empty"},
	} {
		before := s.revision()
		for i, h := range c.headers {
			c.headers[i] = strings.ReplaceAll(h, "HOST", strings.TrimPrefix(s.url, "http://"))
		}
		a := s.call(c.method, c.path, c.body, c.headers...)
		if a.status != c.status {
			t.Errorf("%s: %d %s; want %d", c.name, a.status, a.body, c.status)
			continue
		}
		if got := a.header.Get("Content-Type"); got != "application/problem+json" {
			t.Errorf("%s: the answer is %s", c.name, got)
		}
		if got := a.text(t, "field"); got != c.field {
			t.Errorf("%s: the field is %q; want %q (%s)", c.name, got, c.field, a.body)
		}
		if detail := a.text(t, "detail"); !strings.Contains(detail, c.says) || !strings.HasSuffix(detail, ".") {
			t.Errorf("%s: it says %q; want “%s”, as a sentence", c.name, detail, c.says)
		}
		if strings.Contains(a.body, "goroutine") || strings.Contains(a.body, ".go:") {
			t.Errorf("%s: the answer holds a trace: %s", c.name, a.body)
		}
		if after := s.revision(); after != before {
			t.Errorf("%s: the Book went from revision %v to %v", c.name, before, after)
		}
	}
}

func TestABodyOfUnknownLengthIsBoundedToo(t *testing.T) {
	s := newSite(t, app.Settings{})
	body := strings.NewReader(`{"title":"` + strings.Repeat("x", 10<<20) + `"}`)
	req, err := http.NewRequest("POST", s.url+"/api/todos", struct{ *strings.Reader }{body})
	if err != nil {
		t.Fatal(err)
	}
	req.ContentLength = -1
	req.Header.Set("Content-Type", "application/json")
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusRequestEntityTooLarge {
		t.Errorf("the answer is %s", res.Status)
	}
}

func TestFullDiskIsSaidAndNothingIsHalfDone(t *testing.T) {
	s := newSite(t, app.Settings{MaxPages: 60})
	var a answer
	count := 0
	for ; count < 200; count++ {
		if a = s.call("POST", "/api/todos", `{"title":"x","notes":`+quoted(strings.Repeat("n", 9000))+`}`); a.status != 201 {
			break
		}
	}
	if a.status != http.StatusInsufficientStorage || !strings.Contains(a.text(t, "detail"), "disk") {
		t.Fatalf("after %d to-dos: %d %s", count, a.status, a.body)
	}
	if got := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); got != float64(count) {
		t.Errorf("the Cup holds %v; %d were put in", got, count)
	}
}

// A file that the disk has no room for comes in not at all, and what was there stays.
func TestImportsOnAFullDisk(t *testing.T) {
	s := newSite(t, app.Settings{MaxPages: 120})
	s.want(200, "POST", "/api/import?name=a.md", "- [ ] Count the lamps\n", octets)
	before := s.revision()
	big := strings.Repeat("- [ ] "+strings.Repeat("Trim the wicks ", 20)+"\n", 5000)
	a := s.want(507, "POST", "/api/import?name=b.md", big, octets, "Idempotency-Key: big")
	if !strings.Contains(a.text(t, "detail"), "the disk with the data file is full") {
		t.Errorf("the answer is %s", a.body)
	}
	if got := s.want(200, "GET", "/api/views/cup", "").value(t, "total"); got != "1" || s.revision() != before {
		t.Errorf("the Cup holds %s, revision %v", got, s.revision())
	}
	s = s.restart()
	if got := s.want(200, "GET", "/api/views/cup", "").value(t, "total"); got != "1" {
		t.Errorf("after a restart the Cup holds %s", got)
	}
}

func TestAFileThatDoesNotAnswerIs503(t *testing.T) {
	s := newSite(t, app.Settings{})
	db, err := sql.Open("sqlite", s.path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	other, err := db.Conn(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if _, err := other.ExecContext(t.Context(), "BEGIN IMMEDIATE"); err != nil {
		t.Fatal(err)
	}
	s.want(http.StatusServiceUnavailable, "POST", "/api/todos", `{"title":"x"}`)
	if _, err := other.ExecContext(t.Context(), "ROLLBACK"); err != nil {
		t.Fatal(err)
	}
	s.capture(`{"title":"x"}`)
	if got := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); got != float64(1) {
		t.Errorf("the Cup holds %v", got)
	}
}

// The name of this machine is the same in capitals (RFC 9110 section 4.2.3).
func TestNameOfThisMachine(t *testing.T) {
	s := newSite(t, app.Settings{})
	for _, host := range []string{"LocalHost:7420", "localhost", "127.0.0.1:1", "[::1]:7420"} {
		s.want(200, "GET", "/api/views/cup", "", "Host: "+host, "Origin: http://"+strings.ToLower(host))
	}
}
