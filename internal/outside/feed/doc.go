// Package feed reads calendars of other programs: files of RFC 5545, and addresses that
// serve them over HTTP.
//
// Of a calendar it reads the events (VEVENT): their times, whether they take time (TRANSP),
// their recurrences (RRULE, RDATE, EXDATE, and RECURRENCE-ID, also with RANGE=THISANDFUTURE),
// expanded in the event's own zone. A zone is an IANA name, else the VTIMEZONE of the same
// file. What cannot be read is left out and said in Contents.Problems; the rest stands.
//
// What comes is not trusted. A text has at most MaxBytes and MaxEvents; a request takes at
// most 20 seconds and follows at most five redirects; addresses on this machine or a private
// network are asked only where that is allowed; expanding takes at most maxExpanding.
package feed
