package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/day"
)

// The due that could be kept instead, against brute force with each day tried from its own
// due on, beside those that were found before it.
func TestLaterAgainstBruteForce(t *testing.T) {
	found := 0
	against(t, 12, *cases/3, func(r *rand.Rand) world { return randomWorld(t, r, 6, true, true) }, func(w world) string {
		p := w.problem(t)
		late := p.Give().Late
		later, err := p.Later(late, len(late))
		if err != nil {
			return err.Error()
		}
		with := w
		with.jobs = slices.Clone(w.jobs)
		for _, job := range late {
			with.jobs[job].Due = day.Moment{}
		}
		for _, job := range late {
			want := day.Date{}
			for i := range p.Days {
				if p.Days[i].Date.Before(w.jobs[job].Due.Date) {
					continue
				}
				with.jobs[job].Due = day.Moment{Date: p.Days[i].Date}
				if _, missed := with.slow().firstMissed(); !missed {
					want = p.Days[i].Date
					break
				}
			}
			if want.IsZero() {
				with.jobs[job].Due = day.Moment{}
			} else {
				found++
			}
			if later[job] != want {
				return fmt.Sprintf("job %s could be due %v, by brute force %v", p.Jobs[job].ID, later[job], want)
			}
		}
		return ""
	})
	if found == 0 {
		t.Error("no due could be moved in any case")
	}
}
