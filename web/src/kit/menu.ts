import { defineStore } from "pinia";
import { shallowRef } from "vue";

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
}

/** The one short list of things to do that is open. */
export const useMenu = defineStore("menu", () => {
  const menu = shallowRef<Menu>();
  return { menu };
});
