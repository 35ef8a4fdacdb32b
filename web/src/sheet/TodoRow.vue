<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight, mdiDotsHorizontal } from "@mdi/js";
import { computed, inject, onBeforeUnmount, useTemplateRef } from "vue";
import { useActions } from "@/server/actions";
import { sheetKey } from "./arrange";
import { useCurrent } from "@/state/current";
import { useFolding } from "./folding";
import { useLinger } from "@/server/linger";
import { useRowDrag } from "./row-drag";
import { useRowMenu } from "./row-menu";
import { type Shown, useRowState } from "./row-state";
import { useSelection } from "@/kit/selection";
import { useTouchLift } from "@/state/touch-lift";
import ActionMenu from "@/kit/ActionMenu.vue";
import PathIcon from "@/kit/PathIcon.vue";
import RowPull from "./RowPull.vue";
import PriorityNicks from "./PriorityNicks.vue";
import RowMark from "./RowMark.vue";
import RowWords from "./RowWords.vue";
import TitleEdit from "./TitleEdit.vue";

interface Props extends Shown {
  open: boolean;
  /** It has subtasks below it, shown or folded away. */
  folds: boolean;
  /** The next row is of a higher level. */
  ends: boolean;
  /** Rows can be moved among their siblings here. */
  arranges: boolean;
}
const props = defineProps<Props>();

const actions = useActions();
const current = useCurrent();
const folding = useFolding();
const linger = useLinger();
const selection = useSelection();
const sheet = inject(sheetKey);
const root = useTemplateRef("root");
const { todo, near, struck, isCurrent, chosen, facts } = useRowState(props);
const depth = computed(() => props.row.depth ?? 0);
const editing = computed(() => current.editing === todo.value.id);
const binned = computed(() => todo.value.deleted !== null);
const folded = computed(() => folding.folded.has(todo.value.id));

function leave() {
  current.editing = undefined;
  root.value?.focus();
}

const { items, openFew } = useRowMenu(
  () => props.row,
  () => root.value,
  () => props.today,
  () => props.arranges,
);
const lifts = () => !editing.value && !binned.value && (!selection.choosing || chosen.value);
const { pulled, lifted } = useTouchLift(root, {
  todo: () => todo.value,
  lift: lifts,
  pull: () => lifts() && !selection.choosing && !todo.value.isNote,
  right: () => void actions.tick(todo.value),
  left: openFew,
});
const { dragged, landing } = useRowDrag(
  root,
  () => props.row,
  {
    drag: lifts,
    take: () => props.arranges && !chosen.value,
    mode: () =>
      props.folds && !folded.value
        ? "expanded"
        : depth.value > 0 && props.ends
          ? "last-in-group"
          : "standard",
  },
  (id, where) => sheet?.moves.drop(id, where),
);

const ids = () => sheet?.rows.value.map((r) => r.todo.id) ?? [];

/** A click opens the slip, or chooses the row. */
function press(e: MouseEvent) {
  const id = todo.value.id;
  if (e.shiftKey) {
    document.getSelection()?.removeAllRanges();
    selection.stretch(id, ids());
  } else if (e.ctrlKey || e.metaKey || selection.choosing) selection.toggle(id);
  else {
    selection.begin(id);
    sheet?.openSlip(id);
  }
}
/** While rows are chosen, the pointer takes along what it is drawn over. */
function drawn(e: PointerEvent) {
  near.value = true;
  linger.hold(todo.value.id);
  if (selection.choosing && e.buttons === 1) selection.draw(todo.value.id, ids());
}
onBeforeUnmount(() => {
  if (linger.kept.has(todo.value.id)) linger.hold(undefined);
});
</script>

<template>
  <li
    ref="root"
    class="row"
    :class="[
      { current: isCurrent, open, struck, dimmed: row.dimmed, editing, chosen },
      { dragged: dragged || lifted },
      row.moved && 'standing',
      landing && `land-${landing.kind}`,
    ]"
    :style="{
      '--depth': depth || undefined,
      transform: pulled ? `translateX(${pulled}px)` : undefined,
      '--land': landing?.kind === 'lifted' ? landing.depth : undefined,
    }"
    :aria-level="depth + 1"
    :tabindex="isCurrent ? 0 : -1"
    :data-todo="todo.id"
    @focus="current.row = todo.id"
    @focusin="linger.hold(todo.id)"
    @focusout="linger.hold(undefined)"
    @pointerdown="selection.choosing && !chosen && selection.press(todo.id)"
    @pointerenter="drawn"
    @pointerleave="linger.hold(undefined)"
    @click="press"
  >
    <PriorityNicks :priority="todo.priority" />
    <RowPull v-if="pulled" :pulled="pulled" :ticked="struck" />
    <span v-if="chosen && !selection.choosing" class="unseen">Chosen. </span>
    <button
      v-if="folds"
      class="fold"
      :aria-label="folded ? `Unfold ${todo.title}` : `Fold ${todo.title}`"
      :aria-expanded="!folded"
      tabindex="-1"
      @click.stop="folding.turn(todo.id)"
    >
      <PathIcon :path="folded ? mdiChevronRight : mdiChevronDown" />
    </button>
    <button
      v-if="selection.choosing"
      class="choose"
      role="checkbox"
      :aria-checked="chosen"
      :aria-label="`Choose: ${todo.title}`"
      :tabindex="isCurrent ? 0 : -1"
      @click.stop="selection.toggle(todo.id)"
    />
    <button v-else-if="binned" class="btn back" @click.stop="actions.run(todo.id, 'restore')">
      Restore
    </button>
    <RowMark v-else :todo="todo" :struck="struck" :is-current="isCurrent" />
    <TitleEdit v-if="editing" :todo="todo" @leave="leave" />
    <RowWords v-else :row="row" :facts="facts" :overview="overview" />
    <ActionMenu
      v-if="(near || isCurrent) && !binned && !editing && !selection.choosing"
      class="more"
      :label="`More for ${todo.title}`"
      :items="items"
    >
      <PathIcon :path="mdiDotsHorizontal" :size="16" />
    </ActionMenu>
  </li>
</template>

<style scoped>
.row {
  position: relative;
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: var(--row);
  margin: 0 -20px 0 calc(-1 * var(--gutter));
  padding: 0 28px 0 calc(var(--gutter) + 24px * min(var(--depth, 0), 8));
  user-select: none;
  touch-action: pan-y;
  -webkit-touch-callout: none;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
  content-visibility: auto;
  contain-intrinsic-height: auto var(--row);
  cursor: pointer;
  scroll-margin: 60px 0;
}
.row:hover {
  background: color-mix(in srgb, var(--wash) 60%, transparent);
}
.row.current {
  background: color-mix(in srgb, var(--wash) 60%, transparent);
}
.row.open {
  background: var(--wash);
  box-shadow: inset 0 0 0 2px var(--rim);
  border-radius: var(--corner);
}
.row:focus-visible {
  outline-offset: -2px;
}
.row:has(.excerpt) {
  min-height: 52px;
}
/* What is beside a row that is pulled is seen. */
@media (pointer: coarse) {
  .row {
    content-visibility: visible;
  }
}
.row.dragged {
  opacity: 0.5;
}
/* At the right: the left edge is that of the priority. */
.row.chosen {
  background: var(--wash);
  box-shadow: inset -5px 0 0 var(--rim);
}
/* Where a dragged row would go: a line at the depth it would have. */
.land-above::after,
.land-below::after,
.land-lifted::after {
  position: absolute;
  z-index: 2;
  right: 28px;
  left: calc(var(--gutter) + 24px * min(var(--land, var(--depth, 0)), 8));
  height: 3px;
  background: var(--rim);
  content: "";
}
.land-above::after {
  top: -2px;
}
.land-below::after,
.land-lifted::after {
  bottom: -2px;
}
.row.land-inside {
  outline: 2px dashed var(--rim);
  outline-offset: -3px;
}
.fold {
  position: absolute;
  top: 8px;
  left: calc(7px + 24px * min(var(--depth, 0), 8));
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.fold:hover {
  background: var(--wash);
  color: var(--rim);
}
/* In the margin behind the facts, where a click in the row does not meet it. */
.more {
  position: absolute;
  top: 6px;
  right: 1px;
  display: grid;
  place-items: center;
  width: 26px;
  height: 28px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
  opacity: 0;
}
.more:hover {
  background: var(--wash);
  color: var(--rim);
}
.row:hover .more,
.row.current:focus-within .more,
.more:focus-visible,
.more[aria-expanded="true"] {
  opacity: 1;
}
@media (hover: none) {
  .more {
    opacity: 1;
  }
}
.choose {
  flex: none;
  width: 24px;
  height: 24px;
  margin: 0 -3px;
  border: 2px dashed var(--pencil);
  border-radius: var(--corner);
  cursor: pointer;
}
.choose[aria-checked="true"] {
  border: 2px solid var(--rim);
  background: linear-gradient(135deg, var(--rim) 50%, var(--glaze) 50%);
}
.row.editing {
  content-visibility: visible;
}
.back {
  flex: none;
}
@media (max-width: 760px) {
  .row {
    align-items: flex-start;
    padding-block: 4px;
    min-height: 52px;
  }
}
</style>

<style>
.drag-slip {
  max-width: 320px;
  padding: 8px 14px;
  overflow: hidden;
  border: 2px solid #1f4e48;
  border-radius: 6px;
  background: #fffdf8;
  color: #22302e;
  font:
    15px/20px "Atkinson Hyperlegible Next",
    sans-serif;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.drag-slip.lifted {
  position: fixed;
  z-index: 3000;
  top: 0;
  left: 0;
  pointer-events: none;
}
</style>
