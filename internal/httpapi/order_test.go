package httpapi_test

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"tincup/internal/app"
)

func TestBadOrder(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans"}`).text(t, "id")
	s.want(201, "POST", "/api/lists", `{"name":"Labels"}`)
	a, _ := s.capture(`{"title":"a","list":"` + list + `"}`)
	b, _ := s.capture(`{"title":"b","parent":"` + a + `"}`)
	s.want(200, "POST", "/api/todos/"+b+"/tags", `{"add":["calls","letters"]}`)
	o := s.want(200, "GET", "/api/overview", "")
	tag := o.text(t, "tags.0.id")
	shelf := o.text(t, "shelves.0.id")
	person := s.want(201, "POST", "/api/people", `{"name":"Ines"}`).text(t, "id")
	const stranger = "01890000-0000-7000-8000-000000000000"
	long := strings.Repeat("x", 5000)
	many := strings.Repeat(`"`+a+`",`, 19_999) + `"` + a + `"`
	for _, c := range []struct {
		name, method, path, body string
		status                   int
		field, says              string
	}{
		{"under its own subtask", "POST", "/api/todos/" + a + "/move", `{"parent":"` + b + `"}`, 422, "parent", "its own subtasks"},
		{"under itself", "POST", "/api/todos/" + a + "/move", `{"parent":"` + a + `"}`, 422, "parent", "its own subtasks"},
		{"beside a stranger", "POST", "/api/todos/" + a + "/move", `{"list":"` + list + `","after":"` + stranger + `"}`, 422, "after", "Look at the list again"},
		{"into no section", "POST", "/api/todos/" + a + "/move", `{"list":"` + list + `","section":"` + stranger + `"}`, 422, "section", "no section"},
		{"list name taken", "POST", "/api/lists", `{"name":"loans"}`, 422, "name", "exists already"},
		{"list name empty", "PATCH", "/api/lists/" + list, `{"name":""}`, 422, "name", "empty"},
		{"list name of 5000", "PATCH", "/api/lists/" + list, `{"name":"` + long + `"}`, 422, "name", "5000 characters"},
		{"list in an unknown order", "PATCH", "/api/lists/" + list, `{"order":"random"}`, 400, "order", "wrong"},
		{"list to no shelf", "POST", "/api/lists/" + list + "/move", `{"shelf":"` + stranger + `"}`, 422, "shelf", "no shelf"},
		{"shelf beside nothing", "POST", "/api/shelves/" + shelf + "/move", `{"after":"` + stranger + `"}`, 422, "after", "Look again"},
		{"no such list", "DELETE", "/api/lists/" + stranger, ``, 404, "", "no list"},
		{"start over what is no checklist", "POST", "/api/lists/" + list + "/start-over", ``, 409, "id", "not a checklist"},
		{"pour what is no template", "POST", "/api/lists/" + list + "/pour", `{"name":"x","on":"2026-12-01"}`, 409, "id", "no template"},
		{"pour for no date", "POST", "/api/lists/" + list + "/pour", `{"name":"x","on":"soon"}`, 422, "on", "such as"},
		{"list due on no date", "PATCH", "/api/lists/" + list, `{"due":"soon"}`, 422, "due", "such as"},
		{"list with nobody known", "PATCH", "/api/lists/" + list, `{"person":"` + stranger + `"}`, 422, "person", "no person"},
		{"outcome of two lines", "PATCH", "/api/lists/" + list, `{"outcome":"a\nb"}`, 422, "outcome", "line break"},
		{"finish with an unknown rest", "POST", "/api/lists/" + list + "/finish", `{"rest":"burn"}`, 400, "rest", "wrong"},
		{"finish no list", "POST", "/api/lists/" + stranger + "/finish", `{"rest":"stay"}`, 404, "", "no list"},
		{"duplicate no list", "POST", "/api/lists/" + stranger + "/duplicate", ``, 404, "", "no list"},
		{"duplicate no to-do", "POST", "/api/todos/" + stranger + "/duplicate", ``, 404, "", "no to-do"},
		{"page of no shelf", "GET", "/api/shelves/" + stranger + "/view", ``, 404, "", "no shelf"},
		{"tag name taken", "PATCH", "/api/tags/" + tag, `{"name":"letters"}`, 422, "name", "Merge the two"},
		{"tag with an empty part", "PATCH", "/api/tags/" + tag, `{"name":"a//b"}`, 422, "name", "empty part"},
		{"tag name empty", "PATCH", "/api/tags/" + tag, `{"name":""}`, 422, "name", "empty"},
		{"tag name of 5000", "PATCH", "/api/tags/" + tag, `{"name":"` + long + `"}`, 422, "name", "5000 characters"},
		{"tag merged into nothing", "POST", "/api/tags/" + tag + "/merge", `{"into":"` + stranger + `"}`, 422, "into", "no tag"},
		{"malformed e-mail", "PATCH", "/api/people/" + person, `{"email":"ines at harbour"}`, 422, "email", "not an e-mail"},
		{"many: 20,000", "POST", "/api/many", `{"do":"complete","ids":[` + many + `]}`, 422, "ids", "20000 to-dos are chosen"},
		{"many: none", "POST", "/api/many", `{"do":"complete","ids":[]}`, 422, "ids", "0 to-dos are chosen"},
		{"many: one bad id", "POST", "/api/many", `{"do":"complete","ids":["` + a + `","` + stranger + `"]}`, 422, "ids", "Nothing was changed"},
		{"many: one that is no id", "POST", "/api/many", `{"do":"delete","ids":["` + a + `","7"]}`, 422, "ids", "not an id"},
		{"many: an unknown deed", "POST", "/api/many", `{"do":"burn","ids":["` + a + `"]}`, 400, "do", "wrong"},
		{"many: no place", "POST", "/api/many", `{"do":"move","ids":["` + a + `"]}`, 422, "place", "missing"},
		{"many: under one of them", "POST", "/api/many", `{"do":"move","ids":["` + a + `"],"place":{"parent":"` + b + `"}}`, 422, "ids", "its own subtasks"},
		{"postpone backwards", "POST", "/api/postpone", `{"ids":["` + a + `"],"distance":"2026-11-01"}`, 422, "distance", "Nothing moves backwards"},
		{"postpone by nothing", "POST", "/api/postpone/preview", `{"ids":["` + a + `"],"distance":"P0D"}`, 422, "distance", "1 to 366 days"},
		{"undo of no change", "POST", "/api/undo", `{"change":9999}`, 409, "", "nothing to undo"},
	} {
		t.Run(c.name, func(t *testing.T) {
			before := s.revision()
			a := s.call(c.method, c.path, c.body)
			if a.status != c.status || !strings.Contains(a.text(t, "detail"), c.says) {
				t.Errorf("%d %s; want %d with %q", a.status, a.body, c.status, c.says)
			}
			if c.field != "" && a.text(t, "field") != c.field {
				t.Errorf("the field is %q; want %q", a.text(t, "field"), c.field)
			}
			if after := s.revision(); after != before {
				t.Errorf("something changed: revision %v, then %v", before, after)
			}
		})
	}
}

// Nesting 1,000 deep ends at the limit, with what is there untouched.
func TestNestingTooDeep(t *testing.T) {
	s := newSite(t, app.Settings{})
	at, _ := s.capture(`{"title":"0"}`)
	for n := 1; n < 1000; n++ {
		a := s.call("POST", "/api/todos", fmt.Sprintf(`{"title":"%d","parent":"%s"}`, n, at))
		if a.status == 422 {
			if n != 101 || a.text(t, "field") != "parent" || !strings.Contains(a.text(t, "detail"), "100 levels") {
				t.Errorf("refused at %d: %s", n, a.body)
			}
			return
		}
		at = a.text(t, "id")
	}
	t.Error("1,000 levels were taken")
}

func picture(t *testing.T) string {
	t.Helper()
	var out bytes.Buffer
	if err := png.Encode(&out, image.NewGray(image.Rect(0, 0, 4, 4))); err != nil {
		t.Fatal(err)
	}
	return out.String()
}

const octets = "Content-Type: application/octet-stream"

func TestAttachments(t *testing.T) {
	s := newSite(t, app.Settings{})
	a, _ := s.capture(`{"title":"a"}`)
	b, _ := s.capture(`{"title":"b"}`)
	lamp := picture(t)
	at := func(id, name string) string { return "/api/todos/" + id + "/attachments?name=" + name }
	first := s.want(201, "POST", at(a, "lamp.png"), lamp, octets, "Idempotency-Key: k1")
	s.want(201, "POST", at(a, "lamp.png"), lamp, octets, "Idempotency-Key: k1") // a retry is the same
	s.want(422, "POST", at(a, "lamp.png"), lamp+"x", octets, "Idempotency-Key: k1")
	hash := first.text(t, "attachments.0.hash")
	s.want(201, "POST", at(b, "the%20same.png"), lamp, octets)

	// The same bytes are stored once, in the data file's folder.
	var files []string
	if err := filepath.WalkDir(s.path+"-files", func(path string, d os.DirEntry, err error) error {
		if err == nil && !d.IsDir() && d.Name() != "tincup-files.json" {
			files = append(files, d.Name())
		}
		return err
	}); err != nil {
		t.Fatal(err)
	}
	// What was refused after its bytes had come is gone at once.
	if len(files) != 1 || files[0] != hash {
		t.Errorf("the folder holds %v; want %s once", files, hash)
	}

	got := s.fetch("/api/todos/" + b + "/attachments/" + hash)
	if got.body != lamp || got.header.Get("Content-Type") != "image/png" ||
		got.header.Get("Content-Disposition") != `inline; filename="the same.png"` || got.header.Get("X-Content-Type-Options") != "nosniff" {
		t.Errorf("%v", got.header)
	}
	svg := `<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>`
	s.want(201, "POST", at(a, "plan.svg"), svg, octets)
	html := `<!doctype html><script>alert(1)</script>`
	s.want(201, "POST", at(a, "plan.html"), html, octets)
	todo := s.want(200, "GET", "/api/todos/"+a, "")
	for i := 1; i <= 2; i++ {
		got := s.fetch("/api/todos/" + a + "/attachments/" + todo.text(t, fmt.Sprintf("attachments.%d.hash", i)))
		if got.header.Get("Content-Type") != "application/octet-stream" || !strings.HasPrefix(got.header.Get("Content-Disposition"), "attachment") ||
			!strings.Contains(got.header.Get("Content-Security-Policy"), "sandbox") {
			t.Errorf("a file with a script: %v", got.header)
		}
	}
	s.want(200, "DELETE", "/api/todos/"+a+"/attachments/"+hash, "")
	s.want(404, "GET", "/api/todos/"+a+"/attachments/"+hash, "")
	s.want(200, "GET", "/api/todos/"+b+"/attachments/"+hash, "") // it is b's still

	for _, c := range []struct {
		name, file, body string
		status           int
		field, says      string
	}{
		{"a path", "..%2F..%2Fx", lamp, 422, "name", "is a path"},
		{"a path with backslashes", "..%5Cx", lamp, 422, "name", "is a path"},
		{"dots", "..", lamp, 422, "name", "is a path"},
		{"no name", "%20", lamp, 422, "name", "empty"},
		{"a name of 300", strings.Repeat("x", 300), lamp, 422, "name", "300 characters; 200"},
		{"zero bytes", "x.txt", "", 422, "file", "is empty"},
		{"a lying type", "x.png", html, 422, "file", "its bytes are none (text/html"},
		{"too large", "x.bin", strings.Repeat("x", 25<<20+1), 422, "file", "more than 25 MB"},
		{"far too large", "x.bin", strings.Repeat("x", 26<<20), 413, "", "bytes, which is the most"},
	} {
		t.Run(c.name, func(t *testing.T) {
			before := s.revision()
			got := s.call("POST", at(a, c.file), c.body, octets)
			if got.status != c.status || !strings.Contains(got.text(t, "detail"), c.says) || c.field != "" && got.text(t, "field") != c.field {
				t.Errorf("%d %s; want %d, %s with %q", got.status, got.body, c.status, c.field, c.says)
			}
			if after := s.revision(); after != before {
				t.Errorf("something changed")
			}
		})
	}
	s.want(404, "POST", at("01890000-0000-7000-8000-000000000000", "x.png"), lamp, octets)
	// 200 MB a to-do: eight of 25 MB are in, the ninth is too many.
	c, _ := s.capture(`{"title":"c"}`)
	big := []byte(strings.Repeat("x", 25<<20))
	for n := range 9 {
		big[0] = byte('a' + n)
		got := s.call("POST", at(c, fmt.Sprintf("%d.bin", n)), string(big), octets)
		if n < 8 && got.status != 201 || n == 8 && (got.status != 422 || !strings.Contains(got.text(t, "detail"), "200 MB is the most")) {
			t.Errorf("file %d: %d %.200s", n, got.status, got.body)
		}
	}
}

// fetched is an answer whose body is not JSON.
type fetched struct {
	header http.Header
	body   string
}

func (s *site) fetch(path string) fetched {
	s.t.Helper()
	res, err := http.Get(s.url + path)
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	body, err := io.ReadAll(res.Body)
	if err != nil || res.StatusCode != 200 {
		s.t.Fatalf("%s: %d %v", path, res.StatusCode, err)
	}
	return fetched{res.Header, string(body)}
}

// Two clients reorder the same list at once: each move counts, and the rows
// stand in one order with distinct places.
func TestTwoReorderAtOnce(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Loans"}`).text(t, "id")
	s.want(200, "PATCH", "/api/lists/"+list, `{"order":"own"}`)
	var ids []string
	for i := range 12 {
		id, _ := s.capture(fmt.Sprintf(`{"title":"t%02d","list":"%s"}`, i, list))
		ids = append(ids, id)
	}
	var both sync.WaitGroup
	for client := range 2 {
		both.Go(func() {
			for i := range 40 {
				id, beside := ids[(i*5+client)%12], ids[(i*7+3+client)%12]
				if id == beside {
					continue
				}
				body := fmt.Sprintf(`{"list":"%s","after":"%s"}`, list, beside)
				if a := s.call("POST", "/api/todos/"+id+"/move", body); a.status != 200 {
					t.Errorf("%d %s", a.status, a.body)
				}
			}
		})
	}
	both.Wait()
	view := s.want(200, "GET", "/api/lists/"+list+"/view", "")
	seen := map[string]bool{}
	for i := range 12 {
		seen[view.text(t, fmt.Sprintf("groups.0.rows.%d.todo.id", i))] = true
	}
	if len(seen) != 12 {
		t.Errorf("%d different rows of 12", len(seen))
	}
}

func TestHistory(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, etag := s.capture(`{"title":"Ring the framer"}`)
	patch := []string{"If-Match: " + etag, "Window-Id: w1"}
	s.want(200, "PATCH", "/api/todos/"+id, `{"title":"Ring him"}`, patch...)
	s.want(200, "POST", "/api/todos/"+id+"/plan", `{"plan":"2026-11-27"}`, "Window-Id: w2")
	patch[0] = "If-Match: *"
	s.want(200, "PATCH", "/api/todos/"+id, `{"title":"Ring her"}`, patch...)
	h := s.want(200, "GET", "/api/history", "", "Window-Id: w1")
	for i, want := range []string{
		`Changed: “Ring her”, before: “Ring him” true `, `Planned for Fri 27 Nov 2026: “Ring him” true `,
		`Changed: “Ring him”, before: “Ring the framer” false “Ring her” has since been changed further (title), so this cannot be turned round any more.`,
		`Put in: “Ring the framer” false “Ring her” has since been changed further (title, plan), so this cannot be turned round any more.`,
	} {
		row := fmt.Sprintf("changes.%d.", i)
		why := ""
		if !h.field(t, row+"undoable").(bool) {
			why = h.text(t, row+"why")
		}
		if got := fmt.Sprintf("%s %v %s", h.text(t, row+"says"), h.field(t, row+"undoable"), why); got != want {
			t.Errorf("%d: %q; want %q", i, got, want)
		}
	}
	if h.field(t, "changes.0.here") != true || h.field(t, "changes.1.here") != false {
		t.Error("whose window it was")
	}
	// One of the middle is undone by itself.
	s.want(200, "POST", "/api/undo", fmt.Sprintf(`{"change":%v}`, h.field(t, "changes.1.revision")))
	if got := s.want(200, "GET", "/api/todos/"+id, ""); got.field(t, "plan") != nil || got.text(t, "title") != "Ring her" {
		t.Errorf("%s", got.body)
	}
	h = s.want(200, "GET", "/api/history?limit=3", "")
	if h.text(t, "changes.0.kind") != "undo" || h.text(t, "changes.2.why") != "Undone already." {
		t.Errorf("%s", h.body)
	}
	older := s.want(200, "GET", fmt.Sprintf("/api/history?before=%v", h.field(t, "changes.2.revision")), "")
	if older.text(t, "changes.0.says") != "Changed: “Ring him”, before: “Ring the framer”" {
		t.Errorf("%s", older.body)
	}
}

func TestTickSaysTheProject(t *testing.T) {
	s := newSite(t, app.Settings{})
	parent, _ := s.capture(`{"title":"Labels"}`)
	var subs []string
	for i := range 3 {
		id, _ := s.capture(fmt.Sprintf(`{"title":"s%d","parent":"%s"}`, i, parent))
		subs = append(subs, id)
	}
	a := s.want(200, "POST", "/api/todos/"+subs[0]+"/complete", "")
	if got := fmt.Sprint(a.field(t, "project.done"), a.field(t, "project.total"), a.field(t, "project.percent"), a.field(t, "project.finished")); got != "1 3 33 false" {
		t.Errorf("%s", got)
	}
	s.want(200, "POST", "/api/todos/"+subs[1]+"/complete", "")
	a = s.want(200, "POST", "/api/todos/"+subs[2]+"/complete", "")
	if a.field(t, "project.finished") != true || a.text(t, "project.title") != "Labels" {
		t.Errorf("%s", a.body)
	}
}

// Headings of pasted lines are sections where the lines go into a list; in the
// Cup, which has none, they hold what is under them as subtasks.
func TestPastedHeadings(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Crates"}`).text(t, "id")
	s.want(201, "POST", "/api/lists/"+list+"/sections", `{"name":"lids"}`)
	const lines = `"# Lids\n- Hinges\n  - Screws\n# Straps\n- Buckles, by Friday"`
	got := s.want(201, "POST", "/api/lines/todos", `{"text":`+lines+`,"list":"`+list+`"}`)
	if !strings.HasPrefix(got.text(t, "change.says"), "Put in: 3 to-dos in 2 sections") {
		t.Errorf("%s", got.text(t, "change.says"))
	}
	view := s.want(200, "GET", "/api/lists/"+list+"/view", "")
	var shown []string
	for g := range 2 {
		for r := range int(view.field(t, fmt.Sprintf("groups.%d.count", g)).(float64)) {
			shown = append(shown, view.text(t, fmt.Sprintf("groups.%d.name", g))+": "+view.text(t, fmt.Sprintf("groups.%d.rows.%d.todo.title", g, r)))
		}
	}
	if want := "lids: Hinges, lids: Screws, Straps: Buckles"; strings.Join(shown, ", ") != want {
		t.Errorf("%v; want %s", shown, want)
	}
	s.want(201, "POST", "/api/lines/todos", `{"text":`+lines+`}`)
	if n := s.want(200, "GET", "/api/views/cup", "").field(t, "total"); n != 5.0 {
		t.Errorf("the Cup holds %v", n)
	}
}
