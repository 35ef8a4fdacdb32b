package term

import (
	"bytes"
	"encoding/hex"
	"fmt"
)

// ID names a row: a UUID (RFC 9562). The zero ID, the nil UUID, is none.
type ID [16]byte

// ParseID reads the 36 character form, in either case.
func ParseID(s string) (ID, error) {
	var id ID
	if len(s) == 36 && s[8] == '-' && s[13] == '-' && s[18] == '-' && s[23] == '-' {
		packed := s[:8] + s[9:13] + s[14:18] + s[19:23] + s[24:]
		if _, err := hex.Decode(id[:], []byte(packed)); err == nil {
			return id, nil
		}
	}
	return ID{}, fmt.Errorf("%.40q is not an id: 8-4-4-4-12 hexadecimal digits are wanted", s)
}

// IsZero reports whether id is none.
func (id ID) IsZero() bool { return id == ID{} }

// Compare orders ids by when they were made (UUIDv7, RFC 9562 section 5.7): it returns -1, 0 or 1.
func (id ID) Compare(other ID) int { return bytes.Compare(id[:], other[:]) }

// String returns the 36 character form, or "" for none.
func (id ID) String() string {
	text, _ := id.AppendText(nil) // never fails
	return string(text)
}

// AppendText implements encoding.TextAppender.
func (id ID) AppendText(b []byte) ([]byte, error) {
	if id.IsZero() {
		return b, nil
	}
	for i, part := range [...][]byte{id[:4], id[4:6], id[6:8], id[8:10], id[10:]} {
		if i > 0 {
			b = append(b, '-')
		}
		b = hex.AppendEncode(b, part)
	}
	return b, nil
}

// MarshalText implements encoding.TextMarshaler.
func (id ID) MarshalText() ([]byte, error) { return id.AppendText(nil) }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (id *ID) UnmarshalText(text []byte) (err error) {
	if len(text) == 0 {
		*id = ID{}
		return nil
	}
	*id, err = ParseID(string(text))
	return err
}
