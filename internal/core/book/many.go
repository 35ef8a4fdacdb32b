package book

import (
	"errors"
	"fmt"
)

// MaxMany is how many to-dos one command acts on at most.
const MaxMany = 5000

// Many does one thing to many to-dos: to all of them or, where one refuses, to
// none.
type Many struct {
	IDs []ID
	// Do makes the command for one of them. They are carried out in the order of
	// IDs, each once, and each sees what those before it did.
	Do func(ID) Command
}

func (c Many) kind() Kind {
	if c.Do == nil {
		return ""
	}
	return c.Do(ID{}).kind()
}

// together are the kinds that take a to-do's subtasks along, so that one is
// left out whose parent is among the many.
var together = map[Kind]bool{"complete": true, "cancel": true, "delete": true, "restore": true, "move": true}

// Reach tells of many to-dos what a person may not expect among them.
type Reach struct {
	// Closed are completed or cancelled, Archived in an archived list.
	Closed, Archived int
}

// Reach looks at many to-dos, each once. It fails with a *RuleError where there are
// none, too many, or one is gone.
func (b *Desk) Reach(ids []ID) (Reach, error) {
	var r Reach
	if err := checkMany(ids); err != nil {
		return r, err
	}
	_, once := eachOnce(ids)
	for _, id := range once {
		t, err := b.Todo(id)
		if err != nil {
			return r, goneOfMany(id)
		}
		if !t.Status.Open() {
			r.Closed++
		}
		if l := b.lists[t.List]; l != nil && !l.Archived.IsZero() {
			r.Archived++
		}
	}
	return r, nil
}

func (c Many) run(d *draft) error {
	if err := checkMany(c.IDs); err != nil {
		return err
	}
	chosen, once := eachOnce(c.IDs)
	acted := make([]ID, 0, len(once))
	for _, id := range once {
		t, err := d.todo(id)
		if err != nil {
			return goneOfMany(id)
		}
		if together[c.kind()] && d.underOneOf(chosen, &t) {
			continue
		}
		if err := c.Do(id).run(d); err != nil {
			return allOrNone(err)
		}
		acted = append(acted, id)
	}
	d.sayMany(acted)
	return nil
}

// sayMany says what was done to many.
func (d *draft) sayMany(acted []ID) {
	if len(acted) < 2 {
		return
	}
	changed := 0
	for _, id := range acted {
		if diff, ok := d.todos[id]; ok && (diff.Before == nil || diff.After == nil || d.touched[id] ||
			Altered(diff.Before, diff.After) != 0) {
			changed++
		}
	}
	d.says = d.verb + ": " + count(changed, "to-do")
	if d.verb == "Changed" {
		d.says += d.becameAlike(acted)
	}
	if same := len(acted) - changed; same > 0 {
		d.says += fmt.Sprintf("; %d stood so already", same)
	}
	d.says += d.alsoOpen()
}

// eachOnce returns ids as a set, and each once in its order.
func eachOnce(ids []ID) (map[ID]bool, []ID) {
	set := make(map[ID]bool, len(ids))
	once := make([]ID, 0, len(ids))
	for _, id := range ids {
		if !set[id] {
			once = append(once, id)
		}
		set[id] = true
	}
	return set, once
}

func goneOfMany(id ID) error {
	return refuse("ids", "There is no to-do with the id %s any more. Nothing was changed.", id)
}

// allOrNone says of the refusal of one that nothing was changed.
func allOrNone(err error) error {
	var rule *RuleError
	if errors.As(err, &rule) {
		return &RuleError{"ids", rule.Reason + " Nothing was changed."}
	}
	return err
}

func checkMany(ids []ID) error {
	if len(ids) == 0 || len(ids) > MaxMany {
		return refuse("ids", "%d to-dos are chosen; 1 to %d can be changed at once.", len(ids), MaxMany)
	}
	return nil
}

// underOneOf reports whether a to-do stands under one of the chosen.
func (d *draft) underOneOf(chosen map[ID]bool, t *Todo) bool {
	for id := t.Parent; !id.IsZero(); {
		if chosen[id] {
			return true
		}
		parent, err := d.todo(id)
		if err != nil {
			return false
		}
		id = parent.Parent
	}
	return false
}

// worthPreparing is from how many to-dos on a command is worked out ahead of its turn.
const worthPreparing = 200

// WorthPreparing reports whether a command takes long enough to be worked out ahead of
// its turn.
func WorthPreparing(cmd Command) bool {
	switch c := cmd.(type) {
	case MoveMany:
		return len(c.IDs) >= worthPreparing
	case Many:
		return len(c.IDs) >= worthPreparing && c.Do != nil
	case Import:
		return len(c.Items) >= worthPreparing
	}
	return false
}

// WorthPreparing reports whether turning the change round takes long enough to be worked
// out ahead of its turn.
func (c *Change) WorthPreparing() bool { return len(c.Todos) >= worthPreparing }
