import { defineStore } from "pinia";
import { shallowRef, watch } from "vue";

export interface MenuItem {
  name: string;
  act: () => unknown;
  /** A choice that is taken, or not. */
  checked?: boolean;
  /** A line stands above it. */
  apart?: boolean;
}

export interface Menu {
  label: string;
  items: MenuItem[];
  at: HTMLElement;
  /** The label is a question, which is read above the items. */
  asks?: boolean;
}

/** The one short list of things to do that is open. */
export const useMenu = defineStore("menu", () => {
  const menu = shallowRef<Menu>();
  /** Opens a further menu where the one hung from which it was chosen. */
  function further(label: string, items: MenuItem[]) {
    const at = last;
    if (at?.isConnected) menu.value = { label, items, at };
  }
  let last: HTMLElement | undefined;
  watch(menu, (now) => (last = now?.at ?? last), { flush: "sync" });
  return { menu, further };
});
