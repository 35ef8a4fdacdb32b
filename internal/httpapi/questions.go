package httpapi

import (
	"encoding/json"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// AskQuestion says what a definition means and holds.
func (s *server) AskQuestion(c *gin.Context) {
	in, _, err := body[contract.Definition](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	d, err := define(in)
	if err != nil {
		s.fail(c, err)
		return
	}
	var out meaningBody
	answer := s.as(c).Check(d.Filter)
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		var m view.Meaning
		if m, err = view.Mean(b, clock, d, answer); err == nil {
			out = encodeMeaning(b, m)
		}
	})
	s.json(c, out, err)
}

// meaningBody is a contract.Meaning whose rows are written already.
type meaningBody struct {
	contract.Meaning
	Rows []json.RawMessage `json:"rows"`
}

func encodeMeaning(b *book.Desk, m view.Meaning) meaningBody {
	out := meaningBody{Meaning: contract.Meaning{Sentence: m.Sentence, Verdict: contract.MeaningVerdict(m.Answer.Verdict), Now: contract.MeaningNow(m.Answer.Now),
		Because: append([]string{}, m.Answer.Because...), Says: orAbsent(m.Says), Total: m.Total, Looked: m.Looked, Minutes: m.Minutes,
		Tests: []contract.Weight{}}, Rows: []json.RawMessage{}}
	for _, w := range m.Tests {
		out.Tests = append(out.Tests, contract.Weight{Path: w.Path, Passes: w.Passes, Without: w.Without})
	}
	if m.Offer != nil {
		out.Offer = &contract.Offer{Path: m.Offer.Path, Total: m.Offer.Without, Says: m.OfferSays}
	}
	for _, r := range m.Rows {
		out.Rows = append(out.Rows, appendRow(nil, b, r, nil))
	}
	return out
}
