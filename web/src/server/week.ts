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
export type LaidHours = components["schemas"]["LaidHours"];
export type Given = components["schemas"]["Given"];

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

/** Proposals of times for a day, while they are wished for. */
export const useLaidHours = (day: MaybeRefOrGetter<string | undefined>) =>
  useQuery({
    queryKey: computed(() => ["view", "hours", toValue(day)]),
    queryFn: () =>
      ask(() => client.GET("/api/week/hours", { params: { query: { of: toValue(day) } } })),
    enabled: computed(() => toValue(day) !== undefined),
  });

/** Whose dues cost least to let go of, while that is wished for. */
export const useGiven = (
  of: MaybeRefOrGetter<string | undefined>,
  wished: MaybeRefOrGetter<boolean>,
) =>
  useQuery({
    queryKey: computed(() => ["view", "give", toValue(of)]),
    queryFn: () =>
      ask(() => client.GET("/api/week/give", { params: { query: { of: toValue(of) } } })),
    enabled: computed(() => toValue(wished)),
    placeholderData: (before) => before,
  });

/** Gives one date hours of its own; null gives back those of its weekday. */
export function useHoursOn() {
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();
  return (day: string, hours: string | null) =>
    actions.attempt(async () => {
      const done = await send((header) =>
        client.POST("/api/week/hours", { params: { header }, body: { day, hours } }),
      );
      if (!done.change.revision) return;
      server.refresh(done.change.revision, []);
      toasts.show({ text: done.change.says, undo: done.change.revision });
    });
}

/** Makes subtasks of one that is too long for a day. */
export function useSplit() {
  const actions = useActions();
  return (id: string, parts: number) =>
    actions.attempt(async () =>
      actions.took(
        await send((header) =>
          client.POST("/api/todos/{id}/split", {
            params: { path: { id }, header },
            body: { parts },
          }),
        ),
      ),
    );
}

/** Plans many at once, each for a day of its own: one change, one undo. */
export function usePlanEach() {
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();
  return (plans: { id: string; plan: string }[]) =>
    actions.attempt(async () => {
      const done = await send((header) =>
        client.POST("/api/plans", { params: { header }, body: { plans } }),
      );
      if (done.change.revision) server.refresh(done.change.revision, done.todos);
      toasts.show({ text: done.change.says, undo: done.change.revision || undefined });
      return true;
    });
}
