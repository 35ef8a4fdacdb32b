package search_test

import (
	"errors"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"tincup/internal/core/search"
)

func ExampleParse() {
	q, _ := search.Parse(`rope "signal lamp" -oil`)
	fmt.Println(q.Wanted, q.LeftOut)
	// Output: [{rope false} {signal lamp true}] [{oil false}]
}

func TestParse(t *testing.T) {
	word := func(s string) search.Term { return search.Term{Text: s} }
	phrase := func(s string) search.Term { return search.Term{Text: s, Phrase: true} }
	for text, want := range map[string]search.Query{
		"rope":                {Wanted: []search.Term{word("rope")}},
		"  rope   lamp ":      {Wanted: []search.Term{word("rope"), word("lamp")}},
		`"signal lamp"oil`:    {Wanted: []search.Term{phrase("signal lamp"), word("oil")}},
		`oil"signal lamp"`:    {Wanted: []search.Term{word("oil"), phrase("signal lamp")}},
		"“signal lamp”":       {Wanted: []search.Term{phrase("signal lamp")}},
		"„signal lamp“":       {Wanted: []search.Term{phrase("signal lamp")}},
		"«lampe à huile»":     {Wanted: []search.Term{phrase("lampe à huile")}},
		"e-mail -draft":       {Wanted: []search.Term{word("e-mail")}, LeftOut: []search.Term{word("draft")}},
		`lamp -"oil lamp"`:    {Wanted: []search.Term{word("lamp")}, LeftOut: []search.Term{phrase("oil lamp")}},
		"lamp - oil":          {Wanted: []search.Term{word("lamp"), word("oil")}}, // a dash by itself is a sign
		"lamp & (oil) OR *":   {Wanted: []search.Term{word("lamp"), word("(oil)"), word("OR")}},
		"--lamp oil":          {Wanted: []search.Term{word("oil")}, LeftOut: []search.Term{word("-lamp")}},
		`lamp "" "..."`:       {Wanted: []search.Term{word("lamp")}},
		"灯台 ۱۲":               {Wanted: []search.Term{word("灯台"), word("۱۲")}},
		"🏮":                   {Wanted: []search.Term{word("🏮")}},
		"title:lamp NEAR(oil": {Wanted: []search.Term{word("title:lamp"), word("NEAR(oil")}},
	} {
		got, err := search.Parse(text)
		if err != nil || !reflect.DeepEqual(got, want) {
			t.Errorf("%q: %+v, %v; want %+v", text, got, err, want)
		}
	}
}

func TestBadQueries(t *testing.T) {
	for text, want := range map[string]search.Error{
		"":                          {At: 1, Reason: "no word"},
		"   ":                       {At: 1, Reason: "no word"},
		`- * & "" ()`:               {At: 1, Reason: "no word"},
		"-lamp":                     {At: 1, Reason: "only what to leave out"},
		`lamp "oil`:                 {At: 6, Reason: "character 6 is not closed"},
		`“`:                         {At: 1, Reason: "not closed"},
		`lamp -"oil`:                {At: 7, Reason: "character 7 is not closed"},
		strings.Repeat("x", 301):    {Reason: "301 characters; 300 is the most"},
		strings.Repeat("lamp ", 21): {Reason: "21 words; 20 is the most"},
	} {
		_, err := search.Parse(text)
		var wrong *search.Error
		if !errors.As(err, &wrong) || wrong.At != want.At || !strings.Contains(wrong.Reason, want.Reason) || !strings.HasSuffix(wrong.Reason, ".") {
			t.Errorf("%.40q: %+v; want %+v", text, err, want)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{`rope "signal lamp" -oil`, `"`, "-", "“a”", "\x00\"\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		q, err := search.Parse(text)
		if err == nil && (len(q.Wanted) == 0 || len(q.Wanted)+len(q.LeftOut) > search.MaxTerms) {
			t.Errorf("%q: %+v", text, q)
		}
	})
}
