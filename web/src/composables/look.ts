import { useMediaQuery } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, watchEffect } from "vue";
import { useTheme } from "vuetify";
import { own } from "@/server/account";

const place = own("look");
type Choice = "light" | "dark" | null;

const reasonsPlace = own("reasons");
const urgentPlace = own("urgent-days");

/**
 * Light or dark: the system's wish, until the person says otherwise. And whether
 * rows of Ready say why they stand where they do, and how near is urgent in a
 * two-by-two.
 */
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
  const reasons = ref(localStorage.getItem(reasonsPlace) === "shown");
  function turnReasons() {
    reasons.value = !reasons.value;
    localStorage.setItem(reasonsPlace, reasons.value ? "shown" : "hidden");
  }
  const urgentDays = ref(Number(localStorage.getItem(urgentPlace)) || 3);
  function setUrgentDays(days: number) {
    urgentDays.value = days;
    localStorage.setItem(urgentPlace, String(days));
  }
  return { dark, turn, reasons, turnReasons, urgentDays, setUrgentDays };
});
