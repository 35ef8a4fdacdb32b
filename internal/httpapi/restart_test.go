package httpapi_test

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"testing"

	"tincup/internal/app"
	"tincup/internal/seed"
)

// ofTheProcess is what an answer has of the process that gives it: the mark by which patches go on.
var ofTheProcess = regexp.MustCompile(`"mark":"[^"]*"`)

// What is read after a restart is what was read before it, in the same order, whatever was done
// in which order, and much of it at the same moment.
func TestTheSameAfterARestart(t *testing.T) {
	s := newSite(t, app.Settings{})
	number := seed.New(t)
	r := rand.New(rand.NewPCG(number, 41))
	sentences := []string{"Ring the joiner by tomorrow 4pm, 20 min", "Water the plot every Tuesday", "Letters to lenders next week, 1 h, high",
		"Order mount board, by Friday", "Read the catalogue, some time", "Label proofs Thursday 2-4pm", "Pack the lamps, in Crates, 45 min", "Word from the joiner, waiting on Ada"}
	s.want(201, "POST", "/api/people", `{"name":"Ada"}`)
	s.want(201, "POST", "/api/lists", `{"name":"Crates"}`)
	var ids []string
	for i := range 300 {
		if i%60 == 59 {
			s.setClock(fmt.Sprintf("2026-11-%dT09:10:00", 24+i/60))
		}
		if len(ids) < 20 || r.IntN(5) == 0 {
			ids = append(ids, s.want(201, "POST", "/api/sentence/todos", fmt.Sprintf(`{"text":%q}`, sentences[r.IntN(len(sentences))])).text(t, "id"))
			continue
		}
		at := "/api/todos/" + ids[r.IntN(len(ids))]
		switch r.IntN(7) {
		case 0, 1, 2:
			s.call("POST", at+"/complete", "")
		case 3:
			s.call("POST", at+"/reopen", "")
		case 4:
			s.call("POST", at+"/cancel", "")
		case 5:
			s.call("POST", "/api/undo", "{}")
		case 6:
			s.call("POST", "/api/plans", fmt.Sprintf(`{"plans":[{"id":%q,"plan":%q}]}`, at[len("/api/todos/"):], []string{"2026-11-26", "2026-W49", "parked"}[r.IntN(3)]))
		}
	}
	paths := []string{"/api/overview", "/api/week", "/api/review/weekly", "/api/history?limit=50", "/api/search?q=the"}
	for _, name := range []string{"cup", "overdue", "today", "upcoming", "within-a-week", "ready", "waiting", "projects", "done", "bin"} {
		paths = append(paths, "/api/views/"+name)
	}
	read := func() map[string]string {
		answers := map[string]string{}
		for _, path := range paths {
			answers[path] = ofTheProcess.ReplaceAllString(s.want(200, "GET", path, "").body, "")
		}
		return answers
	}
	before := read()
	s = s.restart()
	s.setClock("2026-11-28T09:10:00")
	for path, after := range read() {
		if after != before[path] {
			n := 0
			for n < min(len(after), len(before[path])) && after[n] == before[path][n] {
				n++
			}
			from := max(n-80, 0)
			t.Errorf("%s was …%.200s, and is …%.200s", path, before[path][from:], after[from:])
		}
	}
}
