package capture_test

import (
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

// A word for a field that led to nothing is said, with what would be right; what is offered, or read, is
// not.
func TestWhatWasNotReadIsSaid(t *testing.T) {
	for sentence, want := range map[string]string{
		"Order oil due 11/30":              "“11/30” is not read as a date: the day comes first. Say 30/11,",
		"Order oil due 31/31":              "“31/31” is not read as a date. Say Friday,",
		"Call by 25 o'clock":               "“25” is not read as a date.",
		"Walk every 2 suns":                "“every 2” is not read as a repeat.",
		"Take pills twice daily":           "“twice daily” stays words: nothing repeats more often than once a day.",
		"Drink water every 2 hours":        "“every 2 hours” stays words",
		"Email Tom by Friday about it":     "",
		"Hold the parcel until Friday":     "",
		"Order oil by Friday":              "",
		"Stand by the door":                "",
		"Every lamp needs a label":         "",
		"Order oil, \"by 11/31\" is wrong": "",
	} {
		got := capture.Read(sentence, at(tuesday)).Remark
		if !strings.HasPrefix(got, want) || want == "" && got != "" {
			t.Errorf("%q says %q; want %q", sentence, got, want)
		}
	}
	if got := capture.Read("Order oil due 30/11", at(tuesday, monthFirst)).Remark; !strings.Contains(got, "the month comes first. Say 11/30,") {
		t.Errorf("where the month comes first it says %q", got)
	}
}
