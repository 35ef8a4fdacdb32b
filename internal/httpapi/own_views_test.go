package httpapi_test

import (
	"encoding/json"
	"fmt"
	"net/url"
	"slices"
	"strings"
	"testing"

	"tincup/internal/app"
)

// value is a field of any type, as Go prints it.
func (a answer) value(t *testing.T, path string) string { return fmt.Sprint(a.field(t, path)) }

// A view is saved, counted, edited, moved, copied, deleted and undone.
func TestOwnViews(t *testing.T) {
	s := newSite(t, app.Settings{})
	s.capture(`{"title":"Ring Ines","tags":["calls"],"due":"2026-11-25"}`)
	s.capture(`{"title":"Ask Tomas","tags":["ask"],"due":"2026-12-25"}`)
	tag := s.want(200, "GET", "/api/overview", "").text(t, "tags.1.id")
	definition := `{"filter":{"all":[{"field":"tag","op":"any-of","values":["` + tag + `"]},{"field":"due","op":"within-next","days":7}]},"group":"due"}`
	id := s.want(201, "POST", "/api/own-views", `{"name":"Calls soon","counted":true,"icon":"telephone","definition":`+definition+`}`).text(t, "id")
	o := s.want(200, "GET", "/api/overview", "")
	if o.text(t, "views.0.name") != "Calls soon" || o.value(t, "views.0.count") != "1" || o.text(t, "views.0.icon") != "telephone" {
		t.Errorf("%s", o.body)
	}
	rows := s.want(200, "GET", "/api/own-views/"+id+"/view", "")
	if rows.value(t, "total") != "1" || rows.text(t, "groups.0.horizon") != "2026-11-25" ||
		rows.text(t, "sentence") != "Open, and tagged calls, and due within the next 7 days. Grouped by due day." {
		t.Errorf("%s", rows.body)
	}
	got := s.want(200, "GET", "/api/own-views/"+id, "")
	if got.text(t, "definition.group") != "due" || got.text(t, "view.name") != "Calls soon" {
		t.Errorf("%s", got.body)
	}
	copied := s.want(201, "POST", "/api/own-views/"+id+"/copy", "").text(t, "id")
	s.want(200, "PATCH", "/api/own-views/"+copied, `{"name":"Asks","pinned":true,"definition":{"filter":{"field":"text","op":"contains","text":"ask"},"order":["-title"]}}`)
	if v := s.want(200, "GET", "/api/own-views/"+copied+"/view", ""); v.value(t, "total") != "1" {
		t.Errorf("%s", v.body)
	}
	s.want(200, "POST", "/api/own-views/"+copied+"/move", `{"before":"`+id+`"}`)
	if o := s.want(200, "GET", "/api/overview", ""); o.text(t, "views.0.name") != "Asks" || o.value(t, "views.0.pinned") != "true" {
		t.Errorf("%s", o.body)
	}
	s.want(200, "DELETE", "/api/own-views/"+id, "")
	s.want(404, "GET", "/api/own-views/"+id+"/view", "")
	s.want(200, "POST", "/api/undo", `{}`)
	s.want(200, "GET", "/api/own-views/"+id+"/view", "")
	// The tag goes: the view says so and does not hold everything.
	s.want(200, "DELETE", "/api/tags/"+tag, "")
	gone := s.want(200, "GET", "/api/own-views/"+id+"/view", "")
	if gone.value(t, "total") != "0" || !strings.Contains(gone.text(t, "sentence"), "a tag that is gone") ||
		gone.text(t, "why") != "It can never hold anything. “tagged a tag that is gone” is never true." {
		t.Errorf("%s", gone.body)
	}
}

func TestBadViews(t *testing.T) {
	s := newSite(t, app.Settings{})
	id := s.want(201, "POST", "/api/own-views", `{"name":"Late","definition":{"filter":{"field":"overdue","op":"yes"}}}`).text(t, "id")
	deep := strings.Repeat(`{"not":`, 1000) + `{"field":"overdue","op":"yes"}` + strings.Repeat(`}`, 1000)
	many := `{"all":[` + strings.Repeat(`{"field":"overdue","op":"yes"},`, 9_999) + `{"field":"overdue","op":"yes"}]}`
	text := func(s string) string { return `{"field":"text","op":"contains","text":"` + s + `"}` }
	for _, c := range []struct {
		name, filter, field, says string
		status                    int
	}{
		{"nested 1,000 deep", deep, "filter" + strings.Repeat("/not", 41), "more than 40 deep", 422},
		{"10,000 tests", many, "filter", "bytes of text", 422},
		{"an unknown field", `{"all":[{"field":"size","op":"yes"}]}`, "filter/all/0/field", "no field “size”", 422},
		{"a malformed duration", `{"field":"due","op":"before","date":"P7"}`, "filter/date", "not a duration", 422},
		{"a tag that is no id", `{"field":"tag","op":"any-of","values":["calls"]}`, "filter/values/0", "not the id of a tag", 422},
		{"a range that ends first", `{"field":"due","op":"between","date":"P3D","to":"P1D"}`, "filter/to", "ends before it begins", 422},
		{"text of 100 kB", text(strings.Repeat("x", 100_000)), "filter", "bytes of text", 422},
		{"text of 5 kB", text(strings.Repeat("x", 5_000)), "filter/text", "5000 characters", 422},
		{"a node of no kind", `{"all":[],"surprise":1}`, "surprise", "no field “surprise”", 400},
		{"what can never hold", `{"all":[{"field":"repeating","op":"no"},{"field":"repeating","op":"yes"}]}`, "filter", "“not repeating” and “repeating” cannot both be true", 422},
		{"a tag that is gone", `{"field":"tag","op":"any-of","values":["01890000-0000-7000-8000-000000000000"]}`, "filter", "a tag that is gone", 422},
	} {
		before := s.revision()
		for _, call := range [][2]string{{"POST", "/api/own-views"}, {"PATCH", "/api/own-views/" + id}} {
			a := s.call(call[0], call[1], `{"name":"x","definition":{"filter":`+c.filter+`}}`)
			field := a.text(t, "field")
			if a.status != c.status || !strings.Contains(a.text(t, "detail"), c.says) || !strings.HasPrefix(field, c.field) && !strings.HasSuffix(field, c.field) {
				t.Errorf("%s: %d %q %s; want %d, %q with %q", c.name, a.status, field, a.text(t, "detail"), c.status, c.field, c.says)
			}
		}
		if after := s.revision(); after != before {
			t.Errorf("%s: something changed", c.name)
		}
	}
	for body, field := range map[string]string{
		`{"name":"late","definition":{"filter":{"all":[]}}}`:                "name",
		`{"name":"","definition":{"filter":{"all":[]}}}`:                    "name",
		`{"name":"y","definition":{"filter":{"all":[]},"group":"weather"}}`: "group",
		`{"name":"y","definition":{"filter":{"all":[]},"order":["size"]}}`:  "order",
		`{"name":"y","definition":{"filter":{"all":[]},"shape":"heap"}}`:    "shape",
	} {
		if a := s.call("POST", "/api/own-views", body); a.status != 422 || a.text(t, "field") != field {
			t.Errorf("%s: %d %s; want it to name %s", body, a.status, a.body, field)
		}
	}
	for query, field := range map[string]string{
		"narrow=" + url.QueryEscape(`{"field":"size","op":"yes"}`): "narrow/field",
		"narrow=%7B": "narrow", "order=size": "order",
	} {
		if a := s.call("GET", "/api/views/today?"+query, ""); a.status != 422 || a.text(t, "field") != field {
			t.Errorf("%s: %d %s; want it to name %s", query, a.status, a.body, field)
		}
	}
	if a := s.call("GET", "/api/views/today?group=weather", ""); a.status != 400 {
		t.Errorf("%d %s", a.status, a.body)
	}
	s.want(404, "GET", "/api/views/bin/definition", "")
}

// While a view is built, its meaning is told: the sentence, what is to blame, what
// to drop, and what each test does.
func TestMeaning(t *testing.T) {
	s := newSite(t, app.Settings{})
	for i := range 4 {
		s.capture(fmt.Sprintf(`{"title":"call %d","tags":["calls"],"due":"2026-11-2%d","estimate":10}`, i, 5+i))
	}
	s.capture(`{"title":"plain"}`)
	tag := s.want(200, "GET", "/api/overview", "").text(t, "tags.0.id")
	calls := `{"field":"tag","op":"any-of","values":["` + tag + `"]}`
	a := s.want(200, "POST", "/api/questions", `{"filter":{"all":[`+calls+`,{"field":"tag","op":"none"},{"field":"due","op":"within-next","days":7}]}}`)
	for path, want := range map[string]string{
		"sentence": "Open, and tagged calls, and untagged, and due within the next 7 days.", "verdict": "never", "now": "never",
		"because.0": "/all/0", "because.1": "/all/1", "says": "“tagged calls” and “untagged” cannot both be true.", "total": "0",
		"tests.0.passes": "4", "tests.1.passes": "1", "tests.2.passes": "4", "offer.path": "/all/1", "offer.total": "4",
		"offer.says": "Without “untagged”, 4 to-dos match now.",
	} {
		if got := a.value(t, path); got != want {
			t.Errorf("%s is %q; want %q", path, got, want)
		}
	}
	a = s.want(200, "POST", "/api/questions", `{"filter":`+calls+`}`)
	if a.value(t, "total") != "4" || a.value(t, "minutes") != "40" || a.text(t, "rows.3.todo.title") == "" || a.text(t, "verdict") != "possible" {
		t.Errorf("%s", a.body)
	}
}

// patched puts rows back where an answer says they stayed.
func patched(t *testing.T, old, next []byte) []string {
	t.Helper()
	type answer struct {
		Mark, Builds string
		Groups       []struct {
			Rows []json.RawMessage
			Kept []int
		}
	}
	var a, b answer
	if json.Unmarshal(old, &a) != nil || json.Unmarshal(next, &b) != nil {
		t.Fatalf("%s\n%s", old, next)
	}
	var had, now []string
	for _, g := range a.Groups {
		for _, r := range g.Rows {
			had = append(had, string(r))
		}
	}
	for _, g := range b.Groups {
		if b.Builds == "" {
			for _, r := range g.Rows {
				now = append(now, string(r))
			}
			continue
		}
		for i := 0; i+1 < len(g.Kept); i += 2 {
			if from, n := g.Kept[i], g.Kept[i+1]; from >= 0 {
				now = append(now, had[from:from+n]...)
			} else {
				for _, r := range g.Rows[:n] {
					now = append(now, string(r))
				}
				g.Rows = g.Rows[n:]
			}
		}
	}
	return now
}

// After a change a view that the client has comes as a patch, from which it can
// be put together exactly, whatever moved.
func TestPatches(t *testing.T) {
	s := newSite(t, app.Settings{})
	var ids []string
	for i := range 150 {
		id, _ := s.capture(fmt.Sprintf(`{"title":"t%03d","due":"2026-11-%02d"}`, i, 20+i%9))
		ids = append(ids, id)
	}
	const path = "/api/views/within-a-week"
	first := s.want(200, "GET", path, "")
	last := first
	for i, change := range []func(){
		func() { s.want(200, "POST", "/api/todos/"+ids[7]+"/complete", "") },
		func() { s.want(200, "POST", "/api/todos/"+ids[20]+"/plan", `{"plan":"2026-11-30"}`) },
		func() {
			s.want(200, "POST", "/api/many", `{"do":"due","due":"2026-11-24","ids":["`+ids[30]+`","`+ids[40]+`","`+ids[50]+`"]}`)
		},
		func() { s.capture(`{"title":"new","due":"2026-11-20","priority":"high"}`) },
		func() { s.want(200, "POST", "/api/undo", `{}`) },
		func() {},
	} {
		change()
		patch := s.want(200, "GET", path+"?have="+last.text(t, "mark"), "")
		whole := s.want(200, "GET", path, "")
		if patch.text(t, "builds") != last.text(t, "mark") || patch.text(t, "mark") != whole.text(t, "mark") {
			t.Fatalf("step %d: %s", i, patch.body)
		}
		if got, want := patched(t, []byte(last.body), []byte(patch.body)), patched(t, []byte(`{}`), []byte(whole.body)); !slices.Equal(got, want) {
			t.Errorf("step %d: put together it has %d rows; want %d\n%s", i, len(got), len(want), patch.body)
		}
		if len(patch.body) > 3500 || len(whole.body) < 20_000 {
			t.Errorf("step %d: the patch has %d bytes, the whole %d", i, len(patch.body), len(whole.body))
		}
		last = whole
	}
	if a := s.want(200, "GET", path+"?have=unknown", ""); strings.Contains(a.body, `"builds"`) || len(a.body) < 20_000 {
		t.Errorf("an unknown mark was answered with %d bytes", len(a.body))
	}
}

// A row whose tag has another name by now is sent again, though the to-do is as
// it was; and so is one whose project moved on.
func TestPatchesSeeWhatIsBesideARow(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"tagged","tags":["calls"],"due":"2026-11-25"}`)
	project, _ := s.capture(`{"title":"project","due":"2026-11-26"}`)
	sub, _ := s.capture(`{"title":"step","parent":"` + project + `"}`)
	tag := s.want(200, "GET", "/api/overview", "").text(t, "tags.0.id")
	const path = "/api/views/within-a-week"
	last := s.want(200, "GET", path, "")
	for what, change := range map[string]func(){
		id:      func() { s.want(200, "PATCH", "/api/tags/"+tag, `{"name":"letters"}`) },
		project: func() { s.want(200, "POST", "/api/todos/"+sub+"/complete", "") },
	} {
		change()
		patch := s.want(200, "GET", path+"?have="+last.text(t, "mark"), "")
		if !strings.Contains(patch.body, `"`+what+`"`) || !strings.Contains(patch.body, `"builds"`) {
			t.Errorf("%s", patch.body)
		}
		last = s.want(200, "GET", path, "")
		s.setClock("2026-11-27T09:10")
		late := s.want(200, "GET", path+"?have="+last.text(t, "mark"), "")
		if !strings.Contains(late.body, `"daysLate":2`) {
			t.Errorf("days later: %s", late.body)
		}
		s.setClock("2026-11-24T09:10")
		last = s.want(200, "GET", path, "")
	}
}
