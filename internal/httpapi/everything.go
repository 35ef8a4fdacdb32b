package httpapi

import (
	"bytes"
	"context"
	"io"
	"mime"
	"net/http"
	"os"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/formats/everything"
	"tincup/internal/httpapi/contract"
)

// WriteEverything writes all that an account has as a ZIP.
func WriteEverything(ctx context.Context, s *app.Session, out io.Writer) error {
	all, err := s.Everything(ctx)
	if err != nil {
		return err
	}
	said := make([]everything.Sentence, len(all.Done))
	for i, done := range all.Done {
		said[i] = everything.Sentence{At: done.At.Time(), Says: done.Says}
	}
	return everything.Write(ctx, out, everything.Contents{Made: all.World.Now, Rows: all.Rows, Items: all.Items, World: all.World,
		Said: said, Open: s.OpenKept, Calendars: all.Calendars})
}

// ExportEverything answers with all that the account has. It is written whole before it is sent.
func (s *server) ExportEverything(c *gin.Context) {
	session := s.as(c)
	whole, err := os.CreateTemp("", "tincup-*.zip")
	if err != nil {
		s.fail(c, err)
		return
	}
	defer os.Remove(whole.Name())
	defer whole.Close()
	var size int64
	if err = WriteEverything(c.Request.Context(), session, whole); err == nil {
		size, err = whole.Seek(0, io.SeekCurrent)
	}
	if err == nil {
		_, err = whole.Seek(0, io.SeekStart)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	name := "Tin Cup " + session.World().Now.Format("2006-01-02") + ".zip"
	c.DataFromReader(http.StatusOK, size, "application/zip", whole,
		map[string]string{"Content-Disposition": mime.FormatMediaType("attachment", map[string]string{"filename": name})})
}

// previewOf is what moving in would bring.
func previewOf(a *everything.Archive) contract.ImportPreview {
	out := contract.ImportPreview{Format: "everything", New: len(a.Rows.Todos), Rows: []contract.ImportRow{}}
	for _, count := range a.Counts() {
		out.Rows = append(out.Rows, contract.ImportRow{What: contract.ImportRowWhat("new"), Title: count})
	}
	return out
}

// archive reads a body that is a ZIP.
func archive(raw []byte) (*everything.Archive, error) {
	a, err := everything.Read(bytes.NewReader(raw), int64(len(raw)))
	return a, fileProblem(err)
}
