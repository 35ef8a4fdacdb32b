// Package plaintext reads the characters of text files.
package plaintext

import (
	"bytes"
	"encoding/binary"
	"unicode/utf16"
	"unicode/utf8"

	"tincup/internal/core/exchange"
)

// Decode returns the text of a file as UTF-8 without a mark: of UTF-8, or of UTF-16 that begins with
// its mark. The error is an *exchange.Error.
func Decode(text []byte) ([]byte, error) {
	var order binary.ByteOrder
	switch {
	case bytes.HasPrefix(text, []byte("\xef\xbb\xbf")):
		text = text[3:]
	case bytes.HasPrefix(text, []byte("\xff\xfe")):
		order = binary.LittleEndian
	case bytes.HasPrefix(text, []byte("\xfe\xff")):
		order = binary.BigEndian
	}
	if order != nil {
		units := make([]uint16, 0, len(text)/2)
		for i := 2; i+1 < len(text); i += 2 {
			units = append(units, order.Uint16(text[i:]))
		}
		return []byte(string(utf16.Decode(units))), nil
	}
	if !utf8.Valid(text) {
		number := 1 + bytes.Count(text[:invalid(text)], []byte("\n"))
		return nil, &exchange.Error{Line: number, Reason: "The file is not UTF-8 text. Save it as UTF-8, or as UTF-16 with its mark at the beginning."}
	}
	return text, nil
}

// invalid is where a text stops to be UTF-8.
func invalid(text []byte) int {
	for i := 0; i < len(text); {
		r, size := utf8.DecodeRune(text[i:])
		if r == utf8.RuneError && size == 1 {
			return i
		}
		i += size
	}
	return len(text)
}
