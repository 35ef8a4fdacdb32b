import { computed, type Ref } from "vue";
import type { Overview, Row, Todo, TodoPatch } from "@/server/client";
import { choiceOf, choicePatch, choices } from "@/words/choices";
import { useActions } from "@/server/actions";
import { type Question, useAsk } from "@/kit/ask";
import type { SheetGroup } from "@/server/queries";
import type { ShownGroup } from "./shown";
import { useToasts } from "@/kit/toasts";

/** A column: a group, also one of a closed set that holds nothing just now. */
export type Column = ShownGroup;

/** The columns that stand there though they are empty, by what is grouped by. */
const standing: Record<string, Pick<SheetGroup, "kind" | "word" | "name">[]> = {
  ...Object.fromEntries(
    choices.map((c) => [
      c.field,
      c.values.toReversed().map((v) => ({ kind: c.field, word: v.value, name: v.column })),
    ]),
  ),
  status: [
    { kind: "status", word: "needs-action", name: "Not begun" },
    { kind: "status", word: "in-process", name: "Begun" },
    { kind: "status", word: "completed", name: "Completed" },
  ],
  quarter: [
    { kind: "quarter", word: "important-urgent", name: "Important and urgent" },
    { kind: "quarter", word: "important", name: "Important, not urgent" },
    { kind: "quarter", word: "urgent", name: "Urgent, not important" },
    { kind: "quarter", word: "neither", name: "Neither" },
  ],
};

const same = (a: Pick<SheetGroup, "kind" | "word">, b: Pick<SheetGroup, "kind" | "word">) =>
  a.kind === b.kind && a.word === b.word;

/** Groups as columns, and what it means to move a card from one to another. */
export function useColumns(
  groups: Ref<ShownGroup[]>,
  by: Ref<string>,
  overview: Ref<Overview | undefined>,
) {
  const actions = useActions();
  const { ask } = useAsk();
  const toasts = useToasts();

  const columns = computed<Column[]>(() => {
    const set = standing[by.value === "two-by-two" ? "quarter" : by.value] ?? [];
    const empty = (s: (typeof set)[number]): Column => ({
      horizon: null,
      count: 0,
      start: 0,
      rows: [],
      shown: [],
      key: `${s.kind} ${s.word}`,
      ...s,
    });
    const closed = set.map((s) => groups.value.find((g) => same(g, s)) ?? empty(s));
    return [...closed, ...groups.value.filter((g) => !set.some((s) => same(g, s)))];
  });

  const find = (id: string) => columns.value.find((c) => c.rows.some((r) => r?.todo.id === id));
  const rowOf = (id: string): Row | undefined => find(id)?.rows.find((r) => r?.todo.id === id);

  /** Whether a card can be moved into a column at all. */
  function takes(column: Column): boolean {
    return !["overdue", "carried-over", "on-shelf", "all"].includes(column.kind);
  }

  /** Changes the field that a column stands for. */
  async function move(id: string, to: Column) {
    const from = find(id);
    const todo = rowOf(id)?.todo;
    if (!todo || !from || from === to) return;
    if (!takes(to)) {
      toasts.show({
        text: "What stands in this column follows from other fields; nothing is moved into it.",
      });
      return;
    }
    if (to.kind === "quarter") return askQuarter(todo, from.word ?? "", to.word ?? "");
    if (to.kind === "status") return setStatus(todo, to.word ?? "");
    if (to.kind === "tagged" || to.kind === "untagged") {
      const name = (c: Column) => (c.kind === "tagged" && c.name ? [c.name] : []);
      return void actions.tag(todo, name(to), to.kind === "untagged" ? todo.tags : name(from));
    }
    if (to.kind === "in-list") return void actions.move(todo, to.of ?? null);
    if (to.kind === "planned-for" || to.kind === "parked" || to.kind === "unplanned")
      return void actions.plan(todo, to.kind === "parked" ? "parked" : (to.horizon ?? null));
    const patch = patchFor(todo, to);
    if (patch) await actions.edit(todo, patch);
  }

  function patchFor(todo: Todo, to: Column): TodoPatch | undefined {
    const choice = choiceOf(to.kind);
    if (choice) return choicePatch(choice, to.word ?? "");
    switch (to.kind) {
      case "with-person":
        return {
          person: to.of ? { id: to.of, role: todo.person?.role ?? "ask" } : null,
        } as TodoPatch;
      case "estimate":
        return { estimate: to.word === "0" ? null : to.word === "more" ? 180 : Number(to.word) };
      case "without-due":
        return { due: null };
      case "day": {
        const time = todo.due?.split("T")[1];
        return { due: time ? `${to.horizon}T${time}` : to.horizon };
      }
    }
    return undefined;
  }

  async function setStatus(todo: Todo, word: string) {
    if (word === "completed") return void actions.run(todo.id, "complete");
    if (word === "cancelled") return void actions.run(todo.id, "cancel");
    if (todo.record) return void actions.run(todo.id, "reopen");
    if (todo.status !== word) await actions.edit(todo, { status: word as "in-process" });
  }

  /** Important and urgent follow from several fields: which is to change is asked. */
  function askQuarter(todo: Todo, from: string, to: string) {
    const is = (q: string, what: string) => q.split("-").includes(what);
    const fields: Question["fields"] = [];
    if (is(from, "important") !== is(to, "important"))
      fields.push({
        key: "priority",
        label: "Priority",
        kind: "choice",
        value: is(to, "important") ? "high" : "low",
        options: is(to, "important")
          ? [
              { value: "high", name: "high" },
              { value: "medium", name: "medium" },
            ]
          : [
              { value: "low", name: "low" },
              { value: "none", name: "none" },
            ],
      });
    if (is(from, "urgent") !== is(to, "urgent"))
      fields.push({
        key: "when",
        label: is(to, "urgent") ? "Make it urgent" : "Make it less urgent",
        kind: "choice",
        value: is(to, "urgent") ? "plan" : todo.due ? "due" : "unplan",
        options: is(to, "urgent")
          ? [
              { value: "plan", name: "plan it for today" },
              { value: "due", name: "let it be due today" },
            ]
          : [
              ...(todo.due ? [{ value: "due", name: "take its due and plan away" }] : []),
              ...(!todo.due ? [{ value: "unplan", name: "take its plan away" }] : []),
              ...(!todo.due ? [{ value: "park", name: "park it" }] : []),
            ],
      });
    ask({
      title: `Move “${todo.title}”`,
      text: "Where it stands follows from its fields. This is what will change:",
      confirm: "Change it",
      fields,
      act: async ({ priority, when }) => {
        const today = overview.value?.today ?? null;
        const patch: TodoPatch = {};
        if (priority) patch.priority = priority as Todo["priority"];
        if (when === "plan") patch.plan = today;
        if (when === "due") patch.due = is(to, "urgent") ? today : null;
        if (when === "unplan" || (when === "due" && !is(to, "urgent"))) patch.plan = null;
        if (when === "park") patch.plan = "parked";
        await actions.edit(todo, patch);
      },
    });
  }

  /** Alt with an arrow: into the column beside. */
  function side(id: string, by: 1 | -1): boolean {
    const from = find(id);
    if (!from) return false;
    const to = columns.value[columns.value.indexOf(from) + by];
    if (to) void move(id, to);
    return to !== undefined;
  }

  /** An arrow alone: the card beside, at the same height. */
  function beside(id: string, by: 1 | -1): string | undefined {
    const from = find(id);
    if (!from) return undefined;
    const at = from.shown.findIndex((s) => s.row?.todo.id === id);
    for (let i = columns.value.indexOf(from) + by; columns.value[i]; i += by) {
      const cards = columns.value[i]!.shown;
      const card = cards[Math.min(at, cards.length - 1)];
      if (card?.row) return card.row.todo.id;
    }
    return undefined;
  }

  return { columns, takes, move, side, beside };
}
