package capture_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// at makes an Env: Tuesday 24 November 2026, 09:00 in Lisbon, unless said.
func at(now string, change ...func(*capture.Env)) capture.Env {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		panic(err)
	}
	t, err := time.ParseInLocation("2006-01-02T15:04", now, zone)
	if err != nil {
		panic(err)
	}
	env := capture.Env{Clock: day.Clock{Now: t, Zone: zone}, Names: capture.Names{
		Lists:  []string{"Night Signals", "Night Signals: loans", "Volunteers", "Grant report", "Allotment", "Choir", "Flat"},
		Tags:   []string{"suppliers", "calls", "loans", "work/meetings"},
		People: []string{"Registrar", "Inês Prado", "Inês Duarte", "Tomás Leal"},
		Places: []string{"The museum", "Post office", "Shed 3", "Ward & Sons"},
	}}
	for _, f := range change {
		f(&env)
	}
	return env
}

func monthFirst(e *capture.Env)  { e.MonthFirst = true }
func sundayFirst(e *capture.Env) { e.SundayFirst = true }
func instant(s string) func(*capture.Env) {
	return func(e *capture.Env) {
		t, err := time.Parse(time.RFC3339, s)
		if err != nil {
			panic(err)
		}
		e.Clock.Now = t
	}
}
func earlyRiser(e *capture.Env) {
	hour := func(h, m int) day.TimeOfDay {
		at, err := day.NewTimeOfDay(h, m)
		if err != nil {
			panic(err)
		}
		return at
	}
	e.Parts = capture.PartsOfDay{FirstThing: hour(5, 30), Morning: hour(8, 0), Afternoon: hour(12, 0), Evening: hour(17, 15), Night: hour(19, 0)}
}
func fromFour(e *capture.Env) { e.Clock.DayStart = 4 * time.Hour }

// brief writes a draft in one line: the title, then what was read.
func brief(d capture.Draft) string {
	parts := []string{d.Title}
	add := func(name, value string) {
		if value != "" {
			parts = append(parts, strings.TrimSpace(name+" "+value))
		}
	}
	if d.Note {
		add("note", "itself")
	}
	add("due", d.Due.String())
	add("start", d.Start.String())
	add("plan", d.Plan.String())
	if d.Repeat != nil {
		r := d.Repeat.Rule.String() + " first " + d.Repeat.First.String()
		if d.Repeat.Anchor.String() != "schedule" {
			r += " after done"
		}
		if d.Repeat.Lead > 0 {
			r += fmt.Sprintf(" lead %d", d.Repeat.Lead)
		}
		add("repeat", r)
	}
	if d.Priority != term.NoPriority {
		add("", d.Priority.String())
	}
	for _, c := range d.Choices {
		add(string(c.Field), c.Value)
	}
	add("in", d.List)
	for _, t := range d.Tags {
		add("", "#"+t)
	}
	if d.Estimate > 0 {
		add("", fmt.Sprintf("%d min", d.Estimate))
	}
	if d.Person.Role != term.NoRole {
		add(d.Person.Role.String(), d.Person.Name)
	}
	for _, r := range d.Reminders {
		add("remind", r.String())
	}
	if d.Notes != "" {
		add("--", d.Notes)
	}
	for _, p := range d.Problems {
		parts = append(parts, strings.TrimSpace("! "+p.Words))
	}
	return strings.Join(parts, " | ")
}

type row struct{ sentence, want string }

// table is rows read under one Env.
type table struct {
	name string
	env  capture.Env
	rows []row
}

const tuesday = "2026-11-24T09:00"

// tables cover every row of the words a sentence may hold and every meaning
// they have, what is taken from a title and what never is. What they mean is
// the product's own definition; TestDatesAgainstReference and
// TestDatesAgainstChrono check the dates against others.
var tables = slices.Concat(dateTables, fieldTables, titleTables, phraseTables, runTables, wholeTables)

func TestSentences(t *testing.T) {
	for _, table := range tables {
		t.Run(table.name, func(t *testing.T) {
			for _, row := range table.rows {
				d := capture.Read(row.sentence, table.env)
				if got := strings.TrimRight(brief(d), " "); got != strings.TrimRight(row.want, " ") {
					t.Errorf("%s\n got  %s\n want %s", row.sentence, got, row.want)
				}
				checkDraft(t, row.sentence, d, table.env)
			}
		})
	}
}

// A full stop at the end of a sentence changes nothing, but for a title that ends in it.
func TestWithAFullStop(t *testing.T) {
	read := 0
	for _, table := range tables {
		for _, row := range table.rows {
			if strings.Contains(row.sentence, "--") || strings.ContainsAny(row.sentence, "\"#") && !strings.Contains(row.sentence, " #calls") ||
				strings.TrimRight(row.sentence, " .,!?") != row.sentence {
				continue // notes, quotes and tags take a full stop in; or one stands there
			}
			read++
			plain := capture.Read(row.sentence, table.env)
			stopped := capture.Read(row.sentence+".", table.env)
			stopped.Title = strings.TrimSuffix(stopped.Title, ".")
			got, want := brief(stopped), brief(plain)
			if strings.TrimSuffix(got, ".") != want {
				t.Errorf("%q with a full stop reads\n %s\nwithout\n %s", row.sentence, got, want)
			}
		}
	}
	t.Logf("%d sentences", read)
}

// checkWords checks that the words of a sentence are those of its fields and its title, none
// lost and none twice; what stays in a title is that of a date that was read beside it.
func checkWords(t testing.TB, sentence string, d capture.Draft) {
	t.Helper()
	if strings.Contains(sentence, "--") || strings.ContainsAny(sentence, `"“`) || !utf8.ValidString(sentence) {
		return // notes, and quotes that are dropped
	}
	left := map[string]int{}
	for _, w := range strings.FieldsFunc(d.Title, parting) {
		left[w]++
	}
	taken := make([]bool, len(sentence))
	for _, c := range d.Chips {
		for _, s := range c.Spans {
			for i := s.Start; i < s.End; i++ {
				taken[i] = true
			}
		}
	}
	asked := strings.HasPrefix(strings.ToLower(sentence), "remind me to ") // whose words say what it is
	for at := 0; at < len(sentence); {
		end := len(sentence)
		if i := strings.IndexFunc(sentence[at:], parting); i >= 0 {
			end = at + i
		}
		w := sentence[at:end]
		courteous := len(d.Chips) > 0 && (w == "please" || w == "thanks")
		if w != "" && !courteous && !taken[at] && !(asked && at < len("remind me to")) {
			if left[w]--; left[w] < 0 && len(d.Title) < capture.MaxTitle && len(d.Problems) == 0 {
				t.Errorf("%q: %q is neither in the title %q nor in a field", sentence, w, d.Title)
			}
		}
		_, size := utf8.DecodeRuneInString(sentence[end:])
		at = end + max(size, 1)
	}
}

func parting(r rune) bool {
	return unicode.IsSpace(r) || unicode.IsControl(r) || r == '\u2028' || r == '\u2029' || strings.ContainsRune(",;-–—:.!?#()", r)
}

// checkDraft checks what holds of every draft.
func checkDraft(t testing.TB, sentence string, d capture.Draft, env capture.Env) {
	t.Helper()
	taken := make([]bool, len(sentence))
	for _, c := range d.Chips {
		if (c.Value == "") != (c.Problem != "") {
			t.Errorf("%q: the chip %+v has a value and a problem, or neither", sentence, c)
		}
		for _, s := range c.Spans {
			for i := s.Start; i < s.End; i++ {
				if taken[i] {
					t.Errorf("%q: %q belongs to two fields", sentence, sentence[i:i+1])
					return
				}
				taken[i] = true
			}
		}
	}
	checkWords(t, sentence, d)
	if again := capture.Read(sentence, env); brief(again) != brief(d) {
		t.Errorf("%q reads once as %s and once as %s", sentence, brief(d), brief(again))
	}
	if len(d.Problems) > 0 {
		return
	}
	if strings.ContainsAny(d.Notes, "\r\n") {
		d.Notes = "" // only notes of one line can be said
	}
	said := capture.Say(d, env)
	if back := capture.Read(said, env); brief(back) != brief(d) {
		t.Errorf("%q\n is said back as %q\n which reads    %s\n and should be %s", sentence, said, brief(back), brief(d))
	}
	for _, c := range d.Chips {
		quoted := capture.Span{Start: c.Spans[0].Start, End: c.Spans[0].End + 2}
		for _, left := range capture.Read(capture.Quote(sentence, c), env).Chips {
			if slices.ContainsFunc(left.Spans, func(s capture.Span) bool { return s.Start < quoted.End && s.End > quoted.Start }) {
				t.Errorf("%q: %q is still read once it is quoted", sentence, c.Words)
			}
		}
	}
}
