package exchange

import (
	"strings"
	"unicode"

	"tincup/internal/core/book"
)

// Ordered puts each item behind what it stands under: above has the UID of that for each, "" for
// none. What would stand under itself stands by itself, with a remark; what stands under one that is
// not among them keeps its UID as Parent.
func Ordered(items []Item, above []string) []Item {
	byUID := map[string]int{}
	for i := range items {
		if _, taken := byUID[items[i].UID]; !taken && items[i].UID != "" {
			byUID[items[i].UID] = i
		}
	}
	under := make([]int, len(items))
	for i := range items {
		under[i] = -1
		if up, ok := byUID[above[i]]; ok && above[i] != "" {
			under[i] = up
		} else {
			items[i].Parent = above[i]
		}
	}
	return Arranged(items, under)
}

// Arranged puts each item behind what it stands under: under has the index of that for each, -1 for
// none. What would stand under itself stands by itself, with a remark.
func Arranged(items []Item, under []int) []Item {
	children := map[int][]int{}
	// What stands under itself stands by itself: looked at once, each way up is known.
	const (
		looking = 1 + iota
		known
	)
	state := make([]uint8, len(items))
	for i := range items {
		var way []int
		up := i
		for ; up >= 0 && state[up] == 0; up = under[up] {
			state[up] = looking
			way = append(way, up)
		}
		if up >= 0 && state[up] == looking {
			under[up] = -1
			items[up].Remarks = append(items[up].Remarks, "It stands under itself in the file; here it stands by itself.")
		}
		for _, seen := range way {
			state[seen] = known
		}
	}
	for i := range items {
		children[under[i]] = append(children[under[i]], i)
	}
	out := make([]Item, 0, len(items))
	var put func(i, under int)
	put = func(i, under int) {
		items[i].Under = under
		at := len(out)
		out = append(out, items[i])
		for _, sub := range children[i] {
			put(sub, at)
		}
	}
	for _, i := range children[-1] {
		put(i, -1)
	}
	return out
}

// TagOf makes a tag of a category: a tag has no spaces, and begins with a letter.
func TagOf(s string) string {
	var b strings.Builder
	for _, r := range strings.TrimPrefix(strings.Join(strings.Fields(s), "-"), "#") {
		if strings.ContainsRune("-_/", r) || r >= '0' && r <= '9' || letter(r) {
			b.WriteRune(r)
		}
	}
	tag := strings.TrimLeftFunc(b.String(), func(r rune) bool { return !letter(r) })
	for strings.Contains(tag, "//") {
		tag = strings.ReplaceAll(tag, "//", "/")
	}
	return Cut(strings.TrimRight(tag, "/"), book.MaxName)
}

func letter(r rune) bool { return unicode.IsLetter(r) || unicode.IsMark(r) }

// OneLine is a text as one line: without blanks at its ends, and with a space in the place of each
// run of blanks in which there is a line break, a tab or another control character. Other blanks
// stay as they are.
func OneLine(s string) string {
	var b strings.Builder
	var run []rune
	breaks := false
	for _, r := range strings.TrimFunc(s, blank) {
		if blank(r) {
			run = append(run, r)
			breaks = breaks || !unicode.IsPrint(r) && !unicode.Is(unicode.Zs, r)
			continue
		}
		if breaks {
			run = append(run[:0], ' ')
		}
		b.WriteString(string(run))
		run, breaks = run[:0], false
		b.WriteRune(r)
	}
	return b.String()
}

func blank(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }

// Cut is a text of no more than so many characters.
func Cut(s string, most int) string {
	if long := []rune(s); len(long) > most {
		return string(long[:most])
	}
	return s
}
