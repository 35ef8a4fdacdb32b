import { useMediaQuery } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, watchEffect } from "vue";
import { useTheme } from "vuetify";
import { useSettings } from "@/server/choose";
import { inForce } from "@/server/in-force";

/**
 * Light or dark: the system's wish, until the person says otherwise. And whether
 * rows of Ready say why they stand where they do, and how near is urgent in a
 * two-by-two.
 */
export const useLook = defineStore("look", () => {
  const { choose } = useSettings();
  const system = useMediaQuery("(prefers-color-scheme: dark)");
  const dark = computed(() => (inForce.look === "system" ? system.value : inForce.look === "dark"));
  const theme = useTheme();
  watchEffect(() => theme.change(dark.value ? "iron" : "enamel"));

  watchEffect(() => (document.documentElement.dataset.rows = inForce.rows));

  const turn = () => choose({ look: dark.value ? "light" : "dark" }, true);
  const reasons = computed(() => inForce.reasons === "shown");
  const turnReasons = () => choose({ reasons: reasons.value ? "hidden" : "shown" }, true);
  const urgentDays = computed(() => Number(inForce.urgentDays));
  const setUrgentDays = (days: number) => choose({ urgentDays: String(days) }, true);
  return { dark, turn, reasons, turnReasons, urgentDays, setUrgentDays };
});
