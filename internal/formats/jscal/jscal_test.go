package jscal_test

import (
	"errors"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/jscal"
)

func read(t testing.TB, text string) ([]exchange.Item, []exchange.Refusal, error) {
	t.Helper()
	zone, err := time.LoadLocation("Europe/London")
	if err != nil {
		t.Fatal(err)
	}
	return jscal.Format{}.Read([]byte(text), exchange.World{Zone: zone, Now: time.Date(2026, 11, 24, 9, 0, 0, 0, zone)})
}

// The Tasks of RFC 8984, from memory: section 6.2 (simple task) and section 6.4 (task with a due
// date), and the Group of section 6.3.
func TestExamplesOfTheStandard(t *testing.T) {
	items, refused, err := read(t, `{"@type":"Task","uid":"2a358cee-6489-4f14-a57f-c104db4dc2f2","updated":"2020-01-09T14:32:01Z","title":"Do something"}`)
	if err != nil || len(refused) > 0 || len(items) != 1 || items[0].Todo.Title != "Do something" || items[0].UID != "2a358cee-6489-4f14-a57f-c104db4dc2f2" || items[0].Line != 1 {
		t.Errorf("6.2 reads %+v, %+v, %v", items, refused, err)
	}
	items, _, err = read(t, `{"@type":"Group","uid":"bf0ac22b-4989-4caf-9ebd-54301b4ee51a","updated":"2020-01-15T18:00:00Z","name":"A simple group","entries":[
{"@type":"Event","uid":"a8df6573-0474-496d-8496-033ad45d7fea","updated":"2020-01-02T18:23:04Z","title":"Some event","start":"2020-01-15T13:00:00","timeZone":"America/New_York","duration":"PT1H"},
{"@type":"Task","uid":"2a358cee-6489-4f14-a57f-c104db4dc2f2","updated":"2020-01-09T14:32:01Z","title":"Do something"}]}`)
	if err != nil || len(items) != 1 || items[0].Line != 3 {
		t.Errorf("6.3 reads %+v, %v", items, err)
	}
	items, _, err = read(t, `{"@type":"Task","uid":"2a358cee","updated":"2020-01-09T14:32:01Z","title":"Buy groceries","due":"2020-01-19T18:00:00","timeZone":"Europe/Vienna","estimatedDuration":"PT1H"}`)
	if err != nil || len(items) != 1 || items[0].Todo.Due.String() != "2020-01-19T17:00" || items[0].Todo.Estimate != 60 {
		t.Errorf("6.4 reads %+v, %v", items, err)
	}
}

// What other programs write; no source.
func TestLenient(t *testing.T) {
	items, refused, err := read(t, `[
 {"@type":"Task","uid":"b","title":"sub","relatedTo":{"a":{"@type":"Relation","relation":{"parent":true}}}},
 {"@type":"Task","uid":"a","title":"top","keywords":{"to do":true,"calls":true,"not":false},"priority":2,"progress":"failed",
  "locations":{"1":{"@type":"Location","name":"The museum"}},"due":"2026-11-27T00:00:00","showWithoutTime":true,
  "alerts":{"1":{"@type":"Alert","trigger":{"@type":"OffsetTrigger","offset":"-PT15M"}},"2":{"@type":"Alert","trigger":{"@type":"AbsoluteTrigger","when":"2026-11-26T10:00:00Z"}},"3":{"@type":"Alert","trigger":{"@type":"x"}}}},
 {"@type":"Task","uid":"c","title":"weekly","due":"2026-11-27T16:00:00","recurrenceRules":[{"@type":"RecurrenceRule","frequency":"weekly","byDay":[{"@type":"NDay","day":"fr"}],"count":3}],"recurrenceOverrides":{"2026-12-04T16:00:00":{"excluded":true}}},
 {"@type":"Task","uid":"d","title":"hourly","due":"2026-11-27T16:00:00","recurrenceRules":[{"@type":"RecurrenceRule","frequency":"hourly"}]}
]`)
	if err != nil || len(refused) > 0 || len(items) != 4 {
		t.Fatalf("%+v, %+v, %v", items, refused, err)
	}
	top, sub, weekly, hourly := items[0], items[1], items[2], items[3]
	if top.Todo.Title != "top" || sub.Under != 0 || top.Todo.Status != book.Cancelled || top.Todo.Priority != book.High || strings.Join(top.Tags, " ") != "calls to-do" || top.Todo.Place != "The museum" || top.Todo.Due.String() != "2026-11-27" {
		t.Errorf("the first are %+v, %+v", top, sub)
	}
	if r := top.Todo.Reminders; len(r) != 2 || r[0].String() != "-PT15M" || r[1].String() != "2026-11-26T10:00" || len(top.Remarks) != 1 {
		t.Errorf("it reminds by %v, remarks %v", r, top.Remarks)
	}
	if r := weekly.Todo.Repeat; r == nil || r.Rule.String() != "FREQ=WEEKLY;BYDAY=FR;COUNT=3" || len(r.Without) != 1 {
		t.Errorf("it repeats by %+v", r)
	}
	if hourly.Todo.Repeat != nil || !strings.Contains(hourly.Notes, "Repeats: ") || len(hourly.Remarks) != 1 {
		t.Errorf("hourly is %+v", hourly)
	}
}

func TestWhatIsRefused(t *testing.T) {
	items, refused, err := read(t, "{\"@type\":\"Group\",\"entries\":[\n{\"@type\":\"Task\",\"title\":\"A\",\"due\":\"soon\"},\n{\"@type\":\"Task\",\"title\":\"B\",\"priority\":12},\n  {\"@type\":\"Task\",\"title\":\"C\",\"keywords\":[1]},\n{\"@type\":\"Task\",\"title\":\"D\"}]}")
	if err != nil || len(items) != 1 || items[0].Todo.Title != "D" || len(refused) != 3 {
		t.Fatalf("%+v, %+v, %v", items, refused, err)
	}
	for i, want := range []struct {
		line, column int
		says         string
	}{{2, 1, "due: “soon” is no local date"}, {3, 1, "priority: 12"}, {4, 3, "keywords"}} {
		if r := refused[i]; r.Line != want.line || r.Column != want.column || !strings.Contains(r.Reason, want.says) || r.Title != string(rune('A'+i)) {
			t.Errorf("refused is %+v; want %+v", r, want)
		}
	}
	for name, c := range map[string]struct {
		text string
		line int
		says string
	}{
		"nothing":              {"", 1, "no JSON"},
		"cut off":              {"{\"@type\":\"Group\",\n\"entries\":[", 2, "no JSON"},
		"a number":             {"12", 1, "Group or a Task is wanted"},
		"another object":       {`{"@type":"Card"}`, 1, "“Card”"},
		"entries that are not": {"{\"@type\":\"Group\",\n\"entries\":12}", 2, "array of objects"},
		"Latin-1":              {"{\"a\":\"caf\xe9\"}", 0, "not UTF-8"},
	} {
		_, _, err := read(t, c.text)
		var wrong *exchange.Error
		if !errors.As(err, &wrong) || wrong.Line != c.line || !strings.Contains(wrong.Reason, c.says) {
			t.Errorf("%s: %+v; line %d, %q is wanted", name, err, c.line, c.says)
		}
	}
	if items, refused, err := read(t, `{"@type":"Group","uid":"x"}`); len(items)+len(refused) > 0 || err != nil {
		t.Errorf("a Group without entries: %v, %v, %v", items, refused, err)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(`{"@type":"Task","uid":"a","title":"x","due":"2026-11-27T16:00:00","alerts":{"1":{"trigger":{"@type":"OffsetTrigger","offset":"-PT5M"}}}}`)
	f.Add(`[{"title":"x","relatedTo":{"x":{"relation":{"parent":true}}}}]`)
	f.Fuzz(func(t *testing.T, text string) {
		items, _, err := read(t, text)
		if err != nil {
			return
		}
		out, err := jscal.Format{}.Write(items, exchange.World{Zone: time.UTC})
		if err != nil {
			t.Fatal(err)
		}
		if back, _, err := read(t, string(out)); err != nil || len(back) > len(items) {
			t.Fatalf("%d come back as %d, %v in %s", len(items), len(back), err, out)
		}
	})
}

// Properties that are not taken over are named; those that say nothing of a to-do are not.
func TestPassedProperties(t *testing.T) {
	items, _, err := read(t, `{"@type":"Task","uid":"a","updated":"2026-11-24T09:00:00Z","title":"Oil","sequence":3,"privacy":"private","color":"red","tincup.example:plan":"parked"}`)
	if err != nil || strings.Join(items[0].Passed, " ") != "color privacy" {
		t.Errorf("passed over are %v, %v", items[0].Passed, err)
	}
}
