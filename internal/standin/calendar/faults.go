package calendar

import (
	"compress/gzip"
	"fmt"
	"net/http"
	"strings"
	"time"
)

// Faults are the ways in which a calendar may fail.
var Faults = []string{"slow", "endless", "page", "missing", "locked", "bomb", "around", "broken", "cut-off"}

// fail answers as a service that is out of order. It ends when who asked has gone; a slow one
// also when it is mended.
func fail(w http.ResponseWriter, r *http.Request, fault string, still func() bool) {
	switch fault {
	case "slow":
		for still() && r.Context().Err() == nil {
			time.Sleep(10 * time.Millisecond)
		}
	case "endless":
		fmt.Fprint(w, "BEGIN:VCALENDAR\r\n")
		for r.Context().Err() == nil {
			if _, err := fmt.Fprint(w, "X-MORE:", strings.Repeat("and on ", 8000), "\r\n"); err != nil {
				return
			}
		}
	case "page":
		w.Header().Set("Content-Type", "text/html")
		fmt.Fprint(w, "<!doctype html><title>Sign in</title>")
	case "missing":
		http.Error(w, "gone", http.StatusNotFound)
	case "locked":
		w.Header().Set("WWW-Authenticate", `Basic realm="calendars"`)
		http.Error(w, "who are you?", http.StatusUnauthorized)
	case "bomb": // a few kilobytes that unpack to a gigabyte
		w.Header().Set("Content-Encoding", "gzip")
		packed := gzip.NewWriter(w)
		defer packed.Close()
		line := []byte("BEGIN:VCALENDAR\r\n" + strings.Repeat(" ", 1<<20))
		for range 1 << 10 {
			if _, err := packed.Write(line); err != nil {
				return
			}
		}
	case "around":
		http.Redirect(w, r, r.URL.Path, http.StatusFound)
	case "cut-off":
		fmt.Fprint(w, "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:2026")
	default:
		http.Error(w, "out of order", http.StatusInternalServerError)
	}
}
