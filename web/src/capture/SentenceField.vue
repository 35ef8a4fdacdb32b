<script setup lang="ts">
import { useMediaQuery } from "@vueuse/core";
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
const input = useTemplateRef<HTMLInputElement | HTMLTextAreaElement>("input");
/** On a phone a long sentence goes on in further lines. */
const narrow = useMediaQuery("(max-width: 760px)");
const mirror = useTemplateRef("mirror");
const found = computed(() => props.sentence.names);

function follow() {
  // eslint-disable-next-line vue/no-mutating-props -- the sentence is shared with what hosts the field
  props.sentence.caret = input.value?.selectionStart ?? 0;
  if (!mirror.value || !input.value) return;
  mirror.value.scrollLeft = input.value.scrollLeft;
  mirror.value.scrollTop = input.value.scrollTop;
}
const text = computed({
  get: () => props.sentence.text,
  set: (to) => {
    // eslint-disable-next-line vue/no-mutating-props -- likewise
    props.sentence.text = to.replaceAll(/[\r\n]+/g, " "); // it is one line, however it is drawn
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
    e.preventDefault();
    if (e.shiftKey) return;
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
/** The field's attributes, whether it is drawn in one line or in several. */
const field = computed(() => ({
  role: "combobox",
  "aria-label": props.label,
  placeholder: props.placeholder,
  autocomplete: "off",
  enterkeyhint: "done" as const,
  "aria-autocomplete": "list" as const,
  "aria-controls": found.value.found.length ? props.names : undefined,
  "aria-expanded": found.value.found.length > 0,
  "aria-activedescendant": found.value.at >= 0 ? `${props.names}-${found.value.at}` : undefined,
  "aria-invalid": props.wrong || (props.sentence.reading?.problems.length ?? 0) > 0,
  "aria-describedby": props.below,
}));
const heard = {
  input: follow,
  scroll: follow,
  select: follow,
  keyup: follow,
  click: follow,
  paste: (e: ClipboardEvent) => emit("paste", e),
  keydown: key,
};
defineExpose({ input });
</script>

<template>
  <div class="field" :class="{ several: narrow }">
    <div ref="mirror" class="mirror" aria-hidden="true">
      <span v-for="(p, i) in sentence.pieces" :key="i" :class="p.read">{{ p.text }}</span>
    </div>
    <textarea v-if="narrow" ref="input" v-model="text" rows="1" v-bind="field" v-on="heard" />
    <input v-else ref="input" v-model="text" type="text" v-bind="field" v-on="heard" />
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
input,
textarea {
  position: relative;
  outline: none;
}
/* As many lines as the sentence needs, three at most; further ones by scrolling. */
textarea,
.field.several .mirror {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
textarea {
  display: block;
  width: 100%;
  height: auto;
  max-height: calc(3 * var(--sentence-line, 36px));
  padding: 0 var(--sentence-inset, 0);
  overflow-y: auto;
  line-height: var(--sentence-line, 36px);
  resize: none;
  scrollbar-width: none;
  field-sizing: content;
}
.field.several {
  height: auto;
}
.several ::placeholder {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
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
