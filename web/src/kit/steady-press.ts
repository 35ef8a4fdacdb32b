import { useEventListener } from "@vueuse/core";

/** How far a pointer may stray between going down and coming up, in pixels. */
const strays = 10;

/**
 * A press counts for the control it began on, also when what lies under the pointer has
 * moved before it is let go: the rail folds, a row leaves the sheet. The browser sends such
 * a click to what holds both, which would mean something else.
 */
export function useSteadyPress() {
  let begun: { control: HTMLElement; x: number; y: number } | undefined;
  const early = { capture: true };
  useEventListener(
    document,
    "pointerdown",
    (e: PointerEvent) => {
      const control = e.target instanceof Element && e.target.closest("button");
      begun = control && e.isPrimary ? { control, x: e.clientX, y: e.clientY } : undefined;
    },
    early,
  );
  useEventListener(
    document,
    "click",
    (e: MouseEvent) => {
      const from = begun;
      begun = undefined;
      if (!from || !e.isTrusted || !e.detail || !(e.target instanceof Element)) return;
      const stayed = Math.hypot(e.clientX - from.x, e.clientY - from.y) <= strays;
      if (from.control.contains(e.target) || !from.control.isConnected || !stayed) return;
      e.stopPropagation();
      e.preventDefault();
      from.control.click();
    },
    early,
  );
}
