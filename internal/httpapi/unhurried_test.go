package httpapi_test

import (
	"bytes"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/httpapi"
)

// An answer that takes longer to be worked out than the server waits for a write arrives all the
// same, and a retry under its key gets it again.
func TestAnswersThatTakeLong(t *testing.T) {
	log := slog.New(slog.DiscardHandler)
	a, err := app.Open(t.Context(), filepath.Join(t.TempDir(), "book.db"), clock.Frozen(time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC)), app.Settings{Zone: time.UTC}, log)
	if err != nil {
		t.Fatal(err)
	}
	defer a.Close()
	handler, err := httpapi.New(a, httpapi.OwnerAlone(a), fstest.MapFS{}, log)
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewUnstartedServer(handler)
	server.Config.WriteTimeout = 20 * time.Millisecond
	server.Start()
	defer server.Close()
	var csv strings.Builder
	csv.WriteString("title,due\r\n")
	for i := range 3000 {
		fmt.Fprintf(&csv, "Lamp %d to be labelled,2026-12-%02d\r\n", i, 1+i%28)
	}
	for _, path := range []string{"import/look?format=csv", "import?format=csv", "import?format=csv", "export?format=markdown", "everything"} {
		method, body := http.MethodPost, csv.String()
		if !strings.HasPrefix(path, "import") {
			method, body = http.MethodGet, ""
		}
		req, err := http.NewRequest(method, server.URL+"/api/"+path, strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		req.Header.Set("Content-Type", "application/octet-stream")
		req.Header.Set("Idempotency-Key", "one")
		begun := time.Now()
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Errorf("%s: %v", path, err)
			continue
		}
		text, err := io.ReadAll(res.Body)
		if err != nil || res.StatusCode != http.StatusOK || len(text) == 0 {
			t.Errorf("%s: %s, %v, %.100s", path, res.Status, err, text)
		}
		t.Logf("%s took %v", path, time.Since(begun))
		if path == "import?format=csv" && !bytes.Contains(text, []byte("3000 new")) {
			t.Errorf("it says %.200s", text)
		}
	}
}
