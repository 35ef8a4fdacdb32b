// Package calendar is a small simulated service of calendars: it serves them as RFC 5545
// over HTTP, with validators (RFC 9110 section 8.8), and changes them on request. The demo
// and the tests use it in place of a real one.
//
//	GET    /NAME.ics          the calendar
//	PUT    /NAME/UID          puts an event in, or in the place of the one with that UID: JSON
//	                          {title, start, end, rule, free}; start and end are wall times such
//	                          as 2026-11-26T14:00, or dates
//	DELETE /NAME/UID          takes it out
//	PUT    /NAME/fault        lets the calendar fail: text, one of Faults; empty mends it
package calendar

import (
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-ical"
)

// Event is one of a calendar. Start and End are wall times such as 2026-11-26T14:00 in the
// service's zone, or dates.
type Event struct {
	UID   string `json:"-"`
	Title string `json:"title"`
	Start string `json:"start"`
	End   string `json:"end"`
	// Rule is an RRULE; "" for once.
	Rule string `json:"rule"`
	// Free: it takes no time.
	Free bool `json:"free"`
}

// Service serves calendars. It is safe for concurrent use.
type Service struct {
	zone *time.Location
	now  func() time.Time

	mu        sync.Mutex
	calendars map[string]*served
}

type served struct {
	title  string
	events []Event
	fault  string
}

// New makes a service whose wall times are of a zone.
func New(zone *time.Location, now func() time.Time) *Service {
	return &Service{zone: zone, now: now, calendars: map[string]*served{}}
}

// Put sets a calendar's title and events.
func (s *Service) Put(name, title string, events ...Event) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.calendars[name] = &served{title: title, events: events}
}

// ServeHTTP implements http.Handler.
func (s *Service) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	path := strings.TrimPrefix(r.URL.Path, "/")
	name, uid, deep := strings.Cut(path, "/")
	s.mu.Lock()
	c := s.calendars[strings.TrimSuffix(name, ".ics")]
	var fault string
	if c != nil {
		fault = c.fault
	}
	s.mu.Unlock()
	if c == nil {
		http.Error(w, "There is no such calendar.", http.StatusNotFound)
		return
	}
	switch {
	case r.Method == http.MethodGet && !deep && fault != "":
		fail(w, r, fault, func() bool {
			s.mu.Lock()
			defer s.mu.Unlock()
			return c.fault == fault
		})
	case r.Method == http.MethodGet && !deep:
		s.serve(w, r, c)
	case r.Method == http.MethodPut && uid == "fault":
		text, err := io.ReadAll(io.LimitReader(r.Body, 100))
		if err != nil || len(text) > 0 && !slices.Contains(Faults, string(text)) {
			http.Error(w, "One of "+strings.Join(Faults, ", ")+" is wanted, or nothing.", http.StatusBadRequest)
			return
		}
		s.mu.Lock()
		c.fault = string(text)
		s.mu.Unlock()
	case r.Method == http.MethodPut && deep:
		e := Event{UID: uid}
		err := json.NewDecoder(io.LimitReader(r.Body, 1<<16)).Decode(&e)
		if err == nil {
			_, err = s.component(e)
		}
		if err != nil {
			http.Error(w, err.Error(), http.StatusBadRequest)
			return
		}
		s.change(c, uid, &e)
	case r.Method == http.MethodDelete && deep:
		s.change(c, uid, nil)
	default:
		http.Error(w, "GET a calendar, PUT or DELETE an event.", http.StatusMethodNotAllowed)
	}
}

// change puts an event in the place of the one with the UID, or takes that out.
func (s *Service) change(c *served, uid string, e *Event) {
	s.mu.Lock()
	defer s.mu.Unlock()
	c.events = slices.DeleteFunc(slices.Clone(c.events), func(old Event) bool { return old.UID == uid })
	if e != nil {
		c.events = append(c.events, *e)
	}
}

func (s *Service) serve(w http.ResponseWriter, r *http.Request, c *served) {
	s.mu.Lock()
	title, events := c.title, slices.Clone(c.events)
	s.mu.Unlock()
	text, err := s.text(title, events)
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	w.Header().Set("Content-Type", "text/calendar; charset=utf-8")
	w.Header().Set("ETag", fmt.Sprintf(`"%x"`, sha256.Sum256(text))[:20]+`"`)
	http.ServeContent(w, r, "", time.Time{}, bytes.NewReader(text))
}

// text writes a calendar.
func (s *Service) text(title string, events []Event) ([]byte, error) {
	out := ical.NewCalendar()
	out.Props.SetText(ical.PropVersion, "2.0")
	out.Props.SetText(ical.PropProductID, "-//Tin Cup//Simulated calendar//EN")
	out.Props.SetText("NAME", title)
	for _, e := range events {
		c, err := s.component(e)
		if err != nil {
			return nil, err
		}
		out.Children = append(out.Children, c)
	}
	if len(out.Children) == 0 { // the encoder wants one
		return []byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Tin Cup//Simulated calendar//EN\r\nEND:VCALENDAR\r\n"), nil
	}
	var text bytes.Buffer
	err := ical.NewEncoder(&text).Encode(out)
	return text.Bytes(), err
}

func (s *Service) component(e Event) (*ical.Component, error) {
	c := ical.NewEvent()
	c.Props.SetText(ical.PropUID, e.UID)
	c.Props.SetText(ical.PropSummary, e.Title)
	c.Props.SetDateTime(ical.PropDateTimeStamp, s.now().UTC().Truncate(time.Minute))
	for name, text := range map[string]string{ical.PropDateTimeStart: e.Start, ical.PropDateTimeEnd: e.End} {
		if t, err := time.ParseInLocation(time.DateOnly, text, s.zone); err == nil {
			c.Props.SetDate(name, t)
		} else if t, err := time.ParseInLocation("2006-01-02T15:04", text, s.zone); err == nil {
			c.Props.SetDateTime(name, t)
		} else if text != "" || name == ical.PropDateTimeStart {
			return nil, fmt.Errorf("“%.40s” is neither a date nor a wall time such as 2026-11-26T14:00", text)
		}
	}
	if e.Title == "" {
		return nil, errors.New("an event has a title")
	}
	if e.Rule != "" {
		rule := ical.NewProp(ical.PropRecurrenceRule)
		rule.Value = e.Rule
		c.Props.Set(rule)
	}
	if e.Free {
		c.Props.SetText(ical.PropTransparency, "TRANSPARENT")
	}
	return c.Component, nil
}
