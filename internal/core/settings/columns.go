package settings

import (
	"net/url"
	"strings"
)

// maxColumns is how long the columns of tables may be, in bytes as they are kept.
const maxColumns = 8000

// columnFields hold what columns of tables are that were named by hand: heads in small letters and
// the names of ours, "-" for one that is passed over, as a query (RFC 3986 section 3.4).
var columnFields = []Field{{Name: "csvColumns", Says: "columns of CSV files", Default: "none",
	Wants: "heads and columns such as subject=title&colour=-, or none",
	get:   func(s *Settings) string { return orWord(s.Columns, "none") },
	set: func(s *Settings, v string) bool {
		if v == "none" {
			s.Columns = ""
			return true
		}
		columns, err := url.ParseQuery(v)
		if err != nil || len(v) > maxColumns {
			return false
		}
		for head, is := range columns {
			if head != strings.ToLower(head) || len(is) != 1 || is[0] == "" {
				return false
			}
		}
		s.Columns = columns.Encode()
		return true
	},
	tell: func(_, after string) string {
		columns, err := url.ParseQuery(after)
		if err != nil || after == "none" {
			return "are forgotten"
		}
		var told []string
		for _, pair := range strings.Split(columns.Encode(), "&") {
			head, is, _ := strings.Cut(pair, "=")
			name, _ := url.QueryUnescape(head) // it was encoded a line above
			is, _ = url.QueryUnescape(is)
			if is == "-" {
				is = "passed over"
			}
			is = strings.Replace(is, ":", ", ", 1) // due:month-first
			told = append(told, "“"+name+"” is "+is)
		}
		return strings.Join(told, ", ")
	}}}

// CSVColumns are what columns of tables are that were named by hand, by their heads in small letters.
func (s *Settings) CSVColumns() map[string]string {
	columns, _ := url.ParseQuery(s.Columns) // what set keeps can be parsed
	named := make(map[string]string, len(columns))
	for head, is := range columns {
		named[head] = is[0]
	}
	return named
}
