package httpapi

import (
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// request collects what comes with a command besides the command.
func request(c *gin.Context, key, window *string, body []byte) app.Request {
	req := app.Request{Window: textOf(window)}
	if key != nil {
		req.Key = *key
		sum := sha256.New()
		io.WriteString(sum, c.Request.Method+" "+c.Request.URL.Path+"\n")
		sum.Write(body)
		req.Fingerprint = sum.Sum(nil)
	}
	return req
}

// body reads the JSON body, which the contract has been checked against.
func body[T any](c *gin.Context) (v T, raw []byte, err error) {
	raw, err = io.ReadAll(c.Request.Body)
	if err != nil {
		return v, nil, err
	}
	if len(bytes.TrimSpace(raw)) == 0 {
		return v, raw, nil
	}
	if err := json.Unmarshal(raw, &v); err != nil {
		return v, raw, bad(http.StatusBadRequest, "Not valid JSON", "The body is not the JSON this address takes: "+firstLine(err)+".")
	}
	return v, raw, nil
}

// run carries a command out and answers with the to-do after it.
func (s *server) run(c *gin.Context, req app.Request, status int, cmd book.Command) {
	reply, err := s.as(c).Run(c.Request.Context(), req, cmd, s.todoReply(c, status))
	s.reply(c, reply, err)
}

// reply sends an answer, or the problem in its place.
func (s *server) reply(c *gin.Context, r *store.Reply, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	if r.ETag != "" {
		c.Header("ETag", r.ETag)
	}
	if r.Location != "" {
		c.Header("Location", r.Location)
	}
	c.Data(r.Status, "application/json; charset=utf-8", r.Body)
}

// todoReply writes the to-do a command was about.
func (s *server) todoReply(c *gin.Context, status int) app.Responder {
	return func(o *app.Outcome) (*store.Reply, error) {
		t := o.Change.Todo()
		if t == nil { // nothing to do: it is as it was
			id, err := pathID(c.Param("id"))
			if err != nil {
				return nil, err
			}
			if t, err = o.Desk.Todo(id); err != nil {
				return nil, err
			}
		}
		note, err := o.Note(t)
		if err != nil {
			return nil, err
		}
		reply := &store.Reply{Status: status, ETag: etagOf(t.Revision)}
		if status == http.StatusCreated {
			reply.Location = "/api/todos/" + t.ID.String()
		}
		reply.Body = todoJSON(func(id book.ID) string { return tagName(o, id) }, t, func(w *writer) {
			w.string("notes", note)
			w.any("change", encodeChange(o.Change))
			if p := o.Desk.Project(o.Change); p != nil {
				w.any("project", contract.Project{Id: p.ID.String(), Title: p.Title, Done: p.Done, Total: p.Total, Percent: p.Percent(), Finished: p.Finished})
			}
		})
		return reply, nil
	}
}

// tagName is the name of a tag, also of one that the change makes.
func tagName(o *app.Outcome, id book.ID) string {
	for _, d := range o.Change.Tags {
		if d.After != nil && d.After.ID == id {
			return d.After.Name
		}
	}
	if tag, err := o.Desk.Tag(id); err == nil {
		return tag.Name
	}
	return ""
}
