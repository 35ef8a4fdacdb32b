package main_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"tincup/internal/seed"
	"tincup/internal/standin/desktop"
)

// bellWindow is a window as the page has it: it hears of changes, asks what rings, and shows
// each ring once.
type bellWindow struct {
	base string
	mu   sync.Mutex
	// shown are how many rings of each title it has shown.
	shown map[string]int
	known map[string]bool
}

type bellAnswer struct {
	Open []struct{ ID, Title, Rang string }
}

// listen hears of changes until ctx ends, through as many servers as there are.
func (w *bellWindow) listen(ctx context.Context) {
	for ctx.Err() == nil {
		w.hear(ctx)
		select {
		case <-ctx.Done():
		case <-time.After(20 * time.Millisecond):
		}
	}
}

func (w *bellWindow) hear(ctx context.Context) {
	res, err := request(ctx, w.base+"/api/events")
	if err != nil {
		return
	}
	defer res.Body.Close()
	for lines := bufio.NewScanner(res.Body); lines.Scan(); {
		data, told := strings.CutPrefix(lines.Text(), "data: ")
		if told && (strings.Contains(data, `"rings":true`) || !strings.Contains(data, `"todos"`)) {
			w.look(ctx)
		}
	}
}

func request(ctx context.Context, url string) (*http.Response, error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, url, nil)
	if err != nil {
		return nil, err
	}
	return http.DefaultClient.Do(req)
}

func (w *bellWindow) look(ctx context.Context) {
	res, err := request(ctx, w.base+"/api/bell")
	if err != nil {
		return
	}
	defer res.Body.Close()
	var bell bellAnswer
	if json.NewDecoder(res.Body).Decode(&bell) != nil {
		return
	}
	w.mu.Lock()
	defer w.mu.Unlock()
	for _, r := range bell.Open {
		if !w.known[r.ID] {
			w.known[r.ID] = true
			w.shown[r.Title]++
		}
	}
}

func (w *bellWindow) times() map[string]int {
	w.mu.Lock()
	defer w.mu.Unlock()
	return maps.Clone(w.shown)
}

func until(t *testing.T, what string, holds func() bool) {
	t.Helper()
	for end := time.Now().Add(20 * time.Second); !holds(); time.Sleep(5 * time.Millisecond) {
		if time.Now().After(end) {
			t.Fatalf("waited in vain for %s", what)
		}
	}
}

// withDesktop is a server whose clock is moved by hand, on a machine with a desktop.
type withDesktop struct {
	t      *testing.T
	server *server
	args   []string
	shows  *desktop.Desktop
	clock  string
	wall   time.Time
}

func startWithDesktop(t *testing.T) *withDesktop {
	t.Helper()
	folder := t.TempDir()
	bus, stop, err := desktop.StartBus(folder)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(stop)
	shows, err := desktop.Start(bus, "actions")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = shows.Close() })
	t.Setenv("DBUS_SESSION_BUS_ADDRESS", bus)
	d := &withDesktop{t: t, shows: shows, clock: filepath.Join(folder, "clock"), wall: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC)}
	d.passes(0)
	d.args = []string{"serve", "--db", filepath.Join(folder, "book.db"), "--addr", freeAddress(t), "--clock-file", d.clock, "--zone", "UTC"}
	d.server = start(t, d.args...)
	return d
}

// passes moves the clock on.
func (d *withDesktop) passes(by time.Duration) {
	d.t.Helper()
	d.wall = d.wall.Add(by)
	err := os.WriteFile(d.clock+".next", []byte(d.wall.Format(time.RFC3339)), 0o600)
	if err == nil {
		err = os.Rename(d.clock+".next", d.clock)
	}
	if err != nil {
		d.t.Fatal(err)
	}
}

// What is pressed on a notification of the desktop is done in the Book.
func TestDoneOnTheDesktop(t *testing.T) {
	d := startWithDesktop(t)
	hand := &writer{Rand: rand.New(rand.NewPCG(1, 1)), base: d.server.url, name: "hand", acknowledged: map[int64]string{}, kinds: map[string]int{}}
	made := hand.send("capture", "/api/todos", `{"title":"Ring the insurer","reminders":["2026-11-24T09:11"]}`)
	d.passes(time.Minute)
	until(t, "the notification", func() bool { return len(d.shows.Shown()) == 1 })
	for number, n := range d.shows.Shown() {
		if n.Title != "Ring the insurer" || n.Text != "Tue 24 Nov 2026, 09:11" {
			t.Errorf("it shows %+v", n)
		}
		if err := d.shows.Press(number, "done"); err != nil {
			t.Fatal(err)
		}
	}
	until(t, "the tick", func() bool { return get(t, d.server.url+"/api/todos/"+made["id"].(string))["status"] == "completed" })
	until(t, "the notification to be taken back", func() bool { return len(d.shows.Shown()) == 0 })
}

// namedAmongMany tells whether a notice of many rings has a title as one of its lines: more
// than three that come together, as after a start, are shown as one.
func namedAmongMany(shows *desktop.Desktop, title string) bool {
	for _, n := range shows.Shown() {
		if strings.HasSuffix(n.Title, " reminders") && slices.Contains(strings.Split(n.Text, "\n"), title) {
			return true
		}
	}
	return false
}

// A server that is killed again and again between a reminder's moment and its being told:
// two windows show each ring once, the desktop shows each, and what was answered stays so.
func TestRingsOfAKilledServer(t *testing.T) {
	kills := 4
	if *long {
		kills = 100
	}
	r := rand.New(rand.NewPCG(seed.New(t), 0))
	d := startWithDesktop(t)
	shows, args, s := d.shows, d.args, d.server
	hand := &writer{Rand: r, base: s.url, name: "hand", acknowledged: map[int64]string{}, kinds: map[string]int{}}
	ctx, end := context.WithCancel(t.Context())
	var listening sync.WaitGroup
	defer listening.Wait()
	defer end()
	windows := []*bellWindow{}
	for range 2 {
		w := &bellWindow{base: s.url, shown: map[string]int{}, known: map[string]bool{}}
		windows = append(windows, w)
		listening.Go(func() { w.listen(ctx) })
	}
	answered := map[string]bool{}
	for n := range kills {
		title := fmt.Sprintf("r%d", n)
		at := d.wall.Add(time.Minute).Format("2006-01-02T15:04")
		hand.send("capture", "/api/todos", `{"title":"`+title+`","reminders":["`+at+`"]}`)
		d.passes(time.Minute)
		// The clock is looked at every 20 ms: it is killed before, while and after it rings.
		time.Sleep(time.Duration(r.IntN(45)) * time.Millisecond)
		s.kill()
		s = start(t, args...)
		until(t, title+" in both windows", func() bool { return windows[0].times()[title] > 0 && windows[1].times()[title] > 0 })
		until(t, title+" on the desktop", func() bool { return shows.Came()[title] > 0 || namedAmongMany(shows, title) })
		bell := get(t, s.url+"/api/bell")
		for _, open := range bell["open"].([]any) {
			ring := open.(map[string]any)
			if id := ring["id"].(string); r.IntN(2) == 0 {
				var again *server
				wait := time.Duration(r.IntN(5)) * time.Millisecond
				restarted := make(chan struct{})
				go func() { // while it is answered
					defer close(restarted)
					time.Sleep(wait)
					s.kill()
					again = start(t, args...)
				}()
				hand.send("seen", "/api/bell/seen", `{"rings":["`+id+`"]}`)
				<-restarted
				s = again
				answered[ring["title"].(string)] = true
			}
		}
		for _, open := range get(t, s.url+"/api/bell")["open"].([]any) {
			if title := open.(map[string]any)["title"].(string); answered[title] {
				t.Errorf("%s was answered and is open", title)
			}
		}
	}
	twice := 0
	for title, times := range shows.Came() {
		if times > 1 && !strings.HasSuffix(title, " reminders") {
			twice++
		}
	}
	for i, w := range windows {
		for title, times := range w.times() {
			if times != 1 {
				t.Errorf("window %d showed %s %d times", i, title, times)
			}
		}
	}
	t.Logf("%d kills between due and told; %d rings in each window, once each; %d answered; on the desktop none missed, %d more than once",
		kills, len(windows[0].times()), len(answered), twice)
}
