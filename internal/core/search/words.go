package search

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// class is what a character is to words.
type class uint8

const (
	between class = iota // parts words
	letters              // a letter, a digit or a mark of a script that has blanks between its words
	// unbroken is of a script that has none: where a word of it begins is not told by its characters,
	// so it is found wherever it stands.
	unbroken
	emoji // a word of its own
)

// broken are the scripts without blanks between words (Unicode Standard Annex 29, section 4).
var broken = []*unicode.RangeTable{unicode.Han, unicode.Hiragana, unicode.Katakana, unicode.Thai, unicode.Lao, unicode.Khmer, unicode.Myanmar}

// longVowel stands in both kana, and belongs to neither script.
const longVowel = 'ー'

func classOf(r rune) class {
	switch {
	case r < utf8.RuneSelf:
		if 'a' <= r && r <= 'z' || 'A' <= r && r <= 'Z' || '0' <= r && r <= '9' {
			return letters
		}
		return between
	case r == longVowel, unicode.In(r, broken...) && !unicode.IsPunct(r) && !unicode.IsSymbol(r):
		return unbroken
	case unicode.IsLetter(r), unicode.IsNumber(r), unicode.Is(unicode.Mn, r) && r != 0xfe0f:
		return letters
	// The blocks of pictures (the Unicode Standard, section 22.9), where no letter stands.
	case r >= 0x1f000 && unicode.Is(unicode.So, r), r >= 0x2600 && r <= 0x27bf && unicode.Is(unicode.So, r), r >= 0x2300 && r <= 0x23ff && unicode.Is(unicode.So, r), r >= 0x2b00 && r <= 0x2bff && unicode.Is(unicode.So, r):
		return emoji
	}
	return between
}

func isWordPart(r rune) bool { return classOf(r) != between && !unicode.Is(unicode.Mn, r) }

// nextWord returns the first word of a text from a byte on, and where it begins
// and ends: a run of characters of one class, or one emoji.
func nextWord(text string, from int) (word string, start, end int) {
	start = from
	of := between
	for end = from; end < len(text); {
		r, size := utf8.DecodeRuneInString(text[end:])
		is := classOf(r)
		switch {
		case of == between:
			if of = is; of == between {
				start = end + size
			}
		case is == of && of != emoji, of == unbroken && unicode.Is(unicode.Mn, r):
		default:
			return text[start:end], start, end
		}
		end += size
	}
	return text[start:end], start, end
}

// Indexed is a text as an index takes it that knows words by the blanks between them: each word as
// fold makes it; a run of a script without blanks as its pairs of characters and its last one, so
// that any part of it is some pairs in a row; an emoji as a word of letters.
func Indexed(text string, fold func(string) string) string { return indexed(text, fold, true) }

// Words are the words of a term as they stand in an index of texts that Indexed made; "" for none.
func (t Term) Words(fold func(string) string) string { return indexed(t.Text, fold, false) }

// indexed writes words with blanks between; whole tells whether the last character of a run stands
// by itself too, as in a text that is looked in.
func indexed(text string, fold func(string) string, whole bool) string {
	if text = fold(text); plain(text) {
		return text
	}
	var b strings.Builder
	b.Grow(len(text) + len(text)/4)
	for at := 0; ; {
		word, start, end := nextWord(text, at)
		if word == "" {
			return b.String()
		}
		if at = end; b.Len() > 0 {
			b.WriteByte(' ')
		}
		r, _ := utf8.DecodeRuneInString(text[start:])
		switch classOf(r) {
		case emoji:
			b.WriteString("emoji" + string(digits(r)))
		case unbroken:
			pairs(&b, []rune(word), whole)
		default:
			b.WriteString(word)
		}
	}
}

// plain reports whether all of a text is ASCII: an index parts it as it stands.
func plain(text string) bool {
	for i := range len(text) {
		if text[i] >= utf8.RuneSelf {
			return false
		}
	}
	return true
}

func pairs(b *strings.Builder, run []rune, whole bool) {
	for i := range run {
		switch {
		case i+1 < len(run):
			b.WriteString(string(run[i : i+2]))
			if i+2 < len(run) || whole {
				b.WriteByte(' ')
			}
		case whole || len(run) == 1:
			b.WriteRune(run[i])
		}
	}
}

// digits is the number of a character in letters, a to p for 0 to 15.
func digits(r rune) []byte {
	var out []byte
	for ; r > 0; r >>= 4 {
		out = append(out, 'a'+byte(r&15))
	}
	return out
}
