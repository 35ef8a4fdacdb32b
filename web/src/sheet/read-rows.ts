import { until } from "@vueuse/core";
import type { Ref } from "vue";
import { useActions } from "@/server/actions";
import { pageSize, readView, type Source, type useView } from "@/server/queries";
import type { useNarrowing } from "./narrowing";
import type { ShownGroup } from "./shown";

/** Reads rows of a sheet that are not looked at. */
export function useReadRows(
  source: Ref<Source>,
  narrowing: ReturnType<typeof useNarrowing>,
  query: ReturnType<typeof useView>,
  wanted: Ref<number[]>,
  shown: Ref<ShownGroup[]>,
) {
  const actions = useActions();

  /** The ids of rows, of those too that are not read yet; none where they cannot be. */
  async function idsOf(start: number, count: number): Promise<string[]> {
    const read = await actions.attempt(async () => {
      const ids: string[] = [];
      for (let from = start; from < start + count; from += 1000) {
        const limit = Math.min(1000, start + count - from);
        const part = await readView(source.value, narrowing.asked.value, from, limit);
        for (const g of part.groups) ids.push(...g.rows.map((r) => r.todo.id));
      }
      return ids;
    });
    return read ?? [];
  }

  /** Reads every page of rows, and waits until they stand there. */
  async function readAll() {
    const pages = Math.ceil((query.view.value?.total ?? 0) / pageSize);
    wanted.value = Array.from({ length: pages }, (_, i) => i);
    await until(() => shown.value.every((g) => g.shown.every((s) => s.row))).toBe(true, {
      timeout: 10_000,
    });
  }
  return { idsOf, readAll };
}
