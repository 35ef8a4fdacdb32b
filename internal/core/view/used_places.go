package view

import (
	"cmp"
	"slices"

	"tincup/internal/core/book"
)

// UsedPlace is a place and how many to-dos that are not closed have it.
type UsedPlace struct {
	Name  string
	Count int
}

// UsedPlaces returns the places of what is not closed, the most used first.
func UsedPlaces(b *book.Desk) []UsedPlace {
	counts := map[string]int{}
	for _, todos := range [][]*book.Todo{b.Open(), b.Paused(), b.Notes()} {
		for _, t := range todos {
			if t.Place != "" {
				counts[t.Place]++
			}
		}
	}
	out := make([]UsedPlace, 0, len(counts))
	for name, n := range counts {
		out = append(out, UsedPlace{name, n})
	}
	slices.SortFunc(out, func(a, b UsedPlace) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Name, b.Name))
	})
	return out
}
