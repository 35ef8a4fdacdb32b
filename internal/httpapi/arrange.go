package httpapi

import (
	"encoding/json"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// AddShelf puts up a new shelf.
func (s *server) AddShelf(c *gin.Context, params contract.AddShelfParams) {
	in, raw, err := body[contract.NewShelf](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.app.Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw),
		book.AddShelf{Name: in.Name}, func(o *app.Outcome) (*store.Reply, error) {
			return made(o.Change.Shelves[0].After.ID, o)
		})
	s.reply(c, reply, err)
}

// AddList makes a new list.
func (s *server) AddList(c *gin.Context, params contract.AddListParams) {
	in, raw, err := body[contract.NewList](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.AddList{Name: in.Name}
	if err := optional(&cmd.Shelf, "shelf", in.Shelf); err != nil {
		s.fail(c, err)
		return
	}
	if in.Colour != nil {
		colour, err := read[book.Colour]("colour", string(*in.Colour))
		if err != nil {
			s.fail(c, err)
			return
		}
		cmd.Colour = &colour
	}
	reply, err := s.app.Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd,
		func(o *app.Outcome) (*store.Reply, error) { return made(o.Change.Lists[0].After.ID, o) })
	s.reply(c, reply, err)
}

func made(id book.ID, o *app.Outcome) (*store.Reply, error) {
	packed, err := json.Marshal(contract.Made{Id: id.String(), Change: encodeChange(o.Change)})
	return &store.Reply{Status: http.StatusCreated, Body: packed}, err
}

// Undo turns a change round.
func (s *server) Undo(c *gin.Context, params contract.UndoParams) {
	in, raw, err := body[contract.UndoRequest](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	revision := int64(0)
	if in.Change != nil {
		revision = *in.Change
	}
	reply, err := s.app.Undo(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), revision, turned)
	s.reply(c, reply, err)
}

// Redo turns an undo round.
func (s *server) Redo(c *gin.Context, params contract.RedoParams) {
	reply, err := s.app.Redo(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, nil), turned)
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

func turned(o *app.Outcome) (*store.Reply, error) {
	out := contract.Turned{Change: encodeChange(o.Change), Todos: []string{}}
	for _, d := range o.Change.Todos {
		if d.After != nil {
			out.Todos = append(out.Todos, d.After.ID.String())
		}
	}
	packed, err := json.Marshal(out)
	return &store.Reply{Status: http.StatusOK, Body: packed}, err
}
