package filter

import (
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// orNone says that a value is absent, or what is asked of it.
func orNone(t *Test, none string, say func() string) string {
	if t.Op == None {
		return none
	}
	return say()
}

// row is a field that names a row by its id: before stands before the names.
func row(ops []Op, variable, before, none, some string, fact func(*facts) book.ID, cost int, of func(*Matcher, *book.Todo) book.ID) *spec {
	return &spec{ops: ops, vars: []string{variable}, some: some,
		ask: func(m *Matcher, t *Test) question {
			return question{oneOf(t, func(t *book.Todo) book.ID { return of(m, t) }), cost}
		},
		holds: func(t *Test, f *facts, _ day.Date) bool { return t.oneOf(fact(f)) },
		say: func(t *Test, b *book.Desk) string {
			return orNone(t, none, func() string { return before + t.names(b, "or") })
		}}
}

// date is a field that is a day, or a stretch of days; fact returns it with its time,
// and the today that it is seen from where that is not the one asked about.
func date(ops []Op, variable, verb, none, some string, fact func(*facts, day.Date) (day.Horizon, day.TimeOfDay, day.Date)) *spec {
	return &spec{ops: ops, vars: []string{variable}, some: some,
		ask: (*Matcher).dated,
		holds: func(t *Test, f *facts, today day.Date) bool {
			h, at, seen := fact(f, today)
			if seen.IsZero() {
				seen = today
			}
			return t.onDay(h, at, seen)
		},
		say: func(t *Test, _ *book.Desk) string { return orNone(t, none, func() string { return t.sayDate(verb) }) }}
}

// flag is a field that is so or not.
func flag(words string, vars []string, fact func(*facts) bool, cost int, is func(*Matcher, *book.Todo) bool) *spec {
	return &spec{ops: flagOps, vars: vars,
		ask: func(m *Matcher, t *Test) question {
			wanted := t.Op == Yes
			return question{func(t *book.Todo) bool { return is(m, t) == wanted }, cost}
		},
		holds: func(t *Test, f *facts, _ day.Date) bool { return fact(f) == (t.Op == Yes) },
		say: func(t *Test, _ *book.Desk) string {
			if t.Op == No {
				return "not " + words
			}
			return words
		}}
}

// choice is a field whose value is one of a few words, and nothing else in a to-do
// depends on it.
type choice struct {
	field Field
	// words are those of the values, in their order; "" is a value that is none, which
	// the operator None asks for.
	words []string
	of    func(*book.Todo) uint8
	// say says what a to-do is that has one of some words.
	say        func(words []string) string
	none, some string
}

// choices are all of them; facts has room for maxChoices.
var choices = []choice{
	{field: Priority, words: []string{"none", "low", "medium", "high"}, of: func(t *book.Todo) uint8 { return uint8(t.Priority) },
		say: func(words []string) string {
			return "of " + join(words, "or", func(w string) string {
				if w == "none" {
					return "no"
				}
				return w
			}) + " priority"
		}},
	{field: Concentration, words: []string{"", "deep", "light"}, of: func(t *book.Todo) uint8 { return uint8(t.Concentration) },
		say: func(words []string) string {
			return "of " + join(words, "or", func(w string) string { return w }) + " work"
		},
		none: "neither deep nor light work", some: "of deep or light work"},
}

// Concentration is the kind of attention that a to-do takes.
const Concentration Field = "concentration"

const maxChoices = 4

var choiceSpecs = func() map[Field]*spec {
	specs := map[Field]*spec{}
	for i, c := range choices {
		s := &spec{ops: []Op{AnyOf}, words: c.words, vars: []string{string(c.field)}, some: c.some}
		absent := c.words[0] == ""
		if absent {
			s.ops, s.words = []Op{AnyOf, None}, c.words[1:]
		}
		s.ask = func(_ *Matcher, t *Test) question {
			is := among(t, c.words)
			is[0] = is[0] && !absent || t.Op == None
			return question{func(t *book.Todo) bool { return is[c.of(t)] }, 1}
		}
		s.holds = func(t *Test, f *facts, _ day.Date) bool {
			if t.Op == None {
				return f.choices[i] == 0
			}
			return slices.Contains(t.Words, c.words[f.choices[i]])
		}
		s.say = func(t *Test, _ *book.Desk) string { return orNone(t, c.none, func() string { return c.say(t.Words) }) }
		specs[c.field] = s
	}
	return specs
}()

// choiceValues are the values of a choice's variable; nil for another variable.
func choiceValues(name string) []func(*facts) {
	at := slices.IndexFunc(choices, func(c choice) bool { return string(c.field) == name })
	if at < 0 {
		return nil
	}
	return each(len(choices[at].words), func(f *facts, i int) { f.choices[at] = uint8(i) })
}
