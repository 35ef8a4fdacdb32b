import { useInfiniteQuery, useQuery } from "@tanstack/vue-query";
import { computed, type MaybeRefOrGetter, toValue } from "vue";
import { ask, client, type Group, type View } from "@/api/client";
import { useServer } from "./server";

export function useOverview() {
  const server = useServer();
  return useQuery({
    queryKey: ["overview"],
    queryFn: async () => {
      const overview = await ask(() => client.GET("/api/overview"));
      server.seen(overview);
      return overview;
    },
  });
}

/** Where a sheet gets its rows. */
export type Source =
  | { kind: "view"; view: string; months: number }
  | { kind: "list"; list: string }
  | { kind: "rail"; cup: string };

const pageSize = 200;

function read(source: Source, offset: number): Promise<View> {
  const query = { offset, limit: pageSize };
  switch (source.kind) {
    case "list":
      return ask(() =>
        client.GET("/api/lists/{id}/view", { params: { path: { id: source.list }, query } }),
      );
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

/** The rows of a sheet, page after page, with their groups joined. */
export function useView(source: MaybeRefOrGetter<Source>) {
  const server = useServer();
  const query = useInfiniteQuery({
    queryKey: ["view", computed(() => toValue(source))],
    queryFn: async ({ pageParam }) => {
      const view = await read(toValue(source), pageParam);
      server.seen(view);
      return view;
    },
    initialPageParam: 0,
    getNextPageParam: (last, pages) =>
      pages.length * pageSize < last.total ? pages.length * pageSize : undefined,
    // A longer Upcoming keeps showing what it had.
    placeholderData: (before, q) =>
      JSON.stringify(q?.queryKey?.[1] ?? "").includes('"upcoming"') &&
      JSON.stringify(toValue(source)).includes('"upcoming"')
        ? before
        : undefined,
  });
  const view = computed(() => {
    const pages = query.data.value?.pages;
    const first = pages?.[0];
    return first && { ...first, groups: joined(pages.map((p) => p.groups)) };
  });
  return { ...query, view };
}

export const groupKey = (g: Pick<Group, "kind" | "horizon">) => `${g.kind} ${g.horizon ?? ""}`;

function joined(pages: Group[][]): Group[] {
  const [first = [], ...rest] = pages;
  const groups = first.map((g) => ({ ...g, rows: [...g.rows] }));
  const byKey = new Map(groups.map((g) => [groupKey(g), g]));
  for (const page of rest) {
    for (const g of page) {
      const known = byKey.get(groupKey(g));
      if (known) known.rows.push(...g.rows);
      else {
        groups.push({ ...g, rows: [...g.rows] });
        byKey.set(groupKey(g), groups[groups.length - 1]!);
      }
    }
  }
  return groups;
}

export function useTodo(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: computed(() => ["todo", toValue(id)] as const),
    queryFn: ({ queryKey: [, todo] }) =>
      ask(() => client.GET("/api/todos/{id}", { params: { path: { id: todo } } })),
    enabled: computed(() => toValue(id) !== ""),
    retry: false,
  });
}
