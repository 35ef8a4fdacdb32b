package sequence

import (
	"maps"
	"slices"
)

// Kinds of steps that go together, weighted so that all are met: many are
// refused for want of something to act on.
var (
	Everyday = map[string]int{"capture": 3, "edit": 3, "complete": 4, "reopen": 3, "cancel": 3, "delete": 3, "restore": 5, "move": 6,
		"plan": 3, "tag": 6, "add-list": 3, "add-shelf": 3, "subtask": 3, "tree": 3, "change-rule": 3, "skip": 6, "pause": 10, "resume": 16,
		"end-repeat": 4, "move-repeat": 5, "remind": 3, "add-person": 3, "involve": 5, "add-view": 4, "import": 3, "undo": 3, "redo": 3}
	Trees = map[string]int{"capture": 3, "tree": 2, "subtask": 4, "indent": 5, "lift": 7, "reorder": 9, "under": 5, "move": 3, "complete": 3,
		"reopen": 3, "delete": 3, "restore": 4, "bulk": 5, "add-view": 4, "import": 4, "undo": 3, "redo": 3}
	Shelves = map[string]int{"capture": 3, "tree": 2, "add-list": 2, "add-section": 7, "move": 4, "edit-list": 6, "finish-list": 3, "add-person": 3, "remove-person": 3, "duplicate": 5, "move-list": 4, "delete-list": 3,
		"restore-list": 7, "edit-section": 7, "move-section": 30, "delete-section": 5, "into-section": 22, "edit-shelf": 2, "move-shelf": 6,
		"delete-shelf": 2, "restore-shelf": 17, "add-shelf": 2, "add-view": 4, "checklist": 15, "template": 3, "pour": 5, "complete": 4, "delete": 2, "restore": 3, "undo": 3, "redo": 3}
	Labels = map[string]int{"add-calendar": 4, "edit-calendar": 4, "remove-calendar": 3, "add-view": 5, "edit-view": 4, "move-view": 11, "delete-view": 3, "capture": 8, "tag": 4, "edit-tag": 4, "merge-tags": 24, "delete-tag": 4, "add-person": 3, "edit-person": 4,
		"remove-person": 3, "involve": 6, "handful": 5, "turn": 9, "attach": 5, "detach": 4, "postpone": 3, "bulk": 4, "complete": 3, "delete": 2, "undo": 3, "redo": 3}
	Places = map[string]int{"add-place": 4, "edit-place": 8, "remove-place": 4, "at-place": 8, "edge": 8, "capture": 6, "complete": 2, "delete": 3, "restore": 6,
		"change-rule": 2, "undo": 4, "redo": 3}
	Chosen = map[string]int{"choose": 20, "capture": 2, "complete": 2, "undo": 10, "redo": 5}
)

// AllKinds are the kinds of every other sequence.
var AllKinds = func() map[string]int {
	all := map[string]int{}
	for _, some := range []map[string]int{Everyday, Trees, Shelves, Labels} {
		for kind, weight := range some {
			all[kind] = max(all[kind], min(weight, 16))
		}
	}
	all["undo"], all["redo"], all["undo-revision"] = 8, 8, 14
	return all
}()

// Choices are some kinds, each as often as it weighs.
func Choices(weights map[string]int) (choices []string) {
	for _, kind := range slices.Sorted(maps.Keys(weights)) {
		choices = append(choices, slices.Repeat([]string{kind}, weights[kind])...)
	}
	return choices
}
