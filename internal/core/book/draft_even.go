package book

import "slices"

// Where rows are put into one gap again and again, positions grow, by a digit for
// every five or six of them. One that is longer than longPosition, in characters, has
// its neighbours moved apart.
const (
	longPosition  = 24
	shortPosition = 12
)

// evenOut moves the rows apart that stand round a long position the draft has made.
func (d *draft) evenOut() {
	for _, id := range slices.Clone(d.order) {
		diff := d.todos[id]
		if t := diff.After; t != nil && len(t.Position) > longPosition && (diff.Before == nil || diff.Before.Position != t.Position) {
			d.evenStretch(t)
		}
	}
	evenRows(&d.shelves, func(*Shelf) ID { return ID{} }, func(s *Shelf) *Position { return &s.Position })
	evenRows(&d.lists, func(l *List) ID { return l.Shelf }, func(l *List) *Position { return &l.Position })
	evenRows(&d.sections, func(s *Section) ID { return s.List }, func(s *Section) *Position { return &s.Position })
	evenRows(&d.views, func(*View) ID { return ID{} }, func(v *View) *Position { return &v.Position })
}

// evenStretch gives new positions to as few siblings on both sides of a to-do as have
// room for short ones.
func (d *draft) evenStretch(t *Todo) {
	all := slices.Clone(d.in(t.home()))
	slices.SortFunc(all, ComparePositions)
	at, _ := among(all, t)
	for width := 8; ; width *= 2 {
		from, to := max(at-width, 0), min(at+width+1, len(all))
		var low, high Position
		if from > 0 {
			low = all[from-1].Position
		}
		if to < len(all) {
			high = all[to].Position
		}
		stretch := make([]*Todo, 0, to-from)
		for _, s := range all[from:to] {
			next := *s
			stretch = append(stretch, &next)
		}
		spreadOut(stretch, low, high)
		if whole := from == 0 && to == len(all); !whole && slices.ContainsFunc(stretch, func(s *Todo) bool { return len(s.Position) > shortPosition }) {
			continue
		}
		for _, s := range stretch {
			d.put(*s)
		}
		return
	}
}

// evenRows gives new positions to all rows of a home in which the draft has made a
// long one: they are few.
func evenRows[T row[T]](r *rows[T], home func(*T) ID, at func(*T) *Position) {
	long := map[ID]bool{}
	for _, diff := range r.diffs {
		if diff.After != nil && len(*at(diff.After)) > longPosition {
			long[home(diff.After)] = true
		}
	}
	if len(long) == 0 {
		return
	}
	all := r.all()
	slices.SortStableFunc(all, func(a, b T) int { return compareStanding(*at(&a), *at(&b), a.key(), b.key()) })
	last := map[ID]Position{}
	for _, v := range all {
		if of := home(&v); long[of] {
			last[of] = last[of].After()
			*at(&v) = last[of]
			r.put(v)
		}
	}
}
