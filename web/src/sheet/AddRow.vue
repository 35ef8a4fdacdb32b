<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from "vue";
import type { Row } from "@/server/client";
import { useCapture } from "@/capture/capture";
import { rowElement, useCurrent } from "@/state/current";
import { useReading } from "@/server/reading";
import ReadingChip from "@/capture/ReadingChip.vue";

/** A line below a row that puts in a sibling behind it, or a subtask under it. */
const props = defineProps<{ row: Row; inside: boolean }>();
const current = useCurrent();
const input = useTemplateRef("input");
const into = computed(() => {
  const t = props.row.todo;
  if (props.inside) return { parent: t.id };
  const after = lastPut.value ?? t.id;
  return t.parent ? { parent: t.parent, after } : { list: t.list, section: t.section, after };
});
const { text, reason, putIn, lastPut } = useCapture(
  () => `below-${props.row.todo.id}-${props.inside}`,
  () => into.value,
);
const reading = useReading(text);
const depth = computed(() => (props.row.depth ?? 0) + (props.inside ? 1 : 0));
const label = computed(() =>
  props.inside ? `Subtask of ${props.row.todo.title}` : `Below ${props.row.todo.title}`,
);

onMounted(() => input.value?.focus());
function leave() {
  const id = props.row.todo.id;
  current.adding = undefined;
  setTimeout(() => rowElement(id)?.focus());
}
</script>

<template>
  <li class="adding" :style="{ '--depth': depth }">
    <input
      ref="input"
      v-model="text"
      :aria-label="label"
      :placeholder="inside ? 'Add a subtask' : 'Add below'"
      autocomplete="off"
      @keydown.enter.exact.prevent="text.trim() ? putIn(false) : leave()"
      @keydown.esc.stop.prevent="leave"
      @blur="!text.trim() && (current.adding = undefined)"
    />
    <span v-if="text.trim() && reading?.chips.length" class="chips">
      <ReadingChip
        v-for="chip in reading.chips"
        :key="chip.field + chip.words"
        :chip="chip"
        @without="text = chip.without"
      />
    </span>
    <p v-if="reason || (text.trim() && reading?.problems[0])" role="alert">
      {{ reason || reading?.problems[0]?.reason }}
    </p>
  </li>
</template>

<style scoped>
.adding {
  margin-left: calc(24px * min(var(--depth, 0), 8));
  padding: 4px 8px 4px 0;
}
input {
  width: 100%;
  height: 34px;
  padding: 0 10px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 4px;
}
p {
  color: var(--madder);
}
</style>
