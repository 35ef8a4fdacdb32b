// Package markdown writes to-dos as task lists of GitHub Flavored Markdown (section 5.3) and reads
// them.
//
//	## Before the opening
//
//	- [ ] Order mount board, by 27 Nov 2026 16:00, high, in Night Signals, 20 min
//	  - [x] Measure the frames
//
//	  > Notes are a quotation below the line.
//
// Each item with a box is a to-do, and its line a sentence, read as one that is typed. A ticked box
// is done. Items below another are its subtasks, numbered where they are done one after another. A
// heading of any level begins a section, a thematic break ends it. A quotation below a line, or any
// text there that is no task list, is its notes. A note stands without a box ("note: …").
//
// What a sentence cannot say stands behind it in comments, which are not shown where Markdown is:
// <!-- due: 2026-11-27T16:00 -->, by the names of package column. A last comment names the lists,
// people and places that the sentences speak of, so that they are known where the file is read. In
// comments a backslash stands before another one, before the second of two hyphens, and before n for
// a new line.
//
// What is not kept: the UID, so that a line read again is a new to-do; when it was made, changed and
// completed, since when a person is involved, the handful, files, the bin, what was ticked of a
// repeat before, its pause.
//
// Reading is lenient: bullets of all three kinds and numbers; where nothing has a box every item is a
// to-do. Emphasis and code are read as their text, the first link of a line is its source too. Words
// that are understood and cannot be ("by 31 February") stay words, with a remark. What stands outside
// of all items is left out and named.
package markdown
