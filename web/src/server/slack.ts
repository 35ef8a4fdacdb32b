import { useQuery } from "@tanstack/vue-query";
import { computed, toValue, type MaybeRefOrGetter } from "vue";
import { ask, client, type Todo } from "./client";

/**
 * The room that a to-do has until its due, or until one that is being chosen, with its own
 * minutes of work or such as are being chosen. It is asked
 * for again with every change, as what a slip shows of other to-dos is.
 */
export function useSlack(
  todo: MaybeRefOrGetter<Todo | undefined>,
  due: MaybeRefOrGetter<string | null | undefined> = undefined,
  minutes: MaybeRefOrGetter<number | null | undefined> = undefined,
) {
  const asked = computed(() => {
    const of = toValue(todo);
    const when = toValue(due);
    return of && (when || of.due || of.parent)
      ? {
          id: of.id,
          when: when || undefined,
          takes: toValue(minutes) || undefined,
          at: of.revision,
        }
      : undefined;
  });
  const { data } = useQuery({
    queryKey: computed(() => ["todo", asked.value?.id, "inside", "slack", asked.value] as const),
    queryFn: () =>
      ask(() =>
        client.GET("/api/todos/{id}/slack", {
          params: {
            path: { id: asked.value!.id },
            query: { due: asked.value!.when, minutes: asked.value!.takes },
          },
        }),
      ),
    enabled: computed(() => asked.value !== undefined),
  });
  return computed(() => (asked.value ? data.value : undefined));
}
