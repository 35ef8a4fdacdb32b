// Package plaintext reads the characters of text files.
package plaintext

import (
	"bytes"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"tincup/internal/core/exchange"
)

// Decode returns the text of a file as UTF-8 without a mark: of UTF-8; of UTF-16, which begins with
// its mark or has a zero in every second of its first bytes; or else of Windows-1252, in which any
// bytes but zeros are text. The error is an *exchange.Error.
func Decode(text []byte) ([]byte, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	var from encoding.Encoding
	switch order, wide := utf16(text); {
	case wide:
		from = unicode.UTF16(order, unicode.UseBOM)
	case utf8.Valid(text):
		return text, nil
	case bytes.IndexByte(text, 0) >= 0:
		return nil, &exchange.Error{Line: 1, Reason: "The file is no text. Save it as UTF-8, UTF-16 or Windows-1252."}
	default:
		from = charmap.Windows1252
	}
	decoded, err := from.NewDecoder().Bytes(text)
	if err != nil {
		return nil, &exchange.Error{Line: 1, Reason: "The file is not UTF-8, UTF-16 or Windows-1252 text. Save it as one of these."}
	}
	return decoded, nil
}

// looked is how many bytes at the beginning of a file tell whether it is UTF-16.
const looked = 400

// utf16 reports whether a text is UTF-16, and in which order of bytes.
func utf16(text []byte) (order unicode.Endianness, is bool) {
	switch {
	case bytes.HasPrefix(text, []byte("\xff\xfe")):
		return unicode.LittleEndian, true
	case bytes.HasPrefix(text, []byte("\xfe\xff")):
		return unicode.BigEndian, true
	}
	head := text[:min(len(text), looked)&^1]
	var zeros [2]int // in first and second bytes
	for i, b := range head {
		if b == 0 {
			zeros[i%2]++
		}
	}
	// Most characters of a table are Latin: one byte of each is zero, and the other is not.
	half := len(head) / 2
	switch {
	case len(head) >= 8 && zeros[1] > half*2/3 && zeros[0] == 0:
		return unicode.LittleEndian, true
	case len(head) >= 8 && zeros[0] > half*2/3 && zeros[1] == 0:
		return unicode.BigEndian, true
	}
	return unicode.LittleEndian, false
}
