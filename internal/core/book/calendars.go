package book

import (
	"slices"
	"strings"

	"tincup/internal/core/term"
)

// Calendar is one whose events are read: at an address, or once from a file. The events
// themselves are no rows of the Book.
type Calendar struct {
	ID     ID     `json:"ID"`
	Name   string `json:"Name"`
	Colour Colour `json:"Colour"`
	// Address is where it is read again and again; "" of one that came from a file.
	Address string `json:"Address,omitzero"`
	// File is the name of the file that it came from.
	File string `json:"File,omitzero"`
	// AllDayTakes: its all-day events take the hours of their days.
	AllDayTakes bool  `json:"AllDayTakes,omitzero"`
	Revision    int64 `json:"Revision"`
}

const (
	// MaxCalendars is how many calendars a person may have.
	MaxCalendars = 30
	// MaxAddress is how long the address of a calendar may be, in characters.
	MaxAddress = 2000
)

// AddCalendar adds a calendar, with an Address or a File.
type AddCalendar struct {
	ID                  ID // may be none
	Name, Address, File string
	Colour              *Colour
	AllDayTakes         bool
}

// EditCalendar changes a calendar, which keeps its address; nil leaves a part as it is.
type EditCalendar struct {
	ID          ID
	Name        *string
	Colour      *Colour
	AllDayTakes *bool
}

// RemoveCalendar takes a calendar out. To-dos that were made of its events stay.
type RemoveCalendar struct{ ID ID }

func (AddCalendar) kind() Kind    { return "add-calendar" }
func (EditCalendar) kind() Kind   { return "edit-calendar" }
func (RemoveCalendar) kind() Kind { return "remove-calendar" }

// Calendar returns a calendar, or a *NotFoundError.
func (b *Desk) Calendar(id ID) (*Calendar, error) {
	if c, ok := b.calendars[id]; ok {
		return c, nil
	}
	return nil, &NotFoundError{"calendar", id}
}

// Calendars returns the account's calendars by their names.
func (b *Desk) Calendars() []*Calendar {
	all := values(b.calendars)
	slices.SortFunc(all, func(a, b *Calendar) int {
		if c := strings.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)); c != 0 {
			return c
		}
		return strings.Compare(a.ID.String(), b.ID.String())
	})
	return all
}

func (d *draft) calendar(id ID) (Calendar, error) {
	c, ok := d.calendars.get(id)
	if !ok {
		return c, &NotFoundError{"calendar", id}
	}
	return c, nil
}

// checkCalendar refuses what is no row, and a name or an address that another has.
func (d *draft) checkCalendar(c Calendar) (Calendar, error) {
	var err error
	if c.Name, err = checkLine("name", "name of the calendar", c.Name, MaxName); err != nil {
		return c, err
	}
	if len(c.Address) > MaxAddress {
		return c, refuse("address", "The address has %d characters, and %d is the most.", len(c.Address), MaxAddress)
	}
	for _, other := range d.calendars.all() {
		switch {
		case other.ID == c.ID:
		case strings.EqualFold(other.Name, c.Name):
			return c, refuse("name", "A calendar called “%s” exists already.", other.Name)
		case c.Address != "" && other.Address == c.Address:
			return c, refuse("address", "The calendar “%s” has this address already.", other.Name)
		}
	}
	return c, nil
}

func (c AddCalendar) run(d *draft) error {
	if n := len(d.desk.calendars); n >= MaxCalendars {
		return refuse("name", "There are %d calendars; that is the most. Remove one first.", n)
	}
	if (c.Address == "") == (c.File == "") {
		return refuse("address", "A calendar has an address, or comes from a file: one of the two is wanted.")
	}
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.calendars.get(c.ID); taken {
		return refuse("id", "A calendar with the id %s exists already.", c.ID)
	}
	row := Calendar{ID: c.ID, Name: c.Name, Address: c.Address, File: c.File, AllDayTakes: c.AllDayTakes,
		Colour: term.NthColour(len(d.desk.calendars))}
	set(&row.Colour, c.Colour)
	row, err := d.checkCalendar(row)
	if err != nil {
		return err
	}
	d.calendars.put(row)
	d.says = "New calendar: " + quote(row.Name)
	return nil
}

func (c EditCalendar) run(d *draft) error {
	row, err := d.calendar(c.ID)
	if err != nil {
		return err
	}
	was := row
	set(&row.Name, c.Name)
	set(&row.Colour, c.Colour)
	set(&row.AllDayTakes, c.AllDayTakes)
	if row, err = d.checkCalendar(row); err != nil {
		return err
	}
	d.calendars.put(row)
	switch {
	case was.Name != row.Name:
		d.says = "Calendar renamed: " + quote(was.Name) + " is now " + quote(row.Name)
	case was.AllDayTakes != row.AllDayTakes && row.AllDayTakes:
		d.says = "Calendar " + quote(row.Name) + ": events of a whole day take the day"
	case was.AllDayTakes != row.AllDayTakes:
		d.says = "Calendar " + quote(row.Name) + ": events of a whole day take no time"
	default:
		d.says = "Calendar changed: " + quote(row.Name)
	}
	return nil
}

func (c RemoveCalendar) run(d *draft) error {
	row, err := d.calendar(c.ID)
	if err != nil {
		return err
	}
	d.calendars.remove(row.ID)
	d.says = "Calendar removed: " + quote(row.Name)
	return nil
}

// checkCalendars refuses an undo that would give two calendars one name or address.
func (d *draft) checkCalendars() error {
	for _, id := range d.calendars.order {
		if c, ok := d.calendars.get(id); ok {
			if _, err := d.checkCalendar(c); err != nil {
				return &ConflictError{c.Name, []string{"name"}}
			}
		}
	}
	return nil
}

func (c Calendar) revised() int64             { return c.Revision }
func (c Calendar) key() ID                    { return c.ID }
func (c Calendar) at(revision int64) Calendar { c.Revision = revision; return c }

var calendarAttributes = []attribute[Calendar]{
	attr("name", func(c *Calendar) *string { return &c.Name }),
	attr("colour", func(c *Calendar) *Colour { return &c.Colour }),
	attr("allDayTakes", func(c *Calendar) *bool { return &c.AllDayTakes }),
}
