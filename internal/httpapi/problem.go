package httpapi

import (
	"encoding/json"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/term"
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
	// blocked is the revision of a change that cannot be undone; 0 for none.
	blocked int64
}

func (p *problem) Error() string { return p.detail }

func bad(status int, title, detail string) *problem {
	return &problem{status: status, title: title, detail: detail}
}

// fail answers with the problem an error stands for.
func (s *server) fail(c *gin.Context, err error) {
	p := problemOf(err)
	if gone := c.Request.Context().Err() != nil; p.status >= http.StatusInternalServerError && !gone {
		s.log.Error("request failed", "path", c.FullPath(), "error", err)
	}
	body := problemBody{Problem: contract.Problem{Type: "about:blank", Title: p.title, Status: p.status, Detail: p.detail}}
	if p.field != "" {
		body.Field = &p.field
	}
	body.Blocked = orAbsent(p.blocked)
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

// statusOf is the status of each class of errors.
var statusOf = map[term.Class]int{
	term.Unclassed: http.StatusInternalServerError, term.NotFound: http.StatusNotFound, term.Refused: http.StatusUnprocessableEntity,
	term.Forbidden: http.StatusForbidden, term.Conflict: http.StatusConflict, term.Stale: http.StatusPreconditionFailed,
	term.Incomplete: http.StatusBadRequest, term.TooLarge: http.StatusRequestEntityTooLarge,
	term.NoSpace: http.StatusInsufficientStorage, term.Unavailable: http.StatusServiceUnavailable,
}

// titles are what problems of a class are called where nothing more is known of them.
var titles = map[term.Class]string{
	term.NotFound: "Not there", term.Refused: "A field is wrong", term.Forbidden: "Another person's", term.Conflict: "Not in this state",
	term.Incomplete: "Not the whole of it", term.TooLarge: "Too large", term.NoSpace: "The disk is full", term.Unavailable: "Not now",
}

// telling is how a failure whose text is for programs is put to people.
type telling struct {
	err           error
	title, detail string
}

var tellings = []telling{
	{store.ErrNothing, "Nothing to turn round", "There is nothing to undo or redo here."},
	{app.ErrRunning, "Still running", "A request with this Idempotency-Key is still running. Try again in a moment."},
	{app.ErrReused, "Key used before", "This Idempotency-Key was used with another request. Use a new key for a new request."},
	{store.ErrFull, "The disk is full", "The disk with the data file is full. Free some space and try again."},
	{store.ErrReadOnly, "The data file is read-only", "The data file cannot be written to. Make it writable and try again."},
	{store.ErrGone, "The data file is gone",
		"The data file was removed, replaced or cut short while it was open. Put it back and start Tin Cup again; until then nothing can be changed."},
	{store.ErrAltered, "The file was altered",
		"The bytes of this file are no longer those that were attached, so it is not handed out. Attach it again, or put a copy back."},
	{store.ErrComing, "Not the whole file", "The file stopped coming before its end and was not kept. Send it again."},
	{store.ErrBroken, "The data file does not answer", "The data file cannot be read or written just now."},
}

// problemOf gives every error its status, by its class. What has none is ours: 500, with
// nothing of its text.
func problemOf(err error) *problem {
	var (
		known    *problem
		rule     *book.RuleError
		missing  *book.NotFoundError
		conflict *book.ConflictError
		tooMuch  *http.MaxBytesError
	)
	if errors.As(err, &known) {
		return known
	}
	if errors.As(err, &tooMuch) {
		return tooLarge(tooMuch.Limit)
	}
	class := term.ClassOf(err)
	if class == term.Unclassed {
		return bad(http.StatusInternalServerError, "Something is wrong in Tin Cup",
			"The request was not carried out because of a fault in the program. The log has the details.")
	}
	p := &problem{status: statusOf[class], title: titles[class], detail: upperFirst(err.Error())}
	switch {
	case errors.As(err, &rule):
		p.detail, p.field = rule.Reason, rule.Field
	case errors.As(err, &missing):
		p.detail = missing.Error()
	case errors.Is(err, book.ErrNotFound):
		p.detail = "There is no such file any more."
	case errors.As(err, &conflict):
		p.title, p.detail = "Changed since", conflict.Error()
	case errors.As(err, &p.stale):
		p.title = "Changed since it was read"
		p.detail = "This " + string(p.stale.Kind) + " has changed since it was read. Look at what is there now and send the change again."
	case errors.Is(err, store.ErrFolder):
		p.title, p.detail = "No folder for files", "The file was not kept: "+err.Error()+". Give it another name and try again."
	default:
		for _, t := range tellings {
			if errors.Is(err, t.err) {
				p.title, p.detail = t.title, t.detail
				break
			}
		}
		if errors.Is(err, store.ErrNotKept) {
			p.detail = "The change was not kept: " + lowerFirst(p.detail)
		}
	}
	if blocked := (*app.BlockedError)(nil); errors.As(err, &blocked) {
		p.blocked, p.detail = blocked.Revision, blocked.Error()
	}
	return p
}
