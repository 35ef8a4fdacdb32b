package filter

import "tincup/internal/core/question"

// find looks for a to-do that gives the filter a value: yes where there is one,
// no where there is none, unknown where the effort ran out.
func (w *world) find(value truth) truth {
	if w.undecidable || w.left.rest <= 0 {
		return unknown
	}
	given := min(effort, w.left.rest)
	w.left.now = given
	found, _ := w.try(0, 0, facts{}, value)
	w.left.rest -= given - w.left.now
	if !found && w.left.now <= 0 {
		return unknown
	}
	return truthOf(found)
}

// try gives the variables from one on their values, one after the other. Where
// that fails it returns the variables that were to blame, so that others need
// not be tried again (conflict-directed backjumping, Prosser 1993).
func (w *world) try(at int, known uint64, f facts, value truth) (found bool, conflict uint64) {
	switch v, why := w.eval(known, &f); v {
	case value:
		return w.complete(at, known, f)
	case value.not():
		return false, why
	}
	return w.assign(at, known, f, func(known uint64, f facts) (bool, uint64) { return w.try(at+1, known, f, value) })
}

// complete gives the variables that no test needs any more values that the laws
// allow.
func (w *world) complete(at int, known uint64, f facts) (found bool, conflict uint64) {
	if at == len(w.vars) {
		return true, 0
	}
	return w.assign(at, known, f, func(known uint64, f facts) (bool, uint64) { return w.complete(at+1, known, f) })
}

func (w *world) assign(at int, known uint64, f facts, next func(uint64, facts) (bool, uint64)) (found bool, conflict uint64) {
	self := uint64(1) << at
	known |= self
	for _, set := range w.vars[at].values {
		if w.left.now -= w.left.cost; w.left.now <= 0 {
			return false, ^uint64(0)
		}
		with := f
		with.tags = f.tags[:len(f.tags):len(f.tags)]
		set(&with)
		if broken := w.broken(self, known, &with); broken != 0 {
			conflict |= broken
			continue
		}
		found, why := next(known, with)
		if found || why&self == 0 {
			return found, why
		}
		conflict |= why
	}
	return false, conflict &^ self
}

// broken returns the variables of a law that the latest variable breaks, or 0.
func (w *world) broken(latest, known uint64, f *facts) uint64 {
	for _, l := range w.laws {
		if l.needs&latest != 0 && l.needs&^known == 0 && !l.holds(f) {
			return l.needs
		}
	}
	return 0
}

// eval evaluates the filter as far as its variables are known, and says which
// made it so.
func (w *world) eval(known uint64, f *facts) (truth, uint64) {
	next := 0
	return w.walk(w.filter.Root(), known, f, &next)
}

// walk counts the tests it passes, since what they are forced to goes by their
// order.
func (w *world) walk(n *question.Node, known uint64, f *facts, next *int) (v truth, why uint64) {
	switch {
	case n == nil:
		return yes, 0
	case n.Kind == question.IsTest:
		i := *next
		*next++
		switch {
		case w.forced[i] != unknown:
			return w.forced[i], 0
		case w.needs[i]&^known != 0:
			return unknown, 0
		}
		return truthOf(eval(n.Test, f, w.today)), w.needs[i]
	case n.Kind == question.IsNot:
		v, why := w.walk(n.Nodes[0], known, f, next)
		return v.not(), why
	}
	decides := truthOf(n.Kind == question.IsAny)
	v = decides.not()
	for _, sub := range n.Nodes {
		switch is, because := w.walk(sub, known, f, next); {
		case v == decides: // the rest is walked to count its tests
		case is == decides:
			v, why = decides, because
		case is == unknown:
			v = unknown
		default:
			why |= because
		}
	}
	return v, why
}
