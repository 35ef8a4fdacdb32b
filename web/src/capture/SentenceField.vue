<script setup lang="ts">
import { computed, useTemplateRef } from "vue";
import type { How } from "./capture";
import type { Sentence } from "./sentence";

/**
 * The field a sentence is typed in, with what was read underlined. Keys that an input method
 * composes with are its own.
 */
const props = defineProps<{
  sentence: Sentence;
  label: string;
  placeholder: string;
  /** The element that says what was understood, and the list of names. */
  below: string;
  names: string;
  wrong: boolean;
}>();
const emit = defineEmits<{
  enter: [how: How];
  /** The arrows, where they complete no name: to what stands under the line. */
  down: [];
  /** The last sentence is wanted back; the line is empty. */
  again: [];
  leave: [e: KeyboardEvent];
  paste: [e: ClipboardEvent];
}>();
const input = useTemplateRef("input");
const mirror = useTemplateRef("mirror");
const found = computed(() => props.sentence.names);

function follow() {
  // eslint-disable-next-line vue/no-mutating-props -- the sentence is shared with what hosts the field
  props.sentence.caret = input.value?.selectionStart ?? 0;
  if (mirror.value && input.value) mirror.value.scrollLeft = input.value.scrollLeft;
}
const text = computed({
  get: () => props.sentence.text,
  set: (to) => {
    // eslint-disable-next-line vue/no-mutating-props -- likewise
    props.sentence.text = to;
  },
});
function arrow(e: KeyboardEvent, by: number) {
  if (found.value.found.length) {
    e.preventDefault();
    found.value.step(by);
  } else if (by > 0) {
    e.preventDefault();
    emit("down");
  } else if (props.sentence.text === "") {
    e.preventDefault();
    emit("again");
  }
}
function key(e: KeyboardEvent) {
  if (e.isComposing) return;
  const plain = !e.ctrlKey && !e.metaKey && !e.altKey && !e.shiftKey;
  if (e.key === "Enter") {
    if (e.shiftKey) return;
    e.preventDefault();
    if (plain && found.value.at >= 0) props.sentence.complete(found.value.at);
    else emit("enter", plain ? "plain" : e.altKey ? "exact" : "open");
  } else if (e.key === "Tab" && plain) props.sentence.tab(e);
  else if (e.key === "Escape") {
    e.preventDefault();
    if (props.sentence.setAside()) e.stopPropagation();
    else emit("leave", e);
  } else if (e.key === "ArrowDown" && plain) arrow(e, 1);
  else if (e.key === "ArrowUp" && plain) arrow(e, -1);
}
defineExpose({ input });
</script>

<template>
  <div class="field">
    <div ref="mirror" class="mirror" aria-hidden="true">
      <span v-for="(p, i) in sentence.pieces" :key="i" :class="p.read">{{ p.text }}</span>
    </div>
    <input
      ref="input"
      v-model="text"
      type="text"
      role="combobox"
      :aria-label="label"
      :placeholder="placeholder"
      autocomplete="off"
      enterkeyhint="done"
      aria-autocomplete="list"
      :aria-controls="found.found.length ? names : undefined"
      :aria-expanded="found.found.length > 0"
      :aria-activedescendant="found.at >= 0 ? `${names}-${found.at}` : undefined"
      :aria-invalid="wrong || (sentence.reading?.problems.length ?? 0) > 0"
      :aria-describedby="below"
      @input="follow"
      @scroll="follow"
      @select="follow"
      @keyup="follow"
      @click="follow"
      @paste="$emit('paste', $event)"
      @keydown="key"
    />
  </div>
</template>

<style scoped>
.field {
  position: relative;
  flex: 1;
  min-width: 0;
  height: 100%;
}
input,
.mirror {
  width: 100%;
  height: 100%;
  padding-inline: var(--sentence-inset, 0);
  line-height: var(--sentence-line, 36px);
  white-space: pre;
}
input {
  position: relative;
  outline: none;
}
.mirror {
  position: absolute;
  inset: 0;
  overflow: hidden;
  color: transparent;
  pointer-events: none;
}
.yes,
.problem {
  padding-bottom: 1px;
  border-bottom: 2px solid var(--fill);
}
.problem {
  border-bottom-color: var(--madder);
}
.offer {
  padding-bottom: 1px;
  border-bottom: 2px dotted var(--pencil);
}
</style>
