// Package question is what a person asks of to-dos, before anyone answers: a tree of
// all, any and not over tests, which is built in the page, saved with a view, and
// names the rows that it is about by their ids.
//
// A [Tree] can be read and written as JSON ([Parse]), and the rows that it names can be
// found ([Tree.Names]) and others put in their stead ([Tree.Instead]). The package
// filter answers it.
//
// Tests over dates may be relative to today and stay so when saved. A test on an absent
// value is false; not is plain negation.
//
// The JSON form is one object a node:
//
//	{"all": [node, …]}   {"any": [node, …]}   {"not": node}
//	{"field": "due", "op": "within-next", "days": 7}
//	{"field": "tag", "op": "any-of", "values": ["<id>", …]}
//	{"field": "due", "op": "before", "date": "P3D"}   a date, or a duration from today
//	{"field": "plan", "op": "between", "date": "2026-12-01", "to": "2026-12-24"}
//	{"field": "due", "op": "time-between", "from": "09:00", "until": "12:00"}
//	{"field": "estimate", "op": "at-most", "minutes": 20}   of slack likewise
//	{"field": "plan", "op": "parked"}
//	{"field": "repeating", "op": "no"}
//
// Dates are RFC 3339 full-dates, durations ISO 8601 durations of days or weeks, paths in
// errors JSON pointers (RFC 6901).
package question
