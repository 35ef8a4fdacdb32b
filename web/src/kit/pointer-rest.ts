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

/** Follows the pointer, for as long as the page lives. */
export function usePointerRest() {
  useEventListener(document, ["pointerdown", "pointermove", "pointerup"], stir, {
    capture: true,
    passive: true,
  });
}

/** How long it will be until the pointer has rested, in milliseconds; 0 when it has. */
export const unrest = () => Math.max(0, rested - Date.now());
