package httpapi

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"mime"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/core/view"
	"tincup/internal/formats"
	"tincup/internal/formats/everything"
	"tincup/internal/httpapi/contract"
)

const (
	// maxImportBody is the largest file that comes in, in bytes.
	maxImportBody = 100 << 20
	// maxPreview is how many rows of a preview are sent.
	maxPreview = 1000
)

// incoming is a file that was read.
type incoming struct {
	format  formats.Format
	raw     []byte
	items   []exchange.Item
	refused []exchange.Refusal
	list    book.ID
	// all is set of a ZIP of everything, which has no items.
	all *everything.Archive
}

// readFile reads the file that a request brings.
func (s *server) readFile(c *gin.Context, params contract.LookAtImportParams) (in incoming, err error) {
	if in.raw, err = io.ReadAll(c.Request.Body); err != nil {
		return in, err
	}
	if everything.Is(in.raw) {
		in.all, err = archive(in.raw)
		return in, err
	}
	name := ""
	if params.Name != nil {
		name = *params.Name
	}
	known := false
	if params.Format != nil {
		in.format, known = formats.Named(string(*params.Format))
	} else {
		in.format, known = formats.Guess(name, in.raw)
	}
	if !known {
		return in, &book.RuleError{Field: "file", Reason: fmt.Sprintf("“%.100s” is of no format that is known here: %s are.", name, formats.Names())}
	}
	if params.List != nil && *params.List != "" {
		if in.list, err = read[book.ID]("list", *params.List); err != nil {
			return in, err
		}
	}
	in.items, in.refused, err = in.format.Read(in.raw, s.as(c).World())
	return in, fileProblem(err)
}

// fileProblem is what is wrong with a file, with where.
func fileProblem(err error) error {
	var wrong *exchange.Error
	if !errors.As(err, &wrong) {
		return err
	}
	reason := wrong.Reason
	if wrong.Line > 0 {
		reason = fmt.Sprintf("Line %d: %s", wrong.Line, reason)
	}
	return &book.RuleError{Field: "file", Reason: reason}
}

// LookAtImport answers with what would become of a file.
func (s *server) LookAtImport(c *gin.Context, params contract.LookAtImportParams) {
	in, err := s.readFile(c, params)
	if err == nil && in.all != nil {
		if err = s.as(c).LookAtMoving(in.all.Rows); err == nil {
			c.JSON(http.StatusOK, previewOf(in.all))
			return
		}
	}
	var p exchange.Preview
	if err == nil {
		p, err = s.as(c).Look(in.items, in.refused, in.list)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	out := contract.ImportPreview{Format: in.format.Name, New: p.New, Changed: p.Changed, Same: p.Same, Refused: p.Refused, Says: p.Says, Rows: []contract.ImportRow{}}
	order := map[exchange.What]int{exchange.Refused: -1}
	slices.SortStableFunc(p.Rows, func(a, b exchange.Row) int { return cmp.Compare(order[a.What], order[b.What]) })
	for _, row := range p.Rows[:min(len(p.Rows), maxPreview)] {
		out.Rows = append(out.Rows, encodeImportRow(row))
	}
	c.JSON(http.StatusOK, out)
}

func encodeImportRow(row exchange.Row) contract.ImportRow {
	out := contract.ImportRow{What: contract.ImportRowWhat(row.What), Title: row.Title, Depth: row.Depth,
		Due: orAbsent(row.Due.String()), List: orAbsent(row.List), Reason: orAbsent(row.Reason)}
	if row.Line > 0 {
		out.Line = &row.Line
	}
	if row.Column > 0 {
		out.Column = &row.Column
	}
	if len(row.Remarks) > 0 {
		out.Remarks = &row.Remarks
	}
	if len(row.Fields) > 0 {
		fields := make([]contract.FieldChange, len(row.Fields))
		for i, f := range row.Fields {
			fields[i] = contract.FieldChange{Field: f.Field, Was: orAbsent(f.Was), Is: orAbsent(f.Is)}
		}
		out.Fields = &fields
	}
	return out
}

// ImportFile brings a file in.
func (s *server) ImportFile(c *gin.Context, params contract.ImportFileParams) {
	in, err := s.readFile(c, contract.LookAtImportParams(params))
	if err == nil && in.all == nil && len(in.items) == 0 {
		err = &book.RuleError{Field: "file", Reason: "There is no to-do in the file that can be brought in."}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	req := request(c, params.IdempotencyKey, params.WindowId, append([]byte(in.list.String()+"\n"), in.raw...))
	if in.all != nil {
		reply, err := s.as(c).MoveIn(c.Request.Context(), req, in.all.Rows, in.all, turned)
		s.reply(c, reply, fileProblem(err))
		return
	}
	reply, err := s.as(c).BringIn(c.Request.Context(), req, in.items, in.list, turned)
	s.reply(c, reply, err)
}

// ExportTodos answers with a file.
func (s *server) ExportTodos(c *gin.Context, params contract.ExportTodosParams) {
	what, name, err := s.exported(c, params)
	format, known := formats.Named("ics")
	if params.Format != nil {
		format, known = formats.Named(string(*params.Format))
	}
	if err == nil && !known {
		err = &book.RuleError{Field: "format", Reason: fmt.Sprintf("There are the formats %s.", formats.Names())}
	}
	var items []exchange.Item
	if err == nil {
		items, err = s.as(c).Take(what)
	}
	var text []byte
	if err == nil {
		world := s.as(c).World()
		world.Name = name
		text, err = format.Write(items, world)
	}
	if err != nil {
		s.fail(c, definitionProblem(err))
		return
	}
	c.Header("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": name + format.Ending}))
	c.Data(http.StatusOK, format.Type+"; charset=utf-8", text)
}

// exported reads which to-dos are wanted, and what they are called.
func (s *server) exported(c *gin.Context, params contract.ExportTodosParams) (what app.What, name string, err error) {
	name = "Tin Cup"
	if params.List == nil && params.View == nil && params.Own == nil {
		return what, name, nil
	}
	if err := readQuery(c, &what.Query); err != nil {
		return what, name, err
	}
	var id book.ID
	switch {
	case params.View != nil:
		what.View = view.Name(*params.View)
		return what, string(*params.View), nil
	case params.Own != nil:
		id, err = read[book.ID]("own", *params.Own)
		what.View = view.Own{ID: id}
		name = "View"
	case *params.List == "cup":
		what.InList = true
		return what, "The Cup", nil
	default:
		id, err = read[book.ID]("list", *params.List)
		what.InList, what.List = true, id
		if !what.Query.Narrow.IsZero() {
			what.View = view.InList{ID: id}
		}
	}
	if err != nil {
		return what, name, err
	}
	return what, s.as(c).NameOf(id, name), nil
}
