package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/httpapi/contract"
)

// GetCopies answers with the daily copies of the data file.
func (s *server) GetCopies(c *gin.Context) {
	copies, err := s.app.DailyCopies()
	if err != nil {
		s.fail(c, err)
		return
	}
	out := contract.Copies{Folder: copies.Folder, Days: []string{}}
	for _, on := range copies.On {
		out.Days = append(out.Days, on.String())
	}
	c.JSON(http.StatusOK, out)
}
