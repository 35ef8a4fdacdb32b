package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/httpapi/contract"
)

// ChangeMany does one thing to many to-dos.
func (s *server) ChangeMany(c *gin.Context, params contract.ChangeManyParams) {
	in, raw, err := body[contract.Many](c)
	var cmd book.Command
	if err == nil {
		cmd, err = decodeMany(in)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}

// ReachOfMany says what ChangeMany would reach.
func (s *server) ReachOfMany(c *gin.Context) {
	in, _, err := body[contract.ManyIds](c)
	var ids []book.ID
	if err == nil {
		ids, err = readIDs("ids", in.Ids)
	}
	var r book.Reach
	if err == nil {
		s.as(c).Read(func(b *book.Desk, _ day.Clock) { r, err = b.Reach(ids) })
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, contract.Reach{Closed: r.Closed, Archived: r.Archived})
}

func decodeMany(in contract.Many) (book.Command, error) {
	var cmd book.Many
	var err error
	if cmd.IDs, err = readIDs("ids", in.Ids); err != nil {
		return cmd, err
	}
	switch in.Do {
	case contract.ManyDoComplete:
		cmd.Do = func(id book.ID) book.Command { return book.Complete{ID: id} }
	case contract.ManyDoCancel:
		cmd.Do = func(id book.ID) book.Command { return book.Cancel{ID: id} }
	case contract.ManyDoReopen:
		cmd.Do = func(id book.ID) book.Command { return book.Reopen{ID: id} }
	case contract.ManyDoStart:
		status := book.InProcess
		cmd.Do = func(id book.ID) book.Command { return book.Edit{ID: id, Status: &status} }
	case contract.ManyDoDelete:
		cmd.Do = func(id book.ID) book.Command { return book.Delete{ID: id} }
	case contract.ManyDoRestore:
		cmd.Do = func(id book.ID) book.Command { return book.Restore{ID: id} }
	case contract.ManyDoHandful:
		out := in.In != nil && !*in.In
		cmd.Do = func(id book.ID) book.Command { return book.Pick{ID: id, Out: out} }
	case contract.ManyDoTags:
		var tags book.Tagging
		if in.Add != nil {
			tags.Add = *in.Add
		}
		if in.Remove != nil {
			tags.Remove = *in.Remove
		}
		cmd.Do = func(id book.ID) book.Command { tags.ID = id; return tags }
	case contract.ManyDoMove:
		if in.Place == nil {
			return cmd, &book.RuleError{Field: "place", Reason: "The place to move to is missing."}
		}
		move, err := decodeMove(book.ID{}, *in.Place)
		return book.MoveMany{IDs: cmd.IDs, To: move}, err
	case contract.ManyDoEdit:
		cmd.Do, err = editMany(in.Patch)
	default: // a field of a to-do, the same for all
		for _, f := range todoFields {
			if f.many != nil && f.name == string(in.Do) {
				cmd.Do, err = f.many(&in)
			}
		}
	}
	return cmd, err
}

// editMany sets fields alike.
func editMany(in *contract.TodoPatch) (func(book.ID) book.Command, error) {
	if in == nil {
		return nil, &book.RuleError{Field: "patch", Reason: "The fields to set are missing."}
	}
	if in.Title.IsSpecified() || in.Notes.IsSpecified() || in.List.IsSpecified() || in.Status.IsSpecified() || in.IsNote != nil {
		return nil, &book.RuleError{Field: "patch", Reason: "Title, notes, list, status and isNote are not set alike in many."}
	}
	edit, err := decodeEdit(in)
	return func(id book.ID) book.Command {
		one := edit
		one.ID = id
		return one
	}, err
}

func decodeMove(id book.ID, in contract.Move) (book.Move, error) {
	cmd := book.Move{ID: id}
	for _, err := range []error{
		optional(&cmd.List, "list", in.List), optional(&cmd.Section, "section", in.Section),
		optional(&cmd.Parent, "parent", in.Parent), beside(&cmd.After, &cmd.Before, in.After, in.Before),
	} {
		if err != nil {
			return cmd, err
		}
	}
	return cmd, nil
}

func readIDs(field string, texts []string) ([]book.ID, error) {
	ids := make([]book.ID, 0, len(texts))
	for _, text := range texts {
		id, err := read[book.ID](field, text)
		if err != nil {
			return nil, err
		}
		ids = append(ids, id)
	}
	return ids, nil
}

func decodePostpone(in contract.Postponing, today day.Date) (cmd book.Postpone, err error) {
	if cmd.By, err = book.ParseDistance(in.Distance, today); err != nil {
		return cmd, err
	}
	if cmd.IDs, err = readIDs("ids", in.Ids); err == nil && in.Release != nil {
		cmd.Release, err = readIDs("release", *in.Release)
	}
	return cmd, err
}

// Postpone moves many dated to-dos at once.
func (s *server) Postpone(c *gin.Context, params contract.PostponeParams) {
	in, raw, err := body[contract.Postponing](c)
	var cmd book.Postpone
	if err == nil {
		cmd, err = decodePostpone(in, s.as(c).Clock().Today())
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}

// PreviewPostpone says what Postpone would do.
func (s *server) PreviewPostpone(c *gin.Context) {
	in, _, err := body[contract.Postponing](c)
	var cmd book.Postpone
	toRoom := in.Distance == "room"
	if toRoom { // until it is known which day has some
		in.Distance = "P1D"
	}
	if err == nil {
		cmd, err = decodePostpone(in, s.as(c).Clock().Today())
	}
	out := contract.Postponement{Moves: []contract.Moves{}, Stays: []contract.Stays{}}
	if err == nil {
		s.as(c).Read(func(b *book.Desk, clock day.Clock) {
			var p *book.Postponement
			var room day.Date
			if room, err = s.as(c).NextRoom(b, clock, cmd); err != nil {
				return
			}
			if !room.IsZero() {
				out.Room = orAbsent(room.String())
				if toRoom {
					cmd.By = book.ToDate(room)
				}
			}
			if p, err = b.Postponement(book.Env{Clock: clock}, cmd); err == nil {
				encodePostponement(&out, p)
				fills := []contract.Fills{}
				for _, f := range s.as(c).Fills(b, clock, p) {
					fills = append(fills, contract.Fills{Horizon: f.On.String(), Load: encodeLoad(f.Loads, b.OneKind())})
				}
				out.Fills = &fills
			}
		})
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, out)
}

func encodePostponement(out *contract.Postponement, p *book.Postponement) {
	for _, m := range p.Moves {
		row := contract.Moves{Id: m.Before.ID.String(), Title: m.Before.Title, Dates: []contract.Moved{}}
		for _, f := range []struct {
			field    contract.MovedField
			from, to string
		}{
			{contract.MovedFieldPlan, m.Before.Plan.String(), m.After.Plan.String()},
			{contract.MovedFieldDue, m.Before.Due.String(), m.After.Due.String()},
			{contract.MovedFieldStart, m.Before.Start.String(), m.After.Start.String()},
		} {
			if f.from != f.to {
				row.Dates = append(row.Dates, contract.Moved{Field: f.field, From: f.from, To: f.to})
			}
		}
		out.Moves = append(out.Moves, row)
	}
	for _, h := range p.Stays {
		out.Stays = append(out.Stays, contract.Stays{Id: h.Todo.ID.String(), Title: h.Todo.Title, Why: h.Why(), Releasable: h.Releasable()})
	}
}
