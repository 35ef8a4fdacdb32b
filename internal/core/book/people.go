package book

import (
	"net/mail"
	"strings"
)

// AddPerson puts a new person in.
type AddPerson struct {
	ID                 ID // may be none
	Name, Email, Phone string
}

// EditPerson changes a person; nil leaves a field as it is.
type EditPerson struct {
	ID                 ID
	Name, Email, Phone *string
}

func (AddPerson) kind() Kind  { return "add-person" }
func (EditPerson) kind() Kind { return "edit-person" }

func (c AddPerson) run(d *draft) error {
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.book.people[c.ID]; taken {
		return refuse("id", "A person with the id %s exists already.", c.ID)
	}
	p, err := d.checkPerson(Person{ID: c.ID, Name: c.Name, Email: c.Email, Phone: c.Phone})
	if err != nil {
		return err
	}
	d.people = append(d.people, Diff[Person]{After: &p})
	d.says = "New person: " + quote(p.Name)
	return nil
}

func (c EditPerson) run(d *draft) error {
	before, err := d.book.Person(c.ID)
	if err != nil {
		return err
	}
	after := *before
	for _, f := range []struct {
		to *string
		by *string
	}{{&after.Name, c.Name}, {&after.Email, c.Email}, {&after.Phone, c.Phone}} {
		if f.by != nil {
			*f.to = *f.by
		}
	}
	if after, err = d.checkPerson(after); err != nil {
		return err
	}
	d.people = append(d.people, Diff[Person]{Before: before, After: &after})
	d.says = "Changed: " + quote(after.Name)
	return nil
}

// checkPerson refuses a name that is taken, and an e-mail that is none (RFC
// 5322 section 3.4).
func (d *draft) checkPerson(p Person) (Person, error) {
	var err error
	if p.Name, err = checkLine("name", "name of the person", p.Name, MaxName); err != nil {
		return p, err
	}
	for _, other := range d.book.people {
		if other.ID != p.ID && strings.EqualFold(other.Name, p.Name) {
			return p, refuse("name", "A person called “%s” exists already.", other.Name)
		}
	}
	if p.Email = strings.TrimSpace(p.Email); p.Email != "" {
		if a, err := mail.ParseAddress(p.Email); err != nil || a.Address != p.Email || len(p.Email) > 254 {
			return p, refuse("email", "“%.60s” is not an e-mail address such as name@museum.example.", p.Email)
		}
	}
	if p.Phone != "" {
		if p.Phone, err = checkLine("phone", "phone number", p.Phone, 40); err != nil {
			return p, err
		}
	}
	p.Revision = d.book.revision + 1
	return p, nil
}

// involve sets who a to-do is about.
func (d *draft) involve(t *Todo, person ID, role Role) error {
	if role == NoRole {
		t.Person = Involved{}
		return nil
	}
	if _, err := d.book.Person(person); err != nil {
		return refuse("person", "There is no person with the id %s.", person)
	}
	if t.Person.ID != person || t.Person.Role != role {
		t.Person = Involved{person, role, d.env.Clock.Today()}
	}
	return nil
}
