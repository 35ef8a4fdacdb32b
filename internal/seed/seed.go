// Package seed gives the random tests of every package their seed. Only tests
// import it.
package seed

import (
	"flag"
	"testing"
	"time"
)

var given = flag.Uint64("seed", 1, "seed of the random tests; 0 takes one from the clock")

// New is the seed of one test, printed in its log: that of the flag -seed, or
// with 0 one from the clock. It is the same in every plain run, so that a test
// that fails there fails because of what was changed; `make hostile` looks for
// new ones.
func New(t testing.TB) uint64 {
	t.Helper()
	s := *given
	if s == 0 {
		s = uint64(time.Now().UnixNano())
	}
	t.Logf("seed %d", s)
	return s
}
