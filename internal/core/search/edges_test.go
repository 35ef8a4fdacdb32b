package search_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"unicode/utf8"

	"tincup/internal/core/search"
)

// foundIn are what is marked in a text.
func foundIn(m *search.Marker, text string, limit int) string {
	var found []string
	for _, s := range m.Marks(text, limit) {
		found = append(found, text[s.Start:s.End])
	}
	return strings.Join(found, "|")
}

// Each first and last letter and digit is part of a word, and what lies beside them is not.
func TestWhatIsPartOfAWord(t *testing.T) {
	for _, c := range []struct{ query, text, want string }{
		{"a0z", "(a0z)", "a0z"}, {"A9Z", "[A9Z]", "A9Z"}, {"az", "`az{", "az"}, {"AZ", "@AZ[", "AZ"}, {"09", "/09:", "09"},
		{"z", "y z{", "z"}, {"9", "8:9", "9"}, {"é", "(é)", "é"}, {"lamp", "lamp", "lamp"}, {"lamp", "xlamp", ""}, {"lamp", "lamps", "lamps"},
		{`"lamp"`, "lamps lamp", "lamp"}, {`"oil lamp"`, "oil oil lamp oil", "oil lamp"}, {"oil lamp", "lamp oil", "lamp|oil"},
		{"oil", "oil, oil; oil", "oil|oil|oil"}, {`oil "oil lamp"`, "oil lamp", "oil lamp"}, {`"oil lamp" oil`, "oil lamp", "oil lamp"},
	} {
		if got := foundIn(marker(t, c.query), c.text, 0); got != c.want {
			t.Errorf("%s in %q: %q; want %q", c.query, c.text, got, c.want)
		}
	}
	m := marker(t, "oil")
	for limit, want := range map[int]string{0: "oil|oil|oil", 1: "oil", 2: "oil|oil", 3: "oil|oil|oil", 4: "oil|oil|oil"} {
		if got := foundIn(m, "oil oil oil", limit); got != want {
			t.Errorf("at most %d: %s", limit, got)
		}
	}
}

// An excerpt begins and ends with whole characters, and begins with a whole word.
func TestExcerptsOfLongTexts(t *testing.T) {
	m := marker(t, "lamp")
	for n := range 140 {
		text := strings.Repeat("é", n) + " lamp " + strings.Repeat("ü", n)
		got, marks := m.Excerpt(text)
		if !utf8.ValidString(got) || len(marks) != 1 || got[marks[0].Start:marks[0].End] != "lamp" {
			t.Errorf("%d: %q, %v", n, got, marks)
		}
		if cutBefore := 2*n+1 > 60; strings.HasPrefix(got, "…") != cutBefore || strings.HasSuffix(got, "…") != (2*n+1 > 121) {
			t.Errorf("%d: %q is cut otherwise", n, got)
		}
	}
	words := strings.Repeat("word ", 30)
	if got, _ := m.Excerpt(words + "lamp"); !strings.HasPrefix(got, "…word ") || strings.HasSuffix(got, "…") {
		t.Errorf("%q", got)
	}
	if got, marks := m.Excerpt("nothing here"); got != "" || marks != nil {
		t.Errorf("%q, %v", got, marks)
	}
	if got, _ := m.Excerpt("a\n\n  lamp\there"); got != "a lamp here" {
		t.Errorf("%q", got)
	}
}

// Bounds of queries, and what only leaves out.
func TestBoundsOfQueries(t *testing.T) {
	if _, err := search.Parse(strings.Repeat("é", search.MaxText)); err != nil {
		t.Errorf("%d characters: %v", search.MaxText, err)
	}
	for query, says := range map[string]string{
		strings.Repeat("é", search.MaxText+1):             "301 characters; 300",
		strings.Repeat("a ", search.MaxTerms+1):           "21 words; 20",
		strings.Repeat("a ", search.MaxTerms-1) + "-b -c": "21 words; 20",
		"-lamp":     "only what to leave out",
		"-":         "no word in this search",
		"":          "no word in this search",
		`oil "lamp`: "at character 5 is not closed",
	} {
		_, err := search.Parse(query)
		var wrong *search.Error
		if !errors.As(err, &wrong) || !strings.Contains(err.Error(), says) {
			t.Errorf("%.30q: %v; want %q", query, err, says)
		}
	}
	if q, err := search.Parse(strings.Repeat("a ", search.MaxTerms-1) + "-b"); err != nil || len(q.Wanted) != search.MaxTerms-1 || len(q.LeftOut) != 1 {
		t.Errorf("%d words: %v", search.MaxTerms, err)
	}
	for query, want := range map[string]string{
		"a- b": "[{a- false} {b false}] []", "a -b": "[{a false}] [{b false}]", "a - b": "[{a false} {b false}] []", "a -": "[{a false}] []",
		`«oil lamp» x`: "[{oil lamp true} {x false}] []", `„oil“ „lamp”`: "[{oil true} {lamp true}] []", `oil"lamp"`: "[{oil false} {lamp true}] []",
	} {
		q, err := search.Parse(query)
		if got := fmt.Sprint(q.Wanted, q.LeftOut); err != nil || got != want {
			t.Errorf("%q: %s, %v; want %s", query, got, err, want)
		}
	}
	q, _ := search.Parse(`oil "lamp oil" -x`)
	exact := q.Exact()
	if exact == nil || fmt.Sprint(exact.Wanted, exact.LeftOut) != "[{oil true} {lamp oil true}] [{x false}]" {
		t.Errorf("exactly: %v", exact)
	}
	if q, _ := search.Parse(`"oil"`); q.Exact() != nil {
		t.Error("what is exact already stays")
	}
}
