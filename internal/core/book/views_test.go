package book_test

import (
	"errors"
	"strings"
	"testing"

	"tincup/internal/core/book"
)

func TestViewCommands(t *testing.T) {
	f := newDesk(t)
	const q1 = `{"filter":{"field":"overdue","op":"yes"},"group":"list"}`
	first := f.do(book.AddView{Name: "Calls", Question: q1}).Views[0].After
	second := f.do(book.AddView{Name: "Letters", Question: `{"filter":{"field":"kind","op":"any-of","values":["note"]}}`, Icon: "pen", Pinned: true}).Views[0].After
	if first.Icon != book.ViewIcons[0] || second.Icon != "pen" || first.Position >= second.Position {
		t.Errorf("%+v, %+v", first, second)
	}
	copied := f.do(book.CopyView{ID: first.ID}).Views[0].After
	if copied.Name != "Calls (2)" || copied.Question != q1 || copied.Position <= first.Position || copied.Position >= second.Position {
		t.Errorf("the copy is %+v", copied)
	}
	f.do(book.MoveView{ID: second.ID, Before: first.ID})
	var names []string
	for _, v := range f.desk.Views() {
		names = append(names, v.Name)
	}
	if got := strings.Join(names, " "); got != "Letters Calls Calls (2)" {
		t.Errorf("in order: %s", got)
	}
	long, taken, icon, asks := strings.Repeat("x", 5000), "letters", "star", `{"filter":{"field":"mood","op":"yes"}}`
	for name, cmd := range map[string]book.Command{
		"name": book.AddView{Name: "  "}, "name, taken": book.AddView{Name: "CALLS"}, "name, long": book.EditView{ID: first.ID, Name: &long},
		"name, another's": book.EditView{ID: first.ID, Name: &taken}, "icon": book.EditView{ID: first.ID, Icon: &icon},
		"definition": book.AddView{Name: "new", Question: "asks nothing"}, "definition, its field": book.EditView{ID: first.ID, Question: &asks},
		"id": book.AddView{ID: first.ID, Name: "new"}, "after": book.MoveView{ID: first.ID, After: book.ID{1}},
	} {
		field, _, _ := strings.Cut(name, ",")
		var rule *book.RuleError
		if _, err := f.desk.Do(f.env(), cmd); !errors.As(err, &rule) || rule.Field != field {
			t.Errorf("%s: %v", name, err)
		}
	}
	for _, cmd := range []book.Command{book.EditView{ID: book.ID{1}}, book.DeleteView{ID: book.ID{1}}, book.CopyView{ID: book.ID{1}}} {
		if _, err := f.desk.Do(f.env(), cmd); !errors.Is(err, book.ErrNotFound) {
			t.Errorf("%T of none: %v", cmd, err)
		}
	}
}

// A view that asks for a tag asks for the one it is merged into; undo of another
// view's name that is taken by now is refused.
func TestViewsFollowTags(t *testing.T) {
	f := newDesk(t)
	f.do(book.Capture{Title: "x", Tags: []string{"calls", "telephone"}})
	ids := map[string]book.ID{}
	for _, tag := range f.desk.Tags() {
		ids[tag.Name] = tag.ID
	}
	asking := func(tags ...string) string {
		var named []string
		for _, t := range tags {
			named = append(named, `"`+ids[t].String()+`"`)
		}
		// The text that is looked for holds an id too, and is no tag.
		return `{"filter":{"all":[{"field":"tag","op":"any-of","values":[` + strings.Join(named, ",") + `]},{"field":"text","op":"contains","text":"` +
			ids["calls"].String() + `"}]},"group":"tag","order":["due"]}`
	}
	v := f.do(book.AddView{Name: "Calls", Question: asking("calls", "telephone")}).Views[0].After
	merge := f.do(book.MergeTags{From: ids["calls"], Into: ids["telephone"]})
	if now, _ := f.desk.View(v.ID); now.Question != asking("telephone") {
		t.Errorf("it asks %s", now.Question)
	}
	back, err := f.desk.Invert(f.env(), merge, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	f.book.Apply(back)
	if now, _ := f.desk.View(v.ID); now.Question != v.Question {
		t.Errorf("undone it asks %s", now.Question)
	}
	f.do(book.AddView{Name: "Talks", Question: asking("telephone")})
	if says := f.do(book.DeleteTag{ID: ids["telephone"]}).Says; says != "Tag removed: “telephone”, from 1 to-do. The views “Calls” and “Talks” ask for it" {
		t.Errorf("%s", says)
	}
	gone := f.do(book.DeleteView{ID: v.ID})
	f.do(book.AddView{Name: "calls"})
	var conflict *book.ConflictError
	if _, err := f.desk.Invert(f.env(), gone, book.Undo); !errors.As(err, &conflict) {
		t.Errorf("its name is taken: %v", err)
	}
}
