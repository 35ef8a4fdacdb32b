import { useQueries, useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, type MaybeRefOrGetter, type Ref, toValue } from "vue";
import { ask, client, type Group, Refused, type Row, type View } from "./client";
import { assemble } from "./patch";
import { told } from "./in-force";
import { useServer } from "./server";

/** How often hours that are left of today are asked for again, in milliseconds. */
const asTimePasses = 5 * 60_000;

export function useOverview() {
  const server = useServer();
  return useQuery({
    queryKey: ["overview"],
    queryFn: async () => {
      const overview = await ask(() => client.GET("/api/overview"));
      server.seen(overview);
      told(overview.settings ?? {});
      return overview;
    },
    refetchInterval: asTimePasses,
  });
}

/** The filter that holds what a search finds. */
export const searchFilter = (q: string) =>
  ask(() => client.GET("/api/search/filter", { params: { query: { q } } }));

/** Where a sheet gets its rows. */
export type Source =
  | { kind: "view"; view: string; months: number }
  | { kind: "list"; list: string }
  | { kind: "shelf"; shelf: string }
  | { kind: "tag"; tag: string }
  | { kind: "person"; person: string }
  | { kind: "place"; place: string }
  | { kind: "here" }
  | { kind: "own"; own: string }
  | { kind: "search"; q: string }
  | { kind: "rail"; cup: string };

/** What any sheet may be asked besides: to be narrowed, and grouped anew. */
export interface Asked {
  narrow?: string;
  group?: View["groups"][number]["kind"];
  urgentDays?: number;
}

export const pageSize = 200;

/** Asks for some of a sheet's rows. */
export function readView(
  source: Source,
  asked: Asked,
  offset: number,
  limit = pageSize,
  have?: string,
): Promise<View> {
  const query = { offset, limit, have, ...asked } as { offset: number; limit: number };
  const at = (id: string) => ({ params: { path: { id }, query } });
  switch (source.kind) {
    case "list":
      return ask(() => client.GET("/api/lists/{id}/view", at(source.list)));
    case "shelf":
      return ask(() => client.GET("/api/shelves/{id}/view", at(source.shelf)));
    case "tag":
      return ask(() => client.GET("/api/tags/{id}/view", at(source.tag)));
    case "person":
      return ask(() => client.GET("/api/people/{id}/view", at(source.person)));
    case "place":
      return ask(() => client.GET("/api/places/{id}/view", at(source.place)));
    case "here":
      return ask(() => client.GET("/api/here/view", { params: { query } }));
    case "search":
      return ask(() =>
        client.GET("/api/search", { params: { query: { q: source.q, offset, limit, have } } }),
      );
    case "own":
      return ask(() => client.GET("/api/own-views/{id}/view", at(source.own)));
    case "rail":
      return ask(() =>
        client.GET("/api/rail/{cup}", { params: { path: { cup: source.cup }, query } }),
      );
    case "view":
      return ask(() =>
        client.GET("/api/views/{view}", {
          params: {
            path: { view: source.view as "today" },
            query: { ...query, months: source.months },
          },
        }),
      );
  }
}

/** A group with as many rows as it has; those not read yet are undefined. */
export interface SheetGroup extends Omit<Group, "rows"> {
  rows: (Row | undefined)[];
  /** How many rows of the sheet stand before it. */
  start: number;
}

/**
 * The rows of a sheet. The first page is always read; further ones are while
 * `wanted` names them, so that a change reads again only what is looked at.
 */
export function useView(
  source: MaybeRefOrGetter<Source>,
  asked: MaybeRefOrGetter<Asked>,
  wanted: Ref<number[]>,
) {
  const server = useServer();
  const queries = useQueryClient();
  const pages = computed(() => [...new Set([0, ...wanted.value])].sort((a, b) => a - b));
  const key = computed(() => JSON.stringify([toValue(source), toValue(asked)]));
  /** Whether the old rows stay while another question is answered. */
  const stays = (k: unknown) => /"upcoming"|"kind":"search"/.exec(String(k))?.[0];
  const blank = () => {
    const s = toValue(source);
    return s.kind === "search" && !s.q.trim();
  };
  const query = useQuery({
    queryKey: ["view", key, 0],
    queryFn: () => page(0),
    shallow: true, // thousands of rows: none is written to
    refetchInterval: ({ state }) => (state.data?.holds ? asTimePasses : false),
    // A longer Upcoming, and a search that goes on, keep showing what they had.
    placeholderData: (before, q) =>
      stays(key.value) && stays(q?.queryKey?.[1]) === stays(key.value) ? before : undefined,
    enabled: computed(() => !blank()),
    retry: (n, e) => n < 2 && !(e instanceof Refused),
  });
  const more = useQueries({
    shallow: true,
    queries: computed(() =>
      pages.value.slice(1).map((n) => ({
        queryKey: ["view", key.value, n],
        queryFn: () => page(n),
        placeholderData: (before: View | undefined) => before,
      })),
    ),
  });
  /** Reads a page; where it is there already, only what has changed is sent. */
  async function page(n: number) {
    const before = queries.getQueryData<View>(["view", key.value, n]);
    const [from, how] = [toValue(source), toValue(asked)];
    const answer = await readView(from, how, n * pageSize, pageSize, before?.mark);
    server.seen(answer);
    if (!answer.builds) return answer;
    return before?.mark === answer.builds
      ? assemble(before, answer)
      : readView(from, how, n * pageSize);
  }
  const view = computed(() => {
    const first = query.data.value;
    if (!first) return undefined;
    const groups: SheetGroup[] = [];
    let start = 0;
    for (const g of first.groups) {
      groups.push({ ...g, start, rows: Array.from<Row | undefined>({ length: g.count }) });
      start += g.count;
    }
    const byKey = new Map(groups.map((g) => [groupKey(g), g]));
    const read = [first, ...more.value.map((q) => q.data)];
    pages.value.forEach((n, i) => fill(byKey, read[i], n * pageSize));
    return { ...first, groups };
  });
  /** The question that `view` answers; undefined while it shows the rows of another. */
  const answers = computed(() => {
    const first = query.data.value;
    return first && first === queries.getQueryData(["view", key.value, 0]) ? key.value : undefined;
  });
  return { ...query, view, answers };
}

/** Puts the rows of one page where they belong. */
function fill(groups: Map<string, SheetGroup>, page: View | undefined, offset: number) {
  let at = offset;
  for (const g of page?.groups ?? []) {
    if (!g.rows.length) continue;
    const group = groups.get(groupKey(g));
    if (!group) return; // read before the last change: it is on its way again
    const from = Math.max(at - group.start, 0);
    g.rows.forEach((row, i) => {
      if (from + i < group.rows.length) group.rows[from + i] = row;
    });
    at = group.start + from + g.rows.length;
  }
}

export const groupKey = (g: Pick<Group, "kind" | "horizon" | "of" | "word">) =>
  `${g.kind} ${g.horizon ?? g.of ?? g.word ?? ""}`;

export function useTodo(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: computed(() => ["todo", toValue(id)] as const),
    queryFn: ({ queryKey: [, todo] }) =>
      ask(() => client.GET("/api/todos/{id}", { params: { path: { id: todo } } })),
    enabled: computed(() => toValue(id) !== ""),
    retry: false,
  });
}
