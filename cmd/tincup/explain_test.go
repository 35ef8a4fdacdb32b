package main_test

import (
	"encoding/json"
	"reflect"
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
	want := map[string]any{"title": "Order mount board", "notes": "two sheets", "list": "Night Signals", "due": "2026-11-27T16:00",
		"start": "2026-11-24", "plan": "2026-11-25", "priority": "high", "tags": []any{"suppliers"}, "estimate": 20.0,
		"repeat":    map[string]any{"rule": "FREQ=WEEKLY;INTERVAL=2", "first": "2026-11-27", "anchor": "schedule", "lead": 3.0},
		"person":    map[string]any{"name": "Registrar", "role": "waiting on"},
		"reminders": []any{"-PT1H"}, "problems": []any{}}
	if !reflect.DeepEqual(got, want) {
		t.Errorf("it prints\n%v\nwant\n%v", got, want)
	}
	first := chips[0].(map[string]any)
	if len(chips) != 10 || !reflect.DeepEqual(first, map[string]any{"field": "due", "words": "by Friday 4pm", "value": "Fri 27 Nov 2026, 16:00"}) {
		t.Errorf("%d chips, the first %v", len(chips), first)
	}

	_, out, _ = tincup(t, "explain", "capture", "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", "--month-first", "Pay 2/30")
	for _, part := range []string{`"priority": "none"`, `"list": null`, `"due": null`, `"repeat": null`, `"estimate": null`, `"person": null`,
		`"tags": []`, `"reminders": []`, `"words": "2/30"`, `"reason": "There is no day “2/30”."`} {
		if !strings.Contains(out, part) {
			t.Errorf("%s is not in %s", part, out)
		}
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
