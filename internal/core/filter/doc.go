// Package filter answers a question (package question) of the to-dos on a desk.
//
// A filter can be matched ([Filter.Matcher]), said in plain English
// ([Filter.Sentence]) and checked ([Filter.Check]): whether any to-do could ever
// match it, or every one does, and which of its tests are to blame.
package filter
