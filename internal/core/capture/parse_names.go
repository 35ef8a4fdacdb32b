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
		if !ok || !p.done() || the && !words[from+2].capital {
			return item{}, false
		}
		return item{kind: itemPerson, role: term.Ask, name: name, span: p.span(from), inTitle: true}, true
	}
	return item{}, false
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
	it, said, ok := p.named()
	if !ok {
		p.pos = 0
		return item{}, false
	}
	it.introduced, it.name, it.new = true, said, true
	for _, name := range p.names.of(it.kind) {
		// A name may hold the word itself: "Suppliers (new)".
		if with := said + " (new)"; strings.EqualFold(name, with) || strings.EqualFold(name, said) {
			it.name, it.new = name, false
		}
	}
	p.pos = len(whole)
	return it, true
}

// named reads "in", "ask", "waiting on" or "waiting for" and the words behind it to the end
// of the clause, as the name of a list or a person.
func (p *parser) named() (it item, name string, ok bool) {
	switch {
	case p.take("in"):
		it.kind = itemList
	case p.take("ask"):
		it.kind, it.role = itemPerson, term.Ask
	case p.take("waiting", "on"), p.take("waiting", "for"):
		it.kind, it.role = itemPerson, term.WaitingOn
	default:
		return it, "", false
	}
	from := p.pos
	the := it.kind == itemPerson && p.take("the")
	if the {
		from = p.pos
	}
	if n := len(p.tokens) - from; n < 1 || n > maxNameWords {
		return it, "", false
	}
	for i := from; i < len(p.tokens); i++ {
		if p.tokens[i].kind != plainWord || i > from && p.tokens[i].parted {
			return it, "", false
		}
	}
	p.pos = len(p.tokens)
	name = p.words(from)
	if r, size := utf8.DecodeRuneInString(name); the { // "the framer" is called Framer
		name = string(unicode.ToUpper(r)) + name[size:]
	}
	return it, name, name != ""
}

// unknownName reads a clause that names a list or a person as yet unknown. Words in small
// letters are a name behind "the" alone, and words that mean something are none.
func (p *parser) unknownName() (item, bool) {
	it, name, ok := p.named()
	if !ok {
		return item{}, false
	}
	first, _ := utf8.DecodeRuneInString(name)
	begins := 1 // where the name does
	if p.tokens[0].is("waiting") {
		begins = 2
	}
	for i := begins; i < len(p.tokens); i++ {
		t := &p.tokens[i]
		joins := i == begins && t.is("the") || it.kind == itemList && i > begins && (t.has(article) || t.text == "of")
		if t.number >= 0 || t.has(weekdayWord|monthWord|unitWord|adverb) || t.has(dangling) && !joins {
			return item{}, false
		}
	}
	it.name, it.new = name, true
	return it, unicode.IsUpper(first) && !slices.Contains(p.names.of(it.kind), name)
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
func (p *parser) choices() []item {
	it, said, ok := p.named()
	if !ok {
		return nil
	}
	var found []item
	for _, name := range p.names.of(it.kind) {
		rest, ok := foldPrefix(name, said)
		if ok && rest == "" {
			return nil
		}
		if r, _ := utf8.DecodeRuneInString(rest); ok && (it.kind == itemList || !unicode.IsLetter(r) && !unicode.IsDigit(r)) {
			it.name = name
			found = append(found, it)
		}
	}
	if len(found) < 2 {
		return nil
	}
	return found[:min(len(found), maxChoices)]
}
