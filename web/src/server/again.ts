import type { QueryClient, QueryFilters } from "@tanstack/vue-query";

/**
 * Has everything that a filter finds asked for again, as after a change. Where the first answer
 * of a query is still on its way, invalidating it would wait for that answer alone, which may be
 * older than the change: it is asked for again once it has come.
 */
export function again(queries: QueryClient, filter: QueryFilters): void {
  const first = queries
    .getQueryCache()
    .findAll({ ...filter, fetchStatus: "fetching" })
    .filter((q) => q.state.data === undefined);
  void queries.invalidateQueries(filter);
  for (const { promise, queryKey } of first)
    void promise
      ?.catch(() => {}) // what went wrong is told where it is shown
      .finally(() => void queries.invalidateQueries({ queryKey, exact: true }));
}
