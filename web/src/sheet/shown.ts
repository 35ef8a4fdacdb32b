import { computed, type Ref } from "vue";
import type { Row } from "@/server/client";
import { useFolding } from "./folding";
import { groupKey, type SheetGroup } from "@/server/queries";

/** A row that is shown, or that will be once it is read. */
export interface Shown {
  row?: Row;
  /** Its position within the group, from 0. */
  at: number;
  /** It has subtasks below it, shown or folded away. */
  folds: boolean;
}

export interface ShownGroup extends SheetGroup {
  key: string;
  shown: Shown[];
}

/** Groups that stay folded until they are asked for. */
export const foldsAway = (kind: string) => ["laid-by", "people-and-notes", "paused"].includes(kind);

/** The groups without what is folded away. */
export function useShown(groups: Ref<SheetGroup[]>, unfolded: Ref<Set<string>>) {
  const folding = useFolding();
  return computed<ShownGroup[]>(() =>
    groups.value.map((g) => ({
      ...g,
      key: groupKey(g),
      shown: foldsAway(g.kind) && !unfolded.value.has(g.kind) ? [] : visible(g, folding.folded),
    })),
  );
}

function visible(group: SheetGroup, folded: Set<string>): Shown[] {
  const out: Shown[] = [];
  let hidden = Infinity; // rows deeper than this are folded away
  group.rows.forEach((row, at) => {
    const depth = row?.depth ?? 0;
    if (row && depth > hidden) return;
    hidden = row && folded.has(row.todo.id) ? depth : Infinity;
    const next = group.rows[at + 1];
    out.push({ row, at, folds: row !== undefined && (next?.depth ?? 0) > depth });
  });
  return out;
}

/** The rows of all groups, one after the other, as the keys walk them. */
export function rowsOf(groups: ShownGroup[]): Row[] {
  const rows: Row[] = [];
  for (const g of groups) for (const s of g.shown) if (s.row) rows.push(s.row);
  return rows;
}
