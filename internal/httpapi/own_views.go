package httpapi

import (
	"encoding/json"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/question"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// define reads a definition; the errors name the part that is wrong.
func define(in contract.Definition) (view.Definition, error) {
	raw, err := json.Marshal(in)
	if err != nil {
		return view.Definition{}, err
	}
	d, err := view.ParseDefinition(raw)
	return d, definitionProblem(err)
}

func definitionProblem(err error) error {
	var (
		part *view.FieldError
		test *question.ParseError
	)
	switch {
	case errors.As(err, &part):
		return &book.RuleError{Field: part.Field, Reason: part.Reason}
	case errors.As(err, &test):
		return &book.RuleError{Field: "filter" + test.Path, Reason: test.Reason}
	}
	return err
}

// worthSaving refuses a definition that can never hold anything.
func worthSaving(as *app.Session, d view.Definition) (err error) {
	a := as.Check(d.Filter)
	if a.Verdict != filter.Never {
		return nil
	}
	as.Read(func(b *book.Desk, _ day.Clock) {
		err = &book.RuleError{Field: "filter", Reason: "This view can never hold anything. " + d.Filter.Explain(b, a)}
	})
	return err
}

// kept is the text of a definition as the Book keeps it.
func kept(as *app.Session, in contract.Definition) (string, error) {
	d, err := define(in)
	if err == nil {
		err = worthSaving(as, d)
	}
	if err != nil {
		return "", err
	}
	text, err := json.Marshal(d)
	return string(text), err
}

// GetDefinition answers with a shipped view as a filter.
func (s *server) GetDefinition(c *gin.Context, name contract.ViewName) {
	d, ok := view.Shipped(view.Name(name))
	if !ok {
		s.fail(c, bad(http.StatusNotFound, "Not there", "This view is no question: it has no filter."))
		return
	}
	var out contract.Defined
	var err error
	s.as(c).Read(func(b *book.Desk, _ day.Clock) { out, err = defined(b, string(name), d, nil) })
	s.json(c, out, err)
}

// json answers with a body, or the problem in its place.
func (s *server) json(c *gin.Context, body any, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, body)
}

// GetOwnView answers with what a saved view asks.
func (s *server) GetOwnView(c *gin.Context, rowID string) {
	id, err := pathID(rowID)
	if err != nil {
		s.fail(c, err)
		return
	}
	var out contract.Defined
	s.as(c).Read(func(b *book.Desk, _ day.Clock) {
		var v *book.View
		if v, err = b.View(id); err != nil {
			return
		}
		var d view.Definition
		if d, err = view.ParseDefinition([]byte(v.Question)); err != nil {
			err = definitionProblem(err)
			return
		}
		row := encodeOwnView(v)
		out, err = defined(b, v.Name, d, &row)
	})
	s.json(c, out, err)
}

func defined(b *book.Desk, name string, d view.Definition, row *contract.OwnView) (contract.Defined, error) {
	out := contract.Defined{Name: name, Sentence: d.Sentence(b), View: row}
	raw, err := json.Marshal(d)
	if err == nil {
		err = json.Unmarshal(raw, &out.Definition)
	}
	return out, err
}

func encodeOwnView(v *book.View) contract.OwnView {
	out := contract.OwnView{Id: v.ID.String(), Revision: v.Revision, Name: v.Name, Icon: contract.ViewIcon(v.Icon), Colour: contract.Colour(v.Colour.String()),
		Pinned: orAbsent(v.Pinned), Counted: orAbsent(v.Counted)}
	out.Shape = orAbsent(string(view.ShapeOf([]byte(v.Question))))
	return out
}

// GetOwnViewRows answers with what a saved view holds.
func (s *server) GetOwnViewRows(c *gin.Context, rowID string, params contract.GetOwnViewRowsParams) {
	s.answerOf(c, rowID, func(id book.ID) view.Subject { return view.Own{ID: id} }, params.Offset, params.Limit)
}

// AddOwnView saves a view.
func (s *server) AddOwnView(c *gin.Context, params contract.AddOwnViewParams) {
	in, raw, err := body[contract.NewOwnView](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.AddView{Name: in.Name, Pinned: isTrue(in.Pinned), Counted: isTrue(in.Counted)}
	if in.Icon != nil {
		cmd.Icon = string(*in.Icon)
	}
	if cmd.Question, err = kept(s.as(c), in.Definition); err == nil {
		cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, params.IdempotencyKey, params.WindowId, raw), cmd, newView)
}

func newView(c *book.Change) book.ID { return c.Views[0].After.ID }

func isTrue(b *bool) bool { return b != nil && *b }

// EditOwnView changes a saved view.
func (s *server) EditOwnView(c *gin.Context, id string, p contract.EditOwnViewParams) {
	editRow(s, c, id, seen{book.ViewRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.OwnViewPatch) (book.Command, error) {
		cmd := book.EditView{ID: id, Name: in.Name, Pinned: in.Pinned, Counted: in.Counted, Icon: (*string)(in.Icon)}
		if in.Definition != nil {
			text, err := kept(s.as(c), *in.Definition)
			if err != nil {
				return nil, err
			}
			cmd.Question = &text
		}
		var err error
		cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour)
		return cmd, err
	})
}

// DeleteOwnView takes a saved view out.
func (s *server) DeleteOwnView(c *gin.Context, id string, p contract.DeleteOwnViewParams) {
	s.removeRow(c, id, seen{book.ViewRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.DeleteView{ID: id} })
}

// MoveOwnView moves a saved view among the others.
func (s *server) MoveOwnView(c *gin.Context, id string, p contract.MoveOwnViewParams) {
	onRowWith(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Beside) (book.Command, error) {
		cmd := book.MoveView{ID: id}
		err := beside(&cmd.After, &cmd.Before, in.After, in.Before)
		return cmd, err
	})
}

// CopyOwnView puts a copy of a saved view behind it.
func (s *server) CopyOwnView(c *gin.Context, rowID string, p contract.CopyOwnViewParams) {
	id, err := pathID(rowID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, p.IdempotencyKey, p.WindowId, nil), book.CopyView{ID: id}, newView)
}
