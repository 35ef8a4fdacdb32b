package httpapi

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"mime"
	"net/http"
	"net/url"
	"slices"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/exchange"
	"tincup/internal/core/view"
	"tincup/internal/formats"
	"tincup/internal/formats/csvfile"
	"tincup/internal/formats/everything"
	"tincup/internal/httpapi/contract"
)

const (
	// maxImportBody is the largest file that comes in, in bytes.
	maxImportBody = 100 << 20
	// maxPreview is how many rows of a preview are sent.
	maxPreview = 1000
	// maxOffered is how many bytes of sentences a preview looks through for what they might mean.
	maxOffered = 64 << 10
)

// incoming is a file that was read.
type incoming struct {
	format  formats.Format
	raw     []byte
	items   []exchange.Item
	refused []exchange.Refusal
	list    book.ID
	// columns are those of a CSV file.
	columns []csvfile.Head
	// rawHead is its first row.
	rawHead string
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
	world := s.as(c).World()
	if params.Instead != nil {
		if world.Instead, err = instead(*params.Instead); err != nil {
			return in, err
		}
	}
	if params.Columns != nil {
		if err := overlay(world.Columns, *params.Columns); err != nil {
			return in, err
		}
	}
	if in.format.Name == "csv" {
		in.columns, in.rawHead, err = csvfile.Heads(in.raw, world)
	}
	if err == nil {
		in.items, in.refused, err = in.format.Read(in.raw, world)
	}
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
	progress, done := s.as(c).StartImport(c.Request.Context(), textOf(params.WindowId), "")
	defer done()
	in, err := s.readFile(c, params)
	if err == nil && in.all != nil {
		if err = s.as(c).LookAtMoving(c.Request.Context(), in.all.Rows); err == nil {
			c.JSON(http.StatusOK, previewOf(in.all))
			return
		}
	}
	var p exchange.Preview
	// Without a column for the title it can be said which is.
	unread := err != nil && len(in.columns) > 0 && !slices.ContainsFunc(in.columns, func(h csvfile.Head) bool { return h.Is == "title" })
	reason := ""
	if unread {
		reason, err = err.Error(), nil
	}
	if err == nil && params.Likes != nil && *params.Likes == contract.LookAtImportParamsLikesLeave {
		in.items = s.as(c).Without(in.items, in.list)
	}
	if err == nil {
		p, err = s.as(c).Look(c.Request.Context(), in.items, in.refused, in.list, progress)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	out := contract.ImportPreview{Format: in.format.Name, New: p.New, Changed: p.Changed, Same: p.Same, Refused: p.Refused, Says: p.Says, ToNotes: orAbsent(p.ToNotes), Like: orAbsent(p.Like), Rows: []contract.ImportRow{}, Reason: orAbsent(reason)}
	if len(in.columns) > 0 {
		out.Columns, out.ColumnNames = encodeColumns(in.columns)
		out.RawHead = orAbsent(in.rawHead)
	}
	if len(p.Passed) > 0 {
		passed := make([]contract.PassedProperty, len(p.Passed))
		for i, one := range p.Passed {
			passed[i] = contract.PassedProperty{Name: one.Name, Count: one.Count}
		}
		out.Passed = &passed
	}
	order := map[exchange.What]int{exchange.Refused: -1}
	slices.SortStableFunc(p.Rows, func(a, b exchange.Row) int { return cmp.Compare(order[a.What], order[b.What]) })
	env := s.as(c).Env()
	offered := 0 // bytes of sentences that were looked through
	for _, row := range p.Rows[:min(len(p.Rows), maxPreview)] {
		told := encodeImportRow(row)
		if offered += len(row.Sentence); row.What == exchange.New && row.Sentence != "" && offered <= maxOffered {
			told.Sentence = &row.Sentence
			told.Offers = new(encodeOffers(row.Sentence, capture.Offers(row.Sentence, env)))
		}
		out.Rows = append(out.Rows, told)
	}
	c.JSON(http.StatusOK, out)
}

func encodeColumns(heads []csvfile.Head) (*[]contract.CSVColumn, *[]string) {
	out := make([]contract.CSVColumn, len(heads))
	for i, h := range heads {
		out[i] = contract.CSVColumn{Head: h.Name, Is: h.Is, Sample: h.Sample, Form: orAbsent(h.Form)}
		if len(h.Forms) > 0 {
			forms := make([]contract.CSVForm, len(h.Forms))
			for n, f := range h.Forms {
				forms[n] = contract.CSVForm{Name: contract.CSVFormName(f.Name), Says: f.Says}
			}
			out[i].Forms = &forms
		}
	}
	names := csvfile.Columns()
	return &out, &names
}

func encodeImportRow(row exchange.Row) contract.ImportRow {
	out := contract.ImportRow{What: contract.ImportRowWhat(row.What), Title: row.Title, Depth: row.Depth,
		Due: orAbsent(row.Due.String()), List: orAbsent(row.List), Reason: orAbsent(row.Reason), Raw: orAbsent(row.Raw), Like: orAbsent(row.Like)}
	if !row.Status.Open() {
		out.Closed = new(contract.ImportRowClosed(row.Status.String()))
	}
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
	// It is finished even if the client goes; only a wish to stop ends it.
	progress, done := s.as(c).StartImport(context.WithoutCancel(c.Request.Context()), textOf(params.WindowId), textOf(params.IdempotencyKey))
	defer done()
	in, err := s.readFile(c, contract.LookAtImportParams{Name: params.Name, Format: params.Format, List: params.List, Columns: params.Columns, Instead: params.Instead})
	if err == nil && in.all == nil && len(in.items) == 0 {
		err = &book.RuleError{Field: "file", Reason: "There is no to-do in the file that can be brought in."}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	if err := progress.Stopped(); err != nil {
		s.fail(c, err)
		return
	}
	asked := in.list.String() + "\n"
	if params.Likes != nil {
		asked += string(*params.Likes) + "\n"
	}
	for _, said := range []*string{params.Columns, params.Instead} {
		if said != nil {
			asked += *said + "\n"
		}
	}
	req := request(c, params.IdempotencyKey, params.WindowId, append([]byte(asked), in.raw...))
	if in.all != nil {
		reply, err := s.as(c).MoveIn(c.Request.Context(), req, in.all.Rows, in.all, turned, progress)
		s.reply(c, reply, fileProblem(err))
		return
	}
	if params.Columns != nil && in.columns != nil {
		if err := s.remember(c, *params.Columns); err != nil {
			s.fail(c, err)
			return
		}
	}
	// A retry, for which all of them are there by now, is answered by its key before they are looked at.
	if params.Likes != nil && *params.Likes == contract.ImportFileParamsLikesLeave {
		in.items = s.as(c).Without(in.items, in.list)
	}
	reply, err := s.as(c).BringIn(c.Request.Context(), req, in.items, in.list, turned, progress)
	s.reply(c, reply, err)
}

// ImportProgress answers with how far the file has got that the window brings in.
func (s *server) ImportProgress(c *gin.Context, params contract.ImportProgressParams) {
	is, under := s.as(c).ImportProgress(textOf(params.WindowId))
	if !under {
		c.Status(http.StatusNoContent)
		return
	}
	c.JSON(http.StatusOK, contract.ImportProgress{Stage: contract.ImportProgressStage(is.Stage), Done: is.Done, Total: is.Total})
}

// StopImport ends what the window brings in.
func (s *server) StopImport(c *gin.Context, params contract.StopImportParams) {
	if err := s.as(c).StopImport(c.Request.Context(), textOf(params.WindowId), textOf(params.IdempotencyKey)); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// textOf is a text that may be absent; "" where it is.
func textOf(text *string) string {
	if text == nil {
		return ""
	}
	return *text
}

// remember keeps what columns of CSV files are. It comes before what is brought in, which is undone
// first.
func (s *server) remember(c *gin.Context, query string) error {
	columns := s.as(c).World().Columns
	if err := overlay(columns, query); err != nil {
		return err
	}
	named := url.Values{}
	for head, is := range columns {
		named.Set(head, is)
	}
	cmd := book.Choose{Values: map[string]string{"csvColumns": named.Encode()}}
	_, err := s.as(c).Run(c.Request.Context(), request(c, nil, nil, nil), cmd, nil)
	return err
}

// ExportTodos answers with a file.
func (s *server) ExportTodos(c *gin.Context, params contract.ExportTodosParams) {
	what, name, err := s.exported(c, params)
	format := contract.FileFormatName("ics")
	if params.Format != nil {
		format = *params.Format
	}
	s.export(c, format, what, name, err)
}

// ExportChosen answers with a file of some to-dos.
func (s *server) ExportChosen(c *gin.Context) {
	in, _, err := body[contract.ExportChosenJSONBody](c)
	var what app.What
	for _, text := range in.Ids {
		id, wrong := read[book.ID]("ids", text)
		err = cmp.Or(err, wrong)
		what.Some = append(what.Some, id)
	}
	s.export(c, in.Format, what, "Chosen", err)
}

// export answers with to-dos as a file, unless something was wrong with what is asked.
func (s *server) export(c *gin.Context, as contract.FileFormatName, what app.What, name string, err error) {
	format, known := formats.Named(string(as))
	if err == nil && !known {
		err = &book.RuleError{Field: "format", Reason: fmt.Sprintf("There are the formats %s.", formats.Names())}
	}
	var items []exchange.Item
	if err == nil {
		items, err = s.as(c).Take(c.Request.Context(), what)
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
