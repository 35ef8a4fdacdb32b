package book

import (
	"cmp"
	"slices"
)

// makeRoom moves to-dos that the draft has put where a sibling stands to right
// behind it. What the draft has not written stays.
func (d *draft) makeRoom(home ID) {
	all := slices.Clone(d.in(home))
	slices.SortFunc(all, func(a, b *Todo) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), cmp.Compare(d.written(a.ID), d.written(b.ID)), ComparePositions(a, b))
	})
	for i := 1; i < len(all); i++ {
		if all[i].Position > all[i-1].Position {
			continue
		}
		behind := Position("")
		for _, t := range all[i:] {
			if t.Position > all[i-1].Position {
				behind = t.Position
				break
			}
		}
		next := *all[i]
		next.Position = all[i-1].Position.Between(behind)
		d.record(next)
		all[i] = d.todos[next.ID].After
	}
}

// written tells rows that the draft has written from those it has not.
func (d *draft) written(id ID) int {
	if _, ok := d.todos[id]; ok {
		return 1
	}
	return 0
}

// makeRoomForAll is makeRoom for every list and every to-do that the draft has put something into.
func (d *draft) makeRoomForAll() {
	seen := map[ID]bool{}
	for _, id := range d.order {
		diff := d.todos[id]
		if diff.After == nil || diff.Before != nil && diff.Before.home() == diff.After.home() && diff.Before.Position == diff.After.Position {
			continue
		}
		if home := diff.After.home(); !seen[home] {
			seen[home] = true
			d.makeRoom(home)
		}
	}
}

// spread is makeRoom for shelves, lists, sections and views.
func (d *draft) spread() {
	apart(&d.shelves, func(*Shelf) ID { return ID{} }, func(s *Shelf) *Position { return &s.Position })
	apart(&d.lists, func(l *List) ID { return l.Shelf }, func(l *List) *Position { return &l.Position })
	apart(&d.sections, func(s *Section) ID { return s.List }, func(s *Section) *Position { return &s.Position })
	apart(&d.views, func(*View) ID { return ID{} }, func(v *View) *Position { return &v.Position })
}

// apart moves rows that stand where another of theirs stands to right behind
// it; those that the draft has written give way.
func apart[T row[T]](r *rows[T], home func(*T) ID, at func(*T) *Position) {
	groups := map[ID][]T{}
	for _, v := range r.all() {
		groups[home(&v)] = append(groups[home(&v)], v)
	}
	for _, group := range groups {
		slices.SortStableFunc(group, func(a, b T) int {
			_, x := r.diffs[a.key()]
			_, y := r.diffs[b.key()]
			order := 0
			if x != y {
				order = map[bool]int{true: 1, false: -1}[x]
			}
			return cmp.Or(cmp.Compare(*at(&a), *at(&b)), order)
		})
		for i := 1; i < len(group); i++ {
			last := *at(&group[i-1])
			if *at(&group[i]) > last {
				continue
			}
			behind := Position("")
			for _, v := range group[i:] {
				if p := *at(&v); p > last {
					behind = p
					break
				}
			}
			*at(&group[i]) = last.Between(behind)
			r.put(group[i])
		}
	}
}
