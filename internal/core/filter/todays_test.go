package filter_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"tincup/internal/core/filter"
	"tincup/internal/seed"
)

// What is said of every today from now on is what is said on each of them: of
// never and always that hold today, those of every day hold on each of the next
// fifty and on some of a year, and the others fail on one of them.
func TestEveryDay(t *testing.T) {
	seed := seed.New(t)
	s := newSmall(t)
	first := s.now
	counts := map[filter.Verdict]int{}
	for i := 0; counts[filter.Never]+counts[filter.Always] < share(160) || counts[filter.Possible] < share(40); i++ {
		r := random{rand.New(rand.NewPCG(seed, uint64(i))), s, []string{"due", "plan", "plan", "start", "completed", "created", "overdue", "next-action"}}
		if i%3 == 0 { // dates that a law ties
			r.fields = pick(r, []string{"start", "due", "overdue"}, []string{"created", "completed"})
		}
		packed := pack(t, map[string]any{pick(r, "all", "any"): []any{r.node(1), r.node(1), r.node(1)}})
		f := parse(t, "%s", packed)
		s.now = first
		a := f.Check(s.desk, s.clock())
		if a.Now == filter.Possible || a.Verdict == filter.NotDecided || a.Verdict != filter.Possible && i%4 > 0 {
			continue
		}
		counts[a.Verdict]++
		failed := ""
		for d := 1; d <= 400 && failed == ""; d++ {
			if d > 50 { // every weekday, a few weeks apart
				d += 12
			}
			s.now = first.AddDate(0, 0, d)
			if on := f.Check(s.desk, s.clock()); on.Now != a.Now {
				failed = fmt.Sprintf("%s, %s", s.clock().Today(), on.Now)
			}
		}
		if (failed == "") != (a.Verdict == a.Now) {
			t.Fatalf("seed %d, filter %d: now %s, on every today %s; on %q\n%s\n%s", seed, i, a.Now, a.Verdict, failed, f.Sentence(s.desk), packed)
		}
	}
	t.Logf("%v", counts)
}

// What cannot be today can be on a later day, though each date by itself is told
// apart in the same ways on both: a start is not after its due.
func TestCheckOfDatesTiedToEachOther(t *testing.T) {
	s := newSmall(t) // on Tue 24 Nov 2026
	for packed, want := range map[string]filter.Verdict{
		`{"all":[{"field":"start","op":"after","date":"2026-11-26"},{"field":"overdue","op":"yes"}]}`:                            filter.Possible,
		`{"all":[{"field":"start","op":"after","date":"2027-03-01"},{"field":"due","op":"before","date":"-P9D"}]}`:               filter.Possible,
		`{"all":[{"field":"start","op":"after","date":"2026-11-26"},{"field":"due","op":"before","date":"2026-11-26"}]}`:         filter.Never,
		`{"all":[{"field":"start","op":"after","date":"P0D"},{"field":"overdue","op":"yes"}]}`:                                   filter.Never,
		`{"all":[{"field":"created","op":"after","date":"2026-12-24"},{"field":"completed","op":"before","date":"P0D"}]}`:        filter.Possible,
		`{"all":[{"field":"created","op":"after","date":"2026-12-24"},{"field":"completed","op":"before","date":"2026-12-25"}]}`: filter.Never,
	} {
		if a := parse(t, "%s", packed).Check(s.desk, s.clock()); a.Now != filter.Never || a.Verdict != want {
			t.Errorf("%s: now %s, on every today %s; want never, %s", packed, a.Now, a.Verdict, want)
		}
	}
}

// How weeks and months lie to today differs from day to day, and comes round: what
// is asked may be a month of some length that begins today, years from now.
func TestCheckOfMonthsThatBegin(t *testing.T) {
	s := newSmall(t) // on Tue 24 Nov 2026
	begins := `{"field":"plan","op":"within-next","days":0},{"field":"plan","op":"after","date":"-P1D"}`
	ends := func(least, before int) string {
		return fmt.Sprintf(`{"not":{"field":"plan","op":"before","date":"P%dD"}},{"field":"plan","op":"before","date":"P%dD"}`, least, before)
	}
	made := `{"field":"created","op":"after","date":"%s"}`
	for tests, want := range map[string]filter.Verdict{
		begins + "," + ends(30, 31):                                         filter.Possible, // of 31 days
		begins + "," + ends(27, 28):                                         filter.Possible, // of 28
		begins + "," + ends(28, 29):                                         filter.Possible, // of 29
		begins + "," + ends(28, 29) + "," + fmt.Sprintf(made, "2028-03-01"): filter.Possible, // the February after
		begins + "," + ends(6, 7):                                           filter.Possible, // a week
		begins + "," + ends(6, 7) + "," + fmt.Sprintf(made, "2031-07-09"):   filter.Possible, // a week
		begins + "," + ends(31, 40):                                         filter.Never,
		begins + "," + ends(7, 27):                                          filter.Never,
		begins + "," + ends(8, 20) + "," + fmt.Sprintf(made, "2028-03-01"):  filter.Never,
	} {
		if a := parse(t, "%s", `{"all":[`+tests+`]}`).Check(s.desk, s.clock()); a.Now != filter.Never || a.Verdict != want {
			t.Errorf("%s: now %s, on every today %s; want never, %s", tests, a.Now, a.Verdict, want)
		}
	}
}

// A plan that holds several days is their week or their month, and no other.
func TestCheckOfWeeksAndMonths(t *testing.T) {
	s := newSmall(t) // on Tue 24 Nov 2026
	on := func(days ...string) string {
		var tests []string
		for _, d := range days {
			test, without := `{"field":"plan","op":"on","date":"%s"}`, strings.TrimPrefix(d, "not ")
			if without != d {
				test = `{"not":` + test + `}`
			}
			tests = append(tests, fmt.Sprintf(test, without))
		}
		return strings.Join(tests, ",")
	}
	for tests, want := range map[string][2]filter.Verdict{
		on("2026-12-08"):                                     {filter.Possible, filter.Possible},
		on("2026-12-07", "2026-12-13"):                       {filter.Possible, filter.Possible}, // week 50
		on("2026-12-07", "2026-12-13", "not 2026-12-14"):     {filter.Possible, filter.Possible},
		on("2026-12-07", "2026-12-13", "not 2026-12-09"):     {filter.Never, filter.Never},
		on("2026-11-30", "2026-12-01"):                       {filter.Possible, filter.Possible}, // week 49, of two months
		on("2026-11-30", "2026-12-01", "not 2026-12-06"):     {filter.Never, filter.Never},
		on("2026-12-13", "2026-12-14"):                       {filter.Possible, filter.Possible}, // of two weeks, the month
		on("2026-12-01", "2026-12-31", "not 2026-11-30"):     {filter.Possible, filter.Possible},
		on("2026-12-13", "2026-12-14", "not 2026-12-01"):     {filter.Never, filter.Never},
		on("2026-12-13", "2027-01-01"):                       {filter.Never, filter.Never},
		on("P0D", "P5D"):                                     {filter.Possible, filter.Possible},
		on("P0D", "P6D", "not P7D"):                          {filter.Possible, filter.Possible}, // November
		on("P0D", "P6D", "not P7D", "not -P1D"):              {filter.Never, filter.Possible},    // the week of a Monday
		on("P0D", "P6D", "not P7D", "not P3D"):               {filter.Never, filter.Never},
		on("P0D", "P29D"):                                    {filter.Never, filter.Possible}, // the month of a first or second
		on("P0D", "P31D"):                                    {filter.Never, filter.Never},
		on("-P23D", "P6D", "not P7D", "not -P24D"):           {filter.Possible, filter.Possible}, // November
		on("-P23D", "P7D", "not P8D", "not -P24D"):           {filter.Never, filter.Possible},    // a month of 31 days
		on("2026-12-08", "P0D", "not P7D", "not -P7D"):       {filter.Never, filter.Possible},    // on days of week 50
		on("2026-12-08", "P0D", "not 2026-12-07"):            {filter.Never, filter.Possible},    // on that day alone
		on("2026-12-08", "P0D", "P1D", "not 2026-12-07"):     {filter.Never, filter.Never},
		on("2026-12-08", "not P0D", "P20D", "not P21D"):      {filter.Never, filter.Never},
		on("2026-12-08", "P40D", "not P41D", "not P0D"):      {filter.Never, filter.Never},
		on("2026-12-08", "P5D", "not 2026-12-06", "not P4D"): {filter.Never, filter.Possible},
	} {
		if a := parse(t, "%s", `{"all":[`+tests+`]}`).Check(s.desk, s.clock()); a.Now != want[0] || a.Verdict != want[1] {
			t.Errorf("%s: now %s, on every today %s; want %s, %s", tests, a.Now, a.Verdict, want[0], want[1])
		}
	}
}

// A filter of a hundred dated tests is decided by the two of them that are to
// blame, on every day to come.
func TestCheckOfManyDates(t *testing.T) {
	s := newSmall(t)
	var tests []string
	for i := range 50 {
		tests = append(tests, fmt.Sprintf(`{"field":"due","op":"before","date":"P%dD"},{"field":"plan","op":"after","date":"P%dD"}`, i, i))
	}
	f := parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`,{"field":"due","op":"after","date":"P900D"}]}`)
	if a := f.Check(s.desk, s.clock()); a.Verdict != filter.Never || a.Now != filter.Never || len(a.Because) != 2 {
		t.Errorf("%+v", a)
	}
}
