package filter_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/filter"
)

// A filter of many tests is answered, or given up, in a time that grows with them and
// not with their cube.
func TestCheckOfManyTests(t *testing.T) {
	s := newSmall(t)
	check := func(n int) (filter.Answer, time.Duration) {
		var tests []string
		for i := range n {
			tests = append(tests, fmt.Sprintf(`{"field":"tag","op":"any-of","values":["01890000-0000-7000-8000-%012x"]}`, i))
		}
		f := parse(t, "%s", `{"all":[`+strings.Join(tests, ",")+`]}`)
		best := time.Hour
		var a filter.Answer
		for range 5 {
			begun := time.Now()
			a = f.Check(s.desk, s.clock())
			best = min(best, time.Since(begun))
		}
		return a, best
	}
	_, few := check(25)
	a, many := check(250)
	if a.Now != filter.NotDecided || many > 100*few {
		t.Errorf("%s after %v; 25 tests take %v", a.Now, many, few)
	}
	t.Logf("25 tests take %v, 250 take %v", few, many)
}
