package view

import (
	"cmp"
	"slices"
	"strings"

	"tincup/internal/core/book"
)

// UsedPlace is a place and how many to-dos that are not closed have it.
type UsedPlace struct {
	*book.Place
	Count int
}

// UsedPlaces returns every place, those first that most of what is not closed has.
func UsedPlaces(b *book.Desk) []UsedPlace {
	counts := map[string]int{}
	for _, todos := range [][]*book.Todo{b.Open(), b.Paused(), b.Notes()} {
		for _, t := range todos {
			if t.Place != "" {
				counts[t.Place]++
			}
		}
	}
	out := []UsedPlace{}
	for _, p := range b.Places() {
		out = append(out, UsedPlace{p, counts[p.Name]})
	}
	slices.SortStableFunc(out, func(a, b UsedPlace) int { return cmp.Compare(b.Count, a.Count) })
	return out
}

// The subjects of places. Here are the places at which the person is.
type (
	AtPlace struct{ ID book.ID }
	Here    struct{ Places []book.ID }
)

func (s AtPlace) ask(b *book.Desk, _ moment, _ *Query) (*selection, error) {
	p, err := b.Place(s.ID)
	if err != nil {
		return nil, err
	}
	return &selection{rows: slices.Concat(b.Open(), b.Paused(), b.Notes()), group: atPlaces(p), order: byWeight}, nil
}

func (s AtPlace) sentence(b *book.Desk, _ moment) string {
	p, err := b.Place(s.ID)
	if err != nil {
		return ""
	}
	return "Open, and done at " + p.Name + "."
}

func (s Here) ask(b *book.Desk, _ moment, _ *Query) (*selection, error) {
	return &selection{rows: b.Open(), group: atPlaces(s.at(b)...), order: byWeight}, nil
}

func (s Here) sentence(b *book.Desk, _ moment) string {
	var names []string
	for _, p := range s.at(b) {
		names = append(names, p.Name)
	}
	if len(names) == 0 {
		return "You are at none of your places, as far as is known."
	}
	return "Open, and done where you are: " + strings.Join(names, ", ") + "."
}

// at are the places that are there still.
func (s Here) at(b *book.Desk) []*book.Place {
	var places []*book.Place
	for _, id := range s.Places {
		if p, err := b.Place(id); err == nil {
			places = append(places, p)
		}
	}
	return places
}

// atPlaces is what is done at some places; where they are many, by them.
func atPlaces(places ...*book.Place) func(*book.Todo) (groupKey, bool) {
	keys := map[string]groupKey{}
	for i, p := range places {
		keys[p.Name] = groupKey{rank: int32(i), kind: OfPlace, of: p.ID}
		if len(places) == 1 {
			keys[p.Name] = groupKey{kind: All}
		}
	}
	return func(t *book.Todo) (groupKey, bool) {
		key, held := keys[t.Place]
		return key, held
	}
}
