package app_test

import (
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// BenchmarkSize prints the bytes of a data file per to-do and per change: to-dos
// captured, planned and ticked over HTTP, each under a key, and the file when the
// server has stopped.
func BenchmarkSize(b *testing.B) {
	const todos = 3000
	for b.Loop() {
		path := filepath.Join(b.TempDir(), "size.db")
		a := openFrozen(b, path)
		server := serve(b, a)
		size := func() float64 {
			info, err := os.Stat(path)
			if err != nil {
				b.Fatal(err)
			}
			return float64(info.Size())
		}
		post := func(address, body, key string) {
			req, err := http.NewRequest(http.MethodPost, server.URL+address, strings.NewReader(body))
			if err != nil {
				b.Fatal(err)
			}
			req.Header.Set("Content-Type", "application/json")
			req.Header.Set("Idempotency-Key", key)
			res, err := http.DefaultClient.Do(req)
			if err != nil {
				b.Fatal(err)
			}
			if _, err := io.Copy(io.Discard, res.Body); err != nil || res.StatusCode >= 300 {
				b.Fatal(res.Status, err)
			}
			res.Body.Close()
		}
		id := func(i int) string { return fmt.Sprintf("01890000-0000-7000-8000-%012x", i+1) }
		changes := 0
		for i := range todos {
			post("/api/todos", fmt.Sprintf(`{"id":"%s","title":"To-do number %d about something or other","due":"2026-11-27T16:00","tags":["calls"]}`, id(i), i), "a"+id(i))
			post("/api/todos/"+id(i)+"/plan", `{"plan":"2026-11-26"}`, "b"+id(i))
			post("/api/todos/"+id(i)+"/complete", "", "c"+id(i))
			changes += 3
		}
		server.Close()
		if err := a.Close(); err != nil {
			b.Fatal(err)
		}
		b.ReportMetric(size()/todos, "bytes/todo")
		b.ReportMetric(size()/float64(changes), "bytes/change")
		if os.Getenv("TABLES") != "" {
			fmt.Println(path)
			time.Sleep(20 * time.Second)
		}
	}
}
