import { defineStore } from "pinia";
import { useEventListener } from "@vueuse/core";
import { computed, ref } from "vue";

/** The rows chosen to do one thing to them all. */
export const useSelection = defineStore("selection", () => {
  const ids = ref(new Set<string>());
  /** Rows show a box to choose them by, and a click chooses. */
  const choosing = ref(false);
  /** Where a stretch of rows begins. */
  let anchor: string | undefined;
  /** Where a pointer went down that may be drawn over others. */
  let drawnFrom: string | undefined;
  useEventListener(window, ["pointerup", "pointercancel"], () => (drawnFrom = undefined), {
    capture: true,
  });

  function toggle(id: string) {
    if (!ids.value.delete(id)) ids.value.add(id);
    anchor = id;
  }
  /** Chooses every row from the anchor to one, in the order they are shown. */
  function stretch(id: string, shown: string[]) {
    const from = anchor ? shown.indexOf(anchor) : -1;
    const to = shown.indexOf(id);
    if (from < 0 || to < 0) return toggle(id);
    for (const between of shown.slice(Math.min(from, to), Math.max(from, to) + 1))
      ids.value.add(between);
  }
  /** A pointer goes down on a row. */
  function press(id: string) {
    drawnFrom = id;
  }
  /** A pointer that is down comes over a row: it takes along those between. A finger is over a row before it is down. */
  function draw(id: string, shown: string[]) {
    if (!drawnFrom || drawnFrom === id) return;
    anchor = drawnFrom;
    stretch(id, shown);
  }
  function add(more: string[]) {
    for (const id of more) ids.value.add(id);
  }
  function begin(id: string) {
    anchor = id;
  }
  function clear() {
    ids.value.clear();
    choosing.value = false;
    anchor = undefined;
  }
  const any = computed(() => ids.value.size > 0);
  const active = computed(() => any.value || choosing.value);
  return { ids, choosing, any, active, toggle, stretch, press, draw, add, begin, clear };
});
