import { onBeforeUnmount, shallowReactive } from "vue";
import { useAsk } from "./ask";
import type { Layer } from "@/words/layers";
import { useCurrent } from "./current";
import { useMenu } from "./menu";

/** The layers that are there, the topmost last. */
const open = shallowReactive<{ layer: Layer }[]>([]);

/** Counts a component as an open layer for as long as it lives. */
export function useLayer(layer: Layer) {
  const entry = { layer };
  open.push(entry);
  onBeforeUnmount(() => open.splice(open.indexOf(entry), 1));
}

/**
 * What is open, from the press that opened it on: what a layer is made of may be loading
 * still. The page's keys act only while it is undefined.
 */
export function useOpenLayer(): () => Layer | undefined {
  const current = useCurrent();
  const asking = useAsk();
  const menus = useMenu();
  function wanted(): Layer | undefined {
    if (current.chooser) return current.chooser.kind;
    if (menus.menu) return "menu";
    if (asking.question) return "ask";
    if (current.makingRoom) return "make-room";
    if (current.finding) return "finder";
    if (current.helping) return "keys";
    return current.pasted === undefined ? undefined : "paste";
  }
  return () => wanted() ?? open.at(-1)?.layer;
}

/** Whether keys pressed on an element belong to what floats there, and not to the page. */
export const inLayer = (el: EventTarget | null) =>
  el instanceof Element && el.closest("[data-layer]") !== null;
