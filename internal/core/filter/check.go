package filter

import (
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// Verdict says what a filter can hold.
type Verdict string

// The verdicts.
const (
	Possible   Verdict = "possible"
	Never      Verdict = "never"
	Always     Verdict = "always"
	NotDecided Verdict = "not decided"
)

// Answer is what Check found.
type Answer struct {
	// Verdict holds on every today from now on, Now on today alone.
	Verdict, Now Verdict
	// Because are the paths of tests to blame for a Verdict, or else a Now, of
	// never or always: an irreducible set. Without any one of them the filter
	// would not be so.
	Because []string
}

// What Check tries at most, in assignments of a value to a variable: for one
// question, and in all. An assignment looks at every test, so that in a filter of
// more than manyTests it counts as several. Sets to blame of two are looked for among
// few tests only.
const (
	effort    = 100_000
	allEffort = 3_000_000
	fewTests  = 24
	manyTests = 40
	// allLooks bounds how often a test is asked to tell values apart, for all the
	// todays that are looked at.
	allLooks = 12_000_000
)

// Check proves, over all possible to-dos, whether the filter can never match or
// always does. Lists, tags, people and shelves are open sets: another may always
// exist. It gives up with NotDecided after a fixed effort.
func (f Filter) Check(b *book.Desk, c day.Clock) Answer {
	k := &checker{book: b, clock: c, above: nesting(b), left: &effortLeft{cost: 1, rest: allEffort, looks: allLooks}}
	k.asks(f)
	if n := len(k.nodes); n > manyTests {
		k.left.cost = n * n / (manyTests * manyTests)
	}
	now := []day.Date{c.Today()}
	a := Answer{Now: k.verdict(now)}
	if a.Verdict = a.Now; a.Now != Never && a.Now != Always {
		return a
	}
	a.Because = k.blame(a.Now, now)
	// What is to blame today mostly is every day, and has less to tell apart.
	if v, _ := k.only(a.Because, a.Now).everyDay(a.Now); v == a.Now {
		return a
	}
	var todays []day.Date
	if a.Verdict, todays = k.everyDay(a.Now); a.Verdict == a.Now {
		a.Because = k.blame(a.Now, todays)
	}
	return a
}

// asks sets what is looked at.
func (k *checker) asks(f Filter) {
	k.filter = f
	f.Walk(func(n *question.Node, positive bool) {
		k.nodes = append(k.nodes, n)
		k.positive = append(k.positive, positive)
	})
	k.forced = make([]truth, len(k.nodes))
}

// only looks at some tests of the filter, with all others replaced as in blame.
func (k *checker) only(paths []string, v Verdict) *checker {
	i := -1
	var rebuild func(n *question.Node) *question.Node
	rebuild = func(n *question.Node) *question.Node {
		if n == nil {
			return nil
		}
		if n.Kind == question.IsTest {
			if i++; slices.Contains(paths, n.Path) {
				return n
			}
			if k.weak(i, v) == yes {
				return &question.Node{Kind: question.IsAll}
			}
			return &question.Node{Kind: question.IsAny}
		}
		again := &question.Node{Kind: n.Kind, Path: n.Path}
		for _, sub := range n.Nodes {
			again.Nodes = append(again.Nodes, rebuild(sub))
		}
		return again
	}
	some := &checker{book: k.book, clock: k.clock, above: k.above, left: k.left}
	some.asks(Filter{question.NewTree(rebuild(k.filter.Root()))})
	return some
}

// truth is a value of three-valued logic.
type truth uint8

const (
	unknown truth = iota
	no
	yes
)

func truthOf(b bool) truth {
	if b {
		return yes
	}
	return no
}

func (t truth) not() truth {
	if t == unknown {
		return unknown
	}
	return yes + no - t
}

// checker looks for a to-do that a filter matches, or does not.
type checker struct {
	filter Filter
	book   *book.Desk
	clock  day.Clock
	above  map[book.ID][]book.ID
	// nodes are the tests in order, with their polarity and what they are
	// forced to while others are looked at.
	nodes    []*question.Node
	positive []bool
	forced   []truth
	left     *effortLeft
	worlds   map[day.Date]*world
	// alike are the todays that one of them stands for.
	alike map[day.Date][]day.Date
}

// effortLeft is what may still be tried.
type effortLeft struct {
	cost  int // of one assignment
	now   int // of this question's effort
	rest  int // of all effort
	looks int // of allLooks
}

func (k *checker) verdict(todays []day.Date) Verdict {
	if v := k.verdictAs(Never, todays); v != Possible {
		return v
	}
	return k.verdictAs(Always, todays)
}

// verdictAs returns the verdict asked for where it holds on all todays, else
// Possible or NotDecided.
func (k *checker) verdictAs(v Verdict, todays []day.Date) Verdict {
	wanted := truthOf(v == Never) // the value that no to-do may give the filter
	for _, today := range todays {
		switch k.world(today).find(wanted) {
		case yes:
			return Possible
		case unknown:
			return NotDecided
		}
	}
	return v
}

func (k *checker) world(today day.Date) *world {
	w, ok := k.worlds[today]
	if !ok {
		if k.worlds == nil {
			k.worlds = map[day.Date]*world{}
		}
		w = k.newWorld(today)
		k.worlds[today] = w
	}
	return w
}

// everyDay returns the verdict asked for where it holds on every today from now
// on, with days that stand for all of them; else Possible, or NotDecided.
func (k *checker) everyDay(v Verdict) (Verdict, []day.Date) {
	wanted := truthOf(v == Never)
	var differ []day.Date
	seen := map[string]bool{}
	for _, d := range k.todays() {
		if k.left.looks <= 0 {
			return NotDecided, nil
		}
		w := k.world(d)
		if seen[w.key] { // its tests tell no more and no less apart than on an earlier day
			delete(k.worlds, d)
			continue
		}
		seen[w.key] = true
		differ = append(differ, d)
		switch w.find(wanted) {
		case yes:
			return Possible, nil
		case unknown:
			return NotDecided, nil
		}
	}
	return v, differ
}

// weak is what takes a test out: what makes a never-filter weaker, or an
// always-filter stronger.
func (k *checker) weak(i int, v Verdict) truth { return truthOf(k.positive[i] == (v == Never)) }

// blame finds an irreducible set of tests: with every other one replaced by
// what makes a never-filter weaker, or an always-filter stronger, the verdict
// stands. Dropping one test after the other finds one such set; where it has more
// than one or two, all smaller sets of these sizes are tried too, so that it is
// the smallest there.
func (k *checker) blame(v Verdict, todays []day.Date) []string {
	defer func() { clear(k.forced) }()
	holds := func(kept func(i int) bool) bool {
		for i := range k.nodes {
			if k.forced[i] = unknown; !kept(i) {
				k.forced[i] = k.weak(i, v)
			}
		}
		return k.verdictAs(v, todays) == v
	}
	paths := func(kept func(i int) bool) []string {
		var out []string
		for i, n := range k.nodes {
			if kept(i) {
				out = append(out, n.Path)
			}
		}
		return out
	}
	none := func(int) bool { return false }
	if holds(none) {
		return nil // an empty any, or all
	}
	dropped := make([]bool, len(k.nodes))
	kept := func(i int) bool { return !dropped[i] }
	size := len(k.nodes)
	for i := range slices.Backward(k.nodes) {
		if dropped[i] = true; holds(kept) {
			size--
		} else {
			dropped[i] = false
		}
	}
	for a := range k.nodes {
		only := func(i int) bool { return i == a }
		if size > 1 && holds(only) {
			return paths(only)
		}
	}
	for a := range k.nodes {
		if size <= 2 || len(k.nodes) > fewTests {
			break
		}
		for b := range a {
			both := func(i int) bool { return i == a || i == b }
			if holds(both) {
				return paths(both)
			}
		}
	}
	return paths(kept)
}
