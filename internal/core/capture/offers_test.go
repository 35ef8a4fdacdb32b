package capture_test

import (
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

// What might have meant a field and was left as words, each with what it would be. The
// sentence that takes an offer reads to that field and to the title without its words.
func TestOffers(t *testing.T) {
	env := at(tuesday)
	for sentence, want := range map[string]string{
		"Email Tom by Friday about the boiler":        "due by Friday: Fri 27 Nov 2026 > Email Tom about the boiler",
		"Friday call Ines":                            "due Friday: Fri 27 Nov 2026 > call Ines",
		"Read the report 20 min":                      "estimate 20 min: 20 min > Read the report",
		"Mend the lens high":                          "priority high: high > Mend the lens",
		"Mend the lens in Night Signals":              "list in Night Signals: Night Signals > Mend the lens",
		"Prepare slides for Friday":                   "due Friday: Fri 27 Nov 2026 > Prepare slides for Friday",
		"Move the meeting to Thursday 3pm":            "due Thursday 3pm: Thu 26 Nov 2026, 15:00 > Move the meeting to Thursday 3pm",
		"Ask what happened tomorrow":                  "due tomorrow: Wed 25 Nov 2026 > Ask what happened",
		"Ring every Monday the framer":                "repeat every Monday: every Monday, first Mon 30 Nov 2026 > Ring the framer",
		"Email Tom by Friday about it -- second time": "due by Friday: Fri 27 Nov 2026 > Email Tom about it",
		"Mend the lens high, #calls":                  "priority high: high > Mend the lens",
		// Not even offered.
		"Sort photos of last Friday":              "",
		"Discuss the Friday plan":                 "",
		"Plans since Monday":                      "",
		"Write May report":                        "",
		"Walk 20 min round the pond":              "",
		"Set the shelf high up":                   "",
		"Order lamps, oil, wicks":                 "",
		"Ring the insurer tomorrow 3pm":           "",
		"Move it to Thursday, by Friday":          "", // the due is said already
		`Read "by Friday" aloud`:                  "",
		"Prepare the talk for 31 February at six": "",
	} {
		var got []string
		for _, o := range capture.Offers(sentence, env) {
			after := capture.Read(o.Taken, env)
			if sentence[o.Spans[0].Start:o.Spans[0].End] != o.Words {
				t.Errorf("%q: the words %q do not stand at %v", sentence, o.Words, o.Spans)
			}
			if before := capture.Read(sentence, env); before.Notes != after.Notes {
				t.Errorf("%q: the notes %q become %q", sentence, before.Notes, after.Notes)
			}
			got = append(got, string(o.Field)+" "+o.Words+": "+o.Value+" > "+after.Title)
		}
		if s := strings.Join(got, "; "); s != want {
			t.Errorf("%q offers\n %s\nwant\n %s", sentence, s, want)
		}
	}
}
