package capture

import (
	"slices"
	"strings"
	"unicode"
)

// Words and signs that close a line and say nothing of its fields.

// courtesy reports whether a token is a closing "please" or "thanks".
func (t *token) courtesy() bool {
	return t.kind == plainWord && (t.is("please") || t.is("thanks"))
}

// pictures reports whether a token is made of emoji alone.
func (t *token) pictures() bool {
	if t.kind == plainWord && t.text != "" && (t.text[0] >= 'a' && t.text[0] <= 'z' || t.text[0] >= 'A' && t.text[0] <= 'Z') {
		return false
	}
	text := strings.TrimRight(t.text, ".!?")
	return t.kind == plainWord && text != "" && !strings.ContainsFunc(text, func(r rune) bool {
		return !unicode.In(r, unicode.So, unicode.Sk, unicode.Mn, unicode.Me) && r != '\u200d' && r != '\ufe0f'
	})
}

// closed returns the words up to what closes them.
func closed(words []token) []token {
	for n := len(words); n > 0; n-- {
		if t := &words[n-1]; !t.courtesy() && !t.pictures() {
			return words[:n]
		}
	}
	return words
}

// settleCourtesy lets a courtesy be words again where nothing before it is read after all.
func (r *reader) settleCourtesy() {
	for i := range r.tokens {
		t := &r.tokens[i]
		if !r.cut[i] || !t.courtesy() {
			continue
		}
		at := t.span()
		clause := r.clauseOf(at)
		alone := !slices.ContainsFunc(r.tokens, func(o token) bool { return o.span().within(clause) && o.kind == plainWord && !o.courtesy() })
		if !slices.ContainsFunc(r.items, func(it item) bool { return it.kind != itemTag && (alone || it.span.within(clause)) }) {
			r.putBack(at)
		}
	}
}

// cutCourtesy takes the closing courtesies of some words out of the title.
func (r *reader) cutCourtesy(words []token) {
	for i := range words {
		if words[i].courtesy() {
			r.cutText(words[i].span())
		}
	}
}
