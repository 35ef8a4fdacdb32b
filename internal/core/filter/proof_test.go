package filter_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/filter"
)

// What cannot be on one of the days to come can be on the next: a fixed day, and one that moves
// with today, meet on one day alone.
func TestCheckOfTheDayThatComes(t *testing.T) {
	s := newSmall(t) // on Tue 24 Nov 2026
	const fixed = `{"field":"due","op":"on","date":"2027-03-01"},`
	for tests, want := range map[string]filter.Verdict{
		fixed + `{"field":"due","op":"within-next","days":0}`:                                                                      filter.Possible,
		fixed + `{"field":"due","op":"on","date":"P0D"}`:                                                                           filter.Possible,
		fixed + `{"field":"due","op":"on","date":"P5D"}`:                                                                           filter.Possible,
		fixed + `{"field":"due","op":"on","date":"-P400D"}`:                                                                        filter.Possible,
		fixed + `{"field":"due","op":"before","date":"P0D"}`:                                                                       filter.Possible,
		fixed + `{"field":"due","op":"before","date":"P0D"},{"field":"due","op":"after","date":"-P2D"}`:                            filter.Possible,
		fixed + `{"field":"due","op":"before","date":"P0D"},{"field":"due","op":"after","date":"-P1D"}`:                            filter.Never,
		`{"field":"due","op":"after","date":"2027-03-01"},{"field":"due","op":"before","date":"P0D"}`:                              filter.Possible, // two days after it
		`{"field":"due","op":"after","date":"2027-03-01"},{"field":"due","op":"before","date":"2027-03-02"}`:                       filter.Never,
		`{"field":"plan","op":"on","date":"2027-03-01"},{"field":"plan","op":"on","date":"P0D"}`:                                   filter.Possible,
		`{"field":"plan","op":"on","date":"2027-03-01"},{"field":"next-action","op":"yes"},{"field":"due","op":"on","date":"P0D"}`: filter.Possible,
	} {
		if a := parse(t, "%s", `{"all":[`+tests+`]}`).Check(s.desk, s.clock()); a.Now != filter.Never || a.Verdict != want {
			t.Errorf("%s: now %s, on every today %s; want never, %s", tests, a.Now, a.Verdict, want)
		}
	}
}

// Two times of day are told apart wherever one begins or ends within the other.
func TestCheckOfTimes(t *testing.T) {
	s := newSmall(t)
	between := func(from, until string) string {
		return fmt.Sprintf(`{"field":"due","op":"time-between","from":"%s","until":"%s"}`, from, until)
	}
	not := func(test string) string { return `{"not":` + test + `}` }
	for tests, want := range map[string]filter.Verdict{
		between("09:00", "12:00") + "," + not(between("00:00", "10:00")):                                          filter.Possible,
		between("09:00", "12:00") + "," + not(between("10:00", "23:59")):                                          filter.Possible,
		between("09:00", "12:00") + "," + not(between("09:00", "11:59")):                                          filter.Possible, // at noon
		between("09:00", "12:00") + "," + not(between("09:01", "12:00")):                                          filter.Possible, // at nine
		between("09:00", "12:00") + "," + not(between("09:00", "12:00")):                                          filter.Never,
		between("00:00", "23:59") + "," + not(between("00:01", "23:59")):                                          filter.Possible, // at midnight
		between("00:00", "23:59") + "," + not(between("00:00", "23:58")):                                          filter.Possible, // a minute before it
		between("00:00", "23:59") + "," + not(between("00:00", "12:00")) + "," + not(between("12:01", "23:59")):   filter.Never,
		between("00:00", "23:59") + "," + not(between("00:00", "11:59")) + "," + not(between("12:01", "23:59")):   filter.Possible,
		between("09:00", "10:00") + "," + between("10:00", "11:00"):                                               filter.Possible,
		between("09:00", "09:59") + "," + between("10:00", "11:00"):                                               filter.Never,
		not(between("00:00", "12:00")) + "," + not(between("12:01", "23:59")) + `,{"field":"due","op":"none"}`:    filter.Possible,
		not(between("00:00", "12:00")) + "," + not(between("12:01", "23:59")) + `,{"field":"overdue","op":"yes"}`: filter.Possible,
	} {
		if a := parse(t, "%s", `{"all":[`+tests+`]}`).Check(s.desk, s.clock()); a.Verdict != want {
			t.Errorf("%s: %s; want %s", tests, a.Verdict, want)
		}
	}
}

// Lengths of time are told apart minute by minute, from none to the longest there is.
func TestCheckOfLengths(t *testing.T) {
	s := newSmall(t)
	most := func(field string, n int) string {
		return fmt.Sprintf(`{"field":"%s","op":"at-most","minutes":%d}`, field, n)
	}
	least := func(field string, n int) string {
		return fmt.Sprintf(`{"field":"%s","op":"at-least","minutes":%d}`, field, n)
	}
	for tests, want := range map[string]filter.Verdict{
		least("estimate", 20) + "," + most("estimate", 20):                                                            filter.Possible,
		least("estimate", 21) + "," + most("estimate", 20):                                                            filter.Never,
		most("estimate", 1) + `,{"not":` + least("estimate", 1) + `}`:                                                 filter.Never,
		least("estimate", 1) + `,{"not":` + least("estimate", 2) + `}`:                                                filter.Possible,
		least("estimate", 6000):                                                                                       filter.Possible,
		`{"not":` + most("estimate", 6000) + `},` + least("estimate", 1):                                              filter.Never, // none is longer
		`{"not":` + most("estimate", 5999) + `},` + least("estimate", 1):                                              filter.Possible,
		`{"not":` + most("estimate", 20) + `},` + most("estimate", 21):                                                filter.Possible,
		`{"not":` + most("estimate", 20) + `},{"not":` + least("estimate", 21) + `},{"field":"estimate","op":"none"}`: filter.Possible,
	} {
		if a := parse(t, "%s", `{"all":[`+tests+`]}`).Check(s.desk, s.clock()); a.Verdict != want {
			t.Errorf("%s: %s; want %s", tests, a.Verdict, want)
		}
	}
}

// Two to blame are found among up to 24 tests where dropping one after the other finds four.
func TestFewestToBlame(t *testing.T) {
	s := newSmall(t)
	due := func(op string, n int) string { return fmt.Sprintf(`{"field":"due","op":"%s","date":"P%dD"}`, op, n) }
	for n, want := range map[int]int{23: 2, 24: 2, 25: 4} {
		// The first four tests are to blame together, and the last two alone.
		tests := []string{
			`{"any":[` + due("before", 1) + `,` + due("after", 9) + `]}`,
			`{"not":` + due("before", 1) + `}`, `{"not":` + due("after", 9) + `}`,
		}
		for i := 6; i < n; i++ {
			tests = append(tests, fmt.Sprintf(`{"field":"text","op":"contains","text":"t%d"}`, i%3))
		}
		tests = append(tests, `{"field":"repeating","op":"yes"}`, `{"field":"repeating","op":"no"}`)
		a := parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`]}`).Check(s.desk, s.clock())
		if a.Verdict != filter.Never || len(a.Because) != want {
			t.Errorf("%d tests: %s because of %q; want %d of them", n, a.Verdict, a.Because, want)
		}
	}
}

// A filter of as many variables as a set of them has room for is decided, and of one more it is not.
func TestCheckOfManyVariables(t *testing.T) {
	s := newSmall(t)
	for n, want := range map[int]filter.Verdict{63: filter.Never, 64: filter.Never, 65: filter.NotDecided} {
		var tests []string
		for i := range n {
			tests = append(tests, fmt.Sprintf(`{"field":"tag","op":"any-of","values":["01890000-0000-7000-8000-%012x"]}`, i))
		}
		f := parse(t, "%s", `{"all":[{"not":`+tests[0]+`},`+strings.Join(tests, ",")+`]}`)
		if a := f.Check(s.desk, s.clock()); a.Now != want {
			t.Errorf("%d tags: %s, because of %q; want %s", n, a.Now, a.Because, want)
		}
	}
}
