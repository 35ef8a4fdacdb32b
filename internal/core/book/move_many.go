package book

import (
	"cmp"
	"slices"
)

// MoveMany moves many to-dos, with their subtasks, into one home: at its end, or
// beside one that stands there, one behind the other in the order of their ids. One
// that stands under another of them stays there. Its work is in proportion to what
// is moved and to what the home holds.
type MoveMany struct {
	IDs []ID
	// To says where; its ID is left out.
	To Move
}

func (MoveMany) kind() Kind { return "move" }

func (c MoveMany) run(d *draft) error {
	if err := checkMany(c.IDs); err != nil {
		return err
	}
	chosen, once := eachOnce(c.IDs)
	var moved []moving
	for _, id := range once {
		was, err := d.todo(id)
		if err != nil {
			return goneOfMany(id)
		}
		if d.underOneOf(chosen, &was) {
			continue
		}
		next, err := d.headFor(id, c.To)
		if err != nil {
			return allOrNone(err)
		}
		moved = append(moved, moving{was, next})
	}
	if anchor := cmp.Or(c.To.After, c.To.Before); !anchor.IsZero() {
		if err := d.placeBeside(moved, c.To, anchor); err != nil {
			return allOrNone(err)
		}
	} else {
		last := d.endOf(moved[0].next.home())
		for i := range moved {
			if moved[i].came() {
				moved[i].next.Position, last = last, last.After()
			}
		}
	}
	acted := make([]ID, 0, len(moved))
	for _, m := range moved {
		if err := d.settle(m.next, m.was); err != nil {
			return err
		}
		acted = append(acted, m.next.ID)
	}
	first := moved[0]
	if !first.next.Parent.IsZero() {
		parent, err := d.todo(first.next.Parent)
		if err != nil {
			return err
		}
		d.did("Now under "+quote(parent.Title), &first.was, d.alsoOpen())
	} else {
		d.did("Moved to "+d.homeName(&first.next), &first.was, d.stood(&first.was)+d.says)
	}
	d.sayMany(acted)
	return nil
}

// moving is a to-do before and after a move.
type moving struct{ was, next Todo }

// came reports whether it comes from another home, or another stretch of this one.
func (m *moving) came() bool {
	return m.was.List != m.next.List || m.was.Section != m.next.Section || m.was.Parent != m.next.Parent
}

// headFor returns a to-do as it is to be where a move puts it, but for its position.
func (d *draft) headFor(id ID, to Move) (Todo, error) {
	t, err := d.alive(id)
	if err != nil {
		return t, err
	}
	if !t.Record.IsZero() && !to.Parent.IsZero() {
		return t, refuse("parent", "“%s” is a record of what was done; it stands under nothing.", t.Title)
	}
	t.List, t.Section, t.Parent = to.List, to.Section, to.Parent
	return t, d.checkStanding(&t)
}

// placeBeside gives positions to what is moved beside an anchor. In a list that
// stands in another order than one's own, those that the order does not let stand
// there go to the end where they come from elsewhere; where one of them is of this
// home, the list keeps one's own order from then on.
func (d *draft) placeBeside(moved []moving, to Move, anchor ID) error {
	home := moved[0].next.home()
	order := d.orderOf(moved[0].next.List)
	all := d.siblingsBut(home, moved)
	before, behind, err := besides(all, &moved[0].next, order, to, anchor)
	if err != nil {
		return err
	}
	if order != ByHand {
		fits := func(t *Todo) bool {
			return (before == nil || order.compareKeys(before, t) <= 0) && (behind == nil || order.compareKeys(t, behind) <= 0)
		}
		if slices.ContainsFunc(moved, func(m moving) bool { return !m.came() && !fits(&m.next) }) {
			if err := d.keepByHand(moved[0].next.List, order); err != nil {
				return err
			}
			all = d.siblingsBut(home, moved)
			if before, behind, err = besides(all, &moved[0].next, ByHand, to, anchor); err != nil {
				return err
			}
			order = ByHand
		}
	}
	// Whose keys are those of a neighbour stand beside it; the order of the others is
	// settled by their keys, wherever they stand.
	var between, ahead, end []*Todo
	for i := range moved {
		t := &moved[i].next
		switch {
		case order == ByHand || before != nil && order.compareKeys(before, t) == 0:
			between = append(between, t)
		case behind != nil && order.compareKeys(t, behind) == 0:
			ahead = append(ahead, t)
		default:
			end = append(end, t)
		}
	}
	if before != nil && behind != nil && lower(all, behind.Position) == before.Position {
		between, ahead = append(between, ahead...), nil // both come into one gap, and share it
	}
	if order == ByHand || before != nil {
		low := Position("")
		if before != nil {
			low = before.Position
		}
		spreadOut(between, low, higher(all, low, before == nil))
	}
	if behind != nil {
		spreadOut(ahead, lower(all, behind.Position), behind.Position)
	}
	last := Position("")
	for _, t := range slices.Concat(all, between, ahead) {
		last = max(last, t.Position)
	}
	for _, t := range end {
		last = last.After()
		t.Position = last
	}
	return nil
}

// siblingsBut returns what a home holds, the bin's too, by positions, without what
// is moved.
func (d *draft) siblingsBut(home ID, moved []moving) []*Todo {
	without := make(map[ID]bool, len(moved))
	for i := range moved {
		without[moved[i].next.ID] = true
	}
	all := slices.DeleteFunc(slices.Clone(d.in(home)), func(t *Todo) bool { return without[t.ID] })
	slices.SortFunc(all, ComparePositions)
	return all
}

// besides returns the siblings that are shown on both sides of where a move puts
// something; none is the start or the end.
func besides(all []*Todo, t *Todo, order Order, to Move, anchor ID) (before, behind *Todo, err error) {
	before, behind = neighbours(all, t, order, anchor, !to.After.IsZero())
	if before == nil && behind == nil {
		return nil, nil, noAnchor(to)
	}
	return before, behind, nil
}

// higher returns the first position above another, of all; first takes the lowest.
func higher(all []*Todo, low Position, first bool) Position {
	for _, t := range all {
		if first || t.Position > low {
			return t.Position
		}
	}
	return ""
}

// lower returns the last position below another, of all.
func lower(all []*Todo, high Position) (low Position) {
	for _, t := range all {
		if t.Position < high {
			low = t.Position
		}
	}
	return low
}

// spreadOut gives to-dos positions between two, in their order, with as much room
// between them as there is.
func spreadOut(todos []*Todo, low, high Position) {
	switch {
	case len(todos) == 0:
		return
	case high == "":
		for _, t := range todos {
			low = low.After()
			t.Position = low
		}
		return
	case low == "":
		for _, t := range slices.Backward(todos) {
			high = high.before()
			t.Position = high
		}
		return
	}
	middle := len(todos) / 2
	todos[middle].Position = low.Between(high)
	spreadOut(todos[:middle], low, todos[middle].Position)
	spreadOut(todos[middle+1:], todos[middle].Position, high)
}
