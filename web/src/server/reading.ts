import { onBeforeUnmount, shallowRef, watch, type Ref } from "vue";
import { ask, client, type Reading } from "./client";

/** How long a key waits for the next one before the sentence is read, in milliseconds. */
const pause = 25;

/** A reading, and the text it is of. */
export type Read = Reading & { text: string };

/**
 * What the server makes of a sentence while it is typed. Replies that come late
 * never take the place of newer ones, and what is shown stays until there is
 * better.
 */
export function useReading(text: Ref<string>) {
  const reading = shallowRef<Read>();
  let asked = 0;
  let shown = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function read() {
    timer = undefined;
    const nth = ++asked;
    const said = text.value;
    try {
      const answer = await ask(() => client.POST("/api/sentence", { body: { text: said } }));
      if (nth <= shown) return;
      shown = nth;
      reading.value = { ...answer, text: said };
    } catch {
      // Away, or not read: Enter says why.
    }
  }

  watch(
    text,
    (now) => {
      if (now.trim() === "") {
        clearTimeout(timer);
        timer = undefined;
        shown = asked; // nothing that is on its way counts any more
        reading.value = undefined;
      } else timer ??= setTimeout(() => void read(), pause);
    },
    { immediate: true },
  );
  onBeforeUnmount(() => clearTimeout(timer));
  return reading;
}

/**
 * The sentence that the first offer of another makes of it; itself where there is none or
 * the server is away, and undefined where something has to be chosen first.
 */
export async function offered(said: string): Promise<string | undefined> {
  try {
    const read = await ask(() => client.POST("/api/sentence", { body: { text: said } }));
    const [offer] = read.offers;
    return offer?.choose === undefined ? (offer?.taken ?? said) : undefined;
  } catch {
    return said;
  }
}

/** Puts other words in the place of a chip's; none takes them out with their comma. */
export function reword(
  text: string,
  spans: { start: number; end: number }[],
  words: string,
): string {
  let out = text;
  [...spans].reverse().forEach((span, nth, all) => {
    const first = nth === all.length - 1;
    let before = out.slice(0, span.start);
    const after = out.slice(span.end);
    if (first && words) out = before + words + after;
    else {
      before = before.replace(/[,;]?\s*$/, "");
      out = before + after.replace(/^\s+/, before && !/^[,;]/.test(after.trimStart()) ? " " : "");
    }
  });
  return out.replace(/^[\s,;]+/, "");
}
