package httpapi

import (
	"encoding/json"
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// What the bodies are of that can be made of their change at any time.
const (
	turnedAgain = "turned"
	madePrefix  = "made " // and the row's id
)

// again is a reply whose body is not kept where there is a change to make it of.
func again(status int, what string, change *book.Change) (*store.Reply, error) {
	body, err := remake(what, change)
	reply := &store.Reply{Status: status, Body: body}
	if !change.Empty() {
		reply.Remake, reply.Revision = what, change.Revision
	}
	return reply, err
}

// remake writes the body of a reply of its change.
func remake(what string, change *book.Change) ([]byte, error) {
	if id, made := strings.CutPrefix(what, madePrefix); made {
		return json.Marshal(contract.Made{Id: id, Change: encodeChange(change)})
	}
	if what != turnedAgain {
		return nil, fmt.Errorf("no body is known for %q", what)
	}
	out := contract.Turned{Change: encodeChange(change), Todos: []string{}}
	for _, d := range change.Todos {
		if d.After != nil {
			out.Todos = append(out.Todos, d.After.ID.String())
		}
	}
	return json.Marshal(out)
}
