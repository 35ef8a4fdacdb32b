package httpapi

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/settings"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// walks are the reviews, in the order in which the settings keep them.
var walks = []view.Review{settings.Daily: view.Daily, settings.Weekly: view.Weekly, settings.Monthly: view.Monthly}

// GetReview answers with a guided walk.
func (s *server) GetReview(c *gin.Context, walk contract.Walk, params contract.GetReviewParams) {
	s.answer(c, view.Query{Of: view.Review(walk)}, params.Offset, params.Limit)
}

// FinishReview notes that a walk was gone through.
func (s *server) FinishReview(c *gin.Context, walk contract.Walk, params contract.FinishReviewParams) {
	in, raw, err := body[contract.FinishedReview](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.FinishReview{Walk: settings.Walk(slices.Index(walks, view.Review(walk))), Decided: in.Decided, Minutes: in.Minutes}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}

// pastDays is how far back GetPast goes: four weeks.
const pastDays = 28

// GetPast answers with what was planned and done day by day.
func (s *server) GetPast(c *gin.Context) {
	out := make([]contract.PastDay, 0, pastDays)
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		for _, d := range s.as(c).Past(b, clock, pastDays) {
			out = append(out, contract.PastDay{Day: d.Date.String(), Planned: d.Planned, Done: d.Done, Count: d.Count})
		}
	})
	c.JSON(http.StatusOK, out)
}

// KeepTodo says that a to-do is to stay as it is.
func (s *server) KeepTodo(c *gin.Context, id string, p contract.KeepTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Keep{ID: id} })
}
