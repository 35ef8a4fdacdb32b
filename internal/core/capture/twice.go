package capture

import (
	"slices"
	"strings"

	"tincup/internal/core/repeat"
)

// settleTwice decides between several values for one field. The same value twice is one. Of
// different ones the only one with a word such as "by" wins, and the others stay in the
// title; where none has such a word they are a series, and none is read; where several
// have, the resolver says so.
func (r *reader) settleTwice() {
	if len(r.items) < 2 {
		return
	}
	r.settlePeople()
	r.mergeAlike()
	for _, kind := range []itemKind{itemDue, itemTime, itemPlan, itemRepeat, itemPriority, itemEstimate, itemList} {
		r.settleSeries(kind)
	}
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

// mergeAlike lets the first of the items that say the same stand for all of them.
func (r *reader) mergeAlike() {
	for i := 0; i < len(r.items); i++ {
		for j := i + 1; j < len(r.items); j++ {
			a, b := &r.items[i], &r.items[j]
			if !r.alike(a, b) {
				continue
			}
			if b.span.Start < a.span.Start {
				*a, *b = *b, *a
			}
			a.merge(b)
			r.items = slices.Delete(r.items, j, j+1)
			j--
		}
	}
}

// merge lets an item stand for another that says the same, or a part of it.
func (it *item) merge(other *item) {
	if it.kind == itemTime {
		it.kind, it.date = other.kind, other.date
	}
	span := other.span
	if (it.time.none() || it.time.half && !other.time.half) && !other.time.none() { // the one that says more
		it.time, it.span, span = other.time, span, it.span
	}
	it.also = append(it.also, span)
	it.introduced = it.introduced || other.introduced
}

// alike reports whether two items say the same; of a due, one may leave out the date or the
// time that the other has.
func (r *reader) alike(a, b *item) bool {
	sameTime := a.time.at == b.time.at && a.time.wrong == b.time.wrong
	switch {
	case a.kind == itemTime && b.kind <= itemTime, b.kind == itemTime && a.kind == itemDue:
		return sameTime
	case a.kind != b.kind:
		return false
	case a.kind == itemDue:
		return (sameTime || a.time.none() || b.time.none()) && r.sameDay(a, b)
	case a.kind == itemRepeat:
		return sameTime && a.rule.rule.String() == b.rule.rule.String() && a.rule.anchor == b.rule.anchor && a.rule.wrong == b.rule.wrong
	case a.kind == itemPlan:
		return sameTime && a.n == b.n && a.parked == b.parked && r.sameHorizon(a, b)
	case a.kind == itemTag, a.kind == itemWeekdays:
		return false
	}
	return sameTime && a.n == b.n && a.unit == b.unit && a.name == b.name && a.role == b.role && a.before == b.before &&
		a.edge == b.edge && r.sameDay(a, b)
}

// sameDay reports whether the words for two dates name one day, or the same that is none.
func (r *reader) sameDay(a, b *item) bool {
	if a.date == nil || b.date == nil {
		return a.date == b.date
	}
	if a.date.form == inMinutes || b.date.form == inMinutes {
		return a.date.form == b.date.form && a.date.n == b.date.n
	}
	first, why := r.resolver().date(a.date, r.words(a.span))
	second, also := r.resolver().date(b.date, r.words(b.span))
	return why == also && first == second
}

// sameHorizon reports whether the words for two planned dates cover the same days.
func (r *reader) sameHorizon(a, b *item) bool {
	if a.date == nil || b.date == nil {
		return a.date == b.date
	}
	first, why := r.resolver().horizon(a.date, r.words(a.span))
	second, also := r.resolver().horizon(b.date, r.words(b.span))
	return why == also && first == second
}

// resolver turns words for dates into dates at this moment.
func (r *reader) resolver() *resolver {
	return &resolver{clock: r.env.Clock, today: r.env.Clock.Today(), settings: r.env.Settings}
}

// settleSeries decides between different values for one field.
func (r *reader) settleSeries(kind itemKind) {
	times, introduced := 0, 0
	for i := range r.items {
		if r.items[i].kind == kind {
			times++
		}
	}
	if times < 2 {
		return
	}
	for i := range r.items {
		if it := &r.items[i]; it.kind == kind && r.binds(it) {
			introduced++
		}
	}
	if introduced > 1 {
		return
	}
	r.items = slices.DeleteFunc(r.items, func(it item) bool {
		if it.kind != kind || r.binds(&it) {
			return false
		}
		r.putBackAll(&it)
		return true
	})
	if kind == itemRepeat {
		r.putBackTails()
	}
}

// binds reports whether a word introduces a value so that another like it contradicts; "on" only says
// on which day something is.
func (r *reader) binds(it *item) bool {
	if !it.introduced || it.kind != itemDue {
		return it.introduced
	}
	first, _, _ := strings.Cut(strings.ToLower(r.words(it.span)), " ")
	return first != "on"
}

// settleRepeat leaves a date as words that is none of the days on which a repeat comes: "every Friday by
// Monday".
func (r *reader) settleRepeat() {
	at := slices.IndexFunc(r.items, func(it item) bool { return it.kind == itemRepeat })
	if at < 0 {
		return
	}
	days := r.items[at].rule.rule.ByDay
	for _, it := range r.items {
		if it.kind == itemWeekdays {
			days = slices.Concat(days, it.rule.rule.ByDay)
		}
	}
	if len(days) == 0 {
		return
	}
	r.items = slices.DeleteFunc(r.items, func(it item) bool {
		if it.kind != itemDue || it.date == nil || it.date.form == inMinutes {
			return false
		}
		on, why := r.resolver().date(it.date, r.words(it.span))
		other := why == "" && !slices.ContainsFunc(days, func(d repeat.NthDay) bool { return d.Day == on.Weekday() })
		if other {
			r.putBackAll(&it)
		}
		return other
	})
}

// settleAhead leaves a reminder before something as words where that was left so.
func (r *reader) settleAhead() {
	dated := slices.ContainsFunc(r.items, func(it item) bool {
		switch it.kind {
		case itemDue, itemTime, itemStart, itemRepeat:
			return true
		case itemPlan:
			return !it.parked
		}
		return false
	})
	if dated {
		return
	}
	var ahead []Span
	for _, it := range r.items {
		if it.kind == itemReminder && it.before {
			ahead = append(ahead, it.span)
		}
	}
	if len(ahead) == 0 {
		return
	}
	if named, ok := r.dayNamed(); ok {
		if r.begins.End == 0 {
			r.begins, r.beginsAt = named, ahead[0]
		}
		r.unread(ahead)
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
			r.putBackAll(&it)
		}
		return tail
	})
}

// putBackAll lets all that an item was said in be words of the title again.
func (r *reader) putBackAll(it *item) {
	r.putBack(it.span)
	for _, s := range it.also {
		r.putBack(s)
	}
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
