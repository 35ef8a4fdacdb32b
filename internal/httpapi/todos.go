package httpapi

import (
	"encoding/json"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/httpapi/contract"
)

// GetTodo answers with one to-do and its notes.
func (s *server) GetTodo(c *gin.Context, todoID string) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	var t *book.Todo
	var row json.RawMessage
	var note string
	s.as(c).Read(func(b *book.Desk, _ day.Clock) {
		if t, err = b.Todo(id); err != nil {
			return
		}
		if note, err = s.as(c).Note(t); err == nil {
			row = todoJSON(tagsOf(b), t, func(w *writer) { w.string("notes", note) })
		}
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Header("ETag", etagOf(t.Revision))
	c.Data(http.StatusOK, "application/json; charset=utf-8", row)
}

// CaptureTodo puts a to-do in.
func (s *server) CaptureTodo(c *gin.Context, params contract.CaptureTodoParams) {
	in, raw, err := body[contract.NewTodo](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.Capture{}
	err = optional(&cmd.ID, "id", in.Id)
	for _, f := range todoFields {
		if err == nil && f.put != nil {
			err = f.put(&cmd, &in)
		}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.run(c, request(c, params.IdempotencyKey, params.WindowId, raw), http.StatusCreated, cmd)
}

// EditTodo applies a merge patch.
func (s *server) EditTodo(c *gin.Context, todoID string, params contract.EditTodoParams) {
	in, raw, err := body[contract.TodoPatch](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd, err := decodeEdit(&in)
	cmd.ID = id
	if err != nil {
		s.fail(c, err)
		return
	}
	req := request(c, nil, params.WindowId, raw)
	if req.Expect, err = expectation(book.TodoRow, id, params.IfMatch); err != nil {
		s.fail(c, err)
		return
	}
	s.run(c, req, http.StatusOK, cmd)
}

// DeleteTodo puts a to-do in the bin.
func (s *server) DeleteTodo(c *gin.Context, todoID string, params contract.DeleteTodoParams) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	req := request(c, nil, params.WindowId, nil)
	if req.Expect, err = expectation(book.TodoRow, id, params.IfMatch); err != nil {
		s.fail(c, err)
		return
	}
	s.run(c, req, http.StatusOK, book.Delete{ID: id})
}

// onTodo runs a command that needs no more than the to-do's id.
func (s *server) onTodo(c *gin.Context, todoID string, key, window *string, cmd func(book.ID) book.Command) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.run(c, request(c, key, window, nil), http.StatusOK, cmd(id))
}

// CompleteTodo ticks a to-do.
func (s *server) CompleteTodo(c *gin.Context, id string, p contract.CompleteTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Complete{ID: id} })
}

// ReopenTodo opens a completed or cancelled to-do again.
func (s *server) ReopenTodo(c *gin.Context, id string, p contract.ReopenTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Reopen{ID: id} })
}

// CancelTodo marks a to-do as decided not to do.
func (s *server) CancelTodo(c *gin.Context, id string, p contract.CancelTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Cancel{ID: id} })
}

// RestoreTodo takes a to-do out of the bin.
func (s *server) RestoreTodo(c *gin.Context, id string, p contract.RestoreTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Restore{ID: id} })
}

// withBody runs a command made from the to-do's id and a body.
func withBody[T any](s *server, c *gin.Context, todoID string, key, window *string,
	cmd func(book.ID, T) (book.Command, error)) {
	id, in, raw, ok := rowAndBody[T](s, c, todoID)
	if !ok {
		return
	}
	command, err := cmd(id, in)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.run(c, request(c, key, window, raw), http.StatusOK, command)
}

// MoveTodo moves a to-do into another list or section, under another to-do, or among its siblings.
func (s *server) MoveTodo(c *gin.Context, id string, p contract.MoveTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Move) (book.Command, error) {
		return decodeMove(id, in)
	})
}

// PlanTodo sets a to-do's plan.
func (s *server) PlanTodo(c *gin.Context, id string, p contract.PlanTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Plan) (book.Command, error) {
		cmd := book.PlanFor{ID: id}
		err := optional(&cmd.Plan, "plan", in.Plan)
		return cmd, err
	})
}

// TagTodo adds tags to a to-do and takes others away.
func (s *server) TagTodo(c *gin.Context, id string, p contract.TagTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Tagging) (book.Command, error) {
		cmd := book.Tagging{ID: id}
		if in.Add != nil {
			cmd.Add = *in.Add
		}
		if in.Remove != nil {
			cmd.Remove = *in.Remove
		}
		return cmd, nil
	})
}

// PickTodo picks a to-do for today, or takes it out of the handful.
func (s *server) PickTodo(c *gin.Context, id string, p contract.PickTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Picking) (book.Command, error) {
		return book.Pick{ID: id, Out: !in.In}, nil
	})
}
