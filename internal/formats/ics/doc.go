// Package ics writes to-dos as iCalendar (RFC 5545) and reads them: a VTODO each, a VJOURNAL for a
// note.
//
// What is kept as the standard has it: UID, SUMMARY (title), DESCRIPTION (notes), STATUS, COMPLETED,
// PRIORITY (1, 5, 9; read: 1 to 4 high, 5 medium, 6 to 9 low), DUE, DTSTART (start), RRULE, EXDATE,
// CATEGORIES (tags), LOCATION (place), RELATED-TO (the to-do above), URL (source), CREATED,
// LAST-MODIFIED, VALARM (reminders) with PROXIMITY and VLOCATION (RFC 9074), VLOCATION with GEO for
// the place (RFC 9073). Dates with time are written without a zone (section 3.3.5, form 1): 17:00 is
// 17:00 wherever one is. A reminder of a date counts from midnight there (section 3.8.6.3), and from
// the hour of reminders here: half an hour before is PT8H30M where that hour is 9:00.
//
// What the standard has no word for stands in properties of our own, which others pass over:
// X-TINCUP-PLAN, -ESTIMATE, -CONCENTRATION, -ORDER, -OUTCOME, -HANDFUL, -PERSON (with X-ROLE and
// X-SINCE), -LIST, -SECTION, -SOURCE, and -REMINDER within a VALARM. So does what the standard does
// not allow where it would stand: X-TINCUP-PRIORITY, -DUE, -LOCATION and -REMINDER of a note (section
// 3.6.3), and -CLOSED, when a to-do was cancelled.
//
// What the standard cannot hold: a start beside a due of another type, or not before it, is
// X-TINCUP-START, and the due stands alone. A repeat is written as the series from its present
// occurrence on: DTSTART is that, and equals DUE where the rule drives the due; COUNT becomes UNTIL;
// SKIP=BACKWARD becomes days that all readers know. The repeat itself is X-TINCUP-REPEAT, from
// which we read it back. One with a lead, or reckoned from completion, has that alone.
//
// What is not kept: files, the bin, and what was ticked of a repeat before.
//
// Reading is lenient: times in UTC, in a zone of the IANA database, of Windows or of the file's own
// VTIMEZONE become wall times of the person's zone, and the weekdays of a rule move where that moves
// the day; DTSTART with DURATION makes a due; RELTYPE=CHILD makes subtasks, and DEPENDS-ON (RFC
// 9253) their order; other components are passed over. A rule that no to-do can have stays as a line
// of the notes, and is remarked upon; so does any value that cannot be read. Text that is not UTF-8
// once its lines are unfolded is read as package plaintext reads it.
package ics

import "tincup/internal/core/exchange"

// Format is the codec.
type Format struct{}

var _ exchange.Codec = Format{}

// own begins the names of our own properties.
const own = "X-TINCUP-"

// Dates and times as the standard writes them (sections 3.3.4 and 3.3.5).
const (
	dateForm = "20060102"
	wallForm = "20060102T150405"
	utcForm  = wallForm + "Z"
)
