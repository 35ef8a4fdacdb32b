import { type Ref, ref, watch } from "vue";
import { ask, Away, client, type Said, type SaidRead } from "./client";

/**
 * The meaning of words for one field, read while they are typed: "Friday 4pm", "every weekday",
 * "1h30". Replies that come late never take the place of newer ones.
 */
export function useSaid(field: () => Said["field"], text: Ref<string>) {
  const found = ref<SaidRead>();
  /** Why they mean nothing; "" while they do, or while there are none. */
  const reason = ref("");
  let asked = 0;

  /** Reads the words as they stand; undefined where they mean nothing. */
  async function read(): Promise<SaidRead | undefined> {
    const nth = ++asked;
    const said = text.value.trim();
    if (!said) {
      found.value = undefined;
      reason.value = "";
      return undefined;
    }
    try {
      const answer = await ask(() =>
        client.POST("/api/when", { body: { field: field(), text: said } }),
      );
      const meant = answer.reason === undefined ? answer : undefined;
      if (nth === asked) [found.value, reason.value] = [meant, answer.reason ?? ""];
      return meant;
    } catch (e) {
      const why = e instanceof Error ? e.message : "It could not be read.";
      if (nth === asked)
        [found.value, reason.value] = [
          undefined,
          e instanceof Away ? "The server is away. Your words stay here." : why,
        ];
      return undefined;
    }
  }
  watch(text, () => void read());
  return { found, reason, read };
}
