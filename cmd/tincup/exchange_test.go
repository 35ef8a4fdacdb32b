package main_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/seed"
)

// lampsFile is a file with so many to-dos, whose UIDs begin with a name.
func lampsFile(name string, n int) []byte {
	var b bytes.Buffer
	b.WriteString("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n")
	for i := range n {
		fmt.Fprintf(&b, "BEGIN:VTODO\r\nUID:%s-%d@harbour.example\r\nSUMMARY:%s %d\r\nCATEGORIES:%s\r\nEND:VTODO\r\n", name, i, name, i, name)
	}
	b.WriteString("END:VCALENDAR\r\n")
	return b.Bytes()
}

// bringIn sends a file once; ok tells whether it was answered well.
func bringIn(base, key string, file []byte) (ok bool) {
	req, err := http.NewRequest(http.MethodPost, base+"/api/import?name=lamps.ics", bytes.NewReader(file))
	if err != nil {
		return false
	}
	req.Header.Set("Content-Type", "application/octet-stream")
	req.Header.Set("Idempotency-Key", key)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return false
	}
	res.Body.Close()
	return res.StatusCode == http.StatusOK
}

// titled counts the to-dos of the Cup whose titles begin with a name.
func titled(t *testing.T, base, name string) (n int) {
	t.Helper()
	narrow := fmt.Sprintf(`{"field":"text","op":"contains","text":"%s "}`, name)
	res, err := http.Get(base + "/api/views/cup?limit=0&narrow=" + url.QueryEscape(narrow))
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	var found struct{ Total int }
	if err := json.NewDecoder(res.Body).Decode(&found); err != nil {
		t.Fatal(err)
	}
	return found.Total
}

// A server is killed while a file comes in: all of it is there or none, and what is sent again
// under its key comes in once.
func TestKilledImports(t *testing.T) {
	kills, most := 4, 300
	if *long {
		kills, most = 50, 2000
	}
	r := rand.New(rand.NewPCG(seed.New(t), 0))
	args := []string{"serve", "--db", filepath.Join(t.TempDir(), "book.db"), "--addr", freeAddress(t)}
	s := start(t, args...)
	none, all, answered := 0, 0, 0
	for round := range kills {
		name, n := fmt.Sprintf("lamp%dx", round), 1+r.IntN(most)
		file := lampsFile(name, n)
		done := make(chan bool)
		go func(base string) { done <- bringIn(base, name, file) }(s.url)
		wait := 60 // while it is worked out and kept, or while its rows are written
		if r.IntN(2) == 0 {
			wait = 400
		}
		time.Sleep(time.Duration(r.IntN(wait)) * time.Millisecond)
		s.kill()
		ok := <-done
		s = start(t, args...)
		switch got := titled(t, s.url, name); {
		case got == n:
			all++
		case got == 0 && !ok:
			none++
		default:
			t.Errorf("round %d: of %d to-dos %d are there; answered %v", round, n, got, ok)
		}
		if ok {
			answered++
		}
		if !bringIn(s.url, name, file) {
			t.Fatalf("round %d: it does not come in afterwards", round)
		}
		if got := titled(t, s.url, name); got != n {
			t.Errorf("round %d: sent again, of %d to-dos %d are there", round, n, got)
		}
	}
	t.Logf("%d kills: all was there %d times, %d of them answered, and nothing %d times", kills, all, answered, none)
}

// The commands work on the file and through the process that holds it, and say what is left out.
func TestImportAndExportCommands(t *testing.T) {
	folder := t.TempDir()
	db := filepath.Join(folder, "book.db")
	path := filepath.Join(folder, "lamps.ics")
	write := func(text string) {
		if err := os.WriteFile(path, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	tin := func(args ...string) (status int, out string) {
		cmd := exec.Command(binary, append(args, "--db", db)...)
		text, _ := cmd.CombinedOutput()
		return cmd.ProcessState.ExitCode(), string(text)
	}
	wants := func(what string, status int, says string, args ...string) {
		t.Helper()
		if got, out := tin(args...); got != status || !strings.Contains(out, says) {
			t.Errorf("%s: status %d, %s; want %d, %q", what, got, out, status, says)
		}
	}
	bad := "BEGIN:VTODO\r\nSUMMARY:Wrong\r\nRECURRENCE-ID:20261127\r\nEND:VTODO\r\nEND:VCALENDAR"
	write(strings.Replace(string(lampsFile("lamp", 2)), "END:VCALENDAR", bad, 1))
	wants("looked at", 3, "2 would be new, 0 changed, 0 the same, 1 left out", "import", "--dry-run", path)
	wants("out of nothing", 0, "END:VCALENDAR", "export")
	wants("brought in", 3, "left out, line 15: “Wrong”: RECURRENCE-ID: one occurrence", "import", path)
	write(string(lampsFile("lamp", 3)))
	s := start(t, "serve", "--db", db, "--addr", freeAddress(t))
	wants("through the server", 0, "1 new, 0 changed, 2 the same, 0 left out", "import", path)
	wants("as JSON", 0, `"same":3`, "import", "--json", path)
	wants("a list nobody has", 1, "no list called “Harbour”", "import", "--list", "Harbour", path)
	wants("out of the Cup", 0, "lamp 2", "export", "--format", "csv", "--list", "cup")
	wants("a view nobody has", 1, "", "export", "--view", "harbour")
	s.kill()
	out := filepath.Join(folder, "out.ics")
	wants("into a file", 0, "", "export", "-o", out)
	if text, err := os.ReadFile(out); err != nil || strings.Count(string(text), "BEGIN:VTODO") != 3 {
		t.Errorf("the file has %s, %v", text, err)
	}
	wants("a format nobody knows", 2, "there are ics", "export", "--format", "pdf")
	wants("two things at once", 2, "one of them", "export", "--list", "a", "--view", "b")
	write("hello")
	wants("no calendar", 1, "line 1: This is no iCalendar file", "import", path)
	wants("a file that is not there", 1, "no such file", "import", filepath.Join(folder, "none.ics"))
}

// What goes out to a full disk is said not to be written, and nothing else becomes of the place:
// a device stays one, a link too, and a file keeps what it had.
func TestExportsThatCannotBeWritten(t *testing.T) {
	folder := t.TempDir()
	db, text := filepath.Join(folder, "book.db"), filepath.Join(folder, "a.md")
	if err := os.WriteFile(text, []byte("- [ ] Count the lamps\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	if status, _, said := tincup(t, "import", "--db", db, text); status != 0 {
		t.Fatal(said)
	}
	const full = "/dev/full" // each write to it fails as on a full disk
	link := filepath.Join(folder, "link")
	if err := os.Symlink(full, link); err != nil {
		t.Fatal(err)
	}
	before, err := os.ReadDir(folder)
	if err != nil {
		t.Fatal(err)
	}
	for _, args := range [][]string{{"-o", full}, {"--format", "csv", "-o", link}, {"--all", full}, {"--all", link}} {
		status, _, said := tincup(t, append([]string{"export", "--db", db}, args...)...)
		if status != 1 || !strings.Contains(said, args[len(args)-1]+" is not written: ") || !strings.Contains(said, "no space left on device") {
			t.Errorf("%v: status %d, %q", args, status, said)
		}
	}
	if is, err := os.Stat(full); err != nil || is.Mode().IsRegular() {
		t.Errorf("the device is %v, %v", is, err)
	}
	if to, err := os.Readlink(link); err != nil || to != full {
		t.Errorf("the link is %q, %v", to, err)
	}
	if status, _, said := tincup(t, "export", "--db", db, "-o", folder); status != 1 || !strings.Contains(said, "it is a folder") {
		t.Errorf("into a folder: status %d, %q", status, said)
	}
	// A file that is linked to is written through the link, and keeps who may read it.
	real := filepath.Join(folder, "a.md")
	if err := errors.Join(os.WriteFile(real, []byte("what was there"), 0), os.Chmod(real, 0o640), os.Remove(link), os.Symlink(real, link)); err != nil {
		t.Fatal(err)
	}
	if status, _, said := tincup(t, "export", "--db", db, "--format", "markdown", "-o", link); status != 0 {
		t.Error(said)
	}
	written, err := os.ReadFile(real)
	is, errIs := os.Stat(real)
	if err != nil || errIs != nil || string(written) != "- [ ] Count the lamps\n" || is.Mode().Perm() != 0o640 {
		t.Errorf("written through the link: %q, %v, %v, %v", written, is, err, errIs)
	}
	if after, err := os.ReadDir(folder); err != nil || len(after) != len(before) {
		t.Errorf("beside it there are %v, %v; before %v", after, err, before)
	}
}
