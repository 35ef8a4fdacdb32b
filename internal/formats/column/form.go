package column

import (
	"time"

	"tincup/internal/core/book"
)

// Form says how values of a column are read that mean different things in different files.
type Form struct {
	// Zone is that of times that name another one, or none.
	Zone *time.Location
	// MonthFirst: 11/30/2026 is a date, and 30/11/2026 is none; else the day comes first. A number
	// above 12 is a day in either form.
	MonthFirst bool
	Numbers    Numbers
	// Most is the largest bare number in a column of priorities, for LastHigh.
	Most int
}

// Numbers says what bare numbers in a column of priorities mean.
type Numbers string

// The meanings that bare numbers may have.
const (
	// FirstHigh: 1 is high, 2 medium, 3 low.
	FirstHigh Numbers = "1-high"
	// LastHigh: the largest number is high, the next lower medium, the next low.
	LastHigh Numbers = "1-low"
	// OfStandard: 1 to 4 are high, 5 is medium, 6 to 9 are low (RFC 5545 section 3.8.1.9).
	OfStandard Numbers = "1-to-9"
)

// priority is what a bare number means; 0 is none in each form.
func (f Form) priority(n int) book.Priority {
	if f.Numbers == OfStandard {
		switch {
		case n >= 1 && n <= 4:
			return book.High
		case n == 5:
			return book.Medium
		case n >= 6 && n <= 9:
			return book.Low
		}
		return book.NoPriority
	}
	rank := n
	if f.Numbers == LastHigh && n > 0 {
		rank = f.Most - n + 1
	}
	switch rank {
	case 1:
		return book.High
	case 2:
		return book.Medium
	case 3:
		return book.Low
	}
	return book.NoPriority
}
