package filter

import (
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// orNone says that a value is absent, or what is asked of it.
func orNone(t *question.Test, none string, say func() string) string {
	if t.Op == question.None {
		return none
	}
	return say()
}

// row is a field that names a row by its id: before stands before the names.
func row(variable, before, none, some string, fact func(*facts) book.ID, cost int, of func(*Matcher, *book.Todo) book.ID) *spec {
	return &spec{vars: []string{variable}, some: some,
		ask: func(m *Matcher, t *question.Test) predicate {
			return predicate{oneOf(t, func(t *book.Todo) book.ID { return of(m, t) }), cost}
		},
		holds: func(t *question.Test, f *facts, _ day.Date) bool { return isOneOf(t, fact(f)) },
		say: func(t *question.Test, b *book.Desk) string {
			return orNone(t, none, func() string { return before + names(t, b, "or") })
		}}
}

// date is a field that is a day, or a stretch of days; fact returns it with its time,
// and the today that it is seen from where that is not the one asked about.
func date(variable, verb, none, some string, fact func(*facts, day.Date) (day.Horizon, day.TimeOfDay, day.Date)) *spec {
	return &spec{vars: []string{variable}, some: some,
		ask: (*Matcher).dated,
		holds: func(t *question.Test, f *facts, today day.Date) bool {
			h, at, seen := fact(f, today)
			if seen.IsZero() {
				seen = today
			}
			return t.Meets(h, at, seen)
		},
		say: func(t *question.Test, _ *book.Desk) string {
			return orNone(t, none, func() string { return sayDate(t, verb) })
		}}
}

// flag is a field that is so or not.
func flag(words string, vars []string, fact func(*facts) bool, cost int, is func(*Matcher, *book.Todo) bool) *spec {
	return &spec{vars: vars,
		ask: func(m *Matcher, t *question.Test) predicate {
			wanted := t.Op == question.Yes
			return predicate{func(t *book.Todo) bool { return is(m, t) == wanted }, cost}
		},
		holds: func(t *question.Test, f *facts, _ day.Date) bool { return fact(f) == (t.Op == question.Yes) },
		say: func(t *question.Test, _ *book.Desk) string {
			if t.Op == question.No {
				return "not " + words
			}
			return words
		}}
}

// choice is a field whose value is one of a few words, and nothing else in a to-do
// depends on it.
type choice struct {
	field question.Field
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
	{field: question.Priority, words: question.Priority.Words(), of: func(t *book.Todo) uint8 { return uint8(t.Priority) },
		say: func(words []string) string {
			return "of " + join(words, "or", func(w string) string {
				if w == "none" {
					return "no"
				}
				return w
			}) + " priority"
		}},
	{field: question.Concentration, words: append([]string{""}, question.Concentration.Words()...), of: func(t *book.Todo) uint8 { return uint8(t.Concentration) },
		say: func(words []string) string {
			return "of " + join(words, "or", func(w string) string { return w }) + " work"
		},
		none: "neither deep nor light work", some: "of deep or light work"},
}

const maxChoices = 4

var choiceSpecs = func() map[question.Field]*spec {
	specs := map[question.Field]*spec{}
	for i, c := range choices {
		s := &spec{vars: []string{string(c.field)}, some: c.some}
		absent := c.words[0] == ""
		s.ask = func(_ *Matcher, t *question.Test) predicate {
			is := among(t, c.words)
			is[0] = is[0] && !absent || t.Op == question.None
			return predicate{func(t *book.Todo) bool { return is[c.of(t)] }, 1}
		}
		s.holds = func(t *question.Test, f *facts, _ day.Date) bool {
			if t.Op == question.None {
				return f.choices[i] == 0
			}
			return slices.Contains(t.Words, c.words[f.choices[i]])
		}
		s.say = func(t *question.Test, _ *book.Desk) string {
			return orNone(t, c.none, func() string { return c.say(t.Words) })
		}
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
