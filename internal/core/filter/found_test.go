package filter_test

import (
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/filter"
	"tincup/internal/core/search"
)

// What a search finds by a title, a tag, a person or a place is what its filter
// holds.
func TestFound(t *testing.T) {
	s := newSmall(t)
	shed := "Lifeboat shed"
	name := "lamp-calls"
	s.do(t, book.EditTag{ID: s.calls, Name: &name})
	add := func(c book.Capture) book.ID { return s.do(t, c).Todo().ID }
	titled := add(book.Capture{Title: "Signal LAMP, oil"})
	tagged := add(book.Capture{Title: "Ring the works", Tags: []string{"lamp-calls"}})
	with := add(book.Capture{Title: "The label of the lens", Person: s.ines, Role: book.Ask})
	there := add(book.Capture{Title: "Sweep", Notes: "the floor and the lamp"})
	s.do(t, book.Edit{ID: there, Place: &shed})
	names := map[book.ID]string{titled: "titled", tagged: "tagged", with: "with", there: "there"}
	for query, want := range map[string]struct{ sentence, holds string }{
		"lamp":         {"With “lamp” in its title or notes, or tagged lamp-calls.", "titled tagged there"},
		"calls":        {"With “calls” in its title or notes, or tagged lamp-calls.", "tagged"},
		"boat":         {"With “boat” in its title or notes.", ""},
		"lifeb sweep":  {"(with “lifeb” in its title or notes, or with “lifeb” in its place), and with “sweep” in its title or notes.", "there"},
		"ine lens":     {"(with “ine” in its title or notes, or with Ines), and with “lens” in its title or notes.", "with"},
		`"lamp, oil"`:  {"With “lamp, oil” in its title or notes.", "titled"},
		"lamp -oil":    {"(with “lamp” in its title or notes, or tagged lamp-calls), and not with “oil” in its title or notes.", "tagged there"},
		"lamp -\"shed": {"", ""},
	} {
		q, err := search.Parse(query)
		if want.sentence == "" {
			if err == nil {
				t.Errorf("%s is read", query)
			}
			continue
		}
		if err != nil {
			t.Fatal(err)
		}
		f, err := filter.Found(s.desk, q, strings.ToLower)
		if err != nil {
			t.Fatal(err)
		}
		if got := f.Sentence(s.desk); got != want.sentence {
			t.Errorf("%s: %s; want %s", query, got, want.sentence)
		}
		m := f.Matcher(s.desk, s.clock(), s.ready)
		var holds []string
		for _, id := range []book.ID{titled, tagged, with, there} {
			todo, err := s.desk.Todo(id)
			if err != nil {
				t.Fatal(err)
			}
			if is, err := m.Match(todo); err != nil {
				t.Fatal(err)
			} else if is {
				holds = append(holds, names[id])
			}
		}
		if got := strings.Join(holds, " "); got != want.holds {
			t.Errorf("%s holds %s; want %s", query, got, want.holds)
		}
	}
}
