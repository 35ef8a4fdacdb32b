package device_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"tincup/internal/core/geo"
	"tincup/internal/standin/device"
)

// told is a Tin Cup that writes down what it is told.
type told struct {
	mu    sync.Mutex
	lines []string
	at    []geo.Point
}

func (s *told) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if r.Method == http.MethodGet {
		fmt.Fprint(w, `[{"id":"1","name":"The museum","middle":"geo:38.7,-9.1","radius":150},{"id":"2","name":"The car","thing":true,"here":true},{"id":"3","name":"Nowhere"}]`)
		return
	}
	body, _ := io.ReadAll(r.Body)
	var at struct{ Latitude, Longitude float64 }
	if json.Unmarshal(body, &at) == nil && r.URL.Path == "/api/here" {
		s.at = append(s.at, geo.MustAt(at.Latitude, at.Longitude))
		return
	}
	s.lines = append(s.lines, r.URL.Path+" "+string(body))
	if strings.Contains(r.URL.Path, "/1/") {
		w.WriteHeader(http.StatusConflict)
		fmt.Fprint(w, `{"detail":"It is no thing."}`)
	}
}

func (s *told) count() int {
	s.mu.Lock()
	defer s.mu.Unlock()
	return len(s.at)
}

func newDevice(t *testing.T) (*device.Device, *told) {
	t.Helper()
	s := &told{}
	server := httptest.NewServer(s)
	t.Cleanup(server.Close)
	d := device.New(server.URL + "/")
	d.Every, d.Steps = time.Millisecond, 10
	return d, s
}

func TestWalk(t *testing.T) {
	d, s := newDevice(t)
	museum, err := d.Find(t.Context(), "the MUSEUM")
	if err != nil {
		t.Fatal(err)
	}
	if err := d.Walk(t.Context(), museum); err != nil {
		t.Fatal(err)
	}
	if len(s.at) != 11 || geo.Distance(s.at[0], museum.Middle) < 900 || geo.Distance(s.at[10], museum.Middle) > d.Accuracy {
		t.Errorf("it went along %v", s.at)
	}
	if at, walks := d.At(); at != museum.Middle || walks != "" {
		t.Errorf("it is at %v and walks to %q", at, walks)
	}
	// Another walk ends the one before it.
	d.Every, d.Steps = time.Hour, 3
	first := make(chan error)
	go func() { first <- d.Walk(t.Context(), museum) }()
	for s.count() < 12 {
		time.Sleep(time.Millisecond)
	}
	ctx, stop := context.WithCancel(t.Context())
	second := make(chan error)
	go func() { second <- d.Walk(ctx, museum) }()
	if err := <-first; !errors.Is(err, context.Canceled) {
		t.Errorf("the first walk ended with %v", err)
	}
	if _, walks := d.At(); walks != "The museum" {
		t.Errorf("it walks to %q", walks)
	}
	stop()
	<-second
}

func TestWhatADeviceCannotDo(t *testing.T) {
	d, _ := newDevice(t)
	if _, err := d.Find(t.Context(), "harbour"); err == nil || !strings.Contains(err.Error(), "“The museum”, “The car”") {
		t.Errorf("a place that is not there: %v", err)
	}
	nowhere, _ := d.Find(t.Context(), "Nowhere")
	if err := d.Walk(t.Context(), nowhere); err == nil || !strings.Contains(err.Error(), "no position") {
		t.Errorf("a place without a position: %v", err)
	}
	museum, _ := d.Find(t.Context(), "The museum")
	if err := d.Connect(t.Context(), museum, true); err == nil || !strings.Contains(err.Error(), "It is no thing.") {
		t.Errorf("what is refused: %v", err)
	}
	away := device.New("http://127.0.0.1:1")
	if _, err := away.Places(t.Context()); err == nil || !strings.Contains(err.Error(), "does not answer") {
		t.Errorf("a Tin Cup that is away: %v", err)
	}
}

func TestPage(t *testing.T) {
	d, s := newDevice(t)
	page := httptest.NewServer(d.Page(t.Context()))
	defer page.Close()
	get := func() string {
		res, err := http.Get(page.URL)
		if err != nil {
			t.Fatal(err)
		}
		defer res.Body.Close()
		text, _ := io.ReadAll(res.Body)
		return string(text)
	}
	send := func(path, place, origin string) *http.Response {
		req, _ := http.NewRequest("POST", page.URL+path, strings.NewReader(url.Values{"place": {place}}.Encode()))
		req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		req.Header.Set("Origin", origin)
		res, err := (&http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}).Do(req)
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
		return res
	}
	if text := get(); !strings.Contains(text, "It has not said yet where it is") || !strings.Contains(text, "Walk there") || !strings.Contains(text, "Disconnect") {
		t.Errorf("the page is %s", text)
	}
	for _, origin := range []string{"http://elsewhere.example", "", "null"} {
		if res := send("/walk", "The museum", origin); res.StatusCode != http.StatusForbidden || s.count() != 0 {
			t.Errorf("a form of %q is answered with %s", origin, res.Status)
		}
	}
	send("/walk", "The museum", page.URL)
	for s.count() < 11 {
		time.Sleep(time.Millisecond)
	}
	send("/disconnect", "The car", page.URL)
	send("/connect", "The car", page.URL)
	if want := []string{`/api/places/2/connection {"connected":false}`, `/api/places/2/connection {"connected":true}`}; strings.Join(s.lines, "\n") != strings.Join(want, "\n") {
		t.Errorf("told was %q", s.lines)
	}
	if res := send("/connect", "The museum", page.URL); !strings.Contains(res.Header.Get("Location"), "no+thing") {
		t.Errorf("what is refused leads to %q", res.Header.Get("Location"))
	}
	for end := time.Now().Add(10 * time.Second); !strings.Contains(get(), "It stands at 38.7, -9.1"); time.Sleep(time.Millisecond) {
		if time.Now().After(end) {
			t.Fatalf("after the walk: %s", get())
		}
	}
}
