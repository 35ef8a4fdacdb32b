// Package day holds the civil calendar Tin Cup reckons in: dates without a
// zone, times of day, moments (a date that may carry a time), plan horizons,
// and the Clock that turns an instant into "today".
//
// All types are small comparable values in the manner of net/netip: Parse and
// String are inverses, MarshalText and UnmarshalText agree with them, and the
// zero value means "none". Nothing here reads the system clock or knows the
// local zone; the caller passes both in with a Clock.
//
// Dates are proleptic Gregorian, from 0001-01-01 to 9999-12-31, in the
// extended format of ISO 8601-1:2019 section 5.2.2.1. Weeks are ISO 8601
// weeks: Monday first, week 1 the one with the year's first Thursday
// (section 3.1.1.23).
package day
