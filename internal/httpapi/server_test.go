package httpapi_test

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"
	_ "time/tzdata"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/httpapi"
)

// site is a server on a real file, with a clock that tests move.
type site struct {
	t         *testing.T
	url       string
	path      string
	clockFile string
	log       bytes.Buffer
	// stop ends the server; again it does nothing.
	stop func()
}

func newSite(t *testing.T, settings app.Settings) *site {
	t.Helper()
	return newSiteOn(t, filepath.Join(t.TempDir(), "book.db"), settings, httpapi.OwnerAlone)
}

// newSiteOn serves a file; actor tells who asks.
func newSiteOn(t *testing.T, path string, settings app.Settings, actor func(*app.App) httpapi.Actor) *site {
	t.Helper()
	s := &site{t: t, path: path, clockFile: filepath.Join(t.TempDir(), "clock")}
	s.setClock("2026-11-24T09:10:00")
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	if settings.Machine == nil {
		settings.Zone = zone
	}
	log := slog.New(slog.NewTextHandler(&s.log, nil))
	a, err := app.Open(t.Context(), s.path, &clock.File{Path: s.clockFile, Zone: zone}, settings, log)
	if err != nil {
		t.Fatal(err)
	}
	page := fstest.MapFS{
		"index.html":       {Data: []byte(`<meta name="csp-nonce" content="__NONCE__"><meta name="account" content="__ACCOUNT__">`)},
		"assets/app-1.js":  {Data: []byte("1")},
		"assets/app-1.css": {Data: []byte("a{}")},
		"assets/app-2.js":  {Data: []byte("22")}, "assets/app-2.js.br": {Data: []byte("B")}, "assets/app-2.js.gz": {Data: []byte("G")},
	}
	handler, err := httpapi.New(a, actor(a), page, log)
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewServer(handler)
	s.url = server.URL
	s.stop = sync.OnceFunc(func() {
		a.HangUp()
		server.Close()
		if err := a.Close(); err != nil {
			t.Error(err)
		}
	})
	t.Cleanup(s.stop)
	return s
}

// restart serves the same file anew.
func (s *site) restart() *site {
	s.t.Helper()
	s.stop()
	return newSiteOn(s.t, s.path, app.Settings{}, httpapi.OwnerAlone)
}

// setClock moves the clock as one step: readers see the old time or the new.
func (s *site) setClock(wall string) {
	s.t.Helper()
	next := s.clockFile + ".next"
	if err := os.WriteFile(next, []byte(wall), 0o600); err != nil {
		s.t.Fatal(err)
	}
	if err := os.Rename(next, s.clockFile); err != nil {
		s.t.Fatal(err)
	}
}

// answer is a response with its body read.
type answer struct {
	status int
	header http.Header
	body   string
}

func (a answer) field(t *testing.T, path string) any {
	t.Helper()
	var v any
	if err := json.Unmarshal([]byte(a.body), &v); err != nil {
		t.Fatalf("%s: %v", a.body, err)
	}
	for key := range strings.SplitSeq(path, ".") {
		if list, ok := v.([]any); ok {
			if n, err := strconv.Atoi(key); err == nil && n < len(list) {
				v = list[n]
				continue
			}
		}
		m, ok := v.(map[string]any)
		if !ok {
			t.Fatalf("%s has no %s", a.body, path)
		}
		v = m[key]
	}
	return v
}

func (a answer) text(t *testing.T, path string) string {
	t.Helper()
	s, _ := a.field(t, path).(string)
	return s
}

// call sends a request; headers are "Name: value". Where none says what state of a
// list, tag and so on it builds on, it builds on any.
func (s *site) call(method, path, body string, headers ...string) answer {
	s.t.Helper()
	req, err := http.NewRequest(method, s.url+path, strings.NewReader(body))
	if err != nil {
		s.t.Fatal(err)
	}
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	if method == http.MethodPatch {
		req.Header.Set("Content-Type", "application/merge-patch+json")
	}
	if !strings.HasPrefix(path, "/api/todos/") && (method == http.MethodPatch || method == http.MethodDelete) {
		req.Header.Set("If-Match", "*")
	}
	for _, h := range headers {
		name, value, _ := strings.Cut(h, ": ")
		if name == "Host" {
			req.Host = value
		} else if name == "Origin" {
			req.Header.Add(name, value)
		} else {
			req.Header.Set(name, value)
		}
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	content, err := io.ReadAll(res.Body)
	if err != nil {
		s.t.Fatal(err)
	}
	return answer{res.StatusCode, res.Header, string(content)}
}

// want sends a request that must be answered with a status.
func (s *site) want(status int, method, path, body string, headers ...string) answer {
	s.t.Helper()
	a := s.call(method, path, body, headers...)
	if a.status != status {
		s.t.Fatalf("%s %s %.200s: %d %s; want %d", method, path, body, a.status, a.body, status)
	}
	return a
}

func (s *site) capture(body string) (id, etag string) {
	s.t.Helper()
	a := s.want(http.StatusCreated, "POST", "/api/todos", body)
	return a.text(s.t, "id"), a.header.Get("ETag")
}

func (s *site) revision() any {
	s.t.Helper()
	return s.want(200, "GET", "/api/overview", "").field(s.t, "revision")
}

func quoted(v string) string {
	packed, err := json.Marshal(v)
	if err != nil {
		panic(err) // strings always pack
	}
	return string(packed)
}
