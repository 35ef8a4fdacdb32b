package view

import (
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
)

// Meaning is what a definition says and holds, told while it is being built.
type Meaning struct {
	Sentence string
	Answer   filter.Answer
	// Says is what is to blame for an answer of never or always, in words.
	Says string
	// Total is how many of Looked match now.
	Total, Looked int
	Minutes       int
	Tests         []filter.Weight
	// Offer is the test that, dropped, would let most more in; nil for none.
	Offer *filter.Weight
	// OfferSays says so.
	OfferSays string
	// Rows are the first of what it holds.
	Rows []Row
}

// firstRows is how many rows a Meaning shows.
const firstRows = 8

// Mean works out what a definition means, with what Check answered for its filter. The
// error is that of reading notes.
func Mean(b *book.Desk, c day.Clock, d Definition, a filter.Answer) (Meaning, error) {
	m := Meaning{Sentence: d.Sentence(b), Answer: a}
	m.Says = d.Filter.Explain(b, m.Answer)
	among := d.among(b)
	m.Looked = len(among)
	weights, err := d.Filter.Weigh(at(c).matcher(d.Filter, b), among)
	if err != nil {
		return m, err
	}
	m.Total, m.Tests, m.Minutes = len(weights.Matches), weights.Tests, bucketOf(b, weights.Matches, order{}).family(b).minutes
	m.offer(b, d)
	res, err := Ask(b, c, Query{Of: d, Limit: firstRows})
	if err != nil {
		return m, err
	}
	for _, g := range res.Groups {
		m.Rows = append(m.Rows, g.Rows...)
	}
	return m, nil
}

// offer finds the test to drop; where something is to blame, among that.
func (m *Meaning) offer(b *book.Desk, d Definition) {
	blamed := map[string]bool{}
	if m.Answer.Now == filter.Never {
		for _, path := range m.Answer.Because {
			blamed[path] = true
		}
	}
	for i, w := range m.Tests {
		if len(blamed) > 0 && !blamed[w.Path] || len(m.Tests) < 2 {
			continue
		}
		if w.Without > m.Total && (m.Offer == nil || w.Without >= m.Offer.Without) {
			m.Offer = &m.Tests[i]
		}
	}
	if m.Offer == nil {
		return
	}
	verb := "match"
	if m.Offer.Without == 1 {
		verb = "matches"
	}
	m.OfferSays = fmt.Sprintf("Without “%s”, %s %s now.", d.Filter.Phrase(b, m.Offer.Path), countTodos(m.Offer.Without), verb)
}

func countTodos(n int) string {
	if n == 1 {
		return "1 to-do"
	}
	return fmt.Sprintf("%d to-dos", n)
}

// WhyEmpty says why a view of filters holds nothing; "" where its own words say
// enough.
func WhyEmpty(b *book.Desk, c day.Clock, q Query) string {
	d, asked := q.Of.(Definition)
	if own, saved := q.Of.(Own); saved {
		var err error
		if d, err = own.Definition(b); err != nil {
			return ""
		}
	} else if !asked {
		return q.whyNarrow(b, c)
	}
	d.Filter = filter.All(d.Filter, q.Narrow)
	m, err := Mean(b, c, d, d.Filter.Check(b, c))
	switch {
	case err != nil:
		return ""
	case m.Answer.Now == filter.Never && m.Answer.Verdict == filter.Never:
		return "It can never hold anything. " + m.Says
	case m.Answer.Now == filter.Never:
		return "It can hold nothing today. " + m.Says
	}
	return m.OfferSays
}

// whyNarrow says what would stand in a view that was narrowed to nothing.
func (q Query) whyNarrow(b *book.Desk, c day.Clock) string {
	if q.Narrow.IsZero() {
		return ""
	}
	q.Narrow, q.Limit = filter.Filter{}, 0
	res, err := Ask(b, c, q)
	if err != nil || res.Total == 0 {
		return ""
	}
	return fmt.Sprintf("Narrowed to nothing: without that, %s would stand here.", countTodos(res.Total))
}
