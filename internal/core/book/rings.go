package book

import (
	"fmt"
	"slices"
	"time"

	"tincup/internal/core/day"
)

// Ring is one reminder of the account that has come. A to-do's reminder rings once at each
// wall time; whether a ring still concerns anybody follows from its to-do (core/remind).
type Ring struct {
	ID   ID `json:"ID"`
	Todo ID `json:"Todo"`
	// Reminder is which of the to-do's it is, and At the wall time at which it should have rung.
	Reminder day.Reminder `json:"Reminder"`
	At       day.Moment   `json:"At"`
	// Rang is when it was last told; 0 of one that is muted, or that a later one of the same
	// to-do stands for.
	Rang day.Timestamp `json:"Rang,omitzero"`
	// Missed: nothing ran when it should have rung.
	Missed bool `json:"Missed,omitzero"`
	// Acknowledged is when it was (RFC 9074 section 6), 0 for not yet.
	Acknowledged day.Timestamp `json:"Acknowledged,omitzero"`
	// Later is when it rings again, 0 where it was not put off.
	Later    day.Timestamp `json:"Later,omitzero"`
	Revision int64         `json:"Revision"`
}

// RingState is what became of a ring.
type RingState uint8

// The states of a ring.
const (
	// Rung: it was told and waits for an answer.
	Rung RingState = iota
	// Muted: it came in quiet hours or a pause, and is told at their end.
	Muted
	// PutOff: it rings again Later.
	PutOff
	// Answered: it was acknowledged.
	Answered
)

// State is what became of the ring.
func (r *Ring) State() RingState {
	switch {
	case !r.Acknowledged.IsZero():
		return Answered
	case !r.Later.IsZero():
		return PutOff
	case r.Rang.IsZero():
		return Muted
	}
	return Rung
}

// Come is a reminder that has come.
type Come struct {
	Todo     ID
	Reminder day.Reminder
	At       day.Moment
	// Missed: nothing ran then. Over: another of the same to-do stands for it.
	Missed, Over bool
}

// RingBell tells of reminders that have come, and again of rings that were put off or muted. It is the scheduler's, and is not undone.
type RingBell struct {
	Come  []Come
	Again []ID
	// Mute keeps them for the end of quiet hours.
	Mute bool
}

// Acknowledge answers rings: they ring no more. What else of the same to-dos has rung is
// answered as well.
type Acknowledge struct{ Rings []ID }

// RingLater puts rings off until an instant ahead.
type RingLater struct {
	Rings []ID
	Until time.Time
}

// MaxLater is how far ahead a ring can be put off, in days.
const MaxLater = 366

// The kinds of what is done to rings.
const (
	kindRing        Kind = "ring"
	kindAcknowledge Kind = "acknowledge"
	kindLater       Kind = "ring-later"
)

func (RingBell) kind() Kind    { return kindRing }
func (Acknowledge) kind() Kind { return kindAcknowledge }
func (RingLater) kind() Kind   { return kindLater }

// Aside are the kinds of changes that are not in the way of undoing what was done before them.
func Aside() []Kind { return []Kind{kindRing, kindAcknowledge, kindLater} }

// Ring returns a ring, or a *NotFoundError.
func (b *Desk) Ring(id ID) (*Ring, error) {
	if r, ok := b.rings[id]; ok {
		return r, nil
	}
	return nil, &NotFoundError{"ring", id}
}

// RingsOf returns the rings of a to-do, in the order in which they came. The slice is the
// Book's own.
func (b *Desk) RingsOf(todo ID) []*Ring { return b.ringsOf[todo] }

// Rings returns every ring in no order.
func (b *Desk) Rings() []*Ring { return values(b.rings) }

func (b *Desk) loadRings(diffs []Diff[Ring]) {
	for _, d := range diffs {
		replace(b.rings, d, func(r *Ring) ID { return r.ID })
		row := d.After
		if row == nil {
			row = d.Before
		}
		rest := slices.DeleteFunc(slices.Clone(b.ringsOf[row.Todo]), func(r *Ring) bool { return r.ID == row.ID })
		if d.After != nil {
			rest = append(rest, d.After)
			slices.SortFunc(rest, func(a, b *Ring) int { return a.ID.Compare(b.ID) })
		}
		if b.ringsOf[row.Todo] = rest; len(rest) == 0 {
			delete(b.ringsOf, row.Todo)
		}
	}
}

func (c RingBell) run(d *draft) error {
	var titles []string
	tell := func(r Ring) {
		r.Later, r.Acknowledged, r.Rang = 0, 0, d.now
		if c.Mute {
			r.Rang = 0
		}
		d.rings.put(r)
		for _, other := range d.desk.ringsOf[r.Todo] { // it stands for what was muted
			if now, ok := d.rings.get(other.ID); ok && !c.Mute && now.ID != r.ID && now.State() == Muted {
				now.Acknowledged = d.now
				d.rings.put(now)
			}
		}
		if t, err := d.todo(r.Todo); err == nil {
			titles = append(titles, t.Title)
		}
	}
	for _, come := range c.Come {
		t, err := d.alive(come.Todo)
		if err != nil {
			return err
		}
		r := Ring{ID: d.env.NewID(), Todo: t.ID, Reminder: come.Reminder, At: come.At, Missed: come.Missed}
		if come.Over {
			r.Acknowledged = d.now
			d.rings.put(r)
			continue
		}
		tell(r)
	}
	for _, id := range c.Again {
		r, ok := d.rings.get(id)
		if !ok {
			return &NotFoundError{"ring", id}
		}
		tell(r)
	}
	verb := "Rang"
	if c.Mute {
		verb = "Quiet now, rings later"
	}
	d.says = verb + ": " + ringWords(titles)
	return nil
}

// ringWords says of which to-dos rings are.
func ringWords(titles []string) string {
	if len(titles) == 1 {
		return quote(titles[0])
	}
	return fmt.Sprintf("%d reminders", len(titles))
}

// answer lets f write to each of some rings that is not answered yet; what else of their
// to-dos waits for an answer is acknowledged with them. It returns the titles.
func (d *draft) answer(ids []ID, f func(*Ring)) ([]string, error) {
	var titles []string
	for _, id := range ids {
		r, ok := d.rings.get(id)
		if !ok {
			return nil, &NotFoundError{"ring", id}
		}
		t, err := d.todo(r.Todo)
		if err != nil {
			return nil, err
		}
		titles = append(titles, t.Title)
		if r.State() != Answered {
			f(&r)
			d.rings.put(r)
		}
		for _, other := range d.desk.ringsOf[r.Todo] {
			if now, _ := d.rings.get(other.ID); other.ID != id && now.State() == Rung {
				now.Acknowledged = d.now
				d.rings.put(now)
			}
		}
	}
	return titles, nil
}

func (c Acknowledge) run(d *draft) error {
	titles, err := d.answer(c.Rings, func(r *Ring) { r.Acknowledged, r.Later = d.now, 0 })
	if err != nil {
		return err
	}
	d.says = "Seen: " + ringWords(titles)
	return nil
}

func (c RingLater) run(d *draft) error {
	until := day.TimestampOf(c.Until)
	switch ahead := c.Until.Sub(d.env.Clock.Now); {
	case ahead <= 0:
		return refuse("until", "%s has passed. Later is a time that is still to come.", d.instantWords(c.Until))
	case ahead > MaxLater*24*time.Hour:
		return refuse("until", "%s is too far ahead: %d days is the most.", d.instantWords(c.Until), MaxLater)
	}
	titles, err := d.answer(c.Rings, func(r *Ring) { r.Later, r.Rang = until, 0 })
	if err != nil {
		return err
	}
	d.says = "Rings again " + d.instantWords(c.Until) + ": " + ringWords(titles)
	return nil
}

// instantWords says an instant as its wall time.
func (d *draft) instantWords(at time.Time) string { return d.momentWords(d.env.Clock.WallOf(at)) }

// forgetRings lets go of what was rung and answered before an instant, or is of what is no
// longer open and was rung before it.
func (d *draft) forgetRings(upTo day.Timestamp) {
	for id, r := range d.desk.rings {
		t, err := d.todo(r.Todo)
		switch last := max(r.Rang, r.Acknowledged, r.Later); {
		case last > upTo, last.IsZero():
		case err != nil, r.State() == Answered, !t.Open():
			d.rings.remove(id)
		}
	}
}

// forgetRingsOf lets go of the rings of to-dos that the draft takes out.
func (d *draft) forgetRingsOf() {
	for _, id := range d.order {
		if d.todos[id].After == nil {
			for _, r := range d.desk.ringsOf[id] {
				d.rings.remove(r.ID)
			}
		}
	}
}

// invertRings turns round what was done to rings. That they came stays, and what was let go
// of with its to-do comes back with it.
func (d *draft) invertRings(c *Change) error {
	if c.Kind == kindAcknowledge || c.Kind == kindLater || c.turnsAside() {
		return d.rings.invert(c.Rings, ringAttributes, func(r *Ring) string {
			if t, err := d.todo(r.Todo); err == nil {
				return t.Title
			}
			return "The bell"
		})
	}
	for _, diff := range c.Rings {
		if diff.After != nil {
			continue
		}
		if _, there := d.rings.get(diff.Before.ID); !there {
			d.rings.put(*diff.Before)
		}
	}
	return nil
}

// turnsAside reports whether it is an undo or redo of what was done to rings alone.
func (c *Change) turnsAside() bool {
	return (c.Kind == Undo || c.Kind == Redo) && len(c.Todos) == 0 && len(c.Rings) > 0
}

// remindsFrom is from when on the reminders of a to-do count that was so before; nil is one
// that is new. What is set only once its moment has passed does not ring.
func (d *draft) remindsFrom(was, t *Todo) day.Timestamp {
	switch {
	case len(t.Reminders) == 0:
		return 0
	case was == nil, !was.Open() && t.Open(), was.RemindedOf() != t.RemindedOf(), addsReminder(was, t):
		return d.now
	}
	return was.RemindFrom
}

func addsReminder(was, t *Todo) bool {
	return slices.ContainsFunc(t.Reminders, func(r day.Reminder) bool { return !was.Reminds(r) })
}

func (r Ring) key() ID         { return r.ID }
func (r Ring) at(n int64) Ring { r.Revision = n; return r }
func (r Ring) revised() int64  { return r.Revision }

var ringAttributes = []attribute[Ring]{
	attr("rang", func(r *Ring) *day.Timestamp { return &r.Rang }),
	attr("acknowledged", func(r *Ring) *day.Timestamp { return &r.Acknowledged }),
	attr("later", func(r *Ring) *day.Timestamp { return &r.Later }),
}
