package capture_test

import (
	"bufio"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/olebedev/when"
	"github.com/olebedev/when/rules/common"
	"github.com/olebedev/when/rules/en"

	"tincup/internal/core/capture"
	"tincup/internal/core/day"
)

// readingOf is what a phrase for a date means here, said as a clause: the due,
// or the first moment of the plan; "" where it is no date.
func readingOf(now, phrase string) string {
	env := at(now)
	env.Clock = day.Clock{Now: mustTime(now), Zone: time.UTC}
	d := capture.Read("Ring the framer, "+phrase, env)
	switch {
	case len(d.Problems) > 0:
		return ""
	case !d.Due.IsZero():
		return d.Due.String()
	}
	return d.Plan.First().String()
}

func mustTime(s string) time.Time {
	t, err := time.Parse("2006-01-02T15:04", s)
	if err != nil {
		panic(err)
	}
	return t
}

// readTable reads lines of fields parted by tabs.
func readTable(t testing.TB, name string) [][]string {
	t.Helper()
	file, err := os.Open(name)
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	var rows [][]string
	for lines := bufio.NewScanner(file); lines.Scan(); {
		if line := lines.Text(); !strings.HasPrefix(line, "#") {
			rows = append(rows, strings.Split(line, "\t"))
		}
	}
	return rows
}

// reasons for which a reading differs on purpose.
const (
	strictlyAfter = "a weekday is its next day strictly after today"
	isoWeek       = "next and this count ISO weeks, which begin on Monday"
	firstDay      = "a week, month or year is its first day, and may be planned whole"
	partsOfDay    = "morning is 09:00, afternoon 14:00, evening 18:00, tonight 20:00"
	monthEnd      = "months are counted from day to day, and from the 31st to the last day of a shorter month"
	dayNotYear    = "a number of two digits behind a month is its day, not a year"
	notPassed     = "today is not past"
	comesNext     = "a day and month, or a time, that has passed is the next one"
	passedWeekday = "a passed weekday of this week is a problem, not another day"
	noSuchDay     = "a day that no calendar has is a problem, not another day"
	oneYearBack   = "the other loses the year"
	notRead       = "the other reads only a part of it"
	endOfDay      = "midnight is the end of the day that it is said with, 23:59"
	nextReading   = "at 7 to at 11 with no date are the next such time of a 12-hour clock"
)

func checkReference(t *testing.T, rows [][]string, theirs func(row []string) string, differences map[string]string) {
	alike, used := 0, map[string]bool{}
	for _, row := range rows {
		want := theirs(row)
		if want == "" || want == "-" {
			continue
		}
		got := readingOf(row[0], row[1])
		if len(want) == 10 && len(got) > 10 {
			want += got[10:] // it is sure of the date only
		}
		key := row[1]
		if differences[row[0]+" "+key] != "" {
			key = row[0] + " " + key
		}
		reason := differences[key]
		switch {
		case got == want:
			alike++
		case reason == "":
			t.Errorf("at %s %q is %s; the other says %s", row[0], row[1], got, want)
		default:
			used[key] = true
		}
	}
	for key, reason := range differences {
		if !used[key] {
			t.Errorf("%q no longer differs (%s)", key, reason)
		}
	}
	t.Logf("%d readings alike, %d different on purpose", alike, len(used))
}

func TestDatesAgainstChrono(t *testing.T) {
	phrases := readTable(t, "testdata/phrases.txt")
	rows := readTable(t, "testdata/chrono.txt")
	if len(rows) != len(phrases) || len(rows) < 120 {
		t.Fatalf("%d phrases and %d readings of them; run web/reference/chrono.mjs", len(phrases), len(rows))
	}
	checkReference(t, rows, func(row []string) string { return row[2] }, map[string]string{
		"tonight": partsOfDay, "tomorrow morning": partsOfDay, "tomorrow afternoon": partsOfDay, "tomorrow evening": partsOfDay,
		"Friday morning": partsOfDay, "Friday afternoon": partsOfDay, "this afternoon": partsOfDay, "this morning": partsOfDay,
		"Tuesday": strictlyAfter, "tue": strictlyAfter, "at 8:00": nextReading, "December the 3rd": notRead,
		"Thursday at midnight": endOfDay, "at midnight": endOfDay,
		"2026-11-28T09:00 Saturday": strictlyAfter, "2026-11-29T09:00 Sunday": strictlyAfter,
		"this Monday": passedWeekday,
		"next week":   firstDay, "next month": firstDay, "next year": firstDay, "this week": firstDay,
		"2027-01-31T09:00 next month": firstDay, "2026-12-31T22:30 next month": firstDay,
		"Nov 30": dayNotYear, "November 30": dayNotYear, "March 14": dayNotYear, "Dec 24 at 6pm": dayNotYear,
		"2027-01-31T09:00 in a month": monthEnd, "2027-01-31T09:00 in 3 months": monthEnd, "2027-01-31T09:00 in 13 months": monthEnd,
		"2026-12-31T22:30 in 2 months": monthEnd, "2028-02-29T09:00 in a year": monthEnd, "2028-02-29T09:00 in 12 months": monthEnd,
		"2026-12-31T22:30 31 December": notPassed,
	})
}

func TestDatesAgainstWhen(t *testing.T) {
	w := when.New(nil)
	w.Add(en.All...)
	w.Add(common.All...)
	checkReference(t, readTable(t, "testdata/phrases.txt"), func(row []string) string {
		now := mustTime(row[0])
		found, err := w.Parse(row[1], now)
		if err != nil || found == nil || strings.TrimSpace(found.Text) != row[1] && found.Text != strings.TrimPrefix(row[1], "at ") {
			return ""
		}
		if strings.Contains(row[1], ":") || strings.Contains(row[1], "pm") || strings.Contains(row[1], "noon") ||
			strings.Contains(row[1], "morning") || strings.Contains(row[1], "evening") || strings.Contains(row[1], "night") {
			return found.Time.Format("2006-01-02T15:04")
		}
		return found.Time.Format("2006-01-02")
	}, map[string]string{
		"tonight": partsOfDay, "tomorrow morning": partsOfDay, "tomorrow afternoon": partsOfDay, "Friday morning": partsOfDay,
		"Friday afternoon": partsOfDay, "this afternoon": partsOfDay, "this morning": partsOfDay,
		"this Sunday": isoWeek, "next Wednesday": isoWeek, "next Thursday": isoWeek, "next Friday": isoWeek,
		"next Saturday": isoWeek, "next Sunday": isoWeek,
		"this Monday": passedWeekday,
		"in a month":  oneYearBack, "in 3 months": oneYearBack, "2026-12-31T22:30 in 2 months": oneYearBack,
		"2027-01-31T09:00 in a month": monthEnd, "2027-01-31T09:00 in 3 months": monthEnd, "2027-01-31T09:00 in 13 months": monthEnd,
		"2028-02-29T09:00 in a year": monthEnd, "2028-02-29T09:00 in 12 months": monthEnd,
		"2027-01-31T09:00 1 Feb": monthEnd, "2027-01-31T09:00 28 Feb": monthEnd,
		"23 Nov": comesNext, "14 March": comesNext, "March 14": comesNext, "3 May": comesNext, "May 3": comesNext, "29 Feb": comesNext,
		"1 January": comesNext, "14 March at 10:15": comesNext, "October": comesNext, "2026-12-31T22:30 1 Jan": comesNext,
		"at 8:00": nextReading, "Friday 5.30 pm": notRead, "2026-12-31T22:30 at 22:00": comesNext,
		"December": firstDay, "31 February": noSuchDay, "5/12": notRead, "30 Nov 16:00": notRead,
	})
}
