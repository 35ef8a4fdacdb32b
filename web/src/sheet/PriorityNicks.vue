<script setup lang="ts">
import { computed } from "vue";
import type { Priority } from "@/server/client";

/** Priority is cut, not coloured: bites out of a thin edge, as on a tally stick. */
const props = defineProps<{ priority: Priority }>();
const count = computed(() => ({ none: 0, low: 1, medium: 2, high: 3 })[props.priority]);

/** The edge is 6 px wide; each bite opens to the row and points into the edge. */
const cut = computed(() => {
  const [wide, deep, half, gap, middle] = [6, 4.5, 4, 11, 20];
  const bites = Array.from({ length: count.value }, (_, i) => {
    const y = middle + (i - (count.value - 1) / 2) * gap;
    return `${wide}px ${y - half}px, ${wide - deep}px ${y}px, ${wide}px ${y + half}px`;
  });
  return `polygon(0 0, 100% 0, ${bites.join(", ")}, 100% 100%, 0 100%)`;
});
</script>

<template>
  <span v-if="count" class="nicks" :style="{ clipPath: cut }" aria-hidden="true" />
</template>

<style scoped>
.nicks {
  position: absolute;
  top: 0;
  bottom: 0;
  left: 0;
  width: 6px;
  background: var(--rim);
  print-color-adjust: exact;
}
</style>
