<script setup lang="ts">
import { useElementSize, useScroll } from "@vueuse/core";
import { computed, nextTick, ref, useTemplateRef, watch } from "vue";
import type { Overview } from "@/server/client";
import type { Column } from "./columns";
import type { MenuItem } from "@/kit/menu";
import { useDrop } from "@/state/drop";
import { workWords } from "@/words/fields";
import { groupHead } from "@/words/groups";
import TodoCard from "./TodoCard.vue";

/** One column: its head, its cards, and room to let go of another. */
const props = defineProps<{
  column: Column;
  overview: Overview;
  today: string;
  slip?: string;
  /** All of them, to move cards into. */
  columns: Column[];
  takes: (column: Column) => boolean;
  inList?: string;
  quarter?: string;
}>();
const emit = defineEmits<{ move: [id: string, to: Column] }>();
const root = useTemplateRef("root");
const over = useDrop(root, (id) => emit("move", id, props.column));
const headOf = (column: Column) => groupHead(column, props.today) || "All";
const head = computed(() => headOf(props.column));
/** What a card's menu offers: the other columns, those that take cards. */
const moves = (id: string): MenuItem[] =>
  props.columns
    .filter((c) => c.key !== props.column.key && props.takes(c))
    .map((c) => ({ name: `To “${headOf(c)}”`, act: () => emit("move", id, c) }));
const cards = computed(() => props.column.shown.flatMap((s) => s.row ?? []));
const list = useTemplateRef("list");
const scrolled = useScroll(list).y;
const { width, height } = useElementSize(list);
/** How many cards of a quarter stand below the edge, those that are not read yet among them. */
const behind = ref(0);
watch(
  [scrolled, width, height, cards],
  async () => {
    await nextTick();
    const ul = list.value;
    if (!ul) return;
    const edge = ul.scrollTop + ul.clientHeight;
    const inSight = [...ul.children].filter((c) => {
      const card = c as HTMLElement;
      return card.offsetTop - ul.offsetTop + card.offsetHeight <= edge + 1;
    }).length;
    behind.value = props.column.count - inSight;
  },
  { immediate: true },
);
/** The next cards come into sight, or the first ones again. */
function turn() {
  const ul = list.value;
  if (!ul) return;
  const end = ul.scrollTop + ul.clientHeight >= ul.scrollHeight - 1;
  ul.scrollTo({ top: end ? 0 : ul.scrollTop + ul.clientHeight - 24 });
}
const rest = computed(() => props.column.count - cards.value.length);
const labelId = computed(() => `column-${props.column.key.replace(/\W+/g, "-")}`);
</script>

<template>
  <section
    ref="root"
    class="column"
    :class="[{ over: over && takes(column) }, quarter && `quarter-${quarter}`]"
    :data-column="column.word ?? column.of ?? column.horizon ?? column.kind"
    :aria-labelledby="labelId"
  >
    <header>
      <h2 :id="labelId">{{ head }}</h2>
      <span class="count">{{
        column.minutes
          ? `${column.count}, ${workWords(column.minutes, column.assumed ?? 0, true)}`
          : column.count
      }}</span>
    </header>
    <ul
      ref="list"
      :tabindex="quarter ? 0 : undefined"
      :aria-label="quarter ? `Cards: ${head}` : undefined"
    >
      <TodoCard
        v-for="row in cards"
        :key="row.todo.id"
        :row="row"
        :group="column"
        :overview="overview"
        :today="today"
        :open="slip === row.todo.id"
        :in-list="inList"
        :moves="moves"
      />
    </ul>
    <button v-if="quarter && behind > rest" class="rest turn" @click="turn">
      {{ behind }} more
    </button>
    <p v-else-if="rest > 0" class="rest">and {{ rest }} more, in rows</p>
    <p v-else-if="!cards.length" class="rest">Nothing here.</p>
  </section>
</template>

<style scoped>
.column {
  flex: 1 0 210px;
  max-width: 340px;
  min-width: 0;
  padding: 8px 8px 14px;
  border: 1px solid var(--tin);
  border-radius: 3px 3px 16px 16px;
  background: var(--enamel);
}
.column.over {
  border-color: var(--rim);
  background: var(--wash);
}
[class*="quarter-"] {
  display: flex;
  flex-direction: column;
  max-width: none;
}
/* All four stay in sight. */
@media (min-width: 761px) {
  [class*="quarter-"] {
    height: max(180px, calc((100dvh - 282px) / 2));
  }
  [class*="quarter-"] ul {
    flex: 1;
    align-content: start;
    min-height: 0;
    overflow-y: auto;
  }
}
.quarter-important-urgent {
  grid-area: 2 / 2;
}
.quarter-important {
  grid-area: 2 / 3;
}
.quarter-urgent {
  grid-area: 3 / 2;
}
.quarter-neither {
  grid-area: 3 / 3;
}
@media (max-width: 760px) {
  [class*="quarter-"] {
    grid-area: auto;
  }
}
header {
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 0 4px 6px;
}
h2 {
  flex: 1;
  min-width: 0;
  font-size: 15px;
  line-height: 22px;
  overflow-wrap: anywhere;
}
.count,
.rest {
  color: var(--pencil);
  font-size: 13px;
}
ul {
  display: grid;
  gap: 6px;
  list-style: none;
}
.rest {
  padding: 8px 4px 0;
}
.turn {
  min-height: 28px;
  text-align: left;
  cursor: pointer;
}
.turn:hover {
  text-decoration: underline;
}
</style>
