package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"
	"github.com/oapi-codegen/nullable"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// made answers with the id of the row a command made, as of finds it.
func (s *server) made(c *gin.Context, req app.Request, cmd book.Command, of func(*book.Change) book.ID) {
	reply, err := s.as(c).Run(c.Request.Context(), req, cmd, func(o *app.Outcome) (*store.Reply, error) {
		return placed(of(o.Change), http.StatusCreated, o)
	})
	s.reply(c, reply, err)
}

func placed(id book.ID, status int, o *app.Outcome) (*store.Reply, error) {
	return again(status, madePrefix+id.String(), o.Change)
}

// answerRow runs a command on a row that is no to-do.
func (s *server) answerRow(c *gin.Context, req app.Request, id book.ID, cmd book.Command) {
	reply, err := s.as(c).Run(c.Request.Context(), req, cmd, func(o *app.Outcome) (*store.Reply, error) {
		reply, err := placed(id, http.StatusOK, o)
		if req.Expect != nil {
			reply.ETag = etagAfter(o, req.Expect.Kind, id)
		}
		return reply, err
	})
	s.reply(c, reply, err)
}

// etagAfter is the ETag of a row after a change; "" where it is gone.
func etagAfter(o *app.Outcome, kind book.RowKind, id book.ID) string {
	if len(o.Change.FieldsOf(kind, id)) > 0 {
		return etagOf(o.Change.Revision)
	}
	if revision, err := o.Desk.RevisionOf(kind, id); err == nil {
		return etagOf(revision)
	}
	return ""
}

// onRow runs a command on a row that is no to-do, by its id alone.
func (s *server) onRow(c *gin.Context, rowID string, key, window *string, cmd func(book.ID) book.Command) {
	id, err := pathID(rowID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answerRow(c, request(c, key, window, nil), id, cmd(id))
}

// onRowWith is onRow for commands made from a body too.
func onRowWith[T any](s *server, c *gin.Context, rowID string, key, window *string, cmd func(book.ID, T) (book.Command, error)) {
	if id, in, raw, ok := rowAndBody[T](s, c, rowID); ok {
		command, err := cmd(id, in)
		if err != nil {
			s.fail(c, err)
			return
		}
		s.answerRow(c, request(c, key, window, raw), id, command)
	}
}

// seen is the state of a row that a request builds on.
type seen struct {
	kind    book.RowKind
	ifMatch *string
	window  *string
}

// removeRow takes a row out, as it was seen.
func (s *server) removeRow(c *gin.Context, rowID string, as seen, cmd func(book.ID) book.Command) {
	id, err := pathID(rowID)
	req := request(c, nil, as.window, nil)
	if err == nil {
		req.Expect, err = expectation(as.kind, id, as.ifMatch)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answerRow(c, req, id, cmd(id))
}

// editRow changes a row, as it was seen.
func editRow[T any](s *server, c *gin.Context, rowID string, as seen, cmd func(book.ID, T) (book.Command, error)) {
	id, in, raw, ok := rowAndBody[T](s, c, rowID)
	if !ok {
		return
	}
	req := request(c, nil, as.window, raw)
	var err error
	if req.Expect, err = expectation(as.kind, id, as.ifMatch); err != nil {
		s.fail(c, err)
		return
	}
	command, err := cmd(id, in)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answerRow(c, req, id, command)
}

// rowAndBody reads the id in the address and the body, or answers why not.
func rowAndBody[T any](s *server, c *gin.Context, rowID string) (id book.ID, in T, raw []byte, ok bool) {
	in, raw, err := body[T](c)
	if err == nil {
		id, err = pathID(rowID)
	}
	if err != nil {
		s.fail(c, err)
	}
	return id, in, raw, err == nil
}

// beside reads the two names of a neighbour.
func beside(after, before *book.ID, inAfter, inBefore nullable.Nullable[string]) error {
	if err := optional(after, "after", inAfter); err != nil {
		return err
	}
	return optional(before, "before", inBefore)
}

// AddShelf puts up a new shelf.
func (s *server) AddShelf(c *gin.Context, params contract.AddShelfParams) {
	in, raw, err := body[contract.Named](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, params.IdempotencyKey, params.WindowId, raw), book.AddShelf{Name: in.Name},
		func(change *book.Change) book.ID { return change.Shelves[0].After.ID })
}

// EditShelf changes a shelf.
func (s *server) EditShelf(c *gin.Context, id string, p contract.EditShelfParams) {
	editRow(s, c, id, seen{book.ShelfRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.ShelfPatch) (book.Command, error) {
		hours, err := perhaps[term.Hours]("hours", in.Hours)
		return book.EditShelf{ID: id, Name: in.Name, Hours: hours}, err
	})
}

// DeleteShelf puts a shelf in the bin.
func (s *server) DeleteShelf(c *gin.Context, id string, p contract.DeleteShelfParams) {
	s.removeRow(c, id, seen{book.ShelfRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.DeleteShelf{ID: id} })
}

// RestoreShelf takes a shelf out of the bin.
func (s *server) RestoreShelf(c *gin.Context, id string, p contract.RestoreShelfParams) {
	s.onRow(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.RestoreShelf{ID: id} })
}

// MoveShelf moves a shelf among the others.
func (s *server) MoveShelf(c *gin.Context, id string, p contract.MoveShelfParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Beside) (book.Command, error) {
		cmd := book.MoveShelf{ID: id}
		return cmd, beside(&cmd.After, &cmd.Before, in.After, in.Before)
	})
}

// AddList makes a new list.
func (s *server) AddList(c *gin.Context, params contract.AddListParams) {
	in, raw, err := body[contract.NewList](c)
	cmd := book.AddList{Name: in.Name}
	if err == nil {
		err = optional(&cmd.Shelf, "shelf", in.Shelf)
	}
	if err == nil {
		cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, params.IdempotencyKey, params.WindowId, raw), cmd,
		func(change *book.Change) book.ID { return change.Lists[0].After.ID })
}

// EditList changes a list.
func (s *server) EditList(c *gin.Context, id string, p contract.EditListParams) {
	editRow(s, c, id, seen{book.ListRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.ListPatch) (book.Command, error) {
		cmd := book.EditList{ID: id, Name: in.Name, Checklist: in.Checklist, Pinned: in.Pinned, Archived: in.Archived}
		var err error
		if cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour); err == nil {
			cmd.Order, err = perhaps[book.Order]("order", in.Order)
		}
		if err == nil && in.Due.IsSpecified() {
			cmd.Due, cmd.Shift = new(day.Date), in.Shift != nil && *in.Shift
			err = optional(cmd.Due, "due", in.Due)
		}
		if err == nil && in.Person.IsSpecified() {
			cmd.With = new(book.ID)
			err = optional(cmd.With, "person", in.Person)
		}
		cmd.Outcome = cleared(in.Outcome)
		return cmd, err
	})
}

// FinishList archives a list that is done.
func (s *server) FinishList(c *gin.Context, id string, p contract.FinishListParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Finishing) (book.Command, error) {
		rest, err := read[book.Rest]("rest", string(in.Rest))
		return book.FinishList{ID: id, Rest: rest}, err
	})
}

// DuplicateList makes a list like another.
func (s *server) DuplicateList(c *gin.Context, id string, p contract.DuplicateListParams) {
	s.duplicate(c, id, request(c, p.IdempotencyKey, p.WindowId, nil), func(id book.ID) book.Command { return book.DuplicateList{ID: id} },
		func(change *book.Change) book.ID { return change.Lists[0].After.ID })
}

// DuplicateTodo makes a copy of a to-do.
func (s *server) DuplicateTodo(c *gin.Context, id string, p contract.DuplicateTodoParams) {
	s.duplicate(c, id, request(c, p.IdempotencyKey, p.WindowId, nil), func(id book.ID) book.Command { return book.Duplicate{ID: id} },
		func(change *book.Change) book.ID { return change.Todos[0].After.ID })
}

// duplicate makes a row like another, and answers with its id.
func (s *server) duplicate(c *gin.Context, rowID string, req app.Request, cmd func(book.ID) book.Command, of func(*book.Change) book.ID) {
	id, err := pathID(rowID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, req, cmd(id), of)
}

// DeleteList puts a list in the bin.
func (s *server) DeleteList(c *gin.Context, id string, p contract.DeleteListParams) {
	s.removeRow(c, id, seen{book.ListRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.DeleteList{ID: id} })
}

// RestoreList takes a list out of the bin.
func (s *server) RestoreList(c *gin.Context, id string, p contract.RestoreListParams) {
	s.onRow(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.RestoreList{ID: id} })
}

// MoveList moves a list on its shelf, or to another.
func (s *server) MoveList(c *gin.Context, id string, p contract.MoveListParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.ListMove) (book.Command, error) {
		cmd := book.MoveList{ID: id}
		var err error
		if cmd.Shelf, err = read[book.ID]("shelf", in.Shelf); err == nil {
			err = beside(&cmd.After, &cmd.Before, in.After, in.Before)
		}
		return cmd, err
	})
}

// StartOver opens everything ticked in a checklist again.
func (s *server) StartOver(c *gin.Context, id string, p contract.StartOverParams) {
	s.onRow(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.StartOver{List: id} })
}

// ClearDone puts what is ticked in a checklist in the bin.
func (s *server) ClearDone(c *gin.Context, id string, p contract.ClearDoneParams) {
	s.onRow(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.ClearDone{List: id} })
}

// SaveTemplate keeps a list to be poured out again.
func (s *server) SaveTemplate(c *gin.Context, listID string, p contract.SaveTemplateParams) {
	id, in, raw, ok := rowAndBody[contract.NewTemplate](s, c, listID)
	if !ok {
		return
	}
	cmd := book.SaveTemplate{List: id, Name: in.Name}
	if err := optional(&cmd.From, "from", in.From); err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, p.IdempotencyKey, p.WindowId, raw), cmd, func(change *book.Change) book.ID { return change.Lists[0].After.ID })
}

// PourTemplate makes a list of a template.
func (s *server) PourTemplate(c *gin.Context, templateID string, p contract.PourTemplateParams) {
	id, in, raw, ok := rowAndBody[contract.Pouring](s, c, templateID)
	if !ok {
		return
	}
	cmd := book.Pour{Template: id, Name: in.Name}
	err := optional(&cmd.Shelf, "shelf", in.Shelf)
	if err == nil {
		cmd.On, err = read[day.Date]("on", in.On)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, p.IdempotencyKey, p.WindowId, raw), cmd, func(change *book.Change) book.ID { return change.Lists[0].After.ID })
}

// AddSection puts a new section behind the others of a list.
func (s *server) AddSection(c *gin.Context, listID string, p contract.AddSectionParams) {
	if id, in, raw, ok := rowAndBody[contract.Named](s, c, listID); ok {
		s.made(c, request(c, p.IdempotencyKey, p.WindowId, raw), book.AddSection{List: id, Name: in.Name},
			func(change *book.Change) book.ID { return change.Sections[0].After.ID })
	}
}

// EditSection renames a section.
func (s *server) EditSection(c *gin.Context, id string, p contract.EditSectionParams) {
	editRow(s, c, id, seen{book.SectionRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.Named) (book.Command, error) {
		return book.EditSection{ID: id, Name: in.Name}, nil
	})
}

// DeleteSection takes a section's heading away.
func (s *server) DeleteSection(c *gin.Context, id string, p contract.DeleteSectionParams) {
	s.removeRow(c, id, seen{book.SectionRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command {
		return book.DeleteSection{ID: id, WithTodos: p.Todos != nil && *p.Todos}
	})
}

// MoveSection moves a section within its list.
func (s *server) MoveSection(c *gin.Context, id string, p contract.MoveSectionParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Beside) (book.Command, error) {
		cmd := book.MoveSection{ID: id}
		return cmd, beside(&cmd.After, &cmd.Before, in.After, in.Before)
	})
}

// EditTag renames a tag everywhere, or gives it another colour.
func (s *server) EditTag(c *gin.Context, id string, p contract.EditTagParams) {
	editRow(s, c, id, seen{book.TagRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.TagPatch) (book.Command, error) {
		colour, err := perhaps[book.Colour]("colour", in.Colour)
		return book.EditTag{ID: id, Name: in.Name, Colour: colour}, err
	})
}

// DeleteTag takes a tag from all that carry it.
func (s *server) DeleteTag(c *gin.Context, id string, p contract.DeleteTagParams) {
	s.removeRow(c, id, seen{book.TagRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.DeleteTag{ID: id} })
}

// MergeTag lets all that carries a tag carry another instead.
func (s *server) MergeTag(c *gin.Context, id string, p contract.MergeTagParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Merging) (book.Command, error) {
		into, err := read[book.ID]("into", in.Into)
		return book.MergeTags{From: id, Into: into}, err
	})
}
