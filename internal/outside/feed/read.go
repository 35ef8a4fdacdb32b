package feed

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"github.com/emersion/go-ical"

	"tincup/internal/app"
	"tincup/internal/core/plan"
)

// MaxEvents is how many events a calendar may define.
const MaxEvents = 20_000

// Read implements app.Calendars: it reads a calendar and returns its events, in order, that
// lie at least in part within the window, repeated ones each time. Where it returns an
// error, which is a sentence for the person, nothing could be read.
func (r *Reader) Read(text []byte, w app.Window) (app.Contents, error) {
	if len(text) > MaxBytes {
		return app.Contents{}, errTooLarge
	}
	parts, name, err := parse(text)
	if err != nil {
		return app.Contents{}, err
	}
	x := &expansion{window: w, zones: newZones(parts, w.Local, w.To), until: time.Now().Add(maxExpanding)}
	all := collect(parts, x)
	if len(all) > MaxEvents {
		return app.Contents{}, say("The calendar has %d events, and %d is the most.", len(all), MaxEvents)
	}
	for _, s := range all {
		if x.late() {
			x.problem("", fmt.Errorf("reading took longer than %d seconds; what comes after it is left out", int(maxExpanding/time.Second)))
			break
		}
		x.expand(s)
	}
	slices.SortStableFunc(x.events, func(a, b plan.Event) int {
		if c := a.From.Compare(b.From); c != 0 {
			return c
		}
		return strings.Compare(a.Title, b.Title)
	})
	return app.Contents{Name: name, Events: x.events, Problems: x.problems, LeftOut: x.leftOut}, nil
}

// parse returns the parts of all calendars of a text, and the name of the first.
func parse(text []byte) (parts []*ical.Component, name string, err error) {
	clean, err := unfolded(text)
	if err != nil {
		return nil, "", err
	}
	d := ical.NewDecoder(bytes.NewReader(clean))
	for {
		c, err := d.Decode()
		if errors.Is(err, io.EOF) {
			return parts, name, nil
		}
		if err != nil {
			return nil, "", say("The calendar could not be read: %.200v.", err)
		}
		parts = append(parts, c.Children...)
		for _, property := range []string{"NAME", "X-WR-CALNAME"} { // RFC 7986 section 5.1; the second is common practice
			if text, _ := c.Props.Text(property); name == "" {
				name = line(text, 100)
			}
		}
	}
}

// A series is an event with its recurrences; the others are single ones of them that were
// changed.
type series struct {
	master *ical.Component
	others []*ical.Component
}

// collect puts the events of one UID together, in the order in which they first stand. Of
// two with the same UID the later SEQUENCE counts, and of these the last.
func collect(parts []*ical.Component, x *expansion) []*series {
	var all []*series
	by := map[string]*series{}
	for i, c := range parts {
		if c.Name != ical.CompEvent {
			continue
		}
		uid, _ := c.Props.Text(ical.PropUID)
		if uid == "" {
			uid = "without-uid-" + strconv.Itoa(i)
			c.Props.SetText(ical.PropUID, uid)
		}
		s := by[uid]
		if s == nil {
			s = &series{}
			by[uid] = s
			all = append(all, s)
		}
		switch {
		case c.Props.Get(ical.PropRecurrenceID) != nil:
			s.others = append(s.others, c)
		case s.master == nil || sequence(c) >= sequence(s.master):
			s.master = c
		}
	}
	return all
}

func sequence(c *ical.Component) int {
	p := c.Props.Get(ical.PropSequence)
	if p == nil {
		return 0
	}
	n, _ := strconv.Atoi(p.Value)
	return n
}

func titleOf(c *ical.Component) string {
	text, _ := c.Props.Text(ical.PropSummary)
	if text = line(text, 500); text == "" {
		return "Event without a title"
	}
	return text
}

// line is a text as one line of at most so many characters.
func line(text string, most int) string {
	text = strings.Join(strings.FieldsFunc(text, func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }), " ")
	if runes := []rune(text); len(runes) > most {
		return string(runes[:most-1]) + "…"
	}
	return text
}

func cancelled(c *ical.Component) bool {
	p := c.Props.Get(ical.PropStatus)
	return p != nil && strings.EqualFold(p.Value, "CANCELLED")
}

func busy(c *ical.Component) bool {
	p := c.Props.Get(ical.PropTransparency)
	return p == nil || !strings.EqualFold(p.Value, "TRANSPARENT")
}
