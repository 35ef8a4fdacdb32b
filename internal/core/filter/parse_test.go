package filter_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/filter"
	"tincup/internal/core/question"
)

// named puts ids in the place of %names.
func (s *small) named(text string) string {
	for name, id := range map[string]fmt.Stringer{"%calls": s.calls, "%work": s.work, "%meetings": s.meetings, "%loans": s.loans,
		"%labels": s.labels, "%shelf": s.shelf, "%ines": s.ines, "%abel": s.abel, "%strange": s.strange, "%section": s.section} {
		text = strings.ReplaceAll(text, name, id.String())
	}
	return text
}

func TestBadFilters(t *testing.T) {
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
		_, err := filter.Parse([]byte(c.json))
		var pe *question.ParseError
		if !errors.As(err, &pe) || pe.Path != c.path || !strings.Contains(pe.Reason, c.says) {
			t.Errorf("%s: %.200v; want %q at %q", c.name, err, c.says, c.path)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{`{"all":[{"field":"due","op":"before","date":"P3D"}]}`, `{"not":{"any":[]}}`, `{"field":"tag","op":"none"}`} {
		f.Add([]byte(seed))
	}
	s := newSmall(f)
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := filter.Parse(data)
		if err != nil {
			return
		}
		again, err := got.MarshalJSON()
		if err != nil {
			t.Fatal(err)
		}
		same, err := filter.Parse(again)
		if err != nil || same.Sentence(s.desk) != got.Sentence(s.desk) {
			t.Fatalf("%s comes back as %s: %v", data, again, err)
		}
	})
}
