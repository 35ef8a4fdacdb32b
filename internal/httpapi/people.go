package httpapi

import (
	"github.com/gin-gonic/gin"
	"github.com/oapi-codegen/nullable"

	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
)

// AddPerson puts a person in.
func (s *server) AddPerson(c *gin.Context, params contract.AddPersonParams) {
	in, raw, err := body[contract.NewPerson](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.AddPerson{Name: in.Name}
	for to, from := range map[*string]*string{&cmd.Email: in.Email, &cmd.Phone: in.Phone, &cmd.Note: in.Note} {
		if from != nil {
			*to = *from
		}
	}
	s.made(c, request(c, params.IdempotencyKey, params.WindowId, raw), cmd,
		func(change *book.Change) book.ID { return change.People[0].After.ID })
}

// EditPerson changes a person.
func (s *server) EditPerson(c *gin.Context, id string, p contract.EditPersonParams) {
	editRow(s, c, id, seen{book.PersonRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.PersonPatch) (book.Command, error) {
		return book.EditPerson{ID: id, Name: cleared(in.Name), Email: cleared(in.Email), Phone: cleared(in.Phone), Note: cleared(in.Note)}, nil
	})
}

// cleared reads a text of a merge patch: absent leaves nil, null is empty.
func cleared(n nullable.Nullable[string]) *string {
	if !n.IsSpecified() {
		return nil
	}
	text, _ := n.Get()
	return &text
}

// RemovePerson takes a person out.
func (s *server) RemovePerson(c *gin.Context, id string, p contract.RemovePersonParams) {
	s.removeRow(c, id, seen{book.PersonRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.RemovePerson{ID: id} })
}
