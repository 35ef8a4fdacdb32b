import { onBeforeUnmount, shallowReactive } from "vue";

/** The layers that are there, the topmost last. */
const open = shallowReactive<{ layer: string }[]>([]);

/** Counts a component as an open layer for as long as it lives. */
export function useLayer(layer: string) {
  const entry = { layer };
  open.push(entry);
  onBeforeUnmount(() => open.splice(open.indexOf(entry), 1));
}

/** The topmost of the layers that are there. */
export const topLayer = () => open.at(-1)?.layer;

/** Whether keys pressed on an element belong to what floats there, and not to the page. */
export const inLayer = (el: EventTarget | null) =>
  el instanceof Element && el.closest("[data-layer]") !== null;
