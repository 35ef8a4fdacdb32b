package book

import (
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

// Tagging adds tags to a to-do and takes others away, by name.
type Tagging struct {
	ID          ID
	Add, Remove []string
}

// EditTag renames a tag, everywhere, with those nested under it, or gives it
// another colour. A name that another tag has is refused: MergeTags does that.
type EditTag struct {
	ID     ID
	Name   *string
	Colour *Colour
}

// MergeTags lets everything that carries one tag carry another in its place;
// what is nested under it moves along.
type MergeTags struct{ From, Into ID }

// DeleteTag takes a tag, and those nested under it, from all that carry them.
type DeleteTag struct{ ID ID }

func (Tagging) kind() Kind   { return "tag" }
func (EditTag) kind() Kind   { return "edit-tag" }
func (MergeTags) kind() Kind { return "merge-tags" }
func (DeleteTag) kind() Kind { return "delete-tag" }

// Covers reports whether the tag is another or one above it.
func (t *Tag) Covers(other *Tag) bool {
	n := len(t.Name)
	return len(other.Name) >= n && strings.EqualFold(other.Name[:n], t.Name) && (len(other.Name) == n || other.Name[n] == '/')
}

func (c Tagging) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	tags := slices.Clone(t.Tags)
	for _, name := range c.Remove {
		if tag, ok := d.tagNamed(strings.TrimPrefix(strings.TrimSpace(name), "#")); ok {
			tags = slices.DeleteFunc(tags, func(id ID) bool { return id == tag.ID })
		}
	}
	if tags, err = d.addTags(tags, c.Add); err != nil {
		return err
	}
	if len(tags) > max(MaxTags, len(t.Tags)) {
		return refuse("tags", "“%s” would carry %d tags; %d is the most.", t.Title, len(tags), MaxTags)
	}
	before := d.tagWords(&t)
	t.Tags = tags
	d.put(t)
	d.did("Tags changed", &t, addedAndGone(before, d.tagWords(&t)))
	return nil
}

// tagWords names the tags of a to-do.
func (d *draft) tagWords(t *Todo) []string {
	names := make([]string, 0, len(t.Tags))
	for _, id := range t.Tags {
		if tag, ok := d.tags.get(id); ok {
			names = append(names, tag.Name)
		}
	}
	return names
}

// addTags appends the ids of the named tags, each once, and makes those that
// do not exist. Names differ by more than their case.
func (d *draft) addTags(tags []ID, names []string) ([]ID, error) {
	for _, name := range names {
		id, known := d.named[name]
		if !known {
			checked, err := checkTag(name)
			if err != nil {
				return nil, err
			}
			tag, ok := d.tagNamed(checked)
			if !ok {
				tag = Tag{ID: d.env.NewID(), Name: checked, Colour: term.NthColour(len(d.desk.tags) + len(d.tags.order))}
				d.tags.put(tag)
			}
			id = tag.ID
			if d.named == nil {
				d.named = map[string]ID{}
			}
			d.named[name] = id
		}
		if !slices.Contains(tags, id) {
			tags = append(tags, id)
		}
	}
	return tags, nil
}

// nested returns a tag with all that are nested under it, the shortest first.
func (d *draft) nested(tag Tag) []Tag {
	var found []Tag
	for _, t := range d.tags.all() {
		if tag.Covers(&t) {
			found = append(found, t)
		}
	}
	slices.SortFunc(found, func(a, b Tag) int { return strings.Compare(a.Name, b.Name) })
	return found
}

func (c EditTag) run(d *draft) error {
	tag, ok := d.tags.get(c.ID)
	if !ok {
		return &NotFoundError{"tag", c.ID}
	}
	tag.Unmade = false // it is chosen now, and stays
	if c.Colour != nil {
		tag.Colour = *c.Colour
		d.tags.put(tag)
		d.says = "Tag changed: " + quote(tag.Name)
	}
	if c.Name == nil {
		return nil
	}
	name, err := checkTag(*c.Name)
	if err != nil {
		return inField("name", err)
	}
	for _, t := range d.nested(tag) {
		next := t
		next.Name, next.Unmade = name+t.Name[len(tag.Name):], false
		if _, err := checkTag(next.Name); err != nil {
			return inField("name", err)
		}
		if other, taken := d.desk.tagNames[strings.ToLower(next.Name)]; taken && other != t.ID {
			return refuse("name", "A tag called “%s” exists already. Merge the two instead.", next.Name)
		}
		d.tags.put(next)
	}
	d.says = "Tag renamed: " + quote(tag.Name) + " is now " + quote(name)
	return nil
}

func (c MergeTags) run(d *draft) error {
	from, ok := d.tags.get(c.From)
	if !ok {
		return &NotFoundError{"tag", c.From}
	}
	into, ok := d.tags.get(c.Into)
	switch {
	case !ok:
		return refuse("into", "There is no tag with the id %s.", c.Into)
	case c.From == c.Into:
		return refuse("into", "“%s” cannot be merged into itself; give another tag.", into.Name)
	case from.Covers(&into):
		return refuse("into", "“%s” is nested under “%s”; the two cannot be merged this way round.", into.Name, from.Name)
	}
	instead := map[ID]ID{}
	for _, t := range d.nested(from) {
		name := into.Name + t.Name[len(from.Name):]
		if other, taken := d.tagNamed(name); taken {
			instead[t.ID] = other.ID
			d.askInstead(question.Tag, t.ID, other.ID)
			d.tags.remove(t.ID)
			continue
		}
		t.Name = name
		d.tags.put(t)
	}
	n := d.replaceTags(instead)
	d.says = "Merged: " + quote(from.Name) + " into " + quote(into.Name) + ", " + count(n, "to-do") + " changed"
	return nil
}

func (c DeleteTag) run(d *draft) error {
	tag, ok := d.tags.get(c.ID)
	if !ok {
		return &NotFoundError{"tag", c.ID}
	}
	gone := map[ID]ID{}
	for _, t := range d.nested(tag) {
		gone[t.ID] = ID{}
		d.tags.remove(t.ID)
	}
	n := d.replaceTags(gone)
	d.says = "Tag removed: " + quote(tag.Name) + ", from " + count(n, "to-do") + d.askedFor(question.Tag, slices.Collect(maps.Keys(gone))...)
	return nil
}

// replaceTags gives every to-do another tag in place of one, or none, and says
// how many it changed.
func (d *draft) replaceTags(instead map[ID]ID) int {
	carry := d.desk.those(func(t *Todo) bool {
		return slices.ContainsFunc(t.Tags, func(id ID) bool { _, ok := instead[id]; return ok })
	})
	for _, t := range carry {
		var tags []ID
		for _, id := range t.Tags {
			if to, ok := instead[id]; ok {
				id = to
			}
			if !id.IsZero() && !slices.Contains(tags, id) {
				tags = append(tags, id)
			}
		}
		next := *t
		next.Tags = tags
		d.put(next)
	}
	return len(carry)
}
