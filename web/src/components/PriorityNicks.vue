<script setup lang="ts">
import { computed } from "vue";
import type { Priority } from "@/api/client";

/** Priority is cut, not coloured: bites out of a thin edge, as on a tally stick. */
const props = defineProps<{ priority: Priority }>();
const count = computed(() => ({ none: 0, low: 1, medium: 2, high: 3 })[props.priority]);

/** The edge is 6 wide and 40 high; each bite opens to the row and points into the edge. */
const edge = computed(() => {
  const [deep, half, gap] = [4.5, 4, 11];
  const bites = Array.from({ length: count.value }, (_, i) => {
    const y = 20 + (i - (count.value - 1) / 2) * gap;
    return `V${y - half} L${6 - deep} ${y} L6 ${y + half}`;
  });
  return `M0 0 H6 ${bites.join(" ")} V40 H0 Z`;
});
</script>

<template>
  <svg v-if="count" class="nicks" width="6" height="40" viewBox="0 0 6 40" aria-hidden="true">
    <path :d="edge" />
  </svg>
</template>

<style scoped>
.nicks {
  position: absolute;
  top: 0;
  left: 0;
  fill: var(--rim);
}
</style>
