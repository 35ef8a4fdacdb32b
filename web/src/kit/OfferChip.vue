<script setup lang="ts">
/** A value that words might mean; a press takes it. */
defineProps<{ label: string | undefined; value: string }>();
</script>

<template>
  <button class="offer">
    <span class="label">{{ label }}</span> {{ value }}?
    <slot />
  </button>
</template>

<style scoped>
.offer {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
  padding: 0 8px;
  border: 1px dashed var(--pencil);
  border-radius: var(--corner);
  color: var(--pencil);
  text-align: left;
  cursor: pointer;
}
.offer:hover,
.offer:focus-visible {
  background: var(--wash);
  color: var(--rim);
}

.label {
  font-size: 13px;
}
@media (pointer: coarse) {
  .offer {
    min-height: 40px;
  }
}
</style>
