// Package capture reads a sentence into the draft of a to-do, and says a draft
// back as a sentence.
//
//	Order mount board, by Friday 4pm, in Night Signals, high, #suppliers, 20 min
//
// Commas and semicolons divide a sentence into clauses. The first begins the
// title. A later clause that is wholly understood becomes a field; one that is
// not stays in the title. In the title, words for dates, times and repeats are
// taken only from the end of its last clause or the start of its first. Double
// quotes in pairs keep what is inside as words, with "" for one quote; #tag is
// taken anywhere; " -- " begins the notes. Case never matters, but for the short
// words that are also something else: Sat, Sun, Mar, May.
//
// Three pieces do it. The lexer cuts the text into words that know where they
// stand and what they could mean. The parser makes of a clause what its grammar
// says: "next Friday" is a weekday of the next week, whatever day it is. The
// resolver knows the clock, and turns that into a date, or into a problem: the
// words were understood, and there is no such day.
//
// Reading is a function of the text and its Env alone.
package capture
