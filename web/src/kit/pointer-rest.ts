import { useEventListener } from "@vueuse/core";

/**
 * How long the pointer has to be still before what it may be on its way to moves, in milliseconds, and how long
 * a finger must have touched nothing, which says nothing of where it is on its way to.
 */
const [rest, fingerRest] = [700, 1000];
/** How long anything waits for that at the most, where it has an end, in milliseconds. */
export const patience = 2000;

let rested = -Infinity;

/** The pointer has moved or pressed, or a finger has touched something. */
export function stir(e?: { pointerType: string }) {
  const finger = e?.pointerType === "touch";
  rested = Date.now() + (finger ? fingerRest : rest);
}

let keyed = -Infinity;

/** Whether keys were used since the pointer last moved. */
export const byKeys = () => keyed > rested - rest;

/** Follows the pointer and the keys, for as long as the page lives. */
export function usePointerRest() {
  const heard = { capture: true, passive: true };
  useEventListener(document, ["pointerdown", "pointermove", "pointerup"], stir, heard);
  useEventListener(document, "keydown", () => (keyed = Date.now()), heard);
  // While the browser drags something no pointer moves.
  useEventListener(document, ["dragstart", "dragover"], () => stir(), heard);
}

/** How long it will be until the pointer has rested, in milliseconds; 0 when it has. */
export const unrest = () => Math.max(0, rested - Date.now());
