import { nextTick, type Ref, watch } from "vue";
import { useQueryClient } from "@tanstack/vue-query";
import type { Priority, Row, Todo } from "@/api/client";
import { priorities } from "@/words/names";
import { useActions } from "./actions";
import { useCurrent } from "./current";
import { useKeys } from "./keys";
import { useOverview } from "./queries";

/** The element of a row, where it is shown. */
export const rowElement = (id: string | undefined) =>
  id ? document.querySelector<HTMLElement>(`[data-todo="${CSS.escape(id)}"]`) : null;

/** Keys that act on the current row of a sheet. */
export function useRowKeys(rows: Ref<Row[]>, open: (id: string) => void) {
  const current = useCurrent();
  const actions = useActions();
  const queries = useQueryClient();
  const { data: overview } = useOverview();

  const index = () => rows.value.findIndex((r) => r.todo.id === current.row);

  function go(to: number) {
    const row = rows.value[Math.max(0, Math.min(to, rows.value.length - 1))];
    if (!row) return;
    current.row = row.todo.id;
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
      if (now.some((r) => r.todo.id === current.row)) return;
      const was = before?.findIndex((r) => r.todo.id === current.row) ?? -1;
      const hadFocus = was >= 0 && document.activeElement?.closest("[data-todo]") !== null;
      const next = now[Math.min(Math.max(was, 0), now.length - 1)];
      current.row = next?.todo.id;
      if (hadFocus || (was >= 0 && document.activeElement === document.body)) {
        void nextTick(() => rowElement(current.row)?.focus({ preventScroll: true }));
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
    const at = priorities.indexOf(row.todo.priority) + by;
    const priority = priorities[at] as Priority | undefined;
    if (priority) void actions.edit(row.todo, { priority });
  }

  function choose(kind: "list" | "due" | "tags" | "repeat", row: Pick<Row, "todo">) {
    const at = rowElement(row.todo.id) ?? document.querySelector<HTMLElement>("[data-slip]");
    if (at) current.chooser = { kind, todo: row.todo, at };
  }

  useKeys((press) => {
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
    }
    const row = target();
    if (!row) return false;
    const digit = /^\d$/.exec(press)?.[0];
    if (digit) {
      const place = digit === "0" ? 11 : Number(digit) - 1;
      const cup = overview.value?.rail[place];
      if (cup && !row.todo.deleted) void actions.plan(row.todo, cup.horizon);
      return true;
    }
    switch (press) {
      case "Enter":
        if (document.activeElement?.matches("button, a, [role=checkbox]")) return false;
        open(row.todo.id);
        return true;
      case " ":
        if (document.activeElement?.matches("button:not([role=checkbox]), a")) return false;
        if (row.todo.deleted) void actions.run(row.todo.id, "restore");
        else void actions.tick(row.todo);
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
}
