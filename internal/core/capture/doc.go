// Package capture reads a sentence into the draft of a to-do, and says a draft
// back as a sentence.
//
//	Order mount board, by Friday 4pm, in Night Signals, high, #suppliers, 20 min
//	Ring the insurer tomorrow 3pm 20 min high
//
// Commas, semicolons and spaced dashes divide a sentence into clauses; a comma
// without a space after it, and one within a date, do not. The first clause begins
// the title. A later clause made wholly of field phrases becomes fields; one that is
// not stays in the title. At the end of the title's last clause a run of field
// phrases is read, in any order; of an earlier clause only a deadline. The start of
// the line has forms of its own: "tomorrow", "Friday:", "Every Monday", "remind me
// to", "note:". Double quotes in pairs keep what is inside as words, with "" for one
// quote; #tag is taken anywhere; " -- " begins the notes. Case does not matter, but
// for short words that are also something else (Sat, Sun, Wed, Mar, May), for names
// of lists in a run, and for EOD.
//
// A phrase is read whole or not at all, and the longest that the words form counts:
// "2 weeks before 15 January" is one date. What guards a phrase in the title ("for
// Friday", "what happened Friday", "Good Friday") guards every part of it. Of several
// values for one field the only one with a word such as "by" wins; a series without
// such words is left alone.
//
// Three pieces do it. The lexer cuts the text into words that know where they stand
// and what they could mean. The parser makes of words what its grammar says: "next
// Friday" is a weekday of the next week, whatever day it is. The resolver knows the
// clock, and turns that into a date, or into a problem: the words were understood,
// and there is no such day. Offers finds what was left as words and might have meant
// a field; nothing comes of an offer that is not taken.
//
// Reading is a function of the text and its Env alone.
package capture
