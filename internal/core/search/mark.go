package search

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Span is a stretch of a text, in bytes.
type Span struct{ Start, End int }

// Marker finds in texts what a query wants of them.
type Marker struct {
	fold  func(string) string
	terms []folded
}

// folded is a term as its words are compared.
type folded struct {
	words []string
	// open: the last word may go on.
	open bool
}

// NewMarker returns a Marker that compares words as fold makes them.
func NewMarker(q Query, fold func(string) string) *Marker {
	m := &Marker{fold: fold}
	for _, t := range q.Wanted {
		f := folded{open: !t.Phrase}
		for rest := t.Text; ; {
			word, _, after := nextWord(rest, 0)
			if word == "" {
				break
			}
			f.words = append(f.words, fold(word))
			rest = rest[after:]
		}
		if len(f.words) > 0 {
			m.terms = append(m.terms, f)
		}
	}
	return m
}

// Marks returns where the text holds wanted terms, in order and apart from each
// other; at most some, if limit is above 0.
func (m *Marker) Marks(text string, limit int) []Span {
	var spans []Span
	// The words of the text that are looked at, as many as the longest term has.
	longest := 0
	for _, t := range m.terms {
		longest = max(longest, len(t.words))
	}
	type token struct {
		word       string
		start, end int
	}
	var ahead []token
	next := 0
	for {
		for len(ahead) < longest && next < len(text) {
			word, start, end := nextWord(text, next)
			next = end
			if word != "" {
				ahead = append(ahead, token{m.fold(word), start, end})
			}
		}
		if len(ahead) == 0 || limit > 0 && len(spans) >= limit {
			return spans
		}
		found := 0
		var within []Span
		for _, t := range m.terms {
			last := len(t.words) - 1
			if last >= len(ahead) || last < found && !isUnbroken(t.words[0]) {
				continue
			}
			holds := true
			for i, w := range t.words {
				holds = holds && (ahead[i].word == w || i == last && t.open && strings.HasPrefix(ahead[i].word, w) || isUnbroken(w) && strings.Contains(ahead[i].word, w))
			}
			if holds {
				found = len(t.words)
			}
			if holds && last == 0 && isUnbroken(t.words[0]) { // the part of the run that was asked for
				within = append(within, part(text, Span{ahead[0].start, ahead[0].end}, t.words[0]))
			}
		}
		switch {
		case len(within) > 0:
			slices.SortFunc(within, func(a, b Span) int { return a.Start - b.Start })
			for _, s := range within {
				if len(spans) == 0 || s.Start >= spans[len(spans)-1].End {
					spans = append(spans, s)
				}
			}
			ahead = slices.Delete(ahead, 0, 1)
		case found > 0:
			spans = append(spans, Span{ahead[0].start, ahead[found-1].end})
			ahead = slices.Delete(ahead, 0, found)
		default:
			ahead = slices.Delete(ahead, 0, 1)
		}
	}
}

// isUnbroken reports whether a word is of a script without blanks between words.
func isUnbroken(word string) bool {
	r, _ := utf8.DecodeRuneInString(word)
	return classOf(r) == unbroken
}

// part is where a word stands within a run of its script; all of the run where folding has changed
// what stands there.
func part(text string, run Span, word string) Span {
	if i := strings.Index(text[run.Start:run.End], word); i >= 0 {
		return Span{run.Start + i, run.Start + i + len(word)}
	}
	return run
}

// How much of a text an excerpt shows around what was found, in bytes.
const (
	shownBefore = 60
	shownAfter  = 120
)

// Excerpt returns a stretch of the text around the first thing found in it, on
// one line, with where things were found in the stretch; "" where nothing was.
func (m *Marker) Excerpt(text string) (string, []Span) {
	first := m.Marks(text, 1)
	if len(first) == 0 {
		return "", nil
	}
	from, to := max(first[0].Start-shownBefore, 0), min(first[0].End+shownAfter, len(text))
	if from > 0 { // begin with a whole word
		_, from, _ = nextWord(text, wordEnd(text, from))
		from = min(from, first[0].Start)
	}
	for to < len(text) && !utf8.RuneStart(text[to]) {
		to++
	}
	stretch := strings.Join(strings.Fields(text[from:to]), " ")
	if from > 0 {
		stretch = "…" + stretch
	}
	if to < len(text) {
		stretch += "…"
	}
	return stretch, m.Marks(stretch, 0)
}

// wordEnd returns where the word that a byte lies in ends.
func wordEnd(text string, at int) int {
	for at < len(text) && !utf8.RuneStart(text[at]) {
		at++
	}
	n := strings.IndexFunc(text[at:], unicode.IsSpace)
	if n < 0 {
		return len(text)
	}
	return at + n
}
