package question_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// What is wrong is said with where it stands.
func TestBadTrees(t *testing.T) {
	deep := strings.Repeat(`{"not":`, 1000) + `{"field":"overdue","op":"yes"}` + strings.Repeat("}", 1000)
	many := `{"all":[` + strings.Repeat(`{"field":"overdue","op":"yes"},`, 9_999) + `{"field":"overdue","op":"yes"}]}`
	long := strings.Repeat("x", 100_000)
	for _, c := range []struct{ name, json, path, says string }{
		{"nested 1,000 deep", deep, strings.Repeat("/not", question.MaxDepth+1), "nested more than 40 deep"},
		{"10,000 tests", many, "/all/300", "more than 300 tests"},
		{"an unknown field", `{"all":[{"field":"mood","op":"yes"}]}`, "/all/0/field", "no field “mood”"},
		{"an operator of another field", `{"field":"due","op":"contains"}`, "/op", "takes one of"},
		{"a malformed duration", `{"any":[{"field":"due","op":"before","date":"P7"}]}`, "/any/0/date", "not a duration"},
		{"a duration in months", `{"field":"due","op":"before","date":"P1M"}`, "/date", "not a duration"},
		{"an empty duration", `{"field":"due","op":"before","date":"P"}`, "/date", "not a duration"},
		{"a date that does not exist", `{"field":"due","op":"on","date":"2026-02-30"}`, "/date", "not a date"},
		{"no date", `{"field":"due","op":"on"}`, "/date", "missing"},
		{"a range the wrong way round", `{"field":"due","op":"between","date":"P3D","to":"P1D"}`, "/to", "ends before it begins"},
		{"a fixed range the wrong way round", `{"field":"due","op":"between","date":"2026-12-24","to":"2026-12-01"}`, "/to", "ends before it begins"},
		{"times the wrong way round", `{"field":"due","op":"time-between","from":"10:00","until":"09:00"}`, "/until", "ends before it begins"},
		{"a time that is none", `{"field":"due","op":"time-between","from":"25:00","until":"09:00"}`, "/from", "not a time"},
		{"a tag that is no id", `{"field":"tag","op":"any-of","values":["calls"]}`, "/values/0", "not the id of a tag"},
		{"no values", `{"field":"tag","op":"any-of","values":[]}`, "/values", "1 to 100 values"},
		{"an unknown priority", `{"field":"priority","op":"any-of","values":["high","urgent"]}`, "/values/1", "one of [none low medium high]"},
		{"text of 100 kB", `{"field":"text","op":"contains","text":"` + long + `"}`, "/text", "100000 characters; 500"},
		{"no text", `{"field":"text","op":"contains","text":" "}`, "/text", "missing"},
		{"too many days", `{"field":"due","op":"within-next","days":99999}`, "/days", "0 to 36500"},
		{"no minutes", `{"field":"estimate","op":"at-most"}`, "/minutes", "1 to 6000"},
		{"two things in one node", `{"all":[],"field":"overdue","op":"yes"}`, "", "A node is one of"},
		{"nothing in a node", `{"all":[{}]}`, "/all/0", "A node is one of"},
		{"an unknown part", `{"all":[{"field":"overdue","op":"yes","colour":"red"}]}`, "/all/0", "unknown field"},
		{"no object", `[1]`, "", "not a node"},
		{"JSON cut off", `{"all":[`, "", "not a node"},
	} {
		_, err := question.Parse([]byte(c.json))
		var pe *question.ParseError
		if !errors.As(err, &pe) || pe.Path != c.path || !strings.Contains(pe.Reason, c.says) {
			t.Errorf("%s: %.200v; want %q at %q", c.name, err, c.says, c.path)
		}
	}
}

// What lies on a bound is read and written again as it was; what lies just beyond is refused.
func TestBoundsOfTrees(t *testing.T) {
	values := func(n int) string {
		ids := make([]string, n)
		for i := range ids {
			ids[i] = fmt.Sprintf("%q", fmt.Sprintf("01936f00-0000-7000-8000-%012d", i))
		}
		return `{"field":"tag","op":"any-of","values":[` + strings.Join(ids, ",") + `]}`
	}
	text := func(n int) string { return `{"field":"text","op":"contains","text":"` + strings.Repeat("é", n) + `"}` }
	nested := func(n int) string {
		return strings.Repeat(`{"not":`, n) + `{"field":"overdue","op":"yes"}` + strings.Repeat("}", n)
	}
	inGroups := func(n int) string {
		return strings.Repeat(`{"all":[`, n) + `{"field":"overdue","op":"yes"}` + strings.Repeat("]}", n)
	}
	tests := func(n int) string {
		return `{"all":[` + strings.TrimSuffix(strings.Repeat(`{"field":"overdue","op":"no"},`, n), ",") + `]}`
	}
	for _, c := range []struct{ name, in, out string }{
		{"values", values(question.MaxValues), values(question.MaxValues + 1)},
		{"text", text(question.MaxText), text(question.MaxText + 1)},
		{"depth", nested(question.MaxDepth), nested(question.MaxDepth + 1)},
		{"depth of groups", inGroups(question.MaxDepth), inGroups(question.MaxDepth + 1)},
		{"tests", tests(question.MaxTests), tests(question.MaxTests + 1)},
		{"days", `{"field":"due","op":"within-next","days":36500}`, `{"field":"due","op":"within-next","days":36501}`},
		{"no days", `{"field":"due","op":"within-past","days":0}`, `{"field":"due","op":"within-past","days":-1}`},
		{"a duration", `{"field":"due","op":"before","date":"P36500D"}`, `{"field":"due","op":"before","date":"P36501D"}`},
		{"a past one", `{"field":"due","op":"before","date":"-P36500D"}`, `{"field":"due","op":"before","date":"-P36501D"}`},
		{"minutes", `{"field":"estimate","op":"at-most","minutes":6000}`, `{"field":"estimate","op":"at-most","minutes":6001}`},
		{"a minute", `{"field":"estimate","op":"at-least","minutes":1}`, `{"field":"estimate","op":"at-least","minutes":0}`},
		{"a range of one day", `{"field":"plan","op":"between","date":"P1D","to":"P1D"}`, `{"field":"plan","op":"between","date":"P2D","to":"P1D"}`},
		{"a fixed one", `{"field":"plan","op":"between","date":"2026-12-01","to":"2026-12-01"}`, `{"field":"plan","op":"between","date":"2026-12-02","to":"2026-12-01"}`},
		{"a minute of the day", `{"field":"due","op":"time-between","from":"09:00","until":"09:00"}`, `{"field":"due","op":"time-between","from":"09:01","until":"09:00"}`},
		{"two lines", `{"field":"text","op":"contains","text":"a b"}`, `{"field":"text","op":"contains","text":"a\nb"}`},
	} {
		tree, err := question.Parse([]byte(c.in))
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		again, err := question.Parse([]byte(write(t, tree)))
		if err != nil || write(t, again) != write(t, tree) {
			t.Errorf("%s comes back as %s, %v", c.name, write(t, again), err)
		}
		var wrong *question.ParseError
		if _, err := question.Parse([]byte(c.out)); !errors.As(err, &wrong) {
			t.Errorf("%s: what lies beyond is read: %v", c.name, err)
		}
	}
	// Weeks are days; fixed and counted ends are compared only with their like.
	for in, want := range map[string]string{
		`{"field":"due","op":"on","date":"-P2W"}`:                              `{"date":"-P14D","field":"due","op":"on"}`,
		`{"field":"due","op":"between","date":"2026-12-24","to":"P1D"}`:        `{"date":"2026-12-24","field":"due","op":"between","to":"P1D"}`,
		`{"field":"role","op":"any-of","values":["waiting on","ask"]}`:         `{"field":"role","op":"any-of","values":["waiting on","ask"]}`,
		`{"any":[{"not":{"field":"paused","op":"no"}},{"all":[]},{"any":[]}]}`: `{"any":[{"not":{"field":"paused","op":"no"}},{"all":[]},{"any":[]}]}`,
		`{"field":"due","op":"time-between","from":"08:00","until":"09:30"}`:   `{"field":"due","from":"08:00","op":"time-between","until":"09:30"}`,
		`{"field":"estimate","op":"at-most","minutes":20}`:                     `{"field":"estimate","minutes":20,"op":"at-most"}`,
		`{"field":"due","op":"within-next","days":7}`:                          `{"days":7,"field":"due","op":"within-next"}`,
		`{"field":"text","op":"contains","text":"lamp"}`:                       `{"field":"text","op":"contains","text":"lamp"}`,
	} {
		if got := write(t, read(t, in)); got != want {
			t.Errorf("%s is written %s; want %s", in, got, want)
		}
	}
	if got := write(t, question.Tree{}); got != `{"all":[]}` {
		t.Errorf("nothing is written %s", got)
	}
}

// The fields and what each takes: a field that is gone, or asks otherwise, breaks saved views.
func TestFields(t *testing.T) {
	if n := len(question.Fields()); n != 29 {
		t.Errorf("there are %d fields", n)
	}
	for field, words := range map[question.Field]string{question.Priority: "none low medium high", question.Kind: "to-do note", question.Due: "",
		question.Status: "needs-action in-process completed cancelled", question.Concentration: "deep light"} {
		if got := strings.Join(field.Words(), " "); got != words {
			t.Errorf("%s takes %q", field, got)
		}
	}
}

func TestTreesTogether(t *testing.T) {
	late, paused := read(t, `{"field":"overdue","op":"yes"}`), read(t, `{"field":"paused","op":"no"}`)
	for want, got := range map[string]question.Tree{
		`{"all":[]}`: question.All(), `{"field":"overdue","op":"yes"}`: question.All(late, question.Tree{}),
		`{"all":[{"field":"overdue","op":"yes"},{"field":"paused","op":"no"}]}`: question.All(late, paused),
		`{"any":[{"field":"overdue","op":"yes"},{"field":"paused","op":"no"}]}`: question.Any(late, paused),
		`{"field":"paused","op":"no"}`:                                          question.Any(paused),
	} {
		if write(t, got) != want {
			t.Errorf("%s; want %s", write(t, got), want)
		}
	}
	if !question.All().IsZero() || !read(t, `{"all":[]}`).IsZero() || read(t, `{"any":[]}`).IsZero() || late.IsZero() {
		t.Error("only nothing, and all of nothing, ask nothing")
	}
	if !question.All(late, paused).Asks(question.Paused, question.Due) || late.Asks(question.Paused) {
		t.Error("it asks about what it asks")
	}
	tree := read(t, `{"all":[{"any":[{"field":"overdue","op":"yes"},{"not":{"field":"paused","op":"no"}}]},{"all":[{"field":"is-subtask","op":"no"}]}]}`)
	var seen []string
	tree.Walk(func(n *question.Node, positive bool) { seen = append(seen, fmt.Sprint(n.Path, positive)) })
	if got := strings.Join(seen, " "); got != "/all/0/any/0true /all/0/any/1/notfalse /all/1/all/0true" {
		t.Errorf("walked %s", got)
	}
	root := tree.Root()
	if n := root.At("/all/0/any/1/not"); n == nil || n.Test.Field != question.Paused {
		t.Error("the test under the not is not found")
	}
	if root.At("/all/7") != nil || root.At("/all/1/all/0").Test.Field != question.IsSubtask || root.At("") != root {
		t.Error("paths are found as they are written")
	}
	if root.Beside("/all/0/any/0", question.IsAll) || !root.Beside("/all/1/all/0", question.IsAll) || root.Beside("/all/9", question.IsAll) {
		t.Error("what stands beside in groups of all")
	}
	shut := read(t, `{"all":[{"not":{"field":"overdue","op":"yes"}},{"not":{"all":[{"field":"paused","op":"no"}]}}]}`).Root()
	if !shut.Beside("/all/0/not", question.IsAll) || shut.Beside("/all/1/not/all/0", question.IsAll) {
		t.Error("a not right before the test is passed over, one before a group is not")
	}
	if only := root.At("/all/1").Alone(); only.Test == nil || only.Test.Field != question.IsSubtask || root.Alone() != root {
		t.Error("a group of one is what is in it")
	}
}

// Tests on days, weeks, months and times.
func TestMeets(t *testing.T) {
	today := day.MustDate("2026-11-24")
	for _, c := range []struct {
		test, plan string
		want       bool
	}{
		{`"op":"none"`, "", true}, {`"op":"none"`, "parked", false}, {`"op":"parked"`, "parked", true}, {`"op":"parked"`, "2026-11-24", false},
		{`"op":"on","date":"P0D"`, "parked", false}, {`"op":"on","date":"P0D"`, "", false}, {`"op":"on","date":"P0D"`, "2026-W48", true}, {`"op":"on","date":"P6D"`, "2026-W48", false},
		{`"op":"before","date":"P6D"`, "2026-W48", true}, {`"op":"before","date":"P5D"`, "2026-W48", false}, {`"op":"after","date":"-P2D"`, "2026-W48", true}, {`"op":"after","date":"-P1D"`, "2026-W48", false},
		{`"op":"between","date":"P6D","to":"P9D"`, "2026-11", true}, {`"op":"between","date":"P7D","to":"P9D"`, "2026-11", false},
		{`"op":"time-between","from":"09:00","until":"10:00"`, "2026-11-24T09:00/PT30M", true}, {`"op":"time-between","from":"09:00","until":"10:00"`, "2026-11-24T10:00/PT30M", true},
		{`"op":"time-between","from":"09:00","until":"10:00"`, "2026-11-24T10:01/PT30M", false}, {`"op":"time-between","from":"09:00","until":"10:00"`, "2026-11-24T08:59/PT30M", false}, {`"op":"time-between","from":"00:00","until":"23:59"`, "2026-11-24", false},
	} {
		var h day.Horizon
		if err := h.UnmarshalText([]byte(c.plan)); err != nil {
			t.Fatal(err)
		}
		at, _ := h.Slot()
		if got := read(t, `{"field":"plan",`+c.test+`}`).Root().Test.Meets(h, at, today); got != c.want {
			t.Errorf("%s of %q: %t", c.test, c.plan, got)
		}
	}
}

func TestWordsOfDays(t *testing.T) {
	for want, w := range map[string]question.When{"today": question.FromToday(0), "tomorrow": question.FromToday(1), "yesterday": question.FromToday(-1),
		"3 days from today": question.FromToday(3), "2 days ago": question.FromToday(-2), "Tue 1 Dec 2026": question.Fixed(day.MustDate("2026-12-01"))} {
		if w.Words() != want {
			t.Errorf("%q; want %q", w.Words(), want)
		}
	}
	for want, n := range map[string]int{"P0D": 0, "P1D": 1, "-P1D": -1} {
		if got := question.FromToday(n).String(); got != want {
			t.Errorf("%d days from today are written %s, want %s", n, got, want)
		}
	}
	if n, counted := question.FromToday(-3).Days(); n != -3 || !counted {
		t.Error("days from today are counted")
	}
	if _, counted := question.Fixed(day.MustDate("2026-12-01")).Days(); counted || !(question.When{}).IsZero() || question.FromToday(0).IsZero() {
		t.Error("a fixed day is not counted, and today is a day")
	}
}
