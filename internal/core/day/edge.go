package day

import (
	"slices"
	"strings"
)

// Edge is what a reminder of a place comes at (PROXIMITY, RFC 9074 section 8.1).
type Edge uint8

// The edges. One arrives at a place and leaves it; one connects to a thing, such as a car.
const (
	NoEdge Edge = iota
	Arriving
	Leaving
	Connecting
	Disconnecting
)

// edges are the standard's words for the edges, and ours with the preposition that a name
// follows.
var edges = [...]struct{ proximity, words string }{
	Arriving:      {"ARRIVE", "on arriving at"},
	Leaving:       {"DEPART", "on leaving"},
	Connecting:    {"CONNECT", "on connecting to"},
	Disconnecting: {"DISCONNECT", "on disconnecting from"},
}

// ParseEdge reads the standard's word for an edge, in capitals or small letters.
func ParseEdge(s string) (Edge, bool) {
	for e := Arriving; int(e) < len(edges); e++ {
		if strings.EqualFold(edges[e].proximity, s) {
			return e, true
		}
	}
	return NoEdge, false
}

// String is the standard's word for the edge; "" for none.
func (e Edge) String() string { return edges[e].proximity }

// OfThing reports whether it is an edge of a thing one connects to, and not of a stretch of
// ground.
func (e Edge) OfThing() bool { return e == Connecting || e == Disconnecting }

// ReminderOn reminds at an edge of a place, which goes by its name.
func ReminderOn(e Edge, place string) Reminder { return Reminder{Edge: e, Place: place, set: true} }

// parseEdgeReminder reads ARRIVE:The museum or, with a sound, ARRIVE;drip:The museum; ok is
// false where s is no reminder of a place at all.
func parseEdgeReminder(s string) (r Reminder, ok bool, err error) {
	head, place, _ := strings.Cut(s, ":")
	word, sound, sounds := strings.Cut(head, ";")
	e, ok := ParseEdge(word)
	if !ok {
		return r, false, nil
	}
	if place == "" || place != strings.TrimSpace(place) || len(place) > maxPlaceBytes || sounds && !isSound(sound) {
		return r, true, &ParseError{Input: s, Want: "a reminder such as ARRIVE:The museum or DEPART;drip:The museum"}
	}
	r = ReminderOn(e, place)
	r.Sound = sound
	return r, true, nil
}

// maxPlaceBytes is how long the name of a place is at most in a reminder.
const maxPlaceBytes = 800

// edgeText is the form that parseEdgeReminder reads.
func (r Reminder) edgeText() string {
	if r.Sound != "" {
		return r.Edge.String() + ";" + r.Sound + ":" + r.Place
	}
	return r.Edge.String() + ":" + r.Place
}

// edgeWords says a reminder of a place: "on arriving at The museum".
func (r Reminder) edgeWords() string { return edges[r.Edge].words + " " + r.Place }

// Called is the reminder with another name for its place, where that goes by the name was.
func (r Reminder) Called(was, name string) Reminder {
	if r.Edge != NoEdge && r.Place == was {
		r.Place = name
	}
	return r
}

// OnEdges reports whether any of some reminders comes at an edge.
func OnEdges(reminders []Reminder) bool {
	return slices.ContainsFunc(reminders, func(r Reminder) bool { return r.Edge != NoEdge })
}
