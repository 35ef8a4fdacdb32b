package capture_test

import (
	"strings"
	"testing"
	"unicode/utf8"

	"tincup/internal/core/capture"
)

// seedSentences gives a fuzzer the sentences of the tables.
func seedSentences(f *testing.F) {
	for _, tables := range [][]table{tables, leftAlone()} {
		for _, table := range tables {
			for _, row := range table.rows {
				f.Add(row.sentence)
			}
		}
	}
}

func FuzzRead(f *testing.F) {
	seedSentences(f)
	f.Add("Pay \"\"\"the rent\" every month on the 1st and 2nd last Friday\", twice #a-b_c/d -- x")
	envs := []capture.Env{at(tuesday), at("2028-02-29T23:30", monthFirst, sundayFirst), at("2026-11-25T02:00", fromFour)}
	f.Fuzz(func(t *testing.T, sentence string) {
		for _, env := range envs {
			d := capture.Read(sentence, env)
			if len(d.Problems) > 20 || len(d.Chips) > len(sentence) || len(d.Title) > len(sentence)+1 || !utf8.ValidString(d.Title) {
				t.Fatalf("%q: %d problems, %d chips, a title of %d bytes", sentence, len(d.Problems), len(d.Chips), len(d.Title))
			}
			if len(sentence) < 2000 {
				checkDraft(t, sentence, d, env)
			}
		}
	})
}

func FuzzReadLines(f *testing.F) {
	f.Add("# a\n- b\n  - [x] c, high\n\t1. d\n")
	f.Add("\t\t- a\n  b\r\n\n    c")
	env := at(tuesday)
	f.Fuzz(func(t *testing.T, text string) {
		lines, err := capture.ReadLines(text, env)
		if err != nil {
			return
		}
		for i, l := range lines {
			if l.Parent >= i || l.Parent < -1 || l.Parent >= 0 && (lines[l.Parent].Depth != l.Depth-1 || lines[l.Parent].Section) || l.Parent < 0 && l.Depth != 0 {
				t.Fatalf("%q: line %d hangs wrong: %+v", text, i, l)
			}
		}
	})
}

// Whatever a sentence is, its offers are of words that stand in it, and the sentence that
// takes one says what the offer says.
func FuzzOffers(f *testing.F) {
	seedSentences(f)
	env := at("2026-11-24T10:30")
	f.Fuzz(func(t *testing.T, sentence string) {
		if len(sentence) > 2000 {
			return
		}
		offers := capture.Offers(sentence, env)
		if len(offers) > capture.MaxOffers {
			t.Fatalf("%q has %d offers", sentence, len(offers))
		}
		for _, o := range offers {
			var words []string
			last := 0
			for _, s := range o.Spans {
				if s.Start < last || s.End <= s.Start || s.End > len(sentence) {
					t.Fatalf("%q: the spans %v of an offer", sentence, o.Spans)
				}
				last = s.End
				words = append(words, sentence[s.Start:s.End])
			}
			if strings.Join(words, ", ") != o.Words || o.Value == "" {
				t.Fatalf("%q: the offer %+v", sentence, o)
			}
			if o.Choose {
				continue
			}
			said := false
			first, _, _ := strings.Cut(o.Value, "; ") // the other is of another field
			for _, c := range capture.Read(o.Taken, env).Chips {
				said = said || c.Field == o.Field && c.Value == first
			}
			if !said {
				t.Fatalf("%q: taken, the offer %+v reads %s", sentence, o, brief(capture.Read(o.Taken, env)))
			}
		}
	})
}

// Words for one field are read, or refused with a reason.
func FuzzReadWhen(f *testing.F) {
	for _, words := range []string{"Friday 4pm", "next week", "2026-W50", "parked", "in 3 days", "31 February", "Thu 4-5pm", "a week on Tuesday", "in 20 min", "1 hour before", "the day before"} {
		f.Add(words)
	}
	env := at(tuesday)
	f.Fuzz(func(t *testing.T, words string) {
		for _, read := range []func() error{
			func() error { _, err := capture.ReadDue(words, env); return err },
			func() error { _, err := capture.ReadStart(words, env); return err },
			func() error { _, err := capture.ReadPlan(words, env); return err },
			func() error { _, err := capture.ReadReminder(words, true, env); return err },
			func() error {
				r, err := capture.ReadReminder(words, false, env)
				if err == nil && r.At.IsZero() {
					t.Fatalf("%q reads as %s, which is no time of its own", words, r)
				}
				return err
			},
		} {
			if err := read(); err != nil && err.Error() == "" {
				t.Fatalf("%q is refused without a reason", words)
			}
		}
	})
}
