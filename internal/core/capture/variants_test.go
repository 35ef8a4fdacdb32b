package capture_test

import (
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

// inSmallLetters are the sentences of the tables that read otherwise in small letters, and
// what they read then: capitals tell sat and sun from days, a list's name in a run from words, titles of works from days, EOD from a word, and Richard the 3rd from a day.
var inSmallLetters = map[string]string{
	"Send labels Sat":                    "send labels sat",
	"Send labels Sun":                    "send labels sun",
	"every Friday 16h in Choir rehearse": "in choir rehearse | due 2026-11-27t16:00 | repeat freq=weekly;byday=fr first 2026-11-27",
	"Tomorrow at 9 in Choir sing":        "in choir sing | due 2026-11-25t09:00",
	"send it by EOW":                     "send it by eow", "close the books by EOM": "close the books by eom",
	"close the books EOM":                              "close the books eom",
	"Friday ring Ada":                                  "friday ring ada",
	"Write the labels, plan 2026-W50":                  "write the labels, plan 2026-w50",
	"Ring the vet EOD Friday":                          "ring the vet eod | due 2026-11-27",
	"Buy the bust of Henry the 8th":                    "buy the bust of henry | due 2026-12-08",
	"Read about Elizabeth the 2nd":                     "read about elizabeth | due 2026-12-02",
	"Invite Jo, Sam, April":                            "invite jo, sam | plan 2027-04",
	"Ask Ida, June, Max":                               "ask ida, max | plan 2027-06",
	"Portrait of Richard the 3rd":                      "portrait of richard | due 2026-12-03",
	"Ring the insurer by Friday in Night Signals":      "ring the insurer by friday in night signals",
	"Ring the insurer in Night Signals by Friday high": "ring the insurer in night signals | due 2026-11-27 | high",
	"Ring the framer by Friday 4pm in Night Signals high 20 min #calls remind me 1 hour before": "ring the framer by friday 4pm in night signals high 20 min remind me 1 hour before | #calls",
	"Read Friday Night": "read | due 2026-11-27t20:00", "Watch Tomorrow": "watch | due 2026-11-25", "Practise Amber Tuesday": "practise amber | due 2026-12-01",
	"Listen to Grey Monday": "listen to grey | due 2026-11-30", "Borrow A Clerk Called Friday": "borrow a clerk called | due 2026-11-27",
	"See Harbour Saturday": "see harbour | due 2026-11-28", "Play Slow Tuesday": "play slow | due 2026-12-01", "Download Long Friday": "download long | due 2026-11-27",
}

// leftAlone is the tables of what must not be read, as those of what is.
func leftAlone() []table {
	var all []table
	for _, t := range leftTables {
		rows := make([]row, len(t.rows))
		for i, r := range t.rows {
			rows[i] = row{r.sentence, r.sentence}
		}
		all = append(all, table{t.name, at(tuesday), rows})
	}
	return all
}

// The tables hold enough sentences, and enough of them of which nothing must be read.
func TestHowMany(t *testing.T) {
	all, left := 0, 0
	for _, table := range slices.Concat(tables, leftAlone()) {
		for _, row := range table.rows {
			if all++; row.sentence == row.want {
				left++
			}
		}
	}
	if all < 900 || left < 300 {
		t.Errorf("%d sentences, %d of them to be left alone; 900 and 300 are wanted", all, left)
	}
	t.Logf("%d sentences, %d of them to be left alone", all, left)
}

func TestInSmallLetters(t *testing.T) {
	read, other := 0, 0
	for _, table := range slices.Concat(tables, leftAlone()) {
		for _, row := range table.rows {
			if strings.ContainsAny(row.sentence, "\"“") || strings.Contains(row.sentence, "--") {
				continue // quotes and notes keep what they hold
			}
			read++
			got, want := strings.ToLower(brief(capture.Read(strings.ToLower(row.sentence), table.env))), strings.ToLower(row.want)
			if listed, differs := inSmallLetters[row.sentence]; differs {
				want = listed
				other++
			}
			if strings.TrimSpace(got) != strings.TrimSpace(want) {
				t.Errorf("%q in small letters reads\n %s\nwant\n %s", row.sentence, got, want)
			}
		}
	}
	if other != len(inSmallLetters) {
		t.Errorf("%d sentences are listed, and %d of them are in the tables", len(inSmallLetters), other)
	}
	t.Logf("%d sentences, %d of them read otherwise", read, other)
}

// The run of fields at the end of a title means the same in a clause of its own.
func TestRunsBehindACommaAreTheSame(t *testing.T) {
	read := 0
	for _, table := range tables {
		for _, row := range table.rows {
			d := capture.Read(row.sentence, table.env)
			run, begins := strings.CutPrefix(row.sentence, d.Title)
			run = strings.Trim(strings.TrimSpace(run), "().!?")
			if strings.ContainsAny(row.sentence, "\"“") || strings.Contains(row.sentence, "--") || !begins ||
				len(d.Chips) == 0 || len(d.Problems) > 0 || run == "" || strings.IndexByte(",;-", run[0]) >= 0 {
				continue
			}
			read++
			if got, want := brief(capture.Read(d.Title+", "+run, table.env)), brief(d); got != want {
				t.Errorf("%q with its run behind a comma reads\n %s\nwant\n %s", row.sentence, got, want)
			}
		}
	}
	if read < 300 {
		t.Errorf("%d sentences; at least 300 are wanted", read)
	}
	t.Logf("%d sentences", read)
}
