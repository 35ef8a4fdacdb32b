package view

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Grouping is what the rows of a group have in common.
type Grouping string

// The groupings; none is one group of all. A to-do of several tags stands under
// the first of them by name.
const (
	GroupByDue      Grouping = "due"
	GroupByPlan     Grouping = "plan"
	GroupByPriority Grouping = "priority"
	GroupByList     Grouping = "list"
	GroupByShelf    Grouping = "shelf"
	GroupByTag      Grouping = "tag"
	GroupByPerson   Grouping = "person"
	GroupByStatus   Grouping = "status"
	GroupByEstimate Grouping = "estimate"
	// GroupByWeight is the two-by-two of important and urgent.
	GroupByWeight Grouping = "two-by-two"
)

var groupings = append([]Grouping{GroupByDue, GroupByPlan, GroupByList, GroupByShelf, GroupByTag, GroupByPerson, GroupByEstimate}, closedGroupings...)

// words name the grouping in a sentence.
func (g Grouping) words() string {
	if g == GroupByDue {
		return "due day"
	}
	return string(g)
}

func (g Grouping) known() bool { return g == "" || slices.Contains(groupings, g) }

// Kinds of the groups of groupings. Those of a closed set carry their word, the
// others what they are of; InACup, Untagged, Alone and so on hold what has none.
const (
	WithoutDue  Kind = "without-due"
	Unplanned   Kind = "unplanned"
	PlannedFor  Kind = "planned-for"
	Parked      Kind = "parked"
	OfPriority  Kind = "priority"
	OfList      Kind = "in-list"
	OfShelf     Kind = "on-shelf"
	Untagged    Kind = "untagged"
	OfPerson    Kind = "with-person"
	OfStatus    Kind = "status"
	OfEstimate  Kind = "estimate"
	InQuarter   Kind = "quarter"
	lastOfRanks      = math.MaxInt32
)

// bands part estimates, in minutes, each up to and with the number.
var bands = []struct {
	upTo int
	name string
}{{15, "15 min at most"}, {30, "16 to 30 min"}, {60, "31 min to 1 h"}, {120, "1 h to 2 h"}, {math.MaxInt32, "over 2 h"}, {0, "without an estimate"}}

// quarters are the groups of a two-by-two, by their code.
var quarters = []string{"important-urgent", "important", "urgent", "neither"}

var quarterNames = []string{"Important and urgent", "Important, not urgent", "Urgent, not important", "Neither"}

// UrgentDays is how near is urgent in a two-by-two unless a view says otherwise.
const UrgentDays = 3

// by returns the function that names a to-do's group.
func (n moment) by(b *book.Desk, g Grouping, urgentDays int) func(*book.Todo) groupKey {
	switch g {
	case GroupByDue:
		return func(t *book.Todo) groupKey {
			switch {
			case t.Due.IsZero():
				return groupKey{rank: lastOfRanks, kind: WithoutDue}
			case t.Open() && n.overdue(t):
				return groupKey{rank: math.MinInt32, kind: Late}
			}
			return n.onDay(n.DayOfMoment(t.Due))
		}
	case GroupByPlan:
		return n.byPlan
	case GroupByEstimate:
		return func(t *book.Todo) groupKey {
			i := len(bands) - 1
			if t.Estimate > 0 {
				i = slices.IndexFunc(bands, func(band struct {
					upTo int
					name string
				}) bool {
					return int(t.Estimate) <= band.upTo
				})
			}
			return groupKey{rank: int32(i), kind: OfEstimate, code: uint8(i)}
		}
	case GroupByWeight:
		if urgentDays == 0 {
			urgentDays = UrgentDays
		}
		return func(t *book.Todo) groupKey {
			i := 0
			if t.Priority < book.Medium {
				i = 2
			}
			if !n.urgent(t, urgentDays) {
				i++
			}
			return groupKey{rank: int32(i), kind: InQuarter, code: uint8(i)}
		}
	}
	if c, ok := closed[g]; ok {
		return c.key
	}
	return byRow(b, g)
}

// urgent: due or planned within some days, or before.
func (n moment) urgent(t *book.Todo, days int) bool {
	by := n.today.AddDays(days)
	if !t.Due.IsZero() && !n.DayOfMoment(t.Due).After(by) {
		return true
	}
	plan := n.plan(t)
	return !plan.First().IsZero() && !plan.First().After(by)
}

func (n moment) byPlan(t *book.Todo) groupKey {
	switch plan := n.plan(t); {
	case plan.IsZero():
		return groupKey{rank: lastOfRanks, kind: Unplanned}
	case plan.Precision() == day.Parked:
		return groupKey{rank: lastOfRanks - 1, kind: Parked}
	case t.Open() && plan.Past(n.today):
		return groupKey{rank: math.MinInt32, kind: CarriedOver}
	case plan.Precision() == day.Day:
		key := n.onDay(plan.First())
		key.kind = PlannedFor
		return key
	default:
		return groupKey{rank: rank(n.today, plan.First(), plan.Precision()), kind: PlannedFor, horizon: plan}
	}
}

// byRow groups by lists, shelves, tags or people, in the order in which these
// stand; who has none comes last, but the Cup comes first.
func byRow(b *book.Desk, g Grouping) func(*book.Todo) groupKey {
	ranks := map[book.ID]int32{}
	put := func(id book.ID) { ranks[id] = int32(len(ranks)) + 1 }
	shelfOf := map[book.ID]book.ID{}
	shelves := b.Shelves()
	slices.SortFunc(shelves, func(a, b *book.Shelf) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), a.ID.Compare(b.ID))
	})
	switch g {
	case GroupByShelf, GroupByList:
		for _, s := range shelves {
			put(s.ID)
		}
		lists := b.Lists()
		slices.SortFunc(lists, func(a, b *book.List) int {
			return cmp.Or(cmp.Compare(ranks[a.Shelf], ranks[b.Shelf]), cmp.Compare(a.Position, b.Position), a.ID.Compare(b.ID))
		})
		for _, l := range lists {
			shelfOf[l.ID] = l.Shelf
			put(l.ID)
		}
	case GroupByTag:
		tags := b.Tags()
		slices.SortFunc(tags, func(a, b *book.Tag) int { return strings.Compare(a.Name, b.Name) })
		for _, t := range tags {
			put(t.ID)
		}
	case GroupByPerson:
		people := b.People()
		slices.SortFunc(people, func(a, b *book.Person) int { return strings.Compare(a.Name, b.Name) })
		for _, p := range people {
			put(p.ID)
		}
	}
	switch g {
	case GroupByList:
		return func(t *book.Todo) groupKey { return groupKey{rank: ranks[t.List], kind: OfList, of: t.List} }
	case GroupByShelf:
		return func(t *book.Todo) groupKey {
			shelf := shelfOf[t.List]
			return groupKey{rank: ranks[shelf], kind: OfShelf, of: shelf}
		}
	case GroupByTag:
		return func(t *book.Todo) groupKey {
			first, of := int32(lastOfRanks), book.ID{}
			for _, id := range t.Tags {
				if r := ranks[id]; r > 0 && r < first {
					first, of = r, id
				}
			}
			if of.IsZero() {
				return groupKey{rank: lastOfRanks, kind: Untagged}
			}
			return groupKey{rank: first, kind: Tagged, of: of}
		}
	case GroupByPerson:
		return func(t *book.Todo) groupKey {
			if t.Person.ID.IsZero() {
				return groupKey{rank: lastOfRanks, kind: OfPerson}
			}
			return groupKey{rank: ranks[t.Person.ID], kind: OfPerson, of: t.Person.ID}
		}
	}
	return func(*book.Todo) groupKey { return groupKey{kind: All} }
}

// Word is the value that a group of a closed set stands for, as a to-do's field
// has it: "high", "in-process", "important-urgent".
func (g Group) Word() string {
	switch g.Kind {
	case InQuarter:
		return quarters[g.code]
	case OfEstimate:
		if band := bands[g.code]; band.upTo < math.MaxInt32 {
			return fmt.Sprint(band.upTo)
		}
		return "more"
	}
	if c := closedOf(g.Kind); c != nil {
		return c.word(g.code)
	}
	return ""
}

// Title is the name of what a group is one's, in words; "" where its kind and
// day say it.
func (g Group) Title(b *book.Desk) string {
	switch g.Kind {
	case InSection:
		if s, err := b.Section(g.Of); err == nil {
			return s.Name
		}
	case Tagged:
		if t, err := b.Tag(g.Of); err == nil {
			return t.Name
		}
	case OfPlace:
		if p, err := b.Place(g.Of); err == nil {
			return p.Name
		}
	case OfEstimate:
		name := bands[g.code].name
		return strings.ToUpper(name[:1]) + name[1:]
	case InQuarter:
		return quarterNames[g.code]
	case OfList:
		if l, err := b.List(g.Of); err == nil {
			return l.Name
		}
		return "The Cup"
	case OfShelf:
		if s, err := b.Shelf(g.Of); err == nil {
			return s.Name
		}
		return "The Cup"
	case OfPerson:
		if p, err := b.Person(g.Of); err == nil {
			return p.Name
		}
		return "With nobody"
	}
	if c := closedOf(g.Kind); c != nil {
		return c.title(g.code)
	}
	return ""
}
