import { useEventListener } from "@vueuse/core";

/** How long the pointer has to be still before what it may be on its way to moves, in milliseconds. */
const rest = 700;
/** How long anything waits for that at the most, where it has an end, in milliseconds. */
export const patience = 2000;

let stirred = -Infinity;

/** The pointer has moved or pressed. */
export function stir() {
  stirred = Date.now();
}

/** Follows the pointer, for as long as the page lives. */
export function usePointerRest() {
  useEventListener(document, ["pointerdown", "pointermove"], stir, {
    capture: true,
    passive: true,
  });
}

/** How long it will be until the pointer has rested, in milliseconds; 0 when it has. */
export const unrest = () => Math.max(0, stirred + rest - Date.now());
