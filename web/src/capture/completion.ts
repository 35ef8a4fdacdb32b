import { computed, type Ref, ref, watch } from "vue";
import type { Overview } from "@/server/client";

/** A name that would complete what is being typed. */
export interface Completion {
  name: string;
  /** The text with the name put in, and where the caret goes. */
  text: string;
  caret: number;
}

const most = 6;

/** Names of lists, tags and people that fit what stands before the caret. */
export function useCompletion(
  text: Ref<string>,
  caret: Ref<number>,
  overview: Ref<Overview | undefined>,
) {
  const at = ref(-1);
  const away = ref("");

  const found = computed<Completion[]>(() => {
    const before = text.value.slice(0, caret.value);
    const after = text.value.slice(caret.value);
    if (/^\S/.test(after) || away.value === text.value || !overview.value) return [];
    const tag = /(?:^|[\s,;])#([\p{L}][\p{L}\p{N}_/-]*)?$/u.exec(before);
    const list = /[,;]\s*in ([^,;]*)$/i.exec(before);
    const person = /[,;]\s*(?:ask|with|waiting on|for) ([^,;]*)$/i.exec(before);
    const [names, typed] = tag
      ? [overview.value.tags.map((t) => t.name), tag[1] ?? ""]
      : list
        ? [overview.value.shelves.flatMap((s) => s.lists.map((l) => l.name)), list[1] ?? ""]
        : person
          ? [overview.value.people.map((p) => p.name), person[1] ?? ""]
          : [[], ""];
    const wanted = typed.toLowerCase();
    const fits = (n: string) => n.toLowerCase().startsWith(wanted) && n.toLowerCase() !== wanted;
    return names
      .filter(fits)
      .slice(0, most)
      .map((name) => {
        const put = before.slice(0, before.length - typed.length) + name;
        return { name, text: put + after, caret: put.length };
      });
  });
  watch(found, () => (at.value = -1));

  const step = (by: number) => {
    const n = found.value.length;
    at.value = by > 0 ? (at.value + 1) % n : (at.value < 0 ? n : at.value) - 1;
  };
  /** Leaves what is typed as it is. */
  const dismiss = () => (away.value = text.value);

  return { found, at, step, dismiss };
}
