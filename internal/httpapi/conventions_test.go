package httpapi_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"tincup/internal/app"
)

// In a merge patch null clears and absent leaves (RFC 7396), field by field.
func TestMergePatchFieldByField(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans"}`).text(t, "id")
	full := map[string]any{"title": "a", "notes": "n", "list": list, "status": "in-process", "priority": "high",
		"start": "2026-11-25", "due": "2026-11-27T16:00", "plan": "2026-W48", "place": "lantern room", "outcome": "It hangs."}
	cleared := map[string]any{"notes": "", "list": nil, "status": "needs-action", "priority": "none", "start": nil,
		"due": nil, "plan": nil, "place": nil, "outcome": nil}
	for field, none := range cleared {
		id, etag := s.capture(`{"title":"a","notes":"n","list":"` + list + `","priority":"high","start":"2026-11-25",
			"due":"2026-11-27T16:00","plan":"2026-W48"}`)
		etag = s.want(200, "PATCH", "/api/todos/"+id, `{"status":"in-process","place":"lantern room","outcome":"It hangs."}`, "If-Match: "+etag).header.Get("ETag")
		a := s.want(200, "PATCH", "/api/todos/"+id, `{"`+field+`":null}`, "If-Match: "+etag)
		for other, want := range full {
			if other == field {
				want = none
			}
			if got := a.field(t, other); got != want {
				t.Errorf("%s: null leaves %s as %v; want %v", field, other, got, want)
			}
		}
		value, err := json.Marshal(full[field])
		if err != nil {
			t.Fatal(err)
		}
		a = s.want(200, "PATCH", "/api/todos/"+id, `{"`+field+`":`+string(value)+`}`, "If-Match: "+a.header.Get("ETag"))
		if got := a.field(t, field); got != full[field] {
			t.Errorf("%s: set to %v, it is %v", field, full[field], got)
		}
	}
}

func TestStaleETagTellsWhatIsThereNow(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, etag := s.capture(`{"title":"a"}`)
	s.want(200, "PATCH", "/api/todos/"+id, `{"due":"2026-11-27"}`, "If-Match: "+etag)
	now := s.want(200, "PATCH", "/api/todos/"+id, `{"notes":"n"}`, "If-Match: *").header.Get("ETag")
	a := s.want(412, "PATCH", "/api/todos/"+id, `{"title":"b"}`, "If-Match: "+etag)
	changed := fmt.Sprint(a.field(t, "changed"))
	if a.header.Get("ETag") != now || a.text(t, "etag") != now || a.text(t, "current.due") != "2026-11-27" ||
		a.text(t, "current.notes") != "n" || changed != "[due notes]" {
		t.Errorf("it answers %s, ETag %s; want the current state and due, notes", a.body, a.header.Get("ETag"))
	}
}

func TestRetriesAreAnsweredOnce(t *testing.T) {
	s := newSite(t, app.Settings{})
	first := s.want(201, "POST", "/api/todos", `{"title":"a"}`, "Idempotency-Key: k1")
	again := s.want(201, "POST", "/api/todos", `{"title":"a"}`, "Idempotency-Key: k1")
	if first.body != again.body || first.header.Get("ETag") != again.header.Get("ETag") ||
		first.header.Get("Location") != again.header.Get("Location") || again.header.Get("Location") == "" {
		t.Errorf("the retry got %s", again.body)
	}
	id := first.text(t, "id")
	tick := s.want(200, "POST", "/api/todos/"+id+"/complete", "", "Idempotency-Key: k2")
	s.want(200, "POST", "/api/todos/"+id+"/reopen", "")
	late := s.want(200, "POST", "/api/todos/"+id+"/complete", "", "Idempotency-Key: k2")
	if late.body != tick.body || s.want(200, "GET", "/api/todos/"+id, "").text(t, "status") != "needs-action" {
		t.Error("a late retry ticked again")
	}
	if got := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); got != float64(1) {
		t.Errorf("the Cup holds %v", got)
	}
	// After seven days keys are let go; tidying follows a clock that jumps by two
	// days at each day's start.
	day := time.Date(2026, 12, 2, 9, 10, 0, 0, time.UTC)
	waitFor(t, "the key to be forgotten", func() bool {
		day = day.AddDate(0, 0, 1)
		s.setClock(day.Format("2006-01-02T15:04:05"))
		time.Sleep(50 * time.Millisecond)
		return s.call("POST", "/api/todos", `{"title":"b"}`, "Idempotency-Key: k1").status == 201
	})
}

// What bodies are made of again tells the same as the first time.
func TestRetriesOfWhatIsNotKept(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	for nth, c := range []struct{ path, body string }{
		{"/api/lists", `{"name":"Loans"}`}, {"/api/many", `{"ids":["` + id + `"],"do":"complete"}`}, {"/api/undo", `{}`}, {"/api/redo", ""},
		{"/api/many", `{"ids":["` + id + `"],"do":"complete"}`}, {"/api/lines/todos", `{"text":"- One\n  - Two"}`},
	} {
		key := fmt.Sprint("Idempotency-Key: again", nth)
		first := s.call("POST", c.path, c.body, key, "Window-Id: w")
		s.want(201, "POST", "/api/todos", `{"title":"between"}`, "Window-Id: other")
		late := s.call("POST", c.path, c.body, key, "Window-Id: w")
		if first.status >= 300 || late.status != first.status || late.body != first.body {
			t.Errorf("%s: %d %s; again %d %s", c.path, first.status, first.body, late.status, late.body)
		}
	}
}

// Many at once under one key: one is carried out, the rest get its answer or 409.
func TestOneKeyFromManySides(t *testing.T) {
	s := newSite(t, app.Settings{})
	var wg sync.WaitGroup
	var mu sync.Mutex
	got := map[int]int{}
	for range 20 {
		wg.Go(func() {
			status := s.call("POST", "/api/todos", `{"title":"a"}`, "Idempotency-Key: k").status
			mu.Lock()
			defer mu.Unlock()
			got[status]++
		})
	}
	wg.Wait()
	if got[201]+got[409] != 20 || got[201] == 0 {
		t.Errorf("the answers are %v", got)
	}
	if total := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); total != float64(1) {
		t.Errorf("the Cup holds %v", total)
	}
}

func TestUndoAndRedoByWindow(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a","tags":["calls"]}`)
	plan := s.want(200, "POST", "/api/todos/"+id+"/plan", `{"plan":"2026-11-26"}`, "Window-Id: one")
	s.want(200, "POST", "/api/todos/"+id+"/complete", "", "Window-Id: two")
	undone := s.want(200, "POST", "/api/undo", `{}`, "Window-Id: one")
	if says := undone.text(t, "change.says"); !strings.HasPrefix(says, "Undone. Planned for Thu 26 Nov 2026") {
		t.Errorf("it says %q", says)
	}
	now := s.want(200, "GET", "/api/todos/"+id, "")
	if now.field(t, "plan") != nil || now.text(t, "status") != "completed" {
		t.Errorf("after undo in one window: %s", now.body)
	}
	s.want(200, "POST", "/api/redo", ``, "Window-Id: one")
	revision := plan.field(t, "change.revision").(float64)
	s.want(409, "POST", "/api/undo", fmt.Sprintf(`{"change":%v}`, revision), "Window-Id: two")
	s.want(200, "POST", "/api/undo", `{}`, "Window-Id: two")
	if now := s.want(200, "GET", "/api/todos/"+id, ""); now.text(t, "plan") != "2026-11-26" || now.text(t, "status") != "needs-action" {
		t.Errorf("in the end: %s", now.body)
	}
	s.want(200, "PATCH", "/api/todos/"+id, `{"plan":"2026-11-27"}`, "If-Match: *", "Window-Id: two")
	a := s.want(409, "POST", "/api/undo", `{}`, "Window-Id: one")
	if !strings.Contains(a.text(t, "detail"), "changed further (plan)") {
		t.Errorf("the refusal says %s", a.body)
	}
	// The change in the way is named, and passed over for those before it; never for those after.
	if says := a.text(t, "detail"); !strings.HasPrefix(says, "“Planned for Thu 26 Nov 2026") {
		t.Errorf("the refusal says %s", says)
	}
	over := fmt.Sprintf(`{"passing":[%s]}`, a.value(t, "blocked"))
	s.want(409, "POST", "/api/undo", over, "Window-Id: one") // there is none before it
	s.want(200, "POST", "/api/todos/"+id+"/tags", `{"add":["letters"],"remove":[]}`, "Window-Id: one")
	if says := s.want(200, "POST", "/api/undo", over, "Window-Id: one").text(t, "change.says"); !strings.Contains(says, "letters") {
		t.Errorf("passing over it undoes %q", says)
	}
}

func TestFromTheCupToTheBinAndBack(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans","colour":"plum"}`).text(t, "id")
	id, etag := s.capture(`{"title":"a"}`)
	total := func(path string) float64 { t.Helper(); return s.want(200, "GET", path, "").field(t, "total").(float64) }
	if total("/api/views/cup") != 1 {
		t.Error("it is not in the Cup")
	}
	s.want(200, "POST", "/api/todos/"+id+"/move", `{"list":"`+list+`"}`)
	s.want(412, "DELETE", "/api/todos/"+id, "", "If-Match: "+etag)
	s.want(200, "POST", "/api/todos/"+id+"/tags", `{"add":["calls","work/insurance"]}`)
	if total("/api/views/cup") != 0 || total("/api/lists/"+list+"/view") != 1 {
		t.Error("it did not move")
	}
	s.want(200, "DELETE", "/api/todos/"+id, "", "If-Match: *")
	s.want(409, "POST", "/api/todos/"+id+"/complete", "")
	if total("/api/lists/"+list+"/view") != 0 || total("/api/views/bin") != 1 {
		t.Error("it is not in the bin")
	}
	a := s.want(200, "POST", "/api/todos/"+id+"/restore", "")
	if a.text(t, "list") != list || fmt.Sprint(a.field(t, "tags")) != "[calls work/insurance]" {
		t.Errorf("restored: %s", a.body)
	}
	s.want(200, "POST", "/api/todos/"+id+"/cancel", "")
	if total("/api/views/done") != 1 {
		t.Error("a cancelled to-do is not in Done")
	}
}

// heardEvents reads a stream until it has heard so many events of a kind.
func (s *site) stream(path string, headers ...string) (<-chan string, func()) {
	s.t.Helper()
	req, err := http.NewRequest("GET", s.url+path, nil)
	if err != nil {
		s.t.Fatal(err)
	}
	for _, h := range headers {
		name, value, _ := strings.Cut(h, ": ")
		req.Header.Set(name, value)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		s.t.Fatal(err)
	}
	events := make(chan string, 1000)
	go func() {
		defer close(events)
		lines := bufio.NewScanner(res.Body)
		event := ""
		for lines.Scan() {
			if line := lines.Text(); line != "" {
				event += line + "|"
			} else {
				events <- event
				event = ""
			}
		}
	}()
	return events, func() { _ = res.Body.Close() }
}

// next returns the next event of one of the kinds.
func next(t *testing.T, events <-chan string, kinds ...string) string {
	t.Helper()
	for {
		select {
		case e, open := <-events:
			if !open {
				t.Fatalf("the stream ended before %v", kinds)
			}
			for _, kind := range kinds {
				if strings.HasPrefix(e, "event: "+kind+"|") {
					return e
				}
			}
		case <-time.After(5 * time.Second):
			t.Fatalf("no %v within five seconds", kinds)
		}
	}
}

func TestEventsAndCatchingUp(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	s.want(200, "POST", "/api/todos/"+id+"/complete", "")
	events, hangUp := s.stream("/api/events?since=1")
	defer hangUp()
	if e := next(t, events, "hello"); !strings.Contains(e, `"revision":2`) || !strings.Contains(e, `"today":"2026-11-24"`) {
		t.Errorf("it says hello with %s", e)
	}
	if e := next(t, events, "change", "reset"); !strings.Contains(e, "event: change|id: 2|") || !strings.Contains(e, id) {
		t.Errorf("what was missed is %s", e)
	}
	s.want(200, "POST", "/api/todos/"+id+"/reopen", "")
	if e := next(t, events, "change"); !strings.Contains(e, "id: 3|") {
		t.Errorf("what comes is %s", e)
	}
	resumed, hangUp2 := s.stream("/api/events?since=0", "Last-Event-ID: 2")
	defer hangUp2()
	if e := next(t, resumed, "change", "reset"); !strings.Contains(e, "id: 3|") {
		t.Errorf("with Last-Event-ID 2 the first is %s", e)
	}
	ahead, hangUp3 := s.stream("/api/events?since=99")
	defer hangUp3()
	if e := next(t, ahead, "change", "reset"); !strings.HasPrefix(e, "event: reset") {
		t.Errorf("from a revision that never was: %s", e)
	}
}

// The clock alone changes Today: at midnight, at DayStart, when a due passes.
func TestTimePassing(t *testing.T) {
	s := newSite(t, app.Settings{DayStart: 4 * time.Hour})
	s.capture(`{"title":"by five","due":"2026-11-24T17:00"}`)
	s.capture(`{"title":"today","due":"2026-11-24"}`)
	events, hangUp := s.stream("/api/events")
	defer hangUp()
	next(t, events, "hello")
	for _, step := range []struct{ now, today, groups string }{
		{"2026-11-24T17:00:01", "2026-11-24", "[overdue due-today]"},
		{"2026-11-25T04:00:00", "2026-11-25", "[overdue]"},
	} {
		before := "2026-11-24T16:59:59"
		if step.today == "2026-11-25" {
			before = "2026-11-25T03:59:59"
		}
		s.setClock(before)
		if now := s.want(200, "GET", "/api/views/today", ""); now.text(t, "today") != "2026-11-24" {
			t.Errorf("at %s it is %s", before, now.text(t, "today"))
		}
		s.setClock(step.now)
		if e := next(t, events, "time"); !strings.Contains(e, `"today":"`+step.today+`"`) {
			t.Errorf("at %s: %s", step.now, e)
		}
		view := s.want(200, "GET", "/api/views/today", "")
		var kinds []string
		for _, g := range view.field(t, "groups").([]any) {
			kinds = append(kinds, g.(map[string]any)["kind"].(string))
		}
		if fmt.Sprint(kinds) != step.groups {
			t.Errorf("at %s Today has %v; want %s", step.now, kinds, step.groups)
		}
	}
}

func TestPageAndItsPolicy(t *testing.T) {
	s := newSite(t, app.Settings{})
	a, b := s.want(200, "GET", "/today", ""), s.want(200, "GET", "/", "")
	nonce, _, _ := strings.Cut(strings.TrimPrefix(a.body, `<meta name="csp-nonce" content="`), `">`)
	policy := a.header.Get("Content-Security-Policy")
	if len(nonce) < 16 || a.body == b.body || !strings.Contains(policy, "'nonce-"+nonce+"'") {
		t.Errorf("the page is %s under %s", a.body, policy)
	}
	for _, bad := range []string{"unsafe-inline", "unsafe-eval", "*", "http:"} {
		if strings.Contains(policy, bad) {
			t.Errorf("the policy allows %s: %s", bad, policy)
		}
	}
	if cache := s.want(200, "GET", "/assets/app-1.js", "").header.Get("Cache-Control"); !strings.Contains(cache, "immutable") {
		t.Errorf("an asset is cached as %q", cache)
	}
	s.want(404, "GET", "/assets/none.js", "")
	if got := s.want(200, "GET", "/assets/..%2f..%2fserver.go", "").body; !strings.Contains(got, "csp-nonce") {
		t.Errorf("an address that climbs out is answered with %s", got)
	}
	if got := s.want(200, "GET", "/healthz", "").body; got != "ok\n" {
		t.Errorf("healthz says %q", got)
	}
	if v := s.want(200, "GET", "/api/openapi.json", "").text(t, "openapi"); v != "3.0.3" {
		t.Errorf("the contract is OpenAPI %s", v)
	}
}

func TestTheLogKeepsTitlesToItself(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a secret title","notes":"a secret note"}`)
	s.want(200, "GET", "/api/todos/"+id, "")
	s.call("POST", "/api/todos", `{"title":"a secret\nbreak"}`)
	if log := s.log.String(); strings.Contains(log, "secret") || !strings.Contains(log, "path=/api/todos") {
		t.Errorf("the log is %s", log)
	}
}

func TestPagesOfAView(t *testing.T) {
	s := newSite(t, app.Settings{})
	for i := range 7 {
		s.capture(fmt.Sprintf(`{"title":"t%d"}`, i))
	}
	var titles []string
	for offset := 0; offset < 7; offset += 3 {
		v := s.want(200, "GET", fmt.Sprintf("/api/views/cup?offset=%d&limit=3", offset), "")
		group := v.field(t, "groups").([]any)[0].(map[string]any)
		if group["count"] != float64(7) {
			t.Errorf("the count is %v", group["count"])
		}
		for _, row := range group["rows"].([]any) {
			titles = append(titles, row.(map[string]any)["todo"].(map[string]any)["title"].(string))
		}
	}
	if want := []string{"t0", "t1", "t2", "t3", "t4", "t5", "t6"}; !slices.Equal(titles, want) {
		t.Errorf("page by page: %v", titles)
	}
}

func waitFor(t *testing.T, what string, holds func() bool) {
	t.Helper()
	for range 250 {
		if holds() {
			return
		}
		time.Sleep(20 * time.Millisecond)
	}
	t.Fatalf("waited five seconds for %s", what)
}
