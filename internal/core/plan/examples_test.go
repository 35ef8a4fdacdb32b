package plan_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// textbook is a problem as textbooks give it: processing times, releases, due dates and
// weights in units from the beginning, on one machine that never stops. A unit is a minute.
type textbook struct{ p, r, d, w []int }

func (b textbook) problem(t *testing.T, later int) *plan.Problem {
	t.Helper()
	start := time.Date(2026, 11, 24, 0, 0, 0, 0, time.UTC)
	c := day.Clock{Now: start, Zone: time.UTC}
	calendar := plan.Calendar{Dates: map[day.Date]day.Hours{c.Today(): {{From: 0, To: 24 * 60}}}}
	at := func(unit int) day.Moment {
		clock, err := day.NewTimeOfDay(unit/60, unit%60)
		if err != nil {
			t.Fatal(err)
		}
		return day.Moment{Date: c.Today(), Time: clock}
	}
	var jobs []plan.Job
	for i, minutes := range b.p {
		j := plan.Job{ID: fmt.Sprint(i + 1), Minutes: minutes, Due: at(b.d[i] + later), Weight: 1}
		if b.r != nil {
			j.Release = at(b.r[i])
		}
		if b.w != nil {
			j.Weight = b.w[i]
		}
		jobs = append(jobs, j)
	}
	p, err := plan.NewProblem(plan.NewCapacity(c, calendar, nil, 1), jobs)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// The greatest lateness is the least by which all dues have to be later for all to be met.
func (b textbook) lateness(t *testing.T) int {
	for later := 0; ; later++ {
		if b.problem(t, later).Feasible().Feasible {
			return later
		}
	}
}

// M. L. Pinedo, “Scheduling: Theory, Algorithms, and Systems”, chapter 3; its numbers are
// from memory.
func TestTextbookExamples(t *testing.T) {
	// Four jobs with releases (the example of branch and bound for greatest lateness): its
	// lower bound, which is that of working on the earliest due date first with preemption
	// (Horn 1974), is 5.
	released := textbook{p: []int{4, 2, 6, 5}, r: []int{0, 1, 3, 5}, d: []int{8, 12, 11, 10}}
	if got := released.lateness(t); got != 5 {
		t.Errorf("with releases the greatest lateness is %d; want 5", got)
	}
	// By hand: from 5 to 10 job 4 runs, job 3 has 1 of its 6 units by then and 2 at 11.
	if v := released.problem(t, 0).Feasible(); v.FirstMissed != plan.MinuteOf(time.Date(2026, 11, 24, 0, 11, 0, 0, time.UTC)) || v.LateBy != 4 {
		t.Errorf("first missed %v by %d; want minute 11 by 4", v.FirstMissed.Time(), v.LateBy)
	}
	// The same without releases, by Jackson's rule (1955): 1, 4, 3, 2 end at 4, 9, 15, 17.
	together := textbook{p: released.p, d: released.d}
	if got := together.lateness(t); got != 5 {
		t.Errorf("without releases the greatest lateness is %d; want 5", got)
	}
	// The example of Moore and Hodgson's rule: jobs 1 and 2 are late.
	moore := textbook{p: []int{7, 8, 4, 6, 6}, d: []int{9, 17, 18, 19, 21}}
	given := moore.problem(t, 0).Give()
	if ids := moore.problem(t, 0).IDs(given.Late); len(ids) != 2 || !given.Proved {
		t.Errorf("late are %v, proved %t; the fewest are two", ids, given.Proved)
	}
	// With equal dues it is a knapsack: the rule of weight by time would leave out job 3 and
	// lose 89, the best loses 12.
	knapsack := textbook{p: []int{11, 9, 90}, d: []int{100, 100, 100}, w: []int{12, 9, 89}}
	given = knapsack.problem(t, 0).Give()
	if ids := knapsack.problem(t, 0).IDs(given.Late); !slices.Equal(ids, []string{"1"}) {
		t.Errorf("late are %v; want job 1, which loses 12", ids)
	}
}

// Moore and Hodgson's rule (1968), written from its description: take jobs by their dues,
// and where one ends too late leave out the longest so far. It finds the fewest late ones.
func TestFewestLateByMooreAndHodgson(t *testing.T) {
	for n := range 200 {
		b := textbook{}
		for i := range 5 + n%30 {
			b.p, b.d = append(b.p, 1+(n*7+i*i*13)%20), append(b.d, 5+(n*11+i*31)%200)
		}
		order := make([]int, len(b.p))
		for i := range order {
			order[i] = i
		}
		slices.SortStableFunc(order, func(x, y int) int { return b.d[x] - b.d[y] })
		var on []int
		end, late := 0, 0
		for _, i := range order {
			on = append(on, b.p[i])
			if end += b.p[i]; end > b.d[i] {
				longest := slices.Index(on, slices.Max(on))
				end -= on[longest]
				on = slices.Delete(on, longest, longest+1)
				late++
			}
		}
		if got := len(b.problem(t, 0).Give().Late); got != late {
			t.Errorf("case %d: %d are late; by the rule %d", n, got, late)
		}
	}
}

// Work time is neither lost nor made over midnight, the start of the day and both changes
// of the clock; a change takes its hour from, or gives it to, whoever works then.
func TestMinutesAreConserved(t *testing.T) {
	night := day.Hours{{From: 0, To: 6 * 60}, {From: 22 * 60, To: 24 * 60}}
	for _, c := range []struct {
		zone, now string
		change    int // what the change of the clock brings, in minutes
	}{
		{"Europe/Lisbon", "2026-03-28T12:00", -60}, {"Europe/Lisbon", "2026-10-24T12:00", 60},
		{"America/New_York", "2026-03-07T12:00", -60}, {"America/New_York", "2026-10-31T12:00", 60},
		{"Australia/Lord_Howe", "2026-10-03T12:00", -30}, {"Australia/Lord_Howe", "2026-04-04T12:00", 30}, {"UTC", "2026-03-28T12:00", 0},
	} {
		zone, err := time.LoadLocation(c.zone)
		if err != nil {
			t.Fatal(err)
		}
		for dayStart := time.Duration(0); dayStart <= day.MaxDayStart; dayStart += 90 * time.Minute {
			clock := day.Clock{Zone: zone, DayStart: dayStart}
			clock.Now = clock.Instant(day.MustMoment(c.now))
			calendar := plan.Calendar{}
			for i := range calendar.Week {
				calendar.Week[i] = night
			}
			k := plan.NewCapacity(clock, calendar, nil, 3)
			// From noon to the start of the day three dates on: three evenings of two hours, two
			// whole nights of six, and of the last night what lies before the start of the day.
			want := 3*120 + 2*360 + int(dayStart/time.Minute) + c.change
			if k.Until(k.End()) != want {
				t.Errorf("%s from %s, days from %v: %d minutes; want %d", c.zone, c.now, dayStart, k.Until(k.End()), want)
			}
			sum := 0
			for i := range k.Days {
				d := &k.Days[i]
				sum += d.Minutes
				for _, s := range d.Free {
					if s.From < d.All.From || s.To > d.All.To || s.Minutes() <= 0 {
						t.Errorf("%s: %v lies outside %v", d.Date, s, d.All)
					}
				}
				if k.Until(d.All.To) != sum {
					t.Errorf("until the end of %s %d minutes; want %d", d.Date, k.Until(d.All.To), sum)
				}
			}
		}
	}
}

func TestBusyIsTakenOut(t *testing.T) {
	clock := day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 30, 0, time.UTC), Zone: time.UTC}
	at := func(h, m int) plan.Minute { return plan.MinuteOf(time.Date(2026, 11, 24, h, m, 0, 0, time.UTC)) }
	busy := []plan.Stretch{{From: at(20, 0), To: at(21, 0)}, {From: at(11, 30), To: at(12, 15)}, {From: at(15, 0), To: at(15, 0)}, {From: at(11, 0), To: at(12, 0)}, {From: at(8, 0), To: at(9, 0)}}
	d := plan.NewCapacity(clock, plan.DefaultCalendar(), busy, 1).Days[0]
	// From 09:11, the next whole minute, to 11:00, then 12:15 to 12:30 and 13:30 to 17:30.
	want := []plan.Stretch{{From: at(9, 11), To: at(11, 0)}, {From: at(12, 15), To: at(12, 30)}, {From: at(13, 30), To: at(17, 30)}}
	if !slices.Equal(d.Free, want) || d.Minutes != 109+15+240 {
		t.Errorf("free is %v, %d minutes; want %v", d.Free, d.Minutes, want)
	}
	if peak := []plan.Stretch{{From: at(10, 0), To: at(11, 0)}}; !slices.Equal(d.Peak, peak) {
		t.Errorf("the peak is %v; want %v", d.Peak, peak)
	}
	if d.End() != at(17, 30) {
		t.Errorf("it ends at %v", d.End().Time())
	}
}

func TestBadJobs(t *testing.T) {
	k := plan.NewCapacity(day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}, plan.DefaultCalendar(), nil, 7)
	for want, jobs := range map[string][]plan.Job{
		"a: minutes: 0 minutes": {{ID: "a"}}, "a: minutes: 100001": {{ID: "a", Minutes: 100_001}},
		"a: id: two jobs":                                {{ID: "a", Minutes: 1}, {ID: "a", Minutes: 2}},
		"after: it waits for it":                         {{ID: "a", Minutes: 1, After: []int{1}}, {ID: "b", Minutes: 1, After: []int{2}}, {ID: "c", Minutes: 1, After: []int{0}}},
		"a: after: it waits for ":                        {{ID: "a", Minutes: 1, After: []int{0}}},
		"a: after: it waits for a job that is not there": {{ID: "a", Minutes: 1, After: []int{7}}},
		"b: after: it waits for a job that is not there": {{ID: "a", Minutes: 1}, {ID: "b", Minutes: 1, After: []int{2}}},
		"c: after: it waits for a job that is not there": {{ID: "c", Minutes: 1, After: []int{-1}}},
	} {
		_, err := plan.NewProblem(k, jobs)
		if err == nil || !contains(err.Error(), want) {
			t.Errorf("%v: %v; want %q", jobs, err, want)
		}
	}
	// The shortest, the longest, and the first that others wait for are none too many.
	if _, err := plan.NewProblem(k, []plan.Job{{ID: "a", Minutes: 1}, {ID: "b", Minutes: plan.MaxMinutes, After: []int{0}}}); err != nil {
		t.Error(err)
	}
	// A chain of 5,000 is none too long.
	jobs := make([]plan.Job, 5000)
	for i := range jobs {
		jobs[i] = plan.Job{ID: fmt.Sprint(i), Minutes: 1}
		if i > 0 {
			jobs[i].After = []int{i - 1}
		}
	}
	p, err := plan.NewProblem(k, jobs)
	if err != nil || !p.Feasible().Feasible {
		t.Errorf("a long chain: %v", err)
	}
}

func contains(s, part string) bool {
	return len(part) <= len(s) && (s[:len(part)] == part || contains(s[1:], part))
}
