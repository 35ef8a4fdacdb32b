// Package book is a person's Book: their to-dos, the lists and shelves that
// hold them and the tags they carry, with the commands that change them.
//
// A command checks the rules and returns a Change: the rows it would alter,
// each with its state before and after. It never half-applies: on an error the
// Book is as it was. The caller keeps the Change first and calls Apply then,
// so that memory is never ahead of the file. Undo and redo are Changes turned
// round (Invert).
//
// A Book is not safe for concurrent use. Rows reached through it are shared
// and must not be written to; Apply replaces them and leaves old ones alone.
//
// The names of the files say what is in them:
//
//   - row_… is what rows are made of: their fields, limits, positions and kinds;
//   - desk_… is the Book as it lies in memory and is read, by desk.go;
//   - draft_… is the machinery of changes: what a command writes into (draft.go), what is
//     checked of all that it wrote, how a change is said, kept, packed and turned round;
//   - every other file holds the commands on what it is named after: those on lists are in
//     lists.go, Postpone in postpone.go, what a tick does in tick.go.
package book
