<script setup lang="ts">
import { nextTick, shallowRef } from "vue";
import type { Overview } from "@/server/client";
import type { Narrowed, NarrowKind } from "./narrowing";
import LayerMenu from "@/kit/LayerMenu.vue";
import NarrowTo from "./NarrowTo.vue";

/** What a sheet is narrowed to, as words that can be taken away. */
const props = defineProps<{ overview: Overview; narrowed: Narrowed[] }>();
const emit = defineEmits<{
  narrow: [kind: NarrowKind, value: string];
  widen: [];
  save: [];
}>();
/** What the chooser hangs on, while it is open. */
const at = shallowRef<HTMLElement>();
async function close() {
  const back = at.value;
  at.value = undefined;
  await nextTick();
  back?.focus();
}
defineExpose({ open: (target: HTMLElement) => (at.value = target) });
const has = (kind: string, value: string) =>
  props.narrowed.some((n) => n.kind === kind && n.value === value);
</script>

<template>
  <div v-if="narrowed.length" class="narrow">
    <span v-for="n in narrowed" :key="`${n.kind} ${n.value}`" class="word">
      {{ n.words }}
      <button :aria-label="`Take “${n.words}” away`" @click="emit('narrow', n.kind, n.value)">
        ×
      </button>
    </span>
    <button class="btn quiet" @click="emit('widen')">Show all again</button>
    <button class="btn quiet" @click="emit('save')">Save what I see…</button>
  </div>
  <LayerMenu v-if="at" layer="narrow" :at="at" start @close="close">
    <NarrowTo
      :overview="overview"
      :has="has"
      @narrow="(kind, value) => emit('narrow', kind, value)"
    />
  </LayerMenu>
</template>

<style scoped>
.narrow {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin: 2px 0 8px;
}
.btn.quiet {
  color: var(--pencil);
}
.word {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  padding-left: 10px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
}
.word button {
  width: 26px;
  height: 26px;
  color: var(--pencil);
  cursor: pointer;
}
</style>
