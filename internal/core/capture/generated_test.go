package capture_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"tincup/internal/core/capture"
	"tincup/internal/seed"
)

// ordinary are common English words that name no field; invented for the demo's scenario.
var ordinary = strings.Fields(`order paint mend carry fold label count pack clean sketch measure print hang frame sweep sort
	write draw copy polish wrap borrow return invite thank answer letter lamp glass board crate string paper ladder window door
	garden curtain bench shelf poster ticket visitor school lantern museum harbour keeper story picture drawing script sample
	kettle blanket basket bucket brush hammer nail screw wire cable bulb switch socket carpet chair table stool drawer handle
	small large heavy narrow wide round yellow green quiet bright wooden broken spare extra upper lower front rear gently
	carefully twice-folded new-cut storeroom workshop hallway stairs corner ceiling railing pier lighthouse`)

// phrases that are one field each, with what they read to.
type said struct {
	field  string // no two of one field stand in a sentence
	words  string
	want   string
	counts bool // it lets a run at the end of a title be read
}

var phrases = []said{
	{"due", "by Friday", "due 2026-11-27", true},
	{"due", "tomorrow 3pm", "due 2026-11-25T15:00", true},
	{"due", "before 4 December", "due 2026-12-03", true},
	{"due", "2 weeks before 15 January", "due 2027-01-01", true},
	{"due", "a week on Tuesday", "due 2026-12-08", true},
	{"due", "mid December", "due 2026-12-15", true},
	{"due", "in three weeks' time", "due 2026-12-15", true},
	{"due", "Fri 27 Nov at half past 4", "due 2026-11-27T16:30", true},
	{"due", "every second Friday at 8am", "due 2026-11-27T08:00 | repeat FREQ=WEEKLY;INTERVAL=2;BYDAY=FR first 2026-11-27", true},
	{"due", "on the 1st of every month", "due 2026-12-01 | repeat FREQ=MONTHLY;BYMONTHDAY=1 first 2026-12-01", true},
	{"start", "not before Wednesday", "start 2026-11-25", true},
	{"plan", "this month", "plan 2026-11", true},
	{"plan", "plan Thursday", "plan 2026-11-26", true},
	{"reminder", "remind me Wednesday 9am", "remind 2026-11-25T09:00", true},
	{"reminder", "ping me tomorrow at noon", "remind 2026-11-25T12:00", true},
	{"estimate", "20 min", "20 min", false},
	{"estimate", "takes 2 hours", "120 min", false},
	{"estimate", "about half an hour", "30 min", false},
	{"list", "in Night Signals", "in Night Signals", false},
	{"priority", "high", "high", false},
	{"priority", "high priority", "high", true},
}

// A title of ordinary words with a run of field phrases behind it, in any order and with or
// without commas, reads to those fields and that title; the title alone reads to nothing.
func TestGeneratedRuns(t *testing.T) {
	env := at(tuesday)
	r := rand.New(rand.NewPCG(seed.New(t), 1))
	for range 20_000 {
		var title []string
		for range 2 + r.IntN(5) {
			title = append(title, ordinary[r.IntN(len(ordinary))])
		}
		name := strings.Join(title, " ")
		if got := brief(capture.Read(name, env)); got != name {
			t.Fatalf("%q alone reads %s", name, got)
		}
		run := pickRun(r)
		sentence := name
		for i, p := range run {
			separator := " "
			// A clause of its own, but for what goes on with the phrase before.
			if r.IntN(3) == 0 || i > 0 && p.words == "high" && run[i-1].field == "start" {
				separator = ", "
			}
			sentence += separator + p.words
		}
		got := parts(brief(capture.Read(sentence, env)))
		want := map[string]bool{name: true}
		for _, p := range run {
			for _, part := range strings.Split(p.want, " | ") {
				want[part] = true
			}
		}
		for part := range want {
			if !got[part] {
				t.Fatalf("%q\n reads %s\n and not to %q", sentence, brief(capture.Read(sentence, env)), part)
			}
		}
		if len(got) != len(want) {
			t.Fatalf("%q\n reads %s\n which is more than %v", sentence, brief(capture.Read(sentence, env)), want)
		}
	}
}

// pickRun makes a run that may stand at the end of a title: what counts stands first, and
// every field once.
func pickRun(r *rand.Rand) []said {
	var run []said
	used := map[string]bool{}
	for n := 1 + r.IntN(5); len(run) < n; {
		p := phrases[r.IntN(len(phrases))]
		// A start or a plan beside a repeat is where it begins.
		repeats := strings.Contains(p.want, "repeat")
		begins := p.field == "start" || p.field == "plan"
		if len(run) == 0 && !p.counts || used[p.field] || repeats && used["begins"] || begins && used["repeats"] {
			continue
		}
		used["repeats"] = used["repeats"] || repeats
		used["begins"] = used["begins"] || begins
		used[p.field] = true
		run = append(run, p)
	}
	return run
}

func parts(brief string) map[string]bool {
	set := map[string]bool{}
	for _, part := range strings.Split(brief, " | ") {
		set[part] = true
	}
	return set
}
