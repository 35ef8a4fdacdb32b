package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/httpapi/contract"
)

// GetSlack answers with the room that a to-do has until its due, or one in its place.
func (s *server) GetSlack(c *gin.Context, todoID string, params contract.GetSlackParams) {
	id, err := pathID(todoID)
	var due day.Moment
	if err == nil && params.Due != nil {
		due, err = read[day.Moment]("due", *params.Due)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	minutes := 0
	if params.Minutes != nil {
		minutes = *params.Minutes
	}
	var out contract.Slack
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		var t *book.Todo
		if t, err = b.Todo(id); err != nil {
			return
		}
		if slack, ok := s.as(c).Slack(b, clock, t, due, minutes); ok {
			words, short, late := slack.Words(), slack.Spare < 0, slack.Late()
			out = contract.Slack{Words: &words, Short: &short, Late: &late}
		}
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, out)
}
