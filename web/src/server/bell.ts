import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { useToasts } from "@/kit/toasts";
import { useActions } from "./actions";
import { ask, client, send, type Turned } from "./client";
import type { components } from "./schema";
import { useServer } from "./server";

export type Ring = components["schemas"]["Ring"];
export type Bell = components["schemas"]["Bell"];
export type LaterOffer = components["schemas"]["LaterOffer"];

/** What waits for an answer. The stream of events lets it be asked for again. */
export const useBell = () =>
  useQuery({
    queryKey: ["bell"],
    queryFn: () => ask(() => client.GET("/api/bell")),
    staleTime: 0,
  });

/** Times to which a ring is often put off, as they are now. */
export const useLaterOffers = () =>
  useQuery({
    queryKey: ["later"],
    queryFn: () => ask(() => client.GET("/api/bell/later")),
    staleTime: 0,
    gcTime: 0,
  });

/** When a ring is told again: after some minutes, or at a wall time. */
export type Until = { minutes: number } | { until: string };

/** Rings by their ids, or all that wait for an answer. */
export type Some = string[] | "all";
const named = (some: Some) => (some === "all" ? { all: true } : { rings: some });

/** What a person does with rings. */
export function useBellActions() {
  const queries = useQueryClient();
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();

  /** The rings are gone from here before the server answers. */
  function without(rings: Some) {
    queries.setQueryData<Bell>(["bell"], (bell) => {
      if (!bell) return bell;
      if (rings === "all") return { ...bell, open: [], openCount: 0 };
      const open = bell.open.filter((r) => !rings.includes(r.id));
      return { ...bell, open, openCount: bell.openCount - (bell.open.length - open.length) };
    });
  }
  async function answer(rings: Some, work: () => Promise<Turned>, said = true) {
    const before = queries.getQueryData<Bell>(["bell"]);
    without(rings);
    const done = await actions.attempt(work);
    if (!done) queries.setQueryData(["bell"], before); // they ring on
    void queries.invalidateQueries({ queryKey: ["bell"] });
    if (!done) return false;
    if (done.change.revision) server.refresh(done.change.revision, []);
    if (said && done.change.revision)
      toasts.show({ text: done.change.says, undo: done.change.revision, sort: "bell" });
    return true;
  }
  const seen = (rings: Some) =>
    answer(
      rings,
      () =>
        send((header) => client.POST("/api/bell/seen", { params: { header }, body: named(rings) })),
      false,
    );
  const later = (rings: Some, until: Until) =>
    answer(rings, () =>
      send((header) =>
        client.POST("/api/bell/later", { params: { header }, body: { ...named(rings), ...until } }),
      ),
    );
  /** Ticks the to-do of a ring. */
  async function done(ring: Ring) {
    const before = queries.getQueryData<Bell>(["bell"]);
    without([ring.id]);
    if (!(await actions.run(ring.todo, "complete"))) queries.setQueryData(["bell"], before);
    void queries.invalidateQueries({ queryKey: ["bell"] });
  }
  return { seen, later, done };
}
