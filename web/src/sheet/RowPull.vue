<script setup lang="ts">
import { computed } from "vue";
import { pullFar } from "@/state/touch-lift";

/** What a pull of a row will do, where the row was; heavier once it will be done. */
const props = defineProps<{ pulled: number; ticked: boolean }>();
const right = computed(() => props.pulled > 0);
const far = computed(() => Math.abs(props.pulled) >= pullFar);
const words = computed(() => (right.value ? (props.ticked ? "Open again" : "Tick") : "Plan, bin…"));
</script>

<template>
  <span
    class="pull"
    :class="{ right, far }"
    :style="{ width: `${Math.abs(pulled)}px` }"
    aria-hidden="true"
    >{{ words }}</span
  >
</template>

<style scoped>
.pull {
  position: absolute;
  top: 0;
  bottom: 0;
  left: 100%;
  display: flex;
  align-items: center;
  justify-content: flex-start;
  padding: 0 14px;
  overflow: hidden;
  background: var(--wash);
  color: var(--rim);
  white-space: nowrap;
}
.right {
  right: 100%;
  left: auto;
  justify-content: flex-end;
}
.far {
  background: var(--rim);
  color: var(--glaze);
  font-weight: 600;
}
</style>
