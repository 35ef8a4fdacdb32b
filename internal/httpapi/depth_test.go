package httpapi_test

import (
	"encoding/json"
	"strings"
	"testing"

	"tincup/internal/app"
)

// A hundred pasted lines, each indented further than the one before, are put in, and every view
// answers after that, also after a restart.
func TestDeepChainOverHTTP(t *testing.T) {
	s := newSite(t, app.Settings{})
	var lines strings.Builder
	for i := range 101 {
		lines.WriteString(strings.Repeat("  ", i) + "- Take the lamp apart, by Friday\n")
	}
	text, err := json.Marshal(map[string]string{"text": lines.String()})
	if err != nil {
		t.Fatal(err)
	}
	s.want(201, "POST", "/api/lines/todos", string(text))
	for _, when := range []string{"as it is put in", "after a restart"} {
		for _, path := range []string{"views/cup", "views/today", "views/upcoming", "views/within-a-week", "views/ready", "views/projects",
			"overview", "week", "week/level", "week/hours", "week/give", "review/weekly", "search?q=lamp", "export?format=ics", "export?format=markdown"} {
			s.want(200, "GET", "/api/"+path, "")
		}
		if got := s.want(200, "GET", "/api/views/projects", "").value(t, "total"); got != "100" {
			t.Errorf("%s there are %s projects", when, got)
		}
		s = s.restart()
	}
}
