import { useQuery } from "@tanstack/vue-query";
import { computed, type Ref, ref } from "vue";
import { inForce } from "@/server/in-force";
import { readView, type Source, useOverview } from "@/server/queries";
import type { Week, WeekSlip } from "@/server/week";

/** How many to-dos of a view stand among what is to place. */
const most = 60;

/** On demand, what is Ready or a view of one's own holds stands among what is to place. */
export function useAlso(week: Ref<Week | undefined>) {
  /** "" for nothing, "ready", or the id of a view of one's own. */
  const also = ref("");
  const { data: overview } = useOverview();
  const shelves = computed(() => overview.value?.shelves);
  const source = computed<Source>(() =>
    also.value === "ready"
      ? { kind: "view", view: "ready", months: 0 }
      : { kind: "own", own: also.value },
  );
  const { data } = useQuery({
    queryKey: computed(() => ["view", "also", also.value]),
    queryFn: () => readView(source.value, {}, 0, most),
    enabled: computed(() => also.value !== ""),
  });
  const slips = computed<WeekSlip[]>(() => {
    if (!also.value) return [];
    const lying = new Set(
      [...(week.value?.loose ?? []), ...(week.value?.days.flatMap((d) => d.slips) ?? [])].map(
        (s) => s.todo.id,
      ),
    );
    const rows = (data.value?.groups ?? []).flatMap((g) => g.rows);
    return rows
      .filter(({ todo }) => !lying.has(todo.id) && !todo.isNote && !todo.completed)
      .map(({ todo }) => ({
        todo,
        minutes: todo.estimate || Number(inForce.assumed),
        assumed: todo.estimate ? undefined : true,
        hours:
          shelves.value?.find((s) => s.lists.some((l) => l.id === todo.list))?.hours ?? "working",
      }));
  });
  return { also, slips };
}
