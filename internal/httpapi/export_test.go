package httpapi

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// ViewBytes writes a view, and returns what would be written of it.
func ViewBytes(b *book.Desk, c day.Clock, res *view.Result) ([]byte, any, error) {
	body := encodeView(b, c, view.Query{Name: view.Today}, res, nil)
	text, err := body.bytes()
	return text, body, err
}

// AppendRow and EncodeRow write the same row, one as bytes at once.
var (
	AppendRow = appendRow
	EncodeRow = encodeRow
)
