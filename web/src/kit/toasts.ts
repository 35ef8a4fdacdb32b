import { defineStore } from "pinia";
import { ref } from "vue";
import { patience, unrest } from "./pointer-rest";

/** A further offer beside undo. */
export interface Also {
  name: string;
  act: () => void;
  /** A link, in the place of a button. */
  href?: string;
}

export interface Toast {
  id: number;
  text: string;
  /** The change that its button undoes. */
  undo?: number;
  also?: Also;
  trouble?: boolean;
  /** Something is being done; it stays until that is over. */
  busy?: boolean;
  /** Only the latest of a sort is shown, and of what says the same and undoes nothing. */
  sort?: string;
}

const shownFor = 8000;
const aMoment = 400;
/** How often it is looked whether the pointer is on a message still, in milliseconds. */
const again = 500;

/** Sentences of what was done, or why it was not. */
export const useToasts = defineStore("toasts", () => {
  const toasts = ref<Toast[]>([]);
  let held: number | undefined;
  /** The page has no room for a message yet: none goes before it was seen. */
  let unseen = false;
  let next = 1;

  function show(toast: Omit<Toast, "id">) {
    const id = next++;
    const same = (t: Toast) =>
      toast.sort ? t.sort === toast.sort : !t.undo && t.text === toast.text;
    // A single message stands at a time; work that is still being done is said again when that has gone.
    const others = toasts.value.filter((t) => t.busy && !same(t));
    toasts.value = [...others.slice(-1), { ...toast, id }];
    if (!toast.busy) setTimeout(() => expire(id, Date.now()), shownFor);
    return id;
  }
  /** Says more in a message, if it still stands. */
  function add(id: number, more: string) {
    toasts.value = toasts.value.map((t) => (t.id === id ? { ...t, text: t.text + more } : t));
  }
  /**
   * Takes a message away, once pointer and focus are on none and the pointer rests: it may be
   * on its way to a button, and what is left moves.
   */
  function expire(id: number, since: number) {
    const on = unseen || toasts.value.some((t) => t.id === held);
    const wait = on ? again : Date.now() - since < patience ? unrest() : 0;
    if (wait) setTimeout(() => expire(id, since), wait);
    else dismiss(id);
  }
  /** Pointer or focus has come onto a message, or has left it. */
  function hold(id: number | undefined) {
    held = id;
  }
  /** The page waits with a message until the pointer rests, or shows it. */
  function keepBack(waits: boolean) {
    unseen = waits;
  }
  /** Says that something is being done, if it takes longer than a moment. */
  async function during<T>(text: string, work: () => Promise<T>): Promise<T> {
    let id: number | undefined;
    const timer = setTimeout(() => (id = show({ text, busy: true, sort: "busy" })), aMoment);
    try {
      return await work();
    } finally {
      clearTimeout(timer);
      if (id !== undefined) dismiss(id);
    }
  }
  function dismiss(id: number) {
    toasts.value = toasts.value.filter((t) => t.id !== id);
  }
  /** Takes away offers to undo what is undone by now. */
  function settle(revision: number) {
    toasts.value = toasts.value.filter((t) => t.undo !== revision);
  }
  return { toasts, show, add, during, dismiss, hold, keepBack, settle };
});
