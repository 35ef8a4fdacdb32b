// Package view answers the questions people ask of their Book: what is due
// today, what slipped, what comes. A Query names the question, Ask gives the
// rows in groups, Survey the counts of the rail and the index, and NextChange
// says when the answers change by time alone.
//
// Every view is one pass over the to-dos that may be in it. Only the groups
// that reach into the rows asked for are put in order.
package view
