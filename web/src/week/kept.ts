import { computed, type Ref, shallowRef, watch } from "vue";
import { useLinger } from "@/server/linger";
import type { WeekSlip } from "@/server/week";

/** Slips by where they lie: a day, or what is to place. */
export type Columns = Map<string, WeekSlip[]>;

/** Slips with those that were just ticked where they stood, struck, for a moment. */
export function useKept(columns: Ref<Columns>) {
  const linger = useLinger();
  const stood = shallowRef(new Map<string, { slip: WeekSlip; column: string; at: number }>());
  watch(columns, (_, before) => {
    const all = new Map(stood.value);
    for (const [column, slips] of before)
      slips.forEach((slip, at) => all.set(slip.todo.id, { slip, column, at }));
    for (const id of all.keys()) if (!linger.kept.has(id)) all.delete(id);
    stood.value = all;
  });
  return computed<Columns>(() => {
    const there = new Set([...columns.value.values()].flat().map((s) => s.todo.id));
    const gone = [...stood.value.values()].filter(
      (s) => linger.kept.has(s.slip.todo.id) && !there.has(s.slip.todo.id),
    );
    if (!gone.length) return columns.value;
    const out = new Map([...columns.value].map(([column, slips]) => [column, [...slips]]));
    for (const { slip, column, at } of gone) {
      const slips = out.get(column);
      slips?.splice(Math.min(at, slips.length), 0, slip);
    }
    return out;
  });
}
