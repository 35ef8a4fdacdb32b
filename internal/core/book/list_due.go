package book

import (
	"cmp"
	"fmt"
	"strings"

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

// restSaid is what became of open to-dos, in words.
var restSaid = [...]string{"left in it", "completed", "cancelled", "in the Cup"}

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

// dated reports whether a to-do has a date that can be moved.
func (t *Todo) dated() bool { return !t.Start.IsZero() || !t.Due.IsZero() || !t.Plan.First().IsZero() }

// setProject sets what makes a project of a list: its due, its outcome and the person with whom
// it is done. It says each of them.
func (d *draft) setProject(l *List, c EditList) error {
	var says []string
	if c.Due != nil {
		said, err := d.setListDue(l, *c.Due, c.Shift)
		if err != nil {
			return err
		}
		says = append(says, said)
	}
	if c.Outcome != nil {
		var err error
		if l.Outcome, err = lineOrNone("outcome", l.Outcome, c.Outcome, MaxOutcome); err != nil {
			return err
		}
		says = append(says, "Outcome of "+quote(l.Name)+": "+cmp.Or(l.Outcome, "none"))
	}
	if c.With != nil {
		with := "nobody in particular"
		if l.With = *c.With; !l.With.IsZero() {
			p, ok := d.people.get(l.With)
			if !ok {
				return refuse("person", "There is no person with the id %s.", l.With)
			}
			with = p.Name
		}
		says = append(says, quote(l.Name)+" is with "+with)
	}
	if len(says) > 0 {
		d.says = strings.Join(says, ". ")
	}
	return nil
}

// setListDue sets the due of a list, and moves the dates of its to-dos along where shift asks
// for it. It returns what it did, in words.
func (d *draft) setListDue(l *List, due day.Date, shift bool) (said string, err error) {
	was := l.Due
	if l.Due = due; due.IsZero() {
		return "No due any more: " + quote(l.Name), nil
	}
	said = quote(l.Name) + " is due " + due.Words()
	if was.IsZero() || was == due {
		return said, nil
	}
	said += " (before: " + was.Words() + ")"
	if !shift {
		return said, nil
	}
	moved, err := d.shiftList(l.ID, due.Sub(was))
	return said + moved, err
}

// shiftList moves the dates of a list's open to-dos by some days, but those of repeats, and says
// of how many.
func (d *draft) shiftList(list ID, days int) (said string, err error) {
	by := count(max(days, -days), "day")
	if max(days, -days) > MaxShift {
		return "", refuse("due", "The due moves by %s, and dates move along by %d at most. Move it without them.", by, MaxShift)
	}
	moved, repeats := 0, 0
	for t := range d.desk.OfList(list) {
		switch {
		case !copied(t) || !t.dated():
		case t.Repeat != nil:
			repeats++
		default:
			next := *t
			if err := d.shiftBy(&next, days); err != nil {
				return "", err
			}
			d.put(next)
			moved++
		}
	}
	direction := " later"
	if days < 0 {
		direction = " earlier"
	}
	said = ", and the dates of " + count(moved, "to-do") + " are " + by + direction
	if repeats > 0 {
		said += "; left alone: " + count(repeats, "repeat")
	}
	return said, nil
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
		d.says += ", with " + count(n, "open to-do") + " " + restSaid[c.Rest]
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
