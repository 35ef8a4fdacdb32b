package httpapi

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
)

// heartbeat is how often a quiet stream shows that it is alive.
const heartbeat = 10 * time.Second

// told is the data of one event.
type told struct {
	Revision int64     `json:"revision"`
	Today    string    `json:"today"`
	Now      string    `json:"now"`
	Todos    []book.ID `json:"todos,omitempty"`
	Places   bool      `json:"places,omitempty"`
	Rings    bool      `json:"rings,omitempty"`
}

// GetEvents streams what changes (HTML Living Standard, server-sent events).
func (s *server) GetEvents(c *gin.Context, params contract.GetEventsParams) {
	since := int64(-1)
	if params.Since != nil {
		since = *params.Since
	}
	if params.LastEventID != nil {
		if n, err := strconv.ParseInt(*params.LastEventID, 10, 64); err == nil && n >= 0 {
			since = n
		}
	}
	if headOnly(c.Request) { // a stream would not end
		c.Header("Content-Type", "text/event-stream")
		c.Header("Cache-Control", "no-store")
		c.Status(http.StatusOK)
		return
	}
	as := s.as(c)
	missed, coming, cancel, err := as.Subscribe(c.Request.Context(), since)
	if err != nil {
		s.fail(c, err)
		return
	}
	defer cancel()
	out := &stream{c: c, control: http.NewResponseController(c.Writer)}
	c.Header("Content-Type", "text/event-stream")
	c.Header("Cache-Control", "no-store")
	out.write("retry: 500\n\n") // milliseconds until a broken stream is opened again
	out.send("hello", app.Event{Revision: as.Revision()}, as)
	for _, e := range missed {
		out.send(string(e.Kind), e, as)
	}
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for out.err == nil {
		select {
		case <-c.Request.Context().Done():
			return
		case e, open := <-coming:
			if !open {
				return
			}
			out.send(string(e.Kind), e, as)
		case <-beat.C:
			out.send("beat", app.Event{Revision: as.Revision()}, as)
		}
	}
}

// stream writes events until the client has gone.
type stream struct {
	c       *gin.Context
	control *http.ResponseController
	err     error
}

func (o *stream) send(name string, e app.Event, a *app.Session) {
	clock := a.Clock()
	data, err := json.Marshal(told{Revision: e.Revision, Today: clock.Today().String(), Now: clock.Wall().String(),
		Todos: e.Todos, Places: e.Arranged, Rings: e.Rings})
	if err != nil {
		o.err = err
		return
	}
	id := ""
	if e.Kind == app.Changed || e.Kind == app.Reset {
		id = fmt.Sprintf("id: %d\n", e.Revision)
	}
	o.write(fmt.Sprintf("event: %s\n%sdata: %s\n\n", name, id, data))
}

func (o *stream) write(text string) {
	if o.err == nil {
		o.err = o.control.SetWriteDeadline(time.Now().Add(2 * heartbeat))
	}
	if o.err == nil {
		_, o.err = o.c.Writer.WriteString(text)
	}
	if o.err == nil {
		o.err = o.control.Flush()
	}
}
