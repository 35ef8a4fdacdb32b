package book

import (
	"bytes"
	"slices"
)

// row is a small row with an id and a revision of its own: a shelf, list,
// section, tag or person.
type row[T any] interface {
	comparable
	key() ID
	at(revision int64) T
	revised() int64
}

// attribute is a part of a row that is edited and undone as one.
type attribute[T any] struct {
	name string
	same func(a, b *T) bool
	copy func(to, from *T)
}

// attr makes an attribute of one comparable field.
func attr[T any, F comparable](name string, of func(*T) *F) attribute[T] {
	return attribute[T]{name,
		func(a, b *T) bool { return *of(a) == *of(b) },
		func(to, from *T) { *of(to) = *of(from) }}
}

// rows is one kind of row within a draft: those of the Book, as the command
// has altered them.
type rows[T row[T]] struct {
	book     map[ID]*T
	revision int64
	diffs    map[ID]*Diff[T]
	order    []ID
}

func rowsOf[T row[T]](book map[ID]*T, revision int64) rows[T] {
	return rows[T]{book: book, revision: revision}
}

// get returns a copy that may be written to and put back.
func (r *rows[T]) get(id ID) (v T, ok bool) {
	if d, drafted := r.diffs[id]; drafted {
		if d.After == nil {
			return v, false
		}
		return *d.After, true
	}
	if p, ok := r.book[id]; ok {
		return *p, true
	}
	return v, false
}

func (r *rows[T]) diff(id ID) *Diff[T] {
	d, ok := r.diffs[id]
	if !ok {
		d = &Diff[T]{Before: r.book[id]}
		if r.diffs == nil {
			r.diffs = map[ID]*Diff[T]{}
		}
		r.diffs[id] = d
		r.order = append(r.order, id)
	}
	return d
}

// put writes a row, new or changed.
func (r *rows[T]) put(v T) {
	v = v.at(r.revision)
	r.diff(v.key()).After = &v
}

func (r *rows[T]) remove(id ID) { r.diff(id).After = nil }

// all returns every row there will be, in the order of their ids.
func (r *rows[T]) all() []T {
	out := make([]T, 0, len(r.book)+len(r.order))
	for id, p := range r.book {
		if _, drafted := r.diffs[id]; !drafted {
			out = append(out, *p)
		}
	}
	for _, d := range r.diffs {
		if d.After != nil {
			out = append(out, *d.After)
		}
	}
	slices.SortFunc(out, func(a, b T) int {
		x, y := a.key(), b.key()
		return bytes.Compare(x[:], y[:])
	})
	return out
}

// changes returns what differs, in the order in which it was first written.
func (r *rows[T]) changes() []Diff[T] {
	var out []Diff[T]
	for _, id := range r.order {
		d := r.diffs[id]
		switch {
		case d.Before == nil && d.After == nil:
		case d.Before != nil && d.After != nil && (*d.Before).at(0) == (*d.After).at(0):
		default:
			out = append(out, *d)
		}
	}
	return out
}

// invert turns changes of rows round. Only what a change altered is set back;
// where that has been changed since, it refuses.
func (r *rows[T]) invert(diffs []Diff[T], attributes []attribute[T], title func(*T) string) error {
	for _, d := range slices.Backward(diffs) {
		if d.After == nil {
			if _, there := r.get((*d.Before).key()); there {
				return &ConflictError{title(d.Before), []string{"restored"}}
			}
			r.put(*d.Before)
			continue
		}
		cur, there := r.get((*d.After).key())
		if !there {
			return &ConflictError{title(d.After), []string{"removed"}}
		}
		var clash []string
		next := cur
		for _, a := range attributes {
			if d.Before != nil && a.same(d.Before, d.After) {
				continue
			}
			if !a.same(&cur, d.After) {
				clash = append(clash, a.name)
			}
			if d.Before != nil {
				a.copy(&next, d.Before)
			}
		}
		switch {
		case len(clash) > 0:
			return &ConflictError{title(&cur), clash}
		case d.Before == nil:
			r.remove(cur.key())
		default:
			r.put(next)
		}
	}
	return nil
}
