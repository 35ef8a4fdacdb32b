<script setup lang="ts">
import { computed, ref } from "vue";
import type { Row } from "@/server/client";
import { rowElement, useCurrent } from "@/state/current";
import SentenceLine from "@/capture/SentenceLine.vue";

/** A line below a row that puts in a sibling behind it, or a subtask under it. */
const props = defineProps<{ row: Row; inside: boolean }>();
const current = useCurrent();
/** What was put in last, for the next one to stand behind it. */
const last = ref<string>();
const into = computed(() => {
  const t = props.row.todo;
  if (props.inside) return { parent: t.id };
  const after = last.value ?? t.id;
  return t.parent ? { parent: t.parent, after } : { list: t.list, section: t.section, after };
});
const depth = computed(() => (props.row.depth ?? 0) + (props.inside ? 1 : 0));
const label = computed(() =>
  props.inside ? `Subtask of ${props.row.todo.title}` : `Below ${props.row.todo.title}`,
);

function leave() {
  const ids = [last.value, props.row.todo.id];
  current.adding = undefined;
  // The one put in may be shown elsewhere, or not here at all.
  setTimeout(() => (rowElement(ids[0]) ?? rowElement(ids[1]))?.focus());
}
function put(id: string) {
  last.value = id;
  current.putIn = id;
}
</script>

<template>
  <li class="adding" :style="{ '--depth': depth }">
    <SentenceLine
      :line="`below-${row.todo.id}-${inside}`"
      :label="label"
      :placeholder="inside ? 'Add a subtask' : 'Add below'"
      :into="into"
      now
      @leave="leave"
      @left="current.adding = undefined"
      @put="put"
    />
  </li>
</template>

<style scoped>
.adding {
  margin-left: calc(24px * min(var(--depth, 0), 8));
  padding: 4px 8px 4px 0;
}
</style>
