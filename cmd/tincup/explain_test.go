package main_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"
)

func TestExplainCapture(t *testing.T) {
	status, out, errOut := tincup(t, "explain", "capture", "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon",
		"--list", "Night Signals", "--person", "Registrar",
		"Order mount board, by Friday 4pm, in night signals, high, #suppliers, 20 min, waiting on registrar, every 2 weeks, 3 days ahead, remind me 1 hour before, plan tomorrow -- two sheets")
	if status != 0 || errOut != "" {
		t.Fatalf("status %d, %s", status, errOut)
	}
	var got map[string]any
	if err := json.Unmarshal([]byte(out), &got); err != nil {
		t.Fatalf("%s: %v", out, err)
	}
	chips := got["chips"].([]any)
	delete(got, "chips")
	if said := "Order mount board #suppliers, every 2 weeks from 27 Nov 2026, 3 days ahead, 16:00, plan 25 Nov 2026, high, in Night Signals, 20 min, waiting on Registrar, remind me 1 hour before -- two sheets"; got["said"] != said {
		t.Errorf("it is said back as %s", got["said"])
	}
	delete(got, "said")
	want := map[string]any{"title": "Order mount board", "notes": "two sheets", "list": "Night Signals", "due": "2026-11-27T16:00",
		"start": "2026-11-24", "plan": "2026-11-25", "priority": "high", "tags": []any{"suppliers"}, "estimate": 20.0,
		"repeat":    map[string]any{"rule": "FREQ=WEEKLY;INTERVAL=2", "first": "2026-11-27", "anchor": "schedule", "lead": 3.0},
		"person":    map[string]any{"name": "Registrar", "role": "waiting on"},
		"reminders": []any{"-PT1H"}, "problems": []any{}, "offers": []any{}, "version": 1.0, "ok": true, "kind": "to-do",
		"now": "2026-11-24T09:00:00", "zone": "Europe/Lisbon"}
	if !reflect.DeepEqual(got, want) {
		t.Errorf("it prints\n%v\nwant\n%v", got, want)
	}
	first := chips[0].(map[string]any)
	if len(chips) != 10 || !reflect.DeepEqual(first, map[string]any{"field": "due", "words": "by Friday 4pm",
		"spans": []any{[]any{19.0, 32.0}}, "value": "2026-11-27T16:00", "text": "Fri 27 Nov 2026, 16:00"}) {
		t.Errorf("%d chips, the first %v", len(chips), first)
	}

	status, out, errOut = tincup(t, "explain", "capture", "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", "--month-first", "Pay 2/30")
	if status != 3 || errOut != "" {
		t.Errorf("of what would be refused the status is %d, and it says %q", status, errOut)
	}
	for _, part := range []string{`"priority": "none"`, `"list": null`, `"due": null`, `"repeat": null`, `"estimate": null`, `"person": null`,
		`"tags": []`, `"reminders": []`, `"words": "2/30"`, `"reason": "There is no day “2/30”."`, `"code": "no-date"`, `"field": "due"`, `"ok": false`} {
		if !strings.Contains(out, part) {
			t.Errorf("%s is not in %s", part, out)
		}
	}
}

func TestExplainLines(t *testing.T) {
	lines := "Bücher zurück Friday\n\nRead the report 20 min\r\nPay 31 February\n- buy milk tomorrow"
	status, out, errOut := tincupReading(t, lines, "explain", "capture", "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", "-")
	if status != 3 || errOut != "" {
		t.Errorf("status %d, %q", status, errOut)
	}
	var got []string
	for line := range strings.Lines(out) {
		var e struct {
			OK     bool
			Title  string
			Due    string
			Chips  []struct{ Spans [][2]int }
			Offers []struct {
				Words string
				Value any
			}
		}
		if err := json.Unmarshal([]byte(line), &e); err != nil {
			t.Fatalf("%s: %v", line, err)
		}
		got = append(got, fmt.Sprint(e.OK, " ", e.Title, " ", e.Due, " ", e.Chips, " ", e.Offers))
	}
	want := []string{
		"true Bücher zurück 2026-11-27 [{[[14 20]]}] []",
		"true Read the report 20 min  [] [{20 min 20}]",
		"false Pay  [{[[4 15]]}] []",
		"true - buy milk 2026-11-25 [{[[11 19]]}] []",
	}
	if !slices.Equal(got, want) {
		t.Errorf("it prints\n%s\nwant\n%s", strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
	for sentence, part := range map[string]string{
		"Water the beds every day at 9am until Friday": `"rule": "FREQ=DAILY;UNTIL=20261127T090000"`, // of the kind of its first date
		"Water the beds every day until Friday":        `"rule": "FREQ=DAILY;UNTIL=20261127"`,
		"Order seed, in Garden (new)":                  `"newList": true`,
		"Order seed, in Garden":                        `"taken": "Order seed, in Garden (new)"`,
		"Order seed, ask Bo":                           `"new": true`,
	} {
		if status, out, _ := tincup(t, "explain", "capture", "--now", "2026-11-24T08:00", sentence); status != 0 || !strings.Contains(out, part) {
			t.Errorf("%s: status %d; %s is not in %s", sentence, status, part, out)
		}
	}
	if status, out, _ := tincup(t, "explain", "capture", "--now", "2026-11-24T09:00", "- buy milk tomorrow"); status != 0 || !strings.Contains(out, `"due": "2026-11-25"`) {
		t.Errorf("a dash at the start: status %d, %s", status, out)
	}
}

func TestAddSentencesThatLookLikeSomethingElse(t *testing.T) {
	db := filepath.Join(t.TempDir(), "mine.db")
	if status, out, errOut := tincup(t, "add", "--db", db, "- buy milk"); status != 0 || !strings.Contains(out, "buy milk") {
		t.Errorf("a dash at the start: status %d, %s%s", status, out, errOut)
	}
	status, _, errOut := tincup(t, "add", "--db", db, "Order glass\nRing the framer")
	if status != 2 || !strings.Contains(errOut, "several lines") {
		t.Errorf("two lines: status %d, %s", status, errOut)
	}
}

func TestExplainRepeat(t *testing.T) {
	for _, c := range []struct {
		args []string
		want string
	}{
		{[]string{"--rule", "FREQ=MONTHLY;BYDAY=-1FR", "--start", "2026-01-30", "--count", "3"}, "2026-01-30 2026-02-27 2026-03-27"},
		{[]string{"--rule", "FREQ=MONTHLY;BYDAY=-1FR", "--start", "2026-01-30", "--after", "2026-01-30", "--count", "2"}, "2026-02-27 2026-03-27"},
		{[]string{"--rule", "RRULE:FREQ=DAILY;UNTIL=20260103T080000Z", "--start", "2026-01-01", "--time", "09:00", "--zone", "Europe/Berlin"}, "2026-01-01 2026-01-02 2026-01-03"},
		{[]string{"--rule", "FREQ=DAILY;UNTIL=20260103T080000Z", "--start", "2026-01-01", "--time", "09:01", "--zone", "Europe/Berlin"}, "2026-01-01 2026-01-02"},
		{[]string{"--rule", "FREQ=DAILY;COUNT=2", "--start", "2026-01-01", "--after", "2026-01-02"}, ""},
		{[]string{"--rule", "FREQ=WEEKLY", "--start", "2026-01-01"},
			"2026-01-01 2026-01-08 2026-01-15 2026-01-22 2026-01-29 2026-02-05 2026-02-12 2026-02-19 2026-02-26 2026-03-05"},
	} {
		status, out, errOut := tincup(t, append([]string{"explain", "repeat"}, c.args...)...)
		if got := strings.Join(strings.Fields(out), " "); status != 0 || got != c.want {
			t.Errorf("%v: status %d, %q (%s); want %q", c.args, status, got, errOut, c.want)
		}
	}
}

func TestExplainRefuses(t *testing.T) {
	for _, c := range []struct {
		args []string
		says string
	}{
		{[]string{"repeat", "--rule", "FREQ=HOURLY", "--start", "2026-01-01"}, "more often than DAILY"},
		{[]string{"repeat", "--rule", "FREQ=DAILY", "--start", "2026-02-31"}, "does not exist in the calendar"},
		{[]string{"repeat", "--rule", "FREQ=DAILY"}, "--start"},
		{[]string{"repeat", "--rule", "FREQ=DAILY", "--start", "2026-01-01", "--count", "0"}, "--count is 0"},
		{[]string{"repeat", "--rule", "FREQ=DAILY", "--start", "2026-01-01", "--zone", "Atlantis"}, "not a time zone"},
		{[]string{"repeat", "--rule", "FREQ=DAILY", "--start", "2026-01-01", "--time", "25:00"}, "--time"},
		{[]string{"repeat", "--rule", "FREQ=DAILY", "--start", "2026-01-01", "--after", "soon"}, "--after"},
		{[]string{"repeat", "--rule", "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "--start", "2026-01-01"}, "never happens"},
		{[]string{"repeat", "--colour", "red"}, "unknown flag"},
		{[]string{"capture"}, "1 arg"},
		{[]string{"capture", "--now", "soon", "x"}, "--now"},
		{[]string{"capture", "--zone", "Atlantis", "x"}, "--zone"},
	} {
		status, out, errOut := tincup(t, append([]string{"explain"}, c.args...)...)
		if status != 2 || out != "" || !strings.Contains(errOut, c.says) || strings.Count(errOut, "\n") != 1 {
			t.Errorf("%v: status %d, %q, %q; want 2 and “%s” on one line", c.args, status, out, errOut, c.says)
		}
	}
}

func TestExplainFilter(t *testing.T) {
	folder := t.TempDir()
	write := func(text string) string {
		path := filepath.Join(folder, "filter.json")
		if err := os.WriteFile(path, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
		return path
	}
	db := filepath.Join(folder, "book.db")
	for _, sentence := range []string{"Ring the framer, by Friday 4pm #calls", "Water the seedlings every day", "Pay the rent, by Monday"} {
		if status, _, errOut := tincup(t, "add", "--db", db, "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", sentence); status != 0 {
			t.Fatal(errOut)
		}
	}
	for _, c := range []struct{ filter, want string }{
		{`{"all":[{"field":"due","op":"within-next","days":7},{"field":"repeating","op":"no"}]}`,
			`{"sentence":"Due within the next 7 days, and not repeating.","verdict":"possible","now":"possible","because":[],"matches":2}`},
		{`{"all":[{"field":"tag","op":"none"},{"field":"overdue","op":"yes"},{"field":"due","op":"none"}]}`,
			`{"sentence":"Untagged, and overdue, and without a due.","verdict":"never","now":"never","because":["/all/1","/all/2"],"matches":0}`},
		{`{"all":[{"field":"due","op":"on","date":"2026-12-24"},{"field":"due","op":"within-next","days":3}]}`,
			`{"sentence":"Due on Thu 24 Dec 2026, and due within the next 3 days.","verdict":"possible","now":"never","because":["/all/0","/all/1"],"matches":0}`},
	} {
		status, out, errOut := tincup(t, "explain", "filter", write(c.filter), "--db", db, "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon")
		var got, want any
		if json.Unmarshal([]byte(out), &got) != nil || json.Unmarshal([]byte(c.want), &want) != nil || status != 0 || !reflect.DeepEqual(got, want) {
			t.Errorf("%s\nstatus %d %s%s; want\n%s", c.filter, status, out, errOut, c.want)
		}
	}
	if status, out, _ := tincup(t, "explain", "filter", write(`{"any":[]}`)); status != 0 || !strings.Contains(out, `"matches": null`) {
		t.Errorf("without a file: status %d %s", status, out)
	}
	status, _, errOut := tincup(t, "explain", "filter", write(`{"all":[{"field":"mood","op":"yes"}]}`))
	if status != 2 || !strings.Contains(errOut, "/all/0/field: There is no field “mood”") {
		t.Errorf("a bad filter: status %d %s", status, errOut)
	}
	if status, _, errOut := tincup(t, "explain", "filter", filepath.Join(folder, "none.json")); status != 2 || !strings.Contains(errOut, "none.json") {
		t.Errorf("no file: status %d %s", status, errOut)
	}
}
