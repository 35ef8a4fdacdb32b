// Package filter asks of a to-do whether something holds: a tree of all, any
// and not over tests, which a person builds and saves.
//
// A filter can be matched ([Filter.Matcher]), said in plain English
// ([Filter.Sentence]) and checked ([Filter.Check]): whether any to-do could ever
// match it, or every one does, and which of its tests are to blame.
//
// Tests over dates may be relative to today and stay so when saved. Lists, tags
// and people are named by their ids. A test on an absent value is false; not is
// plain negation.
//
// The JSON form is one object a node:
//
//	{"all": [node, …]}   {"any": [node, …]}   {"not": node}
//	{"field": "due", "op": "within-next", "days": 7}
//	{"field": "tag", "op": "any-of", "values": ["<id>", …]}
//	{"field": "due", "op": "before", "date": "P3D"}   a date, or a duration from today
//	{"field": "plan", "op": "between", "date": "2026-12-01", "to": "2026-12-24"}
//	{"field": "due", "op": "time-between", "from": "09:00", "until": "12:00"}
//	{"field": "estimate", "op": "at-most", "minutes": 20}
//	{"field": "plan", "op": "parked"}
//	{"field": "repeating", "op": "no"}
package filter
