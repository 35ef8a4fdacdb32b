package httpapi

import (
	"encoding/json"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// problem is an answer other than the one asked for (RFC 9457).
type problem struct {
	status int
	title  string
	detail string
	field  string
	stale  *app.StaleError
}

func (p *problem) Error() string { return p.detail }

func bad(status int, title, detail string) *problem {
	return &problem{status: status, title: title, detail: detail}
}

// fail answers with the problem an error stands for.
func (s *server) fail(c *gin.Context, err error) {
	p := problemOf(err)
	if p.status >= http.StatusInternalServerError {
		s.log.Error("request failed", "path", c.FullPath(), "error", err)
	}
	body := problemBody{Problem: contract.Problem{Type: "about:blank", Title: p.title, Status: p.status, Detail: p.detail}}
	if p.field != "" {
		body.Field = &p.field
	}
	if p.stale != nil {
		s.describeStale(c, p.stale, &body)
	}
	c.Abort()
	c.Header("Content-Type", "application/problem+json")
	c.Status(p.status)
	// A client that has gone away cannot be told.
	_ = json.NewEncoder(c.Writer).Encode(body)
}

// problemBody is a contract.Problem whose to-do is written already.
type problemBody struct {
	contract.Problem
	Current json.RawMessage `json:"current,omitempty"`
}

func (s *server) describeStale(c *gin.Context, stale *app.StaleError, body *problemBody) {
	etag := etagOf(stale.Revision)
	c.Header("ETag", etag)
	body.Etag, body.Changed = &etag, &stale.Changed
	s.as(c).Read(func(b *book.Desk, _ clockNow) {
		if t, err := b.Todo(stale.ID); err == nil {
			body.Current = todoJSON(tagsOf(b), t, func(w *writer) { w.string("notes", stale.Note) })
			return
		}
		body.CurrentRow = rowState(b, stale.Kind, stale.ID)
	})
}

// problemOf gives every error its status. What is not known here is ours: 500,
// with nothing of its text.
func problemOf(err error) *problem {
	var (
		known    *problem
		rule     *book.RuleError
		missing  *book.NotFoundError
		conflict *book.ConflictError
		stale    *app.StaleError
		tooMuch  *http.MaxBytesError
	)
	switch {
	case errors.As(err, &known):
		return known
	case errors.As(err, &rule) && rule.Field == "id":
		return &problem{status: http.StatusConflict, title: "Not in this state", detail: rule.Reason, field: rule.Field}
	case errors.As(err, &rule):
		return &problem{status: http.StatusUnprocessableEntity, title: "A field is wrong", detail: rule.Reason, field: rule.Field}
	case errors.As(err, &missing):
		return bad(http.StatusNotFound, "Not there", missing.Error())
	case errors.Is(err, book.ErrNotFound):
		return bad(http.StatusNotFound, "Not there", "There is no such file any more.")
	case errors.Is(err, book.ErrNotYours):
		return bad(http.StatusForbidden, "Another person's", err.Error())
	case errors.As(err, &conflict):
		return bad(http.StatusConflict, "Changed since", conflict.Error())
	case errors.As(err, &stale):
		return &problem{status: http.StatusPreconditionFailed, title: "Changed since it was read", stale: stale,
			detail: "This " + string(stale.Kind) + " has changed since it was read. Look at what is there now and send the change again."}
	case errors.As(err, &tooMuch):
		return tooLarge(tooMuch.Limit)
	case errors.Is(err, store.ErrNothing):
		return bad(http.StatusConflict, "Nothing to turn round", "There is nothing to undo or redo here.")
	case errors.Is(err, app.ErrRunning):
		return bad(http.StatusConflict, "Still running", "A request with this Idempotency-Key is still running. Try again in a moment.")
	case errors.Is(err, app.ErrReused):
		return bad(http.StatusUnprocessableEntity, "Key used before",
			"This Idempotency-Key was used with another request. Use a new key for a new request.")
	case errors.Is(err, store.ErrFull):
		return bad(http.StatusInsufficientStorage, "The disk is full",
			"The change was not kept: the disk with the data file is full. Free some space and try again.")
	case errors.Is(err, store.ErrReadOnly):
		return bad(http.StatusServiceUnavailable, "The data file is read-only",
			"The change was not kept: the data file cannot be written to. Make it writable and try again.")
	case errors.Is(err, store.ErrGone):
		return bad(http.StatusServiceUnavailable, "The data file is gone",
			"The change was not kept: the data file was removed, replaced or cut short while it was open. Put it back and start Tin Cup again; until then nothing can be changed.")
	case errors.Is(err, store.ErrFolder):
		return bad(http.StatusServiceUnavailable, "No folder for files",
			"The file was not kept: "+err.Error()+". Give it another name and try again.")
	case errors.Is(err, store.ErrAltered):
		return bad(http.StatusConflict, "The file was altered",
			"The bytes of this file are no longer those that were attached, so it is not handed out. Attach it again, or put a copy back.")
	case errors.Is(err, store.ErrComing):
		return bad(http.StatusBadRequest, "Not the whole file", "The file stopped coming before its end and was not kept. Send it again.")
	case errors.Is(err, store.ErrBroken):
		return bad(http.StatusServiceUnavailable, "The data file does not answer",
			"The change was not kept: the data file cannot be read or written just now.")
	}
	return bad(http.StatusInternalServerError, "Something is wrong in Tin Cup",
		"The request was not carried out because of a fault in the program. The log has the details.")
}
