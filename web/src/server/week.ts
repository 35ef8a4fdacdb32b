import { useQuery } from "@tanstack/vue-query";
import { computed, type MaybeRefOrGetter, toValue } from "vue";
import { useToasts } from "@/kit/toasts";
import { useActions } from "./actions";
import { ask, client, send } from "./client";
import type { components } from "./schema";
import { useServer } from "./server";

export type Week = components["schemas"]["Week"];
export type WeekDay = components["schemas"]["WeekDay"];
export type WeekSlip = components["schemas"]["WeekSlip"];
export type Levelled = components["schemas"]["Levelled"];
export type Proposal = Levelled["proposals"][number];

/** A week as it is planned; it is asked for again with each change, as sheets are. */
export const useWeek = (of: MaybeRefOrGetter<string | undefined>) =>
  useQuery({
    queryKey: computed(() => ["view", "week", toValue(of)]),
    queryFn: () => ask(() => client.GET("/api/week", { params: { query: { of: toValue(of) } } })),
    placeholderData: (before) => before,
  });

/** Proposals of days, while they are wished for. */
export const useLevel = (
  of: MaybeRefOrGetter<string | undefined>,
  wished: MaybeRefOrGetter<boolean>,
) =>
  useQuery({
    queryKey: computed(() => ["view", "level", toValue(of)]),
    queryFn: () =>
      ask(() => client.GET("/api/week/level", { params: { query: { of: toValue(of) } } })),
    enabled: computed(() => toValue(wished)),
  });

/** Plans many at once, each for a day of its own: one change, one undo. */
export function usePlanEach() {
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();
  return (proposals: Proposal[]) =>
    actions.attempt(async () => {
      const plans = proposals.map((p) => ({ id: p.id, plan: p.day }));
      const done = await send((header) =>
        client.POST("/api/plans", { params: { header }, body: { plans } }),
      );
      if (done.change.revision) server.refresh(done.change.revision, done.todos);
      toasts.show({ text: done.change.says, undo: done.change.revision || undefined });
      return true;
    });
}
