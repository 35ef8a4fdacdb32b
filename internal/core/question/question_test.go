package question_test

import (
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

const (
	calls = "01936f00-0000-7000-8000-000000000001"
	post  = "01936f00-0000-7000-8000-000000000002"
	loans = "01936f00-0000-7000-8000-000000000003"
)

func id(t *testing.T, s string) term.ID {
	t.Helper()
	id, err := term.ParseID(s)
	if err != nil {
		t.Fatal(err)
	}
	return id
}

func read(t *testing.T, text string) question.Tree {
	t.Helper()
	tree, err := question.Parse([]byte(text))
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	return tree
}

func write(t *testing.T, tree question.Tree) string {
	t.Helper()
	data, err := json.Marshal(tree)
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

// Ids are changed where tests on the field name them, and nowhere else.
func TestInstead(t *testing.T) {
	for _, c := range []struct{ name, before, after string }{
		{"one", `{"field":"tag","op":"any-of","values":["` + calls + `"]}`, `{"field":"tag","op":"any-of","values":["` + post + `"]}`},
		{"both already: named once", `{"field":"tag","op":"all-of","values":["` + calls + `","` + loans + `","` + post + `"]}`,
			`{"field":"tag","op":"all-of","values":["` + post + `","` + loans + `"]}`},
		{"under a not", `{"not":{"any":[{"field":"overdue","op":"yes"},{"field":"tag","op":"none-of","values":["` + calls + `"]}]}}`,
			`{"not":{"any":[{"field":"overdue","op":"yes"},{"field":"tag","op":"none-of","values":["` + post + `"]}]}}`},
		{"another field with the same id", `{"field":"list","op":"any-of","values":["` + calls + `"]}`, ""},
		{"a text that holds it", `{"field":"text","op":"contains","text":"` + calls + `"}`, ""},
		{"not named", `{"field":"tag","op":"any-of","values":["` + loans + `"]}`, ""},
	} {
		if c.after == "" {
			c.after = c.before
		}
		before := read(t, c.before)
		kept := write(t, before)
		after := before.Instead(question.Tag, id(t, calls), id(t, post))
		if got, want := write(t, after), write(t, read(t, c.after)); got != want {
			t.Errorf("%s: %s, want %s", c.name, got, want)
		}
		if write(t, before) != kept {
			t.Errorf("%s: the tree before was changed", c.name)
		}
		var was, is []string
		before.Walk(func(n *question.Node, _ bool) { was = append(was, n.Path) })
		after.Walk(func(n *question.Node, _ bool) { is = append(is, n.Path) })
		if !slices.Equal(was, is) {
			t.Errorf("%s: paths %v, before %v", c.name, is, was)
		}
	}
}

func TestNames(t *testing.T) {
	tree := read(t, `{"all":[{"field":"tag","op":"any-of","values":["`+calls+`","`+post+`"]},{"not":{"field":"tag","op":"all-of","values":["`+calls+`"]}},
		{"field":"list","op":"any-of","values":["`+loans+`"]},{"field":"role","op":"any-of","values":["ask"]}]}`)
	if got := tree.Names(question.Tag); !slices.Equal(got, []term.ID{id(t, calls), id(t, post)}) {
		t.Errorf("tags: %v", got)
	}
	if got := tree.Names(question.Role); got != nil {
		t.Errorf("roles are words, not %v", got)
	}
	if (question.Tree{}).Names(question.Tag) != nil {
		t.Error("nothing names something")
	}
}

// Of a saved view only the tree is changed; what is no view is said to be none.
func TestSaved(t *testing.T) {
	view := `{"filter":{"field":"person","op":"any-of","values":["` + calls + `"]},"group":"person","shape":"columns","urgentDays":5}`
	got, err := question.SavedInstead(view, question.Person, id(t, calls), id(t, post))
	if want := strings.Replace(view, calls, post, 1); err != nil || got != want {
		t.Errorf("%s, %v; want %s", got, err, want)
	}
	if got, err := question.SavedInstead(view, question.Tag, id(t, calls), id(t, post)); err != nil || got != view {
		t.Errorf("of another field: %s, %v", got, err)
	}
	for _, bad := range []string{"asks nothing", "[]", `{"filter":7}`, `{"filter":{"field":"mood","op":"yes"}}`} {
		var wrong *question.ParseError
		if _, err := question.Saved(bad); !errors.As(err, &wrong) {
			t.Errorf("%s: %v", bad, err)
		}
		if got, err := question.SavedInstead(bad, question.Tag, id(t, calls), id(t, post)); err == nil || got != bad {
			t.Errorf("%s became %s, %v", bad, got, err)
		}
	}
	for _, none := range []string{"", "{}", `{"shape":"columns"}`} {
		if tree, err := question.Saved(none); err != nil || !tree.IsZero() {
			t.Errorf("%q: %v, %v", none, tree, err)
		}
	}
}

// Days of a test, at the edges of the calendar too.
func TestSpan(t *testing.T) {
	today := day.MustDate("2026-11-24")
	for _, c := range []struct{ test, from, to string }{
		{`"op":"before","date":"P1D"`, "0001-01-01", "2026-11-24"},
		{`"op":"after","date":"2026-11-30"`, "2026-12-01", "9999-12-31"},
		{`"op":"on","date":"-P1W"`, "2026-11-17", "2026-11-17"},
		{`"op":"within-next","days":7`, "2026-11-24", "2026-12-01"},
		{`"op":"within-past","days":0`, "2026-11-24", "2026-11-24"},
		{`"op":"within-past","days":7`, "2026-11-17", "2026-11-24"},
		{`"op":"between","date":"2026-11-01","to":"P2D"`, "2026-11-01", "2026-11-26"},
	} {
		test := read(t, `{"field":"due",`+c.test+`}`).Root().Test
		if from, to := test.Span(today); from.String() != c.from || to.String() != c.to {
			t.Errorf("%s: %s to %s, want %s to %s", c.test, from, to, c.from, c.to)
		}
	}
	for _, edge := range []string{`"op":"before","date":"0001-01-01"`, `"op":"after","date":"9999-12-31"`} {
		if from, to := read(t, `{"field":"due",`+edge+`}`).Root().Test.Span(today); !from.After(to) {
			t.Errorf("%s holds %s to %s", edge, from, to)
		}
	}
}
