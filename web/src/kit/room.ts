import { onBeforeUnmount, readonly, ref, watch } from "vue";
import { unrest } from "./pointer-rest";

/**
 * Whether the page has made room for a line of its own. It makes room, and takes it back, when the
 * pointer rests or a while after the last touch: nothing that one is about to press moves away.
 */
export function useRoom(wanted: () => boolean) {
  const room = ref(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  function settle() {
    clearTimeout(timer);
    if (wanted() === room.value) return;
    const wait = unrest();
    if (wait) timer = setTimeout(settle, wait);
    else room.value = wanted();
  }
  watch(wanted, settle, { immediate: true });
  onBeforeUnmount(() => clearTimeout(timer));
  return readonly(room);
}
