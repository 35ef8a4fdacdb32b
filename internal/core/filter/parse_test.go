package filter_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/filter"
)

// named puts ids in the place of %names.
func (s *small) named(text string) string {
	for name, id := range map[string]fmt.Stringer{"%calls": s.calls, "%work": s.work, "%meetings": s.meetings, "%loans": s.loans,
		"%labels": s.labels, "%shelf": s.shelf, "%ines": s.ines, "%abel": s.abel, "%strange": s.strange, "%section": s.section} {
		text = strings.ReplaceAll(text, name, id.String())
	}
	return text
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{`{"all":[{"field":"due","op":"before","date":"P3D"}]}`, `{"not":{"any":[]}}`, `{"field":"tag","op":"none"}`} {
		f.Add([]byte(seed))
	}
	s := newSmall(f)
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := filter.Parse(data)
		if err != nil {
			return
		}
		again, err := got.MarshalJSON()
		if err != nil {
			t.Fatal(err)
		}
		same, err := filter.Parse(again)
		if err != nil || same.Sentence(s.desk) != got.Sentence(s.desk) {
			t.Fatalf("%s comes back as %s: %v", data, again, err)
		}
	})
}
