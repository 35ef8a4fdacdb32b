package book

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/day"
)

// checkLine reads one line of text of 1 to most characters.
func checkLine(field, what, s string, most int) (string, error) {
	if !utf8.ValidString(s) {
		return "", refuse(field, "The %s is not valid UTF-8 text.", what)
	}
	s = strings.TrimSpace(s)
	if s == "" {
		return "", refuse(field, "The %s is empty. Give it at least one word.", what)
	}
	if n := utf8.RuneCountInString(s); n > most {
		return "", refuse(field, "The %s has %d characters; %d is the most.", what, n, most)
	}
	for _, r := range s {
		switch {
		case r == '\n' || r == '\r' || r == '\u0085' || r == '\u2028' || r == '\u2029':
			return "", refuse(field, "The %s has a line break; it must be one line.", what)
		case unicode.IsControl(r):
			return "", refuse(field, "The %s has a control character (U+%04X); take it out.", what, r)
		}
	}
	return s, nil
}

// lineOrNone is the text that a change leaves: what it was where the change says
// nothing, and none where it says "".
func lineOrNone(field, was string, change *string, most int) (string, error) {
	if change == nil {
		return was, nil
	}
	if strings.TrimSpace(*change) == "" {
		return "", nil
	}
	return checkLine(field, field, *change, most)
}

func checkTitle(s string) (string, error) { return checkLine("title", "title", s, MaxTitle) }

func checkNotes(s string) (string, error) {
	if !utf8.ValidString(s) {
		return "", refuse("notes", "The notes are not valid UTF-8 text.")
	}
	s = strings.ReplaceAll(s, "\r\n", "\n")
	if len(s) > MaxNotes {
		return "", refuse("notes", "The notes have %d bytes; %d is the most.", len(s), MaxNotes)
	}
	for _, r := range s {
		if unicode.IsControl(r) && r != '\n' && r != '\t' {
			return "", refuse("notes", "The notes have a control character (U+%04X); take it out.", r)
		}
	}
	return s, nil
}

// checkTag reads a tag name: parts of letters, digits, '-' and '_' joined by
// slashes, the first character a letter.
func checkTag(s string) (string, error) {
	s, err := checkLine("tags", "tag", strings.TrimPrefix(strings.TrimSpace(s), "#"), MaxName)
	if err != nil {
		return "", err
	}
	for i, r := range s {
		if i == 0 && !unicode.IsLetter(r) {
			return "", refuse("tags", "The tag “%s” must begin with a letter.", s)
		}
		if !unicode.IsLetter(r) && !unicode.IsMark(r) && !unicode.IsDigit(r) && !strings.ContainsRune("-_/", r) {
			return "", refuse("tags", "The tag “%s” may hold letters, digits, - and _, with / between its parts.", s)
		}
	}
	if strings.Contains(s, "//") || strings.HasSuffix(s, "/") {
		return "", refuse("tags", "The tag “%s” has an empty part beside a slash.", s)
	}
	return s, nil
}

// checkDates refuses a start after the due; field is the one just written.
func checkDates(field string, start day.Date, due day.Moment) error {
	if !start.IsZero() && !due.IsZero() && start.After(due.Date) {
		return refuse(field, "The start, %s, is after the due, %s. Give an earlier start or a later due.", start, due.Date)
	}
	return nil
}
