package capture

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// reader puts a draft together from one sentence.
type reader struct {
	env    *Env
	text   string
	tokens []token
	// cut marks tokens that are no part of the title; cuts counts how often that changed.
	cut   []bool
	cuts  int
	left  stretch
	items []item
	draft Draft
	notes int // where they begin, -1 without
	// remind is where "remind me to" stands, whose due is a reminder too.
	remind Span
	// begins is a date that stays words, as one that the title begins with, and beginsAt a time alone
	// that may belong to it and stays so with it. begins is empty where no such date could be read.
	begins, beginsAt Span
}

// Read reads one sentence. What it cannot take says so in Problems; the Draft
// is as complete as it can be all the same.
func Read(text string, env Env) Draft {
	r := newReader(text, &env)
	return r.read()
}

// stretch is the tokens of a stretch that are in the title, as uncut found them last.
type stretch struct {
	from, to, cuts int
	tokens         []token
}

// newReader parses a sentence: what it says, before it is resolved.
func newReader(text string, env *Env) *reader {
	r := &reader{env: env, items: make([]item, 0, 6)}
	r.text = r.clean(text)
	r.tokens, r.notes = lex(r.text, make([]token, 0, len(r.text)/4+4))
	if r.notes >= 0 {
		r.takeNotes(text[r.notes:])
	}
	r.cut = make([]bool, len(r.tokens))
	// Words such as "for 2 weeks" mean something only beside a repeat.
	if !r.parse(true) {
		clear(r.cut)
		r.cuts++
		r.items = r.items[:0]
		r.parse(false)
	}
	r.settleTwice()
	r.settleRepeat()
	r.settleLone()
	r.settleAhead()
	r.settleCourtesy()
	return r
}

// read resolves what was parsed.
func (r *reader) read() Draft {
	r.draft.Title = r.title()
	r.remark()
	r.resolve()
	r.checkTitle()
	return r.draft
}

// clean returns text of the same length without what has no place in a line.
func (r *reader) clean(text string) string {
	sentence, _, _ := strings.Cut(text, " -- ")
	if len(sentence) > MaxText {
		r.problem(TooLong, "", fmt.Sprintf("The sentence has %d bytes; %d is the most.", len(sentence), MaxText))
		text = strings.ToValidUTF8(text[:MaxText], "")
	}
	for i, c := range text {
		if c >= ' ' && c < 0x7f {
			continue
		}
		if c == utf8.RuneError || unicode.IsControl(c) || c == '\u2028' || c == '\u2029' {
			return r.scrub(text, i)
		}
	}
	return text
}

// scrub puts spaces in the place of what cannot stand in a title.
func (r *reader) scrub(text string, from int) string {
	out := []byte(text)
	for i := from; i < len(text); {
		c, size := utf8.DecodeRuneInString(text[i:])
		invalid := c == utf8.RuneError && size == 1
		if invalid || unicode.IsControl(c) || c == '\u2028' || c == '\u2029' {
			switch {
			case invalid:
				r.problem(Characters, "", "The sentence is not valid UTF-8 text.")
			case !unicode.IsSpace(c):
				r.problem(Characters, "", fmt.Sprintf("The sentence has a control character (U+%04X); take it out.", c))
			}
			for n := range size {
				out[i+n] = ' '
			}
		}
		i += size
	}
	return string(out)
}

func (r *reader) takeNotes(notes string) {
	notes = strings.TrimSpace(strings.ToValidUTF8(notes, "\uFFFD"))
	if len(notes) > MaxNotes {
		r.problem(TooLong, "", fmt.Sprintf("The notes have %d bytes; %d is the most.", len(notes), MaxNotes))
		notes = strings.ToValidUTF8(notes[:MaxNotes], "")
	}
	r.draft.Notes = notes
}

// problem notes why the sentence cannot be put in.
func (r *reader) problem(code Code, words, reason string, of ...Chip) {
	for _, p := range r.draft.Problems {
		if p.Words == words && p.Reason == reason {
			return
		}
	}
	if len(r.draft.Problems) < maxProblems {
		p := Problem{Code: code, Words: words, Reason: reason}
		for _, c := range of {
			p.Field, p.Spans = c.Field, c.Spans
		}
		r.draft.Problems = append(r.draft.Problems, p)
	}
}

// parse takes the fields out. It reports false if it counted on a repeat that
// was not there.
func (r *reader) parse(tails bool) bool {
	p := parser{text: r.text, settings: r.env.Settings, names: &r.env.Names}
	clauses := 0
	last := Span{-1, -1} // tokens of the last clause that stays
	tail, repeats, more := false, false, false
	title := 0 // where the first clause ends
	var earlier []Span
	var thanks Span // a closing clause of courtesy
	asks := false   // a later clause sets a condition
	for from := 0; from < len(r.tokens); {
		to := r.clauseEnd(from)
		words := r.takeTags(from, to)
		begun := len(r.items)
		ok := false
		if clauses++; clauses > 1 && clauses <= MaxClauses {
			if clauses == 2 && len(words) > 0 && words[0].has(weekdayWord) {
				more = p.endsInWeekdays(r.uncut(0, title))
			}
			p.tokens, p.pos = words, 0
			p.tokens = closed(words)
			r.items, ok = p.run(r.items, where{clause: true, tails: tails, more: more})
			if ok && bareMonth(r.items[begun:]) && len(closed(words)) == 1 && r.amongNames(from, to) {
				r.items, ok = r.items[:begun], false
			}
		}
		more = false
		for i, it := range r.items[begun:] {
			repeats = repeats || it.kind == itemRepeat
			more = (it.kind == itemRepeat || it.kind == itemWeekdays) && len(it.rule.rule.ByDay) > 0
			tail = tail || it.kind >= itemUntil && it.kind <= itemCount ||
				it.kind == itemTime && i > 0 && r.items[begun+i-1].kind == itemStart
		}
		switch {
		case (ok || len(words) == 0) && clauses > 1:
			r.cutAll(from-1, to)
			for i := from; i < to; i++ {
				if r.tokens[i].pictures() {
					r.setCut(i, false)
				}
			}
		case clauses > 1 && to == len(r.tokens) && last.Start >= 0 && !slices.ContainsFunc(words, func(t token) bool { return !t.courtesy() }):
			thanks = Span{from - 1, to}
		default:
			if last.Start >= 0 {
				earlier = append(earlier, last)
			}
			last = Span{from, to}
			asks = asks || clauses > 1 && len(words) > 0 && conditions[strings.ToLower(words[0].text)]
		}
		if clauses == 1 {
			title = to
		}
		from = to + 1
	}
	if clauses > MaxClauses {
		r.problem(TooMany, "", fmt.Sprintf("The sentence has %d clauses; only the first %d are read.", clauses, MaxClauses))
	}
	if last.Start < 0 {
		return true
	}
	found := r.fromTitle(&p, last)
	if thanks.End > 0 && len(r.items) > 0 {
		r.cutAll(thanks.Start, thanks.End)
	}
	for _, clause := range earlier {
		if !asks {
			r.fromEnd(&p, clause, true)
		}
	}
	return repeats || found || !tails || !tail
}

// amongNames reports whether the clause before or behind one is a single word with a
// capital, so that a month may be a name too: "Invite Jo, Sam, April".
func (r *reader) amongNames(from, to int) bool {
	name := func(at int) bool {
		if at < 0 || at >= len(r.tokens) || r.tokens[at].kind != plainWord {
			return false
		}
		first, _ := utf8.DecodeRuneInString(r.tokens[at].text)
		return unicode.IsUpper(first) && r.tokens[at].class == 0
	}
	ends := func(at int) bool {
		return at < 0 || at >= len(r.tokens) || r.tokens[at].kind == comma || r.tokens[at].courtesy() || r.tokens[at].pictures()
	}
	return from >= 2 && name(from-2) && ends(from-3) && from > 2 || name(to+1) && ends(to+2)
}

// clauseEnd is where the clause that begins at a token ends.
func (r *reader) clauseEnd(from int) int {
	to := from
	for to < len(r.tokens) && (r.tokens[to].kind != comma || r.inDate(to)) {
		to++
	}
	return to
}

// conditions open a clause on which the rest of the sentence depends.
var conditions = map[string]bool{"if": true, "when": true, "once": true, "unless": true}

// inDate reports whether a comma stands within a date: "Monday, 30 November",
// "November 30, 2026".
func (r *reader) inDate(at int) bool {
	if at == 0 || at+1 >= len(r.tokens) || r.tokens[at].dash() {
		return false
	}
	before, behind := &r.tokens[at-1], &r.tokens[at+1]
	if behind.number >= 1000 && behind.number <= 9999 && len(strings.TrimRight(behind.text, ".!?")) == 4 {
		return at > 1 && before.monthDay() && r.tokens[at-2].has(monthWord)
	}
	if before.kind != plainWord || !before.has(weekdayWord) || at+2 >= len(r.tokens) {
		return false
	}
	next := &r.tokens[at+2]
	return behind.monthDay() && (next.has(monthWord) || next.text == "of") || behind.kind == plainWord && behind.has(monthWord) && next.monthDay()
}

// takeTags takes the tags of a clause and returns its other words.
func (r *reader) takeTags(from, to int) []token {
	for i := from; i < to; i++ {
		t := &r.tokens[i]
		if t.kind == tagWord {
			r.setCut(i, true)
			r.items = append(r.items, item{kind: itemTag, name: t.text, span: t.span()})
			continue
		}
		t.parted = i > from && r.tokens[i-1].kind == tagWord
	}
	return r.uncut(from, to)
}

// setCut takes a token out of the title, or puts it back.
func (r *reader) setCut(i int, cut bool) {
	r.cut[i] = cut
	r.cuts++
}

// cutAll takes tokens from one on to before another out of the title.
func (r *reader) cutAll(from, to int) {
	for i := max(from, 0); i < to; i++ {
		r.setCut(i, true)
	}
}

// uncut returns the tokens of a stretch that are in the title.
func (r *reader) uncut(from, to int) []token {
	gone := func(i int) bool { return r.cut[i] || r.tokens[i].kind == comma }
	for ; from < to && gone(from); from++ {
	}
	for ; from < to && gone(to-1); to-- {
	}
	inside := from
	for inside < to && !gone(inside) {
		inside++
	}
	if inside == to {
		return r.tokens[from:to]
	}
	if l := &r.left; l.tokens != nil && l.from == from && l.to == to && l.cuts == r.cuts {
		return l.tokens
	}
	kept := make([]token, 0, to-from)
	for i := from; i < to; i++ {
		if !gone(i) {
			kept = append(kept, r.tokens[i])
		}
	}
	r.left = stretch{from, to, r.cuts, kept}
	return kept
}

// leaves reports whether a word of the title stands in a stretch of the text.
func (r *reader) leaves(s Span) bool {
	for i := range r.tokens {
		if t := &r.tokens[i]; !r.cut[i] && t.kind != comma && t.span().within(s) {
			return true
		}
	}
	return false
}

func (r *reader) cutText(s Span) {
	for i := range r.tokens {
		if r.tokens[i].span().within(s) {
			r.setCut(i, true)
		}
	}
}

// title joins what stays.
func (r *reader) title() string {
	var b strings.Builder
	lastKept := -1
	for i := range r.tokens {
		t := &r.tokens[i]
		if r.cut[i] {
			continue
		}
		if t.kind == comma && (lastKept < 0 || r.endsInComma(i)) {
			continue
		}
		switch gap := lastKept >= 0 && t.start > r.tokens[lastKept].end; {
		case lastKept < 0:
		case lastKept == i-1 && !gap:
		case t.kind == comma && !t.dash() && lastKept < i-1:
		default:
			b.WriteByte(' ')
		}
		b.WriteString(t.text)
		lastKept = i
	}
	return strings.TrimSpace(b.String())
}

// endsInComma reports whether no word of the title follows a comma.
func (r *reader) endsInComma(i int) bool {
	for i++; i < len(r.tokens); i++ {
		if !r.cut[i] && r.tokens[i].kind != comma {
			return false
		}
	}
	return true
}

func (r *reader) checkTitle() {
	title := r.draft.Title
	if title == "" {
		r.problem(NoTitle, "", "There is no title yet. Say what is to be done.")
	}
	if n := utf8.RuneCountInString(title); n > MaxTitle {
		r.problem(TooLong, "", fmt.Sprintf("The title has %d characters; %d is the most. Put the rest behind “ -- ” as notes.", n, MaxTitle))
	}
}
