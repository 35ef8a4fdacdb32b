package httpapi

import (
	"cmp"
	"net/url"
	"strconv"

	"tincup/internal/core/book"
)

// instead is which sentences are read in the place of those in a file, as a query says it: 3=Order+board.
func instead(query string) (map[int]string, error) {
	said, err := url.ParseQuery(query)
	lines := make(map[int]string, len(said))
	for key, sentence := range said {
		line, wrong := strconv.Atoi(key)
		if err = cmp.Or(err, wrong); err == nil {
			lines[line] = sentence[0]
		}
	}
	if err != nil {
		return nil, &book.RuleError{Field: "instead", Reason: "It is no query of lines and sentences such as 3=Order+board&7=Ring+Ada."}
	}
	return lines, nil
}

// overlay lays what columns are, as a query says it, over what is remembered of them.
func overlay(columns map[string]string, query string) error {
	named, err := url.ParseQuery(query)
	if err != nil {
		return &book.RuleError{Field: "columns", Reason: "The columns are no query such as subject=title&colour=-."}
	}
	for head, is := range named {
		columns[head] = is[0]
	}
	return nil
}
