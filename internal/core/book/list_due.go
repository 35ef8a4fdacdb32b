package book

import (
	"fmt"

	"tincup/internal/core/day"
)

// Rest is what becomes of the open to-dos of a list that is finished.
type Rest uint8

// The rests: they stay in the list as they are, are completed, are cancelled, or go to the Cup.
const (
	RestStays Rest = iota
	RestDone
	RestCancelled
	RestToCup
)

var restWords = [...]string{"stay", "complete", "cancel", "cup"}

// String is the word of the rest in the contract.
func (r Rest) String() string { return restWords[r] }

// UnmarshalText reads the word of a rest.
func (r *Rest) UnmarshalText(text []byte) error {
	for i, word := range restWords {
		if word == string(text) {
			*r = Rest(i)
			return nil
		}
	}
	return fmt.Errorf("%.40q is not something that can become of open to-dos: stay, complete, cancel or cup is wanted", text)
}

// MaxShift is by how many days the dates of a list's to-dos move along with its due at most.
const MaxShift = 3660

// FinishList archives a list, and does with its open to-dos what Rest says. Notes stay.
type FinishList struct {
	ID   ID
	Rest Rest
}

func (FinishList) kind() Kind { return "finish-list" }

// Dated counts the open to-dos of a list that a move of its due can take along: those with a
// date and without a repeat, whose pattern would be confused.
func (b *Desk) Dated(list ID) (n int) {
	for t := range b.OfList(list) {
		if shiftable(t) {
			n++
		}
	}
	return n
}

func shiftable(t *Todo) bool {
	dated := !t.Start.IsZero() || !t.Due.IsZero() || !t.Plan.First().IsZero()
	return dated && copied(t) && t.Repeat == nil
}

// setListDue sets the due of a list, and moves the dates of its to-dos along where shift asks
// for it.
func (d *draft) setListDue(l *List, due day.Date, shift bool) error {
	was := l.Due
	if l.Due = due; due.IsZero() {
		d.says = "No due any more: " + quote(l.Name)
		return nil
	}
	d.says = quote(l.Name) + " is due " + due.Words()
	if !was.IsZero() {
		d.says += " (before: " + was.Words() + ")"
	}
	if days := due.Sub(was); shift && !was.IsZero() && days != 0 {
		if max(days, -days) > MaxShift {
			return refuse("due", "The due moves by %d days, and dates move along by %d at most. Move it without them.", max(days, -days), MaxShift)
		}
		n := 0
		for t := range d.desk.OfList(l.ID) {
			if !shiftable(t) {
				continue
			}
			next := *t
			if err := d.shiftBy(&next, days); err != nil {
				return err
			}
			d.put(next)
			n++
		}
		by := count(max(days, -days), "day")
		if days < 0 {
			by += " earlier"
		} else {
			by += " later"
		}
		d.says += ", and the dates of " + count(n, "to-do") + " are " + by
	}
	return nil
}

func (c FinishList) run(d *draft) error {
	l, err := d.list(c.ID)
	switch {
	case err != nil:
		return err
	case !l.Template.IsZero():
		return refuse("id", "“%s” is a template, which is not finished.", l.Name)
	case !l.Archived.IsZero():
		return refuse("id", "“%s” is archived already.", l.Name)
	}
	n := 0
	for t := range d.desk.OfList(l.ID) {
		if !t.Deleted.IsZero() || !t.Status.Open() || t.IsNote {
			continue
		}
		n++
		if err := d.finish(t, c.Rest); err != nil {
			return err
		}
	}
	l.Archived = d.now
	d.lists.put(l)
	d.says = "Finished and archived: " + quote(l.Name)
	if n > 0 {
		d.says += ", with " + count(n, "open to-do") + " " + [...]string{"left as it was", "completed", "cancelled", "in the Cup"}[c.Rest]
		if n > 1 && c.Rest == RestStays {
			d.says = d.says[:len(d.says)-len("it was")] + "they were"
		}
	}
	return nil
}

// finish does with an open to-do of a finished list what is said of the rest.
func (d *draft) finish(t *Todo, rest Rest) error {
	next := *t
	switch rest {
	case RestDone, RestCancelled:
		next.Status, next.Completed, next.Repeat = Completed, d.now, nil
		if rest == RestCancelled {
			next.Status = Cancelled
		}
		d.put(next)
	case RestToCup:
		if !t.Parent.IsZero() { // it goes with what it stands under
			return nil
		}
		next.List, next.Section = ID{}, ID{}
		next.Position = d.endOf(next.home())
		return d.settle(next, *t)
	case RestStays:
	}
	return nil
}
