package httpapi

import (
	"mime"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
)

// maxFileBody leaves the largest file through; what is larger is told so by
// the sentence of the rule.
const maxFileBody = book.MaxAttachment + 1

// AttachFile keeps a file and adds it to a to-do.
func (s *server) AttachFile(c *gin.Context, todoID string, params contract.AttachFileParams) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	req := request(c, params.IdempotencyKey, params.WindowId, []byte(params.Name))
	reply, err := s.as(c).AttachFile(c.Request.Context(), req, id, params.Name, c.Request.Body, s.todoReply(c, http.StatusCreated))
	s.reply(c, reply, err)
}

// KeepFile keeps the bytes of a file that a to-do is about to have.
func (s *server) KeepFile(c *gin.Context, params contract.KeepFileParams) {
	file, err := s.as(c).KeepFile(params.Name, c.Request.Body)
	if err == nil && file.Size == 0 {
		err = &book.RuleError{Field: "file", Reason: "“" + file.Name + "” is empty. A file has at least one byte."}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, encodeFile(file))
}

// DetachFile takes a file away.
func (s *server) DetachFile(c *gin.Context, todoID, hash string, params contract.DetachFileParams) {
	s.onTodo(c, todoID, nil, params.WindowId, func(id book.ID) book.Command { return book.Detach{ID: id, Hash: hash} })
}

// GetAttachment answers with a file's bytes. Only pictures are shown, as what
// their bytes are; all else is handed over to be saved, as bytes, so that
// nothing in it runs as part of the page.
func (s *server) GetAttachment(c *gin.Context, todoID, hash string) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	file, bytes, err := s.as(c).OpenAttachment(id, hash)
	if err != nil {
		s.fail(c, err)
		return
	}
	defer bytes.Close()
	disposition, kind := "attachment", "application/octet-stream"
	if app.Pictures[file.Type] {
		disposition, kind = "inline", file.Type
	}
	h := c.Writer.Header()
	h.Set("Content-Type", kind)
	h.Set("Content-Disposition", mime.FormatMediaType(disposition, map[string]string{"filename": file.Name}))
	h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'; sandbox")
	h.Set("Cache-Control", "private, max-age=31536000, immutable")
	http.ServeContent(c.Writer, c.Request, "", time.Time{}, bytes)
}
