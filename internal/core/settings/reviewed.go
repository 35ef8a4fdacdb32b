package settings

import "tincup/internal/core/day"

// Walk is a guided review.
type Walk int

// The walks.
const (
	Daily Walk = iota
	Weekly
	Monthly
	// Walks is how many there are.
	Walks
)

// String is the walk's name as a sentence begins with it.
func (w Walk) String() string { return [Walks]string{"Daily", "Weekly", "Monthly"}[w] }

// reviewedFields say when each walk was last gone through. They are kept with the settings:
// what is known in one window of an account is known in all.
var reviewedFields = func() []Field {
	var fields []Field
	for w := range Walks {
		fields = append(fields, Field{Name: "reviewed" + w.String(), Says: "last " + w.String() + " review", Default: "never", Wants: "a date such as 2026-11-24, or never",
			get: func(s *Settings) string { return orWord(s.Reviewed[w], "never") },
			set: func(s *Settings, v string) bool {
				if v == "never" {
					s.Reviewed[w] = ""
					return true
				}
				d, err := day.ParseDate(v)
				if err != nil {
					return false
				}
				s.Reviewed[w] = d.String()
				return true
			}})
	}
	return fields
}()
