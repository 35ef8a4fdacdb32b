package capture

import (
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// What the parser makes of words, before any clock is asked.

type form uint8

const (
	fromToday  form = iota // n days on; -1 is tonight
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
	inWeekOf               // the ISO week that begins on, or that holds base
	neverIs                // what no calendar has
	shifted                // n units after base, before it where n is negative
	nthOf                  // the n-th weekday, or day, of a month; -1 is the last
	easterDay              // Easter Sunday
	ofWeek                 // ISO week n, which is a plan only
	inMinutes              // n minutes from now
	weekdayIn              // the weekday of the week that base is in
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
	base    *date
	// of is the month that nthOf counts in: 0 is this one, or the next if that has passed.
	// every: days of any weekday; working: Monday to Friday alone.
	every, working bool
	// comesRound: its words are those of a repeat ("first Monday of the month") where no word such as
	// "by" stands before them.
	comesRound bool
}

// hour is words for a time of day. The zero hour is none.
type hour struct {
	at day.TimeOfDay
	// wrong is set where there is no such time.
	wrong bool
	// half: neither am nor pm was said of an hour that could be either.
	half bool
	// loose: it was said with "at", or in words; the next such time of a 12-hour clock.
	loose bool
	// spoken: "half past two", which nobody says of the night.
	spoken bool
	// end is where its words end in the text, of one that could be in either half.
	end int
}

func (h hour) none() bool { return h.at.IsZero() && !h.wrong }

// recurrence is words for a repeat.
type recurrence struct {
	rule   repeat.Rule
	anchor repeat.Anchor
	// part is a part of the day: "every evening"; 0 for none.
	part int
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
	itemOwn // a word of ownWords
	itemNote
)

// item is one thing a clause says.
type item struct {
	kind itemKind
	span Span
	// also is where the same is said again.
	also []Span
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
	role term.Role
	// new: nobody, or no list, has the name yet.
	new bool
	// inTitle: its words stay in the title.
	inTitle bool
	// partOfDay: the time of a due is only that of a part of the day ("Friday evening").
	partOfDay bool
	// parked, of a plan.
	parked bool
	// before, of a reminder: n minutes ahead.
	before bool
	// edge, of a reminder: the one of the place name at which it comes.
	edge day.Edge
}
