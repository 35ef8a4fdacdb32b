package httpapi

import (
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// Undo turns a change round.
func (s *server) Undo(c *gin.Context, params contract.UndoParams) {
	in, raw, err := body[contract.UndoRequest](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	revision, passing := int64(0), []int64(nil)
	if in.Change != nil {
		revision = *in.Change
	}
	if in.Passing != nil {
		passing = *in.Passing
	}
	reply, err := s.as(c).Undo(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), revision, turned, passing...)
	s.reply(c, reply, err)
}

// Redo turns an undo round.
func (s *server) Redo(c *gin.Context, params contract.RedoParams) {
	reply, err := s.as(c).Redo(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, nil), turned)
	s.reply(c, reply, err)
}

// putIn names everything a command put in.
func putIn(o *app.Outcome) (*store.Reply, error) {
	reply, err := turned(o)
	if err == nil {
		reply.Status = http.StatusCreated
	}
	return reply, err
}

func turned(o *app.Outcome) (*store.Reply, error) { return again(http.StatusOK, turnedAgain, o.Change) }

// GetHistory answers with what was done, the newest first.
func (s *server) GetHistory(c *gin.Context, params contract.GetHistoryParams) {
	before, limit := int64(0), 30
	if params.Before != nil {
		before = *params.Before
	}
	if params.Limit != nil {
		limit = *params.Limit
	}
	past, err := s.as(c).History(c.Request.Context(), before, limit)
	if err != nil {
		s.fail(c, err)
		return
	}
	out := contract.History{Changes: make([]contract.PastChange, 0, len(past))}
	for _, p := range past {
		out.Changes = append(out.Changes, contract.PastChange{Revision: p.Seq, At: p.At.Time().UTC().Format(time.RFC3339), Kind: string(p.Kind),
			Says: p.Says, Here: params.WindowId != nil && p.Window == *params.WindowId, Undoable: p.Undoable, Why: orAbsent(p.Why)})
	}
	c.JSON(http.StatusOK, out)
}
