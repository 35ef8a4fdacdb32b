package httpapi

import (
	"errors"
	"fmt"
	"unicode/utf16"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/filter"
	"tincup/internal/core/search"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// Search answers with what holds the words of a query, the best first.
func (s *server) Search(c *gin.Context, params contract.SearchParams) {
	q, err := readSearch(params.Q)
	if err != nil {
		s.fail(c, err)
		return
	}
	offset, limit := 0, pageSize
	if params.Offset != nil {
		offset = *params.Offset
	}
	if params.Limit != nil {
		limit = *params.Limit
	}
	var body viewBody
	err = s.as(c).Search(c.Request.Context(), q, offset, limit,
		func(b *book.Desk, clock clockNow, res *view.Result, excerpts map[book.ID]app.Excerpt) {
			found := map[book.ID]*contract.Found{}
			for _, g := range res.Groups {
				for _, r := range g.Rows {
					found[r.Todo.ID] = encodeExcerpt(r.Todo, excerpts[r.Todo.ID])
				}
			}
			body = encodeView(b, clock, foundWords(res.Total), res, found)
		})
	if err != nil {
		s.fail(c, err)
		return
	}
	s.view(c, &body)
}

// GetSearchFilter answers with the filter that holds what a search finds.
func (s *server) GetSearchFilter(c *gin.Context, params contract.GetSearchFilterParams) {
	q, err := readSearch(params.Q)
	var f filter.Filter
	if err == nil {
		f, err = s.as(c).SearchFilter(q)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.json(c, f, nil)
}

func readSearch(text string) (search.Query, error) {
	q, err := search.Parse(text)
	var wrong *search.Error
	if !errors.As(err, &wrong) {
		return q, err
	}
	field := "q"
	if wrong.At > 0 {
		field = fmt.Sprintf("q/%d", wrong.At)
	}
	return q, &book.RuleError{Field: field, Reason: wrong.Reason}
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

func encodeExcerpt(t *book.Todo, e app.Excerpt) *contract.Found {
	out := &contract.Found{Title: spansIn(t.Title, e.Title)}
	if len(e.Place) > 0 {
		spans := spansIn(t.Place, e.Place)
		out.Place = &spans
	}
	if e.Notes != "" {
		spans := spansIn(e.Notes, e.InNotes)
		out.Notes, out.InNotes = &e.Notes, &spans
	}
	if e.Files != "" {
		spans := spansIn(e.Files, e.InFiles)
		out.Files, out.InFiles = &e.Files, &spans
	}
	return out
}

// spansIn counts spans in UTF-16 code units.
func spansIn(text string, spans []search.Span) []contract.Span {
	out := make([]contract.Span, 0, len(spans))
	units, at := 0, 0
	upTo := func(b int) int {
		for _, r := range text[at:b] {
			units += max(utf16.RuneLen(r), 1)
		}
		at = b
		return units
	}
	for _, s := range spans {
		start := upTo(s.Start)
		out = append(out, contract.Span{Start: start, End: upTo(s.End)})
	}
	return out
}
