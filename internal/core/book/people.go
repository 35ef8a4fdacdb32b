package book

import (
	"net/mail"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/question"
)

// MaxPersonNote is how long the note about a person is at most, in bytes.
const MaxPersonNote = 2000

// AddPerson puts a new person in.
type AddPerson struct {
	ID                       ID // may be none
	Name, Email, Phone, Note string
}

// EditPerson changes a person; nil leaves a field as it is.
type EditPerson struct {
	ID                       ID
	Name, Email, Phone, Note *string
}

// RemovePerson takes a person out, and from every to-do that tells of them.
type RemovePerson struct{ ID ID }

func (AddPerson) kind() Kind    { return "add-person" }
func (EditPerson) kind() Kind   { return "edit-person" }
func (RemovePerson) kind() Kind { return "remove-person" }

func (c AddPerson) run(d *draft) error {
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.people.get(c.ID); taken {
		return refuse("id", "A person with the id %s exists already.", c.ID)
	}
	p, err := d.checkPerson(Person{ID: c.ID, Name: c.Name, Email: c.Email, Phone: c.Phone, Note: c.Note})
	if err != nil {
		return err
	}
	d.people.put(p)
	d.says = "New person: " + quote(p.Name)
	return nil
}

func (c EditPerson) run(d *draft) error {
	p, ok := d.people.get(c.ID)
	if !ok {
		return &NotFoundError{"person", c.ID}
	}
	was := p.Name
	for _, f := range []struct {
		to *string
		by *string
	}{{&p.Name, c.Name}, {&p.Email, c.Email}, {&p.Phone, c.Phone}, {&p.Note, c.Note}} {
		if f.by != nil {
			*f.to = *f.by
		}
	}
	p, err := d.checkPerson(p)
	if err != nil {
		return err
	}
	d.people.put(p)
	d.says = "Person changed: " + quote(p.Name)
	if p.Name != was {
		d.says = "Person renamed: " + quote(was) + " is now " + quote(p.Name)
	}
	return nil
}

func (c RemovePerson) run(d *draft) error {
	p, ok := d.people.get(c.ID)
	if !ok {
		return &NotFoundError{"person", c.ID}
	}
	involved := d.desk.those(func(t *Todo) bool { return t.Person.ID == c.ID })
	for _, t := range involved {
		next := *t
		next.Person = Involved{}
		d.put(next)
	}
	for _, l := range d.lists.all() {
		if l.With == c.ID {
			l.With = ID{}
			d.lists.put(l)
		}
	}
	d.people.remove(c.ID)
	d.says = "Person removed: " + quote(p.Name)
	if n := len(involved); n > 0 {
		d.says += ", from " + count(n, "to-do")
	}
	d.says += d.askedFor(question.Person, c.ID)
	return nil
}

// checkPerson refuses a name that is taken, and an e-mail that is none (RFC
// 5322, section 3.4.1).
func (d *draft) checkPerson(p Person) (Person, error) {
	var err error
	if p.Name, err = checkLine("name", "name", p.Name, MaxName); err != nil {
		return p, err
	}
	for _, other := range d.people.all() {
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
	p.Note = strings.TrimSpace(p.Note)
	if len(p.Note) > MaxPersonNote || !utf8.ValidString(p.Note) {
		return p, refuse("note", "The note about a person has %d bytes; %d of text is the most.", len(p.Note), MaxPersonNote)
	}
	return p, nil
}

// involve sets who a to-do is about.
func (d *draft) involve(t *Todo, person ID, role Role) error {
	if role == NoRole {
		t.Person = Involved{}
		return nil
	}
	if _, ok := d.people.get(person); !ok {
		return refuse("person", "There is no person with the id %s.", person)
	}
	if t.Person.ID != person || t.Person.Role != role {
		t.Person = Involved{person, role, d.env.Clock.Today()}
	}
	return nil
}
