package capture

import (
	"slices"

	"tincup/internal/core/day"
)

// settleTwice decides between several values for one field. The same value twice is one. Of
// different ones the only one with a word such as "by" wins, and the others stay in the
// title; where none has such a word they are a series, and none is read; where several
// have, the resolver says so.
func (r *reader) settleTwice() {
	var times [itemNote + 1]int // how often each kind is said
	for i := range r.items {
		times[r.items[i].kind]++
	}
	if times[itemPerson] > 1 {
		r.settlePeople()
	}
	for _, kind := range []itemKind{itemDue, itemPlan, itemRepeat, itemPriority, itemEstimate, itemList} {
		if times[kind] < 2 {
			continue
		}
		var same []int // items of the kind, in the order of the sentence
		for i := range r.items {
			if r.items[i].kind == kind {
				same = append(same, i)
			}
		}
		slices.SortFunc(same, func(a, b int) int { return r.items[a].span.Start - r.items[b].span.Start })
		introduced := 0
		differ := false
		for _, i := range same {
			if r.items[i].introduced {
				introduced++
			}
			differ = differ || !r.alike(&r.items[i], &r.items[same[0]])
		}
		gone := map[int]bool{}
		for n, i := range same {
			switch {
			case !differ:
				if gone[i] = n > 0; n > 0 {
					first := &r.items[same[0]]
					first.also = append(first.also, r.items[i].span)
				}
			case introduced <= 1 && !r.items[i].introduced:
				gone[i] = true
				r.putBack(r.items[i].span)
			}
		}
		var kept []item
		for i := range r.items {
			if !gone[i] {
				kept = append(kept, r.items[i])
			}
		}
		r.items = kept
		if kind == itemRepeat {
			r.putBackTails()
		}
	}
}

// putBackTails lets the ends of a repeat be words again where no repeat is left.
func (r *reader) putBackTails() {
	if slices.ContainsFunc(r.items, func(it item) bool { return it.kind == itemRepeat }) {
		return
	}
	r.items = slices.DeleteFunc(r.items, func(it item) bool {
		tail := it.kind == itemUntil || it.kind == itemPeriod || it.kind == itemCount || it.kind == itemWeekdays
		if tail {
			r.putBack(it.span)
		}
		return tail
	})
}

// settlePeople lets a person who is named in the title give way to one who is said.
func (r *reader) settlePeople() {
	said := slices.ContainsFunc(r.items, func(it item) bool { return it.kind == itemPerson && !it.inTitle })
	r.items = slices.DeleteFunc(r.items, func(it item) bool {
		gone := it.kind == itemPerson && it.inTitle && said
		said = said || it.kind == itemPerson
		return gone
	})
}

// alike reports whether two items of a kind say the same.
func (r *reader) alike(a, b *item) bool {
	switch {
	case a.kind == itemPlan:
		return r.alikePlans(a, b)
	case a.kind == itemRepeat:
		return a.rule.rule.String() == b.rule.rule.String() && a.rule.anchor == b.rule.anchor && a.time.at == b.time.at && a.rule.wrong == b.rule.wrong
	case a.kind != itemDue:
		return a.n == b.n && a.name == b.name
	}
	if a.date == nil || b.date == nil {
		return a.date == b.date && a.time.at == b.time.at
	}
	m := resolver{clock: r.env.Clock, today: r.env.Clock.Today(), settings: r.env.Settings}
	first, why := m.date(a.date, "")
	second, also := m.date(b.date, "")
	sameTime := a.time.at == b.time.at || a.time.at == (day.TimeOfDay{}) || b.time.at == (day.TimeOfDay{})
	return a.date.form != inMinutes && why == also && first == second && sameTime
}

func (r *reader) alikePlans(a, b *item) bool {
	if a.date == nil || b.date == nil {
		return a.parked == b.parked && a.date == b.date
	}
	m := resolver{clock: r.env.Clock, today: r.env.Clock.Today(), settings: r.env.Settings}
	first, why := m.horizon(a.date, "")
	second, also := m.horizon(b.date, "")
	return why == also && first == second && a.time.at == b.time.at && a.n == b.n
}

// putBack lets the words of a span be words of the title again, with the comma before them.
func (r *reader) putBack(s Span) {
	for i := range r.tokens {
		if !r.tokens[i].span().within(s) {
			continue
		}
		r.setCut(i, false)
		if i > 0 && r.tokens[i-1].kind == comma {
			r.setCut(i-1, false)
		}
	}
}
