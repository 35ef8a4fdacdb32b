<script setup lang="ts">
import { draggable } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { setCustomNativeDragPreview } from "@atlaskit/pragmatic-drag-and-drop/element/set-custom-native-drag-preview";
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from "vue";
import type { Group, Overview, Row } from "@/api/client";
import { useCurrent } from "@/composables/current";
import { useLinger } from "@/composables/linger";
import { rowFacts } from "@/words/row";
import { tagColour } from "@/words/names";
import PriorityNicks from "./PriorityNicks.vue";
import TickBox from "./TickBox.vue";
import TitleOffers from "./TitleOffers.vue";

const props = defineProps<{
  row: Row;
  group: Pick<Group, "kind" | "horizon">;
  overview: Overview;
  today: string;
  /** The list the sheet shows, which its rows need not name. */
  inList?: string;
  open: boolean;
}>();
const emit = defineEmits<{ tick: []; open: []; rename: [title: string]; restore: [] }>();

const current = useCurrent();
const linger = useLinger();
const root = useTemplateRef("root");
const titleField = useTemplateRef("titleField");
const todo = computed(() => props.row.todo);
const struck = computed(() => linger.struck(todo.value));
const isCurrent = computed(() => current.row === todo.value.id);
const editing = computed(() => current.editing === todo.value.id);
const binned = computed(() => todo.value.deleted !== null);
const facts = computed(() => rowFacts(props.row, props));
const dragged = ref(false);
const draft = ref("");

watch(editing, async (on) => {
  if (!on) return;
  draft.value = todo.value.title;
  await nextTick();
  titleField.value?.focus();
  titleField.value?.select();
});

function leave(keep: boolean) {
  if (!editing.value) return;
  current.editing = undefined;
  if (keep && draft.value.trim() && draft.value.trim() !== todo.value.title) {
    emit("rename", draft.value);
  }
  root.value?.focus();
}

let stop = () => {};
onMounted(() => {
  const element = root.value;
  if (!element) return;
  stop = draggable({
    element,
    canDrag: () => !editing.value && !binned.value,
    getInitialData: () => ({ kind: "todo", todo: todo.value }),
    onGenerateDragPreview: ({ nativeSetDragImage }) =>
      setCustomNativeDragPreview({
        nativeSetDragImage,
        render: ({ container }) => {
          const slip = document.createElement("div");
          slip.className = "drag-slip";
          slip.textContent = todo.value.title;
          container.append(slip);
        },
      }),
    onDragStart: () => (dragged.value = true),
    onDrop: () => (dragged.value = false),
  });
});
onBeforeUnmount(() => {
  stop();
  if (linger.kept.has(todo.value.id)) linger.hold(undefined);
});
</script>

<template>
  <li
    ref="root"
    class="row"
    :class="{ current: isCurrent, open, struck, dimmed: row.dimmed, dragged, editing }"
    :style="row.depth ? { '--depth': row.depth } : undefined"
    :aria-level="(row.depth ?? 0) + 1"
    :tabindex="isCurrent ? 0 : -1"
    :data-todo="todo.id"
    @focus="current.row = todo.id"
    @focusin="linger.hold(todo.id)"
    @focusout="linger.hold(undefined)"
    @pointerenter="linger.hold(todo.id)"
    @pointerleave="linger.hold(undefined)"
    @click="emit('open')"
  >
    <PriorityNicks :priority="todo.priority" />
    <button v-if="binned" class="btn back" @click.stop="emit('restore')">Restore</button>
    <TickBox
      v-else
      :ticked="struck"
      :half="todo.status === 'in-process'"
      :crossed="todo.status === 'cancelled'"
      :label="struck ? `Open again: ${todo.title}` : `Tick: ${todo.title}`"
      :tabindex="isCurrent ? 0 : -1"
      @click.stop="emit('tick')"
    />
    <span v-if="editing" class="editing-place" @click.stop>
      <input
        ref="titleField"
        v-model="draft"
        class="title-field"
        aria-label="Title"
        maxlength="500"
        @keydown.enter.prevent="leave(true)"
        @keydown.esc.stop.prevent="leave(false)"
        @blur="leave(true)"
      />
      <TitleOffers class="under" :todo="todo" :text="draft" @taken="(t) => (draft = t)" />
    </span>
    <span v-else class="title" :title="todo.title">
      <span v-if="row.path?.length" class="path">{{ row.path.join(" / ") }} / </span
      ><span class="unseen">{{
        todo.priority === "none" ? "" : `Priority ${todo.priority}. `
      }}</span
      >{{ todo.title }}
    </span>
    <span class="facts">
      <span v-for="f in facts" :key="f.text" class="fact" :class="f.tone">{{ f.text }}</span>
      <span
        v-for="tag in todo.tags"
        :key="tag"
        class="fact tag"
        :style="{ borderColor: `var(--${tagColour(overview, tag)})` }"
        >{{ tag }}</span
      >
    </span>
  </li>
</template>

<style scoped>
.row {
  position: relative;
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 40px;
  margin-left: -20px;
  padding: 0 8px 0 calc(20px + 24px * min(var(--depth, 0), 8));
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
  content-visibility: auto;
  contain-intrinsic-height: auto 40px;
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
.row.dragged {
  opacity: 0.5;
}
.title {
  flex: 0 1 auto;
  min-width: 40%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  unicode-bidi: plaintext;
}
.struck .title {
  color: var(--pencil);
  text-decoration: line-through;
}
.dimmed .title {
  color: var(--pencil);
}
.row.editing {
  content-visibility: visible;
}
.editing-place {
  position: relative;
  flex: 1;
}
.editing-place .under {
  position: absolute;
  z-index: 5;
  top: calc(100% + 4px);
  left: 0;
  margin: 0;
  padding: 6px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
.path {
  color: var(--pencil);
}
.title-field {
  width: 100%;
  height: 30px;
  min-width: 0;
  padding: 0 8px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
/* What does not fit goes as a whole: it wraps out of sight. */
.facts {
  display: flex;
  flex: 0 4 auto;
  flex-wrap: wrap;
  justify-content: flex-end;
  margin-left: auto;
  gap: 20px 12px;
  min-width: 0;
  max-height: 24px;
  overflow: hidden;
  color: var(--pencil);
  font-size: 14px;
  white-space: nowrap;
}
.fact.late {
  color: var(--madder);
  font-weight: 600;
}
.fact.time {
  color: var(--ink);
}
.tag {
  padding-bottom: 1px;
  border-bottom: 2px solid;
}
.back {
  flex: none;
}
@media (max-width: 760px) {
  .row {
    flex-wrap: wrap;
    row-gap: 0;
    padding-block: 4px;
    min-height: 52px;
  }
  .title {
    flex: 1 1 calc(100% - 60px);
    max-width: none;
    white-space: normal;
  }
  .facts {
    flex: 1 0 100%;
    justify-content: flex-start;
    margin-left: 0;
    padding-left: 35px;
  }
  .facts:empty {
    display: none;
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
</style>
