// Package search reads what a person types to look for something.
//
//	rope lamp           both words, each as the beginning of a word
//	"signal lamp"       the words in this order
//	rope -lamp          rope, and no lamp
//
// Words are told apart from their neighbours by whatever is no letter and no
// digit; case, width and marks above and below letters do not matter. An emoji is a
// word, and so is any part of a text in a script without blanks between words. A dash before a
// word or a phrase leaves out what holds it; within a word it is part of it.
package search

import (
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Bounds of a query.
const (
	MaxText  = 300 // characters
	MaxTerms = 20
)

// Query is what is looked for: to-dos that hold all of its terms, and none of
// those left out. A Query that Parse returned has one wanted term at least.
type Query struct{ Wanted, LeftOut []Term }

// Exact returns the query for the words themselves and not what begins so; nil where
// it is that already.
func (q Query) Exact() *Query {
	out := Query{LeftOut: q.LeftOut}
	same := true
	for _, t := range q.Wanted {
		same = same && t.Phrase
		out.Wanted = append(out.Wanted, Term{t.Text, true})
	}
	if same {
		return nil
	}
	return &out
}

// Term is one word, or several in a row.
type Term struct {
	Text string
	// Phrase: the words as they stand. Otherwise the last one may go on.
	Phrase bool
}

// Error says what is wrong in a query, and where.
type Error struct {
	// At is the character it is about, counted from 1; 0 for the whole.
	At     int
	Reason string
}

func (e *Error) Error() string { return e.Reason }

// Parse reads a query. Errors are *Error.
func Parse(text string) (Query, error) {
	var q Query
	if n := utf8.RuneCountInString(text); n > MaxText {
		return q, &Error{0, fmt.Sprintf("The search has %d characters; %d is the most.", n, MaxText)}
	}
	p := parser{runes: []rune(text)}
	for p.skipSpace(); p.at < len(p.runes); p.skipSpace() {
		out := p.runes[p.at] == '-' && p.at+1 < len(p.runes) && !unicode.IsSpace(p.runes[p.at+1])
		if out {
			p.at++
		}
		term, err := p.term()
		switch {
		case err != nil:
			return q, err
		case !strings.ContainsFunc(term.Text, isWordPart): // signs alone find nothing
		case out:
			q.LeftOut = append(q.LeftOut, term)
		default:
			q.Wanted = append(q.Wanted, term)
		}
	}
	switch {
	case len(q.Wanted)+len(q.LeftOut) > MaxTerms:
		return q, &Error{0, fmt.Sprintf("The search has %d words; %d is the most.", len(q.Wanted)+len(q.LeftOut), MaxTerms)}
	case len(q.Wanted) == 0 && len(q.LeftOut) > 0:
		return q, &Error{1, "This says only what to leave out. Add a word to look for."}
	case len(q.Wanted) == 0:
		return q, &Error{1, "There is no word in this search. Type one to look for."}
	}
	return q, nil
}

type parser struct {
	runes []rune
	at    int
}

func (p *parser) skipSpace() {
	for p.at < len(p.runes) && unicode.IsSpace(p.runes[p.at]) {
		p.at++
	}
}

// closes holds what ends a phrase, by what begins it.
var closes = map[rune]string{'"': "\"", '“': "”\"", '„': "“”\"", '«': "»"}

func (p *parser) term() (Term, error) {
	begin := p.at
	if closing, quoted := closes[p.runes[p.at]]; quoted {
		for p.at++; p.at < len(p.runes); p.at++ {
			if strings.ContainsRune(closing, p.runes[p.at]) {
				p.at++
				return Term{string(p.runes[begin+1 : p.at-1]), true}, nil
			}
		}
		return Term{}, &Error{begin + 1, fmt.Sprintf("The quotation mark at character %d is not closed. Close it, or take it away.", begin+1)}
	}
	for p.at < len(p.runes) && !unicode.IsSpace(p.runes[p.at]) && p.runes[p.at] != '"' {
		p.at++
	}
	return Term{Text: string(p.runes[begin:p.at])}, nil
}
