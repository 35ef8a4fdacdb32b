<script setup lang="ts">
import type { Overview } from "@/server/client";
import type { Column } from "./columns";
import SheetColumn from "./SheetColumn.vue";

/** The same rows as columns of cards, or as a two-by-two. */
defineProps<{
  columns: Column[];
  overview: Overview;
  today: string;
  slip?: string;
  square: boolean;
  takes: (column: Column) => boolean;
  inList?: string;
}>();
defineEmits<{ move: [id: string, to: Column] }>();
</script>

<template>
  <div class="columns" :class="{ square }">
    <template v-if="square">
      <span class="axis urgent">urgent</span>
      <span class="axis later">not urgent</span>
      <span class="axis important">important</span>
      <span class="axis lesser">not important</span>
    </template>
    <SheetColumn
      v-for="c in columns"
      :key="c.key"
      :column="c"
      :overview="overview"
      :today="today"
      :slip="slip"
      :columns="columns"
      :takes="takes"
      :in-list="inList"
      :quarter="square ? c.word : undefined"
      @move="(id, to) => $emit('move', id, to)"
    />
  </div>
</template>

<style scoped>
.columns {
  display: flex;
  gap: 12px;
  min-height: 240px;
  padding: 4px 0 16px;
  overflow-x: auto;
}
.square {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) minmax(0, 1fr);
  grid-template-rows: 22px auto auto;
}
.axis {
  color: var(--pencil);
  font-size: 13px;
}
.urgent {
  grid-area: 1 / 2;
}
.later {
  grid-area: 1 / 3;
}
.important,
.lesser {
  writing-mode: vertical-rl;
  rotate: 180deg;
  text-align: right;
}
.important {
  grid-area: 2 / 1;
}
.lesser {
  grid-area: 3 / 1;
}
@media (max-width: 760px) {
  .square {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
  }
  .axis {
    display: none;
  }
}
</style>
