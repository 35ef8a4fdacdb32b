<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from "vue";
import { useRoute } from "vue-router";
import type { Chip, Overview, SentenceOffer } from "@/server/client";
import { useCapture } from "./capture";
import { useCompletion } from "./completion";
import { useCurrent } from "@/state/current";
import { offered, reword, useReading } from "@/server/reading";
import CapturePanel from "./CapturePanel.vue";
import ChipChooser from "./ChipChooser.vue";
import { useGiven } from "./given";
import { piecesOf } from "./pieces";

const props = defineProps<{ overview?: Overview }>();
const route = useRoute();
/** The list that is shown takes what is put in, unless the sentence names another. */
const here = computed(() => {
  const id = route.name === "list" ? String(route.params.list) : undefined;
  return props.overview?.shelves.flatMap((s) => s.lists).find((l) => l.id === id);
});
/** The person has sent what is typed to the Cup all the same. */
const toCup = ref(false);
watch(here, () => (toCup.value = false));
const { text, reason, putIn, files, addFiles } = useCapture("capture", () =>
  here.value && !toCup.value ? { list: here.value.id } : {},
);
const placeholder = computed(() => {
  const [file, ...more] = files.value;
  if (file) return `Say what is to be done with ${file.name}${more.length ? " and others" : ""}`;
  const list = here.value ?? props.overview?.shelves.flatMap((s) => s.lists)[0];
  return `Say it: Order mount board, by Friday 4pm, ${list ? `in ${list.name}, ` : ""}high`;
});
const reading = useReading(text);
const current = useCurrent();
const root = useTemplateRef("root");
const input = useTemplateRef("input");
const mirror = useTemplateRef("mirror");
const focused = ref(false);
/** Examples are offered on coming to the line, and not again right after putting in. */
const examples = ref(true);
const caret = ref(0);
const completion = useCompletion(
  text,
  caret,
  computed(() => props.overview),
);
/** A chip with its chooser open; of an offer, the sentence without its words. */
const opened = ref<{ chip: Chip; at: HTMLElement; without?: string }>();

watch(
  () => current.capture,
  () => input.value?.focus(),
);

/** Esc sets the offers of a sentence aside. */
const aside = ref("");
/** Offers of the words as they stand: one of older words would bring those back. */
const offers = computed(() =>
  reading.value && reading.value.text === text.value && aside.value !== text.value
    ? reading.value.offers
    : [],
);

const pieces = computed(() => piecesOf(text.value, reading.value, offers.value));
const open = computed(
  () =>
    reason.value !== "" ||
    opened.value !== undefined ||
    (focused.value && (examples.value || text.value.trim() !== "" || files.value.length > 0)),
);

function follow() {
  caret.value = input.value?.selectionStart ?? 0;
  if (mirror.value && input.value) mirror.value.scrollLeft = input.value.scrollLeft;
}
async function write(to: string, at = to.length) {
  text.value = to;
  await nextTick();
  input.value?.focus();
  input.value?.setSelectionRange(at, at);
  follow();
}
function clear() {
  files.value = [];
  void write("");
}
function complete(nth: number) {
  const c = completion.found.value[nth];
  if (c) void write(c.text, c.caret);
}
function enter(andOpen: boolean) {
  if (completion.at.value >= 0) return complete(completion.at.value);
  examples.value = false;
  // After a Tab whose offer is still on its way, Enter puts in what the offer says.
  const ahead = wished.value === text.value && reading.value?.text !== text.value;
  void putIn(andOpen, ahead ? offered : undefined);
}
function leave(e: FocusEvent) {
  if (root.value?.contains(e.relatedTarget as Node | null)) return;
  focused.value = false;
  examples.value = true;
}
/** Arrows walk over the chips or examples, and back to the line. */
function panelKey(e: KeyboardEvent) {
  const buttons = [...(root.value?.querySelectorAll<HTMLElement>(".panel [data-walk]") ?? [])];
  const at = buttons.indexOf(document.activeElement as HTMLElement);
  const by = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[e.key];
  if (e.key === "Escape" || (by === -1 && at === 0)) input.value?.focus();
  else if (by) buttons[Math.min(at + by, buttons.length - 1)]?.focus();
  else return;
  e.preventDefault();
  e.stopPropagation();
}
function arrow(e: KeyboardEvent, by: number) {
  if (completion.found.value.length) {
    e.preventDefault();
    completion.step(by);
    return;
  }
  const first = root.value?.querySelector<HTMLElement>(".panel [data-walk]");
  if (by < 0 || !first) return;
  e.preventDefault();
  first.focus();
}
/** Tab was pressed on words whose reading is on its way: its offer is meant. */
const wished = ref("");
watch(offers, ([offer]) => {
  if (offer && wished.value === text.value && focused.value) take(offer);
});
/** Takes an offer: its sentence, or its chooser where what it means is chosen first. */
function take(offer: SentenceOffer, at?: HTMLElement) {
  if (offer.choose === undefined) return void write(offer.taken);
  const { field, words, value, spans } = offer;
  opened.value = {
    chip: { field, words, value, spans, without: "" },
    at: at ?? input.value ?? document.body,
    without: offer.choose,
  };
}
function tab(e: KeyboardEvent) {
  const [offer] = offers.value;
  const late = text.value.trim() !== "" && reading.value?.text !== text.value;
  // Once: a second Tab goes on, whether the server answers or not.
  if (late && !completion.found.value.length && wished.value !== text.value) {
    wished.value = text.value;
    return e.preventDefault();
  }
  if (!completion.found.value.length && !offer) return;
  e.preventDefault();
  if (completion.found.value.length) complete(Math.max(completion.at.value, 0));
  else if (offer) take(offer);
}
function escape() {
  if (completion.found.value.length) completion.dismiss();
  else if (offers.value.length) aside.value = text.value;
  else input.value?.blur();
}
const { over, drop, dragOver, paste } = useGiven(
  (some) => void addFiles(some).then(() => input.value?.focus()),
  (lines) => (current.pasted = lines),
);

/** A chip that is opened: its chooser, or else its words to write anew. */
function openChip(chip: Chip, at: HTMLElement) {
  if (["due", "start", "plan", "list", "priority", "repeat"].includes(chip.field)) {
    opened.value = { chip, at };
    return;
  }
  const span = chip.spans[0];
  input.value?.focus();
  if (span) input.value?.setSelectionRange(span.start, span.end);
}
function rewordChip(words: string | undefined) {
  const { chip, without } = opened.value ?? {};
  opened.value = undefined;
  if (without !== undefined && words) void write(`${without}, ${words}`);
  else if (without !== undefined) input.value?.focus();
  else if (chip && words !== undefined && reading.value) {
    void write(reword(reading.value.text, chip.spans, words));
  } else input.value?.focus();
}
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
    <div class="field">
      <div ref="mirror" class="mirror" aria-hidden="true">
        <span v-for="(p, i) in pieces" :key="i" :class="p.read">{{ p.text }}</span>
      </div>
      <input
        ref="input"
        v-model="text"
        type="text"
        role="combobox"
        aria-label="Put something in"
        :placeholder="placeholder"
        autocomplete="off"
        enterkeyhint="done"
        aria-autocomplete="list"
        aria-controls="capture-names"
        :aria-expanded="completion.found.value.length > 0"
        :aria-activedescendant="
          completion.at.value >= 0 ? `capture-name-${completion.at.value}` : undefined
        "
        :aria-invalid="reason !== '' || (reading?.problems.length ?? 0) > 0"
        aria-describedby="capture-panel"
        @input="follow"
        @scroll="follow"
        @select="follow"
        @keyup="follow"
        @click="follow"
        @paste="paste"
        @keydown.enter.exact.prevent="enter(false)"
        @keydown.ctrl.enter.exact.prevent="enter(true)"
        @keydown.meta.enter.exact.prevent="enter(true)"
        @keydown.down="arrow($event, 1)"
        @keydown.up="arrow($event, -1)"
        @keydown.tab.exact="tab"
        @keydown.esc.prevent="escape"
      />
    </div>
    <template v-if="text.trim() || files.length">
      <button v-if="text.trim()" class="key" tabindex="-1" @mousedown.prevent @click="enter(false)">
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
      :text="text"
      :reading="reading"
      :reason="reason"
      :names="completion.found.value.map((c) => c.name)"
      :at="completion.at.value"
      :offers="offers"
      :files="files"
      :here="here && !toCup && !reading?.list && !reading?.newList ? here.name : undefined"
      :overview="overview"
      @cup="toCup = true"
      @away="(hash) => (files = files.filter((f) => f.hash !== hash))"
      @mousedown.prevent
      @keydown="panelKey"
      @complete="complete"
      @try="(sentence) => write(sentence)"
      @without="(sentence) => write(sentence)"
      @open="openChip"
      @take="take"
    />
    <ChipChooser
      v-if="opened && overview && reading"
      :chip="opened.chip"
      :at="opened.at"
      :reading="reading"
      :overview="overview"
      @reword="rewordChip"
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
.field {
  position: relative;
  flex: 1;
  min-width: 0;
  height: 100%;
}
.field input,
.mirror {
  width: 100%;
  height: 100%;
  line-height: 36px;
  white-space: pre;
}
.field input {
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
.mirror .yes,
.mirror .problem {
  padding-bottom: 1px;
  border-bottom: 2px solid var(--fill);
}
.mirror .problem {
  border-bottom-color: var(--madder);
}
.mirror .offer {
  padding-bottom: 1px;
  border-bottom: 2px dotted var(--pencil);
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
    height: 44px;
    border: 2px solid var(--rim);
  }
  .field input,
  .mirror {
    line-height: 40px;
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
