package search_test

import (
	"strings"
	"testing"

	"tincup/internal/core/search"
)

// An indexed text has blanks between its words; a run of a script without them stands in pairs, and
// whatever part of it is asked for is some of these in a row.
func TestIndexed(t *testing.T) {
	for text, want := range map[string]string{
		"Signal lamp, e-mail": "signal lamp, e-mail", // the index parts it
		"Größe 5":             "größe 5",
		"東京で":                 "東京 京で で",
		"灯":                   "灯",
		"Tokyo東京2026":         "tokyo 東京 京 2026",
		"ラーメン":                "ラー ーメ メン ン",
		"© →":                 "",
		"สวัสดี":              "สว วั ัส สด ดี ี",
	} {
		if got := search.Indexed(text, strings.ToLower); got != want {
			t.Errorf("%q is indexed as %q, want %q", text, got, want)
		}
	}
	const run = "日本語の本を読む"
	runes := []rune(run)
	indexed := " " + search.Indexed(run, strings.ToLower) + " "
	for from := range runes {
		for to := from + 1; to <= len(runes); to++ {
			words := search.Term{Text: string(runes[from:to])}.Words(strings.ToLower)
			if !strings.Contains(indexed, " "+words) {
				t.Errorf("%q is looked for as %q, which is not in %q", string(runes[from:to]), words, indexed)
			}
		}
	}
	one, other := search.Indexed("🏮", strings.ToLower), search.Indexed("🏯", strings.ToLower)
	if one == other || !strings.HasPrefix(one, "emoji") || search.Indexed("x 🏮🏯", strings.ToLower) != "x "+one+" "+other {
		t.Errorf("emoji are indexed as %q and %q", one, other)
	}
}
