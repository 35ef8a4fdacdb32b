import type { Row } from "./client";
import { groupKey, type SheetGroup } from "./queries";

type Rows = SheetGroup["rows"];

/** How many rows of an order belong to one: itself, and what stands below it. */
function below(rows: Rows, at: number): number {
  const depth = rows[at]?.depth ?? 0;
  let end = at + 1;
  while (end < rows.length && rows[end] && (rows[end]!.depth ?? 0) > depth) end++;
  return end;
}

/** Where in new rows something stands that stood in old ones: behind the nearest row before it that is still there. */
function placeIn(now: Rows, old: Rows, at: number): number {
  for (let i = at - 1; i >= 0; i--) {
    const id = old[i]?.todo.id;
    const found = id ? now.findIndex((r) => r?.todo.id === id) : -1;
    if (found >= 0) return found + 1;
  }
  return Math.min(at, now.length);
}

/** A subtask that was closed with its parent. */
const closed = (row: Row): Row =>
  row.todo.completed || row.todo.status !== "needs-action"
    ? row
    : { ...row, todo: { ...row.todo, status: "completed" } };

/**
 * The server's groups with rows put back where they stood. A ticked parent stands with what was ticked with
 * it, and never without its own parent; a repeat that has moved on is shown as it was ticked, and not at its next
 * date as well.
 * @param kept whether a row is put back, and whether that is because it was ticked
 */
export function putBack(
  groups: SheetGroup[],
  before: SheetGroup[],
  kept: (id: string) => "completed" | "open" | undefined,
): SheetGroup[] {
  const out = groups.map((g) => ({ ...g, rows: [...g.rows] }));
  const there = new Map(out.flatMap((g) => g.rows.map((r) => [r?.todo.id, r] as const)));
  const revisions = new Map(
    before.flatMap((g) => g.rows.map((r) => [r?.todo.id, r?.todo.revision])),
  );
  for (const [id, row] of there) {
    if (!id || !row || kept(id) !== "completed" || !row.todo.repeat || row.todo.completed) continue;
    const was = revisions.get(id);
    if (was === undefined || was >= row.todo.revision) continue;
    for (const g of out) g.rows = g.rows.filter((r) => r?.todo.id !== id);
    there.delete(id);
  }
  before.forEach((old, nth) => {
    for (let at = 0; at < old.rows.length; at++) {
      const row = old.rows[at];
      if (!row || !kept(row.todo.id) || there.has(row.todo.id)) continue;
      const end = below(old.rows, at);
      const whole = kept(row.todo.id) === "completed" ? old.rows.slice(at, end) : [row];
      let group = out.find((g) => groupKey(g) === groupKey(old));
      if (!group) {
        group = { ...old, count: 0, rows: [] };
        out.splice(Math.min(nth, out.length), 0, group);
      }
      const parent = row.todo.parent;
      const orphan =
        (row.depth ?? 0) > 0 && parent && !group.rows.some((r) => r?.todo.id === parent);
      if (orphan) continue;
      const missing = whole.filter((r) => r && !there.has(r.todo.id));
      const back = missing.map((r) => (r && r !== row && !kept(r.todo.id) ? closed(r) : r));
      group.rows.splice(placeIn(group.rows, old.rows, at), 0, ...back);
      for (const r of back) if (r) there.set(r.todo.id, r);
    }
  });
  return out;
}
