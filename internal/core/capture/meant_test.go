package capture_test

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

var update = flag.Bool("update", false, "write the texts of testdata anew; they are read before they are kept")

// odd are pieces that stand at the edge of what is read: times and stretches of them, numbers,
// quotes, brackets, names, and words that mean something only at times.
var odd = strings.Split(strings.TrimSpace(`
9-5|11-1pm|2-4|12-1|from 2 to 4|2pm to 3.30pm|14:00-15:30|14.00–15.30|16:00 for 45 min|Thu 9:30-10|Friday 11-1pm|tomorrow 2-4|Mon at 12-1|Thu 8pm-9pm|Fri 23:30-0:30|7-8|1-1|3pm-2pm|9am-12pm|10-10.45
at 3|at 7|at 12|at 12:30|at 0:30|at 24:00|at 12pm|at 12am|13pm|7.5|5.30|5:60|half 4|half past 11|quarter to 1|quarter past 12|noon|midnight|noon Friday|at noon tomorrow|6 o'clock|20.15
"Friday"|"by Friday|Friday"|""tomorrow""|“on Monday”|“|”|"|' |(by Friday)|(tomorrow 3pm)|(Friday|Friday)|[Friday]|Friday.|Friday!|Friday?|Friday…|Friday's|Fridays|friday|FRIDAY|sat|sun|wed|mar|may|Sat|Sun|may 5|May|March|second
#calls|#work/meetings|#work/|#|#9|#a#b|#calls,|#loans.|#Übung|#suppliers!
,|;|-|–|—| - |, ,|, and| and | or |& |/|:|urgent:|Friday:|Allotment:|tomorrow: |P1D|!!|?!
20|20 min|20m|20 minutes|1h30|1.5 h|1.25 hours|0 min|0.3 h|an hour|half an hour|a quarter of an hour|2 h 30 min|~15 min|about 20 min|takes 3 hours|100 h|101 h|6000 min|6001 min|1 day|90 sec
high|low|medium|high priority|top priority|asap|ASAP|urgent|important|no priority|deep|light|begun|note|note: |parked
30/11|11/30|31/11|30.11.|30.11.2026|2026-11-31|2026-02-29|2026-W48|2026-W54|2026-11|24/7|3/4|1/1|29 February|30 February|31 April|32 December|the 31st|the 32nd|Nov 30|Nov 30 2027|30 Nov 99|Fri 26 Nov|Mon 30 Nov|Mon 30 Nov 2026|Nov|in Nov|December 2027|in December 20 min
every Monday|every mon wed fri|every 2 weeks|every 0 days|every 400 years|every other Tuesday|every second Friday|every 31st|every last day|every last Friday|every weekday|weekends|Mondays|on Mondays and Thursdays|every day until Friday|every day for 2 weeks|every day, 3 times|every year on 29 February|every 2 hours|twice a week|three times a month|biweekly|once a year|every morning|every Thursday evening|30 days after done|7 days ahead|every month 14 days ahead|first working day of each month|every quarter
in Allotment|in the Allotment|in allot|in Night Signals|in Night Signals: loans|in Garden|in Garden (new)|in Garden and Flat|in the garden|Choir|choir|Vol|in "Flat"
ask Registrar|ask the Registrar|ask Inês|ask Inês Prado|with Tomás Leal|with tomás|waiting on Registrar|waiting for the framer|ask Ines (new)|for Registrar|for Friday|for 20 min|ask|with
remind me|remind me tomorrow|remind me at 9|remind me 1 hour before|1 hour before|10 min before|0 min before|500 days before|remind me Friday 9am to|alert 15 min before|when I get to the museum|when I leave Shed 3|on arriving at the post office|remind me in 20 minutes|remind me yesterday
tomorrow|today|tonight|yesterday|next week|next month|next year|this week|this Friday|next Friday|in 3 days|in 0 days|in 5000 days|in a week's time|in two weeks' time|within 3 days|a week today|Tuesday week|2 weeks before 15 January|the day after tomorrow|day before Christmas|end of month|at the end of the week|mid December|Easter|Good Friday|before Friday|by the end of next week|from Monday|from Monday to Friday|until Friday|not before 1 December|plan Friday|plan December|plan week 50|week 53|week 54|plan tomorrow 14:00 for 30 min|due|by|on|in|at|every|plan|the
call|write to|label text|lamp oil|Order mount board|Ring the insurer|book 2 rooms|chapter 3|section 4.2|Monday Club|May Day|Sunday school|Ask who is coming Friday|Find out when Friday|meeting notes
 -- notes|-- by Friday|--| --|-- -- more
`), "\n")

// edges are the odd pieces, and in a third of the cases phrases that read to a field.
func edges(r *rand.Rand) string {
	if r.IntN(3) == 0 {
		return phrases[r.IntN(len(phrases))].words
	}
	line := strings.Split(odd[r.IntN(len(odd))], "|")
	return line[r.IntN(len(line))]
}

// meant is all that a sentence means: the draft, where each chip and problem stands, and what is
// offered.
func meant(text string, env capture.Env) string {
	d := capture.Read(text, env)
	var b strings.Builder
	b.WriteString(brief(d))
	for _, c := range d.Chips {
		fmt.Fprintf(&b, "\n    %s %v = %s", c.Field, c.Spans, c.Value)
	}
	for _, p := range d.Problems {
		fmt.Fprintf(&b, "\n    ! %s %s %v: %s", p.Code, p.Field, p.Spans, p.Reason)
	}
	if d.Remark != "" {
		fmt.Fprintf(&b, "\n    ~ %s", d.Remark)
	}
	for _, o := range capture.Offers(text, env) {
		fmt.Fprintf(&b, "\n    ? %s %v %s", o.Field, o.Spans, o.Value)
		if o.Choose {
			b.WriteString(", to be chosen")
		}
	}
	return b.String()
}

// What sentences of odd pieces mean, to the spans and the offers, is what was read and found right
// once.
func TestWhatSentencesMean(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 11))
	envs := []capture.Env{at(tuesday), at(tuesday, monthFirst, sundayFirst), at("2026-11-24T23:40", fromFour), at("2028-02-29T13:15")}
	var b strings.Builder
	for i := range 900 {
		text := []string{"Order mount board", "call Inês Prado", "Label text for the lamps", "x"}[r.IntN(4)]
		if r.IntN(4) == 0 {
			text = edges(r)
		}
		for range 1 + r.IntN(3) {
			text += []string{" ", " ", ", ", "; ", " - "}[r.IntN(5)] + edges(r)
		}
		env := 0
		if i%5 == 0 {
			env = 1 + i/5%3
		}
		fmt.Fprintf(&b, "%d: %s\n  %s\n", env, text, meant(text, envs[env]))
	}
	path := filepath.Join("testdata", "meant.txt")
	if *update {
		if err := os.WriteFile(path, []byte(b.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	kept, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	want, got := strings.Split(string(kept), "\n"), strings.Split(b.String(), "\n")
	sentence := ""
	for i, line := range want {
		if !strings.HasPrefix(line, " ") {
			sentence = line
		}
		if i >= len(got) || got[i] != line {
			t.Fatalf("line %d of %s, of %s: there is\n%s\nwant\n%s", i+1, path, sentence, strings.Join(got[min(i, len(got)):min(i+1, len(got))], ""), line)
		}
	}
	if len(got) != len(want) {
		t.Errorf("%s has %d lines, want %d", path, len(want), len(got))
	}
}
