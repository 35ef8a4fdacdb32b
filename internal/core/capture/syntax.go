package capture

import (
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// What the parser makes of words, before any clock is asked.

type form uint8

const (
	fromToday  form = iota // n days on
	onWeekday              // of which
	atWeekend              // of which
	ofNext                 // the next unit
	ofThis                 // this unit, which is a plan only
	inUnits                // n units on
	atEnd                  // the end of which unit
	onMonthDay             // n and month, year if said
	inMonth                // month, year if said
	onNth                  // the n-th
	exact                  // on
	inWeekOf               // the ISO week that begins on
	neverIs                // what no calendar has
)

type which uint8

const (
	coming which = iota
	this
	next
)

// date is words for a date.
type date struct {
	form    form
	which   which
	n       int
	unit    int
	weekday time.Weekday
	month   time.Month
	year    int
	on      day.Date
	// weekday was said beside a full date.
	checked bool
}

// hour is words for a time of day. The zero hour is none.
type hour struct {
	at day.TimeOfDay
	// wrong is set where there is no such time.
	wrong bool
}

func (h hour) none() bool { return h.at.IsZero() && !h.wrong }

// recurrence is words for a repeat.
type recurrence struct {
	rule   repeat.Rule
	anchor repeat.Anchor
	// wrong: "every year on" a date that no year has, or an interval of none.
	wrong bool
}

type itemKind uint8

const (
	itemDue itemKind = iota
	itemTime
	itemStart
	itemPlan
	itemRepeat
	itemWeekdays // more weekdays of a repeat
	itemUntil
	itemPeriod
	itemCount
	itemLead
	itemPriority
	itemList
	itemEstimate
	itemPerson
	itemReminder
	itemTag
)

// item is one thing a clause says.
type item struct {
	kind itemKind
	span Span
	// introduced by a word such as "by"; a bare one follows the title more
	// carefully.
	introduced bool
	date       *date
	time       hour
	rule       *recurrence
	// n is minutes, a count, a lead in days, a priority, or a number of units.
	n    int
	unit int
	name string
	role Role
	// parked, of a plan.
	parked bool
	// before, of a reminder: n minutes ahead.
	before bool
}
