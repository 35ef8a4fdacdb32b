package filter

import (
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// facts is what a filter may ask of a to-do, with every date as the day it
// counts to.
type facts struct {
	text                   string // title and notes, folded
	place                  string // folded
	list, shelf, section   book.ID
	tags                   []book.ID         // with those above each
	choices                [maxChoices]uint8 // each the index of a word in its choice
	status                 book.Status
	note                   bool // it has no status then
	due, start             day.Date
	dueTime, planTime      day.TimeOfDay
	passed                 bool // the due is
	plan                   day.Horizon
	planSeen               day.Date // the today from which the plan is seen, if not the one that is asked about
	created, completed     day.Date
	estimate               int
	person                 book.ID
	role                   book.Role
	repeating, paused      bool
	hasSubtasks, isSubtask bool
	next                   bool
	attachment, handful    bool
	plannedPast            bool // its due
	slack                  int  // minutes, where there is any
	hasSlack               bool
}

// eval answers a test; whatever is absent answers no.
func eval(t *question.Test, f *facts, today day.Date) bool {
	return specs[t.Field].holds(t, f, today)
}

func (f *facts) planToday(today day.Date) day.Date {
	if f.planSeen.IsZero() {
		return today
	}
	return f.planSeen
}

func toInt(b bool) int {
	if b {
		return 1
	}
	return 0
}

// fold lets texts compare without their case.
func fold(s string) string { return strings.ToLower(s) }

func isOneOf(t *question.Test, id book.ID) bool {
	if t.Op == question.None {
		return id.IsZero()
	}
	return !id.IsZero() && slices.Contains(t.IDs, id)
}

func isTagged(t *question.Test, f *facts) bool {
	has := func(id book.ID) bool { return slices.Contains(f.tags, id) }
	switch t.Op {
	case question.AnyOf:
		return slices.ContainsFunc(t.IDs, has)
	case question.NoneOf:
		return !slices.ContainsFunc(t.IDs, has)
	case question.AllOf:
		return !slices.ContainsFunc(t.IDs, func(id book.ID) bool { return !has(id) })
	}
	return len(f.tags) == 0
}
