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
package book
