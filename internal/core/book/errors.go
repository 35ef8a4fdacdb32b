package book

import (
	"errors"
	"fmt"
	"strings"

	"tincup/internal/core/term"
)

// RuleError is a command refused: which field, and a sentence that says what
// is wrong and what would be right.
type RuleError struct {
	Field  string
	Reason string
}

func (e *RuleError) Error() string { return e.Reason }

// Class is Refused, or Conflict where the row itself is not in a state for it.
func (e *RuleError) Class() term.Class {
	if e.Field == "id" {
		return term.Conflict
	}
	return term.Refused
}

func refuse(field, format string, args ...any) error {
	return &RuleError{Field: field, Reason: fmt.Sprintf(format, args...)}
}

// inField names another field in a refusal.
func inField(field string, err error) error {
	var rule *RuleError
	if errors.As(err, &rule) {
		return &RuleError{field, rule.Reason}
	}
	return err
}

// ErrNotFound marks a command on a row that is not in the Book.
var ErrNotFound = term.Fail(term.NotFound, "not found")

// NotFoundError says what was looked for.
type NotFoundError struct {
	Kind string // "to-do", "list", "section", "shelf", "tag" or "person"
	ID   ID
}

func (e *NotFoundError) Error() string {
	return fmt.Sprintf("There is no %s with the id %s; it may have been removed.", e.Kind, e.ID)
}

func (e *NotFoundError) Unwrap() error { return ErrNotFound }

// ConflictError is an undo or redo refused because what it would turn round
// has since been changed further.
type ConflictError struct {
	Title  string
	Fields []string
}

// Class is Conflict.
func (e *ConflictError) Class() term.Class { return term.Conflict }

func (e *ConflictError) Error() string {
	return fmt.Sprintf("“%s” has since been changed further (%s), so this cannot be turned round any more.",
		e.Title, strings.Join(e.Fields, ", "))
}
