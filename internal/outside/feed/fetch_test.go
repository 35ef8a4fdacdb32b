package feed_test

import (
	"context"
	"errors"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/day"
	"tincup/internal/outside/feed"
	"tincup/internal/standin/calendar"
)

// serve is the simulated service with the demo's calendars.
func serve(t *testing.T) *httptest.Server {
	t.Helper()
	service := calendar.New(time.UTC, func() time.Time { return time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC) })
	service.Demo(day.MustDate("2026-11-24"))
	server := httptest.NewServer(service)
	t.Cleanup(server.Close)
	return server
}

func put(t *testing.T, address, body string) {
	t.Helper()
	if err := calendar.Send(t.Context(), http.MethodPut, address, body); err != nil {
		t.Fatal(err)
	}
}

func TestFetchAsksForWhatIsNew(t *testing.T) {
	server, r := serve(t), feed.NewReader(true)
	first, err := r.Fetch(t.Context(), server.URL+"/museum.ics", app.Validators{})
	if err != nil || first.Unchanged || first.ETag == "" {
		t.Fatal(err, first.Validators)
	}
	contents := read(t, first.Text, window(t, "UTC", "2026-11-24", "2026-11-27"))
	if len(contents.Events) != 2 || contents.Name != "Museum" {
		t.Errorf("%q with %d events", contents.Name, len(contents.Events))
	}
	if again, err := r.Fetch(t.Context(), server.URL+"/museum.ics", first.Validators); err != nil || !again.Unchanged || again.ETag != first.ETag {
		t.Errorf("%+v, %v", again, err)
	}
	put(t, server.URL+"/museum/drill@museum", `{"title": "Fire drill", "start": "2026-11-25T15:00", "end": "2026-11-25T15:30"}`)
	if again, err := r.Fetch(t.Context(), server.URL+"/museum.ics", first.Validators); err != nil || again.Unchanged || again.ETag == first.ETag {
		t.Errorf("unchanged %t, %v", again.Unchanged, err)
	}
}

// Each way in which an address may fail is said in a sentence, without the address: that may
// be a secret.
func TestFetchThatFails(t *testing.T) {
	server, r := serve(t), feed.NewReader(true)
	at := server.URL + "/museum.ics"
	for fault, want := range map[string]string{
		"page": "", "cut-off": "", "missing": "no calendar at this address (404)", "locked": "does not let us read", "bomb": "more than 10 MB",
		"endless": "more than 10 MB", "around": "more than 5 times", "broken": "answers with 500",
	} {
		put(t, server.URL+"/museum/fault", fault)
		got, err := r.Fetch(t.Context(), at+"?hidden=1", app.Validators{})
		if want == "" { // it is told by reading
			_, err = r.Read(got.Text, window(t, "UTC", "2026-11-24", "2026-11-27"))
		}
		if err == nil || !strings.Contains(err.Error(), want) || strings.Contains(err.Error(), "hidden") {
			t.Errorf("%s: %v, want %q", fault, err, want)
		}
	}
	put(t, server.URL+"/museum/fault", "slow")
	soon, cancel := context.WithTimeout(t.Context(), 50*time.Millisecond)
	defer cancel()
	if _, err := r.Fetch(soon, at, app.Validators{}); err == nil || !strings.Contains(err.Error(), "takes longer than") {
		t.Errorf("slow: %v", err)
	}
	for address, want := range map[string]string{
		"http://127.0.0.1:1/a.ics":       "Nothing answers at “127.0.0.1:1”",
		"http://nowhere.invalid/a.ics":   "nowhere.invalid",
		"ftp://museum.example/a.ics":     "beginning with “ftp:” is not read",
		"file:///etc/passwd":             "is not an address",
		"museum":                         "is not an address",
		"":                               "is not an address",
		"http://[::1":                    "is not an address",
		"https://museum.example:99999/a": "could not be read",
	} {
		if _, err := r.Fetch(t.Context(), address, app.Validators{}); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %v, want %q", address, err, want)
		}
	}
}

// Without leave no address of this machine or of a private network is asked, whatever it is
// called and wherever an answer sends on to.
func TestPrivateAddresses(t *testing.T) {
	asked := false
	inside := httptest.NewServer(http.HandlerFunc(func(http.ResponseWriter, *http.Request) { asked = true }))
	defer inside.Close()
	r := feed.NewReader(false)
	for _, address := range []string{inside.URL, strings.Replace(inside.URL, "127.0.0.1", "localhost", 1), "http://10.0.0.1/a.ics", "http://192.168.0.1/a", "http://[::1]/a",
		"http://169.254.169.254/a", "http://[fe80::1]/a", "http://100.64.0.1/a", "http://0.0.0.0/a", "http://[::ffff:127.0.0.1]/a",
		"http://[fec0::1]/a", "http://[64:ff9b::7f00:1]/a", "http://[64:ff9b:1::1]/a", "http://[2002:7f00:1::]/a", "http://[2001::1]/a", "http://0.1.2.3/a", "http://192.0.0.8/a", "http://198.19.0.1/a", "http://240.0.0.1/a", "http://255.255.255.255/a"} {
		if _, err := r.Fetch(t.Context(), address, app.Validators{}); err == nil || !strings.Contains(err.Error(), "--private-calendars") {
			t.Errorf("%s: %v", address, err)
		}
	}
	if asked {
		t.Error("this machine was asked")
	}
}

func TestFetchEndsWithItsContext(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := feed.NewReader(true).Fetch(ctx, "http://127.0.0.1:1/a.ics", app.Validators{}); err == nil || errors.Is(err, context.DeadlineExceeded) {
		t.Error(err)
	}
}
