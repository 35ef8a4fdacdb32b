package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// BenchmarkWeek prints how long it takes to say whether 500 jobs fit into 60 days and what
// has to give (bar 20 ms), where all can be begun now, where some cannot, and where some
// wait for others; and to spread 60 jobs over 14 days (bar 100 ms).
func BenchmarkWeek(b *testing.B) {
	for _, kind := range []string{"now", "later", "chains"} {
		w := bigWeek(b, rand.New(rand.NewPCG(1, 9)), 500, 60)
		for i := range w.jobs {
			if kind == "now" {
				w.jobs[i].Release = day.Moment{}
			}
			if kind == "chains" && i%5 > 2 {
				w.jobs[i].After = []int{i - 1}
			}
		}
		b.Run("can-it-be-done-"+kind, func(b *testing.B) {
			late := 0
			for b.Loop() {
				p := w.problem(b)
				v := p.Feasible()
				if v.Feasible {
					b.Fatal("it fits")
				}
				late = len(p.Give().Late)
			}
			b.ReportMetric(float64(late), "late")
			b.ReportMetric(float64(b.Elapsed().Milliseconds())/float64(b.N)/20, "of-bar")
		})
	}
	w := bigWeek(b, rand.New(rand.NewPCG(2, 9)), 60, 14)
	b.Run("level", func(b *testing.B) {
		var level plan.Levelled
		for b.Loop() {
			level = w.problem(b).Level()
		}
		if len(level.Day) < 50 {
			b.Fatal(fmt.Sprint("only ", len(level.Day), " were spread"))
		}
		b.ReportMetric(level.Fullest/level.Bound, "x-bound")
		b.ReportMetric(float64(b.Elapsed().Milliseconds())/float64(b.N)/100, "of-bar")
	})
}
