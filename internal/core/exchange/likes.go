package exchange

import (
	"cmp"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// likeness is what two to-dos have in common that look alike.
type likeness struct {
	title string // in small letters
	list  book.ID
	due   day.Moment
}

// Likes tells which of some items have no UID and look like a to-do that is there, in the bin aside:
// their titles, lists and dues are equal, case aside. list is where those go that name none. To-dos
// that look like fewer than there are of them do not: of two rows that are the same, one may be new.
func Likes(desk *book.Desk, items []Item, list book.ID) []bool {
	like := make([]bool, len(items))
	if !slices.ContainsFunc(items, func(i Item) bool { return i.UID == "" }) {
		return like
	}
	there := map[likeness]int{}
	for t := range desk.All() {
		if t.Deleted.IsZero() && t.Record.IsZero() {
			there[likeness{strings.ToLower(t.Title), t.List, t.Due}]++
		}
	}
	lists := map[string]book.ID{}
	for _, l := range desk.Lists() {
		if l.Listed() {
			lists[strings.ToLower(l.Name)] = l.ID
		}
	}
	into := make([]book.ID, len(items)) // the list of each
	unknown := make([]bool, len(items)) // it goes into a list that is not there yet
	for i, item := range items {
		switch {
		case item.Under >= 0:
			into[i], unknown[i] = into[item.Under], unknown[item.Under]
		case item.List != "":
			id, known := lists[strings.ToLower(item.List)]
			into[i], unknown[i] = id, !known
		default:
			into[i] = list
		}
		key := likeness{strings.ToLower(item.Todo.Title), into[i], item.Todo.Due}
		if item.UID == "" && !unknown[i] && there[key] > 0 {
			there[key]--
			like[i] = true
		}
	}
	return like
}

// Without returns items without some of them, and without what stands under these.
func Without(items []Item, out []bool) []Item {
	var kept []Item
	at := make([]int, len(items)) // where each is among those kept; -1 for nowhere
	for i, item := range items {
		at[i] = -1
		if out[i] || item.Under >= 0 && at[item.Under] < 0 {
			continue
		}
		if item.Under >= 0 {
			item.Under = at[item.Under]
		}
		at[i] = len(kept)
		kept = append(kept, item)
	}
	return kept
}

// Passed is a property that is not taken over, with how many items have it.
type Passed struct {
	Name  string
	Count int
}

// mostPassed is how many of them are named.
const mostPassed = 30

func passed(items []Item) []Passed {
	counts := map[string]int{}
	for i := range items {
		for _, name := range items[i].Passed {
			counts[name]++
		}
	}
	all := make([]Passed, 0, len(counts))
	for name, n := range counts {
		all = append(all, Passed{Cut(name, 60), n})
	}
	slices.SortFunc(all, func(a, b Passed) int { return cmp.Or(b.Count-a.Count, cmp.Compare(a.Name, b.Name)) })
	return all[:min(len(all), mostPassed)]
}
