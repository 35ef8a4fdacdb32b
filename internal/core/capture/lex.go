package capture

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

type kind uint8

const (
	plainWord  kind = iota
	quotedWord      // protected by quotes, or a quote itself
	tagWord
	comma // or semicolon
)

// token is a word, and where it stands in the text.
type token struct {
	start, end int32
	// number is that of leading digits, -1 without; rest is what follows them,
	// in lower case.
	number  int
	kind    kind
	capital bool
	parted  bool // a tag stands between the word and the one before
	// text is what is written: of a quoted word what is inside, of a tag its
	// name.
	text string
	rest string
	// word is what the vocabulary knows; unknown for others.
	*word
}

var unknown = &word{}

// newToken covers a stretch of the text.
func newToken(k kind, start, end int, text string) token {
	return token{start: int32(start), end: int32(end), kind: k, text: text, number: -1, word: unknown}
}

// span is where the token stands.
func (t *token) span() Span { return Span{int(t.start), int(t.end)} }

// parted reports whether a tag stands among words that would be one field.
func parted(words []token) bool {
	for i := 1; i < len(words); i++ {
		if words[i].parted {
			return true
		}
	}
	return false
}

// is reports whether the token is a word of the vocabulary.
func (t *token) is(known string) bool { return t.word.text == known }

func (t *token) has(c class) bool { return t.word.class&c != 0 }

// lexer cuts a text into tokens, up to where its notes begin.
type lexer struct {
	text   string
	pos    int
	tokens []token
	// notes is where they begin, -1 without.
	notes  int
	closes []int // where quotes stand that could close, worked out when asked
	// lastPair is where the last ” stands, plus two, worked out when asked: 1 is nowhere.
	lastPair int
}

// state reads from pos on and returns what comes next; nil at the end.
type state func(*lexer) state

// lex runs the states. It returns the tokens, and where notes begin or -1.
func lex(text string, into []token) ([]token, int) {
	l := &lexer{text: text, tokens: into, notes: -1}
	for next := state(lexBetween); next != nil; {
		next = next(l)
	}
	return l.tokens, l.notes
}

// lexBetween stands between words.
func lexBetween(l *lexer) state {
	for l.pos < len(l.text) {
		c := l.text[l.pos]
		switch {
		case c == ' ':
			l.pos++
		case c == ';' || c == ',' && (l.spaced() || l.divides()):
			l.tokens = append(l.tokens, newToken(comma, l.pos, l.pos+1, l.text[l.pos:l.pos+1]))
			l.pos++
		case c == '"':
			return lexQuote
		case c == '-' && l.atNotes():
			l.notes = l.pos + 2
			return nil
		case c == '#' && l.atTag():
			return lexTag
		case c < utf8.RuneSelf:
			return lexWord
		default:
			r, size := utf8.DecodeRuneInString(l.text[l.pos:])
			if r == '“' && l.pairs() {
				return lexPair
			}
			if !unicode.IsSpace(r) {
				return lexWord
			}
			l.pos += size
		}
	}
	return nil
}

// pairs reports whether the “ at pos has a ” behind it.
func (l *lexer) pairs() bool {
	if l.lastPair == 0 {
		l.lastPair = strings.LastIndex(l.text, "”") + 2
	}
	return l.lastPair > l.pos+2
}

// lexPair reads what stands between “ and ”.
func lexPair(l *lexer) state {
	start := l.pos
	inside, _, _ := strings.Cut(l.text[l.pos+len("“"):], "”")
	l.pos += len("“") + len(inside) + len("”")
	l.tokens = append(l.tokens, newToken(quotedWord, start, l.pos, inside))
	return lexBetween
}

// spaced reports whether a space, a comma or the start of the text is before.
func (l *lexer) spaced() bool {
	if l.pos == 0 {
		return true
	}
	r, _ := utf8.DecodeLastRuneInString(l.text[:l.pos])
	return unicode.IsSpace(r) || r == ',' || r == ';'
}

// atNotes reports whether the notes begin here: after " -- ".
func (l *lexer) atNotes() bool {
	return l.pos > 0 && l.text[l.pos-1] == ' ' && strings.HasPrefix(l.text[l.pos:], "-- ")
}

func (l *lexer) atTag() bool {
	r, _ := utf8.DecodeRuneInString(l.text[l.pos+1:])
	return unicode.IsLetter(r) && l.spaced()
}

// lexTag reads #word; what cannot be in a tag ends it.
func lexTag(l *lexer) state {
	start := l.pos
	for l.pos++; l.pos < len(l.text); {
		r, size := utf8.DecodeRuneInString(l.text[l.pos:])
		if !unicode.IsLetter(r) && !unicode.IsMark(r) && !unicode.IsDigit(r) && r != '-' && r != '_' && r != '/' {
			break
		}
		l.pos += size
	}
	l.tokens = append(l.tokens, newToken(tagWord, start, l.pos, l.text[start+1:l.pos]))
	return lexBetween
}

// lexQuote reads a run of quotes. An odd one opens a quotation if there is one
// to close it; pairs stand for quotes.
func lexQuote(l *lexer) state {
	run := l.run()
	start := l.pos
	if run%2 == 0 || !l.canClose(l.pos+run) {
		l.pos += run
		l.tokens = append(l.tokens, newToken(quotedWord, start, l.pos, l.text[start:start+(run+1)/2]))
		return lexBetween
	}
	text := []byte(strings.Repeat(`"`, run/2))
	for l.pos += run; ; {
		next := strings.IndexByte(l.text[l.pos:], '"')
		text = append(text, l.text[l.pos:l.pos+next]...)
		l.pos += next
		run := l.run()
		text = append(text, l.text[l.pos:l.pos+run/2]...)
		l.pos += run
		if run%2 == 1 {
			break
		}
	}
	l.tokens = append(l.tokens, newToken(quotedWord, start, l.pos, string(text)))
	return lexBetween
}

// run counts the quotes at pos.
func (l *lexer) run() int {
	n := 0
	for l.pos+n < len(l.text) && l.text[l.pos+n] == '"' {
		n++
	}
	return n
}

// canClose reports whether a run of odd length comes at pos or later.
func (l *lexer) canClose(pos int) bool {
	if l.closes == nil {
		l.closes = []int{-1}
		for i := 0; i < len(l.text); i++ {
			n := 0
			for ; i+n < len(l.text) && l.text[i+n] == '"'; n++ {
			}
			if n%2 == 1 {
				l.closes = append(l.closes, i)
			}
			i += n
		}
	}
	return l.closes[len(l.closes)-1] >= pos
}

// lexWord reads to the next space, comma or quote.
func lexWord(l *lexer) state {
	start := l.pos
	for l.pos < len(l.text) {
		c := l.text[l.pos]
		if c == ' ' || c == ',' && l.divides() || c == ';' || c == '"' {
			break
		}
		if c < utf8.RuneSelf {
			l.pos++
			continue
		}
		r, size := utf8.DecodeRuneInString(l.text[l.pos:])
		if unicode.IsSpace(r) || r == '“' && l.pos > start && l.pairs() {
			break
		}
		l.pos += size
	}
	word := l.text[start:l.pos]
	if (word == "-" || word == "–" || word == "—") && l.dashDivides() {
		l.tokens = append(l.tokens, newToken(comma, start, l.pos, word))
		return lexBetween
	}
	if n := len(l.tokens); n > 0 && l.tokens[n-1].kind == tagWord && strings.Trim(word, ".!?") == "" && strings.TrimSpace(l.text[l.pos:]) == "" {
		return lexBetween // what ends a sentence behind a tag is no word
	}
	l.tokens = append(l.tokens, look(word, start))
	return lexBetween
}

// divides reports whether the comma at pos does: a space or nothing follows it, or what can
// be no part of its word.
func (l *lexer) divides() bool {
	if l.pos+1 >= len(l.text) {
		return true
	}
	next, _ := utf8.DecodeRuneInString(l.text[l.pos+1:])
	return unicode.IsSpace(next) || next == ',' || next == ';' || next == '"' || next == '#'
}

// dashDivides reports whether the dash just read, which stands alone, divides the sentence.
// It does not between two numbers or times.
func (l *lexer) dashDivides() bool {
	if len(l.tokens) == 0 {
		return false
	}
	last := &l.tokens[len(l.tokens)-1]
	rest := strings.TrimLeft(l.text[l.pos:], " ")
	return last.number < 0 || rest == "" || !isDigit(rest[0])
}

// dash reports whether a divider is one, and no comma.
func (t *token) dash() bool { return t.kind == comma && t.text != "," && t.text != ";" }

// look finds what a word can mean.
func look(text string, start int) token {
	t := newToken(plainWord, start, start+len(text), text)
	// Brackets round a run, what ends a sentence, and the mark of "weeks' time" are no part
	// of a word.
	known := text
	if len(known) > 1 && known[0] == '(' {
		known = known[1:]
	}
	if len(known) > 1 && known[0] == '~' && isDigit(known[1]) { // about so much
		known = known[1:]
	}
	for len(known) > 1 && strings.IndexByte(").!?:", known[len(known)-1]) >= 0 {
		known = known[:len(known)-1]
	}
	if bare := strings.TrimSuffix(strings.TrimSuffix(known, "'"), "’"); bare != "" {
		known = bare
	}
	var buffer [16]byte
	if len(known) > len(buffer) {
		return t
	}
	for i := range len(known) {
		c := known[i]
		if 'A' <= c && c <= 'Z' {
			c += 'a' - 'A'
			t.capital = t.capital || i == 0
		}
		buffer[i] = c
	}
	lower := buffer[:len(known)]
	if c := lower[0]; c < '0' || c > '9' {
		if w := vocabulary[string(lower)]; w != nil {
			t.word = w
		}
		return t
	}
	n, i := 0, 0
	for ; i < len(lower) && '0' <= lower[i] && lower[i] <= '9' && i < 7; i++ {
		n = n*10 + int(lower[i]-'0')
	}
	t.number = n
	if i < len(lower) {
		t.rest = rests[string(lower[i:])]
		if t.rest == "" {
			t.rest = string(lower[i:])
		}
	}
	return t
}

// rests are the usual ends of numbers, kept so that reading them need not make
// them anew.
var rests = func() map[string]string {
	m := map[string]string{}
	for _, s := range []string{"am", "pm", "st", "nd", "rd", "th", "h", "min", ":00", ":15", ":30", ":45"} {
		m[s] = s
	}
	return m
}()
