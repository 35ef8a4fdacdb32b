package book_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/book"
)

func TestPositionsAfterOneAnotherStayShort(t *testing.T) {
	p := book.Position("")
	for i := range 200_000 {
		next := p.After()
		if next <= p {
			t.Fatalf("after %d rows: %q is not behind %q", i, next, p)
		}
		p = next
	}
	if len(p) > 8 {
		t.Errorf("the position of row 200,000 is %q", p)
	}
}

// Between any two neighbours there is room, wherever one inserts.
func TestPositionsBetween(t *testing.T) {
	const seed = 7
	r := rand.New(rand.NewPCG(seed, seed))
	for _, where := range []func(n int) int{
		func(n int) int { return r.IntN(n + 1) },
		func(int) int { return 0 },
		func(n int) int { return n },
		func(n int) int { return min(1, n) },
	} {
		var rows []book.Position
		for range 2000 {
			at := where(len(rows))
			var before, behind book.Position
			if at > 0 {
				before = rows[at-1]
			}
			if at < len(rows) {
				behind = rows[at]
			}
			p := before.Between(behind)
			if p <= before || behind != "" && p >= behind {
				t.Fatalf("seed %d: %q is not between %q and %q", seed, p, before, behind)
			}
			rows = slices.Insert(rows, at, p)
		}
	}
}
