<script setup lang="ts">
/** What words might mean, which a press takes. */
defineProps<{ label: string | undefined; value: string }>();
</script>

<template>
  <button class="offer">
    <span>{{ label }}</span> {{ value }}?
  </button>
</template>

<style scoped>
.offer {
  min-height: 24px;
  padding: 0 8px;
  border: 1px dashed var(--pencil);
  border-radius: var(--corner);
  color: var(--pencil);
  font-size: 14px;
  text-align: left;
  cursor: pointer;
}
.offer:hover,
.offer:focus-visible {
  background: var(--wash);
  color: var(--rim);
}
span {
  font-size: 13px;
}
@media (pointer: coarse) {
  .offer {
    min-height: 40px;
  }
}
</style>
