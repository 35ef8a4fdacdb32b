import { defineStore } from "pinia";
import { ref, watch } from "vue";
import { own } from "@/server/account";

const storedAs = own("folded");

/** The to-dos whose subtasks are folded away, remembered in this browser. */
export const useFolding = defineStore("folding", () => {
  const folded = ref(new Set<string>(read()));
  watch(folded, (now) => localStorage.setItem(storedAs, JSON.stringify([...now])), { deep: true });
  window.addEventListener("storage", (e) => {
    if (e.key === storedAs) folded.value = new Set(read());
  });

  function read(): string[] {
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(storedAs) ?? "[]");
      return Array.isArray(kept) ? kept.map(String) : [];
    } catch {
      return []; // written by something else
    }
  }
  function turn(id: string) {
    if (!folded.value.delete(id)) folded.value.add(id);
  }
  return { folded, turn };
});
