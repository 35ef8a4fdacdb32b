import { defineStore } from "pinia";
import { ref } from "vue";

/** A further offer beside undo. */
export interface Also {
  name: string;
  act: () => void;
}

export interface Toast {
  id: number;
  text: string;
  /** The change that its button undoes. */
  undo?: number;
  also?: Also;
  trouble?: boolean;
  /** Only the latest of a sort is shown. */
  sort?: string;
}

const shownFor = 8000;

/** Sentences that float by: what was done, or why it was not. */
export const useToasts = defineStore("toasts", () => {
  const toasts = ref<Toast[]>([]);
  let next = 1;

  function show(toast: Omit<Toast, "id">) {
    const id = next++;
    const others = toasts.value.filter((t) => !toast.sort || t.sort !== toast.sort);
    toasts.value = [...others.slice(-2), { ...toast, id }];
    setTimeout(() => dismiss(id), shownFor);
  }
  function dismiss(id: number) {
    toasts.value = toasts.value.filter((t) => t.id !== id);
  }
  /** Takes away offers to undo what is undone by now. */
  function settle(revision: number) {
    toasts.value = toasts.value.filter((t) => t.undo !== revision);
  }
  return { toasts, show, dismiss, settle };
});
