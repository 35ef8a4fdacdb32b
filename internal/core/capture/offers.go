package capture

import (
	"slices"
	"strings"
)

// MaxOffers is how many offers a sentence has at most.
const MaxOffers = 10

// maxTries bounds how many offers are thought of, so that a long line is read at once.
const (
	maxTries = 12
	fewTries = 4 // of a line of more than longLine words
	longLine = 100
)

// Offer is a stretch of a sentence that might mean a field, or another value of one.
// Nothing comes of it unless it is taken.
type Offer struct {
	Field Field
	// Words are those it is about, exactly, and Spans where they stand.
	Words string
	Spans []Span
	// Value is the full value in words, as its chip would have it.
	Value string
	// Taken is the sentence that says it; "" where Choose is set.
	Taken string
	// Choose: what the words mean has to be chosen first ("twice a week"): Value asks, and
	// the sentence is made of Without and of what is chosen, in a clause of its own.
	Choose  bool
	Without string
}

// Offers finds what was left as words in a sentence and might have meant a field: whole
// phrases for dates, times, repeats and reminders anywhere in the title, a priority, an
// estimate or a list at its end, a name that nobody has yet; and, of what was read, the
// other value that its words could have. A field that was read is not offered again.
func Offers(text string, env Env) []Offer {
	r := newReader(text, &env)
	if len(r.draft.Problems) > 0 { // it has no place in a line
		return nil
	}
	o := &offering{reader: r, text: text, end: len(text), p: parser{text: r.text, settings: env.Settings, names: &env.Names, loose: true}}
	if r.notes >= 0 {
		o.end = r.notes - len("-- ")
	}
	left := r.clausesLeft()
	words := make([][]token, len(left))
	for i, clause := range left {
		words[i] = r.uncut(clause.Start, clause.End)
	}
	o.before = r.read()
	o.dateWithTime()
	for i, clause := range words {
		if begins := left[i].Start == 0; !begins || !beginsSeries(words) {
			o.names(clause, begins)
		}
	}
	for _, words := range words {
		o.hourOrLength(words)
		o.onceOrMonthly(words)
		o.daysAhead(words)
		o.phrases(words)
	}
	o.reminder()
	o.otherValues()
	return o.found
}

// beginsSeries reports whether the first of some clauses is followed by a single capitalised
// word, as in "Ask Ida, June, Max".
func beginsSeries(clauses [][]token) bool {
	return len(clauses) > 1 && len(clauses[1]) == 1 && clauses[1][0].capital
}

// offering puts offers together.
type offering struct {
	*reader
	p      parser
	text   string
	end    int // where its notes begin
	before Draft
	found  []Offer
	tries  int
	// both: the next offers may be of two fields at once.
	both bool
	// used are stretches that an offer is about already.
	used []Span
}

// add offers what a sentence says: to one field it says something the sentence as it stands
// does not, and nothing else is different but, unless keeps, the title.
func (o *offering) add(spans []Span, sentence string, keeps bool) bool {
	if o.tries++; len(o.found) >= MaxOffers || o.tries > maxTries || o.tries > fewTries && len(o.tokens) > longLine {
		return false
	}
	after := Read(sentence, *o.env)
	most := 1
	if o.both {
		most = 2
	}
	if len(after.Problems) > len(o.before.Problems) || after.Title == "" || keeps && after.Title != o.before.Title ||
		len(after.Chips) < len(o.before.Chips) || len(after.Chips) > len(o.before.Chips)+most {
		return false
	}
	more := len(after.Chips) > len(o.before.Chips)
	known := slices.Clone(o.before.Chips)
	var said *Chip
	also := ""
	for i := range after.Chips {
		c := &after.Chips[i]
		if at := slices.IndexFunc(known, func(k Chip) bool { return k.Field == c.Field && k.Value == c.Value }); at >= 0 {
			known = slices.Delete(known, at, at+1)
		} else if said == nil {
			said = c
		} else if o.both && c.Problem == "" {
			if said.Field != FieldRepeat || c.Field != FieldDue { // a repeat's words name the due
				also = "; " + c.Value
			}
		} else if more { // a value that was said before is another now
			return false
		}
	}
	if said == nil || said.Problem != "" {
		return false
	}
	var words []string
	for _, s := range spans {
		words = append(words, o.text[s.Start:s.End])
	}
	o.used = append(o.used, spans...)
	o.found = append(o.found, Offer{Field: said.Field, Words: strings.Join(words, ", "), Spans: spans, Value: said.Value + also, Taken: sentence})
	return true
}

// without is the sentence without some stretches of it, up to its notes.
func (o *offering) without(spans ...Span) string {
	var b strings.Builder
	pos := 0
	for _, s := range spans {
		b.WriteString(strings.TrimRight(o.text[pos:s.Start], " "))
		pos = s.End
	}
	return strings.Trim(b.String()+o.text[pos:o.end], " ,")
}

// with is a sentence with one more clause, and the notes.
func (o *offering) with(sentence, clause string) string {
	notes := o.text[o.end:]
	if notes != "" && notes[0] != ' ' {
		notes = " " + notes
	}
	return sentence + ", " + clause + notes
}

// isUsed reports whether there is an offer already that is about some of the words.
func (o *offering) isUsed(s Span) bool {
	return slices.ContainsFunc(o.used, func(u Span) bool { return s.Start < u.End && u.Start < s.End })
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
