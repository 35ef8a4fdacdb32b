<script setup lang="ts">
import { computed, ref, toRef, useTemplateRef, watch } from "vue";
import type { Overview } from "@/server/client";
import { useCapture, type How } from "./capture";
import { useCurrent } from "@/state/current";
import { useBrought } from "./brought";
import CapturePanel from "./CapturePanel.vue";
import ChipChooser from "./ChipChooser.vue";
import SentenceField from "./SentenceField.vue";
import { useSentence, walkBelow } from "./sentence";

/** The line at the top. It means the Cup, wherever one is, unless the sentence names a list. */
const props = defineProps<{ overview?: Overview }>();
const { text, reason, putIn, back, files, addFiles } = useCapture("capture", {}, "where");
const placeholder = computed(() => {
  const [file, ...more] = files.value;
  if (file) return `Say what is to be done with ${file.name}${more.length ? " and others" : ""}`;
  const list = props.overview?.shelves.flatMap((s) => s.lists)[0];
  return `Say it: Order mount board, by Friday 4pm, ${list ? `in ${list.name}, ` : ""}high`;
});
const current = useCurrent();
const root = useTemplateRef("root");
const field = useTemplateRef("field");
const input = () => field.value?.input ?? undefined;
const sentence = useSentence(text, input, toRef(props, "overview"));
const focused = ref(false);
/** Examples are offered on coming to the line, and not again right after putting in. */
const examples = ref(true);

watch(
  () => current.capture,
  () => input()?.focus(),
);

const open = computed(
  () =>
    reason.value !== "" ||
    sentence.opened !== undefined ||
    (focused.value && (examples.value || text.value.trim() !== "" || files.value.length > 0)),
);

function clear() {
  files.value = [];
  void sentence.write("");
}
function enter(how: How) {
  examples.value = false;
  void putIn(how, how === "exact" ? undefined : sentence.meant());
}
function leave(e: FocusEvent) {
  if (root.value?.contains(e.relatedTarget as Node | null)) return;
  focused.value = false;
  examples.value = true;
}
function down() {
  root.value?.querySelector<HTMLElement>(".panel [data-walk]")?.focus();
}
const { over, drop, dragOver, paste } = useBrought(
  (some) => void addFiles(some).then(() => input()?.focus()),
  (lines) => (current.pasted = { text: lines }),
);
</script>

<template>
  <div
    ref="root"
    class="line"
    :class="{ focused, open, over }"
    @dragover="dragOver"
    @dragleave="over = false"
    @drop="drop"
    @focusin="focused = true"
    @focusout="leave"
  >
    <SentenceField
      ref="field"
      :sentence="sentence"
      label="Put something in"
      :placeholder="placeholder"
      below="capture-panel"
      names="capture-names"
      :wrong="reason !== ''"
      @enter="enter"
      @down="down"
      @again="back"
      @leave="input()?.blur()"
      @paste="paste"
    />
    <template v-if="text.trim() || files.length">
      <button
        v-if="text.trim()"
        class="key"
        tabindex="-1"
        @mousedown.prevent
        @click="enter('plain')"
      >
        Put in
      </button>
      <button
        class="clear"
        tabindex="-1"
        aria-label="Clear the line"
        title="Clear the line"
        @mousedown.prevent
        @click="clear"
      >
        ×
      </button>
    </template>
    <span v-else-if="!focused" class="key hint-key" aria-hidden="true">n</span>
    <CapturePanel
      v-if="open"
      id="capture-panel"
      :sentence="sentence"
      :reason="reason"
      :files="files"
      :overview="overview"
      @away="(hash) => (files = files.filter((f) => f.hash !== hash))"
      @mousedown.prevent
      @keydown="walkBelow($event, root, () => input()?.focus())"
      @try="(said) => sentence.write(said)"
    />
    <ChipChooser
      v-if="sentence.opened && overview && sentence.reading"
      :chip="sentence.opened.chip"
      :at="sentence.opened.at"
      :reading="sentence.reading"
      :overview="overview"
      @reword="sentence.rewordChip"
    />
  </div>
</template>

<style scoped>
.line {
  position: relative;
  flex: 1;
  display: flex;
  gap: 8px;
  align-items: center;
  height: 36px;
  padding: 0 10px 0 12px;
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--ink);
}
.line.over {
  outline: 2px dashed var(--copper);
  outline-offset: 1px;
}
.line.focused {
  outline: 2px solid var(--copper);
  outline-offset: 1px;
}
.line.open {
  border-radius: var(--corner) var(--corner) 0 0;
  outline: none;
  box-shadow: 0 0 0 2px var(--rim);
}
.clear {
  width: 24px;
  height: 24px;
  margin: 0 -6px 0 -4px;
  color: var(--pencil);
  font-size: 18px;
  cursor: pointer;
}
button.key {
  cursor: pointer;
  color: var(--rim);
  border-color: var(--rim);
  line-height: 22px;
}
@media (max-width: 760px) {
  .line {
    --sentence-line: 26px;
    height: auto;
    min-height: 44px;
    padding-block: 7px;
    border: 2px solid var(--rim);
  }
  .line.open {
    border-radius: 0 0 var(--corner) var(--corner);
    box-shadow: none;
  }
  .hint-key {
    display: none;
  }
}
</style>
