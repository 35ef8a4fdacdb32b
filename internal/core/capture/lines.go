package capture

import (
	"fmt"
	"strings"
	"unicode"
)

// MaxLines is how many lines are read at once.
const MaxLines = 500

// Line is one line of several, read as a sentence of its own.
type Line struct {
	// Number counts lines from 1.
	Number int
	// Depth is 0 for what stands at the left.
	Depth int
	// Parent is the index of the line it is a subtask of, -1 for none.
	Parent int
	// Section: it is a heading, and its title all it says.
	Section bool
	// Done: it was written as ticked, "- [x]".
	Done bool
	// Sentence is what is read, without the indentation and the mark of a list's item; ""
	// for a heading. The spans of the Draft count in it.
	Sentence string
	Draft    Draft
}

// ReadLines reads several lines as a tree. Two spaces or a tab more than the
// line above make a subtask; "- ", "* ", "1. " and "- [ ]" at the start are
// dropped, "- [x]" is ticked and "# Heading" is a section, which holds what
// comes after it. Empty lines are passed over. It fails where there are more
// than MaxLines.
func ReadLines(text string, env Env) ([]Line, error) {
	text = strings.ReplaceAll(text, "\r\n", "\n")
	text = strings.ReplaceAll(text, "\r", "\n")
	var lines []Line
	type level struct{ width, place int }
	var above []level
	number := 0
	for raw := range strings.SplitSeq(text, "\n") {
		number++
		body := strings.TrimLeftFunc(raw, unicode.IsSpace)
		if body == "" {
			continue
		}
		if len(lines) == MaxLines {
			return nil, fmt.Errorf("there are more than %d lines; put in fewer at once", MaxLines)
		}
		line := Line{Number: number, Parent: -1}
		if heading, ok := heading(body); ok {
			line.Section = true
			line.Draft = Draft{Title: heading}
			r := reader{draft: line.Draft}
			r.checkTitle()
			line.Draft = r.draft
			above = above[:0]
			lines = append(lines, line)
			continue
		}
		width := indent(raw[:len(raw)-len(body)])
		for len(above) > 0 && width < above[len(above)-1].width+2 {
			above = above[:len(above)-1]
		}
		if len(above) > 0 {
			line.Parent = above[len(above)-1].place
		}
		line.Depth = len(above)
		above = append(above, level{width, len(lines)})
		line.Sentence, line.Done = unmark(body)
		line.Draft = Read(line.Sentence, env)
		lines = append(lines, line)
	}
	return lines, nil
}

// heading reads "# Heading" to "###### Heading".
func heading(s string) (string, bool) {
	text := strings.TrimLeft(s, "#")
	n := len(s) - len(text)
	if n < 1 || n > 6 || !strings.HasPrefix(text, " ") {
		return "", false
	}
	return strings.TrimSpace(text), true
}

// indent measures white space: a tab is as wide as two spaces.
func indent(s string) int {
	width := 0
	for _, r := range s {
		if r == '\t' {
			width++
		}
		width++
	}
	return width
}

// unmark drops the mark of a list's item and tells whether it was ticked.
func unmark(s string) (string, bool) {
	rest := s
	switch {
	case strings.HasPrefix(s, "- "), strings.HasPrefix(s, "* "), strings.HasPrefix(s, "+ "):
		rest = strings.TrimLeft(s[2:], " ")
	default:
		digits := strings.TrimLeft(s, "0123456789")
		if n := len(s) - len(digits); n < 1 || n > 9 || !strings.HasPrefix(digits, ". ") && !strings.HasPrefix(digits, ") ") {
			return s, false
		}
		rest = strings.TrimLeft(digits[2:], " ")
	}
	if len(rest) >= 3 && rest[0] == '[' && rest[2] == ']' && (len(rest) == 3 || rest[3] == ' ') {
		switch rest[1] {
		case ' ':
			return strings.TrimLeft(rest[3:], " "), false
		case 'x', 'X':
			return strings.TrimLeft(rest[3:], " "), true
		}
	}
	return rest, false
}
