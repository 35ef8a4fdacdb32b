package httpapi

import (
	"encoding"
	"errors"
	"net/http"
	"strconv"
	"strings"

	"github.com/oapi-codegen/nullable"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// read parses a field's text; "" is none. The error names the field.
func read[T any, P interface {
	*T
	encoding.TextUnmarshaler
}](field, text string) (T, error) {
	var v T
	if err := P(&v).UnmarshalText([]byte(text)); err != nil {
		reason := "The " + field + " " + err.Error() + "."
		var pe *day.ParseError
		if !errors.As(err, &pe) {
			reason = "The " + field + " is wrong: " + err.Error() + "."
		}
		return v, &book.RuleError{Field: field, Reason: reason}
	}
	return v, nil
}

// optional reads a field of a new row: absent and null are none.
func optional[T any, P interface {
	*T
	encoding.TextUnmarshaler
}](into *T, field string, n nullable.Nullable[string]) error {
	text, err := n.Get()
	if err != nil || text == "" {
		return nil
	}
	*into, err = read[T, P](field, text)
	return err
}

// perhaps reads a field that may be absent.
func perhaps[T any, S ~string, P interface {
	*T
	encoding.TextUnmarshaler
}](field string, in *S) (*T, error) {
	if in == nil {
		return nil, nil
	}
	v, err := read[T, P](field, string(*in))
	return &v, err
}

// patched reads a field of a merge patch: absent leaves nil, null clears.
func patched[T any, S ~string, P interface {
	*T
	encoding.TextUnmarshaler
}](into **T, field string, n nullable.Nullable[S]) error {
	if !n.IsSpecified() {
		return nil
	}
	var zero T
	*into = &zero
	text, err := n.Get()
	if err != nil { // null
		return nil
	}
	if text == "" {
		return &book.RuleError{Field: field, Reason: "The " + field + " is empty. Send null to clear it."}
	}
	zero, err = read[T, P](field, string(text))
	return err
}

// pathID reads an id from the address: what is no id is not there.
func pathID(s string) (book.ID, error) {
	id, err := book.ParseID(s)
	if err != nil || id.IsZero() {
		return id, bad(http.StatusNotFound, "Not there", "There is nothing with this id.")
	}
	return id, nil
}

// expectation reads If-Match (RFC 9110, section 13.1.1).
func expectation(kind book.RowKind, id book.ID, ifMatch *string) (*app.Expect, error) {
	if ifMatch == nil || *ifMatch == "" {
		return nil, bad(http.StatusPreconditionRequired, "If-Match is missing",
			"Send the ETag you read in If-Match, so that no change of another window is lost.")
	}
	tag := strings.TrimSpace(*ifMatch)
	if tag == "*" {
		return &app.Expect{Kind: kind, ID: id, Revision: app.AnyRevision}, nil
	}
	revision, err := strconv.ParseInt(strings.Trim(tag, `"`), 10, 64)
	if err != nil || revision < 0 || len(tag) < 3 || tag[0] != '"' || tag[len(tag)-1] != '"' {
		return nil, &problem{status: http.StatusBadRequest, title: "Not an ETag", field: "If-Match",
			detail: "If-Match must hold one ETag as it was sent, in double quotes, or *."}
	}
	return &app.Expect{Kind: kind, ID: id, Revision: revision}, nil
}
