package book

import (
	"cmp"
	"slices"
)

// Move puts a to-do, with its subtasks, into a home: a list or one of its
// sections, the Cup, or under another to-do.
type Move struct {
	ID ID
	// List is none for the Cup, and left out where there is a Parent.
	List    ID
	Section ID
	Parent  ID
	// After and Before name the sibling it is put behind or before. With
	// neither it goes to the end, unless it is in the home already.
	After, Before ID
}

func (Move) kind() Kind { return "move" }

func (c Move) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Record.IsZero() && !c.Parent.IsZero() {
		return refuse("parent", "“%s” is a record of what was done; it stands under nothing.", t.Title)
	}
	next := t
	next.List, next.Section, next.Parent = c.List, c.Section, c.Parent
	if err := d.checkStanding(&next); err != nil {
		return err
	}
	moved := next.List != t.List || next.Section != t.Section || next.Parent != t.Parent
	if err := d.position(&next, c, moved); err != nil {
		return err
	}
	if err := d.settle(next, t); err != nil {
		return err
	}
	switch {
	case next.Parent != t.Parent && !next.Parent.IsZero():
		parent, err := d.todo(next.Parent)
		if err != nil {
			return err
		}
		d.did("Now under "+quote(parent.Title), &t, d.alsoOpen())
	case !moved:
		d.did("Moved", &t, d.says)
	default:
		d.did("Moved to "+d.homeName(&next), &t, d.stood(&t))
	}
	return nil
}

// stood tells where a to-do stood before it was moved: " (before: under “Labels”)".
func (d *draft) stood(t *Todo) string {
	if parent, err := d.todo(t.Parent); err == nil {
		return " (before: under " + quote(parent.Title) + ")"
	}
	return " (before: " + d.homeName(t) + ")"
}

// homeName names the list a to-do is in, with its section.
func (d *draft) homeName(t *Todo) string {
	list, ok := d.lists.get(t.List)
	if !ok {
		return "the Cup"
	}
	if s, ok := d.sections.get(t.Section); ok {
		return list.Name + ", " + s.Name
	}
	return list.Name
}

// checkStanding checks where a to-do is to stand; under a parent it takes that
// one's list and section.
func (d *draft) checkStanding(t *Todo) error {
	if t.Parent.IsZero() {
		if err := d.checkList(t.List); err != nil {
			return err
		}
		return d.checkSection(t.Section, t.List)
	}
	for above := t.Parent; !above.IsZero(); {
		if above == t.ID {
			return refuse("parent", "“%s” cannot stand under itself or under one of its own subtasks.", t.Title)
		}
		p, err := d.todo(above)
		if err != nil {
			break
		}
		above = p.Parent
	}
	levels := 1
	if !t.ID.IsZero() {
		levels += d.height(t.ID)
	}
	parent, err := d.checkParent(t.Parent, levels)
	if err != nil {
		return err
	}
	if !t.List.IsZero() && t.List != parent.List {
		return refuse("list", "A subtask is in its parent's list. Leave the list out.")
	}
	t.List, t.Section = parent.List, parent.Section
	return nil
}

// settle writes a to-do at its new home and takes its subtasks along.
func (d *draft) settle(next, was Todo) error {
	if err := d.endUnderClosed(&next); err != nil {
		return err
	}
	d.put(next)
	if next.List != was.List || next.Section != was.Section {
		if err := d.below(next.ID, true, func(sub *Todo) error {
			s := *sub
			s.List, s.Section = next.List, next.Section
			d.put(s)
			return nil
		}); err != nil {
			return err
		}
	}
	if next.Open() {
		d.reopenAbove(next.Parent)
	}
	return nil
}

func (d *draft) checkList(id ID) error {
	if id.IsZero() {
		return nil
	}
	l, ok := d.lists.get(id)
	switch {
	case !ok:
		return refuse("list", "There is no list with the id %s.", id)
	case !l.Deleted.IsZero():
		return refuse("list", "The list “%s” is in the bin. Restore it first.", l.Name)
	case !l.Archived.IsZero():
		return refuse("list", "The list “%s” is archived. Bring it back first.", l.Name)
	}
	return nil
}

func (d *draft) checkSection(id, list ID) error {
	if id.IsZero() {
		return nil
	}
	if s, ok := d.sections.get(id); !ok || s.List != list {
		return refuse("section", "There is no section with the id %s in this list.", id)
	}
	return nil
}

// position finds where a to-do stands among its siblings.
func (d *draft) position(t *Todo, c Move, moved bool) error {
	anchor := cmp.Or(c.After, c.Before)
	if anchor.IsZero() {
		if moved {
			t.Position = d.endOf(t.home())
		}
		return nil
	}
	all := d.in(t.home())
	order := d.orderOf(t.List)
	if order == ByHand {
		return d.besideByHand(t, all, anchor, c)
	}
	before, behind := neighbours(all, t, order, anchor, !c.After.IsZero())
	if before == nil && behind == nil {
		return noAnchor(c)
	}
	if before != nil && order.compareKeys(before, t) > 0 || behind != nil && order.compareKeys(t, behind) > 0 {
		return d.outOfOrder(t, order, before, moved)
	}
	if before != nil && order.compareKeys(before, t) != 0 {
		before = nil
	}
	if behind != nil && order.compareKeys(t, behind) != 0 {
		behind = nil
	}
	t.Position = between(all, t, before, behind)
	return nil
}

func noAnchor(c Move) error {
	field := "after"
	if c.After.IsZero() {
		field = "before"
	}
	return refuse(field, "There is no to-do with the id %s beside which it could stand. Look at the list again.", cmp.Or(c.After, c.Before))
}

// besideByHand finds the position directly beside an anchor: its siblings are
// in order as they are, so that nothing need be sorted or looked through.
func (d *draft) besideByHand(t *Todo, all []*Todo, anchor ID, c Move) error {
	beside, err := d.todo(anchor)
	if err != nil || beside.home() != t.home() || !shownBeside(&beside, t) {
		return noAnchor(c)
	}
	if len(d.todos) > 0 {
		slices.SortFunc(all, ComparePositions)
	}
	at, _ := among(all, &beside)
	step := 1
	if c.After.IsZero() {
		step = -1
	}
	next := Position("")
	for at += step; at >= 0 && at < len(all); at += step {
		if all[at].ID != t.ID {
			next = all[at].Position
			break
		}
	}
	if step > 0 {
		t.Position = beside.Position.Between(next)
	} else {
		t.Position = next.Between(beside.Position)
	}
	return nil
}

// neighbours finds the siblings between which a to-do would stand, behind an
// anchor or before it, as they are shown; none of both where the anchor is not
// among them.
func neighbours(all []*Todo, t *Todo, order Order, anchor ID, after bool) (before, behind *Todo) {
	at := slices.IndexFunc(all, func(s *Todo) bool { return s.ID == anchor && shownBeside(s, t) })
	if at < 0 {
		return nil, nil
	}
	if after {
		before = all[at]
	} else {
		behind = all[at]
	}
	for _, s := range all {
		if s == all[at] || !shownBeside(s, t) {
			continue
		}
		switch c := order.Compare(s, all[at]); {
		case after && c > 0 && (behind == nil || order.Compare(s, behind) < 0):
			behind = s
		case !after && c < 0 && (before == nil || order.Compare(s, before) > 0):
			before = s
		}
	}
	return before, behind
}

// shownBeside reports whether a list shows a sibling in the same stretch.
func shownBeside(s, t *Todo) bool {
	return s.ID != t.ID && s.Deleted.IsZero() && s.Record.IsZero() && s.Section == t.Section
}

// between finds a free position behind one sibling and before another; nil is
// the start or the end.
func between(all []*Todo, t, before, behind *Todo) Position {
	var low, high Position
	switch {
	case before != nil:
		low = before.Position
		for _, s := range all {
			if s.ID != t.ID && s.Position > low && (high == "" || s.Position < high) {
				high = s.Position
			}
		}
	case behind != nil:
		high = behind.Position
		for _, s := range all {
			if s.ID != t.ID && s.Position < high && s.Position > low {
				low = s.Position
			}
		}
	default: // alone of its kind: anywhere that is free
		for _, s := range all {
			low = max(low, s.Position)
		}
	}
	return low.Between(high)
}

// outOfOrder is a move to where the list's order would not let the to-do stand.
// One that comes from elsewhere goes to the end. One moved among its siblings
// makes the list keep the order it shows from then on by hand.
func (d *draft) outOfOrder(t *Todo, order Order, before *Todo, moved bool) error {
	if moved {
		t.Position = d.endOf(t.home())
		return nil
	}
	if err := d.keepByHand(t.List, order); err != nil {
		return err
	}
	now, err := d.todo(t.ID)
	if err != nil {
		return err
	}
	t.Position = now.Position
	if before != nil {
		b, err := d.todo(before.ID)
		if err != nil {
			return err
		}
		before = &b
		t.Position = between(d.in(t.home()), t, before, nil)
	} else {
		first := slices.MinFunc(d.in(t.home()), ComparePositions)
		t.Position = Position("").Between(first.Position)
	}
	return nil
}

// keepByHand lets a list stand by hand in the order that it shows.
func (d *draft) keepByHand(id ID, order Order) error {
	list, ok := d.lists.get(id)
	if !ok {
		return refuse("after", "The Cup stands in order of priority, then due. Change one of those, or sort it into a list first.")
	}
	for _, home := range d.homesOf(id) {
		d.freeze(home, order)
	}
	list.Order = ByHand
	d.lists.put(list)
	d.says = ". The list keeps your own order now"
	return nil
}

// homesOf returns a list and every to-do in it that has subtasks.
func (d *draft) homesOf(list ID) []ID {
	homes := []ID{list}
	for i := 0; i < len(homes); i++ {
		for _, t := range d.in(homes[i]) {
			if len(d.in(t.ID)) > 0 {
				homes = append(homes, t.ID)
			}
		}
	}
	return homes
}

// freeze gives the siblings of a home positions in the order they are shown in.
// As many as can be keep theirs.
func (d *draft) freeze(home ID, order Order) {
	shown := slices.Clone(d.in(home))
	slices.SortFunc(shown, order.Compare)
	stays := longestRising(shown)
	low := Position("")
	var between []*Todo
	settle := func(high Position) {
		spreadOut(between, low, high)
		for _, t := range between {
			d.put(*t)
		}
		between = nil
	}
	for i, s := range shown {
		if !stays[i] {
			next := *s
			between = append(between, &next)
			continue
		}
		settle(s.Position)
		low = s.Position
	}
	settle("")
}

// longestRising marks a longest run of to-dos, not all beside one another, whose
// positions rise (patience sorting: Schensted 1961).
func longestRising(todos []*Todo) []bool {
	tails := []int{}                  // of each length, the run with the lowest end
	before := make([]int, len(todos)) // what comes before each in its run
	in := make([]bool, len(todos))
	for i, t := range todos {
		n, _ := slices.BinarySearchFunc(tails, t.Position, func(at int, p Position) int { return cmp.Compare(todos[at].Position, p) })
		before[i] = -1
		if n > 0 {
			before[i] = tails[n-1]
		}
		if n == len(tails) {
			tails = append(tails, i)
		} else {
			tails[n] = i
		}
	}
	if len(tails) > 0 {
		for i := tails[len(tails)-1]; i >= 0; i = before[i] {
			in[i] = true
		}
	}
	return in
}

// orderOf is the order of a list's to-dos, and of the Cup's.
func (d *draft) orderOf(list ID) Order {
	if l, ok := d.lists.get(list); ok {
		return l.Order
	}
	return ByPriority
}
