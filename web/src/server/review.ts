import { useQuery } from "@tanstack/vue-query";
import { computed, type MaybeRefOrGetter, toValue } from "vue";
import { useToasts } from "@/kit/toasts";
import type { Walk } from "@/words/review";
import { useActions } from "./actions";
import { ask, client, send } from "./client";
import { useServer } from "./server";

/** A walk's steps with their counts, and the rows from one on. It follows each change. */
export const useReview = (
  walk: MaybeRefOrGetter<Walk | undefined>,
  offset: MaybeRefOrGetter<number>,
) =>
  useQuery({
    queryKey: computed(() => ["view", "review", toValue(walk), toValue(offset)]),
    queryFn: () =>
      ask(() =>
        client.GET("/api/review/{walk}", {
          params: {
            path: { walk: toValue(walk) ?? "daily" },
            query: { offset: toValue(offset), limit: 1000 },
          },
        }),
      ),
    enabled: computed(() => toValue(walk) !== undefined),
    placeholderData: (before) => before,
  });

/** Notes that a walk was gone through. */
export function useFinishReview() {
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();
  return (walk: Walk, body: { decided: number; minutes: number }) =>
    actions.attempt(async () => {
      const done = await send((header) =>
        client.POST("/api/review/{walk}", { params: { path: { walk }, header }, body }),
      );
      if (done.change.revision) server.refresh(done.change.revision, []);
      toasts.show({ text: done.change.says, undo: done.change.revision || undefined });
      return true;
    });
}
