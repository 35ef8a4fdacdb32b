package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// The slack of all to-dos reckoned at once is that of each reckoned by itself, but for those who
// wait for someone, which have no work of the person's among the others.
func TestSlacksAreThatOfEach(t *testing.T) {
	random := seed.New(t)
	known, unknown, negative := 0, 0, 0
	for round := range *cases / 6 {
		r := rand.New(rand.NewPCG(random, uint64(round)))
		run := sequence.New(book.ID{15: 1})
		for _, s := range sequence.Generate(r, append(sequence.Choices(sequence.Everyday), sequence.Choices(sequence.Trees)...)) {
			if _, err := run.Take(s); err != nil {
				break
			}
		}
		for _, todo := range run.Desk.Open() { // dues of every kind, and estimates
			due := day.Moment{Date: day.DateOf(run.Now).AddDays(r.IntN(14) - 3)}
			if r.IntN(4) == 0 {
				due = day.Moment{} // as its list says
			} else if r.IntN(3) == 0 {
				due.Time, _ = day.NewTimeOfDay(8+r.IntN(10), 15*r.IntN(4))
			}
			minutes := r.IntN(5) * 200
			c, err := run.Desk.Do(run.Env(), book.Edit{ID: todo.ID, Due: &due, Start: new(day.Date), Estimate: &minutes})
			if err == nil && !c.Empty() {
				run.Keep(c)
			}
		}
		for _, list := range run.Desk.Lists() {
			due := day.DateOf(run.Now).AddDays(r.IntN(14) - 3)
			if c, err := run.Desk.Do(run.Env(), book.EditList{ID: list.ID, Due: &due}); err == nil && !c.Empty() {
				run.Keep(c)
			}
		}
		k := plan.NewCapacity(run.Env().Clock, plan.CalendarOf(settings.Settings{}, term.WorkingHours), nil, 9)
		slacks := plan.NewSlacks(k, run.Desk, 30)
		for todo := range run.Desk.All() {
			due := plan.DueOf(run.Desk, k.Clock, todo)
			one, ok := plan.SlackOf(k, run.Desk, todo, due, 0, 30)
			spare, found := slacks.Spare(run.Desk, todo)
			if ok != found || ok && spare != one.Spare && todo.Person.Role != term.WaitingOn {
				t.Fatalf("seed %d, round %d: “%s”, due %s: %d, %t; by itself %d, %t", random, round, todo.Title, due, spare, found, one.Spare, ok)
			}
			if ok {
				known++
				negative += b2i(spare < 0)
			} else {
				unknown++
			}
		}
	}
	if known < 100 || unknown < 100 || negative < 10 {
		t.Errorf("%d were known, %d not, %d less than nothing", known, unknown, negative)
	}
	t.Logf("%d were known, %d of them less than nothing; %d not", known, negative, unknown)
}

// The work time of a day, a week or a month is that of its days; of what is past, parked or
// reaches beyond the last day it is not known.
func TestWorkTimeOfHorizons(t *testing.T) {
	c := day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}
	k := plan.NewCapacity(c, plan.CalendarOf(settings.Settings{}, term.WorkingHours), nil, 13) // up to Sunday 6 December
	for text, want := range map[string]string{
		"2026-11-24": "450 true", "2026-11-28": "120 true", "2026-11-29": "60 true", "2026-12-06": "60 true", "2026-12-07": "0 false", "2026-11-23": "0 false",
		"2026-W48": "1980 true", "2026-W49": "2430 true", "2026-W50": "0 false", "2026-W47": "0 false", "2026-11": "2430 true", "2026-12": "0 false", "parked": "0 false", "": "0 false",
	} {
		var h day.Horizon
		if text != "" {
			h = day.MustHorizon(text)
		}
		minutes, ok := k.Of(h)
		if got := fmt.Sprint(minutes, " ", ok); got != want {
			t.Errorf("%q: %s; want %s", text, got, want)
		}
	}
}

func TestWordsOfProposals(t *testing.T) {
	zone := time.UTC
	at := func(hour int) plan.Stretch {
		from := plan.MinuteOf(time.Date(2026, 11, 24, hour, 0, 0, 0, zone))
		return plan.Stretch{From: from, To: from + 30}
	}
	clash := func(title string) plan.Clash {
		return plan.Clash{Lying: plan.Lying{Todo: &book.Todo{Title: title}}, At: at(10), With: "Staff round"}
	}
	clashes := []plan.Clash{clash("Ring the framer"), clash("b"), clash("c"), clash("d")}
	for n, want := range []string{"", "“Ring the framer”, Tuesday 10:00, lies under “Staff round”.", "“Ring the framer”, Tuesday 10:00, lies under “Staff round”, and so does another.",
		"“Ring the framer”, Tuesday 10:00, lies under “Staff round”, and so do 2 others.", "“Ring the framer”, Tuesday 10:00, lies under “Staff round”, and so do 3 others."} {
		if got := plan.ClashWords(clashes[:n], zone); got != want {
			t.Errorf("%d clashes: %q; want %q", n, got, want)
		}
	}
	lying := []plan.Lying{{Todo: &book.Todo{Title: "Hang the lamp"}}}
	for want, got := range map[string]string{
		"All that lies here has its hour.":                                                    plan.HourWords(nil, nil),
		"1 would have its hour.":                                                              plan.HourWords(make([]plan.Hour, 1), nil),
		"2 would have their hours.":                                                           plan.HourWords(make([]plan.Hour, 2), nil),
		"No stretch is long enough for “Hang the lamp”.":                                      plan.HourWords(nil, lying),
		"1 would have its hour. No stretch is long enough for “Hang the lamp”.":               plan.HourWords(make([]plan.Hour, 1), lying),
		"Everything that is due can be done by then.":                                         plan.GiveWords(0, true),
		"If this one gives, all else is done in time. Nothing costs less.":                    plan.GiveWords(1, true),
		"If these 2 give, all else is done in time. Nothing costs less.":                      plan.GiveWords(2, true),
		"If this one gives, all else is done in time. That nothing costs less is not proved.": plan.GiveWords(1, false),
		"If these 3 give, all else is done in time. That nothing costs less is not proved.":   plan.GiveWords(3, false),
	} {
		if got != want {
			t.Errorf("%q; want %q", got, want)
		}
	}
	l := plan.Levelled{Longest: 120}
	for minutes, want := range map[int]int{1: 2, 240: 2, 241: 3, 360: 3, 361: 4, 1_000_000: book.MostParts} {
		if got := l.Parts(minutes); got != want {
			t.Errorf("%d minutes in %d parts; want %d", minutes, got, want)
		}
	}
}
