package remind

import (
	"maps"
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
)

const (
	// Again is how long the same edge of a place is not told again.
	Again = 10 * time.Minute
	// Margin is by how many metres a place's radius is passed before it is left, at least.
	Margin = 50
	// fresh is how old a position may be to tell where a person is still.
	fresh = 2 * time.Minute
	// A position further from the one before than noise, in metres, and than topSpeed allows,
	// in metres a second, counts once the next one agrees with it. No airliner flies so fast.
	noise, topSpeed = 1000, 350
)

// Fix is a position that a device told.
type Fix struct {
	At geo.Point `json:"at"`
	// Accuracy is by how many metres it may be wrong.
	Accuracy float64   `json:"accuracy"`
	Taken    time.Time `json:"taken"`
}

// Crossing is an edge of a place that a person has passed.
type Crossing struct {
	Place book.ID
	Edge  day.Edge
	// At is when it was noticed, After when the person was last known to be on the other
	// side; the zero time where that was never known.
	At, After time.Time
}

// Presence is at which places a person is. The zero Presence knows of none. It is written as
// JSON.
type Presence struct {
	Stays map[book.ID]Stay `json:"stays,omitempty"`
	// Last is the position that was last believed, Odd one behind it that was too far away to
	// be.
	Last Fix `json:"last,omitzero"`
	Odd  Fix `json:"-"`
}

// Stay is whether a person is at a place.
type Stay struct {
	// Middle is where the place was then.
	Middle geo.Point `json:"middle,omitzero"`
	Inside bool      `json:"inside,omitzero"`
	// Seen is when that was last known.
	Seen time.Time `json:"seen"`
	// Came and Went are when arriving at the place and leaving it were last told.
	Came time.Time `json:"came,omitzero"`
	Went time.Time `json:"went,omitzero"`
}

// Move takes a position in and returns the edges that it tells of. A place is entered where the
// distance is its radius at most, and left where it is more than the radius and the greater of
// Margin and the position's accuracy. A position whose accuracy is worse than twice a place's
// radius says nothing of that place, and one that was taken before the last is passed over. A
// place that is new, or was moved, while positions came has its first said silently.
func (p *Presence) Move(places []*book.Place, f Fix, now time.Time) []Crossing {
	if p.Last.Taken.After(now) { // the clock was set back
		p.Last, p.Odd = Fix{}, Fix{}
	}
	if f.Taken.Before(p.Last.Taken) {
		return nil
	}
	if !follows(p.Last, f) && (p.Odd.At.IsZero() || !follows(p.Odd, f)) {
		p.Odd = f
		return nil
	}
	watched := !p.Last.At.IsZero() && f.Taken.Sub(p.Last.Taken) < fresh
	p.Last, p.Odd = f, Fix{}
	var all []Crossing
	for _, place := range places {
		if place.Middle.IsZero() || f.Accuracy > 2*float64(place.Radius) {
			continue
		}
		distance, radius := geo.Distance(place.Middle, f.At), float64(place.Radius)
		stay, known := p.Stays[place.ID]
		known = known && stay.Middle == place.Middle
		was := stay.Inside && known
		stay.Inside = distance <= radius || was && distance <= radius+max(Margin, f.Accuracy)
		all = p.settle(all, place, stay, was, !known && watched, f.Taken, now)
	}
	return all
}

// follows reports whether a person who was at one position can be at another so much later.
func follows(was, is Fix) bool {
	far := geo.Distance(was.At, is.At) - was.Accuracy - is.Accuracy
	return was.At.IsZero() || far <= noise+topSpeed*is.Taken.Sub(was.Taken).Seconds()
}

// Connect takes in that a thing was connected to, or disconnected from.
func (p *Presence) Connect(place *book.Place, on bool, now time.Time) []Crossing {
	stay := p.Stays[place.ID]
	was := stay.Inside
	stay.Inside = on
	return p.settle(nil, place, stay, was, false, now, now)
}

// settle writes down a stay, and adds the edge between it and what was to the crossings, unless
// that is not to be told.
func (p *Presence) settle(all []Crossing, place *book.Place, stay Stay, was, silent bool, taken, now time.Time) []Crossing {
	edge, told := day.Arriving, &stay.Came
	if !stay.Inside {
		edge, told = day.Leaving, &stay.Went
	}
	if place.Thing {
		edge += day.Connecting - day.Arriving
	}
	if told.After(now) { // the clock was set back
		*told = now
	}
	if stay.Inside != was && !silent && (told.IsZero() || now.Sub(*told) >= Again) {
		*told = now
		all = append(all, Crossing{Place: place.ID, Edge: edge, At: taken, After: stay.Seen})
	}
	stay.Middle, stay.Seen = place.Middle, taken
	if p.Stays == nil {
		p.Stays = map[book.ID]Stay{}
	}
	p.Stays[place.ID] = stay
	return all
}

// Tidy forgets places that are there no more.
func (p *Presence) Tidy(desk *book.Desk) {
	maps.DeleteFunc(p.Stays, func(id book.ID, _ Stay) bool { _, err := desk.Place(id); return err != nil })
}

// Here returns the places of a desk at which the person is, by their names.
func (p *Presence) Here(desk *book.Desk) []*book.Place {
	return slices.DeleteFunc(desk.Places(), func(place *book.Place) bool {
		stay := p.Stays[place.ID]
		return !stay.Inside || stay.Middle != place.Middle
	})
}

// Watched reports whether a reminder waits for an edge that positions tell of.
func (q *Queue) Watched(desk *book.Desk) bool {
	for id := range q.edges {
		if t, err := desk.Todo(id); err == nil && slices.ContainsFunc(t.Reminders, func(r day.Reminder) bool {
			place := desk.PlaceNamed(r.Place)
			return r.Edge != day.NoEdge && !r.Edge.OfThing() && place != nil && !place.Middle.IsZero()
		}) {
			return true
		}
	}
	return false
}

// Crossed returns what rings at some crossings. A reminder that was set so shortly before that
// the person may have been there already does not: then the edge was passed before it.
func (q *Queue) Crossed(desk *book.Desk, w Terms, crossings []Crossing, quiet bool) (bell book.RingBell, ok bool) {
	bell.Mute = quiet
	ids := slices.SortedFunc(maps.Keys(q.edges), book.ID.Compare)
	for _, id := range ids {
		t, err := desk.Todo(id)
		if err != nil {
			continue
		}
		come := book.Come{Todo: id, Over: true}
		from := len(bell.Come)
		for _, r := range t.Reminders {
			for _, c := range crossings {
				if place, err := desk.Place(c.Place); err != nil || r.Edge != c.Edge || r.Place != place.Name || c.before(t) {
					continue
				}
				come.Reminder, come.At = r, w.Clock.WallOf(c.At)
				if !slices.ContainsFunc(desk.RingsOf(id), isRing(r, come.At)) {
					bell.Come = append(bell.Come, come)
				}
			}
		}
		if len(bell.Come) > from { // one of each to-do is told
			bell.Come[len(bell.Come)-1].Over = false
		}
	}
	return bell, len(bell.Come) > 0
}

// before reports whether the crossing may have been before a to-do's reminders were set.
func (c Crossing) before(t *book.Todo) bool {
	set := t.RemindFrom.Time()
	return !t.RemindFrom.IsZero() && set.After(c.After) && c.At.Sub(set) < fresh
}

// since reports whether a ring at an edge came after what its to-do's reminders depend on was
// last changed. One that waits to be told is taken at the end of its minute.
func (w Terms) since(t *book.Todo, r *book.Ring) bool {
	rang := r.Rang
	if rang.IsZero() {
		rang = day.TimestampOf(w.Clock.Instant(r.At).Add(time.Minute - time.Millisecond))
	}
	return rang >= t.RemindFrom
}

func foreseeEdge(desk *book.Desk, t *book.Todo, r day.Reminder) Prospect {
	switch place := desk.PlaceNamed(r.Place); {
	case !t.Open():
		return Over
	case place == nil || place.Middle.IsZero() && !place.Thing:
		return Nowhere
	case !Waits(desk, t):
		return Waiting
	}
	return OnEdge
}
