package capture_test

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/capture"
	"tincup/internal/seed"
)

// namedDays are phrases that name a day, a date or a repeat, a few of which are never read. Each has a
// word that no other piece of the lines has.
var namedDays = strings.Split(`Friday|Fri|friday|Fridays|Friday's|Sat|on sat|wed 2 dec|Wednesday 2 Dec|3 December|Dec 3|December 3rd|the 3rd of December|3 Dec 2027|
tomorrow|tmrw|today|yesterday|tonight|next week|last week|this week|next month|next Tuesday|this Thursday|last Monday|Tuesday week|a week on Tuesday|week 50|w/c 7 December|week commencing 7 December|
30/11|30.11.2027|2026-11-30|2026-12-03|the 9th|by the 9th|in March|March|in 3 days|in a fortnight|two weeks ago|3 days after Easter Monday|2 weeks before 15 January|
every Monday|every day|each month|every other day|every 2 weeks|daily|weekly|fortnightly|Wednesdays|weekdays|weekends|twice a week|alternate Tuesdays|every day except Sunday|first Monday of the month|last Friday of each month|
Good Friday|Boxing Day|Christmas|Thanksgiving|Easter|end of May|mid-June|at the weekend|over the weekend|nxt fri|Freitag|am Montag|vendredi|mañana|sexta-feira|lunedì|3. Dezember|le 3 décembre`, "|")

// loneTimes are times without a date.
var loneTimes = strings.Split("3pm|15:00|at 5|at 5pm|9:30|5.30 pm|noon|at noon|half past 4|17:00|8am|2-4pm|9:00-10:30|from 2 to 4pm|5 o'clock|at 14:15|remind me at 5pm|remind me at 17:00", "|")

var (
	leads    = strings.Split("|||@ |re: |notes for |minutes of |around |about |the |a |last |since |than |what happened on |who comes |if |for |to |from |until |before |by |on |not |than |see (|~|- |why ", "|")
	divides  = strings.Split(" | | |, |; | - | – | — |: | / | and | or |. ", "|")
	matters  = strings.Split("call Inês|Order mount board|budget|label text|ring the framer|notes|pick up frames|team lunch|Lamp oil|write to Ada|Meeting|dentist|check the alarms|book club|report", "|")
	closings = strings.Split("||||| please| high|, 20 min|, high|!|.| #calls|, in Flat", "|")
)

// Wherever a line names a day that stays unread, no time in it is read as today's. Of the values that are
// read, one with a time stands beside a day that its words, or those of another value, name.
func TestNoTimeIsReadWithoutTheDayThatIsNamed(t *testing.T) {
	r := rand.New(rand.NewPCG(seed.New(t), 3))
	read, left := 0, 0
	for range *sentences {
		line, day := lineWithADay(r)
		line += closings[r.IntN(len(closings))]
		env := at(tuesday)
		d := capture.Read(line, env)
		if timeOfToday(d) && !saysDay(line, day, d) {
			t.Fatalf("%q is read as %s; %q is unread", line, brief(d), day)
		}
		for _, o := range capture.Offers(line, env) {
			if o.Choose {
				continue
			}
			if taken := capture.Read(o.Taken, env); timeOfToday(taken) && !timeOfToday(d) && !slices.ContainsFunc(strings.Fields(day), func(word string) bool { return len(word) > 2 && saysDay(o.Taken, word, taken) }) {
				t.Fatalf("%q offers %q as %s; %q is unread", line, o.Words, brief(taken), day)
			}
		}
		if saysDay(line, day, d) {
			read++
		} else {
			left++
		}
	}
	t.Logf("%d lines with a day that is read, %d with one that is not", read, left)
	if min(read, left)*20 < *sentences {
		t.Error("one of them is too rare")
	}
}

// lineWithADay makes a line of a day, a time and one or two matters in any order.
func lineWithADay(r *rand.Rand) (line, day string) {
	pick := func(of []string) string { return strings.TrimSpace(of[r.IntN(len(of))]) }
	day = pick(namedDays)
	parts := []string{leads[r.IntN(len(leads))] + day, pick(loneTimes), pick(matters)}
	if r.IntN(2) == 0 {
		parts = append(parts, pick(matters))
	}
	r.Shuffle(len(parts), func(i, j int) { parts[i], parts[j] = parts[j], parts[i] })
	line = parts[0]
	for _, part := range parts[1:] {
		line += divides[r.IntN(len(divides))] + part
	}
	return line, day
}

// A courtesy, a full stop or an emoji at the end changes nothing of what is read, no word belongs to two
// fields, and what is said back reads the same.
func TestClosingsChangeNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(seed.New(t), 4))
	env := at(tuesday)
	for range *sentences {
		line, _ := lineWithADay(r)
		d := capture.Read(line, env)
		if len(d.Problems) > 0 {
			continue
		}
		fields, _ := strings.CutPrefix(brief(d), d.Title)
		for _, closing := range []string{" please", ".", " 🎉", " thanks!"} {
			closed := capture.Read(line+closing, env)
			if got, _ := strings.CutPrefix(brief(closed), closed.Title); got != fields {
				t.Fatalf("%q reads %s; with %q %s", line, brief(d), closing, brief(closed))
			}
		}
		var taken []capture.Span
		for _, c := range d.Chips {
			if c.Field == capture.FieldPerson || c.Problem != "" {
				continue
			}
			for _, s := range c.Spans {
				if c.Field != capture.FieldReminder && slices.ContainsFunc(taken, func(o capture.Span) bool { return s.Start < o.End && o.Start < s.End }) {
					t.Fatalf("%q: words of %s at %v belong to two fields", line, brief(d), s)
				}
				taken = append(taken, s)
			}
		}
		if said := capture.Say(d, env); len(d.Problems) == 0 && brief(capture.Read(said, env)) != brief(d) {
			t.Fatalf("%q is said back as %q, which reads %s, and should be %s", line, said, brief(capture.Read(said, env)), brief(d))
		}
	}
}

// timeOfToday reports whether a draft has a time of day that could be nobody's but today's, or
// tomorrow's once it has passed.
func timeOfToday(d capture.Draft) bool {
	at, minutes := d.Plan.Slot()
	timed := d.Due.HasTime() || minutes > 0 || !at.IsZero()
	for _, r := range d.Reminders {
		timed = timed || !r.At.IsZero()
	}
	return timed && d.Repeat == nil
}

// saysDay reports whether a word of a day's phrase is among the words of a chip.
func saysDay(line, day string, d capture.Draft) bool {
	from := 0
	for {
		at := strings.Index(line[from:], day)
		if at < 0 {
			return false
		}
		at += from
		within := func(s capture.Span) bool { return s.Start < at+len(day) && at < s.End }
		if slices.ContainsFunc(d.Chips, func(c capture.Chip) bool { return c.Field != capture.FieldTag && slices.ContainsFunc(c.Spans, within) }) {
			return true
		}
		from = at + len(day)
	}
}
