import { defineStore } from "pinia";
import { ref } from "vue";
import { unrest } from "@/kit/pointer-rest";
import type { Todo } from "./client";
import { putBack } from "./put-back";
import type { SheetGroup } from "./queries";

/** How long ticked rows stay struck where they are after the last tick, in milliseconds. */
const stay = 4000;

interface Kept {
  state: "completed" | "open";
  until: number;
  /** The change that ticked a repeat, which is open again at its next date. */
  tick?: number;
}

/**
 * Rows just ticked: they stay, struck, for a moment after the last tick, longer under pointer
 * or focus and while the pointer is on its way: none is to move from under a press.
 */
export const useLinger = defineStore("linger", () => {
  const kept = ref(new Map<string, Kept>());
  const held = ref<string>();

  function set(id: string, state: Kept["state"], tick?: number) {
    const before = kept.value.get(id);
    const until = Date.now() + stay;
    kept.value.set(id, { ...before, state, until, tick });
    for (const k of kept.value.values()) k.until = until;
    setTimeout(sweep, stay + 50);
  }
  function drop(id: string) {
    kept.value.delete(id);
  }
  function forget(ids: string[]) {
    ids.forEach(drop);
  }
  /** Pointer or focus is on this row. */
  function hold(id: string | undefined) {
    const before = held.value;
    held.value = id;
    if (before && before !== id) setTimeout(sweep, 400);
  }
  function sweep() {
    if (unrest() && kept.value.size) return void setTimeout(sweep, unrest());
    for (const [id, k] of kept.value) {
      if (Date.now() < k.until) continue;
      if (id === held.value) setTimeout(sweep, 500);
      else kept.value.delete(id);
    }
  }
  function struck(todo: Todo): boolean {
    const k = kept.value.get(todo.id);
    if (k) return k.state === "completed";
    return todo.status === "completed" || todo.status === "cancelled";
  }

  const tickOf = (id: string) => kept.value.get(id)?.tick;

  /** The server's groups with the rows that linger put back where they were. */
  const withKept = (groups: SheetGroup[], before: SheetGroup[]): SheetGroup[] =>
    kept.value.size ? putBack(groups, before, (id) => kept.value.get(id)?.state) : groups;

  return { set, drop, tickOf, forget, hold, struck, withKept, kept };
});
