package httpapi

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// ViewBytes writes a view, and returns what would be written of it.
func ViewBytes(b *book.Desk, c day.Clock, res *view.Result) ([]byte, any, error) {
	body := encodeView(b, c, "", res, nil)
	text, err := body.bytes()
	return text, body, err
}

// AppendRow writes a row.
var AppendRow = appendRow

// FieldsOverHTTP names the fields of a to-do that are written, in the Book's words.
func FieldsOverHTTP() (names []string) {
	for _, f := range todoFields {
		if f.write != nil {
			names = append(names, f.name)
		}
	}
	return names
}
