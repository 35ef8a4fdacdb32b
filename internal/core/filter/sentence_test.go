package filter_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"tincup/internal/core/filter"
	"tincup/internal/seed"
)

func TestSentences(t *testing.T) {
	s := newSmall(t)
	for _, c := range []struct{ json, want string }{
		{`{"all":[]}`, "Everything."},
		{`{"any":[]}`, "Nothing."},
		{`{"all":[{"field":"tag","op":"any-of","values":["%calls","%work"]},{"field":"due","op":"within-next","days":7},{"field":"repeating","op":"no"}]}`,
			"Tagged calls or work, and due within the next 7 days, and not repeating."},
		{`{"all":[{"field":"shelf","op":"any-of","values":["%shelf"]},{"any":[{"field":"overdue","op":"yes"},{"field":"priority","op":"any-of","values":["high"]}]}]}`,
			"On the shelf Museum, and (overdue, or of high priority)."},
		{`{"not":{"all":[{"field":"list","op":"any-of","values":["%loans"]},{"field":"tag","op":"none"}]}}`, "Not (in Loans, and untagged)."},
		{`{"not":{"field":"list","op":"none"}}`, "In a list."},
		{`{"field":"tag","op":"all-of","values":["%calls","%work"]}`, "Tagged calls and work."},
		{`{"field":"tag","op":"none-of","values":["%calls","%work"]}`, "Tagged none of calls and work."},
		{`{"field":"due","op":"before","date":"P0D"}`, "Due before today."},
		{`{"field":"due","op":"on","date":"P1D"}`, "Due tomorrow."},
		{`{"field":"start","op":"after","date":"-P2W"}`, "Starting later than 14 days ago."},
		{`{"field":"plan","op":"between","date":"P0D","to":"2026-12-24"}`, "Planned from today to Thu 24 Dec 2026."},
		{`{"field":"due","op":"on","date":"2026-12-24"}`, "Due on Thu 24 Dec 2026."},
		{`{"field":"plan","op":"before","date":"2026-12-24"}`, "Planned before Thu 24 Dec 2026."},
		{`{"field":"created","op":"before","date":"-P30D"}`, "Put in earlier than 30 days ago."},
		{`{"field":"due","op":"on","date":"P7D"}`, "Due 7 days from today."},
		{`{"field":"plan","op":"none"}`, "Without a plan."},
		{`{"field":"plan","op":"parked"}`, "Parked."},
		{`{"field":"due","op":"time-between","from":"09:00","until":"12:00"}`, "Due at a time from 09:00 to 12:00."},
		{`{"field":"created","op":"within-past","days":1}`, "Put in within the past day."},
		{`{"field":"completed","op":"none"}`, "Neither completed nor cancelled."},
		{`{"field":"estimate","op":"at-most","minutes":20}`, "Taking at most 20 min."},
		{`{"field":"person","op":"any-of","values":["%ines","%abel"]}`, "With Ines or Abel."},
		{`{"field":"person","op":"none"}`, "With nobody."},
		{`{"field":"role","op":"any-of","values":["waiting on"]}`, "Waiting on someone."},
		{`{"field":"priority","op":"any-of","values":["none","low"]}`, "Of no or low priority."},
		{`{"field":"status","op":"any-of","values":["in-process","completed"]}`, "Begun or completed."},
		{`{"field":"kind","op":"any-of","values":["note"]}`, "A note."},
		{`{"field":"text","op":"contains","text":"lamp oil"}`, "With “lamp oil” in its title or notes."},
		{`{"field":"list","op":"any-of","values":["%strange"]}`, "In a list that is gone."},
		{`{"field":"section","op":"any-of","values":["%section"]}`, "In the section Papers."},
		{`{"field":"section","op":"none"}`, "In no section."},
		{`{"field":"place","op":"contains","text":"lantern room"}`, "With “lantern room” in its place."},
		{`{"all":[{"not":{"field":"place","op":"none"}},{"not":{"field":"place","op":"contains","text":"shed"}}]}`, "With a place, and not with “shed” in its place."},
		{`{"field":"list","op":"any-of","values":["%loans","%labels"]}`, "In Loans or Labels."},
		{`{"not":{"field":"tag","op":"none"}}`, "Tagged."},
		{`{"not":{"field":"due","op":"none"}}`, "With a due."},
		{`{"not":{"field":"plan","op":"none"}}`, "With a plan or parked."},
		{`{"not":{"field":"plan","op":"parked"}}`, "Not parked."},
		{`{"not":{"field":"repeating","op":"no"}}`, "Repeating."},
		{`{"field":"due","op":"after","date":"P1W"}`, "Due later than 7 days from today."},
		{`{"field":"due","op":"within-past","days":14}`, "Due within the past 14 days."},
		{`{"field":"completed","op":"on","date":"-P1D"}`, "Completed or cancelled yesterday."},
		{`{"field":"estimate","op":"at-least","minutes":90}`, "Taking at least 90 min."},
		{`{"field":"paused","op":"yes"}`, "Paused."},
		{`{"field":"role","op":"any-of","values":["ask","for"]}`, "To ask someone or for someone."},
		{`{"field":"status","op":"any-of","values":["needs-action"]}`, "Not begun."},
		{`{"any":[{"field":"is-subtask","op":"yes"},{"all":[{"field":"overdue","op":"no"},{"field":"kind","op":"any-of","values":["to-do"]}]}]}`,
			"A subtask, or (not overdue, and a to-do)."},
		{`{"all":[{"field":"has-subtasks","op":"yes"},{"field":"next-action","op":"no"},{"field":"attachment","op":"yes"},{"field":"in-handful","op":"yes"}]}`,
			"With subtasks, and not a next action, and with a file, and in today's handful."},
	} {
		f := parse(t, "%s", s.named(c.json))
		if got := f.Sentence(s.desk); got != c.want {
			t.Errorf("%s\n%s; want\n%s", c.json, got, c.want)
		}
		packed, err := json.Marshal(f)
		if err != nil {
			t.Fatal(err)
		}
		if again := parse(t, "%s", packed); again.Sentence(s.desk) != c.want {
			t.Errorf("%s does not come back from %s", c.json, packed)
		}
	}
}

// Of to-dos that are all of a sort, what is asked beside stands in brackets where it has to.
func TestSentenceAmong(t *testing.T) {
	s := newSmall(t)
	for json, want := range map[string]string{
		`{"all":[]}`: "Everything open.",
		`{"all":[{"field":"due","op":"none"},{"field":"tag","op":"none"}]}`:           "Open, and without a due, and untagged.",
		`{"any":[{"field":"due","op":"none"},{"field":"tag","op":"none"}]}`:           "Open, and (without a due, or untagged).",
		`{"all":[{"any":[{"field":"due","op":"none"},{"field":"tag","op":"none"}]}]}`: "Open, and (without a due, or untagged).",
	} {
		if got := parse(t, "%s", json).SentenceAmong(s.desk, "open"); got != want {
			t.Errorf("%s: %q, want %q", json, got, want)
		}
	}
}

// Two filters that read alike mean the same: of many filters and their
// neighbours by one edit, those that differ in meaning differ in words.
func TestSentenceIsUnambiguous(t *testing.T) {
	seed := seed.New(t)
	s := newSmall(t)
	alike, edits := 0, 0
	for i := range share(20_000) {
		r := random{rand.New(rand.NewPCG(seed, uint64(i))), s, allFields}
		tree := r.node(1 + r.IntN(3))
		one := pack(t, tree)
		for range 2 {
			other := pack(t, r.edit(clone(t, tree)))
			edits++
			f, g := parse(t, "%s", one), parse(t, "%s", other)
			if string(one) == string(other) ||
				f.Sentence(s.desk) != g.Sentence(s.desk) && f.SentenceAmong(s.desk, "open") != g.SentenceAmong(s.desk, "open") {
				continue
			}
			alike++
			differ := parse(t, `{"any":[{"all":[%[1]s,{"not":%[2]s}]},{"all":[%[2]s,{"not":%[1]s}]}]}`, one, other)
			if a := differ.Check(s.desk, s.clock()); a.Verdict == filter.Possible {
				t.Fatalf("seed %d: %s\n%s\n%s", seed, f.Sentence(s.desk), one, other)
			}
		}
	}
	t.Logf("%d edits, of which %d read the same and mean the same", edits, alike)
}

func pack(t *testing.T, tree any) []byte {
	t.Helper()
	packed, err := json.Marshal(tree)
	if err != nil {
		t.Fatal(err)
	}
	return packed
}

func clone(t *testing.T, tree any) map[string]any {
	t.Helper()
	var out map[string]any
	if err := json.Unmarshal(pack(t, tree), &out); err != nil {
		t.Fatal(err)
	}
	return out
}

// edit alters one thing somewhere in a tree.
func (r random) edit(n map[string]any) map[string]any {
	for _, group := range []string{"all", "any"} {
		subs, ok := n[group].([]any)
		if !ok {
			continue
		}
		at := r.IntN(len(subs))
		switch r.IntN(5) {
		case 0: // the other joint
			delete(n, group)
			n[map[string]string{"all": "any", "any": "all"}[group]] = subs
		case 1: // a bracket more
			if len(subs) > 2 {
				n[group] = []any{map[string]any{pick(r, "all", "any"): subs[:2]}, subs[2]}
			}
		case 2: // one less
			n[group] = append(append([]any{}, subs[:at]...), subs[at+1:]...)
		default:
			subs[at] = r.edit(subs[at].(map[string]any))
		}
		return n
	}
	if sub, ok := n["not"].(map[string]any); ok {
		if r.IntN(2) == 0 {
			return sub
		}
		return map[string]any{"not": r.edit(sub)}
	}
	if r.IntN(3) == 0 {
		return map[string]any{"not": n}
	}
	r.fields = []string{fmt.Sprint(n["field"])} // another test of the same field
	return r.test().(map[string]any)
}
