package book

import (
	"net/url"
	"strings"
	"unicode"

	"tincup/internal/core/day"
)

// Source is what a to-do was made of: a link, and words that say what that was, also once
// it is gone. It is set when the to-do is put in and stays.
type Source struct {
	// Link is a URI; of an event of a calendar it is event: with the calendar's id, the UID and,
	// as its fragment, the time that the event had, as day.Horizon writes a slot.
	Link string `json:"Link,omitzero"`
	// Words are one line.
	Words string `json:"Words,omitzero"`
}

const (
	maxLink        = 2000
	maxSourceWords = 1000
)

// IsZero reports whether it is none.
func (s Source) IsZero() bool { return s == Source{} }

// eventScheme begins the link of what was made of an event.
const eventScheme = "event:"

// OfEvent is the source of what is made of an event of a calendar: its UID, its time as a slot,
// which is none of one that lasts whole days, and words.
func OfEvent(calendar ID, uid string, slot day.Horizon, words string) Source {
	s := Source{Link: eventScheme + calendar.String() + "/" + url.PathEscape(uid), Words: words}
	if _, minutes := slot.Slot(); minutes > 0 {
		s.Link += "#" + slot.String()
	}
	return s
}

// Slot is the time that the event had of which something was made; none for anything else.
func (s Source) Slot() day.Horizon {
	_, fragment, ok := strings.Cut(s.Link, "#")
	if !ok || !strings.HasPrefix(s.Link, eventScheme) {
		return day.Horizon{}
	}
	slot, err := day.ParseHorizon(fragment)
	if _, minutes := slot.Slot(); err != nil || minutes == 0 {
		return day.Horizon{}
	}
	return slot
}

// WithinEvent reports whether a to-do is planned for a time within that of the event of which it
// was made: the event takes that time, and the to-do none of its own.
func (t *Todo) WithinEvent() bool {
	at, minutes := t.Plan.Slot()
	if minutes == 0 || t.Source.Link == "" {
		return false
	}
	event := t.Source.Slot()
	from, lasts := event.Slot()
	if lasts == 0 {
		return false
	}
	later := t.Plan.First().Sub(event.First())*24*60 + at.Minutes() - from.Minutes()
	return later >= 0 && later+minutes <= lasts
}

// checkSource cuts what is too long to be kept.
func checkSource(s Source) (Source, error) {
	if len(s.Link) > maxLink || strings.ContainsFunc(s.Link, unicode.IsSpace) {
		return s, refuse("source", "The link to what it came from has %d characters, or a space; %d without a space are the most.", len(s.Link), maxLink)
	}
	var err error
	s.Words, err = lineOrNone("source", "", &s.Words, maxSourceWords)
	return s, err
}
