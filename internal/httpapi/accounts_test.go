package httpapi_test

import (
	"database/sql"
	"fmt"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi"
	"tincup/internal/store"
)

// newShared is a server of two accounts. A request is from the second one where it has
// the header "As: second".
func newShared(t *testing.T) *site {
	t.Helper()
	path := filepath.Join(t.TempDir(), "book.db")
	made, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	if err := made.Close(); err != nil {
		t.Fatal(err)
	}
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec("INSERT INTO accounts VALUES (x'02000000000070008000000000000002', 2, 0)"); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	second := book.ID{0: 2, 6: 0x70, 8: 0x80, 15: 2}
	return newSiteOn(t, path, app.Settings{}, func(a *app.App) httpapi.Actor {
		owner := a.Owner().Account()
		return func(r *http.Request) (book.ID, error) {
			switch r.Header.Get("As") {
			case "second":
				return second, nil
			case "nobody":
				return book.ID{0: 9}, nil
			}
			return owner, nil
		}
	})
}

// Two accounts on one server: what the one has or does never shows in an answer, an
// event or a patch of the other, and a key of the one is not the other's.
func TestTwoAccountsOverHTTP(t *testing.T) {
	s := newShared(t)
	const other = "As: second"
	mine, hangUp := s.stream("/api/events")
	defer hangUp()
	theirs, hangUp2 := s.stream("/api/events", other)
	defer hangUp2()
	next(t, mine, "hello")
	next(t, theirs, "hello")

	// One key, the same body: two requests, each with its own retry.
	const key = "Idempotency-Key: 0123456789abcdef"
	put := func(headers ...string) string {
		return s.want(201, "POST", "/api/todos", `{"title":"Frame the chart","tags":["calls"],"due":"2026-11-24"}`, headers...).text(t, "id")
	}
	a, b := put(key), put(key, other)
	if a == b || put(key) != a || put(key, other) != b {
		t.Errorf("under one key the accounts got %s and %s", a, b)
	}
	if e := next(t, mine, "change"); !strings.Contains(e, a) || strings.Contains(e, b) {
		t.Errorf("the owner is told %s", e)
	}
	if e := next(t, theirs, "change"); !strings.Contains(e, b) || strings.Contains(e, a) {
		t.Errorf("the second is told %s", e)
	}

	// Neither is there for the other.
	s.want(404, "GET", "/api/todos/"+a, "", other)
	s.want(404, "POST", "/api/todos/"+a+"/complete", "", other)
	s.want(404, "PATCH", "/api/todos/"+a, `{"title":"x"}`, other, "If-Match: *")
	if list := s.call("POST", "/api/lists", `{"name":"Loans"}`); list.status == 201 {
		s.want(404, "PATCH", "/api/lists/"+list.text(t, "id"), `{"name":"x"}`, other)
	} else {
		t.Fatal(list.body)
	}
	s.want(403, "GET", "/api/history", "", "As: nobody")

	// Ticks and undos of the one, and what the other reads meanwhile.
	for path, holds := range map[string]string{"/api/views/today": b, "/api/views/cup": b, "/api/search?q=frame": b, "/api/overview": "calls", "/api/history": "Put in"} {
		before := s.want(200, "GET", path, "", other).body
		s.want(200, "POST", "/api/todos/"+a+"/complete", "", "Window-Id: w")
		during := s.want(200, "GET", path, "", other).body
		for _, body := range []string{before, during} {
			if strings.Contains(body, a) || strings.Contains(body, "Done") || strings.Count(body, holds) != strings.Count(before, holds) || !strings.Contains(body, holds) {
				t.Errorf("%s of the second is %s", path, body)
			}
		}
		s.want(200, "POST", "/api/undo", "{}", "Window-Id: w")
	}
	// The windows have one name; undo goes by account all the same.
	s.want(200, "POST", "/api/todos/"+b+"/complete", "", other, "Window-Id: same")
	if refused := s.call("POST", "/api/undo", "{}", "Window-Id: same"); refused.status != 409 {
		t.Errorf("the owner undoes what the second did: %d %s", refused.status, refused.body)
	}
	s.want(200, "POST", "/api/undo", "{}", other, "Window-Id: same")

	// A patch is told of what its account was told before.
	mark := s.want(200, "GET", "/api/views/today", "").text(t, "mark")
	patch := s.want(200, "GET", "/api/views/today?have="+mark, "", other)
	if patch.field(t, "builds") != nil || !strings.Contains(patch.body, b) {
		t.Errorf("with the other's mark the second gets %s", patch.body)
	}

	// A stream that missed much is told its own alone.
	for i := range 30 {
		s.want(201, "POST", "/api/todos", fmt.Sprintf(`{"title":"crate %d"}`, i))
	}
	missed, hangUp3 := s.stream("/api/events?since=0", other)
	defer hangUp3()
	next(t, missed, "hello")
	told := ""
	for wait := true; wait; {
		select {
		case e := <-missed:
			told += e
		case <-time.After(300 * time.Millisecond):
			wait = false
		}
	}
	if strings.Contains(told, "reset") || strings.Contains(told, a) || strings.Count(told, "event: change") != 3 {
		t.Errorf("the second missed three changes of its own, and is told %s", told)
	}
	if page := s.want(200, "GET", "/", "", other).body; !strings.Contains(page, "02000000-0000-7000-8000-000000000002") {
		t.Errorf("the page does not know whose it is: %s", page)
	}
}
