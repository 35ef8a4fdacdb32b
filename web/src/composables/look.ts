import { useMediaQuery } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, watchEffect } from "vue";
import { useTheme } from "vuetify";

const place = "tincup-look";
type Choice = "light" | "dark" | null;

/** Light or dark: the system's wish, until the person says otherwise. */
export const useLook = defineStore("look", () => {
  const system = useMediaQuery("(prefers-color-scheme: dark)");
  const choice = ref(localStorage.getItem(place) as Choice);
  const dark = computed(() => (choice.value ? choice.value === "dark" : system.value));
  const theme = useTheme();

  watchEffect(() => theme.change(dark.value ? "iron" : "enamel"));
  function turn() {
    choice.value = dark.value ? "light" : "dark";
    localStorage.setItem(place, choice.value);
  }
  return { dark, turn };
});
