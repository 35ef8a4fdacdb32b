package book

import (
	"slices"
	"strings"

	"tincup/internal/core/term"
)

// View is a question that a person saved.
type View struct {
	ID   ID     `json:"ID"`
	Name string `json:"Name"`
	// Question is what it asks: a JSON object whose part "filter" is a question.Tree. The
	// Book keeps its other parts as they came.
	Question string `json:"Question"`
	// Icon is one of ViewIcons.
	Icon     string   `json:"Icon"`
	Colour   Colour   `json:"Colour"`
	Position Position `json:"Position"`
	// Pinned views stand at the head of the index as well; Counted ones show
	// there how many to-dos they hold.
	Pinned   bool  `json:"Pinned,omitzero"`
	Counted  bool  `json:"Counted,omitzero"`
	Revision int64 `json:"Revision"`
}

// ViewIcons are the pictures that a view may have.
var ViewIcons = []string{"eye", "telephone", "people", "clock", "leaf", "coin", "pen", "house", "lamp", "box"}

// MaxViews is how many views a person may keep.
const MaxViews = 200

// AddView keeps a new view, behind another one or at the end.
type AddView struct {
	ID              ID // may be none
	Name, Question  string
	Icon            string // "" takes the first
	Colour          *Colour
	Pinned, Counted bool
	After           ID
}

// EditView changes a view; nil leaves a part as it is.
type EditView struct {
	ID              ID
	Name, Question  *string
	Icon            *string
	Colour          *Colour
	Pinned, Counted *bool
}

// CopyView puts a copy of a view behind it.
type CopyView struct{ ID ID }

// MoveView puts a view behind or before another.
type MoveView struct{ ID, After, Before ID }

// DeleteView takes a view out. What it held stays.
type DeleteView struct{ ID ID }

func (AddView) kind() Kind    { return "add-view" }
func (EditView) kind() Kind   { return "edit-view" }
func (CopyView) kind() Kind   { return "copy-view" }
func (MoveView) kind() Kind   { return "move-view" }
func (DeleteView) kind() Kind { return "delete-view" }

// View returns a view, or a *NotFoundError.
func (b *Desk) View(id ID) (*View, error) {
	if v, ok := b.views[id]; ok {
		return v, nil
	}
	return nil, &NotFoundError{"view", id}
}

// Views returns the saved views in order.
func (b *Desk) Views() []*View {
	views := values(b.views)
	slices.SortFunc(views, func(a, b *View) int {
		return compareStanding(a.Position, b.Position, a.ID, b.ID)
	})
	return views
}

func (d *draft) view(id ID) (View, error) {
	v, ok := d.views.get(id)
	if !ok {
		return v, &NotFoundError{"view", id}
	}
	return v, nil
}

func (d *draft) checkView(v View) (View, error) {
	var err error
	if v.Name, err = checkLine("name", "name of the view", v.Name, MaxName); err != nil {
		return v, err
	}
	for _, other := range d.views.all() {
		if other.ID != v.ID && strings.EqualFold(other.Name, v.Name) {
			return v, refuse("name", "A view called “%s” exists already.", other.Name)
		}
	}
	if v.Icon == "" {
		v.Icon = ViewIcons[0]
	}
	if !slices.Contains(ViewIcons, v.Icon) {
		return v, refuse("icon", "“%.40s” is not an icon: one of %s is wanted.", v.Icon, strings.Join(ViewIcons, ", "))
	}
	return v, nil
}

func (d *draft) standingViews(but ID) []standing {
	var others []standing
	for _, v := range d.views.all() {
		if v.ID != but {
			others = append(others, standing{v.ID, v.Position, true})
		}
	}
	return others
}

func (c AddView) run(d *draft) error {
	if n := len(d.desk.views); n >= MaxViews {
		return refuse("name", "There are %d views; that is the most. Delete one first.", n)
	}
	if c.ID.IsZero() {
		c.ID = d.env.NewID()
	} else if _, taken := d.views.get(c.ID); taken {
		return refuse("id", "A view with the id %s exists already.", c.ID)
	}
	v := View{ID: c.ID, Name: c.Name, Question: c.Question, Icon: c.Icon, Pinned: c.Pinned, Counted: c.Counted,
		Colour: term.NthColour(len(d.desk.views))}
	if c.Colour != nil {
		v.Colour = *c.Colour
	}
	v, err := d.checkView(v)
	if err == nil {
		err = checkQuestion(v.Question)
	}
	if err != nil {
		return err
	}
	if v.Position, err = beside(d.standingViews(v.ID), c.After, ID{}); err != nil {
		return err
	}
	d.views.put(v)
	d.says = "View saved: " + quote(v.Name)
	return nil
}

func (c EditView) run(d *draft) error {
	v, err := d.view(c.ID)
	if err != nil {
		return err
	}
	was := v.Name
	set(&v.Name, c.Name)
	set(&v.Question, c.Question)
	set(&v.Icon, c.Icon)
	set(&v.Colour, c.Colour)
	set(&v.Pinned, c.Pinned)
	set(&v.Counted, c.Counted)
	if v, err = d.checkView(v); err != nil {
		return err
	}
	if c.Question != nil {
		if err := checkQuestion(v.Question); err != nil {
			return err
		}
	}
	d.views.put(v)
	d.says = "View changed: " + quote(v.Name)
	if v.Name != was {
		d.says = "View renamed: " + quote(was) + " is now " + quote(v.Name)
	}
	return nil
}

// set writes what is given.
func set[T any](to, by *T) {
	if by != nil {
		*to = *by
	}
}

func (c CopyView) run(d *draft) error {
	v, err := d.view(c.ID)
	if err != nil {
		return err
	}
	name := freeName(v.Name, func(name string) bool {
		_, err := d.checkView(View{Name: name})
		return err == nil
	})
	colour := v.Colour
	return AddView{Name: name, Question: v.Question, Icon: v.Icon, Colour: &colour, Counted: v.Counted, After: v.ID}.run(d)
}

func (c MoveView) run(d *draft) error {
	v, err := d.view(c.ID)
	if err != nil {
		return err
	}
	if v.Position, err = beside(d.standingViews(v.ID), c.After, c.Before); err != nil {
		return err
	}
	d.views.put(v)
	d.says = "View moved: " + quote(v.Name)
	return nil
}

func (c DeleteView) run(d *draft) error {
	v, err := d.view(c.ID)
	if err != nil {
		return err
	}
	d.views.remove(v.ID)
	d.says = "View deleted: " + quote(v.Name)
	return nil
}

func (d *draft) checkViews() error {
	for _, id := range d.views.order {
		if v, ok := d.views.get(id); ok {
			if _, err := d.checkView(v); err != nil {
				return &ConflictError{v.Name, []string{"name"}}
			}
		}
	}
	return nil
}

func (v View) revised() int64         { return v.Revision }
func (v View) key() ID                { return v.ID }
func (v View) at(revision int64) View { v.Revision = revision; return v }

var viewAttributes = []attribute[View]{
	attr("name", func(v *View) *string { return &v.Name }),
	attr("definition", func(v *View) *string { return &v.Question }),
	attr("icon", func(v *View) *string { return &v.Icon }),
	attr("colour", func(v *View) *Colour { return &v.Colour }),
	attr("place", func(v *View) *Position { return &v.Position }),
	attr("pinned", func(v *View) *bool { return &v.Pinned }),
	attr("counted", func(v *View) *bool { return &v.Counted }),
}
