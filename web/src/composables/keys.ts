import { onBeforeUnmount, onMounted, ref, watch } from "vue";
import { useAsk } from "./ask";
import { useCurrent } from "./current";
import { useMenu } from "./menu";

/** A key as it is written in the help, and what it does. */
export interface KeyHelp {
  keys: string[];
  does: string;
  group: "Everywhere" | "On a row" | "In a list" | "In columns" | "Many at once" | "Go to";
}

/** Every key that works, as `?` lists them. */
export const keyHelp: KeyHelp[] = [
  { group: "Everywhere", keys: ["n"], does: "put something in" },
  { group: "Everywhere", keys: ["/"], does: "search everything" },
  { group: "Everywhere", keys: ["f"], does: "narrow what is shown" },
  { group: "Everywhere", keys: ["Ctrl Z"], does: "undo the latest change of this window" },
  { group: "Everywhere", keys: ["Ctrl Shift Z"], does: "redo it" },
  { group: "Everywhere", keys: ["Esc"], does: "one step back" },
  { group: "Everywhere", keys: ["?"], does: "this list" },
  { group: "On a row", keys: ["j", "↓"], does: "next row" },
  { group: "On a row", keys: ["k", "↑"], does: "row before" },
  { group: "On a row", keys: ["Enter"], does: "open its slip" },
  { group: "On a row", keys: ["Space"], does: "tick, or take the tick back" },
  { group: "On a row", keys: ["e"], does: "edit the title in place" },
  { group: "On a row", keys: ["l"], does: "choose a list" },
  { group: "On a row", keys: ["d"], does: "choose the due" },
  { group: "On a row", keys: ["r"], does: "choose how it repeats" },
  { group: "On a row", keys: ["t"], does: "tags" },
  { group: "On a row", keys: ["p", "Shift P"], does: "priority up, down" },
  { group: "On a row", keys: ["1", "…", "7"], does: "plan for today and the next six days" },
  { group: "On a row", keys: ["8", "9", "0"], does: "plan for this week, next week, park" },
  { group: "On a row", keys: ["h"], does: "into today’s handful, or out" },
  { group: "On a row", keys: ["Delete"], does: "put in the bin" },
  { group: "In a list", keys: ["]", "["], does: "make a subtask of the row above, lift out" },
  { group: "In a list", keys: ["Alt ↑", "Alt ↓"], does: "move up, down" },
  { group: "In a list", keys: ["Alt →", "Alt ←"], does: "make a subtask, lift out" },
  { group: "In a list", keys: ["←", "→"], does: "fold subtasks away, show them" },
  { group: "In a list", keys: ["a"], does: "add below this row" },
  { group: "In a list", keys: ["Shift A"], does: "add a subtask" },
  { group: "In columns", keys: ["←", "→"], does: "to the card beside" },
  { group: "In columns", keys: ["Alt ←", "Alt →"], does: "move it to the column beside" },
  { group: "Many at once", keys: ["x"], does: "choose a row, or let it go" },
  { group: "Many at once", keys: ["Shift ↓", "Shift ↑"], does: "choose the next rows too" },
  { group: "Many at once", keys: ["s"], does: "make room: postpone safely" },
  { group: "Go to", keys: ["Shift 1", "…"], does: "what stands in that cup" },
  { group: "Go to", keys: ["g c"], does: "the Cup" },
  { group: "Go to", keys: ["g t"], does: "Today" },
  { group: "Go to", keys: ["g o"], does: "Overdue" },
  { group: "Go to", keys: ["g u"], does: "Upcoming" },
  { group: "Go to", keys: ["g w"], does: "Within a week" },
  { group: "Go to", keys: ["g r"], does: "Ready" },
  { group: "Go to", keys: ["g a"], does: "Waiting" },
  { group: "Go to", keys: ["g p"], does: "Projects" },
  { group: "Go to", keys: ["g d"], does: "Done" },
  { group: "Go to", keys: ["g h"], does: "History" },
  { group: "Go to", keys: ["g b"], does: "Bin" },
];

const place = "tincup-single-keys";

/** Whether single keys act; some people's speech or hands set them off unasked. */
export const singleKeys = ref(localStorage.getItem(place) !== "off");
watch(singleKeys, (on) => localStorage.setItem(place, on ? "on" : "off"));

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

/**
 * Hands key presses outside fields to `act`, until one is taken. A press that
 * something nearer has taken, or that a field or an open menu owns, stays there.
 */
export function useKeys(act: (press: string, e: KeyboardEvent) => boolean) {
  const current = useCurrent();
  const asking = useAsk();
  const menus = useMenu();
  function down(e: KeyboardEvent) {
    if (e.defaultPrevented || e.isComposing) return;
    if (inField(e.target)) return;
    if (e.target instanceof HTMLElement && e.target.closest(".v-overlay__content, dialog")) return;
    const press = pressOf(e);
    // An open chooser is about to take the focus: what is typed is meant for it.
    if (current.chooser && press !== "Escape") return;
    if (asking.question || menus.menu) return;
    if (current.makingRoom) {
      if (press === "Enter") current.makingRoom.wished = true;
      return;
    }
    if (!singleKeys.value && !plain.test(press)) return;
    if (act(press, e)) e.preventDefault();
  }
  onMounted(() => document.addEventListener("keydown", down));
  onBeforeUnmount(() => document.removeEventListener("keydown", down));
}
