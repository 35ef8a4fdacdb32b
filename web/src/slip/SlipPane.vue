<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from "vue";
import type { Overview, Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import { useAttach } from "@/server/attach";
import { useDraft } from "./draft";
import { useLinger } from "@/server/linger";
import { useCurrent } from "@/state/current";
import { instantWords } from "@/words/dates";
import DraftClash from "./DraftClash.vue";
import SlipFiles from "./SlipFiles.vue";
import SlipFields from "./SlipFields.vue";
import SlipInside from "./SlipInside.vue";
import TickBox from "@/kit/TickBox.vue";
import TitleOffers from "@/choosers/TitleOffers.vue";

const props = defineProps<{ todo: Todo; overview: Overview }>();
const emit = defineEmits<{ close: [] }>();

const actions = useActions();
const current = useCurrent();
const linger = useLinger();
const todo = toRef(props, "todo");
const title = useDraft(todo, "title");
const notes = useDraft(todo, "notes");
const titleField = useTemplateRef("titleField");
const notesField = useTemplateRef("notesField");

// What was put in and opened is gone on with here.
watch(
  () => current.opening === props.todo.id,
  async (opening) => {
    if (!opening) return;
    current.opening = undefined;
    await nextTick();
    titleField.value?.focus();
    titleField.value?.setSelectionRange(title.text.value.length, title.text.value.length);
  },
  { immediate: true, flush: "post" },
);

const struck = computed(() => linger.struck(props.todo));
const binned = computed(() => props.todo.deleted !== null);
/** What a record holds of its subtasks stays as it was, like what is in the bin. */
const fixed = computed(
  () => binned.value || (props.todo.record !== undefined && props.todo.parent !== undefined),
);
const history = computed(() => {
  const zone = props.overview.zone;
  const t = props.todo;
  const parts = [`Put in ${instantWords(t.created, zone)}.`];
  if (t.completed) {
    parts.push(
      `${t.status === "cancelled" ? "Cancelled" : "Done"} ${instantWords(t.completed, zone)}.`,
    );
  }
  if (t.deleted) parts.push(`In the bin since ${instantWords(t.deleted, zone)}.`);
  return parts.join(" ");
});
const saving = computed(() => {
  const states = [title.state.value, notes.state.value];
  if (states.includes("saving")) return "Saving…";
  if (states.includes("kept")) return "Not saved yet. It is kept in this window.";
  if (title.dirty.value || notes.dirty.value) return "Saved when you leave the field.";
  return states.includes("saved") ? "Saved." : "";
});

const inHandful = computed(() => props.todo.handful === props.overview.today);

const { attach } = useAttach();
/** A file hangs over the slip. */
const over = ref(false);
function dragged(e: DragEvent) {
  if (fixed.value || !e.dataTransfer?.types.includes("Files")) return;
  e.preventDefault();
  over.value = true;
}
function dropped(e: DragEvent) {
  if (!over.value) return;
  e.preventDefault();
  over.value = false;
  void attach(props.todo, [...(e.dataTransfer?.files ?? [])]);
}
function pasted(e: ClipboardEvent) {
  const files = [...(e.clipboardData?.files ?? [])];
  if (fixed.value || !files.length) return;
  e.preventDefault();
  void attach(props.todo, files);
}

function grow(el: HTMLTextAreaElement | null, least: number) {
  if (!el) return;
  el.style.height = "0";
  el.style.height = `${Math.max(el.scrollHeight, least)}px`;
}
watch(
  [title.text, notes.text, () => props.todo.id],
  () =>
    void nextTick(() => {
      grow(titleField.value, 28);
      grow(notesField.value, 84);
    }),
  { immediate: true },
);
</script>

<template>
  <aside
    class="slip"
    :class="{ over }"
    aria-label="Slip"
    :data-slip="todo.id"
    @keydown.esc.stop="emit('close')"
    @dragover="dragged"
    @dragleave="over = false"
    @drop="dropped"
    @paste="pasted"
  >
    <header>
      <TickBox
        v-if="!fixed && !todo.isNote"
        :ticked="struck"
        :half="todo.status === 'in-process'"
        :crossed="todo.status === 'cancelled'"
        :label="struck ? 'Open again' : 'Tick'"
        @click="actions.tick(todo)"
      />
      <span v-if="todo.isNote" class="kind">Note</span>
      <span class="grow" />
      <button
        v-if="!fixed && !todo.isNote && !struck"
        class="btn quiet"
        :aria-pressed="inHandful"
        title="h"
        @click="actions.pick(todo, !inHandful)"
      >
        {{ inHandful ? "In the handful" : "Into the handful" }}
      </button>
      <button class="btn quiet" @click="emit('close')">Close</button>
    </header>
    <textarea
      ref="titleField"
      v-model="title.text.value"
      class="title"
      :class="{ struck }"
      rows="1"
      aria-label="Title"
      :readonly="fixed"
      :aria-invalid="title.reason.value !== ''"
      @keydown.enter.prevent="title.save()"
      @blur="title.save()"
    />
    <p v-if="title.reason.value" class="reason" role="alert">{{ title.reason.value }}</p>
    <DraftClash
      v-if="title.clash.value !== undefined"
      what="title"
      :theirs="title.clash.value"
      @mine="title.keepMine()"
      @theirs="title.takeTheirs()"
    />

    <TitleOffers
      v-if="!fixed && title.dirty.value"
      :todo="todo"
      :text="title.text.value"
      @taken="(t) => (title.text.value = t)"
    />
    <SlipFields :todo="todo" :overview="overview" :binned="fixed" />
    <SlipInside :todo="todo" :overview="overview" :binned="fixed" />

    <h2 id="notes-label">Notes</h2>
    <textarea
      ref="notesField"
      v-model="notes.text.value"
      class="notes"
      aria-labelledby="notes-label"
      placeholder="Anything worth keeping with it"
      :readonly="fixed"
      :aria-invalid="notes.reason.value !== ''"
      @blur="notes.save()"
    />
    <p v-if="notes.reason.value" class="reason" role="alert">{{ notes.reason.value }}</p>
    <DraftClash
      v-if="notes.clash.value !== undefined"
      what="notes"
      :theirs="notes.clash.value"
      @mine="notes.keepMine()"
      @theirs="notes.takeTheirs()"
    />

    <SlipFiles :todo="todo" :fixed="fixed" />

    <footer>
      <p class="foot" role="status">{{ saving }}</p>
      <p class="foot">{{ history }}</p>
      <div class="deeds">
        <button v-if="binned" class="btn main" @click="actions.run(todo.id, 'restore')">
          Restore
        </button>
        <template v-else-if="!fixed">
          <button
            v-if="!todo.isNote && (todo.status === 'needs-action' || todo.status === 'in-process')"
            class="btn"
            @click="
              actions.edit(todo, {
                status: todo.status === 'in-process' ? 'needs-action' : 'in-process',
              })
            "
          >
            {{ todo.status === "in-process" ? "Not begun after all" : "Mark as begun" }}
          </button>
          <button v-if="todo.completed" class="btn" @click="actions.run(todo.id, 'reopen')">
            Open again
          </button>
          <template v-else>
            <button v-if="todo.repeat" class="btn" @click="actions.run(todo.id, 'skip')">
              Skip this one
            </button>
            <button v-if="!todo.isNote" class="btn" @click="actions.run(todo.id, 'cancel')">
              {{ todo.repeat ? "Decide against all" : "Decide against it" }}
            </button>
          </template>
          <button
            v-if="!todo.completed && !todo.repeat"
            class="btn"
            @click="actions.edit(todo, { isNote: !todo.isNote })"
          >
            {{ todo.isNote ? "Make it a to-do" : "Make it a note" }}
          </button>
          <button class="btn" @click="actions.remove(todo)">Put in the bin</button>
        </template>
      </div>
    </footer>
  </aside>
</template>

<style scoped>
.slip {
  height: 100%;
  padding: 10px 18px 24px;
  overflow-y: auto;
  scrollbar-width: thin;
}
header {
  display: flex;
  align-items: center;
  height: 36px;
}
.grow {
  flex: 1;
}
.slip.over {
  outline: 3px dashed var(--rim);
  outline-offset: -6px;
}
.kind {
  color: var(--pencil);
}
.btn[aria-pressed="true"] {
  border-color: var(--rim);
  font-weight: 600;
}
textarea {
  display: block;
  width: 100%;
  border: 1px solid transparent;
  border-radius: var(--corner);
  resize: none;
  overflow: hidden;
  unicode-bidi: plaintext;
}
textarea:hover {
  border-color: var(--tin);
}
textarea:focus {
  border-color: var(--rim);
  background: var(--glaze);
  outline: none;
  box-shadow: 0 0 0 1px var(--rim);
}
.title {
  margin: 0 -6px;
  width: calc(100% + 12px);
  padding: 1px 6px;
  font-family: var(--slab);
  font-size: 18px;
  font-weight: 600;
  line-height: 25px;
}
.title.struck {
  color: var(--pencil);
  text-decoration: line-through;
}
h2 {
  margin-bottom: 4px;
  font-size: 15px;
}
.notes {
  padding: 8px 10px;
  border-color: var(--tin);
  background: var(--glaze);
}
.reason {
  margin-top: 4px;
  color: var(--madder);
}
footer {
  margin-top: 14px;
}
.foot {
  min-height: 20px;
  color: var(--pencil);
  font-size: 13px;
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
</style>
