package app

import (
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/view"
)

// countedAtOnce is from how many changed to-dos on the counts are let go of, and counted
// anew when they are asked for next: that holds up readers alone, and no change.
const countedAtOnce = 500

// counts keeps what stands round every view, of each account that has asked for it.
type counts struct {
	mu   sync.Mutex
	kept map[book.ID]*view.Tally
}

// follow brings the counts of who made a change up to date. The caller alone has the
// Book; the change has been applied.
func (k *counts) follow(desk *book.Desk, c *book.Change) {
	k.mu.Lock()
	defer k.mu.Unlock()
	tally, asked := k.kept[c.Actor]
	switch {
	case !asked:
	case len(c.Todos) > countedAtOnce:
		delete(k.kept, c.Actor)
	default:
		tally.Follow(desk, c)
	}
}

// Survey is what stands round every view, for one who reads the account's desk; it is
// good for as long as that one reads.
func (a *Session) Survey(desk *book.Desk, c day.Clock) *view.Survey {
	survey := a.counts.survey(desk, c)
	survey.Complete(desk, c) // which takes longer, and holds up no other reader
	return survey
}

func (k *counts) survey(desk *book.Desk, c day.Clock) *view.Survey {
	k.mu.Lock()
	defer k.mu.Unlock()
	tally, asked := k.kept[desk.Account()]
	if !asked {
		if k.kept == nil {
			k.kept = map[book.ID]*view.Tally{}
		}
		tally = view.NewTally(desk, c)
		k.kept[desk.Account()] = tally
	}
	return tally.Survey(desk, c)
}

// lying is the work of open to-dos where it lies, of the horizons that are wanted.
func (k *counts) lying(desk *book.Desk, c day.Clock, wanted func(day.Horizon) bool) []plan.Lying {
	k.survey(desk, c) // brings the tally up to date
	k.mu.Lock()
	defer k.mu.Unlock()
	return k.kept[desk.Account()].Lying(desk, wanted)
}
