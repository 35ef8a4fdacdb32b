import type { InjectionKey, Ref } from "vue";
import type { Row, Todo } from "@/server/client";
import { useCurrent } from "@/state/current";
import { useMany } from "@/server/many";
import type { ShownGroup } from "./shown";
import { useToasts } from "@/kit/toasts";

/** Where a dropped row is to go, as the drop line shows it. */
export type Landing =
  { kind: "above" | "below" | "inside"; row: Row } | { kind: "lifted"; row: Row; depth: number };

/** What a row may ask of the sheet it stands in. */
export interface Sheet {
  rows: Ref<Row[]>;
  openSlip: (id: string) => void;
  moves: Arranging;
}
type Arranging = ReturnType<typeof useArrange>;
export const sheetKey: InjectionKey<Sheet> = Symbol("sheet");

/** Moves rows among their siblings, under one another and out again. */
export function useArrange(groups: Ref<ShownGroup[]>, arranges: Ref<boolean>) {
  const current = useCurrent();
  const many = useMany();
  const toasts = useToasts();

  function refuse() {
    toasts.show({
      text: "Rows have an order of their own in lists and in the Cup. Open its list to move it.",
    });
    return true;
  }
  function find(id: string) {
    for (const group of groups.value) {
      const rows = group.rows;
      const at = rows.findIndex((r) => r?.todo.id === id);
      const row = rows[at];
      if (row) return { group, rows, at, row };
    }
    return undefined;
  }
  const homeOf = (t: Todo) =>
    t.parent ? { parent: t.parent } : { list: t.list, section: t.section ?? null };

  /** The nearest row before or behind that has the same parent. */
  function sibling(id: string, step: 1 | -1): Row | undefined {
    const found = find(id);
    if (!found) return undefined;
    const depth = found.row.depth ?? 0;
    for (let i = found.at + step; i >= 0 && i < found.rows.length; i += step) {
      const row = found.rows[i];
      if (!row || (row.depth ?? 0) < depth) return undefined;
      if ((row.depth ?? 0) === depth) return row;
    }
    return undefined;
  }

  /** `]`: under the row that stands before it. */
  function indent(id: string): boolean {
    if (!arranges.value) return refuse();
    const before = sibling(id, -1);
    if (before) void many.move(id, { parent: before.todo.id });
    else toasts.show({ text: "There is no row above it that it could be a subtask of." });
    return true;
  }

  /** `[`: out from under its parent, to stand behind it. */
  function lift(id: string): boolean {
    if (!arranges.value) return refuse();
    const found = find(id);
    const parent = found?.row.todo.parent && find(found.row.todo.parent);
    if (parent) void many.move(id, { ...homeOf(parent.row.todo), after: parent.row.todo.id });
    else toasts.show({ text: "It is no subtask of a row here." });
    return true;
  }

  /** Alt and an arrow: before or behind its neighbour, or into the next section. */
  function step(id: string, by: 1 | -1): boolean {
    if (!arranges.value) return refuse();
    const found = find(id);
    if (!found) return true;
    const next = sibling(id, by);
    if (next) {
      const beside = by < 0 ? { before: next.todo.id } : { after: next.todo.id };
      void many.move(id, { ...homeOf(found.row.todo), ...beside });
      return true;
    }
    const neighbour = groups.value[groups.value.indexOf(found.group) + by];
    if (found.row.depth || !neighbour || !["all", "section"].includes(neighbour.kind)) return true;
    const edge = by < 0 ? undefined : neighbour.rows[0];
    void many.move(id, {
      list: found.row.todo.list,
      section: neighbour.of ?? null,
      ...(edge ? { before: edge.todo.id } : {}),
    });
    return true;
  }

  /** A row was let go of over another. */
  function drop(id: string, landing: Landing) {
    const { row } = landing;
    if (landing.kind === "inside") return void many.move(id, { parent: row.todo.id });
    if (landing.kind === "lifted") {
      // Behind the one of its parents that stands at the depth it was drawn to.
      let over: Row | undefined = row;
      while (over && (over.depth ?? 0) > landing.depth)
        over = over.todo.parent ? find(over.todo.parent)?.row : undefined;
      if (over) void many.move(id, { ...homeOf(over.todo), after: over.todo.id });
      return;
    }
    const beside = landing.kind === "above" ? { before: row.todo.id } : { after: row.todo.id };
    void many.move(id, { ...homeOf(row.todo), ...beside });
  }

  /** Opens a line below a row, for one behind it or under it. */
  function adds(id: string, inside: boolean): boolean {
    if (!arranges.value && !inside) return refuse();
    current.adding = { row: id, inside };
    return true;
  }

  return { indent, lift, step, drop, adds };
}
