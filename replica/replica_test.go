package replica_test

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"
)

const (
	tincup, litestream = "../bin/tincup", "../bin/litestream"
	// loaded is for how long the server is under load; behind is what may be missing.
	loaded, behind = 25 * time.Second, 5 * time.Second
)

// Every change that was acknowledged more than five seconds before the server and the replication
// were killed is in what is restored.
func TestRestoredFromTheReplica(t *testing.T) {
	folder := t.TempDir()
	db, copies := filepath.Join(folder, "book.db"), "file://"+filepath.Join(folder, "replica")
	server := exec.Command(tincup, "serve", "--db", db, "--addr", "127.0.0.1:0", "--quiet")
	address := started(t, server)
	replication := exec.Command(litestream, "replicate", db, copies)
	var log bytes.Buffer
	replication.Stdout, replication.Stderr = &log, &log
	if err := replication.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = replication.Process.Kill() })

	var mu sync.Mutex
	acknowledged := map[string]time.Time{}
	stop := make(chan struct{})
	var working sync.WaitGroup
	for w := range 4 {
		working.Go(func() {
			for n := 0; ; n++ {
				select {
				case <-stop:
					return
				default:
				}
				title := fmt.Sprintf("w%d-%d", w, n)
				if capture(address, title) {
					mu.Lock()
					acknowledged[title] = time.Now()
					mu.Unlock()
				}
			}
		})
	}
	time.Sleep(loaded)
	killed := time.Now()
	for _, p := range []*exec.Cmd{replication, server} {
		if err := p.Process.Kill(); err != nil {
			t.Fatal(err)
		}
		_ = p.Wait() // it was killed
	}
	close(stop)
	working.Wait()

	restored := filepath.Join(folder, "restored.db")
	if out, err := exec.Command(litestream, "restore", "-o", restored, copies).CombinedOutput(); err != nil {
		t.Fatalf("%v\n%s\n%s", err, out, log.String())
	}
	text, err := exec.Command(tincup, "export", "--format", "csv", "--db", restored).Output()
	if err != nil {
		t.Fatalf("what is restored does not open: %v", err)
	}
	rows, err := csv.NewReader(bytes.NewReader(text)).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	there := map[string]bool{}
	for _, row := range rows[1:] {
		there[row[0]] = true
	}
	missing, late := 0, 0
	for title, at := range acknowledged {
		switch {
		case there[title]:
		case killed.Sub(at) > behind:
			if missing++; missing < 10 {
				t.Errorf("%s was acknowledged %v before the end, and is missing", title, killed.Sub(at))
			}
		default:
			late++
		}
	}
	t.Logf("%d changes were acknowledged in %v, %d are in what is restored; of the last %v %d are missing, of those before %d",
		len(acknowledged), loaded, len(there), behind, late, missing)
	if len(acknowledged) < 100 {
		t.Errorf("only %d changes were acknowledged\n%s", len(acknowledged), log.String())
	}
}

// started starts a server and returns where it is.
func started(t *testing.T, server *exec.Cmd) string {
	t.Helper()
	out, err := server.StdoutPipe()
	if err == nil {
		err = server.Start()
	}
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = server.Process.Kill() })
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if _, address, found := strings.Cut(lines.Text(), "Tin Cup is at "); found {
			go io.Copy(io.Discard, out)
			return address
		}
	}
	t.Fatal("the server does not say where it is")
	return ""
}

func capture(address, title string) bool {
	req, err := http.NewRequest(http.MethodPost, address+"/api/todos", strings.NewReader(`{"title":"`+title+`","notes":"of the replica"}`))
	if err != nil {
		panic(err) // the address was read from the server
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Idempotency-Key", title)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return false
	}
	_, _ = io.Copy(io.Discard, res.Body)
	return res.Body.Close() == nil && res.StatusCode < 300
}

func TestMain(m *testing.M) {
	for _, program := range []string{tincup, litestream} {
		if _, err := os.Stat(program); err != nil {
			fmt.Fprintln(os.Stderr, "make replica-test builds what this needs:", err)
			os.Exit(1)
		}
	}
	os.Exit(m.Run())
}
