import { computed, onBeforeUnmount, onMounted } from "vue";
import type { Overview } from "@/server/client";
import { inForce } from "@/server/in-force";
import { useCurrent } from "./current";
import { inLayer } from "@/kit/layers";
import { useOpenLayer } from "./open-layer";

/** Whether single keys act; some people's speech or hands set them off unasked. */
const singleKeys = computed(() => inForce.singleKeys === "on");

/** Keys that every page may use, with single keys on or off. */
const plain = /^(Ctrl\+|Alt\+|(Shift\+)?Arrow|Enter$|Escape$| $)/;

function inField(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** A press: "n", "Shift+P", "Ctrl+Shift+Z", "Shift+1", "ArrowDown". */
export function pressOf(e: KeyboardEvent): string {
  const digit = /^(?:Digit|Numpad)(\d)$/.exec(e.code)?.[1];
  const letter = e.key.length === 1 ? e.key.toUpperCase() : e.key;
  let key = digit ?? letter;
  if (!digit && e.key.length === 1 && !e.shiftKey && !e.ctrlKey && !e.metaKey) key = e.key;
  const sign = e.key.length === 1 && !digit && !/[a-z]/i.test(e.key);
  const parts = [e.ctrlKey || e.metaKey ? "Ctrl" : "", e.altKey ? "Alt" : ""];
  if (e.shiftKey && !sign) parts.push("Shift");
  return [...parts.filter(Boolean), sign ? e.key : key].join("+");
}

/** The cup of the rail that a digit stands for: the days, two weeks, and 0 for parked. */
export const cupOfDigit = (overview: Overview | undefined, digit: string) =>
  digit === "0" ? overview?.rail.at(-1) : overview?.rail[Number(digit) - 1];

/**
 * Hands key presses outside fields to `act`, until one is taken. While something is open
 * above the page (layers.ts), and in a message that has the focus, there are none.
 */
export function useKeys(act: (press: string, e: KeyboardEvent) => boolean) {
  const current = useCurrent();
  const openLayer = useOpenLayer();
  function down(e: KeyboardEvent) {
    if (e.defaultPrevented || e.isComposing) return;
    if (inField(e.target) || inLayer(e.target)) return;
    const press = pressOf(e);
    if (openLayer()) {
      // What is not drawn yet hears only these two.
      if (press === "Escape") current.chooser = undefined;
      if (press === "Enter" && current.makingRoom) current.makingRoom.wished = true;
      return;
    }
    if (!singleKeys.value && !plain.test(press)) return;
    if (act(press, e)) e.preventDefault();
  }
  onMounted(() => document.addEventListener("keydown", down));
  onBeforeUnmount(() => document.removeEventListener("keydown", down));
}
