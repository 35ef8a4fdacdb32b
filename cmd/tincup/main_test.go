package main_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"
)

var binary string

func TestMain(m *testing.M) {
	folder, err := os.MkdirTemp("", "tincup-test")
	if err != nil {
		panic(err)
	}
	binary = filepath.Join(folder, "tincup")
	if out, err := exec.Command("go", "build", "-o", binary, ".").CombinedOutput(); err != nil {
		panic(string(out))
	}
	status := m.Run()
	_ = os.RemoveAll(folder)
	os.Exit(status)
}

// tincup runs a command to its end and returns its status and what it printed.
func tincup(t *testing.T, args ...string) (status int, out, errOut string) {
	t.Helper()
	return tincupReading(t, "", args...)
}

// tincupReading is tincup with something on its standard input.
func tincupReading(t *testing.T, in string, args ...string) (status int, out, errOut string) {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	cmd := exec.CommandContext(ctx, binary, args...)
	var stdout, stderr bytes.Buffer
	cmd.Stdin = strings.NewReader(in)
	cmd.Stdout, cmd.Stderr = &stdout, &stderr
	if err := cmd.Run(); err != nil && cmd.ProcessState == nil {
		t.Fatal(err)
	}
	return cmd.ProcessState.ExitCode(), stdout.String(), stderr.String()
}

// server is a running tincup serve or demo.
type server struct {
	cmd *exec.Cmd
	url string
}

func start(t *testing.T, args ...string) *server {
	t.Helper()
	cmd := exec.Command(binary, append(args, "--quiet")...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	s := &server{cmd: cmd}
	t.Cleanup(s.kill)
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if _, url, found := strings.Cut(lines.Text(), "Tin Cup is at "); found {
			s.url = url
			go io.Copy(io.Discard, out)
			return s
		}
	}
	t.Fatalf("%v did not say where it is", args)
	return nil
}

func (s *server) kill() {
	_ = s.cmd.Process.Kill() // SIGKILL; it may have ended already
	_ = s.cmd.Wait()
}

func (s *server) stop(t *testing.T) {
	t.Helper()
	if err := s.cmd.Process.Signal(os.Interrupt); err != nil {
		t.Fatal(err)
	}
	if err := s.cmd.Wait(); err != nil {
		t.Errorf("it did not stop in good order: %v", err)
	}
}

func get(t *testing.T, url string) map[string]any {
	t.Helper()
	res, err := http.Get(url)
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	var v map[string]any
	if err := json.NewDecoder(res.Body).Decode(&v); err != nil {
		t.Fatal(err)
	}
	return v
}

func freeAddress(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}

func TestEachCommandExplainsItself(t *testing.T) {
	for _, args := range [][]string{{"--help"}, {"serve", "--help"}, {"demo", "--help"}, {"add", "--help"}} {
		status, out, _ := tincup(t, args...)
		if status != 0 || !strings.Contains(out, "Usage:") || !strings.Contains(out, "--help") {
			t.Errorf("%v: status %d\n%s", args, status, out)
		}
	}
}

func TestRefusedToStart(t *testing.T) {
	folder := t.TempDir()
	text := filepath.Join(folder, "notes.txt")
	if err := os.WriteFile(text, []byte("Dear diary, today I saw the lighthouse."), 0o600); err != nil {
		t.Fatal(err)
	}
	own := filepath.Join(folder, "own.db")
	if status, _, errOut := tincup(t, "add", "--db", own, "Mine"); status != 0 {
		t.Fatal(errOut)
	}
	for _, c := range []struct {
		args   []string
		status int
		says   string
	}{
		{[]string{"serve", "--db", text}, 1, "not a Tin Cup data file"},
		{[]string{"add", "--db", text, "x"}, 1, "not a Tin Cup data file"},
		{[]string{"serve", "--addr", "0.0.0.0:7420"}, 2, "reached from other machines"},
		{[]string{"serve", "--addr", "192.168.1.5:7420"}, 2, "reached from other machines"},
		{[]string{"serve", "--addr", "7420"}, 2, "not an address"},
		{[]string{"serve", "--db", own, "--zone", "Atlantis/Main"}, 2, "not a time zone"},
		{[]string{"serve", "--db", own, "--now", "tomorrow"}, 2, "not a wall time"},
		{[]string{"serve", "--db", own, "--day-start", "07:00"}, 2, "06:00 is the latest"},
		{[]string{"demo", "--db", own}, 1, "to-dos of your own"},
		{[]string{"add", "--db", own, ""}, 1, "no title yet"},
		{[]string{"add"}, 1, "requires at least 1 arg"},
		{[]string{"paint"}, 1, "unknown command"},
	} {
		status, _, errOut := tincup(t, c.args...)
		if status != c.status || !strings.Contains(errOut, c.says) || strings.Count(errOut, "\n") != 1 ||
			strings.Contains(errOut, "goroutine") {
			t.Errorf("%v: status %d, %q; want %d and “%s” on one line", c.args, status, errOut, c.status, c.says)
		}
	}
	if content, err := os.ReadFile(text); err != nil || string(content) != "Dear diary, today I saw the lighthouse." {
		t.Error("the text file has changed")
	}
}

func TestOneServerAFileAndAddFindsIt(t *testing.T) {
	db := filepath.Join(t.TempDir(), "book.db")
	if status, out, errOut := tincup(t, "add", "--db", db, "Before", "the", "server"); status != 0 || out != "Put in: “Before the server”\n" {
		t.Fatalf("add to a closed file: %d %s %s", status, out, errOut)
	}
	first := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	status, _, errOut := tincup(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	if status != 1 || !strings.Contains(errOut, first.url) {
		t.Errorf("a second server: %d %q; want the address %s", status, errOut, first.url)
	}
	if status, out, errOut := tincup(t, "add", "--db", db, "Beside the server"); status != 0 {
		t.Errorf("add beside a server: %d %s %s", status, out, errOut)
	}
	if status, _, errOut := tincup(t, "add", "--db", db, strings.Repeat("x", 501)); status != 1 || !strings.Contains(errOut, "501 characters") {
		t.Errorf("a refusal by the server: %d %s", status, errOut)
	}
	if got := get(t, first.url+"/api/views/cup")["total"]; got != float64(2) {
		t.Errorf("the Cup holds %v", got)
	}
	first.kill()
	second := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	if got := get(t, second.url+"/api/views/cup")["total"]; got != float64(2) {
		t.Errorf("after kill -9 the Cup holds %v", got)
	}
	second.stop(t)
}

// By whatever name a file is called, and whatever was deleted beside it, what is
// acknowledged is there.
func TestAddByOtherNames(t *testing.T) {
	folder := t.TempDir()
	db := filepath.Join(folder, "book.db")
	s := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	link, hard := filepath.Join(folder, "link.db"), filepath.Join(folder, "hard.db")
	if err := errors.Join(os.Symlink(db, link), os.Link(db, hard)); err != nil {
		t.Fatal(err)
	}
	acknowledged := 0
	add := func(name string, i int) {
		if status, _, errOut := tincup(t, "add", "--db", name, fmt.Sprintf("Slip %d", i)); status == 0 {
			acknowledged++
		} else {
			t.Logf("%s: %s", name, errOut)
		}
	}
	for i := range 6 {
		add([]string{db, link, hard}[i%3], i)
		res, err := http.Post(s.url+"/api/todos", "application/json", strings.NewReader(`{"title":"By the page"}`))
		if err != nil || res.StatusCode != http.StatusCreated {
			t.Fatal(res, err)
		}
		res.Body.Close()
		acknowledged++
	}
	if acknowledged != 12 {
		t.Errorf("%d of 12 were acknowledged", acknowledged)
	}
	for _, beside := range []string{db + "-open", db + ".lock"} {
		_ = os.Remove(beside)
	}
	add(link, 7) // its holder cannot be found now, so it is refused, or comes through
	s.kill()
	again := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	if total := get(t, again.url+"/api/views/cup")["total"]; total != float64(acknowledged) {
		t.Errorf("%v are there; %d were acknowledged", total, acknowledged)
	}
	again.stop(t)
}

// Once its file is gone the server says so and acknowledges nothing more.
func TestServingAFileThatIsGone(t *testing.T) {
	db := filepath.Join(t.TempDir(), "book.db")
	s := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	put := func() int {
		res, err := http.Post(s.url+"/api/todos", "application/json", strings.NewReader(`{"title":"a"}`))
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
		return res.StatusCode
	}
	health := func() int {
		res, err := http.Get(s.url + "/healthz")
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
		return res.StatusCode
	}
	if put() != 201 || health() != 200 {
		t.Fatal("it does not serve")
	}
	if err := os.Rename(db, db+".away"); err != nil {
		t.Fatal(err)
	}
	if got, well := put(), health(); got != 503 || well != 503 {
		t.Errorf("a change is answered with %d, /healthz with %d; want 503 for both", got, well)
	}
	if err := os.Rename(db+".away", db); err != nil {
		t.Fatal(err)
	}
	if got := put(); got != 503 {
		t.Errorf("before a restart a change is answered with %d", got)
	}
	s.kill()
	s = start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	if put() != 201 {
		t.Error("after a restart it does not serve")
	}
	if total := get(t, s.url+"/api/views/cup")["total"]; total != float64(2) {
		t.Errorf("the Cup holds %v", total)
	}
	s.kill()
	if err := os.Remove(db + "-wal"); err != nil {
		t.Fatal(err)
	}
	if status, _, errOut := tincup(t, "serve", "--db", db, "--addr", "127.0.0.1:0"); status != 1 || !strings.Contains(errOut, "--repair") {
		t.Errorf("without its log it ends with %d: %s", status, errOut)
	}
}

// Stopped while a file is still coming, it ends in good order.
func TestStoppedDuringAnUpload(t *testing.T) {
	db := filepath.Join(t.TempDir(), "book.db")
	s := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
	res, err := http.Post(s.url+"/api/todos", "application/json", strings.NewReader(`{"title":"a"}`))
	if err != nil {
		t.Fatal(err)
	}
	var made struct{ ID string }
	if err := json.NewDecoder(res.Body).Decode(&made); err != nil {
		t.Fatal(err)
	}
	res.Body.Close()
	conn, err := net.Dial("tcp", strings.TrimPrefix(s.url, "http://"))
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close()
	fmt.Fprintf(conn, "POST /api/todos/%s/attachments?name=x.bin HTTP/1.1\r\nHost: %s\r\nContent-Type: application/octet-stream\r\nContent-Length: 9000\r\n\r\nonly this",
		made.ID, strings.TrimPrefix(s.url, "http://"))
	time.Sleep(100 * time.Millisecond)
	s.stop(t)
	if _, err := os.Stat(db + "-open"); !errors.Is(err, fs.ErrNotExist) {
		t.Error("the record says that it is open still")
	}
}

// The page and its sentences need a zone by name.
func TestTheMachinesZoneHasAName(t *testing.T) {
	for tz, want := range map[string]string{"Europe/Lisbon": "Europe/Lisbon", ":Asia/Tokyo": "Asia/Tokyo",
		"/usr/share/zoneinfo/America/New_York": "America/New_York", "": "UTC"} {
		t.Run(tz, func(t *testing.T) {
			t.Setenv("TZ", tz)
			s := start(t, "serve", "--db", filepath.Join(t.TempDir(), "own.db"), "--addr", "127.0.0.1:0")
			defer s.stop(t)
			o := get(t, s.url+"/api/overview")
			if o["zone"] != want {
				t.Errorf("the zone is %v, want %s", o["zone"], want)
			}
			body := fmt.Sprintf(`{"text":"Ring tomorrow","typed":"%v","zone":"%v"}`, o["now"], o["zone"])
			res, err := http.Post(s.url+"/api/sentence/todos", "application/json", strings.NewReader(body))
			if err != nil {
				t.Fatal(err)
			}
			defer res.Body.Close()
			if res.StatusCode != http.StatusCreated {
				t.Errorf("a sentence from there: %s", res.Status)
			}
		})
	}
}

func TestDemo(t *testing.T) {
	db := filepath.Join(t.TempDir(), "demo.db")
	args := []string{"demo", "--db", db, "--addr", "127.0.0.1:0", "--now", "2026-11-24T09:10", "--zone", "Europe/Lisbon"}
	s := start(t, args...)
	o := get(t, s.url+"/api/overview")
	counts := o["counts"].(map[string]any)
	if o["today"] != "2026-11-24" || o["zone"] != "Europe/Lisbon" || counts["overdue"] != float64(4) || len(o["shelves"].([]any)) != 4 {
		t.Errorf("the demo is %v", o)
	}
	for _, name := range []string{"cup", "today", "overdue", "upcoming", "within-a-week", "done", "bin"} {
		if total := get(t, s.url+"/api/views/"+name)["total"].(float64); total == 0 {
			t.Errorf("%s is empty", name)
		}
	}
	// Its calendars take no port that another could be told to take: a second one stands behind it.
	where, err := url.Parse(s.url)
	if err != nil {
		t.Fatal(err)
	}
	port, err := strconv.Atoi(where.Port())
	if err != nil {
		t.Fatal(err)
	}
	if free, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", port+1)); err == nil {
		if err := free.Close(); err != nil {
			t.Fatal(err)
		}
		second := start(t, "demo", "--db", filepath.Join(t.TempDir(), "second.db"), "--addr", fmt.Sprintf("127.0.0.1:%d", port+1))
		second.stop(t)
	}
	served := func(url string) string {
		told, err := http.Get(url + "/api/calendars")
		if err != nil {
			t.Fatal(err)
		}
		defer told.Body.Close()
		var calendars []struct{ Address string }
		if err := json.NewDecoder(told.Body).Decode(&calendars); err != nil || len(calendars) == 0 {
			t.Fatalf("%d calendars, %v", len(calendars), err)
		}
		address := calendars[0].Address
		answer, err := http.Get(address)
		if err != nil {
			t.Fatal(err)
		}
		defer answer.Body.Close()
		if answer.StatusCode != http.StatusOK {
			t.Errorf("the calendar at %s answers %s", address, answer.Status)
		}
		return address
	}
	address := served(s.url)
	s.stop(t)
	if status, _, errOut := tincup(t, "add", "--db", db, "Mine"); status != 0 {
		t.Fatal(errOut)
	}
	kept := start(t, append(args, "--keep")...)
	if got := get(t, kept.url+"/api/overview")["counts"].(map[string]any)["cup"]; got != counts["cup"].(float64)+1 {
		t.Errorf("kept, the Cup has %v", got)
	}
	if now := served(kept.url); now != address {
		t.Errorf("kept, its calendar is at %s; it was at %s", now, address)
	}
	kept.stop(t)
	fresh := start(t, args...)
	if got := get(t, fresh.url+"/api/overview")["counts"].(map[string]any)["cup"]; got != counts["cup"] {
		t.Errorf("made afresh, the Cup has %v", got)
	}
	fresh.stop(t)
}
