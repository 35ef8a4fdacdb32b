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

// Key is one of the things that a view is ordered by. Empty values stand last
// either way.
type Key struct {
	By   By
	Back bool // the other way round
}

// By is what a key looks at.
type By string

// What a view may be ordered by. ByImportance is high to none, ByAge the oldest
// first, ByTime the shortest estimate first.
const (
	ByImportance By = "priority"
	ByDueDate    By = "due"
	ByStart      By = "start"
	ByPlan       By = "plan"
	ByTime       By = "estimate"
	ByTitle      By = "title"
	ByAge        By = "created"
	ByChange     By = "changed"
	ByOwnOrder   By = "own"
)

var bys = []By{ByImportance, ByDueDate, ByStart, ByPlan, ByTime, ByTitle, ByAge, ByChange, ByOwnOrder}

// ParseKeys reads keys such as "priority" and "-due", the other way round. Errors
// are *FieldError.
func ParseKeys(texts []string) ([]Key, error) {
	if len(texts) > maxKeys {
		return nil, &FieldError{"order", fmt.Sprintf("The view is ordered by %d things; %d is the most.", len(texts), maxKeys)}
	}
	var keys []Key
	for _, text := range texts {
		name, back := strings.CutPrefix(text, "-")
		if !slices.Contains(bys, By(name)) {
			return nil, &FieldError{"order", fmt.Sprintf("“%.40s” is not something to order by. One of %s is wanted, with a - before it for the other way round.", text, listed(bys))}
		}
		keys = append(keys, Key{By(name), back})
	}
	return keys, nil
}

// String returns the form that ParseKeys reads.
func (k Key) String() string {
	if k.Back {
		return "-" + string(k.By)
	}
	return string(k.By)
}

// MarshalText implements encoding.TextMarshaler.
func (k Key) MarshalText() ([]byte, error) { return []byte(k.String()), nil }

var byWords = map[By][2]string{
	ByImportance: {"priority", "priority, low first"}, ByDueDate: {"due", "due, the last first"},
	ByStart: {"start", "start, the last first"}, ByPlan: {"plan", "plan, the last first"},
	ByTime: {"estimate, short first", "estimate, long first"}, ByTitle: {"title", "title, from the end of the alphabet"},
	ByAge: {"age, the oldest first", "age, the newest first"}, ByChange: {"change, the longest ago first", "change, the latest first"},
	ByOwnOrder: {"your own order", "your own order, from the end"},
}

func keyWords(keys []Key) string {
	words := make([]string, len(keys))
	for i, k := range keys {
		words[i] = byWords[k.By][0]
		if k.Back {
			words[i] = byWords[k.By][1]
		}
	}
	return strings.Join(words, ", then ")
}

// inOrder compares by several keys; the manual order settles the rest.
func inOrder(keys []Key) order {
	return order{rank: keys[0].rank(), compare: func(a, b *book.Todo) int {
		for _, k := range keys {
			if c := k.compare(a, b); c != 0 {
				return c
			}
		}
		return book.ComparePositions(a, b)
	}}
}

// rank returns what orders by the key alone, nil where a number cannot.
func (k Key) rank() func(*book.Todo) int64 {
	var of func(*book.Todo) int64
	switch k.By {
	case ByImportance:
		of = func(t *book.Todo) int64 { return -int64(t.Priority) }
	case ByDueDate:
		of = func(t *book.Todo) int64 { return t.Due.Ordinal() }
	case ByStart:
		of = func(t *book.Todo) int64 { return int64(t.Start.Sub(day.MinDate)) }
	case ByPlan:
		of = func(t *book.Todo) int64 { return int64(t.Plan.First().Sub(day.MinDate)) }
	case ByTime:
		of = func(t *book.Todo) int64 { return int64(t.Estimate) }
	case ByAge:
		of = func(t *book.Todo) int64 { return int64(t.Created) }
	case ByChange:
		of = func(t *book.Todo) int64 { return int64(t.Changed) }
	default:
		return nil
	}
	return func(t *book.Todo) int64 {
		switch {
		case k.none(t):
			return math.MaxInt64
		case k.Back:
			return -of(t)
		}
		return of(t)
	}
}

func (k Key) compare(a, b *book.Todo) int {
	if noneA, noneB := k.none(a), k.none(b); noneA || noneB {
		switch {
		case noneA && noneB:
			return 0
		case noneA:
			return 1
		}
		return -1
	}
	c := k.forward(a, b)
	if k.Back {
		return -c
	}
	return c
}

// none reports whether a to-do has nothing that the key looks at.
func (k Key) none(t *book.Todo) bool {
	switch k.By {
	case ByDueDate:
		return t.Due.IsZero()
	case ByStart:
		return t.Start.IsZero()
	case ByPlan:
		return t.Plan.First().IsZero()
	case ByTime:
		return t.Estimate == 0
	}
	return false
}

func (k Key) forward(a, b *book.Todo) int {
	switch k.By {
	case ByImportance:
		return cmp.Compare(b.Priority, a.Priority)
	case ByDueDate:
		return a.Due.Compare(b.Due)
	case ByStart:
		return a.Start.Compare(b.Start)
	case ByPlan:
		slotA, _ := a.Plan.Slot()
		slotB, _ := b.Plan.Slot()
		return cmp.Or(a.Plan.First().Compare(b.Plan.First()), cmp.Compare(a.Plan.Precision(), b.Plan.Precision()), slotA.Compare(slotB))
	case ByTime:
		return cmp.Compare(a.Estimate, b.Estimate)
	case ByTitle:
		return strings.Compare(strings.ToLower(a.Title), strings.ToLower(b.Title))
	case ByAge:
		return cmp.Compare(a.Created, b.Created)
	case ByChange:
		return cmp.Compare(a.Changed, b.Changed)
	}
	return book.ComparePositions(a, b)
}
