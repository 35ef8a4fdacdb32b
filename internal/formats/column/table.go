package column

import "strings"

// formula reports whether a spreadsheet might take a value for a formula.
func formula(s string) bool { return s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) }

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
