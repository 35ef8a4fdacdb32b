package httpapi_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/app"
)

// Each sheet says what a new to-do needs to stand in it; put in with that, it stands there, and
// what the sentence says itself comes before what the sheet gives.
func TestASheetGives(t *testing.T) {
	s := newSite(t, app.Settings{})
	list := s.want(201, "POST", "/api/lists", `{"name":"Night Signals"}`).text(t, "id")
	garden := s.want(201, "POST", "/api/lists", `{"name":"Garden"}`).text(t, "id")
	section := s.want(201, "POST", "/api/lists/"+list+"/sections", `{"name":"Crates"}`).text(t, "id")
	ines := s.want(201, "POST", "/api/people", `{"name":"Ines"}`).text(t, "id")
	place := s.want(201, "POST", "/api/places", `{"name":"The store"}`).text(t, "id")
	s.want(201, "POST", "/api/places", `{"name":"Store"}`)
	s.want(201, "POST", "/api/sentence/todos", `{"text":"Lamp, #suppliers, #suppliers/glass"}`)
	overview := s.want(200, "GET", "/api/overview", "")
	tag, glass := overview.text(t, "tags.0.id"), overview.text(t, "tags.1.id")
	own := func(filter string) string {
		return "/api/own-views/" + s.want(201, "POST", "/api/own-views", `{"name":"V`+fmt.Sprint(s.revision())+`","definition":{"filter":`+filter+`}}`).text(t, "id") + "/view"
	}
	test := func(field, op, values string) string {
		return `{"field":"` + field + `","op":"` + op + `"` + values + `}`
	}
	words := func(w string) string { return `,"values":["` + w + `"]` }
	for name, c := range map[string]struct {
		path string
		want string // field and text of each, "" for nothing
	}{
		"a list":   {"/api/lists/" + list + "/view", "list Night Signals"},
		"a tag":    {"/api/tags/" + tag + "/view", "tag #suppliers"},
		"a person": {"/api/people/" + ines + "/view", "person ask Ines"},
		"a place":  {"/api/places/" + place + "/view", "place The store"},
		"today":    {"/api/rail/2026-11-24", "plan Tue 24 Nov 2026"},
		"a week":   {"/api/rail/2026-W50", "plan week 50 of 2026"},
		"parked":   {"/api/rail/parked", "plan parked"},
		"all of it": {own(`{"all":[` + strings.Join([]string{test("list", "any-of", words(list)), test("tag", "all-of", `,"values":["`+tag+`","`+glass+`"]`),
			test("priority", "any-of", words("high")), test("person", "any-of", words(ines)), test("role", "any-of", words("waiting on")),
			`{"all":[` + test("due", "on", `,"date":"P1D"`) + `,{"any":[` + test("concentration", "any-of", words("deep")) + `]}]}`, test("status", "any-of", words("in-process"))}, ",") + `]}`),
			"list Night Signals; tag #suppliers; tag #suppliers/glass; priority high; person waiting on Ines; due Wed 25 Nov 2026; concentration deep; status begun"},
		"a section":         {own(test("section", "any-of", words(section))), "list Night Signals; section Crates"},
		"a note at a place": {own(`{"all":[` + test("kind", "any-of", words("note")) + `,` + test("place", "contains", `,"text":"the STORE"`) + `]}`), "kind note; place The store"},
		"within no day":     {own(test("plan", "within-next", `,"days":0`)), "plan Tue 24 Nov 2026"},
		"some time":         {own(test("plan", "parked", "")), "plan parked"},
		"one of two":        {own(`{"any":[` + test("priority", "any-of", words("high")) + `,` + test("priority", "any-of", words("low")) + `]}`), ""},
		"two values":        {own(`{"all":[` + test("priority", "any-of", words(`high","low`)) + `,` + test("plan", "none", "") + `]}`), ""},
		"not":               {own(`{"not":` + test("priority", "any-of", words("high")) + `}`), ""},
		"two names":         {own(`{"all":[` + test("place", "contains", `,"text":"store"`) + `,` + test("place", "contains", `,"text":"the store"`) + `]}`), ""},
		"completed":         {own(`{"all":[` + test("status", "any-of", words("completed")) + `,` + test("due", "before", `,"date":"P1D"`) + `]}`), ""},
	} {
		answer := shown(t, s.want(200, "GET", c.path, ""))
		var got, given []string
		gives, _ := answer["gives"].([]any)
		for _, g := range gives {
			m := g.(map[string]any)
			got = append(got, fmt.Sprint(m["field"], " ", m["text"]))
			given = append(given, fmt.Sprintf(`{"field":%q,"value":%q}`, m["field"], m["value"]))
		}
		if text := strings.Join(got, "; "); text != c.want {
			t.Errorf("%s gives %q, want %q", name, text, c.want)
			continue
		}
		if c.want == "" {
			continue
		}
		made := s.want(201, "POST", "/api/sentence/todos", `{"text":"Put into `+name+`","given":[`+strings.Join(given, ",")+`]}`).text(t, "id")
		if after := s.want(200, "GET", c.path, ""); !strings.Contains(after.body, made) {
			t.Errorf("%s does not hold what was put into it: %s", name, s.want(200, "GET", "/api/todos/"+made, "").body)
		}
	}

	// The sentence's own words come first; tags come together; a subtask stands in its parent's list.
	given := `"given":[{"field":"list","value":"` + list + `"},{"field":"section","value":"` + section + `"},{"field":"tag","value":"suppliers"},{"field":"priority","value":"low"},{"field":"plan","value":"2026-W50"},{"field":"person","value":"` + ines + ` ask"}]`
	made := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Order pots, in Garden, high, plan Friday, #calls",`+given+`}`))
	if made["list"] != garden || made["section"] != nil || made["priority"] != "high" || made["plan"] != "2026-11-27" || fmt.Sprint(made["tags"]) != "[calls suppliers]" {
		t.Errorf("put in as %v", made)
	}
	sub := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":"Measure","parent":"`+fmt.Sprint(made["id"])+`",`+given+`}`))
	if sub["list"] != garden || sub["section"] != nil {
		t.Errorf("the subtask is %v", sub)
	}
	// Of several lines, those at the left stand in the sheet.
	turned := s.want(201, "POST", "/api/lines/todos", `{"text":"Sow\n  Buy seed\nWater",`+given+`}`)
	for i, want := range []string{"[suppliers]", "[]", "[suppliers]"} {
		if got := s.want(200, "GET", "/api/todos/"+turned.text(t, fmt.Sprintf("todos.%d", i)), "").value(t, "tags"); got != want {
			t.Errorf("line %d has the tags %s, want %s", i, got, want)
		}
	}
	before := s.revision()
	for value, says := range map[string]string{
		`{"field":"list","value":"Garden"}`:         "“Garden” is not a list",
		`{"field":"plan","value":"soon"}`:           "“soon” is not a plan",
		`{"field":"person","value":"` + ines + `"}`: "is not a person",
		`{"field":"estimate","value":"20"}`:         "",
		`{"field":"status","value":"nearly"}`:       "“nearly” is not a status",
		`{"field":"list","value":"` + ines + `"}`:   "",
		`{"field":"due","value":"2026-02-30"}`:      "is not a due",
		`{"field":"priority","value":"urgent"}`:     "is not a priority",
		`{"field":"place","value":"a\u0007b"}`:      "",
		`{"field":"kind","value":"note"},` + given[9+len(`{"field":"list","value":"`+list+`"},{"field":"section","value":"`+section+`"}`)+1:len(given)-1]: "A note",
	} {
		if a := s.call("POST", "/api/sentence/todos", `{"text":"Ring","given":[`+value+`]}`); a.status < 400 || a.status >= 500 || !strings.Contains(a.body, says) {
			t.Errorf("%s: %d %s", value, a.status, a.body)
		}
	}
	if s.revision() != before {
		t.Error("something that was refused changed the Book")
	}
}

// Exactly as typed: nothing is read, and the text is the title.
func TestASentenceExactlyAsTyped(t *testing.T) {
	s := newSite(t, app.Settings{})
	const text = `Read “Tomorrow” by Friday, high, #calls -- two sheets`
	made := shown(t, s.want(201, "POST", "/api/sentence/todos", `{"text":`+quoted(text)+`,"exact":true}`))
	if made["title"] != text || made["due"] != nil || made["priority"] != "none" || fmt.Sprint(made["tags"]) != "[]" || made["notes"] != "" {
		t.Errorf("put in as %v", made)
	}
	s.want(422, "POST", "/api/sentence/todos", `{"text":"  ","exact":true}`)
}

// Words for a repeat say its rule, its first date and its time, and what is chosen so is kept in
// one change.
func TestWordsForARepeat(t *testing.T) {
	s := newSite(t, app.Settings{})
	said := s.want(200, "POST", "/api/when", `{"field":"repeat","text":"every weekday at 8:45"}`)
	for field, want := range map[string]string{"value": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR", "words": "every weekday, first Wed 25 Nov 2026, 08:45",
		"repeat.first": "2026-11-25", "repeat.time": "08:45", "repeat.anchor": "schedule", "say": "every weekday from 25 Nov 2026"} {
		if got := said.text(t, field); got != want {
			t.Errorf("%s is %q, want %q", field, got, want)
		}
	}
	id, _ := s.capture(`{"title":"Open the shutters","plan":"2026-11-24"}`)
	made := s.want(200, "POST", "/api/todos/"+id+"/repeat", `{"rule":"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR","first":"2026-11-25","time":"08:45"}`, "Window-Id: w")
	if made.text(t, "due") != "2026-11-25T08:45" || made.text(t, "plan") != "2026-11-24" || made.text(t, "repeat.short") != "every weekday" {
		t.Errorf("kept as %s", made.body)
	}
	// Without a time the due keeps its own; another rule may give it another.
	if again := s.want(200, "POST", "/api/todos/"+id+"/repeat", `{"rule":"FREQ=DAILY"}`, "Window-Id: w"); again.text(t, "due") != "2026-11-25T08:45" {
		t.Errorf("kept as %s", again.body)
	}
	for range 2 {
		s.want(200, "POST", "/api/undo", `{}`, "Window-Id: w")
	}
	if back := s.want(200, "GET", "/api/todos/"+id, ""); back.value(t, "due") != "<nil>" || back.value(t, "repeat") != "<nil>" {
		t.Errorf("after undo it is %s", back.body)
	}
	s.want(422, "POST", "/api/todos/"+id+"/repeat", `{"rule":"FREQ=DAILY","time":"25:00"}`)
	if a := s.want(200, "POST", "/api/when", `{"field":"repeat","text":"soonish"}`); !strings.Contains(a.text(t, "reason"), "not read as a repeat") || a.text(t, "value") != "" {
		t.Errorf("words that are no repeat: %s", a.body)
	}
	if a := s.want(200, "POST", "/api/when", `{"field":"estimate","text":"1 h 30"}`); a.text(t, "value") != "90" || a.text(t, "words") != "1 h 30" {
		t.Errorf("a length is %s", a.body)
	}
}
