package book

import (
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// The kinds of changes that turn others round.
const (
	Undo Kind = "undo"
	Redo Kind = "redo"
)

// Invert returns the change that turns c round: undo of a command, redo of an
// undo. Only the fields c altered are set back, so that what another window
// did to other fields stays. Where one of those fields has been changed since,
// it refuses with a *ConflictError and says which. Where a rule would be broken by
// it, it refuses with a *RuleError, as a command does. Rows that come back to a
// position that is taken stand right behind the one that has it.
func (b *Desk) Invert(env Env, c *Change, kind Kind) (*Change, error) {
	d := newDraft(b, env)
	steps := []func() error{
		func() error {
			return d.shelves.invert(c.Shelves, shelfAttributes, func(s *Shelf) string { return s.Name })
		},
		func() error { return d.lists.invert(c.Lists, listAttributes, func(l *List) string { return l.Name }) },
		func() error {
			return d.sections.invert(c.Sections, sectionAttributes, func(s *Section) string { return s.Name })
		},
		func() error {
			return d.people.invert(c.People, personAttributes, func(p *Person) string { return p.Name })
		},
		func() error {
			return d.chosen.invert(c.Settings, settingsAttributes, func(*Chosen) string { return "Settings" })
		},
		func() error {
			return d.calendars.invert(c.Calendars, calendarAttributes, func(c *Calendar) string { return c.Name })
		},
		func() error { return d.views.invert(c.Views, viewAttributes, func(v *View) string { return v.Name }) },
		func() error { return d.invertTodos(c.Todos) },
		func() error { return d.invertNotes(c.Notes) },
		func() error { return d.invertPlaces(c) },
		d.keepPlaces,
		func() error { return d.invertRings(c) },
		func() error { return d.invertTags(c) },
		func() error { d.spread(); d.makeRoomForAll(); return nil },
		d.checkRows,
		d.checkTree,
		func() error { return d.checkTodos(c) },
	}
	for _, step := range steps {
		if err := step(); err != nil {
			return nil, err
		}
	}
	switch kind {
	case Undo:
		d.says = "Undone. " + c.Says
	default:
		d.says = strings.TrimPrefix(c.Says, "Undone. ")
	}
	return d.change(kind)
}

func (d *draft) invertTodos(diffs []Diff[Todo]) error {
	for _, diff := range diffs {
		if err := d.invertTodo(diff); err != nil {
			return err
		}
	}
	return nil
}

func (d *draft) invertTodo(diff Diff[Todo]) error {
	was, is := diff.Before, diff.After // is: what the change made of it
	if is == nil {
		if _, taken := d.desk.todos[was.ID]; taken {
			return &ConflictError{was.Title, []string{"restored"}}
		}
		d.record(*was)
		return nil
	}
	cur, err := d.desk.Todo(is.ID)
	if err != nil {
		return &ConflictError{is.Title, []string{"removed"}}
	}
	if was == nil {
		if fields := changedFields(is, cur); len(fields) > 0 {
			return &ConflictError{cur.Title, fields}
		}
		d.takeOut(cur.ID)
		return nil
	}
	next := *cur
	var clash []string
	for _, f := range todoFields {
		if f.same(was, is) {
			continue
		}
		if !f.same(cur, is) && !(f.name == "place" && strings.EqualFold(cur.Place, is.Place)) { // the row of a place settles the case of its name
			clash = append(clash, f.name)
		}
		f.copy(&next, was)
	}
	if len(clash) > 0 {
		return &ConflictError{cur.Title, clash}
	}
	next.Changed = d.now
	if cur.Changed == is.Changed {
		next.Changed = was.Changed
	}
	if cur.RemindFrom == is.RemindFrom {
		next.RemindFrom = was.RemindFrom
	}
	d.record(next)
	return nil
}

// record writes a row as it is, with a revision of its own.
func (d *draft) record(t Todo) {
	d.touched[t.ID] = true
	t.Revision = d.desk.Revision() + 1
	d.write(d.diff(t.ID), &t)
}

func (d *draft) invertNotes(diffs []Diff[Note]) error {
	for _, diff := range diffs {
		was, is := text(diff.Before), text(diff.After)
		id := noteID(diff)
		cur := ""
		if t, err := d.desk.Todo(id); err == nil {
			if cur, err = d.desk.Note(t); err != nil {
				return err
			}
			if cur != is {
				return &ConflictError{t.Title, []string{"notes"}}
			}
		}
		d.notes = append(d.notes, noteDiff(id, cur, was))
	}
	return nil
}

func text(n *Note) string {
	if n == nil {
		return ""
	}
	return n.Text
}

func noteID(d Diff[Note]) ID {
	if d.Before != nil {
		return d.Before.ID
	}
	return d.After.ID
}

// invertTags takes out tags the change made, and brings back those that went. One that others carry
// by now stays until an undo takes it from the last of them (letGoTags). Where the name of one is
// taken again, a redo of what made it takes that tag in its place; else the name is in the way.
func (d *draft) invertTags(c *Change) error {
	var rest []Diff[Tag]
	used := d.usedOf(c.Tags)
	for _, diff := range c.Tags {
		if diff.Before != nil && diff.After != nil && diff.After.Unmade && !diff.Before.Unmade {
			if _, there := d.tags.get(diff.After.ID); !there { // it went with the last that carried it
				diff.After = nil
			}
		}
		switch {
		case diff.After == nil:
			if other, taken := d.tagNamed(diff.Before.Name); taken {
				if c.Kind != Undo || !d.retag(diff.Before.ID, other.ID) {
					return &ConflictError{other.Name, []string{"name"}}
				}
				continue
			}
		case diff.Before == nil:
			tag, there := d.tags.get(diff.After.ID)
			if there && used[tag.ID] {
				tag.Unmade = true
				d.tags.put(tag)
			}
			if !there || used[tag.ID] {
				continue
			}
		}
		rest = append(rest, diff)
	}
	if err := d.tags.invert(rest, tagAttributes, func(t *Tag) string { return t.Name }); err != nil {
		return err
	}
	d.letGoTags()
	return nil
}

// letGoTags takes out the tags whose making was undone, where the draft takes them from the last
// to-do that carried them.
func (d *draft) letGoTags() {
	carried := map[ID]int{}
	for id := range d.todos {
		t := d.desk.todos[id].todo
		if t == nil {
			continue
		}
		for _, of := range t.Tags {
			if tag, there := d.tags.get(of); there && tag.Unmade {
				carried[of] = d.desk.carriers[of]
			}
		}
	}
	d.carried(carried)
	for _, tag := range slices.SortedFunc(maps.Keys(carried), ID.Compare) {
		if carried[tag] == 0 {
			d.tags.remove(tag)
		}
	}
}

// usedOf returns which of the tags that a change made some to-do carries, once the
// draft is applied.
func (d *draft) usedOf(diffs []Diff[Tag]) map[ID]bool {
	carried := map[ID]int{}
	for _, diff := range diffs {
		if diff.Before == nil {
			carried[diff.After.ID] = d.desk.carriers[diff.After.ID]
		}
	}
	d.carried(carried)
	used := map[ID]bool{}
	for tag, n := range carried {
		used[tag] = n > 0
	}
	return used
}

// carried counts, for tags with the number of to-dos that carry each, what the draft
// adds and takes away.
func (d *draft) carried(tags map[ID]int) {
	if len(tags) == 0 {
		return
	}
	count := func(t *Todo, by int) {
		if t == nil {
			return
		}
		for _, tag := range t.Tags {
			if _, asked := tags[tag]; asked {
				tags[tag] += by
			}
		}
	}
	for id, diff := range d.todos {
		count(diff.After, 1)
		count(d.desk.todos[id].todo, -1)
	}
}

// retag lets the draft's to-dos and views name the tag that now has the name. It
// cannot where a to-do would carry that one twice: it had both once.
func (d *draft) retag(gone, now ID) bool {
	for _, id := range d.order {
		t := d.todos[id].After
		if t == nil || !slices.Contains(t.Tags, gone) {
			continue
		}
		if slices.Contains(t.Tags, now) {
			return false
		}
		tags := slices.Clone(t.Tags)
		tags[slices.Index(tags, gone)] = now
		t.Tags = tags
	}
	d.askInstead(question.Tag, gone, now)
	return true
}

// checkTodos refuses what no command lets be: each to-do that is written keeps the
// rules between its fields, and none comes into a list that was archived since.
func (d *draft) checkTodos(c *Change) error {
	made := make(map[ID]day.Timestamp, len(c.Todos))
	for _, diff := range c.Todos {
		if diff.After != nil {
			made[diff.After.ID] = diff.After.Changed
		} else {
			made[diff.Before.ID] = diff.Before.Changed
		}
	}
	today := d.env.Clock.Today()
	picked := false
	for _, id := range d.order {
		diff := d.todos[id]
		t := diff.After
		if t == nil {
			continue
		}
		// What contradicted itself before may go on doing so.
		if why := clashOf(t); why != "" && (diff.Before == nil || clashOf(diff.Before) == "") {
			return refuse("id", "“%s” %s. Change that first.", t.Title, why)
		}
		if diff.Before == nil || diff.Before.List != t.List {
			if l, ok := d.lists.get(t.List); ok && l.Archived > made[t.ID] && t.Deleted.IsZero() {
				return refuse("list", "The list “%s” is archived. Bring it back first.", l.Name)
			}
		}
		if diff.Before == nil || diff.Before.Parent != t.Parent {
			if d.depth(t)+d.height(t.ID) > MaxDepth {
				return refuse("parent", "“%s” would stand more than %d levels deep.", t.Title, MaxDepth)
			}
		}
		picked = picked || t.Open() && t.Handful == today && (diff.Before == nil || diff.Before.Handful != today || !diff.Before.Open())
	}
	if picked {
		if five := d.handful(today); len(five) > MaxHandful {
			return refuse("handful", "The handful would hold %d: %s. Take one out first.", len(five), strings.Join(five, ", "))
		}
	}
	return nil
}

// depth is how many to-dos a to-do stands under.
func (d *draft) depth(t *Todo) int {
	n := 0
	for above := t.Parent; !above.IsZero() && n <= MaxDepth; n++ {
		p, err := d.todo(above)
		if err != nil {
			break
		}
		above = p.Parent
	}
	return n
}
