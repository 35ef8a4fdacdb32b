import { readonly, ref, watch } from "vue";

/** How long what has just moved takes no press, in milliseconds: as long as a double click. */
export const settlesFor = 400;

/**
 * True for a moment after `order` has changed: what moves under the pointer is not what the
 * person means to press.
 */
export function useSettling(order: () => string) {
  const settling = ref(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  watch(order, (_, before) => {
    if (!before) return; // there was nothing that could have moved
    settling.value = true;
    clearTimeout(timer);
    timer = setTimeout(() => (settling.value = false), settlesFor);
  });
  return readonly(settling);
}
