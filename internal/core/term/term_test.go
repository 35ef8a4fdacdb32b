package term_test

import (
	"encoding"
	"fmt"
	"testing"

	"tincup/internal/core/term"
)

// Every word is read back to the value it was written for, and what is none is refused with
// the words there are.
func TestWords(t *testing.T) {
	for _, c := range []struct {
		kind string
		all  []encoding.TextMarshaler
		read func(text []byte) (encoding.TextMarshaler, error)
		want string
	}{
		{"status", []encoding.TextMarshaler{term.NeedsAction, term.InProcess, term.Completed, term.Cancelled},
			func(b []byte) (encoding.TextMarshaler, error) { var v term.Status; return &v, v.UnmarshalText(b) },
			"[needs-action in-process completed cancelled]"},
		{"priority", []encoding.TextMarshaler{term.NoPriority, term.Low, term.Medium, term.High},
			func(b []byte) (encoding.TextMarshaler, error) { var v term.Priority; return &v, v.UnmarshalText(b) },
			"[none low medium high]"},
		{"role", []encoding.TextMarshaler{term.NoRole, term.Ask, term.WaitingOn, term.For},
			func(b []byte) (encoding.TextMarshaler, error) { var v term.Role; return &v, v.UnmarshalText(b) },
			"[none ask waiting on for]"},
		{"concentration", []encoding.TextMarshaler{term.Unset, term.Deep, term.Light},
			func(b []byte) (encoding.TextMarshaler, error) {
				var v term.Concentration
				return &v, v.UnmarshalText(b)
			},
			"[unset deep light]"},
		{"colour", []encoding.TextMarshaler{term.Moss, term.Slate, term.Plum, term.Ochre, term.Sea, term.Clay, term.Stone, term.Berry},
			func(b []byte) (encoding.TextMarshaler, error) { var v term.Colour; return &v, v.UnmarshalText(b) },
			"[moss slate plum ochre sea clay stone berry]"},
	} {
		if got := fmt.Sprint(c.all); got != c.want {
			t.Errorf("the words of a %s are %s", c.kind, got)
		}
		for _, v := range c.all {
			text, err := v.MarshalText()
			if err != nil {
				t.Fatal(err)
			}
			back, err := c.read(text)
			if err != nil {
				t.Errorf("%s: %v", text, err)
			}
			if again, _ := back.MarshalText(); string(again) != string(text) {
				t.Errorf("%s is read as %s", text, again)
			}
		}
		if _, err := c.read([]byte("sideways")); err == nil || err.Error() != fmt.Sprintf(`"sideways" is not a %s: one of %s is wanted`, c.kind, c.want) {
			t.Errorf("a word that is none: %v", err)
		}
	}
	for _, v := range []encoding.TextMarshaler{term.Status(4), term.Priority(4), term.Role(4), term.Colour(8), term.Concentration(3)} {
		if text, err := v.MarshalText(); err == nil {
			t.Errorf("a value that is none is written as %s", text)
		}
	}
	if term.NthColour(9) != term.Slate || !term.InProcess.Open() || term.Completed.Open() {
		t.Error("colours do not take turns, or what is open is not")
	}
}

func TestIDs(t *testing.T) {
	const text = "01a21e56-b279-7e7c-8cd8-9b9c5ce42c33"
	id, err := term.ParseID("01A21E56-B279-7E7C-8CD8-9B9C5CE42C33")
	if err != nil || id.String() != text || id.IsZero() {
		t.Errorf("%s, %v", id, err)
	}
	var none term.ID
	if err := none.UnmarshalText(nil); err != nil || !none.IsZero() || none.String() != "" {
		t.Errorf("no text is %q, %v", none, err)
	}
	for _, bad := range []string{"", "x", text[:35], text + "0", "01a21e56_b279-7e7c-8cd8-9b9c5ce42c33", "g1a21e56-b279-7e7c-8cd8-9b9c5ce42c33"} {
		if _, err := term.ParseID(bad); err == nil {
			t.Errorf("%q is read as an id", bad)
		}
	}
}
