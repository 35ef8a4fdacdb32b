package plan

import (
	"slices"
	"sort"

	"tincup/internal/core/day"
)

// Later finds for the first jobs of those that have to give the first date which each could
// be due on instead, so that all others keep their dues: in their order, each beside those
// before it. The other late ones are done after all that is due. A job for which no day of
// the capacity is late enough is left out. The error is a *JobError.
func (p *Problem) Later(late []int, first int) (map[int]day.Date, error) {
	jobs := slices.Clone(p.Jobs)
	for _, job := range late {
		jobs[job].Due = day.Moment{}
	}
	later := map[int]day.Date{}
	for _, job := range late[:first] {
		from := sort.Search(len(p.Days), func(i int) bool { return !p.Days[i].Date.Before(p.Jobs[job].Due.Date) })
		holds := func(i int) (bool, error) {
			jobs[job].Due = day.Moment{Date: p.Days[i].Date}
			with, err := NewProblem(p.Capacity, jobs)
			if err != nil {
				return false, err
			}
			return with.Feasible().Feasible, nil
		}
		var failed error
		at := from + sort.Search(len(p.Days)-from, func(n int) bool {
			ok, err := holds(from + n)
			if err != nil {
				failed = err
			}
			return ok
		})
		if failed != nil {
			return nil, failed
		}
		if jobs[job].Due = (day.Moment{}); at < len(p.Days) {
			later[job] = p.Days[at].Date
			jobs[job].Due = day.Moment{Date: p.Days[at].Date}
		}
	}
	return later, nil
}
