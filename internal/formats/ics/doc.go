// Package ics writes to-dos as iCalendar (RFC 5545) and reads them: a VTODO each, a VJOURNAL for a
// note.
//
// What is kept as the standard has it: UID, SUMMARY (title), DESCRIPTION (notes), STATUS, COMPLETED,
// PRIORITY (1, 5, 9; read: 1 to 4 high, 5 medium, 6 to 9 low), DUE, DTSTART (start), RRULE, EXDATE,
// CATEGORIES (tags), LOCATION (place), RELATED-TO (the to-do above), URL (source), CREATED,
// LAST-MODIFIED, VALARM (reminders) with PROXIMITY and VLOCATION (RFC 9074, RFC 9073). Dates with
// time are written without a zone (section 3.3.5, form 1): 17:00 is 17:00 wherever one is.
//
// What the standard has no word for stands in properties of our own, which others pass over:
// X-TINCUP-PLAN, -ESTIMATE, -CONCENTRATION, -ORDER, -OUTCOME, -HANDFUL, -PERSON (with X-ROLE and
// X-SINCE), -LIST, -SECTION, -SOURCE, and -REMINDER within a VALARM.
//
// What the standard cannot hold: a start beside a due of another type, or not before it, is
// X-TINCUP-START, and the due stands alone. A repeat is written as the series from its present
// occurrence on: DTSTART is that, and equals DUE where the rule drives the due; COUNT becomes UNTIL;
// SKIP=BACKWARD becomes days that all readers know. The repeat itself is X-TINCUP-REPEAT, from
// which we read it back. One with a lead, or reckoned from completion, has that alone.
//
// What is not kept: files, the bin, and what was ticked of a repeat before.
//
// Reading is lenient: times in UTC or in a zone of the IANA database become wall times of the
// person's zone; DTSTART with DURATION makes a due; other components are passed over. A rule that
// no to-do can have stays as a line of the notes, and is remarked upon.
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
