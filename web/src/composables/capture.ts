import { computed, ref, toValue, type MaybeRefOrGetter } from "vue";
import { useRoute, useRouter } from "vue-router";
import { Away, client, send } from "@/api/client";
import { useActions } from "./actions";

/** What a to-do gets besides its title where it is put in. */
export interface Into {
  list?: string;
  plan?: string;
}

/**
 * A line that puts to-dos in. Its text outlives a reload, is cleared as soon
 * as Enter is pressed, and comes back with the reason when it is refused.
 */
export function useCapture(place: MaybeRefOrGetter<string>, into: MaybeRefOrGetter<Into> = {}) {
  const actions = useActions();
  const router = useRouter();
  const route = useRoute();
  const slot = () => `tincup-line-${toValue(place)}`;
  const kept = ref(sessionStorage.getItem(slot()) ?? "");
  const reason = ref("");

  const text = computed({
    get: () => kept.value,
    set(value) {
      kept.value = value;
      reason.value = "";
      sessionStorage.setItem(slot(), value);
    },
  });

  async function putIn(open: boolean) {
    const title = text.value;
    if (title.trim() === "") return;
    text.value = "";
    try {
      const made = await send((header) =>
        client.POST("/api/todos", {
          params: { header },
          body: { title, priority: "none", ...toValue(into) },
        }),
      );
      actions.took(made);
      if (open) await router.push({ ...route, query: { ...route.query, slip: made.id } });
    } catch (e) {
      // What was typed meanwhile is not lost either.
      text.value = text.value ? `${title} ${text.value}` : title;
      reason.value =
        e instanceof Away
          ? "The server is away. Your words stay here; press Enter when it is back."
          : e instanceof Error
            ? e.message
            : "It could not be put in.";
    }
  }

  return { text, reason, putIn };
}
