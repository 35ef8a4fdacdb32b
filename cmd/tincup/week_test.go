package main_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

const week = `{"now": "2026-11-24T09:10", "zone": "Europe/Lisbon", "days": 5,
 "hours": {"tue": [["09:00","12:00"]], "wed": [["09:00","12:00"]], "thu": [["09:00","12:00"]], "fri": [["09:00","12:00"]], "2026-11-26": []},
 "busy": [["2026-11-25T10:00","2026-11-25T11:30"]],
 "jobs": [%s]}`

// weekSaid is what explain week prints.
type weekSaid struct {
	Feasible    bool     `json:"feasible"`
	FirstMissed *string  `json:"first_missed"`
	LateBy      int      `json:"late_by"`
	Because     []string `json:"because"`
	Overdue     []string `json:"overdue"`
	Late        []string `json:"late"`
	Proved      bool     `json:"proved"`
	Plan        struct {
		Holds bool           `json:"holds"`
		Over  map[string]int `json:"over"`
	} `json:"plan"`
	Load     map[string]int       `json:"load"`
	Capacity map[string]int       `json:"capacity"`
	Level    map[string]string    `json:"level"`
	Fullest  float64              `json:"fullest"`
	Bound    float64              `json:"bound"`
	TooLong  []string             `json:"too_long"`
	Slots    map[string][2]string `json:"slots"`
}

func explainWeek(t *testing.T, input string) (status int, out weekSaid, errOut string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "week.json")
	if err := os.WriteFile(path, []byte(input), 0o600); err != nil {
		t.Fatal(err)
	}
	status, text, errOut := tincup(t, "explain", "week", path)
	if status != 2 {
		if err := json.Unmarshal([]byte(text), &out); err != nil {
			t.Fatalf("%v: %s", err, text)
		}
	}
	return status, out, errOut
}

func TestExplainWeek(t *testing.T) {
	status, out, errOut := explainWeek(t, fmt.Sprintf(week, `{"id":"labels","minutes":90,"due":"2026-11-24"},
		{"id":"loans","minutes":100,"due":"2026-11-24T12:00","priority":"high"}, {"id":"call","minutes":60,"due":"2026-11-27"},
		{"id":"late","minutes":30,"due":"2026-11-20","priority":9}, {"id":"book","minutes":500}, {"id":"away","minutes":20,"day":"2026-11-26"}`))
	if status != 3 || errOut != "" {
		t.Fatalf("status %d, %s", status, errOut)
	}
	if out.Feasible || out.FirstMissed == nil || *out.FirstMissed != "2026-11-24T12:00" || out.LateBy != 50 {
		t.Errorf("first missed %v by %d", out.FirstMissed, out.LateBy)
	}
	for what, pair := range map[string][2]string{
		"because": {fmt.Sprint(out.Because), "[labels loans]"}, "overdue": {fmt.Sprint(out.Overdue), "[late]"}, "late": {fmt.Sprint(out.Late), "[labels]"},
		"too long": {fmt.Sprint(out.TooLong), "[book]"}, "capacity": {fmt.Sprint(out.Capacity), "map[2026-11-24:170 2026-11-25:90 2026-11-26:0 2026-11-27:180 2026-11-28:0]"},
		"load": {fmt.Sprint(out.Load), "map[2026-11-24:220 2026-11-25:0 2026-11-26:20 2026-11-27:60 2026-11-28:0]"},
		"over": {fmt.Sprint(out.Plan.Over), "map[2026-11-24:50 2026-11-26:20]"}, "call": {out.Level["call"], "2026-11-27"},
	} {
		if pair[0] != pair[1] {
			t.Errorf("%s: %s; want %s", what, pair[0], pair[1])
		}
	}
	if !out.Proved || out.Plan.Holds || out.Bound > out.Fullest {
		t.Errorf("proved %t, holds %t, fullest %v, bound %v", out.Proved, out.Plan.Holds, out.Fullest, out.Bound)
	}
	status, out, _ = explainWeek(t, fmt.Sprintf(week, `{"id":"call","minutes":60,"due":"2026-11-27"}`))
	if status != 0 || !out.Feasible || out.FirstMissed != nil || len(out.Late) > 0 || out.Slots["call"] != [2]string{"2026-11-27T09:00", "2026-11-27T10:00"} {
		t.Errorf("status %d, %+v", status, out)
	}
}

// From a data file: its to-dos with the hours of its settings.
func TestExplainWeekOfADataFile(t *testing.T) {
	db := filepath.Join(t.TempDir(), "book.db")
	for _, sentence := range []string{"Label text, today, 9 h", "Hang the lamps, plan tomorrow, 2 h"} {
		if status, _, errOut := tincup(t, "add", "--db", db, "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", sentence); status != 0 {
			t.Fatal(errOut)
		}
	}
	status, text, errOut := tincup(t, "explain", "week", "--db", db, "--now", "2026-11-24T09:00", "--zone", "Europe/Lisbon", "--days", "3")
	var out weekSaid
	if err := json.Unmarshal([]byte(text), &out); err != nil || status != 3 || errOut != "" {
		t.Fatalf("status %d, %v, %s%s", status, err, errOut, text)
	}
	if len(out.Late) != 1 || out.LateBy != 90 || fmt.Sprint(out.Load) != "map[2026-11-24:540 2026-11-25:120 2026-11-26:0]" || out.Capacity["2026-11-25"] != 450 {
		t.Errorf("%+v", out)
	}
	// Its to-dos are named by their ids, as they are written everywhere.
	if !regexp.MustCompile(`^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$`).MatchString(out.Late[0]) {
		t.Errorf("late is %q", out.Late[0])
	}
	for _, args := range [][]string{{"explain", "week"}, {"explain", "week", "-", "--db", db}, {"explain", "week", "--db", db, "--days", "0"}} {
		if status, _, errOut := tincup(t, args...); status != 2 || errOut == "" {
			t.Errorf("%v: status %d, %s", args, status, errOut)
		}
	}
}

func TestExplainWeekOfBadInput(t *testing.T) {
	jobs := func(more string) string { return fmt.Sprintf(week, `{"id":"a","minutes":60`+more+`}`) }
	hours := func(h string) string { return `{"now":"2026-11-24T09:10","hours":{"mon":` + h + `},"jobs":[]}` }
	for input, says := range map[string]string{
		"{": "cannot be read", `{"mood":1}`: "mood", `[]`: "cannot be read", "": "cannot be read",
		hours(`[["09:00","12:00"],["11:00","13:00"]]`): "hours.mon: the hours 09:00-12:00 and 11:00-13:00 overlap",
		hours(`[["12:00","09:00"]]`):                   "end before they begin", hours(`[["09:00","25:00"]]`): "25:00",
		hours(`[["09:00"]]`): "two ends", hours(`"all day"`): "a list of stretches is wanted",
		`{"hours":{"monday":[]}}`: "neither a weekday", `{"zone":"Mars/Olympus"}`: "not a time zone", `{"now":"noon"}`: "now:", `{"days":0}`: "days: 0",
		`{"days":9999}`: "days: 9999", `{"days":"seven"}`: "days", `{"busy":[["2026-11-25","2026-11-24"]]}`: "busy[0]: it ends", `{"busy":[[]]}`: "busy[0]: two ends",
		jobs(`,"due":"friday"`): "jobs[0].due", jobs(`,"release":"2026-13-01"`): "jobs[0].release", jobs(`,"priority":"urgent"`): "priority",
		jobs(`,"day":"2026-W48"`): "jobs[0].day", jobs(`,"after":["b"]`): "there is no job", jobs(`,"after":["a"]`): "waits for itself",
		jobs(`,"length":3`): "jobs[0]: the JSON cannot be read", jobs(`},{"id":"a","minutes":5`): "two jobs have it",
		fmt.Sprintf(week, `{"id":"a","minutes":0}`): "minutes: 0 minutes", fmt.Sprintf(week, `{"minutes":5}`): "jobs[0].id",
		fmt.Sprintf(week, `{"id":"a","minutes":1e9}`): "minutes", fmt.Sprintf(week, strings.Repeat(`{"id":"a","minutes":5},`, 5000)+`{"id":"b","minutes":5}`): "5000 is the most",
	} {
		status, _, errOut := explainWeek(t, input)
		if status != 2 || !strings.Contains(errOut, says) {
			t.Errorf("%.60s: status %d, %s; want %q", input, status, errOut, says)
		}
	}
	// No working hours at all, a job of 10,000 minutes, a due in the past: answered.
	for _, input := range []string{`{"hours":{},"jobs":[{"id":"a","minutes":10000,"due":"2020-01-01"}]}`, `{}`} {
		if status, _, errOut := explainWeek(t, input); status == 2 || errOut != "" {
			t.Errorf("%s: status %d, %s", input, status, errOut)
		}
	}
}
