package httpapi_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"

	"tincup/internal/httpapi/contract"
	"tincup/internal/seed"
)

var long = flag.Bool("long", false, "send as many hostile requests as a full run does")

// hostile makes requests of the contract's operations that are right, nearly right
// and wrong.
type hostile struct {
	*rand.Rand
	site *site
	// ids are of rows by their kinds, as the overview and the views tell of them.
	ids map[string][]string
	// attached is a to-do and the hash of a file of it.
	attached [2]string
	// address serves a calendar.
	address string
}

// kindsOf are the rows that a field, or a part of an address, names.
var kindsOf = map[string]string{"/api/todos/": "todo", "/api/lists/": "lists", "/api/shelves/": "shelves", "/api/sections/": "sections", "/api/tags/": "tags",
	"/api/people/": "people", "/api/own-views/": "views", "/api/places/": "places", "/api/calendars/": "calendars", "id": "todo", "calendar": "calendars", "list": "lists", "shelf": "shelves", "section": "sections", "parent": "todo", "after": "todo",
	"before": "todo", "into": "tags", "ids": "todo", "release": "todo", "template": "templates"}

// fitting are values that some fields take.
var fitting = map[string][]string{"distance": {"P1D", "P1W", "next-week", "2026-12-01"}, "on": {"2026-12-01"}, "to": {"2026-12-01", "2026-12-02"},
	"rule": {"FREQ=DAILY", "FREQ=WEEKLY;BYDAY=MO"}, "first": {"2026-11-25"}, "plan": {"2026-11-26", "2026-W49", "parked"}, "middle": {"38.7, -9.1"},
	"uid": {"volunteers@museum"}, "day": {"2026-11-26"}}

// aCalendar is a file that may be added as one.
const aCalendar = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTAMP:20261101T090000Z\r\n" +
	"DTSTART:20261125T100000Z\r\nDTEND:20261125T110000Z\r\nSUMMARY:Choir\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"

// id is one of a row that fits a field or an address, or of any.
func (h *hostile) id(where string) string {
	for part, kind := range kindsOf {
		if some := h.ids[kind]; (strings.HasPrefix(where, "/") && strings.HasPrefix(where, part) || where == part) && len(some) > 0 && h.IntN(10) > 0 {
			return some[h.IntN(len(some))]
		}
	}
	kinds := slices.Sorted(maps.Keys(h.ids))
	if len(kinds) == 0 {
		return "none"
	}
	some := h.ids[kinds[h.IntN(len(kinds))]]
	return some[h.IntN(len(some))]
}

var nasty = []string{"", " ", "x", "null", "0", "-1", "9999-99-99", "2026-11-27", "2026-11-27T16:00", "2026-W48", "2026-11", "parked", "-PT30M", "P7D", "tomorrow",
	"FREQ=DAILY", "FREQ=DAILY;INTERVAL=0", "high", "done", "\u0000", "a\nb", "\u202eabc", "👩‍👩‍👧", "<script>alert(1)</script>", "'; DROP TABLE todos; --", "../../etc", "%00",
	strings.Repeat("x", 501), strings.Repeat("é", 3000), "#tag", "a//b", "Ring the framer, tomorrow 3pm, high, #calls", "- one\n  - two\n# Three\n", "\xff\xfe",
	`{"all":[]}`, "00000000-0000-0000-0000-000000000000", "01890000-0000-7000-8000-000000000000"}

func (h *hostile) text(field string) string {
	if field == "address" && h.IntN(4) > 0 {
		return h.address
	}
	if right := fitting[field]; right != nil && h.IntN(2) == 0 {
		return right[h.IntN(len(right))]
	}
	switch h.IntN(4) {
	case 0:
		return h.id(field)
	case 1:
		if _, names := kindsOf[field]; names {
			return h.id(field)
		}
		return fmt.Sprint("word", h.IntN(50))
	}
	return nasty[h.IntN(len(nasty))]
}

// value makes a value of a schema, or now and then of none.
func (h *hostile) value(field string, ref *openapi3.SchemaRef, depth int) any {
	if h.IntN(30) == 0 || ref == nil || ref.Value == nil || depth > 6 {
		return []any{nil, true, -1, 1e308, "x", []any{}, map[string]any{}, []any{[]any{nil}}}[h.IntN(8)]
	}
	s := ref.Value
	if s.Nullable && h.IntN(5) == 0 {
		return nil
	}
	if len(s.Enum) > 0 {
		return s.Enum[h.IntN(len(s.Enum))]
	}
	switch {
	case s.Type.Is("string"):
		return h.text(field)
	case s.Type.Is("integer"), s.Type.Is("number"):
		return []any{0, 1, 2, 7, 30, 150, -1, 100000, int64(1) << 40}[h.IntN(9)]
	case s.Type.Is("boolean"):
		return h.IntN(2) == 0
	case s.Type.Is("array"):
		n := h.IntN(4)
		if h.IntN(40) == 0 {
			n = 200 + h.IntN(3000)
		}
		list := make([]any, 0, n)
		for range n {
			list = append(list, h.value(field, s.Items, depth+1))
		}
		return list
	}
	object := map[string]any{}
	for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
		if slices.Contains(s.Required, name) && h.IntN(40) > 0 || h.IntN(3) == 0 {
			object[name] = h.value(name, s.Properties[name], depth+1)
		}
	}
	if h.IntN(40) == 0 {
		object["surprise"] = h.text("")
	}
	return object
}

// request makes one of an operation.
func (h *hostile) request(method, path string, op *openapi3.Operation, more openapi3.Parameters) (*http.Request, string) {
	query := url.Values{}
	header := http.Header{}
	all := append(slices.Clone(more), op.Parameters...)
	slices.SortStableFunc(all, func(a, b *openapi3.ParameterRef) int { return strings.Compare(a.Value.Name, b.Value.Name) }) // a hash before the id
	for _, p := range all {
		v := fmt.Sprint(h.value("", p.Value.Schema, 0))
		switch {
		case p.Value.Name == "id" && strings.HasSuffix(path, "/pour"):
			v = h.id("template")
		case p.Value.Name == "id" && h.IntN(20) > 0:
			v = h.id(path)
		case p.Value.Name == "hash" && h.attached[1] != "" && h.IntN(2) == 0:
			path, v = strings.ReplaceAll(path, "{id}", h.attached[0]), h.attached[1]
		}
		switch p.Value.In {
		case "path":
			path = strings.ReplaceAll(path, "{"+p.Value.Name+"}", url.PathEscape(v))
		case "query":
			if p.Value.Required || h.IntN(4) == 0 {
				query.Set(p.Value.Name, v)
			}
		case "header":
			if p.Value.Name == "Idempotency-Key" && h.IntN(3) > 0 { // a new one, not of another request
				v = fmt.Sprint("key ", h.Uint32())
			}
			if v = strings.Map(visible, v); h.IntN(3) > 0 {
				header.Set(p.Value.Name, v)
			}
		}
	}
	if op.OperationID != "getOverview" && header.Get("If-Match") != "" && h.IntN(3) > 0 {
		header.Set("If-Match", "*")
	}
	var body []byte
	if op.RequestBody != nil && h.IntN(50) > 0 {
		kinds := slices.Sorted(maps.Keys(op.RequestBody.Value.Content))
		kind := kinds[h.IntN(len(kinds))]
		var err error
		if schema := op.RequestBody.Value.Content[kind].Schema; schema.Value.Format == "binary" {
			body = []byte([]string{h.text(""), aCalendar}[h.IntN(2)])
		} else if body, err = json.Marshal(h.value("", schema, 0)); err != nil {
			body = []byte("{")
		}
		if h.IntN(60) == 0 {
			body = body[:h.IntN(len(body)+1)]
		}
		if h.IntN(12) == 0 {
			kind = []string{"", "text/plain", "application/octet-stream", "application/json", "application/merge-patch+json", "multipart/form-data; boundary=x",
				"application/x-www-form-urlencoded", "application/json; charset=latin1"}[h.IntN(8)]
		}
		header.Set("Content-Type", kind)
	}
	address := h.site.url + path
	if len(query) > 0 {
		address += "?" + query.Encode()
	}
	req, err := http.NewRequest(method, address, bytes.NewReader(body))
	if err != nil {
		return nil, ""
	}
	req.Header = header
	return req, fmt.Sprintf("%s %.200s %.300s %v", method, address, body, header)
}

// visible leaves out what no header may hold.
func visible(r rune) rune {
	if r < ' ' || r > '~' {
		return -1
	}
	return r
}

// gather learns the ids of rows that are there.
func (h *hostile) gather() {
	h.ids = map[string][]string{}
	var walk func(string, any)
	walk = func(kind string, v any) {
		switch v := v.(type) {
		case []any:
			for _, e := range v {
				walk(kind, e)
			}
		case map[string]any:
			if id, ok := v["id"].(string); ok {
				h.ids[kind] = append(h.ids[kind], id)
				if v["repeat"] != nil && v["record"] == nil { // as likely as all others
					h.ids[kind] = append(h.ids[kind], slices.Repeat([]string{id}, 20)...)
				}
				if files, ok := v["attachments"].([]any); ok && len(files) > 0 {
					h.attached = [2]string{id, files[0].(map[string]any)["hash"].(string)}
				}
			}
			for _, key := range slices.Sorted(maps.Keys(v)) {
				walk(key, v[key])
			}
		}
	}
	for _, path := range []string{"/api/overview", "/api/views/cup?limit=60", "/api/views/bin?limit=20", "/api/views/done?limit=20", "/api/views/today?limit=40", "/api/places", "/api/calendars"} {
		kind := strings.TrimPrefix(path, "/api/") // of what stands in it by itself
		var v any
		if json.Unmarshal([]byte(h.site.want(200, "GET", path, "").body), &v) == nil {
			walk(kind, v)
		}
	}
}

// quickest asks the same again, a few times, and returns the least time that an answer took: the
// machine may have been busy with something else. What changes the Book is asked once.
func quickest(took, most time.Duration, req *http.Request) time.Duration {
	for try := 0; took > most && req.Method == http.MethodGet && try < 3; try++ {
		begun := time.Now()
		res, err := http.DefaultClient.Do(req.Clone(req.Context()))
		if err != nil {
			return took
		}
		_, _ = io.Copy(io.Discard, res.Body)
		res.Body.Close()
		took = min(took, time.Since(begun))
	}
	return took
}

// Whatever is sent to any operation, as whatever type: no answer is a fault of ours, none takes
// a second (ten where it changes something, five where it carries the whole Book, which grows
// large in a full run), and a request that is refused has changed nothing.
func TestHostileRequests(t *testing.T) {
	s, served := calendars(t)
	doc, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	seed := seed.New(t)
	h := &hostile{Rand: rand.New(rand.NewPCG(seed, 1)), site: s, address: served.URL + "/museum.ics"}
	type operation struct {
		method, path string
		op           *openapi3.Operation
		more         openapi3.Parameters
	}
	var operations []operation
	for _, path := range slices.Sorted(maps.Keys(doc.Paths.Map())) {
		item := doc.Paths.Value(path)
		for _, method := range slices.Sorted(maps.Keys(item.Operations())) {
			if path != "/api/events" { // does not end
				operations = append(operations, operation{method, path, item.Operations()[method], item.Parameters})
			}
		}
	}
	requests := 3000
	if *long {
		requests = 200_000
	}
	counts := map[int]int{}
	met := map[string]bool{} // operations that were carried out
	newest := func() string { return s.want(200, "GET", "/api/history?limit=1", "").body }
	revision := newest()
	var slowest time.Duration
	faults := 0
	for i := range requests {
		if i%500 == 0 {
			h.gather()
		}
		o := operations[h.IntN(len(operations))]
		req, said := h.request(o.method, o.path, o.op, o.more)
		if req == nil {
			continue
		}
		begun := time.Now()
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			continue // not a request that HTTP can carry
		}
		answer, err := io.ReadAll(res.Body)
		res.Body.Close()
		took, most := time.Since(begun), time.Second
		switch {
		case o.path == "/api/everything":
			most = 5 * time.Second
		case o.method != http.MethodGet:
			most = 10 * time.Second
		}
		took = quickest(took, most, req)
		if slowest = max(slowest, took); took > most || err != nil || res.StatusCode >= 500 {
			t.Errorf("request %d took %v and was answered with %d %.300s (%v): %s", i, took, res.StatusCode, answer, err, said)
			faults++
		}
		counts[res.StatusCode]++
		if res.StatusCode < 300 {
			met[o.op.OperationID] = true
		}
		now := revision
		if o.method != http.MethodGet {
			now = newest()
		}
		if res.StatusCode >= 400 && now != revision {
			t.Errorf("request %d was refused with %d and changed something: %s", i, res.StatusCode, said)
			faults++
		}
		if revision = now; faults > 20 {
			t.Fatal("and so on")
		}
	}
	for _, o := range operations {
		if !met[o.op.OperationID] {
			t.Logf("%s was never carried out", o.op.OperationID)
		}
	}
	if *long && len(met) < len(operations)*9/10 {
		t.Errorf("only %d of %d operations were ever carried out", len(met), len(operations))
	}
	if strings.Contains(s.log.String(), "panic") {
		t.Error("a panic is in the log")
	}
	t.Logf("%d requests over %d operations, %d of them carried out: %v; the slowest took %v", requests, len(operations), len(met), counts, slowest)
}
