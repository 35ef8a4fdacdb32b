// Package repeat reckons when something comes round again: recurrence rules of
// RFC 5545 (section 3.3.10) of a frequency of daily or slower, on civil dates,
// with the SKIP of RFC 7529 (section 4.1).
//
// A Rule is the text of an RRULE, read and checked. A Series is a Rule that
// begins on a date; it answers which date comes next and which lie between.
// These are found by arithmetic: the work depends on how far apart the dates of
// a rule lie, never on how long ago it began.
// A Repeat is what a to-do carries: the Series with what a person adds to it,
// such as dates left out, a pause, or reckoning from the day a thing was done.
//
// A date belongs to a Series when it is not before the first date, lies in a
// year, month, week or day that INTERVAL keeps, and passes every BY part; of
// these BYSETPOS picks within one year, month or week. What a rule leaves open
// it takes from the first date, as the notes to the table in section 3.3.10
// say. The first date itself counts only where the rule holds for it. A year's
// days are those of the calendar year, also where BYWEEKNO names a week that
// reaches over its ends.
//
// SKIP moves days of the month that are counted from its start, and day 366:
// BACKWARD to the last day there is, FORWARD to the day after it. Two that fall
// on one date are one.
package repeat
