package filter_test

import (
	"testing"

	"tincup/internal/core/filter"
)

// BenchmarkCheck prints what checking filters of twenty tests takes: one that
// can hold something, and one that can not, with its tests to blame.
func BenchmarkCheck(b *testing.B) {
	s := newSmall(b)
	const twenty = `{"field":"due","op":"within-next","days":7},{"field":"repeating","op":"no"},{"field":"tag","op":"any-of","values":["%calls"]},
		{"field":"priority","op":"any-of","values":["high","medium"]},{"field":"shelf","op":"any-of","values":["%shelf"]},
		{"not":{"field":"text","op":"contains","text":"lamp"}},{"field":"plan","op":"none"},{"field":"start","op":"before","date":"P3D"},
		{"field":"estimate","op":"at-most","minutes":30},{"field":"kind","op":"any-of","values":["to-do"]},{"field":"paused","op":"no"},
		{"any":[{"field":"person","op":"none"},{"field":"person","op":"any-of","values":["%ines"]}]},{"field":"is-subtask","op":"no"},
		{"field":"has-subtasks","op":"no"},{"field":"in-handful","op":"no"},{"field":"overdue","op":"no"},{"field":"created","op":"within-past","days":30},
		{"field":"attachment","op":"no"}`
	for name, json := range map[string]string{
		"possible": `{"all":[` + twenty + `,{"field":"status","op":"any-of","values":["needs-action","in-process"]}]}`,
		"never":    `{"all":[` + twenty + `,{"field":"due","op":"before","date":"P0D"}]}`,
	} {
		f := parse(b, "%s", s.named(json))
		b.Run(name, func(b *testing.B) {
			var a filter.Answer
			for b.Loop() {
				a = f.Check(s.desk, s.clock())
			}
			if string(a.Verdict) != name {
				b.Fatalf("%+v", a)
			}
		})
	}
}
