package filter_test

import (
	"encoding/json"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/filter"
	"tincup/internal/core/question"
)

// Every field can be read, said, turned round, asked of a to-do and checked, with each
// operator that it takes.
func TestEveryFieldIsWhole(t *testing.T) {
	s := newSmall(t)
	ops := []question.Op{question.Contains, question.AnyOf, question.AllOf, question.NoneOf, question.None, question.Before, question.After, question.On, question.WithinNext,
		question.WithinPast, question.Between, question.TimeBetween, question.AtMost, question.AtLeast, question.Parked, question.Yes, question.No}
	for _, field := range question.Fields() {
		taken := 0
		for _, op := range ops {
			test := map[string]any{"field": field, "op": op, "text": "lamp", "date": "2026-12-01", "to": "2026-12-02", "days": 3,
				"from": "09:00", "until": "12:00", "minutes": 30}
			named := s.loans
			if id, other := map[question.Field]book.ID{question.Shelf: s.shelf, question.Section: s.section, question.Tag: s.calls, question.Person: s.ines}[field]; other {
				named = id
			}
			f, err := read(test, named.String())
			for _, word := range []string{"high", "in-process", "note", "ask", "deep"} {
				if err != nil && strings.Contains(err.Error(), "is not a "+string(field)+": one of") {
					f, err = read(test, word)
				}
			}
			if err != nil {
				if !strings.Contains(err.Error(), "takes one of") {
					t.Errorf("%s %s: %v", field, op, err)
				}
				continue
			}
			taken++
			said := f.Sentence(s.desk)
			not, err := filter.Parse([]byte(`{"not":` + string(marshal(t, f)) + `}`))
			if err != nil {
				t.Fatal(err)
			}
			if unsaid := not.Sentence(s.desk); len(said) < 4 || len(unsaid) < 4 || said == unsaid {
				t.Errorf("%s %s is said as %q, and not so as %q", field, op, said, unsaid)
			}
			m := f.Matcher(s.desk, s.clock(), s.ready)
			for todo := range s.desk.All() {
				if _, err := m.Match(todo); err != nil {
					t.Errorf("%s %s: %v", field, op, err)
				}
			}
			if a := f.Check(s.desk, s.clock()); a.Verdict == filter.Never || a.Verdict == filter.Always {
				t.Errorf("%s %s is said to hold %v", field, op, a.Verdict)
			}
		}
		if taken == 0 {
			t.Errorf("%s takes no operator", field)
		}
	}
}

func read(test map[string]any, value string) (filter.Filter, error) {
	test["values"] = []string{value}
	data, err := json.Marshal(test)
	if err != nil {
		return filter.Filter{}, err
	}
	return filter.Parse(data)
}

func marshal(t *testing.T, f filter.Filter) []byte {
	t.Helper()
	data, err := json.Marshal(f)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// A plan is past a due where its first day is; with no due, or parked, it never is.
func TestPlannedPastItsDue(t *testing.T) {
	s := newSmall(t)
	f := filter.Must(`{"field":"planned-past-due","op":"yes"}`)
	m := f.Matcher(s.desk, s.clock(), s.ready)
	for _, c := range []struct {
		due, plan string
		want      bool
	}{
		{"2026-11-25", "2026-11-26", true}, {"2026-11-25", "2026-11-25", false}, {"2026-11-25T09:00", "2026-11-25T14:00/PT30M", false},
		{"2026-11-25", "2026-W49", true}, {"2026-11-25", "2026-W48", false}, {"2026-11-25", "2026-12", true}, {"2026-11-25", "2026-11", false},
		{"2026-11-25", "parked", false}, {"2026-11-25", "", false}, {"", "2026-11-26", false},
	} {
		todo := &book.Todo{Title: "x"}
		if todo.Due.UnmarshalText([]byte(c.due)) != nil || todo.Plan.UnmarshalText([]byte(c.plan)) != nil {
			t.Fatal(c)
		}
		if got, err := m.Match(todo); got != c.want || err != nil {
			t.Errorf("due %q, planned %q: %t, %v", c.due, c.plan, got, err)
		}
	}
	if said := f.Sentence(s.desk); said != "Planned past its due." {
		t.Errorf("it says %q", said)
	}
	for text, want := range map[string]filter.Verdict{
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"due","op":"none"}]}`:                                  filter.Never,
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"plan","op":"none"}]}`:                                 filter.Never,
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"plan","op":"parked"}]}`:                               filter.Never,
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"plan","op":"on","date":"P3D"}]}`:                      filter.Possible,
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"due","op":"on","date":"P3D"}]}`:                       filter.Possible,
		`{"all":[{"field":"planned-past-due","op":"yes"},{"field":"planned-past-due","op":"no"}]}`:                       filter.Never,
		`{"any":[{"field":"planned-past-due","op":"yes"},{"not":{"field":"planned-past-due","op":"yes"}}]}`:              filter.Always,
		`{"any":[{"field":"planned-past-due","op":"no"},{"not":{"field":"due","op":"none"}}]}`:                           filter.Always,
		`{"all":[{"field":"planned-past-due","op":"no"},{"field":"plan","op":"parked"},{"field":"overdue","op":"yes"}]}`: filter.Possible,
	} {
		if got := filter.Must(text).Check(s.desk, s.clock()).Verdict; got != want {
			t.Errorf("%s is %v; want %v", text, got, want)
		}
	}
}
