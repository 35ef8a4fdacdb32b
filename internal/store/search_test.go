package store_test

import (
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
	"tincup/internal/store"
)

// find searches the file and returns the titles of what it finds.
func (k *pen) find(text string) string {
	k.t.Helper()
	q, err := search.Parse(text)
	if err != nil {
		k.t.Fatal(err)
	}
	found, err := k.store.Search(k.t.Context(), k.desk.Account(), q)
	if err != nil {
		k.t.Fatalf("%q: %v", text, err)
	}
	var titles []string
	for _, id := range found {
		t, err := k.desk.Todo(id)
		if err != nil {
			k.t.Fatal(err)
		}
		titles = append(titles, t.Title)
	}
	return strings.Join(titles, "; ")
}

func TestSearch(t *testing.T) {
	k := newPen(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, k.store)
	ines := k.do("w", book.AddPerson{Name: "Inês Duarte"}).People[0].After.ID
	k.do("w", book.Capture{Title: "Ring Ines about the lamp oil", Tags: []string{"calls"}})
	k.do("w", book.Capture{Title: "Lámparas, labels", Notes: "The signal lamp from the harbour has a cracked lens."})
	k.do("w", book.Capture{Title: "Ask about the lens", Person: ines, Role: book.Ask})
	gone := k.do("w", book.Capture{Title: "Lamp room, sweep"}).Todo().ID
	k.do("w", book.Delete{ID: gone})
	pic := k.do("w", book.Capture{Title: "Condition report"}).Todo().ID
	k.do("w", book.Attach{ID: pic, File: book.Attachment{Name: "oil-lamp (front).png", Hash: strings.Repeat("0", 64), Type: "image/png", Size: 9}})
	k.do("w", book.Capture{Title: `The "odd" one: title:x* NEAR(y) -z ^`})
	k.do("w", book.Capture{Title: "灯台 のランプ"})
	shed := "Lifeboat shed"
	k.do("w", book.Edit{ID: pic, Place: &shed})
	for text, want := range map[string]string{
		"lamp":              "Lamp room, sweep; Ring Ines about the lamp oil; Lámparas, labels; Condition report", // title, title of more words, beginning of a word and notes, file
		"LAMPARAS":          "Lámparas, labels",
		"lám":               "Lamp room, sweep; Ring Ines about the lamp oil; Lámparas, labels; Condition report",
		"amp":               "", // not within a word
		`"signal lamp"`:     "Lámparas, labels",
		`"lamp signal"`:     "",
		"lamp -oil":         "Lamp room, sweep; Lámparas, labels",
		`lamp -"lamp oil"`:  "Lamp room, sweep; Lámparas, labels; Condition report",
		"ines":              "Ring Ines about the lamp oil; Ask about the lens",
		"duarte lens":       "Ask about the lens",
		"call":              "Ring Ines about the lamp oil",
		"front.png":         "Condition report",
		"oil-lamp":          "Condition report",
		"boat":              "",
		"lifeboat report":   "Condition report",
		"title:x":           `The "odd" one: title:x* NEAR(y) -z ^`,
		"NEAR(y)":           `The "odd" one: title:x* NEAR(y) -z ^`,
		"odd AND one":       "",
		"灯台":                "灯台 のランプ",
		"x'); DROP TABLE y": "",
	} {
		if got := k.find(text); got != want {
			t.Errorf("%q finds %q; want %q", text, got, want)
		}
	}
	// Names change everywhere, and an undone change is found as it was.
	tag := k.desk.Tags()[0].ID
	name := "telephone"
	change := k.do("w", book.EditTag{ID: tag, Name: &name})
	if k.find("call") != "" || k.find("telephone") != "Ring Ines about the lamp oil" {
		t.Errorf("after renaming a tag: %q, %q", k.find("call"), k.find("telephone"))
	}
	back, err := k.desk.Invert(k.env(), change, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	k.save(store.Entry{Change: back})
	if k.find("call") != "Ring Ines about the lamp oil" {
		t.Errorf("after the undo: %q", k.find("call"))
	}
	other := "Inês Falcão"
	k.do("w", book.EditPerson{ID: ines, Name: &other})
	if err := k.store.CheckIndex(t.Context()); err != nil {
		t.Error(err)
	}
	if k.find("duarte") != "" || k.find("falcao") != "Ask about the lens" {
		t.Errorf("after renaming a person: %q, %q", k.find("duarte"), k.find("falcao"))
	}
}

// A file of an older version is searched at once, all that it held.
func TestSearchAfterMigration(t *testing.T) {
	k := newPen(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, k.store)
	k.do("w", book.Capture{Title: "Signal lamp", Tags: []string{"loans"}, Notes: "cracked lens"})
	path := filepath.Join(t.TempDir(), "old.db")
	if err := store.MakeAtSchema(t.Context(), path, 5); err != nil {
		t.Fatal(err)
	}
	old, err := store.OpenPlain(path)
	if err != nil {
		t.Fatal(err)
	}
	for _, query := range []string{
		"INSERT INTO tags VALUES (x'02000000000000000000000000000000', 'loans', 'moss', 1)",
		"INSERT INTO tags VALUES (x'03000000000000000000000000000000', 'calls', 'moss', 1)",
		`INSERT INTO todos (id, title, notes_size, position, status, priority, start, due, plan, created, changed, completed, deleted, revision)
			VALUES (x'01000000000000000000000000000000', 'Signal lamp', 12, 'e0V', 'needs-action', 'none', '', '', '', 0, 0, 0, 0, 1)`,
		"INSERT INTO todo_tags VALUES (x'01000000000000000000000000000000', 1, x'02000000000000000000000000000000')",
		"INSERT INTO todo_tags VALUES (x'01000000000000000000000000000000', 0, x'03000000000000000000000000000000')",
		"INSERT INTO notes VALUES (x'01000000000000000000000000000000', 'cracked lens')",
	} {
		if _, err := old.ExecContext(t.Context(), query); err != nil {
			t.Fatal(err)
		}
	}
	if err := old.Close(); err != nil {
		t.Fatal(err)
	}
	s := open(t, path)
	defer shut(t, s)
	if err := s.CheckIndex(t.Context()); err != nil {
		t.Error(err)
	}
	b, err := loadDesk(t.Context(), s)
	if err != nil {
		t.Fatal(err)
	}
	for todo := range b.All() {
		if len(todo.Tags) != 2 || todo.Tags[0][0] != 3 || todo.Tags[1][0] != 2 {
			t.Errorf("its tags are %v", todo.Tags)
		}
	}
	rows, err := s.CountHits(t.Context(), "lens AND loans AND signal")
	if err != nil || rows != 1 {
		t.Errorf("%d found, %v", rows, err)
	}
}

// A word itself is found before more than can be shown that begin with it.
func TestExactWordsAmongManyThatBeginSo(t *testing.T) {
	k := newPen(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, k.store)
	exact := k.do("w", book.Capture{Title: "Ring the framer", Notes: "about the lamp"}).Todo().ID
	titled := k.do("w", book.Capture{Title: "Lamp"}).Todo().ID
	tree := book.CaptureTree{}
	for i := range book.MaxTree {
		tree.Items = append(tree.Items, book.TreeItem{Capture: book.Capture{Title: fmt.Sprint("Lampshade ", i)}, Under: -1})
	}
	for range 3 {
		for i := range tree.Items {
			tree.Items[i].ID = book.ID{1, 14: byte(k.ids)}
			tree.Items[i].ID[12], tree.Items[i].ID[13] = byte(i>>8), byte(i)
		}
		k.ids++
		k.do("w", tree)
	}
	if err := k.store.CheckIndex(t.Context()); err != nil {
		t.Fatal(err)
	}
	q, err := search.Parse("lamp")
	if err != nil {
		t.Fatal(err)
	}
	found, err := k.store.Search(t.Context(), k.desk.Account(), q)
	if err != nil || len(found) != store.MaxHits || found[0] != titled || found[1] != exact {
		t.Errorf("%d found, the first %v; want %v and %v first, %v", len(found), found[:2], titled, exact, err)
	}
}

// Notes that hold a text are found again after each change of notes.
func TestHolding(t *testing.T) {
	k := newPen(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, k.store)
	a := k.do("w", book.Capture{Title: "a", Notes: "The Signal LAMP"}).Todo().ID
	b := k.do("w", book.Capture{Title: "b", Notes: "nothing"}).Todo().ID
	holds := func(text string) string {
		found, err := k.store.Holding(text)
		if err != nil {
			t.Fatal(err)
		}
		var names []string
		for _, id := range []book.ID{a, b} {
			if found[id] {
				todo, _ := k.desk.Todo(id)
				names = append(names, todo.Title)
			}
		}
		return strings.Join(names, " ")
	}
	for range 2 {
		if got := holds("signal lamp"); got != "a" {
			t.Errorf("held by %q", got)
		}
	}
	lamp, none := "a signal lamp", ""
	k.do("w", book.Edit{ID: b, Notes: &lamp})
	if got := holds("signal lamp"); got != "a b" {
		t.Errorf("after a change held by %q", got)
	}
	before, err := k.store.Holding("signal lamp")
	if err != nil {
		t.Fatal(err)
	}
	k.do("w", book.Edit{ID: a, Notes: &none})
	if got := holds("signal lamp"); got != "b" || !before[a] {
		t.Errorf("after another held by %q; what was given out before holds a: %v", got, before[a])
	}
	change := k.do("w", book.Delete{ID: b})
	back, err := k.desk.Invert(k.env(), change, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	k.save(store.Entry{Change: back})
	// What is remembered is what the file says, whatever changes.
	r := rand.New(rand.NewPCG(1, 2))
	for range 200 {
		text := []string{"", "lamp", "Signal lamp", "oil", "lamp oil"}[r.IntN(5)]
		k.do("w", book.Edit{ID: []book.ID{a, b}[r.IntN(2)], Notes: &text})
		for _, text := range []string{"lamp", "signal lamp", "oil"} {
			found, err := k.store.Holding(text)
			if err != nil {
				t.Fatal(err)
			}
			for _, id := range []book.ID{a, b} {
				note, err := k.store.Note(id)
				if err != nil {
					t.Fatal(err)
				}
				if want := strings.Contains(strings.ToLower(note), text); found[id] != want {
					t.Fatalf("%q is held by %v: %v; want %v, of %q", text, id, found[id], want, note)
				}
			}
		}
	}
}

// Where more is found than is worth ranking, what is named by the words comes
// before what holds them in its notes, and of both the newest first.
func TestSearchFindsMany(t *testing.T) {
	rows := &book.Change{Revision: 1, Kind: "capture"}
	position := book.Position("")
	for i := range 1500 {
		position = position.After()
		row := &book.Todo{ID: book.ID{0: 1, 14: byte(i >> 8), 15: byte(i)}, Position: position, Revision: 1,
			Title: fmt.Sprint("No. ", i), NotesSize: 20, Created: 1, Changed: 1}
		if i%300 == 7 {
			row.Title = fmt.Sprint("Lamp label ", i)
		}
		rows.Todos = append(rows.Todos, book.Diff[book.Todo]{After: row})
		rows.Notes = append(rows.Notes, book.Diff[book.Note]{After: &book.Note{ID: row.ID, Text: "a label for the lamp"}})
	}
	// Named by the words, and holds in its notes what is left out.
	rows.Notes[907].After.Text = "a label for the lamp, torn"
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer shut(t, s)
	empty, err := s.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	rows.Actor = empty.Owner()
	if err := s.Save(t.Context(), store.Entry{Change: rows, Final: true}); err != nil {
		t.Fatal(err)
	}
	if err := s.CheckIndex(t.Context()); err != nil { // many are indexed by and by
		t.Fatal(err)
	}
	for text, want := range map[string][]int{
		"lamp label -torn":     {1207, 607, 307, 7, 1499},
		"lamp label":           {1207, 907, 607, 307, 7, 1499, 1498},
		`label -"lamp label"`:  {1499, 1498, 1497},
		`"label for the" lamp`: {1499, 1498, 1497},
	} {
		q, err := search.Parse(text)
		if err != nil {
			t.Fatal(err)
		}
		found, err := s.Search(t.Context(), rows.Actor, q)
		if err != nil {
			t.Fatal(err)
		}
		var first []int
		each := map[book.ID]bool{}
		for i, id := range found {
			each[id] = true
			if i < len(want) {
				first = append(first, int(id[14])<<8|int(id[15]))
			}
		}
		if len(found) != store.MaxHits || len(each) != store.MaxHits {
			t.Errorf("%s finds %d, %d of them different; want %d", text, len(found), len(each), store.MaxHits)
		}
		if !slices.Equal(first, want) {
			t.Errorf("%s finds first %v; want %v", text, first, want)
		}
	}
}

// Words that people take for the same find each other, whatever their case, width, ligature or
// accents; in scripts without blanks any part of a text is found; an emoji is a word; and a person is
// found by the address.
func TestSearchFindsWhatIsTheSame(t *testing.T) {
	k := newPen(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, k.store)
	ines := k.do("w", book.AddPerson{Name: "Inês Duarte", Email: "ines@museum.example"}).People[0].After.ID
	k.do("w", book.Capture{Title: "Ask about the lens", Person: ines, Role: book.Ask})
	for _, title := range []string{"Ωμέγα, last of all", "Ёлка: trim", "Straße sperren", "ＬＡＭＰ ７", "ﬁling: oﬃce", "İstanbul'a yaz", "日本語の本を読む", "ラーメンとビール", "สวัสดีชาวโลก", "Order 🏮 and 👩‍🔬", "❤️"} {
		k.do("w", book.Capture{Title: title})
	}
	for text, want := range map[string]string{
		"ωμεγα": "Ωμέγα, last of all", "ΩΜΈΓΑ": "Ωμέγα, last of all", "елка": "Ёлка: trim", "ЁЛКА": "Ёлка: trim", "strasse": "Straße sperren", "STRAẞE": "Straße sperren",
		"lamp 7": "ＬＡＭＰ ７", "ｌａｍｐ": "ＬＡＭＰ ７", "filing": "ﬁling: oﬃce", "office": "ﬁling: oﬃce", "istanbul": "İstanbul'a yaz",
		"本": "日本語の本を読む", "日本": "日本語の本を読む", "語の本を": "日本語の本を読む", "む": "日本語の本を読む", "語日": "", `"本を読む"`: "日本語の本を読む", "日本 読む": "日本語の本を読む",
		"ビール": "ラーメンとビール", "ラーメン": "ラーメンとビール", "ﾋﾞｰﾙ": "ラーメンとビール", "メンビ": "", "ชาวโลก": "สวัสดีชาวโลก",
		"🏮": "Order 🏮 and 👩‍🔬", "🔬": "Order 🏮 and 👩‍🔬", "👩‍🔬 order": "Order 🏮 and 👩‍🔬", "🏯": "", "❤": "❤️", "order -🏮": "",
		"ines@museum.example": "Ask about the lens", "museum.example": "Ask about the lens", "ines@elsewhere.example": "",
	} {
		if got := k.find(text); got != want {
			t.Errorf("%q finds %q, want %q", text, got, want)
		}
	}
	other := "duarte@harbour.example"
	k.do("w", book.EditPerson{ID: ines, Email: &other})
	if got := k.find("harbour") + k.find("museum"); got != "Ask about the lens" {
		t.Errorf("by another address: %q", got)
	}
}
