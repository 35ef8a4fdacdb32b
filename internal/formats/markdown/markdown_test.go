package markdown_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/core/term"
	"tincup/internal/formats/markdown"
)

func world() exchange.World {
	return exchange.World{Sentences: capture.Env{
		Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC), Zone: time.UTC},
		Names: capture.Names{Lists: []string{"Night Signals"}, People: []string{"Ines Prado"}},
	}}
}

// said is an item in short: how deep it is by its place, [x] for done, its title and what else there is.
func said(items []exchange.Item) string {
	var b strings.Builder
	for i, item := range items {
		t := &item.Todo
		mark := "[ ]"
		switch {
		case t.IsNote:
			mark = "note"
		case !t.Status.Open():
			mark = "[x]"
		}
		fmt.Fprintf(&b, "%d<%d %s %s", i, item.Under, mark, t.Title)
		for _, field := range [][2]string{{"due", t.Due.String()}, {"in", item.List}, {"section", item.Section}, {"notes", item.Notes}, {"link", t.Source.Link}} {
			if field[1] != "" {
				fmt.Fprintf(&b, " {%s %s}", field[0], field[1])
			}
		}
		if t.InOrder {
			b.WriteString(" {in order}")
		}
		if len(item.Remarks) > 0 {
			fmt.Fprintf(&b, " {remark}")
		}
		b.WriteString("\n")
	}
	return b.String()
}

func TestRead(t *testing.T) {
	for _, c := range []struct{ name, text, want string }{
		{"GitHub Flavored Markdown, section 5.3, example 279 (from memory)", "- [ ] foo\n- [x] bar\n", "0<-1 [ ] foo\n1<-1 [x] bar\n"},
		{"GitHub Flavored Markdown, section 5.3, example 280 (from memory)", "- [x] foo\n  - [ ] bar\n  - [x] baz\n- [ ] bim\n", "0<-1 [x] foo\n1<0 [ ] bar\n2<0 [x] baz\n3<-1 [ ] bim\n"},
		{"a sentence", "- [ ] Order mount board, by Friday 4pm, in Night Signals\n", "0<-1 [ ] Order mount board {due 2026-11-27T16:00} {in Night Signals}\n"},
		{"a heading is a section, a break ends it", "# Before\n* [ ] a\n\n***\n+ [ ] b\n", "0<-1 [ ] a {section Before}\n1<-1 [ ] b\n"},
		{"numbers are done in order", "- [ ] a\n  1. [ ] b\n  2. [ ] c\n", "0<-1 [ ] a {in order}\n1<0 [ ] b\n2<0 [ ] c\n"},
		{"text below is notes, and so is a list without boxes", "- [ ] a\n  more\n\n  A paragraph\n  of two lines.\n\n  - one\n    - two\n- [ ] b\n", "0<-1 [ ] a {notes more\n\nA paragraph\nof two lines.\n\n- one\n  - two}\n1<-1 [ ] b\n"},
		{"a quotation is notes, whatever it holds", "- [ ] a\n\n  > - [ ] b\n  > ```\n  > <!--\n- [ ] c\n", "0<-1 [ ] a {notes - [ ] b\n```\n<!--}\n1<-1 [ ] c\n"},
		{"code below is notes with its fences", "- [ ] a\n\n  ```\n  x\n  ```\n- [ ] b\n", "0<-1 [ ] a {notes ```\nx\n```}\n1<-1 [ ] b\n"},
		{"nothing has a box: every item is a to-do", "- a\n  - b\n- c by Friday\n", "0<-1 [ ] a\n1<0 [ ] b\n2<-1 [ ] c {due 2026-11-27}\n"},
		{"an item that only holds tasks is one", "- Group\n  - [ ] a\n", "0<-1 [ ] Group\n1<0 [ ] a\n"},
		{"markup is read as its text", "- [ ] **Order** `mount` [board](https://harbour.example/x) \\*now\\* &amp; &#8230;\n", "0<-1 [ ] Order mount board *now* & … {link https://harbour.example/x}\n"},
		{"a note has no box", "- [ ] a\n  - note: the key is with Ines\n", "0<-1 [ ] a\n1<0 note the key is with Ines\n"},
		{"comments count", "- [ ] a <!-- due: 2026-11-30 --> <!-- outcome: lit -- -->\n", "0<-1 [ ] a {due 2026-11-30}\n"},
		{"what cannot be stays words", "- [ ] Ring her, by 31 February\n- [ ] a <!-- due: soon -->\n", "0<-1 [ ] Ring her, by 31 February {remark}\n1<-1 [ ] a {remark}\n"},
		{"a legend makes names known", "- [ ] a, in Garden, ask Tom\n\n<!--\nlist: Garden\nperson: Tom\n-->\n", "0<-1 [ ] a {in Garden}\n"},
		{"UTF-16", "\xff\xfe-\x00 \x00a\x00", "0<-1 [ ] a\n"},
		{"Windows' line ends", "- [ ] a\r\n  - [ ] b\r\n", "0<-1 [ ] a\n1<0 [ ] b\n"},
	} {
		t.Run(c.name, func(t *testing.T) {
			items, refused, err := markdown.Format{}.Read([]byte(c.text), world())
			if err != nil || len(refused) > 0 {
				t.Fatalf("%v, %+v", err, refused)
			}
			if got := said(items); got != c.want {
				t.Errorf("read as\n%swant\n%s", got, c.want)
			}
		})
	}
}

// What is no item is left out, and named with its line.
func TestLeftOut(t *testing.T) {
	items, refused, err := markdown.Format{}.Read([]byte("A letter.\n\n- [ ] a\n- plain\n- [ ] \n\n| a |\n|---|\n"), world())
	if err != nil || said(items) != "0<-1 [ ] a\n" {
		t.Errorf("read as %v, %v", said(items), err)
	}
	var lines []int
	for _, r := range refused {
		lines = append(lines, r.Line)
		if r.Reason == "" {
			t.Errorf("%q is left out without a reason", r.Title)
		}
	}
	if fmt.Sprint(lines) != "[1 4 5 7]" {
		t.Errorf("left out at %v: %+v", lines, refused)
	}
	deep := strings.Repeat(" ", 400) + "- [ ] x\n"
	var wrong *exchange.Error
	if _, _, err := (markdown.Format{}).Read([]byte("- [ ] a\n"+deep), world()); !errors.As(err, &wrong) || wrong.Line != 2 {
		t.Errorf("what is indented by 400 is read with %v", err)
	}
	if items, _, err := (markdown.Format{}).Read([]byte("- [ ] caf\xe9\n"), world()); err != nil || items[0].Todo.Title != "café" {
		t.Errorf("Windows-1252 is read as %+v, %v", items, err)
	}
	if _, _, err := (markdown.Format{}).Read([]byte("- [ ] caf\xe9\x00\n"), world()); err == nil || !strings.Contains(err.Error(), "no text") {
		t.Errorf("what is no text is read with %v", err)
	}
}

// What is written is what a person would type.
func TestWrite(t *testing.T) {
	items := []exchange.Item{
		{Incoming: book.Incoming{Under: -1, List: "Night Signals", Todo: book.Todo{Title: "Order mount board", Due: day.MustMoment("2026-11-27T16:00"), InOrder: true}, Notes: "From the framer.\n\nTwo sheets."}},
		{Incoming: book.Incoming{Under: 0, Todo: book.Todo{Title: "Measure the frames", Status: book.Completed}}},
		{Incoming: book.Incoming{Under: 0, Todo: book.Todo{Title: "Call *Ines* by Friday"}, Person: "Ines Prado"}},
		{Incoming: book.Incoming{Under: -1, List: "Night Signals", Section: "After", Todo: book.Todo{Title: "Return the lamps", Status: book.Cancelled, Outcome: "lit --> dark"}}},
	}
	items[2].Todo.Person.Role = book.Ask
	got, err := markdown.Format{}.Write(items, world())
	want := `- [ ] Order mount board, by 27 Nov 2026 16:00, in Night Signals

  > From the framer.
  >
  > Two sheets.

  1. [x] Measure the frames
  2. [ ] "Call \*Ines\* by Friday", ask Ines Prado

## After

- [x] Return the lamps, in Night Signals <!-- status: cancelled --> <!-- outcome: lit -\-> dark -->

<!--
list: Night Signals
person: Ines Prado
-->
`
	if err != nil || string(got) != want {
		t.Errorf("written as\n%s\n%v", got, err)
	}
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"- [ ] a\n  > b\n", "# x\n- [x] y <!-- due: 2026-11-27 -->\n", "1. [ ] a\n   - [ ] b\n\n<!--\nlist: A\n-->", "> - [ ] \n\t- [ ] x", "- [ ] a\n\n      code\n"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, file []byte) {
		if len(file) > 2000 {
			return
		}
		items, _, err := markdown.Format{}.Read(file, world())
		if err != nil {
			return
		}
		for i, item := range items {
			if item.Under >= i || item.Line < 1 || item.Todo.Title == "" {
				t.Fatalf("item %d: %+v", i, item)
			}
		}
		// What was read and can be written is read again as the same.
		out, err := markdown.Format{}.Write(items, world())
		if err != nil {
			t.Fatal(err)
		}
		again, refused, err := markdown.Format{}.Read(out, world())
		if err != nil || len(refused) > 0 || len(again) != len(items) {
			t.Fatalf("%d items are read again as %d, %+v, %v\n%s", len(items), len(again), refused, err, out)
		}
		for i := range items {
			if title := items[i].Todo.Title; title != again[i].Todo.Title && utf8.RuneCountInString(title) <= term.MaxTitle {
				t.Fatalf("%q is read again as %q\n%s", items[i].Todo.Title, again[i].Todo.Title, out)
			}
		}
	})
}
