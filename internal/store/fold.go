package store

import (
	"strings"
	"unicode/utf8"

	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// Fold makes words alike that people take for the same: letters of any case, width and ligature
// (Unicode's full case folding, and normalization form KC), without the accents above and below them
// that other languages have on the same letters. Straße is strasse, Ωμέγα ωμεγα, Ёлка елка.
func Fold(text string) string {
	plain := true
	for i := range len(text) {
		plain = plain && text[i] < utf8.RuneSelf
	}
	if plain {
		return strings.ToLower(text)
	}
	// Combining Diacritical Marks alone: the marks of other blocks are vowels, or tell words apart.
	bare := strings.Map(func(r rune) rune {
		if r >= 0x0300 && r <= 0x036f {
			return -1
		}
		return r
	}, norm.NFKD.String(text))
	return norm.NFKC.String(cases.Fold().String(norm.NFKC.String(bare)))
}
