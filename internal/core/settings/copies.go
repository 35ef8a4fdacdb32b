package settings

import "strconv"

// How many copies of the data file are kept.
const (
	defaultCopies = 14
	maxCopies     = 90
	noCopies      = -1 // as it is kept
)

// CopiesKept is how many daily copies of the data file are kept, 0 to 90; 0 makes none.
func (s *Settings) CopiesKept() int {
	switch s.Copies {
	case 0:
		return defaultCopies
	case noCopies:
		return 0
	}
	return s.Copies
}

var copyFields = []Field{{Name: "copies", Says: "daily copies that are kept", Default: strconv.Itoa(defaultCopies), Wants: "a whole number from 0 to 90",
	get: func(s *Settings) string { return strconv.Itoa(s.CopiesKept()) },
	set: func(s *Settings, v string) bool {
		n, err := strconv.Atoi(v)
		if err != nil || n < 0 || n > maxCopies {
			return false
		}
		switch s.Copies = n; n {
		case 0:
			s.Copies = noCopies
		case defaultCopies:
			s.Copies = 0
		}
		return true
	}}}
