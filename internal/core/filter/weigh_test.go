package filter_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/seed"
)

// given evaluates a filter's JSON with the test at one path set to a value, and
// tells whether making that test true can only make the filter truer.
func (e slow) given(n map[string]any, path, at string, value bool, t *book.Todo) bool {
	for _, name := range []string{"all", "any"} {
		subs, ok := n[name].([]any)
		if !ok {
			continue
		}
		for i, sub := range subs {
			if e.given(sub.(map[string]any), fmt.Sprintf("%s/%s/%d", path, name, i), at, value, t) == (name == "any") {
				return name == "any"
			}
		}
		return name == "all"
	}
	if sub, ok := n["not"].(map[string]any); ok {
		return !e.given(sub, path+"/not", at, value, t)
	}
	if path == at {
		return value
	}
	return e.test(n, t)
}

// nodeAt finds the node at a path, and whether an even number of nots is above.
func nodeAt(n map[string]any, path, at string, positive bool) (map[string]any, bool) {
	if path == at {
		return n, positive
	}
	for _, name := range []string{"all", "any"} {
		subs, _ := n[name].([]any)
		for i, sub := range subs {
			if found, p := nodeAt(sub.(map[string]any), fmt.Sprintf("%s/%s/%d", path, name, i), at, positive); found != nil {
				return found, p
			}
		}
	}
	if sub, ok := n["not"].(map[string]any); ok {
		return nodeAt(sub, path+"/not", at, !positive)
	}
	return nil, false
}

// What each test lets through, and what would match without it, is what asking
// one to-do after the other finds; and a sort of to-dos that a filter is said
// never to hold has none that it holds.
func TestWeighAgainstTheObvious(t *testing.T) {
	seed := seed.New(t)
	s := newSmall(t)
	e := slow{s: s, today: day.MustDate("2026-11-24")}
	without, ruledOut := 0, 0
	for i := range share(1500) {
		r := random{rand.New(rand.NewPCG(seed, uint64(i))), s, allFields}
		packed := pack(t, r.node(1+i%4))
		var tree map[string]any
		if err := json.Unmarshal(packed, &tree); err != nil {
			t.Fatal(err)
		}
		f := parse(t, "%s", packed)
		todos := make([]*book.Todo, 30)
		for j := range todos {
			todos[j] = r.todo()
		}
		w, err := f.Weigh(f.Matcher(s.desk.With(book.MemoryNotes{}, fakeSlack{s.clock()}), s.clock(), nil), todos)
		if err != nil {
			t.Fatal(err)
		}
		matches := 0
		for _, todo := range todos {
			if !e.holds(tree, todo) {
				continue
			}
			matches++
			open := todo.Status.Open()
			if !f.MayHold(filter.Sort{Open: open, Note: todo.IsNote, Paused: todo.Repeat != nil && !todo.Repeat.Paused.IsZero() && open}) && !todo.IsNote {
				t.Fatalf("seed %d, filter %d: it holds %+v, of a sort that is ruled out\n%s", seed, i, todo, packed)
			}
		}
		for _, sort := range []filter.Sort{{Open: true}, {}, {Open: true, Note: true}, {Open: true, Paused: true}} {
			if !f.MayHold(sort) {
				ruledOut++
			}
		}
		if len(w.Matches) != matches || len(w.Tests) != strings.Count(string(packed), `"field"`) {
			t.Fatalf("seed %d, filter %d: %d match, %d tests; want %d\n%s", seed, i, len(w.Matches), len(w.Tests), matches, packed)
		}
		for _, test := range w.Tests {
			node, positive := nodeAt(tree, "", test.Path, true)
			passes, dropped := 0, 0
			for _, todo := range todos {
				if e.test(node, todo) {
					passes++
				}
				if e.given(tree, "", test.Path, positive, todo) {
					dropped++
				}
			}
			if test.Passes != passes || test.Without != dropped {
				t.Fatalf("seed %d, filter %d, %s: passes %d, without it %d; want %d, %d\n%s", seed, i, test.Path, test.Passes, test.Without, passes, dropped, packed)
			}
			if dropped > matches {
				without++
			}
		}
	}
	if without < share(500) || ruledOut < share(100) {
		t.Errorf("only %d tests mattered, and %d sorts were ruled out", without, ruledOut)
	}
}

// Of as many tests as are looked at one by one each is told; of one more, none.
func TestWeighOfManyTests(t *testing.T) {
	s := newSmall(t)
	for n, told := range map[int]int{60: 60, 61: 0} {
		f := parse(t, "%s", `{"any":[`+strings.TrimSuffix(strings.Repeat(`{"field":"due","op":"none"},`, n), ",")+`]}`)
		w, err := f.Weigh(f.Matcher(s.desk, s.clock(), s.ready), s.desk.Open())
		if err != nil || len(w.Tests) != told || len(w.Matches) != len(s.desk.Open()) {
			t.Errorf("%d tests: %d told, %d of %d match, %v", n, len(w.Tests), len(w.Matches), len(s.desk.Open()), err)
		}
	}
}

func TestExplain(t *testing.T) {
	s := newSmall(t)
	for _, c := range []struct{ filter, says string }{
		{`{"all":[{"field":"tag","op":"any-of","values":["%calls"]},{"field":"due","op":"none"},{"field":"tag","op":"none"}]}`, "“tagged calls” and “untagged” cannot both be true."},
		{`{"all":[{"field":"repeating","op":"yes"},{"not":{"field":"repeating","op":"yes"}}]}`, "“repeating” and “not repeating” cannot both be true."},
		{`{"any":[{"field":"due","op":"none"},{"not":{"field":"due","op":"none"}}]}`, "Every to-do is “without a due” or “with a due”."},
		{`{"field":"list","op":"any-of","values":["01890000-0000-7000-8000-000000000000"]}`, "“in a list that is gone” is never true."},
		{`{"any":[]}`, "A group of “any” has nothing in it."},
		{`{"all":[]}`, "Nothing is asked."},
		{`{"all":[{"any":[{"field":"due","op":"before","date":"P0D"},{"field":"due","op":"none"}]},{"field":"due","op":"after","date":"P1D"}]}`,
			"Taken together, these leave nothing: “due before today”, “without a due”, “due after tomorrow”."},
		{`{"all":[{"field":"due","op":"on","date":"P0D"},{"field":"start","op":"after","date":"P1D"}]}`, "“due today” and “starting after tomorrow” cannot both be true."},
		{`{"all":[{"field":"priority","op":"any-of","values":["high","medium"]},{"field":"priority","op":"any-of","values":["medium","low"]},{"field":"priority","op":"any-of","values":["low","high"]}]}`,
			"“of high or medium priority”, “of medium or low priority” and “of low or high priority” cannot all be true."},
		{`{"field":"due","op":"none"}`, ""},
	} {
		f := parse(t, "%s", s.named(c.filter))
		if got := f.Explain(s.desk, f.Check(s.desk, s.clock())); got != c.says {
			t.Errorf("%s\n%q; want\n%q", c.filter, got, c.says)
		}
	}
}
