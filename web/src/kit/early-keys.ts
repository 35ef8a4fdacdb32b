import { nextTick, onBeforeUnmount, onMounted, watch } from "vue";

/**
 * Keeps what is typed between the moment something opens and the moment it has the
 * focus, and then hands it over: the keys are meant for what opens, and neither for
 * the button that opened it nor for the row behind it. `Escape` and keys with Ctrl,
 * Alt or Meta pass.
 * @param open what is open, another value for each opening, or undefined
 * @param inside whether an element belongs to it
 */
export function useEarlyKeys(open: () => unknown, inside: (el: Element) => boolean) {
  /** The keys that are kept, or undefined while nothing is opening. */
  let kept: string[] | undefined;
  watch(
    open,
    (now, before) => {
      // What opens once more is still the same to who types.
      if (!now) kept = undefined;
      else if (!before) kept = [];
    },
    { flush: "sync" },
  );

  function down(e: KeyboardEvent) {
    if (!kept || !e.isTrusted || e.isComposing || e.key === "Escape") return;
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    e.preventDefault();
    e.stopImmediatePropagation();
    kept.push(e.key);
  }

  async function focused(e: FocusEvent) {
    if (!kept || !(e.target instanceof Element) || !inside(e.target)) return;
    const keys = kept;
    kept = undefined;
    for (const key of keys) {
      // What one key changes is drawn before the next: Enter takes what is then found.
      await nextTick();
      // The key before may have opened another, which has the rest once it is there.
      const next = kept as string[] | undefined;
      if (next) next.push(key);
      else if (open()) press(key);
    }
  }

  onMounted(() => {
    document.addEventListener("keydown", down, true);
    document.addEventListener("focusin", focused);
  });
  onBeforeUnmount(() => {
    document.removeEventListener("keydown", down, true);
    document.removeEventListener("focusin", focused);
  });
}

/** A letter or digit pressed on a layer, or a button of it, begins in its line for words. */
export function beginInWords(e: KeyboardEvent) {
  if (e.key.length !== 1 || e.key === " " || e.ctrlKey || e.altKey || e.metaKey) return;
  if (!(e.currentTarget instanceof Element)) return;
  if (e.target !== e.currentTarget && !(e.target instanceof HTMLButtonElement)) return;
  e.currentTarget.querySelector<HTMLInputElement>(".say input, [role=combobox]")?.focus();
}

/** The button that a layer gave the focus to, until the person has moved on from it. */
let given: Element | undefined;

/**
 * A space does not press the button that has the focus only because a layer has opened
 * there: it is likelier to be one between two words.
 */
export function withoutSpace(e: KeyboardEvent) {
  if (e.target !== given) given = undefined;
  if (e.key === " " && given) e.preventDefault();
}

/** Gives a button of a layer the focus that nobody asked for. */
export function giveFocus(to: HTMLElement | null | undefined) {
  to?.focus();
  given = to instanceof HTMLButtonElement ? to : undefined;
}

/** Does with the focused element what the key would have done there. */
function press(key: string) {
  const event = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true });
  if (!document.activeElement?.dispatchEvent(event)) return;
  // The key may have moved the focus to where it belongs.
  const el = document.activeElement;
  if (el instanceof HTMLButtonElement && (key === "Enter" || key === " ")) el.click();
  else if (
    (el instanceof HTMLInputElement && el.type === "text") ||
    (el instanceof HTMLTextAreaElement && el.role === "combobox")
  ) {
    const [from, to] = [el.selectionStart ?? 0, el.selectionEnd ?? 0];
    if (key === "Enter") el.form?.requestSubmit();
    if (key === "Backspace") el.setRangeText("", from === to ? Math.max(0, from - 1) : from, to);
    else if (key.length === 1) el.setRangeText(key, from, to, "end");
    else return;
    el.dispatchEvent(new InputEvent("input", { bubbles: true }));
  }
}
