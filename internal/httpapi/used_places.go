package httpapi

import (
	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// GetPlaces answers with the places in use.
func (s *server) GetPlaces(c *gin.Context) {
	type place struct {
		Name  string `json:"name"`
		Count int    `json:"count"`
	}
	out := []place{}
	s.as(c).Read(func(b *book.Desk, _ day.Clock) {
		for _, p := range view.UsedPlaces(b) {
			out = append(out, place(p))
		}
	})
	s.json(c, out, nil)
}
