package filter

import (
	"slices"

	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// todays are the days from today on that stand for all: between them nothing
// changes in how fixed and relative days lie to each other. Where plans are compared
// with days that move, one far from all fixed days stands for all that lie alike to
// these, with the weeks and months as each of them sees them.
func (k *checker) todays() []day.Date {
	now := k.clock.Today()
	fixed, offsets := k.dates()
	plans := 0
	for _, n := range k.nodes {
		if n.Test.Field == question.Plan || n.Test.Field == question.NextAction { // which no plan may keep for later
			plans++
		}
	}
	days := map[day.Date]bool{now: true}
	// A day lies before another, on it, after it, and with one between them or not;
	// a week or a month reaches further.
	reach := 2
	if plans > 1 {
		reach = 40
	}
	var points []day.Date
	for _, f := range fixed {
		for _, by := range offsets {
			p := f.AddDays(-by)
			points = append(points, p)
			for near := -reach; near <= reach; near++ {
				if d := p.AddDays(near); d.After(now) {
					days[d] = true
				}
			}
		}
	}
	if plans > 1 && len(offsets) > 1 {
		for _, alike := range between(points, days, now, reach) {
			days[alike[0]] = true
			if k.alike == nil {
				k.alike = map[day.Date][]day.Date{}
			}
			k.alike[alike[0]] = alike
		}
	}
	out := make([]day.Date, 0, len(days))
	for d := range days {
		out = append(out, d)
	}
	slices.SortFunc(out, day.Date.Compare)
	return out
}

// between returns the todays far from all points and from now on, those together
// between which no point lies: to fixed dates they are alike, and differ in how
// weeks and months lie to them. Of each such stretch it has a year and the end of a
// leap February: every weekday, and every day of months of each length.
func between(points []day.Date, near map[day.Date]bool, now day.Date, reach int) [][]day.Date {
	slices.SortFunc(points, day.Date.Compare)
	var out [][]day.Date
	for i, from := range append([]day.Date{now}, points...) {
		if from.Before(now) {
			from = now
		}
		last := i == len(points)
		var alike []day.Date
		take := func(d day.Date) {
			if d.After(from) && (last || d.Before(points[i])) && !near[d] {
				alike = append(alike, d)
			}
		}
		for n := range reach + 400 {
			take(from.AddDays(n))
		}
		leap := day.MustDate("2028-02-29")
		for leap.AddDays(-31).Before(from) {
			leap = leap.AddDays(4*365 + 1)
		}
		for n := -31; n <= 31; n++ {
			take(leap.AddDays(n))
		}
		if len(alike) > 0 {
			out = append(out, alike)
		}
	}
	return out
}
