import { computed, ref, toValue, watch, type MaybeRefOrGetter } from "vue";
import { useRoute, useRouter } from "vue-router";
import { Away, client, send } from "@/api/client";
import { useActions } from "./actions";
import { useServer } from "./server";

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
  const server = useServer();
  const slot = () => `tincup-line-${toValue(place)}`;
  const kept = ref(sessionStorage.getItem(slot()) ?? "");
  const reason = ref("");
  /** What waits for the server, with its key, so that it goes in once. */
  let waiting: { title: string; key: string; open: boolean } | undefined;

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
    const key = waiting?.title === title ? waiting.key : crypto.randomUUID();
    waiting = undefined;
    text.value = "";
    try {
      const made = await send(
        (header) =>
          client.POST("/api/todos", {
            params: { header },
            body: { title, priority: "none", ...toValue(into) },
          }),
        key,
      );
      actions.took(made);
      if (open) await router.push({ ...route, query: { ...route.query, slip: made.id } });
    } catch (e) {
      // What was typed meanwhile is not lost either.
      text.value = text.value ? `${title} ${text.value}` : title;
      if (e instanceof Away) {
        waiting = { title: text.value, key, open };
        reason.value = "The server is away. Your words stay here and go in when it is back.";
      } else reason.value = e instanceof Error ? e.message : "It could not be put in.";
    }
  }

  watch(
    () => server.away,
    (away) => {
      if (!away && waiting && waiting.title === text.value) void putIn(waiting.open);
    },
  );

  return { text, reason, putIn };
}
