package book

import "slices"

// part is where a to-do is kept, so that a view scans only what it may hold.
type part uint8

const (
	partOpen part = iota
	partPaused
	partClosed
	partKept
	partNotes
	partAway
	partBin
	parts
)

func (b *Desk) partOf(t *Todo) part {
	list := b.lists[t.List]
	switch {
	case !t.Deleted.IsZero():
		return partBin
	case list != nil && list.Away():
		return partAway
	case t.kept():
		return partKept
	case t.IsNote:
		return partNotes
	case t.Paused():
		return partPaused
	case t.Open():
		return partOpen
	}
	return partClosed
}

// seat finds a to-do in its part.
type seat struct {
	todo *Todo
	part part
	slot int
}

// fill puts many to-dos into a Book that has none, and orders siblings once.
func (b *Desk) fill(rows []Diff[Todo]) {
	for _, d := range rows {
		b.carry(d.After, 1)
		b.siblings[d.After.home()] = append(b.siblings[d.After.home()], d.After)
		b.addPart(seat{todo: d.After, part: b.partOf(d.After)})
	}
	for _, siblings := range b.siblings {
		slices.SortFunc(siblings, ComparePositions)
	}
}

// manyAtOnce is from how many changed to-dos on the siblings of a home are put
// together anew, in place of moving each among them.
const manyAtOnce = 100

// hang puts a changed to-do among its siblings, and takes it from those it leaves.
func (b *Desk) hang(d Diff[Todo]) {
	if d.After == nil {
		b.unhang(b.todos[d.Before.ID].todo)
		return
	}
	t := d.After
	old, ok := b.todos[t.ID]
	if ok && old.todo.home() == t.home() && old.todo.Position == t.Position {
		at, _ := among(b.siblings[t.home()], t)
		b.siblings[t.home()][at] = t
		return
	}
	if ok {
		b.unhang(old.todo)
	}
	at, _ := among(b.siblings[t.home()], t)
	b.siblings[t.home()] = slices.Insert(b.siblings[t.home()], at, t)
}

// hangMany is hang for many. Those that stay where they are keep their place among
// their siblings; where many move, their homes are gone through once.
func (b *Desk) hangMany(all []Diff[Todo]) {
	var diffs []Diff[Todo]
	for _, d := range all {
		if d.After != nil {
			if old, ok := b.todos[d.After.ID]; ok && old.todo.home() == d.After.home() && old.todo.Position == d.After.Position {
				b.hang(d)
				continue
			}
		}
		diffs = append(diffs, d)
	}
	if len(diffs) <= manyAtOnce {
		for _, d := range diffs {
			b.hang(d)
		}
		return
	}
	type moves struct{ leave, come []*Todo }
	homes := map[ID]*moves{}
	of := func(t *Todo) *moves {
		m, ok := homes[t.home()]
		if !ok {
			m = &moves{}
			homes[t.home()] = m
		}
		return m
	}
	for _, d := range diffs {
		row := d.Before
		if d.After != nil {
			row = d.After
			of(row).come = append(of(row).come, row)
		}
		if old, ok := b.todos[row.ID]; ok {
			of(old.todo).leave = append(of(old.todo).leave, old.todo)
		}
	}
	for home, m := range homes {
		slices.SortFunc(m.leave, ComparePositions)
		slices.SortFunc(m.come, ComparePositions)
		if merged := merge(without(b.siblings[home], m.leave), m.come); len(merged) > 0 {
			b.siblings[home] = merged
		} else {
			delete(b.siblings, home)
		}
	}
}

// without returns siblings less those that leave, which are some of them and in the same order.
func without(siblings, leave []*Todo) []*Todo {
	if len(leave) == 0 {
		return siblings
	}
	stay := make([]*Todo, 0, len(siblings)-len(leave))
	for _, t := range siblings {
		if len(leave) > 0 && t == leave[0] {
			leave = leave[1:]
		} else {
			stay = append(stay, t)
		}
	}
	return stay
}

// merge returns siblings and newcomers in one order; each is in order.
func merge(siblings, come []*Todo) []*Todo {
	if len(come) == 0 {
		return siblings
	}
	merged := make([]*Todo, 0, len(siblings)+len(come))
	for _, t := range come {
		at, _ := among(siblings, t)
		merged = append(append(merged, siblings[:at]...), t)
		siblings = siblings[at:]
	}
	return append(merged, siblings...)
}

// putPart keeps a changed to-do in the part it belongs to.
func (b *Desk) putPart(d Diff[Todo]) {
	if d.After == nil {
		b.carry(b.todos[d.Before.ID].todo, -1)
		b.takePart(b.todos[d.Before.ID])
		delete(b.todos, d.Before.ID)
		return
	}
	t := d.After
	old, ok := b.todos[t.ID]
	if ok {
		b.carry(old.todo, -1)
	}
	b.carry(t, 1)
	next := seat{todo: t, part: b.partOf(t), slot: old.slot}
	if ok && old.part == next.part {
		b.parts[next.part][next.slot] = t
		b.todos[t.ID] = next
		return
	}
	if ok {
		b.takePart(old)
	}
	b.addPart(next)
}

// carry counts a to-do among those that carry its tags, or no more.
func (b *Desk) carry(t *Todo, by int) {
	for _, tag := range t.Tags {
		if b.carriers[tag] += by; b.carriers[tag] == 0 {
			delete(b.carriers, tag)
		}
	}
}

// among finds where a to-do stands, or would stand, among siblings.
func among(siblings []*Todo, t *Todo) (int, bool) {
	return slices.BinarySearchFunc(siblings, t, ComparePositions)
}

// unhang takes a to-do from its siblings.
func (b *Desk) unhang(t *Todo) {
	where := t.home()
	at, _ := among(b.siblings[where], t)
	if rest := slices.Delete(b.siblings[where], at, at+1); len(rest) > 0 {
		b.siblings[where] = rest
	} else {
		delete(b.siblings, where)
	}
}

func (b *Desk) addPart(p seat) {
	p.slot = len(b.parts[p.part])
	b.todos[p.todo.ID] = p
	b.parts[p.part] = append(b.parts[p.part], p.todo)
}

// takePart fills the gap with the part's last to-do.
func (b *Desk) takePart(gone seat) {
	rows := b.parts[gone.part]
	end := rows[len(rows)-1]
	rows[gone.slot] = end
	rows[len(rows)-1] = nil
	b.parts[gone.part] = rows[:len(rows)-1]
	if end.ID != gone.todo.ID {
		p := b.todos[end.ID]
		p.slot = gone.slot
		b.todos[end.ID] = p
	}
}

// sortAnew puts the to-dos of a list into the parts they belong to now.
func (b *Desk) sortAnew(list ID) {
	for t := range b.OfList(list) {
		old := b.todos[t.ID]
		if part := b.partOf(t); part != old.part {
			b.takePart(old)
			old.part = part
			b.addPart(old)
		}
	}
}
