package capture

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"tincup/internal/core/term"
)

// Names that are not known yet: "in Garden" or "ask the framer", in a clause of its own,
// is offered as a new list or person; "in Garden (new)" makes it.

// maxNameWords is how many words a new name has at most.
const maxNameWords = 6

// company reads "with" and a known person at the end of a title; the words stay in it.
func (p *parser) company(words []token) (item, bool) {
	for from := len(words) - 2; from >= 0 && from >= len(words)-1-maxNameWords; from-- {
		if t := &words[from]; t.kind != plainWord || !t.is("with") && !t.is("w/") {
			continue
		}
		p.tokens, p.pos = words, from+1
		the := p.take("the")
		name, ok := p.name(p.names.People, true)
		if !ok || !p.done() || parted(words[from:]) || the && !words[from+2].capital {
			return item{}, false
		}
		return item{kind: itemPerson, role: term.Ask, name: name, span: p.span(from), inTitle: true}, true
	}
	return item{}, false
}

// naming is a clause that names a list or a person.
type naming struct {
	item
	said string
	// at is the token with which the name begins; the: "the" stands before it.
	at  int
	the bool
}

// naming reads "in", "ask", "waiting on" or "waiting for" and the words behind it to the
// end of the clause, as a name.
func (p *parser) naming() (naming, bool) {
	var n naming
	switch {
	case p.take("in"):
		n.kind = itemList
	case p.take("ask"):
		n.kind, n.role = itemPerson, term.Ask
	case p.take("waiting", "on"), p.take("waiting", "for"):
		n.kind, n.role = itemPerson, term.WaitingOn
	default:
		return n, false
	}
	n.the = n.kind == itemPerson && p.take("the")
	n.at = p.pos
	words := p.tokens[n.at:]
	if len(words) < 1 || len(words) > maxNameWords || parted(words) ||
		slices.ContainsFunc(words, func(t token) bool { return t.kind != plainWord }) {
		return n, false
	}
	p.pos = len(p.tokens)
	n.said = p.words(n.at)
	if r, size := utf8.DecodeRuneInString(n.said); n.the { // "the framer" is called Framer
		n.said = string(unicode.ToUpper(r)) + n.said[size:]
	}
	return n, n.said != ""
}

// newcomer reads a clause that makes a list or a person: "in Garden (new)", "ask Ines
// (new)", "waiting on the framer (new)". Where the name is known by now, it is that one.
func (p *parser) newcomer() (item, bool) {
	end := len(p.tokens) - 1
	if p.pos != 0 || end < 1 || strings.TrimRight(p.tokens[end].text, ".!?") != "(new)" {
		return item{}, false
	}
	whole := p.tokens
	p.tokens = whole[:end]
	defer func() { p.tokens = whole }()
	n, ok := p.naming()
	if !ok {
		p.pos = 0
		return item{}, false
	}
	it := n.item
	it.introduced, it.name, it.new = true, n.said, true
	for _, name := range p.names.of(it.kind) {
		// A name may hold the word itself: "Suppliers (new)".
		if strings.EqualFold(name, n.said+" (new)") || strings.EqualFold(name, n.said) {
			it.name, it.new = name, false
		}
	}
	p.pos = len(whole)
	return it, true
}

// unknown reports whether a clause names someone, or a list, that nobody knows yet. Words in
// small letters are a name behind "the" alone, and words that mean something are none.
func (p *parser) unknown(n naming) bool {
	for i := n.at; i < len(p.tokens); i++ {
		t := &p.tokens[i]
		joins := n.kind == itemList && i > n.at && (t.has(article) || t.text == "of")
		if t.number >= 0 || t.has(weekdayWord|monthWord|unitWord|adverb) || t.has(dangling) && !joins {
			return false
		}
	}
	first, _ := utf8.DecodeRuneInString(n.said)
	return unicode.IsUpper(first) && !strings.Contains(n.said, "(") && !slices.Contains(p.names.of(n.kind), n.said)
}

// of returns the names of one kind.
func (n *Names) of(kind itemKind) []string {
	if kind == itemList {
		return n.Lists
	}
	return n.People
}

// maxChoices is how many names a start that several have is offered with.
const maxChoices = 5

// choices returns the names that begin as a clause says, where several do; none for one
// that is whole.
func (p *parser) choices(n naming) []string {
	var found []string
	for _, name := range p.names.of(n.kind) {
		whole, begins := beginsWith(name, n.said, n.kind == itemPerson)
		if whole {
			return nil
		}
		if begins {
			found = append(found, name)
		}
	}
	if len(found) < 2 {
		return nil
	}
	return found[:min(len(found), maxChoices)]
}
