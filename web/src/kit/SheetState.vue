<script setup lang="ts">
import CupGlyph from "./CupGlyph.vue";

/** A sheet without rows: empty, or failed, said in words. */
defineProps<{ title: string; text: string; level?: number }>();
</script>

<template>
  <div class="state">
    <CupGlyph :level="level ?? 0" :size="64" />
    <h2>{{ title }}</h2>
    <p>{{ text }}</p>
    <slot />
  </div>
</template>

<style scoped>
.state {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 8px;
  max-width: 420px;
  margin: 72px auto 0;
  text-align: center;
}
h2 {
  margin-top: 8px;
  font-size: 18px;
}
p {
  color: var(--pencil);
}
</style>
