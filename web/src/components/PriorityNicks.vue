<script setup lang="ts">
import { computed } from "vue";
import type { Priority } from "@/api/client";

/** Priority is cut, not coloured: nicks in the row's edge, as on a tally stick. */
const props = defineProps<{ priority: Priority }>();
const count = computed(() => ({ none: 0, low: 1, medium: 2, high: 3 })[props.priority]);
const ys = computed(() => {
  const gap = 11;
  return Array.from({ length: count.value }, (_, i) => 20 + (i - (count.value - 1) / 2) * gap);
});
</script>

<template>
  <svg v-if="count" class="nicks" width="9" height="40" viewBox="0 0 9 40" aria-hidden="true">
    <path v-for="y in ys" :key="y" :d="`M0 ${y - 4.5} L8.5 ${y} L0 ${y + 4.5} Z`" />
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
