<script setup lang="ts">
import { until } from "@vueuse/core";
import { computed, onMounted, ref, useId, useTemplateRef, watch } from "vue";
import type { Given, List } from "@/server/client";
import { useMenu } from "@/kit/menu";
import { useCurrent } from "@/state/current";
import { useOverview } from "@/server/queries";
import { type How, type Into, type Says, useCapture } from "./capture";
import ChipChooser from "./ChipChooser.vue";
import ReadingBelow from "./ReadingBelow.vue";
import SentenceField from "./SentenceField.vue";
import { severalLines } from "./brought";
import { useSentence, walkBelow } from "./sentence";

/** A line of a sheet, of a row or of a slip that puts to-dos straight into it. */
const props = defineProps<{
  /** By what the line is told from others while it is typed in. */
  line: string;
  label: string;
  placeholder: string;
  into: Into;
  /** Values that the sheet gives to what is put in here. */
  given?: Given[];
  /** How much the message says of where it went. */
  says?: Says;
  /** The lists among which one is asked for, where the sentence names none. */
  among?: Pick<List, "id" | "name">[];
  /** It was asked for just now, and takes the focus. */
  now?: boolean;
}>();
const emit = defineEmits<{
  /** Esc, or Enter in an empty line. */
  leave: [];
  /** The focus has gone elsewhere, and the line is empty. */
  left: [];
  put: [id: string];
}>();
const current = useCurrent();
const { data: overview } = useOverview();
const id = useId();
const root = useTemplateRef("root");
const field = useTemplateRef("field");
const focused = ref(false);
/** What was taken away of the given, for the next to-do. */
const without = ref<string[]>([]);
const still = computed(() =>
  (props.given ?? []).filter((g) => !without.value.includes(g.field + g.value)),
);
/** The list that was chosen for the next to-do. */
const chosen = ref<string>();
const menus = useMenu();
const { text, reason, putIn, back } = useCapture(
  () => props.line,
  () => ({
    ...props.into,
    ...(chosen.value && { list: chosen.value }),
    given: still.value.map(({ field, value }) => ({ field, value })),
  }),
  props.says,
);
const sentence = useSentence(text, () => field.value?.input ?? undefined, overview);
onMounted(() => props.now && field.value?.input?.focus());
watch(
  () => props.line,
  () => (without.value = []),
);

async function enter(how: How) {
  if (!text.value.trim()) return emit("leave");
  if (props.among && !chosen.value && !(await names())) return ask(how);
  const made = await putIn(how, how === "exact" ? undefined : sentence.meant());
  chosen.value = undefined;
  if (!made) return;
  without.value = [];
  emit("put", made.id);
}
/** How long the reading of a sentence is waited for before its list is asked for, in ms. */
const untilRead = 800;
/** Whether the sentence names a list. Until it is read nothing is added to it. */
async function names() {
  const input = field.value?.input;
  if (input) input.readOnly = true;
  await until(() => sentence.reading?.text === text.value).toBe(true, { timeout: untilRead });
  if (input) input.readOnly = false;
  const read = sentence.reading;
  return read?.text === text.value && Boolean(read.list ?? read.newList);
}
function ask(how: How) {
  const at = field.value?.input;
  if (!at) return;
  menus.menu = {
    label: "Into which list?",
    asks: true,
    at,
    items: (props.among ?? []).map(({ id: list, name }) => ({
      name,
      act: () => {
        chosen.value = list;
        void enter(how);
      },
    })),
  };
}
function leave(e: KeyboardEvent) {
  e.stopPropagation();
  emit("leave");
}
function down() {
  root.value?.querySelector<HTMLElement>(".below [data-walk]")?.focus();
}
function paste(e: ClipboardEvent) {
  const lines = severalLines(e);
  if (lines) current.pasted = { text: lines, ...props.into, given: still.value };
}
function blur(e: FocusEvent) {
  if (root.value?.contains(e.relatedTarget as Node | null)) return;
  focused.value = false;
  if (!text.value.trim() && !sentence.opened) emit("left");
}
</script>

<template>
  <div ref="root" class="sentence-line" @focusin="focused = true" @focusout="blur">
    <div class="box" :class="{ focused }">
      <SentenceField
        ref="field"
        :sentence="sentence"
        :label="label"
        :placeholder="placeholder"
        :below="`${id}-below`"
        :names="`${id}-names`"
        :wrong="reason !== ''"
        @enter="enter"
        @down="down"
        @again="back"
        @leave="leave"
        @paste="paste"
      />
    </div>
    <div
      v-if="focused || text.trim()"
      :id="`${id}-below`"
      class="below"
      @mousedown.prevent
      @keydown="walkBelow($event, root, () => field?.input?.focus())"
    >
      <ReadingBelow
        :sentence="sentence"
        :names="`${id}-names`"
        :reason="reason"
        :given="still"
        @without="(g) => without.push(g.field + g.value)"
      />
    </div>
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
.box {
  height: 36px;
  border: 1px dashed var(--tin);
  border-radius: var(--corner);
  --sentence-inset: 11px;
  --sentence-line: 34px;
}
.box.focused {
  border: 1px solid var(--rim);
  background: var(--glaze);
}
@media (max-width: 760px) {
  .box {
    height: auto;
    padding-block: 4px;
    --sentence-line: 26px;
  }
}
@media (pointer: coarse) and (min-width: 761px) {
  .box {
    height: 44px;
    --sentence-line: 42px;
  }
}
</style>
