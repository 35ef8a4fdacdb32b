import { computed, type Ref, shallowRef, watch } from "vue";
import { useLinger } from "@/server/linger";
import type { WeekSlip } from "@/server/week";

/** Slips by where they lie: a day, or what is to place. */
export type Places = Map<string, WeekSlip[]>;

/** Slips with those that were just ticked where they stood, struck, for a moment. */
export function useKept(places: Ref<Places>) {
  const linger = useLinger();
  const stood = shallowRef(new Map<string, { slip: WeekSlip; place: string; at: number }>());
  watch(places, (_, before) => {
    const all = new Map(stood.value);
    for (const [place, slips] of before)
      slips.forEach((slip, at) => all.set(slip.todo.id, { slip, place, at }));
    for (const id of all.keys()) if (!linger.kept.has(id)) all.delete(id);
    stood.value = all;
  });
  return computed<Places>(() => {
    const there = new Set([...places.value.values()].flat().map((s) => s.todo.id));
    const gone = [...stood.value.values()].filter(
      (s) => linger.kept.has(s.slip.todo.id) && !there.has(s.slip.todo.id),
    );
    if (!gone.length) return places.value;
    const out = new Map([...places.value].map(([place, slips]) => [place, [...slips]]));
    for (const { slip, place, at } of gone) {
      const slips = out.get(place);
      slips?.splice(Math.min(at, slips.length), 0, slip);
    }
    return out;
  });
}
