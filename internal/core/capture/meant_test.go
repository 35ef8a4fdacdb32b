package capture_test

import (
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"strings"
	"testing"

	"tincup/internal/core/capture"
	"tincup/internal/golden"
)

// odd are pieces that stand at the edge of what is read: times and stretches of them, numbers,
// quotes, brackets, names, and words that mean something only at times.
var odd = strings.Split(strings.TrimSpace(`
9-5|11-1pm|2-4|12-1|from 2 to 4|2pm to 3.30pm|14:00-15:30|14.00–15.30|16:00 for 45 min|Thu 9:30-10|Friday 11-1pm|tomorrow 2-4|Mon at 12-1|Thu 8pm-9pm|Fri 23:30-0:30|7-8|1-1|3pm-2pm|9am-12pm|10-10.45
tomorrow 8-20|9:00-21:00|9:00-21:05|12:30-0:30|Thu 10–11|Thu 10 - 11|Thu 10 – 11:30|9 - 10 am|9am - 10am|99-100|0-1|tomorrow 0:00-12:00|24-25|Thu 4.60-5|Thu 7-7pm|1-2am|12am-1am|11-12|12-6|12-7|tomorrow 3-|tomorrow -3
at 1|at 11|at 23|at 07|at 011|11 o'clock|1 o'clock|13 o'clock|half 12|half 1|11am|12:59|1:00|6:59am|0:00|23:59|at 6.59|at 6.60
1h05|1h60|1h5|99 h|100000 min|100001 min|1 h 59 min|1 h 60 min|1 h 61 min|0 h 5 min|2.5 min|.5 h
every 2 quarters|every 3 quarters|every quarter|every 5th Friday|every 6th Friday|the 2nd last Friday|every 2nd last day|every 0th day|on the 1st and 15th of every month|every 1000 days|every 1001 days|every month for 3 months|for 0 weeks|every Mon and Tue until Friday
end of quarter|end of next quarter|end of next year|end of this year|in 2 fortnights|in 4 quarters|in 2 years|a quarter on Friday|5th Monday of December|last Monday of November|first Monday of November|first Monday of this month|last day of February|Easter 2027|Easter 9999|30 November 1000|30 November 9999|30 November 999|week 1|week 52 2026
ask Registrar, with Tomás Leal|with Tomás Leal, ask Registrar|every Monday, every Mon|every 30 days, 30 days after done|by Friday, Friday|by Friday, due Friday|Friday, Saturday|by Friday, by Saturday|20 min, 30 min|high, low|in Choir, in Flat|remind me at 9, remind me at 9
say “”|“x” y|“x|x”|a“b”c|"x" "y"|""|"""x"""|x"y"z|#a"b"|-- "x"|x,y|x,"y"|x, "y"|x,#calls|x,  y|tab	here|zero`+"\u200b"+`width|é, ü|ΑΒΓ tomorrow
if Friday|when Friday|once it rains, Friday|unless Friday|Jo, Sam, April|Sam, April|April, Sam|May, June and July|Monday, 30 November|30 November, 2026|November 30, 2026|Monday, the 30th|Fri, Sat
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
	for i := range 1300 {
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
	golden.Same(t, filepath.Join("testdata", "meant.txt"), b.String())
}

// A sentence at its limits: the longest that is read, and the first that is not.
func TestLimitsOfSentences(t *testing.T) {
	problems := func(text string) (said []string) {
		for _, p := range capture.Read(text, at(tuesday)).Problems {
			said = append(said, p.Reason)
		}
		return said
	}
	words := func(n int) string { return strings.TrimSpace(strings.Repeat("a ", n/2) + strings.Repeat("b", n%2)) }
	for name, c := range map[string][2]string{
		"the title":    {strings.Repeat("a", 500), strings.Repeat("a", 501)},
		"the notes":    {"x -- " + strings.Repeat("n", 64<<10), "x -- " + strings.Repeat("n", 64<<10+1)},
		"all of it":    {words(499) + strings.Repeat(" ", 20_000-499), words(499) + strings.Repeat(" ", 20_000) + "b"},
		"the estimate": {"x, 100 h", "x, 101 h"},
		"tags":         {"x" + manyTags(30), "x" + manyTags(31)},
		"a tag":        {"x #" + strings.Repeat("a", capture.MaxTag), "x #" + strings.Repeat("a", capture.MaxTag+1)},
		"chips":        {"x" + strings.Repeat(" #calls", 100), "x" + strings.Repeat(" #calls", 101)},
		"clauses":      {"x" + strings.Repeat(", y", 99), "x" + strings.Repeat(", y", 100)},
		"a lead":       {"x, yearly, 366 days ahead", "x, yearly, 367 days ahead"},
		"a slot":       {"x, tomorrow 9:00 for 24 h", "x, tomorrow 9:00 for 1441 min"},
	} {
		if said := problems(c[0]); len(said) > 0 {
			t.Errorf("%s: %.60s: %q", name, c[0], said)
		}
		if said := problems(c[1]); len(said) == 0 {
			t.Errorf("%s: %.60s is read", name, c[1])
		}
	}
	// Of many problems the first twenty are told, and each once.
	var wrong strings.Builder
	for i := range 40 {
		fmt.Fprintf(&wrong, " #%c/", 'a'+i%20)
		if i == 20 {
			wrong.WriteString(" #v/ #w/")
		}
	}
	if n := len(problems("x" + wrong.String())); n != 20 {
		t.Errorf("%d problems are told", n)
	}
}

func manyTags(n int) string {
	var b strings.Builder
	for i := range n {
		fmt.Fprintf(&b, " #tag%d", i)
	}
	return b.String()
}
