// Package jscal writes to-dos as JSCalendar (RFC 8984) and reads them: a Group of Tasks.
//
// What is kept as the standard has it: uid, title, description (notes), progress (status) and
// progressUpdated (when it was closed), priority (1, 5, 9; read: 1 to 4 high, 5 medium, 6 to 9 low), due
// and start as local date-times, with showWithoutTime for dates, estimatedDuration, keywords (tags),
// locations (place, with coordinates), relatedTo (the to-do above), recurrenceRules with skip,
// excluded dates, alerts (reminders), links (source), created, updated.
//
// What the standard has no word for stands in properties of our own, whose names begin with
// tincup.example: plan, concentration, inOrder, outcome, handful, note, person, list, section,
// sourceWords, reminders (each in our own words, whatever the alerts say of it), repeat, and start
// where it stands beside a due with a time.
//
// What is not kept: files and the bin.
//
// Reading is lenient: a single Task or an array of them in place of a Group, times in a timeZone that
// the IANA database knows; other objects are passed over. A rule that no to-do can have stays as a
// line of the notes, and is remarked upon.
package jscal

import "tincup/internal/core/exchange"

// Format is the codec.
type Format struct{}

var _ exchange.Codec = Format{}

// localForm is a LocalDateTime (section 1.4.4), utcForm a UTCDateTime (section 1.4.3).
const (
	localForm = "2006-01-02T15:04:05"
	utcForm   = "2006-01-02T15:04:05Z"
)
