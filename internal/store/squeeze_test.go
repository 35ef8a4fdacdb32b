package store

import (
	"path/filepath"
	"testing"
)

const plainRow = `{"Revision":6,"Kind":"complete","Says":"Done: “To-do number 1 about something or other”","Todos":[{"before":{"ID":"01890000-0000-7000-8000-000000000002","Title":"To-do number 1 about something or other","Changed":"2026-11-24T09:10:00.000Z","Revision":5},"after":{"ID":"01890000-0000-7000-8000-000000000002","Title":"To-do number 1 about something or other","Status":"completed","Changed":"2026-11-24T09:10:00.000Z","Completed":"2026-11-24T09:10:00.000Z","Revision":6}}]}`

// BenchmarkSqueeze prints what keeping a row of history small costs, and how small.
func BenchmarkSqueeze(b *testing.B) {
	s, err := newSqueezer()
	if err != nil {
		b.Fatal(err)
	}
	size := 0
	b.ReportAllocs()
	for b.Loop() {
		size = len(s.squeeze([]byte(plainRow)))
	}
	b.ReportMetric(float64(size)/float64(len(plainRow)), "of-plain")
}

// BenchmarkPresent prints what looking after the data file costs.
func BenchmarkPresent(b *testing.B) {
	s, err := Open(b.Context(), filepath.Join(b.TempDir(), "x.db"))
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	for b.Loop() {
		if err := s.Present(); err != nil {
			b.Fatal(err)
		}
	}
}
