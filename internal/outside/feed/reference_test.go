package feed_test

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/outside/feed"
)

// differences are where ical.js reads something else, by the event, with the reason.
var differences = map[string]string{
	"event-67":  twice,
	"event-157": twice,
	"event-217": twice,
	"event-207": "a time in a gap is reckoned with the offset before it (RFC 5545 section 3.3.5)",
	"event-1":   exact,
	"event-111": exact,
	"event-219": exact,
}

const (
	twice = "of a time that exists twice the first is meant (RFC 5545 section 3.3.5)"
	exact = "an end is as many hours after the start as of the first occurrence, also across a change (RFC 5545 section 3.8.5.3)"
)

// The awkward events of testdata/awkward.ics over a year, compared with what ical.js 2.2.1
// makes of them (testdata/ical.txt, written by web/reference/events.mjs).
func TestAgainstAnotherReader(t *testing.T) {
	text, err := os.ReadFile("testdata/awkward.ics")
	if err != nil {
		t.Fatal(err)
	}
	kept, err := os.ReadFile("testdata/ical.txt")
	if err != nil {
		t.Fatal(err)
	}
	year := app.Window{Local: time.UTC, From: time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC), To: time.Date(2027, 1, 1, 0, 0, 0, 0, time.UTC)}
	read, err := feed.NewReader(false).Read(text, year)
	if err != nil || len(read.Problems) > 0 {
		t.Fatal(err, read.Problems)
	}
	got := map[string][]string{}
	for _, e := range read.Events {
		if e.AllDay && (!e.To.After(year.From) || !e.From.Before(year.To)) {
			continue // in the window of a zone west or east of this one
		}
		got[e.UID] = append(got[e.UID], fmt.Sprintf("%d\t%d", e.From.Unix(), e.To.Unix()))
	}
	want := map[string][]string{}
	for line := range strings.Lines(string(kept)) {
		uid, times, _ := strings.Cut(strings.TrimSpace(line), "\t")
		want[uid] = append(want[uid], times)
	}
	if len(want) < 150 {
		t.Fatalf("only %d events are compared", len(want))
	}
	for uid := range want {
		if got[uid] == nil {
			got[uid] = nil
		}
	}
	differ := 0
	for uid := range got {
		slices.Sort(got[uid])
		slices.Sort(want[uid])
		if slices.Equal(got[uid], want[uid]) == (differences[uid] == "") {
			continue
		}
		if differ++; differ > 12 {
			continue
		}
		t.Errorf("%s: differs %t\n%s\n%s", uid, differences[uid] == "", first(got[uid], want[uid]), eventOf(string(text), uid))
	}
	t.Logf("%d events and %d occurrences compared; %d differ, %d of them named", len(got), len(read.Events), differ, len(differences))
}

// first says where two readings part.
func first(got, want []string) string {
	for i := range max(len(got), len(want)) {
		g, w := "none", "none"
		if i < len(got) {
			g = got[i]
		}
		if i < len(want) {
			w = want[i]
		}
		if g != w {
			return fmt.Sprintf("%d and %d; at %d: %s, the other reads %s", len(got), len(want), i, at(g), at(w))
		}
	}
	return ""
}

func at(times string) string {
	var from, to int64
	if n, _ := fmt.Sscanf(times, "%d\t%d", &from, &to); n < 2 {
		return times
	}
	return time.Unix(from, 0).UTC().Format(time.RFC3339) + " to " + time.Unix(to, 0).UTC().Format(time.RFC3339)
}

// eventOf is the text of an event.
func eventOf(text, uid string) string {
	var found []string
	for _, part := range strings.Split(text, "BEGIN:VEVENT") {
		if strings.Contains(part, "UID:"+uid+"\r\n") {
			part, _, _ = strings.Cut(part, "END:VEVENT")
			found = append(found, strings.ReplaceAll(part, "\r", ""))
		}
	}
	return strings.Join(found, "--")
}
