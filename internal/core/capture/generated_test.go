package capture_test

import (
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/tyler-smith/go-bip39/wordlists"

	"tincup/internal/core/capture"
	"tincup/internal/seed"
)

// ordinary are 2,000 common English words, of the list of 2,048 that go-bip39 ships, less
// those that the language of fields knows, rule 6's words among them.
var ordinary = func() []string {
	ours := map[string]bool{}
	for _, words := range []string{fieldWords, guards} {
		for _, w := range strings.Fields(words) {
			ours[w] = true
		}
	}
	var words []string
	for _, w := range wordlists.English {
		if !ours[w] && len(words) < 2000 {
			words = append(words, w)
		}
	}
	return words
}()

// fieldWords are words of the table of words, and guards those of rule 6.
const (
	fieldWords = `today tonight tomorrow monday tuesday wednesday thursday friday saturday sunday mon tue wed thu fri sat sun
		january february march april may june july august september october november december jan feb mar apr jun jul aug sep oct nov dec
		day week weekend month quarter year fortnight minute hour min h noon midnight morning afternoon evening night
		first second third fourth fifth last next this other one two three four five six seven eight nine ten eleven twelve half
		high medium low urgent important asap priority daily weekly monthly yearly every each once twice times
		in on at by before due not until starting plan parked within week ahead done takes remind me alert ping nudge ask with end mid time now
		easter christmas new deep light around latest please thanks start alternate except couple`
	// The last of them need what comes behind them, as the others do.
	guards = `for to about or from who what when where why whether how if unless that which of the a since than and after
		during till between per via past previous as is was are versus my our your their his her its an no
		black good ash palm holy super casual`
)

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
	{"due", "tonight", "due 2026-11-24T20:00", true},
	{"due", "today", "due 2026-11-24", true},
	{"due", "next Monday", "due 2026-11-30", true},
	{"due", "this Friday", "due 2026-11-27", true},
	{"due", "by the end of next month", "due 2026-12-31", true},
	{"due", "in a fortnight", "due 2026-12-08", true},
	{"due", "Tuesday week", "due 2026-12-08", true},
	{"due", "a week today", "due 2026-12-01", true},
	{"due", "30/11/2027", "due 2027-11-30", true},
	{"due", "2026-11-30", "due 2026-11-30", true},
	{"due", "by the 3rd", "due 2026-12-03", true},
	{"due", "Friday next week", "due 2026-12-04", true},
	{"due", "next week Thursday", "due 2026-12-03", true},
	{"due", "at 5pm", "due 2026-11-24T17:00", true},
	{"due", "17:30", "due 2026-11-24T17:30", true},
	{"due", "5 o'clock", "due 2026-11-24T17:00", true},
	{"due", "tomorrow morning", "due 2026-11-25T09:00", true},
	{"due", "Friday afternoon", "due 2026-11-27T14:00", true},
	{"due", "first thing tomorrow", "due 2026-11-25T09:00", true},
	{"due", "within 3 days", "due 2026-11-27", true},
	{"due", "no later than 3 December", "due 2026-12-03", true},
	{"due", "by EOD Friday", "due 2026-11-27", true},
	{"due", "3rd of December", "due 2026-12-03", true},
	{"due", "December the 3rd", "due 2026-12-03", true},
	{"due", "Dec 24th at noon", "due 2026-12-24T12:00", true},
	{"due", "next weekend", "due 2026-12-05", true},
	{"due", "first Monday of December", "due 2026-12-07", true},
	{"due", "last working day of December", "due 2026-12-31", true},
	{"due", "every weekday", "due 2026-11-24 | repeat FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR first 2026-11-24", true},
	{"due", "every Mon, Wed and Fri at 8am", "due 2026-11-25T08:00 | repeat FREQ=WEEKLY;BYDAY=MO,WE,FR first 2026-11-25", true},
	{"due", "daily", "due 2026-11-24 | repeat FREQ=DAILY first 2026-11-24", true},
	{"due", "every 3 months", "due 2026-11-24 | repeat FREQ=MONTHLY;INTERVAL=3 first 2026-11-24", true},
	{"due", "every year on 14 March", "due 2027-03-14 | repeat FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14 first 2027-03-14", true},
	{"due", "30 days after done", "due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=30 first 2026-11-24 after done", true},
	{"due", "last Friday of every month", "due 2026-11-27 | repeat FREQ=MONTHLY;BYDAY=-1FR first 2026-11-27", true},
	{"due", "Wednesdays 5pm", "due 2026-11-25T17:00 | repeat FREQ=WEEKLY;BYDAY=WE first 2026-11-25", true},
	{"due", "weekdays 8am", "due 2026-11-25T08:00 | repeat FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR first 2026-11-25", true},
	{"due", "every other day until 20 December", "due 2026-11-24 | repeat FREQ=DAILY;INTERVAL=2;UNTIL=20261220 first 2026-11-24", true},
	{"due", "every evening", "due 2026-11-24T18:00 | repeat FREQ=DAILY first 2026-11-24", true},
	{"plan", "Thu 4-5pm", "plan 2026-11-26T16:00/PT60M", true},
	{"plan", "in February", "plan 2027-02", true},
	{"plan", "next month", "plan 2026-12", true},
	{"plan", "week 50", "plan 2026-W50", true},
	{"reminder", "alert me tomorrow 8am", "remind 2026-11-25T08:00", true},
	{"priority", "asap", "high", false},
	{"estimate", "1h30", "90 min", false},
	{"due", "in 20 minutes", "due 2026-11-24T09:20", true},
	{"start", "not before 24 November 2026", "start 2026-11-24", true},
	{"plan", "this month", "plan 2026-11", true},
	{"plan", "plan 2026-12-10", "plan 2026-12-10", true},
	{"reminder", "remind me Wednesday 9am", "remind 2026-11-25T09:00", true},
	{"reminder", "ping me tomorrow at noon", "remind 2026-11-25T12:00", true},
	{"estimate", "20 min", "20 min", false},
	{"estimate", "takes 2 hours", "120 min", false},
	{"estimate", "about half an hour", "30 min", false},
	{"list", "in Night Signals", "in Night Signals", false},
	{"priority", "high", "high", false},
	{"priority", "high priority", "high", false},
}

// generated is a title and the fields behind it, each with a comma before it or none.
type generated struct {
	title  []string
	run    []said
	commas []bool
}

func (g generated) sentence() string {
	s := strings.Join(g.title, " ")
	for i, p := range g.run {
		if g.commas[i] {
			s += ","
		}
		s += " " + p.words
	}
	return s
}

// fails says what is wrong with how it is read, "" for nothing.
func (g generated) fails() string {
	env := at(tuesday)
	name := strings.Join(g.title, " ")
	if got := brief(capture.Read(name, env)); got != name {
		return fmt.Sprintf("%q alone reads %s", name, got)
	}
	read := brief(capture.Read(g.sentence(), env))
	got := parts(read)
	want := map[string]bool{name: true}
	for _, p := range g.run {
		for _, part := range strings.Split(p.want, " | ") {
			want[part] = true
		}
	}
	if !maps.Equal(got, want) {
		return fmt.Sprintf("%q\n reads %s\n and not %v", g.sentence(), read, slices.Sorted(maps.Keys(want)))
	}
	return ""
}

// shrink leaves out words and fields for as long as it still fails.
func (g generated) shrink() generated {
	for again := true; again; {
		again = false
		for i := range g.title {
			less := g
			less.title = slices.Delete(slices.Clone(g.title), i, i+1)
			if len(less.title) > 0 && less.fails() != "" {
				g, again = less, true
				break
			}
		}
		for i := range g.run {
			less := g
			less.run, less.commas = slices.Delete(slices.Clone(g.run), i, i+1), slices.Delete(slices.Clone(g.commas), i, i+1)
			if readable(less.run, less.commas) && less.fails() != "" {
				g, again = less, true
				break
			}
		}
	}
	return g
}

// A title of ordinary words with a run of field phrases behind it, in any order and with or
// without commas, reads to those fields and that title; the title alone reads to nothing.
func TestGeneratedRuns(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 1))
	if len(ordinary) < 1900 {
		t.Fatalf("%d ordinary words", len(ordinary))
	}
	for range *sentences {
		var g generated
		for range 1 + r.IntN(6) {
			g.title = append(g.title, ordinary[r.IntN(len(ordinary))])
		}
		if r.IntN(3) == 0 {
			g.title[0] = strings.ToUpper(g.title[0][:1]) + g.title[0][1:]
		}
		g.run = pickRun(r)
		for range g.run {
			g.commas = append(g.commas, r.IntN(3) == 0)
		}
		if readable(g.run, g.commas) && g.fails() != "" {
			small := g.shrink()
			t.Fatalf("seed %d: %s\nshrunk: %s", seed, g.fails(), small.fails())
		}
	}
	t.Logf("%d sentences, titles of %d words", *sentences, len(ordinary))
}

var sentences = flag.Int("generated", 20_000, "generated sentences of each property")

// readable reports whether a run is one that the rules read (rule 3): high, medium and low
// stand behind another phrase, or in a clause of their own, and where no comma begins the
// run, it holds what lets it be read.
func readable(run []said, commas []bool) bool {
	if len(run) == 0 {
		return false
	}
	counts, within := false, true // within the run that ends the title
	for i, p := range run {
		within = within && !commas[i]
		counts = counts || within && p.counts
		begins := i == 0 || commas[i]
		if p.words == "high" && begins && !commas[i] {
			return false
		}
		// A time or a priority goes on with a start only in a clause of its own.
		if p.words == "high" && i > 0 && run[i-1].field == "start" && !commas[i] {
			return false
		}
	}
	return counts || commas[0]
}

// pickRun makes a run in which every field stands once.
func pickRun(r *rand.Rand) []said {
	var run []said
	used := map[string]bool{}
	n := 1 + r.IntN(5)
	for tries := 0; len(run) < n && tries < 100; tries++ {
		p := phrases[r.IntN(len(phrases))]
		// A start or a plan beside a repeat is where it begins.
		repeats := strings.Contains(p.want, "repeat")
		begins := p.field == "start" || p.field == "plan"
		// A time alone completes what has none.
		completes := p.words == "at 5pm" || p.words == "17:30" || p.words == "5 o'clock" || strings.HasPrefix(p.words, "first thing")
		if completes && (used["start"] || used["plan"] || used["reminder"]) || used["completes"] && (begins || p.field == "reminder") {
			continue
		}
		if used[p.field] || repeats && used["begins"] || begins && used["repeats"] {
			continue
		}
		used["repeats"] = used["repeats"] || repeats
		used["begins"] = used["begins"] || begins
		used[p.field] = true
		used["completes"] = used["completes"] || completes
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

// endsInVocabulary is a title that ends in words that mean something in other places.
type endsInVocabulary []string

// fails says which word is lost, "" for none: what is read is a whole phrase, which says
// the same field in a clause of its own, and every other word stays in the title.
func (words endsInVocabulary) fails() string {
	env := at(tuesday)
	sentence := strings.Join(words, " ")
	d := capture.Read(sentence, env)
	for _, c := range d.Chips {
		alone := capture.Read("lamp, "+c.Words, env)
		if len(alone.Chips) == 0 { // the end of a repeat needs one
			alone = capture.Read("lamp, every day, "+c.Words, env)
		}
		same := alone.Title == "lamp" && slices.ContainsFunc(alone.Chips, func(o capture.Chip) bool {
			return o.Field == c.Field // what stands beside it may give it another first day
		})
		if !same && len(c.Spans) == 1 && !strings.Contains(strings.ToLower(sentence), "remind me") {
			return fmt.Sprintf("%q reads %s; %q alone reads %s", sentence, brief(d), c.Words, brief(alone))
		}
	}
	if got := strings.Fields(d.Title); len(d.Chips) == 0 && !slices.Equal(got, words) && !strings.HasPrefix(sentence, "remind me to ") {
		return fmt.Sprintf("%q has the title %q, and nothing was read", sentence, d.Title)
	}
	if said := capture.Say(d, env); len(d.Problems) == 0 && brief(capture.Read(said, env)) != brief(d) {
		return fmt.Sprintf("%q is said back as %q, which reads %s, and should be %s", sentence, said, brief(capture.Read(said, env)), brief(d))
	}
	return ""
}

// Titles that end in words of the vocabulary lose none of them, unless a whole phrase stands
// there.
func TestTitlesThatEndInVocabulary(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 2))
	vocabulary := append(strings.Fields(fieldWords+" "+guards), "3", "12", "20", "5pm", "17:30", "3rd", "30/11", "Friday", "May", "Monday", "December", "Today")
	read := 0
	for range *sentences {
		var words endsInVocabulary
		for range 1 + r.IntN(3) {
			words = append(words, ordinary[r.IntN(len(ordinary))])
		}
		for range 1 + r.IntN(5) {
			words = append(words, vocabulary[r.IntN(len(vocabulary))])
		}
		sentence := strings.Join(words, " ")
		d := capture.Read(sentence, at(tuesday))
		if checkWords(t, sentence, d); len(d.Chips) > 0 {
			read++
		}
		if words.fails() == "" {
			continue
		}
		small := words
		for again := true; again; {
			again = false
			for i := range small {
				if less := slices.Delete(slices.Clone(small), i, i+1); len(less) > 0 && less.fails() != "" {
					small, again = less, true
					break
				}
			}
		}
		t.Fatalf("seed %d: %s\nshrunk: %s", seed, words.fails(), small.fails())
	}
	t.Logf("%d titles, %d of them with a whole phrase", *sentences, read)
}
