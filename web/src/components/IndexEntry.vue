<script setup lang="ts">
import { ref, useTemplateRef } from "vue";
import type { Colour } from "@/api/client";
import { useDrop } from "@/composables/drop";

/** One line of the index; one with `takes` moves what is dropped on it. */
const props = defineProps<{
  to: string;
  name: string;
  count?: number;
  colour?: Colour;
  takes?: boolean;
}>();
const emit = defineEmits<{ drop: [id: string] }>();

const root = useTemplateRef("root");
const over = props.takes ? useDrop(root, (id) => emit("drop", id)) : ref(false);
</script>

<template>
  <li ref="root">
    <router-link :to="to" class="entry" :class="{ over, listed: colour }" active-class="here">
      <span v-if="colour" class="dot" :style="{ background: `var(--${colour})` }" />
      <span class="name">{{ name }}</span>
      <span v-if="count" class="count">{{ count }}</span>
    </router-link>
  </li>
</template>

<style scoped>
.entry {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 26px;
  padding: 0 8px;
  border-radius: var(--corner);
  border: 1px solid transparent;
  color: inherit;
  text-decoration: none;
  font-size: 14px;
}
.listed {
  gap: 7px;
  padding-left: 15px;
}
.entry:hover {
  background: var(--wash);
}
.entry.here {
  background: var(--rim);
  color: var(--glaze);
  font-weight: 600;
}
.entry.over {
  border: 1px dashed var(--rim);
  background: var(--wash);
  color: var(--ink);
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.count {
  color: var(--pencil);
}
.here .count {
  color: inherit;
}
.dot {
  flex: none;
  width: 8px;
  height: 8px;
  border-radius: 2px;
}
.here .dot {
  outline: 1px solid var(--glaze);
}
</style>
