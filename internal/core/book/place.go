package book

import (
	"slices"
	"strings"

	"tincup/internal/core/day"
)

// MoveToList puts a to-do at the end of a list; none is the Cup.
type MoveToList struct{ ID, List ID }

// PlanFor sets when the person means to do it; the zero Horizon clears it.
type PlanFor struct {
	ID   ID
	Plan day.Horizon
}

// Tagging adds tags to a to-do and takes others away, by name.
type Tagging struct {
	ID          ID
	Add, Remove []string
}

func (MoveToList) kind() Kind { return "move" }
func (PlanFor) kind() Kind    { return "plan" }
func (Tagging) kind() Kind    { return "tag" }

func (c MoveToList) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if err := d.moveTo(&t, c.List); err != nil {
		return err
	}
	d.put(t)
	name := "the Cup"
	if l, err := d.book.List(c.List); err == nil {
		name = l.Name
	}
	d.says = "Moved to " + name + ": " + quote(t.Title)
	return nil
}

func (c PlanFor) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	stood := t.driver().Date
	t.Plan = c.Plan
	d.put(t)
	defer func() { d.says += d.postponed(&t, stood) }()
	switch {
	case c.Plan.IsZero():
		d.says = "No longer planned: " + quote(t.Title)
	case c.Plan.Precision() == day.Parked:
		d.says = "Parked: " + quote(t.Title)
	default:
		d.says = "Planned for " + c.Plan.Words() + ": " + quote(t.Title)
	}
	return nil
}

func (c Tagging) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	tags := slices.Clone(t.Tags)
	for _, name := range c.Remove {
		if id, ok := d.book.tagNames[strings.ToLower(strings.TrimPrefix(strings.TrimSpace(name), "#"))]; ok {
			tags = slices.DeleteFunc(tags, func(tag ID) bool { return tag == id })
		}
	}
	if t.Tags, err = d.addTags(tags, c.Add); err != nil {
		return err
	}
	d.put(t)
	d.says = "Tags changed: " + quote(t.Title)
	return nil
}

// addTags appends the ids of the named tags, each once, and makes those that
// do not exist. Names differ only by more than their case.
func (d *draft) addTags(tags []ID, names []string) ([]ID, error) {
	for _, name := range names {
		name, err := checkTag(name)
		if err != nil {
			return nil, err
		}
		id, ok := d.book.tagNames[strings.ToLower(name)]
		if !ok {
			id = d.madeTag(name)
		}
		if !slices.Contains(tags, id) {
			tags = append(tags, id)
		}
	}
	return tags, nil
}

func (d *draft) madeTag(name string) ID {
	for _, diff := range d.tags {
		if strings.EqualFold(diff.After.Name, name) {
			return diff.After.ID
		}
	}
	t := &Tag{ID: d.env.NewID(), Name: name, Revision: d.book.revision + 1,
		Colour: Colour((len(d.book.tags) + len(d.tags)) % int(colours))}
	d.tags = append(d.tags, Diff[Tag]{After: t})
	return t.ID
}
