package store

import (
	"database/sql/driver"
	"encoding"
	"fmt"

	"tincup/internal/core/book"
)

// id stores a book.ID as 16 bytes, none as NULL.
type id book.ID

// Value implements driver.Valuer.
func (i id) Value() (driver.Value, error) {
	if book.ID(i).IsZero() {
		return nil, nil
	}
	return i[:], nil
}

// Scan implements sql.Scanner.
func (i *id) Scan(src any) error {
	switch v := src.(type) {
	case nil:
		*i = id{}
		return nil
	case []byte:
		if len(v) == len(i) {
			copy(i[:], v)
			return nil
		}
	}
	return fmt.Errorf("an id of 16 bytes is wanted, not %T", src)
}

// text scans a column into anything that reads text.
type text struct{ to encoding.TextUnmarshaler }

// Scan implements sql.Scanner.
func (t text) Scan(src any) error {
	switch v := src.(type) {
	case string:
		return t.to.UnmarshalText([]byte(v))
	case []byte:
		return t.to.UnmarshalText(v)
	}
	return fmt.Errorf("text is wanted, not %T", src)
}
