import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import type { Some } from "@/server/bell";

/** What of the bell is open, and whether the browser keeps its sounds off. */
export const useBellState = defineStore("bell", () => {
  /** The list hangs on the bell. */
  const open = ref(false);
  /** Rings that are being put off, and where the choice of a time hangs. */
  const later = shallowRef<{ rings: Some; at: HTMLElement }>();
  /** The browser plays nothing until something is pressed in this window. */
  const mute = ref(false);
  return { open, later, mute };
});
