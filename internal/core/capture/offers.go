package capture

import (
	"slices"
	"strings"
)

// MaxOffers is how many offers a sentence has at most.
const MaxOffers = 10

// Offer is a stretch of a sentence that might mean a field, and was left as words. Nothing
// comes of it unless it is taken.
type Offer struct {
	Field Field
	// Words are those it is about, exactly, and Spans where they stand.
	Words string
	Spans []Span
	// Value is the full value in words, as its chip would have it.
	Value string
	// Taken is the sentence that says it: with the words in a clause of their own.
	Taken string
}

// unoffered are words before a date that make it part of a name or of another time.
var unoffered = map[string]bool{"of": true, "the": true, "a": true, "an": true, "last": true, "since": true, "than": true}

// Offers finds what was left as words in a sentence and might have meant a field: whole
// phrases for dates, times, repeats and reminders anywhere in the title, and a priority, an
// estimate or a list at its end. A field that was read is not offered again.
func Offers(text string, env Env) []Offer {
	r := newReader(text, &env)
	if len(r.draft.Problems) > 0 { // it has no place in a line
		return nil
	}
	end := len(text)
	if r.notes >= 0 {
		end = r.notes - len("-- ")
	}
	left := r.clausesLeft()
	words := make([][]token, len(left))
	for i, clause := range left {
		words[i] = r.uncut(clause.Start, clause.End)
	}
	before := r.read()
	p := parser{text: r.text, settings: env.Settings, names: &env.Names}
	var offers []Offer
	for _, words := range words {
		for i := 0; i < len(words) && len(offers) < MaxOffers; i++ {
			span, ok := p.offered(words, i)
			if !ok {
				continue
			}
			// "for Friday" keeps its Friday.
			keeps := i > 0 && words[i-1].has(dangling)
			if o, ok := taken(text, end, span, keeps, before, env); ok {
				offers = append(offers, o)
				for i+1 < len(words) && words[i+1].span().within(span) {
					i++
				}
			}
		}
	}
	return offers
}

// clausesLeft are the clauses of which words are in the title, as stretches of tokens.
func (r *reader) clausesLeft() []Span {
	var left []Span
	for from := 0; from < len(r.tokens); {
		to := r.clauseEnd(from)
		if slices.Contains(r.cut[from:to], false) {
			left = append(left, Span{from, to})
		}
		from = to + 1
	}
	return left
}

// offered finds the phrase at a word that may be offered.
func (p *parser) offered(words []token, at int) (Span, bool) {
	t := &words[at]
	if t.kind != plainWord || t.number < 0 && t.word.text == "" {
		return Span{}, false
	}
	if at > 0 && unoffered[strings.ToLower(words[at-1].text)] {
		return Span{}, false
	}
	p.tokens, p.pos = words[at:], 0
	it, ok := p.field(where{}, false, true)
	if !ok || parted(words[at:at+p.pos]) {
		return Span{}, false
	}
	last := at+p.pos == len(words)
	switch it.kind {
	case itemPriority, itemEstimate, itemList:
		if !last {
			return Span{}, false
		}
	case itemPlan, itemStart:
		if it.date != nil && it.date.form == inMonth && !it.introduced {
			return Span{}, false
		}
	}
	return p.span(0), true
}

// taken makes the offer of a phrase, where the sentence with the phrase in a clause of its
// own reads to one field more. keeps: its words stay in the title too.
func taken(text string, end int, s Span, keeps bool, before Draft, env Env) (Offer, bool) {
	words := text[s.Start:s.End]
	rest := strings.TrimRight(text[:s.Start], " ")
	behind := text[s.End:end]
	if keeps {
		rest, behind = text[:end], ""
	}
	sentence := strings.TrimRight(rest+behind, " ,") + ", " + strings.Trim(words, "().!?") + spaced(text[end:])
	if rest == "" {
		sentence = strings.TrimLeft(sentence, " ")
	}
	after := Read(sentence, env)
	if len(after.Problems) > len(before.Problems) || len(after.Chips) != len(before.Chips)+1 || after.Title == "" || keeps && after.Title != before.Title {
		return Offer{}, false
	}
	said := strings.Trim(words, "().!?")
	for _, c := range after.Chips {
		known := slices.ContainsFunc(before.Chips, func(b Chip) bool { return b.Field == c.Field && b.Words == c.Words })
		if !known && c.Words == said && c.Problem == "" {
			return Offer{Field: c.Field, Words: words, Spans: []Span{s}, Value: c.Value, Taken: sentence}, true
		}
	}
	return Offer{}, false
}

// spaced sets notes off from the sentence before them.
func spaced(notes string) string {
	if notes == "" || notes[0] == ' ' {
		return notes
	}
	return " " + notes
}
