package view_test

import (
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/view"
)

// Repeats stand by their next date, whatever that is; then paused ones, and those that came to
// their last date. Records of what was done are not among them.
func TestComesRound(t *testing.T) {
	f := fill(t) // Tuesday 24 November
	repeats := func(c book.Capture, rule string) book.ID {
		id := f.put(c)
		f.do(book.ChangeRule{ID: id, Rule: repeat.MustParse(rule)})
		return id
	}
	repeats(book.Capture{Title: "Rota", Due: day.MustMoment("2026-12-04"), Priority: book.High}, "FREQ=WEEKLY")
	meter := repeats(book.Capture{Title: "Meter", Due: day.MustMoment("2026-11-24")}, "FREQ=WEEKLY")
	repeats(book.Capture{Title: "Water", Plan: day.MustHorizon("2026-11-26")}, "FREQ=DAILY")
	paused := repeats(book.Capture{Title: "Choir", Due: day.MustMoment("2026-11-25")}, "FREQ=WEEKLY")
	f.do(book.Pause{ID: paused})
	once := repeats(book.Capture{Title: "Course", Due: day.MustMoment("2026-11-24")}, "FREQ=WEEKLY;COUNT=1")
	f.do(book.Complete{ID: once})
	f.put(book.Capture{Title: "Once", Due: day.MustMoment("2026-11-25")})
	compare(t, f.show(view.Query{Of: view.ComesRound}), "comes-round  3\n  Meter\n  Water\n  Rota\npaused  1\n  Choir\nended  1\n  Course\n")
	f.do(book.Complete{ID: meter}) // its record is no repeat, and it comes again on 1 December
	compare(t, f.show(view.Query{Of: view.ComesRound}), "comes-round  3\n  Water\n  Meter\n  Rota\npaused  1\n  Choir\nended  1\n  Course\n")
}
