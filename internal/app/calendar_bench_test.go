package app_test

import (
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/core/book"
	"tincup/internal/outside/feed"
)

// minutes is a clock that a benchmark moves on by minutes; nothing that waits is woken by it.
type minutes struct {
	clock.Frozen
	passed atomic.Int64
}

func (m *minutes) Now() time.Time {
	return m.Frozen.Now().Add(time.Duration(m.passed.Load()) * time.Minute)
}

// BenchmarkLongCalendar prints what the answers of a new minute take with a calendar of 20,000
// events that all last for twenty years, as a ratio to the same without a calendar, and the memory
// then.
func BenchmarkLongCalendar(b *testing.B) {
	var text strings.Builder
	text.WriteString("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Loans//EN\r\n")
	for i := range 20_000 {
		fmt.Fprintf(&text, "BEGIN:VEVENT\r\nUID:%d@loans\r\nDTSTAMP:20200101T000000Z\r\nDTSTART;VALUE=DATE:20160101\r\nDTEND;VALUE=DATE:20361231\r\nSUMMARY:Loan %d\r\nEND:VEVENT\r\n", i, i)
	}
	text.WriteString("END:VCALENDAR\r\n")
	type side struct {
		clock minutes
		url   string
		took  []float64
	}
	var sides [2]side
	for i := range sides {
		s := &sides[i]
		path := filepath.Join(b.TempDir(), "calendar.db")
		writeBook(b, path, bookOf(2000, 1000))
		s.clock.Frozen = clock.Frozen(benchNow)
		a, err := app.Open(b.Context(), path, &s.clock, app.Settings{Zone: time.UTC, Calendars: feed.NewReader(true)}, slog.New(slog.DiscardHandler))
		if err != nil {
			b.Fatal(err)
		}
		defer a.Close()
		if s.url = serve(b, a.Owner()).URL; i == 1 {
			if _, err := a.Owner().AddCalendar(b.Context(), app.Request{Window: "w"}, book.AddCalendar{Name: "Loans", File: "loans.ics"}, []byte(text.String()), nil); err != nil {
				b.Fatal(err)
			}
		}
	}
	for _, path := range []string{"/api/overview", "/api/views/today", "/api/week"} {
		b.Run(path[5:], func(b *testing.B) {
			size := 0
			for b.Loop() {
				for i := range sides {
					s := &sides[i]
					s.clock.passed.Add(1)
					begun := time.Now()
					res, err := http.Get(s.url + path)
					if err != nil {
						b.Fatal(err)
					}
					body, err := io.ReadAll(res.Body)
					if err != nil || res.StatusCode != http.StatusOK {
						b.Fatal(res.Status, err)
					}
					s.took = append(s.took, float64(time.Since(begun).Microseconds())/1000)
					size = len(body)
				}
			}
			var median [2]float64
			for i := range sides {
				slices.Sort(sides[i].took)
				median[i] = sides[i].took[len(sides[i].took)/2]
				sides[i].took = nil
			}
			b.ReportMetric(median[1], "ms")
			b.ReportMetric(median[1]/median[0], "x-without")
			b.ReportMetric(float64(size)/1000, "kB")
			runtime.GC()
			b.ReportMetric(residentMB(b), "MB-resident")
		})
	}
}
