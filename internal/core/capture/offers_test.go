package capture_test

import (
	"fmt"
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
		"Friday call centre":                          "due Friday: Fri 27 Nov 2026 > call centre",
		"Read the report 20 min":                      "estimate 20 min: 20 min > Read the report",
		"Mend the lens high":                          "priority high: high > Mend the lens",
		"Mend the lens in Night Signals":              "list in Night Signals: Night Signals > Mend the lens",
		"Prepare slides for Friday":                   "due Friday: Fri 27 Nov 2026 > Prepare slides for Friday",
		"Move the meeting to Thursday 3pm":            "due Thursday 3pm: Thu 26 Nov 2026, 15:00 > Move the meeting to Thursday 3pm",
		"Ask what happened tomorrow":                  "due tomorrow: Wed 25 Nov 2026 > Ask what happened",
		"Ring every Monday the framer":                "repeat every Monday: every Monday, first Mon 30 Nov 2026 > Ring the framer",
		"Email Tom by Friday about it -- second time": "due by Friday: Fri 27 Nov 2026 > Email Tom about it",
		"Mend the lens high, #calls":                  "priority high: high > Mend the lens",
		// Names that nobody has yet, and a start that several have.
		"Order seed, in Garden":                 "list in Garden: Garden, a new list > Order seed",
		"Order seed, in House and Garden, high": "list in House and Garden: House and Garden, a new list > Order seed",
		"Ring the mill, ask Jonas":              "person ask Jonas: ask Jonas, a new person > Ring the mill",
		"waiting on Ines":                       "person waiting on Ines: waiting on Ines, a new person > waiting on Ines",
		"Waiting on Ines, crate sizes":          "person Waiting on Ines: waiting on Ines, a new person > Waiting on Ines, crate sizes",
		"in Garden, sow beans":                  "list in Garden: Garden, a new list > sow beans",
		"in Garden":                             "",
		"In May, prune":                         "plan In May: May 2027 > prune",
		"Ask Ida, June, Max":                    "",
		"Waiting on Ines (new), crate sizes":    "",
		"Ring the mill, waiting on the framer":  "person waiting on the framer: waiting on Framer, a new person > Ring the mill",
		"Crate sizes, ask Inês":                 "person ask Inês: ask Inês Prado > Crate sizes; person ask Inês: ask Inês Duarte > Crate sizes",
		"Order board, in Friday":                "due Friday: Fri 27 Nov 2026 > Order board, in Friday",
		// Another value of what was read.
		"Ring Bo at 3":                     "due at 3: Wed 25 Nov 2026, 03:00 > Ring Bo",
		"Ring Bo tomorrow at 8":            "due tomorrow at 8: Wed 25 Nov 2026, 20:00 > Ring Bo",
		"Ring Bo half past 4 tomorrow":     "",
		"Ring Bo Thursday 5:15":            "due Thursday 5:15: Thu 26 Nov 2026, 05:15 > Ring Bo",
		"Ring Bo on Tuesday 4pm":           "due on Tuesday 4pm: Tue 24 Nov 2026, 16:00 > Ring Bo",
		"Air the store every day at 7":     "repeat at 7: every day, first Tue 24 Nov 2026, 19:00 > Air the store",
		"Ring Bo, remind me Thursday at 9": "reminder remind me Thursday at 9: Thu 26 Nov 2026, 21:00 > Ring Bo",
		"remind me to ring Bo":             "reminder remind me to: Wed 25 Nov 2026, 09:00 > ring Bo",
		// A date and its time, at both ends.
		"Weekly report 3pm":              "repeat Weekly, 3pm: every week, first Tue 24 Nov 2026, 15:00 > report",
		"May we ask June to sing at 3pm": "",
		"Friday call centre at 3pm":      "due Friday, at 3pm: Fri 27 Nov 2026, 15:00 > call centre",
		"30 Nov opening at 7pm high":     "due 30 Nov, at 7pm: Mon 30 Nov 2026, 19:00 > opening high; priority high: high > 30 Nov opening at 7pm",
		"Hold the parcel until Friday":   "start until Friday: Fri 27 Nov 2026 > Hold the parcel",
		"Swim 20m tomorrow":              "estimate 20m: 20 min > Swim",
		"Read the report high 20 min":    "priority high: high > Read the report 20 min; estimate 20 min: 20 min > Read the report high",
		"Water the beds first of the month": "due first of the month: Tue 1 Dec 2026 > Water the beds; " +
			"repeat first of the month: every month on the 1st, first Tue 1 Dec 2026 > Water the beds",
		"Pay the rent on the 3rd of the month": "due on the 3rd of the month: Thu 3 Dec 2026 > Pay the rent; " +
			"repeat on the 3rd of the month: every month on the 3rd, first Thu 3 Dec 2026 > Pay the rent",
		"Order lamp oil 6d":   "due 6d: Mon 30 Nov 2026 > Order lamp oil",
		"Order lamp oil (2w)": "due (2w): Tue 8 Dec 2026 > Order lamp oil",
		// Not even offered.
		"Send the letter of the 1st of the month": "",
		"Order a 6d":                              "",
		"Level 6d is wrong":                       "",
		"Ring Bo Thursday 8:15":                   "",
		"Ring Bo tonight at 8":                    "",
		"Ring Bo on Tuesday 8am":                  "", // it has passed
		"Set lamps, in the cellar":                "",
		"Ring the bank, ask for a refund":         "",
		"Ring the bank, ask the clerk about fees": "",
		"Feed the cat three times a day":          "",
		"Water the beds every day until Friday":   "",
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
			var stand []string
			for _, s := range o.Spans {
				stand = append(stand, sentence[s.Start:s.End])
			}
			if strings.Join(stand, ", ") != o.Words {
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

// What has to be chosen first says what to choose, and what the sentence is without it.
func TestOffersToChoose(t *testing.T) {
	for sentence, want := range map[string]string{
		"Water the beds twice a week":         "twice a week: on which days; Water the beds",
		"Dust three times a month the frames": "three times a month: on which days; Dust the frames",
		"Team lunch biweekly, in Choir":       "biweekly: every two weeks, or twice a week; Team lunch, in Choir",
	} {
		offers := capture.Offers(sentence, at(tuesday))
		if len(offers) != 1 || !offers[0].Choose || offers[0].Taken != "" || offers[0].Field != capture.FieldRepeat {
			t.Errorf("%q offers %+v", sentence, offers)
			continue
		}
		if got := offers[0].Words + ": " + offers[0].Value + "; " + offers[0].Without; got != want {
			t.Errorf("%q offers\n %s\nwant\n %s", sentence, got, want)
		}
	}
}

// Names that are made with the to-do, or are known by now.
func TestNewNames(t *testing.T) {
	for sentence, want := range map[string]string{
		"Order seed, in Garden (new)":                            "Garden true, 0  false",
		"Order seed, in garden shed (new), high":                 "garden shed true, 0  false",
		"Order seed, in choir (new)":                             "Choir false, 0  false",
		"Order seed, ask the framer (new)":                       " false, 1 Framer true",
		"Order seed, waiting on Bo Lind (new)., tomorrow":        " false, 2 Bo Lind true",
		"Order seed, ask registrar (new)":                        " false, 1 Registrar false",
		"Order seed, in Garden (new), ask Bo (new)":              "Garden true, 1 Bo true",
		"in Garden (new)":                                        " false, 0  false",
		"Order seed in Garden (new)":                             " false, 0  false",
		"Order seed, in one two three four five six seven (new)": " false, 0  false",
		`Order seed, in "Garden" (new)`:                          " false, 0  false",
	} {
		d := capture.Read(sentence, at(tuesday))
		got := fmt.Sprintf("%s %v, %d %s %v", d.List, d.NewList, d.Person.Role, d.Person.Name, d.Person.New)
		if got != want {
			t.Errorf("%q reads %s; want %s", sentence, got, want)
		}
		if said := capture.Read(capture.Say(d, at(tuesday)), at(tuesday)); said.List != d.List || said.NewList != d.NewList || said.Person != d.Person || said.Title != d.Title {
			t.Errorf("%q is said back as %q", sentence, capture.Say(d, at(tuesday)))
		}
	}
}
