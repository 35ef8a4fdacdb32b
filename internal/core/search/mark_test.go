package search_test

import (
	"strings"
	"testing"

	"tincup/internal/core/search"
)

// marked puts brackets round spans.
func marked(text string, spans []search.Span) string {
	var b strings.Builder
	at := 0
	for _, s := range spans {
		b.WriteString(text[at:s.Start] + "[" + text[s.Start:s.End] + "]")
		at = s.End
	}
	return b.String() + text[at:]
}

func marker(t *testing.T, text string) *search.Marker {
	q, err := search.Parse(text)
	if err != nil {
		t.Fatal(err)
	}
	return search.NewMarker(q, func(s string) string { return strings.NewReplacer("á", "a", "é", "e").Replace(strings.ToLower(s)) })
}

func TestMarks(t *testing.T) {
	for _, c := range []struct{ query, text, want string }{
		{"lamp", "The Lamps, a lamp; clamp", "The [Lamps], a [lamp]; clamp"},
		{"lám", "Lámparas", "[Lámparas]"},
		{`"signal lamp"`, "signal lamp, signal lamps, lamp signal", "[signal lamp], signal lamps, lamp signal"},
		{"signal lamp", "signal lamps", "[signal] [lamps]"},
		{"e-mail", "An e-mail, e mails, email", "An [e-mail], [e mails], email"},
		{"lamp -oil", "lamp oil", "[lamp] oil"},
		{`oil "oil lamp"`, "oil lamp oil", "[oil lamp] [oil]"},
		{"灯", "灯台 の", "[灯]台 の"},
		{"台 灯", "古い灯台を見る", "古い[灯][台]を見る"},
		{"灯台", "古い灯台を見る", "古い[灯台]を見る"},
		{"Tokyo", "Tokyo東京", "[Tokyo]東京"},
		{"🏮", "Order 🏮🏮 now", "Order [🏮][🏮] now"},
		{"🏮 order", "Order 🏮", "[Order] [🏮]"},
		{"x", "", ""},
	} {
		if got := marked(c.text, marker(t, c.query).Marks(c.text, 0)); got != c.want {
			t.Errorf("%q in %q: %q; want %q", c.query, c.text, got, c.want)
		}
	}
}

func TestExcerpt(t *testing.T) {
	m := marker(t, "lamp")
	long := strings.Repeat("nothing héré. ", 200) + "The signal\nlamp is  cracked. " + strings.Repeat("and nothing after. ", 200)
	text, spans := m.Excerpt(long)
	if got := marked(text, spans); !strings.Contains(got, "The signal [lamp] is cracked") || !strings.HasPrefix(got, "…") || !strings.HasSuffix(got, "…") || len(got) > 220 {
		t.Errorf("%q", got)
	}
	if text, spans := m.Excerpt("a lamp"); marked(text, spans) != "a [lamp]" {
		t.Errorf("%q", text)
	}
	if text, _ := m.Excerpt("nothing"); text != "" {
		t.Errorf("%q", text)
	}
	for cut := range 40 { // wherever it is cut, it stays whole characters
		text, _ := m.Excerpt(strings.Repeat("é", cut) + strings.Repeat(" éé", 60) + " lamp" + strings.Repeat(" éé", 90))
		if !strings.Contains(text, "lamp") || strings.ContainsRune(text, '\uFFFD') {
			t.Errorf("%q", text)
		}
	}
}
