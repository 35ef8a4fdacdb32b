import { computed, type Ref } from "vue";
import { type LocationQueryValue, useRoute, useRouter } from "vue-router";
import type { FilterNode, Overview } from "@/server/client";
import { listById, priorityNames } from "@/words/names";
import { useLook } from "@/state/look";
import type { Asked } from "@/server/queries";

export const shapes = ["rows", "columns", "two-by-two"] as const;
export type Shape = (typeof shapes)[number];

const kinds = ["tag", "list", "person", "priority"] as const;
export type NarrowKind = (typeof kinds)[number];

/** One thing that the sheet is narrowed to. */
export interface Narrowed {
  kind: NarrowKind;
  value: string;
  words: string;
}

const all = (q: LocationQueryValue | LocationQueryValue[] | undefined) =>
  (Array.isArray(q) ? q : [q]).filter((v): v is string => typeof v === "string" && v !== "");

/**
 * What is asked of a sheet besides its own question, as the address says it: to
 * what it is narrowed, and in which shape it stands.
 */
export function useNarrowing(overview: Ref<Overview | undefined>) {
  const route = useRoute();
  const router = useRouter();
  const look = useLook();

  const narrowed = computed<Narrowed[]>(() =>
    kinds.flatMap((kind) =>
      all(route.query[kind]).map((value) => ({ kind, value, words: wordsOf(kind, value) })),
    ),
  );
  function wordsOf(kind: NarrowKind, value: string): string {
    const o = overview.value;
    switch (kind) {
      case "tag":
        return `tagged ${o?.tags.find((t) => t.id === value)?.name ?? "a tag that is gone"}`;
      case "list":
        if (value === "none") return "in the Cup";
        return `in ${listById(o, value)?.list.name ?? "a list that is gone"}`;
      case "person":
        return `with ${o?.people.find((p) => p.id === value)?.name ?? "someone who is gone"}`;
    }
    return `${priorityNames[value as "high"] ?? value} priority`.toLowerCase();
  }
  const filter = computed<FilterNode | undefined>(() => {
    const tests = kinds.flatMap((field): FilterNode[] => {
      const values = all(route.query[field]);
      if (!values.length) return [];
      if (field !== "list" || !values.includes("none")) return [{ field, op: "any-of", values }];
      const lists = values.filter((v) => v !== "none");
      const cup = { field, op: "none" };
      return [lists.length ? { any: [cup, { field, op: "any-of", values: lists }] } : cup];
    });
    return tests.length ? { all: tests } : undefined;
  });

  const own = computed(() => overview.value?.views.find((v) => v.id === route.params.own));
  const shape = computed<Shape>(() => {
    const asked = shapes.find((s) => s === route.query.shape);
    return asked ?? shapes.find((s) => s === own.value?.shape) ?? "rows";
  });
  const by = computed(() => (typeof route.query.by === "string" ? route.query.by : undefined));
  const asked = computed<Asked>(() => {
    const group =
      shape.value === "two-by-two"
        ? "two-by-two"
        : (by.value ?? (shape.value === "columns" && !own.value?.shape ? "priority" : undefined));
    return {
      ...(filter.value && { narrow: JSON.stringify(filter.value) }),
      ...(group && { group: group as Asked["group"] }),
      ...(group === "two-by-two" &&
        own.value?.shape !== "two-by-two" && { urgentDays: look.urgentDays }),
    };
  });

  const put = (query: Record<string, string | string[] | undefined>) =>
    router.replace({ ...route, query: { ...route.query, ...query } });
  function narrow(kind: NarrowKind, value: string) {
    const has = all(route.query[kind]);
    void put({ [kind]: has.includes(value) ? has.filter((v) => v !== value) : [...has, value] });
  }
  const widen = () => put(Object.fromEntries(kinds.map((k) => [k, undefined])));
  const setShape = (to: Shape, of?: string) => put({ shape: to, by: of });

  return { narrowed, filter, narrow, widen, shape, by, asked, setShape };
}
