package view

import "tincup/internal/core/filter"

// parts of the shipped views' filters.
const (
	canStart = `{"not":{"field":"start","op":"after","date":"P0D"}}`
	// notLater: no plan, one that is past, or one that holds today.
	notLater = `{"any":[{"field":"plan","op":"none"},{"field":"plan","op":"before","date":"P1D"},{"field":"plan","op":"on","date":"P0D"}]}`
)

// shipped are the views that ship, as filters with their order. Their groups are
// their own.
var shipped = map[Name]Definition{
	Cup: {Filter: filter.Must(`{"all":[{"field":"list","op":"none"},{"any":[{"field":"status","op":"any-of","values":["needs-action","in-process"]},
		{"field":"kind","op":"any-of","values":["note"]}]}]}`)},
	Overdue: {Filter: filter.Must(`{"field":"overdue","op":"yes"}`)},
	Today: {Filter: filter.Must(`{"any":[{"field":"in-handful","op":"yes"},{"field":"overdue","op":"yes"},{"field":"due","op":"on","date":"P0D"},
		{"all":[` + canStart + `,{"any":[{"field":"plan","op":"before","date":"P1D"},
			{"all":[{"field":"start","op":"before","date":"P1D"},` + notLater + `]}]}]}]}`)},
	Upcoming: {Filter: filter.Must(`{"any":[
		{"all":[{"field":"plan","op":"on","date":"P0D"},{"any":[{"field":"plan","op":"on","date":"-P1D"},{"field":"plan","op":"on","date":"P1D"}]}]},
		{"all":[{"field":"plan","op":"after","date":"P0D"},{"not":{"field":"plan","op":"after","date":"P56D"}}]},
		{"field":"due","op":"between","date":"P1D","to":"P56D"},
		{"all":[{"field":"plan","op":"none"},{"field":"due","op":"none"},{"field":"start","op":"between","date":"P1D","to":"P56D"}]}]}`)},
	WithinAWeek: {Filter: filter.Must(`{"any":[{"field":"overdue","op":"yes"},{"field":"due","op":"within-next","days":7}]}`)},
	Ready: {Filter: filter.Must(`{"all":[` + canStart + `,` + notLater + `,{"not":{"field":"role","op":"any-of","values":["waiting on"]}},
		{"any":[{"field":"is-subtask","op":"no"},{"field":"next-action","op":"yes"}]}]}`)},
	Waiting:  {Filter: filter.Must(`{"field":"role","op":"any-of","values":["waiting on"]}`)},
	Projects: {Filter: filter.Must(`{"field":"has-subtasks","op":"yes"}`)},
	Done: {Filter: filter.Must(`{"field":"status","op":"any-of","values":["completed","cancelled"]}`),
		Order: []Key{{By: ByChange, Back: true}}},
}

// Shipped returns a view that ships as a definition, to read and to start one's
// own from; ok is false for one that is no question, such as the bin.
func Shipped(name Name) (d Definition, ok bool) {
	d, ok = shipped[name]
	return d, ok
}
