package store

import (
	"database/sql/driver"
	"encoding"
	"encoding/json"
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
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

// tagList is stored as the ids' bytes, one behind the other.
type tagList []book.ID

// Value implements driver.Valuer.
func (l tagList) Value() (driver.Value, error) {
	out := make([]byte, 0, len(l)*len(book.ID{}))
	for _, tag := range l {
		out = append(out, tag[:]...)
	}
	return out, nil
}

// Scan implements sql.Scanner.
func (l *tagList) Scan(src any) error {
	if src == nil {
		return nil
	}
	raw, ok := src.([]byte)
	if !ok || len(raw)%len(book.ID{}) != 0 {
		return fmt.Errorf("ids of 16 bytes are wanted, not %T", src)
	}
	for ; len(raw) > 0; raw = raw[len(book.ID{}):] {
		*l = append(*l, book.ID(raw[:len(book.ID{})]))
	}
	return nil
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

// reminders are stored as text, one on a line.
type reminders []day.Reminder

func joinReminders(list []day.Reminder) string {
	if len(list) == 0 {
		return ""
	}
	words := make([]string, len(list))
	for i, r := range list {
		words[i] = r.String()
	}
	return strings.Join(words, "\n")
}

// Scan implements sql.Scanner.
func (r *reminders) Scan(src any) error {
	s, ok := src.(string)
	if !ok {
		return fmt.Errorf("text is wanted, not %T", src)
	}
	for line := range strings.SplitSeq(s, "\n") {
		if line == "" {
			continue
		}
		reminder, err := day.ParseReminder(line)
		if err != nil {
			return err
		}
		*r = append(*r, reminder)
	}
	return nil
}

// repeated stores a repeat as JSON, none as ”.
type repeated struct{ *repeat.Repeat }

// Value implements driver.Valuer.
func (r repeated) Value() (driver.Value, error) {
	if r.Repeat == nil {
		return "", nil
	}
	text, err := json.Marshal(r.Repeat)
	return string(text), err
}

// attachments are stored as JSON, none as ”.
type attachments []book.Attachment

// Value implements driver.Valuer.
func (a attachments) Value() (driver.Value, error) {
	if len(a) == 0 {
		return "", nil
	}
	text, err := json.Marshal([]book.Attachment(a))
	return string(text), err
}

// packed scans JSON, or ” for none.
type packed[T any] struct{ to *T }

// Scan implements sql.Scanner.
func (p packed[T]) Scan(src any) error {
	s, ok := src.(string)
	if !ok {
		return fmt.Errorf("text is wanted, not %T", src)
	}
	if s == "" {
		return nil
	}
	return json.Unmarshal([]byte(s), p.to)
}

// madeOf is a source, written as a link and words, with a space between.
type madeOf book.Source

// Value implements driver.Valuer.
func (s madeOf) Value() (driver.Value, error) {
	if book.Source(s).IsZero() {
		return "", nil
	}
	return s.Link + " " + s.Words, nil
}

// Scan implements sql.Scanner.
func (s *madeOf) Scan(src any) error {
	text, ok := src.(string)
	if !ok {
		return fmt.Errorf("a source cannot be read from a %T", src)
	}
	s.Link, s.Words, _ = strings.Cut(text, " ")
	return nil
}
