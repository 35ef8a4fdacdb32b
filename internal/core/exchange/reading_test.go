package exchange_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
)

// Items that name what they stand under come behind it, in their order; what would stand under
// itself stands by itself, and what stands under one that is not among them keeps its UID.
func TestOrdered(t *testing.T) {
	for name, c := range map[string]struct {
		file string // "uid<above" with spaces between
		want string // the same in order, deeper ones in brackets
	}{
		"as they are":            {"a b< c<", "a b c"},
		"behind what it is of":   {"b<a a c<b", "a(b(c))"},
		"siblings in order":      {"b<a c<a a d<a", "a(b c d)"},
		"one that is not there":  {"a<x b<a", "a@x(b)"},
		"under itself":           {"a<a b", "a! b"},
		"a circle":               {"a<b b<a c<b", "a!(b(c))"},
		"a circle and its tail":  {"d<c a<b b<c c<a", "c!(d b(a))"},
		"two of one UID":         {"a a b<a", "a(b) a"},
		"without a UID":          {"< b< <b", "? b(?)"},
		"nothing":                {"", ""},
		"two circles":            {"a<b b<a c<d d<c", "a!(b) c!(d)"},
		"up to one seen already": {"a b<a c<b d<c e<c", "a(b(c(d e)))"},
	} {
		var items []exchange.Item
		var above []string
		for _, word := range strings.Split(c.file, " ") {
			if c.file == "" {
				break
			}
			uid, up, _ := strings.Cut(word, "<")
			items = append(items, exchange.Item{Incoming: book.Incoming{UID: uid}})
			above = append(above, up)
		}
		got := exchange.Ordered(items, above)
		var say func(under int) string
		say = func(under int) string {
			var said []string
			for i, item := range got {
				if item.Under != under {
					continue
				}
				word := item.UID
				if word == "" {
					word = "?"
				}
				if item.Parent != "" && len(item.Remarks) == 0 {
					word += "@" + item.Parent
				}
				word += strings.Repeat("!", len(item.Remarks))
				if below := say(i); below != "" {
					word += "(" + below + ")"
				}
				said = append(said, word)
			}
			return strings.Join(said, " ")
		}
		if said := say(-1); said != c.want || len(got) != len(items) {
			t.Errorf("%s: %s, want %s", name, said, c.want)
		}
		for i, item := range got {
			if item.Under >= i {
				t.Errorf("%s: %s comes before what it stands under", name, item.UID)
			}
		}
	}
}

// What other programs call a category becomes a tag, which has no spaces and begins with a letter.
func TestTagOf(t *testing.T) {
	for in, want := range map[string]string{
		"Calls": "Calls", "#calls": "calls", "Board meeting": "Board-meeting", " board \t meeting ": "board-meeting", "2026 plans": "plans", "-_x": "x",
		"work/calls": "work/calls", "work//calls/": "work/calls", "/work": "work", "a.b:c": "abc", "Über": "Über", "123": "", "": "", "0a0b9z": "a0b9z", "x" + strings.Repeat("y", 200): "x" + strings.Repeat("y", 99),
	} {
		if got := exchange.TagOf(in); got != want {
			t.Errorf("%q: %q, want %q", in, got, want)
		}
	}
	if got := exchange.Cut("äöü", 3) + exchange.Cut("äöü", 2) + exchange.OneLine(" a \n b\t"); got != "äöüäöa b" {
		t.Errorf("%s", got)
	}
	if got := fmt.Sprint((&exchange.Error{Reason: "It has no end."}).Error()); got != "It has no end." {
		t.Error(got)
	}
}
