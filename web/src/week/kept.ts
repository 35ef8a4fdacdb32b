import { computed, type Ref, shallowRef, watch } from "vue";
import { useLinger } from "@/server/linger";
import type { Week, WeekDay, WeekSlip } from "@/server/week";

interface Stood {
  slip: WeekSlip;
  day: string;
  at: number;
}

/** A week with the slips that were just ticked where they stood, struck, for a moment. */
export function useKept(week: Ref<Week | undefined>) {
  const linger = useLinger();
  const stood = shallowRef(new Map<string, Stood>());
  watch(week, (_, before) => {
    const all = new Map(stood.value);
    for (const d of before?.days ?? [])
      d.slips.forEach((slip, at) => all.set(slip.todo.id, { slip, day: d.day, at }));
    for (const id of all.keys()) if (!linger.kept.has(id)) all.delete(id);
    stood.value = all;
  });
  return computed<WeekDay[]>(() =>
    (week.value?.days ?? []).map((d) => {
      const there = new Set(d.slips.map((s) => s.todo.id));
      const gone = [...stood.value.values()].filter(
        (s) => s.day === d.day && linger.kept.has(s.slip.todo.id) && !there.has(s.slip.todo.id),
      );
      if (!gone.length) return d;
      const slips = [...d.slips];
      for (const s of gone) slips.splice(Math.min(s.at, slips.length), 0, s.slip);
      return { ...d, slips };
    }),
  );
}
