<script setup lang="ts">
import { computed, inject, useTemplateRef } from "vue";
import type { Group, Overview, Row } from "@/api/client";
import { useActions } from "@/composables/actions";
import { sheetKey } from "@/composables/arrange";
import { useCurrent } from "@/composables/current";
import { useLinger } from "@/composables/linger";
import { useRowDrag } from "@/composables/row-drag";
import { useSelection } from "@/composables/selection";
import { tagColour } from "@/words/names";
import { rowFacts } from "@/words/row";
import PriorityNicks from "./PriorityNicks.vue";
import TickBox from "./TickBox.vue";

/** A to-do as a card of a column. */
const props = defineProps<{
  row: Row;
  group: Pick<Group, "kind" | "horizon">;
  overview: Overview;
  today: string;
  open: boolean;
  inList?: string;
}>();
const actions = useActions();
const current = useCurrent();
const linger = useLinger();
const selection = useSelection();
const sheet = inject(sheetKey);
const root = useTemplateRef("root");
const todo = computed(() => props.row.todo);
const struck = computed(() => linger.struck(todo.value));
const isCurrent = computed(() => current.row === todo.value.id);
const chosen = computed(() => selection.ids.has(todo.value.id));
const facts = computed(() => rowFacts(props.row, props));

const { dragged } = useRowDrag(
  root,
  () => props.row,
  { drag: () => todo.value.deleted === null, take: () => false, mode: () => "standard" },
  () => {},
);
function press(e: MouseEvent) {
  if (e.ctrlKey || e.metaKey || selection.choosing) selection.toggle(todo.value.id);
  else sheet?.openSlip(todo.value.id);
}
</script>

<template>
  <li
    ref="root"
    class="card"
    :class="{ current: isCurrent, open, struck, dimmed: row.dimmed, dragged, chosen }"
    :tabindex="isCurrent ? 0 : -1"
    :data-todo="todo.id"
    @focus="current.row = todo.id"
    @focusin="linger.hold(todo.id)"
    @focusout="linger.hold(undefined)"
    @pointerenter="linger.hold(todo.id)"
    @pointerleave="linger.hold(undefined)"
    @click="press"
  >
    <PriorityNicks :priority="todo.priority" />
    <span v-if="todo.isNote" class="note-mark" role="img" aria-label="Note" />
    <TickBox
      v-else
      :ticked="struck"
      :half="todo.status === 'in-process'"
      :crossed="todo.status === 'cancelled'"
      :label="struck ? `Open again: ${todo.title}` : `Tick: ${todo.title}`"
      :tabindex="isCurrent ? 0 : -1"
      @click.stop="actions.tick(todo)"
    />
    <div class="words">
      <span class="title" :title="todo.title">
        <span v-if="row.path?.length" class="path">{{ row.path.join(" / ") }} / </span
        ><span class="unseen">{{
          todo.priority === "none" ? "" : `Priority ${todo.priority}. `
        }}</span
        >{{ todo.title }}
      </span>
      <span v-if="facts.length || todo.tags.length" class="facts">
        <span v-for="f in facts" :key="f.text" class="fact" :class="f.tone">{{ f.text }}</span>
        <span
          v-for="tag in todo.tags"
          :key="tag"
          class="fact tag"
          :style="{ borderColor: `var(--${tagColour(overview, tag)})` }"
          >{{ tag }}</span
        >
      </span>
    </div>
  </li>
</template>

<style scoped>
.card {
  position: relative;
  display: flex;
  gap: 8px;
  padding: 8px 10px 8px 16px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
  cursor: pointer;
  user-select: none;
}
.card:hover,
.card.current {
  border-color: var(--pencil);
}
.card.open,
.card.chosen {
  border-color: var(--rim);
  box-shadow: inset 0 0 0 1px var(--rim);
}
.card.dragged {
  opacity: 0.5;
}
.card.dimmed .title,
.path {
  color: var(--pencil);
}
.card.struck .title {
  color: var(--pencil);
  text-decoration: line-through;
}
.words {
  min-width: 0;
}
.title {
  display: -webkit-box;
  overflow: hidden;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  margin-top: 2px;
  font-size: 13px;
}
.fact {
  color: var(--pencil);
}
.fact.late {
  color: var(--madder);
}
.fact.tag {
  border-bottom: 2px solid;
}
.note-mark {
  width: 18px;
}
</style>
