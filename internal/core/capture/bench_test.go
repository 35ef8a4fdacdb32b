package capture_test

import (
	"maps"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/olebedev/when"
	"github.com/olebedev/when/rules/common"
	"github.com/olebedev/when/rules/en"

	"tincup/internal/core/capture"
)

// BenchmarkRead reads a sentence with date, time, list, tag, priority and estimate, with
// commas and without, as a ratio to olebedev/when reading a date phrase alone. The two take
// turns of a few milliseconds, so that a machine which is busy for a while is busy for both.
// The bar is 1/5.
func BenchmarkRead(b *testing.B) {
	const turn = 200 // readings
	env := at(tuesday)
	w := when.New(nil)
	w.Add(en.All...)
	w.Add(common.All...)
	now := mustTime(tuesday)
	for _, c := range []struct{ name, sentence string }{
		{"commas", "Order mount board, by Friday 4pm, in Night Signals, #suppliers, high, 20 min"},
		{"none", "Order mount board by Friday 4pm in Night Signals high 20 min #suppliers"},
	} {
		b.Run(c.name, func(b *testing.B) {
			var ours, reference time.Duration
			turns := 0
			for b.Loop() {
				begun := time.Now()
				for range turn {
					capture.Read(c.sentence, env)
				}
				middle := time.Now()
				for range turn {
					if found, err := w.Parse("call the printer tomorrow at 5pm", now); err != nil || found == nil {
						b.Fatal("not read")
					}
				}
				ours, reference, turns = ours+middle.Sub(begun), reference+time.Since(middle), turns+1
			}
			b.ReportMetric(float64(ours)/float64(reference), "x-when")
			b.ReportMetric(float64(ours)/float64(turns*turn), "ns-read")
			b.ReportMetric(float64(reference)/float64(turns*turn), "ns-when")
		})
	}
}

// BenchmarkVeryMuch prints how long reading very much of everything takes, offers
// included, in milliseconds a line.
func BenchmarkVeryMuch(b *testing.B) {
	env := manyNames()
	for _, name := range slices.Sorted(maps.Keys(veryMuch)) {
		b.Run(strings.ReplaceAll(name, " ", "-"), func(b *testing.B) {
			for b.Loop() {
				capture.Read(veryMuch[name], env)
				capture.Offers(veryMuch[name], env)
			}
			b.ReportMetric(float64(b.Elapsed().Microseconds())/1000/float64(b.N), "ms-line")
		})
	}
}
