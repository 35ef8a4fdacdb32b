package book

import (
	"errors"
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/geo"
)

// Place is where to-dos are done: a stretch of ground, or a thing one connects to. To-dos and
// their reminders go by its name, which is one for all that stands on them; each name that a
// to-do of the account has is a row.
type Place struct {
	ID ID `json:"ID"`
	// Name is one line of 1 to MaxPlace characters; names differ by more than their case.
	Name string `json:"Name"`
	// Middle is that of a stretch of ground; none where it is not known.
	Middle geo.Point `json:"Middle,omitzero"`
	// Radius is that of the stretch in metres, MinRadius to MaxRadius.
	Radius int32 `json:"Radius"`
	// Thing: it is one that a person connects to, such as a car.
	Thing    bool  `json:"Thing,omitzero"`
	Revision int64 `json:"Revision"`
}

const (
	// MaxPlaces is how many places a person may add.
	MaxPlaces = 500
	// MaxPlace is how long the name of a place is at most, in characters.
	MaxPlace = 200
	// MinRadius, MaxRadius and FirstRadius bound a place's radius in metres, and are what it is
	// at first.
	MinRadius, MaxRadius, FirstRadius = 50, 5000, 150
)

// AddPlace adds a place. One to-do after another may name places that are not there yet; that
// adds them as well.
type AddPlace struct {
	ID     ID // may be none
	Name   string
	Middle geo.Point
	Radius int // metres; 0 is FirstRadius
	Thing  bool
}

// EditPlace changes a place; nil leaves a part as it is. A new name stands on all to-dos and
// reminders that went by the old one.
type EditPlace struct {
	ID     ID
	Name   *string
	Middle *geo.Point
	Radius *int
	Thing  *bool
}

// RemovePlace takes a place out, and from all to-dos and reminders that go by it.
type RemovePlace struct{ ID ID }

func (AddPlace) kind() Kind    { return "add-place" }
func (EditPlace) kind() Kind   { return "edit-place" }
func (RemovePlace) kind() Kind { return "remove-place" }

// Place returns a place, or a *NotFoundError.
func (b *Desk) Place(id ID) (*Place, error) {
	if p, ok := b.places[id]; ok {
		return p, nil
	}
	return nil, &NotFoundError{"place", id}
}

// PlaceNamed returns the place of a name, whatever its case; nil where there is none.
func (b *Desk) PlaceNamed(name string) *Place {
	return b.places[b.placeNames[strings.ToLower(name)]]
}

// Places returns the account's places by their names.
func (b *Desk) Places() []*Place {
	all := values(b.places)
	slices.SortFunc(all, func(a, b *Place) int {
		if c := strings.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)); c != 0 {
			return c
		}
		return strings.Compare(a.ID.String(), b.ID.String())
	})
	return all
}

func (b *Desk) loadPlaces(diffs []Diff[Place]) {
	for _, d := range diffs { // all old names first: one may be another's new one
		if d.Before != nil {
			delete(b.placeNames, strings.ToLower(d.Before.Name))
		}
	}
	for _, d := range diffs {
		if d.After != nil {
			b.placeNames[strings.ToLower(d.After.Name)] = d.After.ID
		}
		replace(b.places, d, func(p *Place) ID { return p.ID })
	}
}

// placeNamed finds a place by its name, whatever its case.
func (d *draft) placeNamed(name string) (Place, bool) {
	for _, id := range d.places.order {
		if p, ok := d.places.get(id); ok && strings.EqualFold(p.Name, name) {
			return p, true
		}
	}
	if known := d.desk.PlaceNamed(name); known != nil {
		p, ok := d.places.get(known.ID)
		return p, ok && strings.EqualFold(p.Name, name)
	}
	return Place{}, false
}

// checkPlace refuses what is no place, and a name that another has.
func (d *draft) checkPlace(p Place) (Place, error) {
	var err error
	if p.Name, err = checkLine("name", "name of the place", p.Name, MaxPlace); err != nil {
		return p, err
	}
	if other, taken := d.placeNamed(p.Name); taken && other.ID != p.ID {
		return p, refuse("name", "A place called “%s” exists already.", other.Name)
	}
	switch {
	case p.Radius < MinRadius || p.Radius > MaxRadius:
		return p, refuse("radius", "The radius is %d m; %d to %d m is wanted.", p.Radius, MinRadius, MaxRadius)
	case p.Thing && !p.Middle.IsZero():
		return p, refuse("middle", "“%s” is a thing one connects to: it has no position.", p.Name)
	}
	return p, nil
}

func (c AddPlace) run(d *draft) error {
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.places.get(c.ID); taken {
		return refuse("id", "A place with the id %s exists already.", c.ID)
	}
	if c.Radius == 0 {
		c.Radius = FirstRadius
	}
	if err := d.roomForPlace(); err != nil {
		return err
	}
	p, err := d.checkPlace(Place{ID: c.ID, Name: c.Name, Middle: c.Middle, Radius: metres(c.Radius), Thing: c.Thing})
	if err != nil {
		return err
	}
	d.places.put(p)
	d.says = "New place: " + quote(p.Name)
	return nil
}

// metres is a radius as it is kept; one that no row can hold is one that is refused.
func metres(n int) int32 { return int32(max(min(n, MaxRadius+1), -1)) }

func (d *draft) roomForPlace() error {
	if n := len(d.desk.places) + len(d.places.order); n >= MaxPlaces {
		return refuse("place", "There are %d places; that is the most. Remove one first.", n)
	}
	return nil
}

func (c EditPlace) run(d *draft) error {
	p, ok := d.places.get(c.ID)
	if !ok {
		return &NotFoundError{"place", c.ID}
	}
	was := p
	set(&p.Name, c.Name)
	set(&p.Middle, c.Middle)
	set(&p.Thing, c.Thing)
	if c.Radius != nil {
		p.Radius = metres(*c.Radius)
	}
	if p.Thing && c.Middle == nil {
		p.Middle = geo.Point{}
	}
	p, err := d.checkPlace(p)
	if err != nil {
		return err
	}
	d.places.put(p)
	if p.Name != was.Name {
		d.callPlace(was.Name, p.Name)
		d.says = "Place renamed: " + quote(was.Name) + " is now " + quote(p.Name)
		return nil
	}
	d.says = "Place changed: " + quote(p.Name)
	return nil
}

func (c RemovePlace) run(d *draft) error {
	p, ok := d.places.get(c.ID)
	if !ok {
		return &NotFoundError{"place", c.ID}
	}
	d.places.remove(p.ID)
	n := d.callPlace(p.Name, "")
	d.says = "Place removed: " + quote(p.Name)
	if n > 0 {
		d.says += ", from " + count(n, "to-do")
	}
	return nil
}

// callPlace lets all that goes by the name of a place go by another; by none, it loses the
// place, and the reminders at its edges. It returns how many to-dos there were.
func (d *draft) callPlace(was, name string) int {
	going := d.desk.those(func(t *Todo) bool {
		cur, err := d.todo(t.ID)
		return err == nil && cur.goesBy(was)
	})
	for _, t := range going {
		cur, _ := d.todo(t.ID) // it is there
		next := cur
		if cur.Place == was {
			next.Place = name
		}
		next.Reminders = nil
		for _, r := range cur.Reminders {
			if r = r.Called(was, name); r.Edge == day.NoEdge || r.Place != "" {
				next.Reminders = append(next.Reminders, r)
			}
		}
		d.put(next)
		if diff := d.todos[t.ID]; name != "" { // nothing is another reminder by it
			diff.After.RemindFrom = cur.RemindFrom
		}
	}
	rings := slices.SortedFunc(maps.Keys(d.desk.rings), ID.Compare)
	for _, id := range rings { // it is the same ring under the new name
		if r := *d.desk.rings[id]; name != "" && r.Reminder.Called(was, name) != r.Reminder {
			r.Reminder = r.Reminder.Called(was, name)
			d.rings.put(r)
		}
	}
	return len(going)
}

// placeNames are the names of places that the to-do and its reminders go by.
func (t *Todo) placeNames() []string {
	var names []string
	if t.Place != "" {
		names = append(names, t.Place)
	}
	for _, r := range t.Reminders {
		if r.Edge != day.NoEdge {
			names = append(names, r.Place)
		}
	}
	return names
}

// goesBy reports whether the to-do, or a reminder of it, goes by the name of a place.
func (t *Todo) goesBy(name string) bool {
	return slices.Contains(t.placeNames(), name)
}

// keepPlaces lets each place that a written to-do goes by be a row, and writes its name as the
// row does.
func (d *draft) keepPlaces() error {
	for _, id := range d.order {
		t := d.todos[id].After
		if t == nil {
			continue
		}
		next := *t
		var err error
		if next.Place != "" {
			if next.Place, err = d.keepPlace(next.Place, false); err != nil {
				return aboutField("place", err)
			}
		}
		for i, r := range next.Reminders {
			if r.Edge == day.NoEdge {
				continue
			}
			name, err := d.keepPlace(r.Place, r.Edge.OfThing())
			if err != nil {
				return aboutField("reminders", err)
			}
			if name != r.Place {
				next.Reminders = slices.Clone(next.Reminders)
				next.Reminders[i] = r.Called(r.Place, name)
			}
		}
		if Altered(t, &next) != 0 {
			*t = next
		}
	}
	return nil
}

// aboutField is an error as one of a field of a to-do.
func aboutField(field string, err error) error {
	var rule *RuleError
	if errors.As(err, &rule) {
		return &RuleError{Field: field, Reason: rule.Reason}
	}
	return err
}

// keepPlace returns the name of the place of a name as its row has it, which is made where
// there is none.
func (d *draft) keepPlace(name string, thing bool) (string, error) {
	if p, ok := d.placeNamed(name); ok {
		return p.Name, nil
	}
	if err := d.roomForPlace(); err != nil {
		return "", err
	}
	p, err := d.checkPlace(Place{ID: d.env.NewID(), Name: name, Radius: FirstRadius, Thing: thing})
	if err != nil {
		return "", err
	}
	d.places.put(p)
	return p.Name, nil
}

// invertPlaces turns changes of places round. One that came with a to-do which named it goes
// with that, unless others go by it by now or something was said of it.
func (d *draft) invertPlaces(c *Change) error {
	rest := c.Places
	if len(c.Todos) > 0 {
		rest = slices.DeleteFunc(slices.Clone(c.Places), func(diff Diff[Place]) bool {
			if diff.Before != nil || diff.After == nil {
				return false
			}
			cur, ok := d.places.get(diff.After.ID)
			return !ok || cur.at(0) != diff.After.at(0) || d.goesBy(cur.Name)
		})
	}
	if err := d.places.invert(rest, placeAttributes, func(p *Place) string { return p.Name }); err != nil {
		return err
	}
	for _, diff := range rest { // what came to go by the name since goes by the old one as well
		if diff.Before != nil && diff.After != nil && diff.Before.Name != diff.After.Name {
			d.callPlace(diff.After.Name, diff.Before.Name)
		}
	}
	return nil
}

// goesBy reports whether any to-do goes by the name of a place, once the draft is applied.
func (d *draft) goesBy(name string) bool {
	for _, diff := range d.todos {
		if diff.After != nil && diff.After.goesBy(name) {
			return true
		}
	}
	for t := range d.desk.All() {
		if _, drafted := d.todos[t.ID]; !drafted && t.goesBy(name) {
			return true
		}
	}
	return false
}

// checkPlaces refuses an undo that would give two places one name, or take away one that
// to-dos go by.
func (d *draft) checkPlaces() error {
	for _, id := range d.places.order {
		p, ok := d.places.get(id)
		if !ok {
			if was := d.desk.places[id]; was != nil && d.goesBy(was.Name) {
				return &ConflictError{was.Name, []string{"its to-dos"}}
			}
			continue
		}
		if _, err := d.checkPlace(p); err != nil {
			return &ConflictError{p.Name, []string{"name"}}
		}
	}
	return nil
}

func (p Place) key() ID                 { return p.ID }
func (p Place) revised() int64          { return p.Revision }
func (p Place) at(revision int64) Place { p.Revision = revision; return p }

var placeAttributes = []attribute[Place]{
	attr("name", func(p *Place) *string { return &p.Name }),
	attr("middle", func(p *Place) *geo.Point { return &p.Middle }),
	attr("radius", func(p *Place) *int32 { return &p.Radius }),
	attr("thing", func(p *Place) *bool { return &p.Thing }),
}
