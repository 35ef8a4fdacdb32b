package httpapi

import (
	"errors"
	"fmt"
	"strings"
	"unicode/utf16"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// Search answers with what holds the words of a query, the best first.
func (s *server) Search(c *gin.Context, params contract.SearchParams) {
	q, err := search.Parse(params.Q)
	var wrong *search.Error
	if errors.As(err, &wrong) {
		field := "q"
		if wrong.At > 0 {
			field = fmt.Sprintf("q/%d", wrong.At)
		}
		s.fail(c, &book.RuleError{Field: field, Reason: wrong.Reason})
		return
	}
	offset, limit := 0, pageSize
	if params.Offset != nil {
		offset = *params.Offset
	}
	if params.Limit != nil {
		limit = *params.Limit
	}
	var body contract.View
	err = s.app.Search(c.Request.Context(), q, offset, limit,
		func(b *book.Book, clock clockNow, res *view.Result, excerpts map[book.ID]store.Excerpt) {
			body = encodeView(b, clock, view.Query{}, res)
			body.Sentence = foundWords(res.Total)
			for i, g := range res.Groups {
				for j, r := range g.Rows {
					body.Groups[i].Rows[j].Found = encodeExcerpt(excerpts[r.Todo.ID])
				}
			}
		})
	if err != nil {
		s.fail(c, err)
		return
	}
	s.patches.answer(c, &body)
	s.json(c, body, nil)
}

func foundWords(n int) string {
	switch {
	case n == 0:
		return "Nothing holds these words, not even the bin."
	case n == 1:
		return "1 holds these words."
	case n >= store.MaxHits:
		return fmt.Sprintf("The best %d that hold these words.", n)
	}
	return fmt.Sprintf("%d hold these words, the best first.", n)
}

func encodeExcerpt(e store.Excerpt) *contract.Found {
	out := &contract.Found{}
	_, out.Title = marked(e.Title)
	if e.Notes != "" {
		text, spans := marked(e.Notes)
		out.Notes, out.InNotes = &text, &spans
	}
	if e.Files != "" {
		text, spans := marked(e.Files)
		out.Files, out.InFiles = &text, &spans
	}
	return out
}

// marked takes the marks out of a text and says where they stood, in UTF-16 code
// units.
func marked(s string) (text string, spans []contract.Span) {
	spans = []contract.Span{}
	var b strings.Builder
	at, begun := 0, 0
	for _, r := range s {
		switch string(r) {
		case store.Begin:
			begun = at
		case store.End:
			spans = append(spans, contract.Span{Start: begun, End: at})
		default:
			b.WriteRune(r)
			at += max(utf16.RuneLen(r), 1)
		}
	}
	return b.String(), spans
}
