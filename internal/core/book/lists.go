package book

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

// AddList puts a new, empty list at the end of a shelf. Where there is no
// shelf yet and none is named, one called "Lists" is made.
type AddList struct {
	ID     ID // may be none
	Shelf  ID // none takes the first shelf
	Name   string
	Colour *Colour // nil takes the next of the eight
	// Template makes a template, with dates that count from this day.
	Template day.Date
}

// EditList changes a list. A nil field stays as it is.
type EditList struct {
	ID        ID
	Name      *string
	Colour    *Colour
	Order     *Order
	Checklist *bool
	Pinned    *bool
	// Archived puts the list away, or brings it back.
	Archived *bool
	// Due is the day by which all of it is to be done; none takes it away. With Shift, where it
	// moves a due that was there, the dates of the list's to-dos move by the same distance.
	Due   *day.Date
	Shift bool
	// Outcome is the sentence that will be true when all of it is done; "" takes it away.
	Outcome *string
	// With is the person with whom it is done; none takes them off.
	With *ID
}

// MoveList puts a list on a shelf, behind or before another list there; with
// neither it goes to the end.
type MoveList struct{ ID, Shelf, After, Before ID }

// DeleteList puts a list in the bin, with its to-dos.
type DeleteList struct{ ID ID }

// RestoreList takes a list out of the bin with the to-dos that went with it,
// and its shelf if that is there.
type RestoreList struct{ ID ID }

func (AddList) kind() Kind     { return "add-list" }
func (EditList) kind() Kind    { return "edit-list" }
func (MoveList) kind() Kind    { return "move-list" }
func (DeleteList) kind() Kind  { return "delete-list" }
func (RestoreList) kind() Kind { return "restore-list" }

func (d *draft) list(id ID) (List, error) {
	l, ok := d.lists.get(id)
	switch {
	case !ok:
		return l, &NotFoundError{"list", id}
	case !l.Deleted.IsZero():
		return l, refuse("id", "The list “%s” is in the bin. Restore it first.", l.Name)
	}
	return l, nil
}

// checkListName refuses a name that another list has; templates have names of
// their own.
func (d *draft) checkListName(id ID, template bool, name string) (string, error) {
	what := "list"
	if template {
		what = "template"
	}
	name, err := checkLine("name", "name of the "+what, name, MaxName)
	if err != nil {
		return "", err
	}
	for _, l := range d.lists.all() {
		if l.ID != id && l.Deleted.IsZero() && l.Template.IsZero() != template && strings.EqualFold(l.Name, name) {
			return "", refuse("name", "A %s called “%s” exists already.", what, l.Name)
		}
	}
	return name, nil
}

func (c AddList) run(d *draft) error {
	l := List{ID: c.ID, Owner: d.desk.account, Shelf: c.Shelf, Template: c.Template, Colour: term.NthColour(len(d.desk.lists))}
	if c.Colour != nil {
		l.Colour = *c.Colour
	}
	if err := d.addList(&l, c.Name); err != nil {
		return err
	}
	d.says = "New list: " + quote(l.Name)
	return nil
}

// addList puts a list at the end of its shelf, or of the first.
func (d *draft) addList(l *List, name string) error {
	var err error
	if l.Name, err = d.checkListName(ID{}, !l.Template.IsZero(), name); err != nil {
		return err
	}
	if l.Shelf, err = d.shelfFor(l.Shelf); err != nil {
		return err
	}
	if l.ID.IsZero() {
		l.ID = d.env.NewID()
	} else if _, taken := d.lists.get(l.ID); taken {
		return refuse("id", "A list with the id %s exists already.", l.ID)
	}
	if l.Position, err = beside(d.listsOn(l.Shelf, l.ID), ID{}, ID{}); err != nil {
		return err
	}
	d.lists.put(*l)
	return nil
}

// listsOn returns where the other lists of a shelf stand.
func (d *draft) listsOn(shelf, but ID) []standing {
	var others []standing
	for _, l := range d.lists.all() {
		if l.Shelf == shelf && l.ID != but {
			others = append(others, standing{l.ID, l.Position, l.Deleted.IsZero()})
		}
	}
	return others
}

func (d *draft) shelfFor(id ID) (ID, error) {
	if !id.IsZero() {
		if _, err := d.shelf(id); err != nil {
			return id, refuse("shelf", "There is no shelf with the id %s.", id)
		}
		return id, nil
	}
	var first *Shelf
	for _, s := range d.shelves.all() {
		if s.Deleted.IsZero() && (first == nil || s.Position < first.Position) {
			first = &s
		}
	}
	if first != nil {
		return first.ID, nil
	}
	return d.newShelf(ID{}, "Lists"), nil
}

func (c EditList) run(d *draft) error {
	l, err := d.list(c.ID)
	if err != nil {
		return err
	}
	d.says = "List changed: " + quote(l.Name)
	if c.Name != nil {
		was := l.Name
		if l.Name, err = d.checkListName(l.ID, !l.Template.IsZero(), *c.Name); err != nil {
			return err
		}
		d.says = "List renamed: " + quote(was) + " is now " + quote(l.Name)
	}
	if c.Colour != nil {
		l.Colour = *c.Colour
	}
	if c.Order != nil {
		l.Order = *c.Order
		d.says = quote(l.Name) + " now stands " + orderSaid[l.Order]
	}
	if c.Checklist != nil {
		l.Checklist = *c.Checklist
		d.says = quote(l.Name) + map[bool]string{true: " is now a checklist", false: " is no longer a checklist"}[l.Checklist]
	}
	if c.Pinned != nil {
		l.Pinned = *c.Pinned
		d.says = map[bool]string{true: "Pinned: ", false: "No longer pinned: "}[l.Pinned] + quote(l.Name)
	}
	if c.Archived != nil && *c.Archived != !l.Archived.IsZero() {
		if !l.Template.IsZero() {
			return refuse("archived", "A template is out of all views as it is.")
		}
		if d.says = "Brought back: " + quote(l.Name); *c.Archived {
			d.says = "Archived: " + quote(l.Name)
			l.Archived = d.now
		} else {
			l.Archived = 0
		}
	}
	if err := d.setProject(&l, c); err != nil {
		return err
	}
	d.lists.put(l)
	return nil
}

var orderSaid = map[Order]string{
	ByPriority: "by priority, then due", ByHand: "in your own order", ByDue: "by due", ByTitle: "by title",
	ByCreated: "newest first", HighFirst: "high priority first, then in your own order",
	NewestByPriority: "by priority, then newest first",
}

func (c MoveList) run(d *draft) error {
	l, err := d.list(c.ID)
	if err != nil {
		return err
	}
	shelf, err := d.shelf(c.Shelf)
	if err != nil {
		return refuse("shelf", "There is no shelf with the id %s.", c.Shelf)
	}
	l.Shelf = c.Shelf
	if l.Position, err = beside(d.listsOn(c.Shelf, l.ID), c.After, c.Before); err != nil {
		return err
	}
	d.lists.put(l)
	d.says = "List moved: " + quote(l.Name) + ", on the shelf " + quote(shelf.Name)
	return nil
}

func (c DeleteList) run(d *draft) error {
	l, ok := d.lists.get(c.ID)
	if !ok {
		return &NotFoundError{"list", c.ID}
	}
	d.says = "List in the bin: " + quote(l.Name)
	if !l.Deleted.IsZero() {
		return nil
	}
	n, err := d.binList(l)
	if n > 0 {
		d.says += ", with " + count(n, "to-do")
	}
	d.says += d.askedFor(question.List, l.ID)
	return err
}

// binList puts a list in the bin and says how many to-dos went with it.
func (d *draft) binList(l List) (n int, err error) {
	l.Deleted = d.now
	d.lists.put(l)
	for _, t := range d.in(l.ID) {
		if t.Deleted.IsZero() {
			n++
			if err := d.bin(*t); err != nil {
				return n, err
			}
		}
	}
	return n, nil
}

func (c RestoreList) run(d *draft) error {
	l, ok := d.lists.get(c.ID)
	if !ok {
		return &NotFoundError{"list", c.ID}
	}
	d.says = "Restored: " + quote(l.Name)
	return d.unbinList(l)
}

func (d *draft) unbinList(l List) error {
	when := l.Deleted
	if when.IsZero() {
		return nil
	}
	d.restoreList(l.ID)
	for _, t := range d.in(l.ID) {
		if t.Deleted == when {
			if err := d.restore(*t, when); err != nil {
				return err
			}
		}
	}
	return nil
}

// restoreList takes a list out of the bin by itself, with its shelf and with a
// name that is free.
func (d *draft) restoreList(id ID) {
	l, ok := d.lists.get(id)
	if !ok || l.Deleted.IsZero() {
		return
	}
	l.Deleted = 0
	l.Name = freeName(l.Name, func(name string) bool {
		_, err := d.checkListName(id, !l.Template.IsZero(), name)
		return err == nil
	})
	d.lists.put(l)
	d.restoreShelf(l.Shelf)
}

// freeName returns a name, numbered where it is taken: "Loans (2)" comes behind "Loans", and
// "Loans (3)" behind "Loans (2)".
func freeName(name string, free func(string) bool) string {
	base, n := name, 2
	if at := strings.LastIndex(name, " ("); at > 0 && strings.HasSuffix(name, ")") {
		if number, err := strconv.Atoi(name[at+2 : len(name)-1]); err == nil && number > 1 && number < math.MaxInt32 {
			base, n = name[:at], number
		}
	}
	next := name
	for ; !free(next); n++ {
		tail := fmt.Sprintf(" (%d)", n)
		runes := []rune(base)
		next = string(runes[:min(len(runes), MaxName-len(tail))]) + tail
	}
	return next
}
