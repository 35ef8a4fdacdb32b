import { nextTick, type Ref, watch } from "vue";
import { useQueryClient } from "@tanstack/vue-query";
import { useRoute } from "vue-router";
import type { Priority, Row, Todo } from "@/server/client";
import { isRowKey, whyNot } from "@/words/keys";
import { priorities } from "@/words/names";
import { useActions } from "@/server/actions";
import { rowElement, useCurrent } from "@/state/current";
import { useHandedOn } from "@/state/handed-on";
import { useFolding } from "./folding";
import { cupOfDigit, useKeys } from "@/state/keys";
import { useMany } from "@/server/many";
import { useOverview } from "@/server/queries";
import { useSelection } from "@/kit/selection";
import { useToasts } from "@/kit/toasts";

/** What keys ask of the sheet. */
interface Moves {
  indent: (id: string) => boolean;
  lift: (id: string) => boolean;
  step: (id: string, by: 1 | -1) => boolean;
  adds: (id: string, inside: boolean) => boolean;
  makeRoom: () => Promise<void>;
  /** In columns: what stands beside, and moving a row there. */
  beside?: (id: string, by: 1 | -1) => string | undefined;
  side?: (id: string, by: 1 | -1) => boolean;
}

/** Keys that act on the current row of a sheet, or on all that are chosen. */
export function useRowKeys(
  rows: Ref<Row[]>,
  open: (id: string) => void,
  wayOf: Moves | (() => Moves),
) {
  const moves = (): Moves => (typeof wayOf === "function" ? wayOf() : wayOf);
  const current = useCurrent();
  const actions = useActions();
  const many = useMany();
  const selection = useSelection();
  const toasts = useToasts();
  const folding = useFolding();
  const queries = useQueryClient();
  const { data: overview } = useOverview();

  const { handOn, settling } = useHandedOn();
  const route = useRoute();
  /** What is shown, whichever slip is open: other rows of another sheet are no surprise. */
  const sheetShown = () => JSON.stringify([route.path, { ...route.query, slip: undefined }]);
  let sheet = sheetShown();

  const index = () => rows.value.findIndex((r) => r.todo.id === current.row);

  function go(to: number) {
    const row = rows.value[Math.max(0, Math.min(to, rows.value.length - 1))];
    if (!row) return;
    current.row = row.todo.id;
    if (!selection.any) selection.begin(row.todo.id);
    void nextTick(() => {
      const el = rowElement(row.todo.id);
      el?.focus();
      el?.scrollIntoView({ block: "nearest" });
    });
  }

  // When the current row leaves, its neighbour takes its place, with the focus.
  watch(
    rows,
    (now, before) => {
      if (!now.length) return;
      const put = current.putIn;
      if (put && now.some((r) => r.todo.id === put)) {
        current.putIn = undefined;
        // Who has gone on to another row by now stays there.
        if (!document.activeElement?.closest("[data-todo]")) current.row = put;
      }
      if (now.some((r) => r.todo.id === current.row)) {
        // A card that goes to another column is drawn anew: the focus goes along.
        if (!document.activeElement?.closest("[data-todo]")) return;
        return void nextTick(() => {
          if (document.activeElement === document.body)
            rowElement(current.row)?.focus({ preventScroll: true });
        });
      }
      const was = before?.findIndex((r) => r.todo.id === current.row) ?? -1;
      const hadFocus = was >= 0 && document.activeElement?.closest("[data-todo]") !== null;
      const next = now[Math.min(Math.max(was, 0), now.length - 1)];
      current.row = next?.todo.id;
      const left = was >= 0 && sheet === sheetShown();
      if (left) handOn();
      sheet = sheetShown();
      if (hadFocus || (was >= 0 && document.activeElement === document.body)) {
        void nextTick(() => {
          if (left) handOn(); // drawing may have taken long
          rowElement(current.row)?.focus({ preventScroll: true });
        });
      }
    },
    { immediate: true },
  );

  /** Keys pressed within a slip act on its to-do, wherever the current row is. */
  function target(): Pick<Row, "todo"> | undefined {
    const id = document.activeElement?.closest<HTMLElement>("[data-slip]")?.dataset.slip;
    if (!id) return rows.value[index()];
    const todo = queries.getQueryData<Todo>(["todo", id]);
    return todo && { todo };
  }

  function shift(row: Pick<Row, "todo">, by: number) {
    actions.inTurn(row.todo, async (todo) => {
      const at = priorities.indexOf(todo.priority) + by;
      const priority = priorities[at] as Priority | undefined;
      if (priority) await actions.edit(todo, { priority });
      else toasts.show({ text: by > 0 ? whyNot.highest : whyNot.lowest });
    });
  }

  function choose(kind: "list" | "due" | "tags" | "repeat" | "minutes", row: Pick<Row, "todo">) {
    const at = rowElement(row.todo.id) ?? document.querySelector<HTMLElement>("[data-slip]");
    if (at) current.chooser = { kind, todo: row.todo, at };
  }

  /** Gives minutes to the rows that have none, from the current one on, then from the first. */
  function walkMinutes() {
    const from = Math.max(index(), 0);
    const todos = [...rows.value.slice(from), ...rows.value.slice(0, from)]
      .map((r) => r.todo)
      .filter((t) => !t.estimate && !t.isNote && !t.deleted && !t.completed);
    const first = todos[0];
    const at = rowElement(first?.id);
    if (!first || !at)
      return void toasts.show({
        text: rows.value.length
          ? "Every row here has its minutes."
          : "There is no row here to give minutes to.",
      });
    at.scrollIntoView({ block: "nearest" });
    current.walking = { todos, at: 0, given: 0 };
    current.row = first.id;
    current.chooser = { kind: "minutes", todo: first, at };
  }

  /** Folds a row's subtasks away, or shows them. */
  function foldRow(id: string, away: boolean): boolean {
    if (folding.folded.has(id) !== away) folding.turn(id);
    return true;
  }

  /** In columns to the card beside, else folding. */
  function sideways(id: string, by: 1 | -1): boolean {
    const { beside } = moves();
    if (!beside) return foldRow(id, by < 0);
    const to = beside(id, by);
    if (to) go(rows.value.findIndex((r) => r.todo.id === to));
    return true;
  }

  /** Keys that act on all that are chosen, when some are. */
  function onChosen(press: string): boolean {
    const ids = [...selection.ids];
    const at = rowElement(current.row) ?? document.querySelector<HTMLElement>("main");
    const digit = /^\d$/.exec(press)?.[0];
    const cup = digit && cupOfDigit(overview.value, digit);
    if (cup) {
      void many.change(ids, { do: "plan", plan: cup.horizon });
      return true;
    }
    switch (press) {
      case " ":
        void many.change(ids, { do: "complete" });
        return true;
      case "l":
      case "t":
      case "d":
      case "m":
        if (at)
          current.chooser = {
            kind: ({ l: "list", t: "tags", d: "due", m: "minutes" } as const)[press],
            ids,
            at,
          };
        return true;
      case "h":
        void many.change(ids, { do: "handful", in: true });
        return true;
      case "Delete":
        void many.change(ids, { do: "delete" });
        return true;
      case "Escape":
        selection.clear();
        return true;
      case "e":
      case "r":
      case "b":
      case "i":
      case "p":
      case "Shift+P":
        if (ids.length < 2) return false;
        toasts.show({ text: whyNot.oneRow(ids.length) });
        return true;
    }
    return false;
  }

  /** Moves through the rows and chooses among them. */
  function walk(press: string): boolean {
    switch (press) {
      case "j":
      case "ArrowDown":
        go(
          index() < 0 ? 0 : document.activeElement?.closest("[data-todo]") ? index() + 1 : index(),
        );
        return true;
      case "k":
      case "ArrowUp":
        go(index() - 1);
        return true;
      case "Shift+ArrowDown":
      case "Shift+ArrowUp":
        if (current.row && !selection.any) selection.toggle(current.row);
        go(index() + (press === "Shift+ArrowDown" ? 1 : -1));
        if (current.row)
          selection.stretch(
            current.row,
            rows.value.map((r) => r.todo.id),
          );
        return true;
      case "Shift+M":
        walkMinutes();
        return true;
      case "s":
        void moves().makeRoom();
        return true;
      case "Escape":
        if (!selection.choosing) return false;
        selection.clear();
        return true;
    }
    return false;
  }

  useKeys((press) => {
    if (selection.any && onChosen(press)) return true;
    if (walk(press)) return true;
    const row = target();
    if (!row) {
      if (!isRowKey(press) || rows.value.length || document.activeElement?.matches("button, a"))
        return false;
      toasts.show({ text: whyNot.noRow });
      return true;
    }
    if (settling() && row === rows.value[index()]) return true;
    const digit = /^\d$/.exec(press)?.[0];
    if (digit) {
      const cup = cupOfDigit(overview.value, digit);
      if (cup && !row.todo.deleted) void actions.plan(row.todo, cup.horizon);
      return true;
    }
    switch (press) {
      case "b":
        return moves().adds(row.todo.id, false);
      case "i":
        return moves().adds(row.todo.id, true);
      case "x":
        selection.toggle(row.todo.id);
        return true;
      case "h":
        actions.inTurn(row.todo, (todo) =>
          actions.pick(todo, todo.handful !== overview.value?.today),
        );
        return true;
      case "]":
        return moves().indent(row.todo.id);
      case "[":
        return moves().lift(row.todo.id);
      case "Alt+ArrowUp":
        return moves().step(row.todo.id, -1);
      case "Alt+ArrowDown":
        return moves().step(row.todo.id, 1);
      case "<":
      case ">": {
        const { side } = moves();
        if (!side) return false;
        if (!side(row.todo.id, press === "<" ? -1 : 1)) toasts.show({ text: whyNot.noColumn });
        return true;
      }
      case "ArrowLeft":
      case "ArrowRight":
        return sideways(row.todo.id, press === "ArrowLeft" ? -1 : 1);
      case "Enter":
        if (document.activeElement?.matches("button, a, [role=checkbox]")) return false;
        open(row.todo.id);
        return true;
      case " ":
        if (document.activeElement?.matches("button:not([role=checkbox])")) return false;
        if (row.todo.deleted) void actions.run(row.todo.id, "restore");
        else if (!row.todo.isNote) void actions.tick(row.todo);
        return true;
      case "e":
        if (!rowElement(row.todo.id)) return false;
        current.editing = row.todo.id;
        return true;
      case "l":
        choose("list", row);
        return true;
      case "d":
        choose("due", row);
        return true;
      case "t":
        choose("tags", row);
        return true;
      case "m":
        if (!row.todo.isNote && !row.todo.deleted) choose("minutes", row);
        return true;
      case "r":
        if (!row.todo.record && !row.todo.deleted) choose("repeat", row);
        return true;
      case "p":
        shift(row, 1);
        return true;
      case "Shift+P":
        shift(row, -1);
        return true;
      case "Delete":
        if (!row.todo.deleted) void actions.remove(row.todo);
        return true;
    }
    return false;
  });

  return { walkMinutes };
}
