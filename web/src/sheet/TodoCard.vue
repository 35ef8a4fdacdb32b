<script setup lang="ts">
import { mdiDotsHorizontal } from "@mdi/js";
import { computed, inject, useTemplateRef } from "vue";
import { useActions } from "@/server/actions";
import { sheetKey } from "./arrange";
import { useCurrent } from "@/state/current";
import { useLinger } from "@/server/linger";
import type { MenuItem } from "@/kit/menu";
import { useRowDrag } from "./row-drag";
import { type Shown, useRowState } from "./row-state";
import { useSelection } from "@/kit/selection";
import ActionMenu from "@/kit/ActionMenu.vue";
import PathIcon from "@/kit/PathIcon.vue";
import PriorityNicks from "./PriorityNicks.vue";
import RowFacts from "./RowFacts.vue";
import RowMark from "./RowMark.vue";
import TitleEdit from "./TitleEdit.vue";

/** A to-do as a card of a column. */
interface Props extends Shown {
  open: boolean;
  /** The other columns, to move it into. */
  moves: (id: string) => MenuItem[];
}
const props = defineProps<Props>();
const actions = useActions();
const current = useCurrent();
const linger = useLinger();
const selection = useSelection();
const sheet = inject(sheetKey);
const root = useTemplateRef("root");
const { todo, near, struck, isCurrent, chosen, facts } = useRowState(props);
const editing = computed(() => current.editing === todo.value.id);
function leave() {
  current.editing = undefined;
  root.value?.focus();
}

const { dragged } = useRowDrag(
  root,
  () => props.row,
  {
    drag: () => todo.value.deleted === null && !editing.value,
    take: () => false,
    mode: () => "standard",
  },
  () => {},
);
const items = (): MenuItem[] => [
  ...(todo.value.deleted === null ? props.moves(todo.value.id) : []),
  { name: "Choose", act: () => selection.toggle(todo.value.id), apart: true },
  { name: "Put in the bin", act: () => actions.remove(todo.value) },
];
function enter() {
  near.value = true;
  linger.hold(todo.value.id);
}
function press(e: MouseEvent) {
  const { id } = todo.value;
  if (e.shiftKey) {
    document.getSelection()?.removeAllRanges();
    selection.stretch(id, sheet?.rows.value.map((r) => r.todo.id) ?? []);
  } else if (e.ctrlKey || e.metaKey || selection.choosing) selection.toggle(id);
  else {
    selection.begin(id);
    sheet?.openSlip(id);
  }
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
    @pointerenter="enter"
    @pointerleave="linger.hold(undefined)"
    @click="press"
  >
    <PriorityNicks :priority="todo.priority" />
    <RowMark :todo="todo" :struck="struck" :is-current="isCurrent" />
    <div class="words">
      <TitleEdit v-if="editing" :todo="todo" @leave="leave" />
      <span v-else class="title" :title="todo.title">
        <span v-if="row.path?.length" class="path">{{ row.path.join(" / ") }} / </span
        ><span class="unseen">{{
          todo.priority === "none" ? "" : `Priority ${todo.priority}. `
        }}</span
        >{{ todo.title }}
      </span>
      <RowFacts
        v-if="facts.length || todo.tags.length"
        :facts="facts"
        :tags="todo.tags"
        :overview="overview"
      />
    </div>
    <ActionMenu
      v-if="(near || isCurrent) && !selection.choosing && !editing"
      class="more"
      :label="`More for ${todo.title}`"
      :items="items"
    >
      <PathIcon :path="mdiDotsHorizontal" :size="16" />
    </ActionMenu>
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
  flex: 1;
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
/* Where it lies over a title, the title gives way. */
.more {
  position: absolute;
  top: 4px;
  right: 4px;
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--pencil);
  opacity: 0;
  cursor: pointer;
}
.card:hover .more,
.card:focus-within .more {
  opacity: 1;
}
@media (hover: none) {
  .more {
    opacity: 1;
  }
  .words {
    padding-right: 32px;
  }
}
</style>
