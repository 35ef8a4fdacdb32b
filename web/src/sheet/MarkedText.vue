<script setup lang="ts">
import { computed } from "vue";

/** A text with what was found in it marked. */
const props = defineProps<{ text: string; spans?: { start: number; end: number }[] }>();
const parts = computed(() => {
  const out: { text: string; hit: boolean }[] = [];
  let at = 0;
  for (const { start, end } of props.spans ?? []) {
    if (start < at || end > props.text.length) continue;
    out.push({ text: props.text.slice(at, start), hit: false });
    out.push({ text: props.text.slice(start, end), hit: true });
    at = end;
  }
  out.push({ text: props.text.slice(at), hit: false });
  return out.filter((p) => p.text);
});
</script>

<template>
  <span>
    <component :is="p.hit ? 'mark' : 'span'" v-for="(p, i) in parts" :key="i">{{
      p.text
    }}</component>
  </span>
</template>

<style scoped>
mark {
  background: none;
  color: inherit;
  font-weight: 700;
  text-decoration: underline;
  text-decoration-color: var(--rim);
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
}
</style>
