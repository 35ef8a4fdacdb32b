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
	children := map[int][]int{}
	for i := range items {
		under[i] = -1
		if up, ok := byUID[above[i]]; ok && above[i] != "" {
			under[i] = up
		}
	}
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
		if children[under[i]] = append(children[under[i]], i); under[i] < 0 {
			items[i].Parent = above[i]
		}
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

// OneLine is a text with single spaces in the place of what white space it has.
func OneLine(s string) string { return strings.Join(strings.Fields(s), " ") }

// Cut is a text of no more than so many characters.
func Cut(s string, most int) string {
	if long := []rune(s); len(long) > most {
		return string(long[:most])
	}
	return s
}
