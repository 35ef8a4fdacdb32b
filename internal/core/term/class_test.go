package term_test

import (
	"errors"
	"fmt"
	"testing"

	"tincup/internal/core/term"
)

// The class of an error is that of the first in its chain that has one.
func TestClassOf(t *testing.T) {
	full, gone := term.Fail(term.NoSpace, "full"), term.Fail(term.Unavailable, "gone")
	for _, c := range []struct {
		err  error
		want term.Class
	}{
		{nil, term.Unclassed},
		{errors.New("a slip"), term.Unclassed},
		{full, term.NoSpace},
		{fmt.Errorf("writing: %w", full), term.NoSpace},
		{errors.Join(errors.New("first"), gone), term.Unavailable},
		{fmt.Errorf("%w: %w", gone, full), term.Unavailable},
	} {
		if got := term.ClassOf(c.err); got != c.want {
			t.Errorf("%v is of class %d, want %d", c.err, got, c.want)
		}
	}
	if other := term.Fail(term.NoSpace, "full"); errors.Is(other, full) || !errors.Is(fmt.Errorf("x: %w", full), full) {
		t.Error("failures are compared by their text and not by themselves")
	}
}
