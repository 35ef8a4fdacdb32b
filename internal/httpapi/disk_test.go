package httpapi_test

import (
	"bytes"
	"os"
	"strings"
	"testing"

	"tincup/internal/app"
	"tincup/internal/httpapi"
)

// A write that fails says that the change was not kept, in words and without SQLite's; a reading
// that fails says nothing of a change.
func TestWhatFailsOnTheDisk(t *testing.T) {
	s := newSite(t, app.Settings{MaxPages: 150})
	full := ""
	for range 400 {
		a := s.call("POST", "/api/todos", `{"title":"Ring the framer","notes":"`+strings.Repeat("the crate ", 1000)+`"}`)
		if a.status != 201 {
			full = a.text(t, "detail")
			break
		}
	}
	if want := "The change was not kept: the disk with the data file is full. Free some space and try again."; full != want {
		t.Errorf("a full disk says %q, want %q", full, want)
	}

	s = newSite(t, app.Settings{})
	const text = "the key hangs behind the clock"
	at := "/api/todos/" + s.want(201, "POST", "/api/todos", `{"title":"Lock up","notes":"`+text+`"}`).text(t, "id")
	s.stop()
	file, err := os.ReadFile(s.path)
	if err != nil {
		t.Fatal(err)
	}
	hurt := 0
	for from := 0; ; hurt++ {
		i := bytes.Index(file[from:], []byte(text))
		if i < 0 {
			break
		}
		page := (from + i) / 4096 * 4096
		file[page] = 0xff // no kind of page begins so (the SQLite file format, section 1.6)
		from = page + 4096
	}
	if err := os.WriteFile(s.path, file, 0o600); err != nil || hurt == 0 {
		t.Fatal(hurt, err)
	}
	s = newSiteOn(t, s.path, app.Settings{}, httpapi.OwnerAlone)
	a := s.call("GET", at, "")
	if a.status != 503 || !strings.Contains(a.body, "cannot be read") || strings.Contains(a.body, "not kept") {
		t.Errorf("a damaged page is told as %d %s", a.status, a.body)
	}
}
