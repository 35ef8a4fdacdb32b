package column

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// formula reports whether a spreadsheet might take a value for a formula: it begins with one of the
// signs of a formula, in full width too, also behind blanks (common practice, no source).
func formula(s string) bool {
	if s != "" && (s[0] == '\t' || s[0] == '\r') {
		return true
	}
	sign, _ := utf8.DecodeRuneInString(strings.TrimLeftFunc(s, blank))
	return strings.ContainsRune("=+-@＝＋－＠", sign)
}

// blank reports whether a spreadsheet may pass over a character at the beginning of a cell.
func blank(r rune) bool { return unicode.IsSpace(r) || unicode.Is(unicode.Cf, r) }

// Safe is a value as it is written into a table, behind an apostrophe where a spreadsheet would take
// it for a formula.
func Safe(s string) string {
	if formula(s) || s != "" && s[0] == '\'' && (formula(s[1:]) || strings.HasPrefix(s[1:], "'")) {
		return "'" + s
	}
	return s
}

// Unsafe is a value as it was before Safe.
func Unsafe(s string) string {
	if s != "" && s[0] == '\'' && (formula(s[1:]) || strings.HasPrefix(s[1:], "'")) {
		return s[1:]
	}
	return s
}
