<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from "vue";
import { useRouter } from "vue-router";
import {
  ask,
  client,
  type Given,
  type Line,
  type Overview,
  send,
  type SentenceOffer,
} from "@/server/client";
import { useActions } from "@/server/actions";
import { useCurrent } from "@/state/current";
import { useServer } from "@/server/server";
import { useToasts } from "@/kit/toasts";
import { chipLabels } from "@/words/fields";
import { ending, lineAt, withSentence } from "./lines";
import LayerDialog from "@/kit/LayerDialog.vue";
import ChipChooser from "./ChipChooser.vue";
import PasteLine from "./PasteLine.vue";

/** Several lines at once, shown as the tree they would become. */
defineProps<{ overview: Overview }>();
const current = useCurrent();
const actions = useActions();
const server = useServer();
const toasts = useToasts();
const router = useRouter();
const dialog = useTemplateRef("dialog");
const pasted = current.pasted;
const text = ref(pasted?.text ?? "");
const list = ref(pasted?.list ?? pasted?.given?.find((g) => g.field === "list")?.value ?? "");
/** Values that the sheet gives to each line; the list is chosen at the foot. */
const given = ref<Given[]>((pasted?.given ?? []).filter((g) => g.field !== "list"));
const lines = ref<Line[]>([]);
/** The text that the lines were read from, and the one whose offers Esc has set aside. */
const readOf = ref("");
const aside = ref("");
const area = useTemplateRef("area");
/** An offer whose value is chosen first, with its line. */
const opened = ref<{ line: Line; offer: SentenceOffer; at: HTMLElement }>();
const reason = ref("");
const busy = ref(false);
let asked = 0;

const faults = computed(() => lines.value.filter((l) => l.reading.problems.length > 0).length);
const body = computed(() => ({
  text: text.value,
  list: list.value || null,
  ...(pasted?.section && pasted.list === list.value && { section: pasted.section }),
  ...(pasted?.parent && { parent: pasted.parent }),
  ...(pasted?.after && { after: pasted.after }),
  given: given.value.map(({ field, value }) => ({ field, value })),
}));

async function read() {
  const nth = ++asked;
  const said = text.value;
  try {
    const answer = await ask(() => client.POST("/api/lines", { body: body.value }));
    if (nth !== asked) return;
    lines.value = answer.lines;
    readOf.value = said;
    reason.value = "";
  } catch (e) {
    if (nth !== asked) return;
    lines.value = [];
    reason.value = e instanceof Error ? e.message : "The lines could not be read.";
  }
}
watch(body, () => void read(), { immediate: true });

/** Offers of a line, as long as its words are those that were read. */
const offersOf = (line: Line) =>
  readOf.value === text.value && aside.value !== text.value ? line.reading.offers : [];
/** Puts another sentence in the place of a line's, and the caret behind it. */
async function say(line: Line, sentence: string) {
  if (readOf.value !== text.value) return;
  text.value = withSentence(text.value, line, sentence);
  await nextTick();
  const at = ending(text.value, line.number);
  area.value?.focus();
  area.value?.setSelectionRange(at, at);
}
function take(line: Line, offer: SentenceOffer, at: HTMLElement) {
  if (offer.choose === undefined) void say(line, offer.taken);
  else opened.value = { line, offer, at };
}
function choose(words: string | undefined) {
  const { line, offer } = opened.value ?? {};
  opened.value = undefined;
  if (line && words) void say(line, `${offer?.choose}, ${words}`);
  else area.value?.focus();
}
/** Tab takes the first offer of the line that the caret is in; Esc sets them aside. */
function key(e: KeyboardEvent) {
  const el = area.value;
  if (e.isComposing || !el) return;
  const line = lines.value.find((l) => l.number === lineAt(text.value, el.selectionStart));
  const [offer] = line ? offersOf(line) : [];
  if (!line || !offer) return;
  if (e.key === "Tab" && !e.shiftKey && !e.ctrlKey && !e.altKey) take(line, offer, el);
  else if (e.key === "Escape") aside.value = text.value;
  else return;
  e.preventDefault();
  e.stopPropagation();
}

async function putIn() {
  busy.value = true;
  try {
    const done = await send((header) =>
      client.POST("/api/lines/todos", {
        params: { header },
        body: { ...body.value, ...server.wall() },
      }),
    );
    server.refresh(done.change.revision);
    toasts.show({ text: done.change.says, undo: done.change.revision });
    current.pasted = undefined;
    await router.push(list.value ? `/list/${list.value}` : "/cup");
  } catch (e) {
    actions.trouble(e);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="paste"
    class="paste"
    labelledby="paste-title"
    @close="current.pasted = undefined"
  >
    <header>
      <h1 id="paste-title">Several at once</h1>
      <p>
        Each line is read as a sentence. Two spaces or a tab make a subtask; a line
        <code># Heading</code> makes a section of a list, and in the Cup holds what stands under it.
      </p>
    </header>
    <div class="columns">
      <textarea
        ref="area"
        v-model="text"
        autofocus
        aria-label="The lines"
        spellcheck="false"
        @keydown="key"
      />
      <div class="tree" role="group" aria-label="What they become">
        <p v-if="reason" class="wrong" role="alert">{{ reason }}</p>
        <ul>
          <li
            v-for="line in lines"
            :key="line.number"
            class="line"
            :style="{ paddingLeft: `${line.depth * 20}px` }"
            :data-depth="line.depth"
          >
            <PasteLine
              :line="line"
              :offers="offersOf(line)"
              @take="(offer, at) => take(line, offer, at)"
              @without="(sentence) => say(line, sentence)"
            />
          </li>
        </ul>
      </div>
    </div>
    <ul v-if="given.length" class="given" aria-label="Each of them">
      <li class="each" role="presentation">each with</li>
      <li v-for="g in given" :key="g.field + g.value">
        <span class="label">{{ chipLabels[g.field] }}</span> {{ g.text }}
        <button
          :aria-label="`Without ${chipLabels[g.field]} ${g.text}`"
          @click="given = given.filter((other) => other !== g)"
        >
          ×
        </button>
      </li>
    </ul>
    <footer>
      <label>
        into
        <select v-model="list" aria-label="Into">
          <option value="">The Cup</option>
          <optgroup v-for="shelf in overview.shelves" :key="shelf.id" :label="shelf.name">
            <option v-for="l in shelf.lists" :key="l.id" :value="l.id">{{ l.name }}</option>
          </optgroup>
        </select>
      </label>
      <span class="grow" :class="{ wrong: faults }" role="status">{{
        faults
          ? `${faults} ${faults === 1 ? "line cannot" : "lines cannot"} be put in as it stands`
          : ""
      }}</span>
      <button class="btn quiet" @click="dialog?.close()">Cancel</button>
      <button class="btn main" :disabled="busy || faults > 0 || !lines.length" @click="putIn">
        {{ lines.length === 1 ? "Put in 1 to-do" : `Put in ${lines.length} to-dos` }}
      </button>
    </footer>
    <ChipChooser
      v-if="opened"
      :chip="{ ...opened.offer, without: '' }"
      :at="opened.at"
      :reading="{ ...opened.line.reading, text: opened.line.sentence }"
      :overview="overview"
      @reword="choose"
    />
  </LayerDialog>
</template>

<style scoped>
.paste {
  width: min(900px, calc(100vw - 24px));
  max-width: none;
  max-height: calc(100dvh - 48px);
  margin: auto;
  padding: 18px 20px;
}
h1 {
  font-size: 20px;
  line-height: 28px;
}
header p,
.label {
  color: var(--pencil);
}
.paste[open] {
  display: flex;
  flex-direction: column;
}
.columns {
  display: grid;
  grid-template-columns: 2fr 3fr;
  gap: 12px;
  height: min(420px, 56dvh);
  margin: 12px 0;
}
textarea,
.tree {
  overflow: auto;
  padding: 8px 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
textarea {
  resize: none;
  white-space: pre;
  tab-size: 2;
}
ul {
  list-style: none;
}
.given li,
.line {
  display: flex;
  gap: 8px;
  padding-block: 4px;
}
.label {
  font-size: 13px;
}
.wrong {
  color: var(--madder);
}
.given {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.given li {
  align-items: center;
  padding: 2px 2px 2px 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.given .each {
  padding-left: 0;
  border: 0;
}
.given button {
  width: 24px;
  height: 24px;
  cursor: pointer;
}
footer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.grow {
  flex: 1;
}
select {
  height: 30px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (max-width: 760px) {
  .columns {
    grid-template-columns: 1fr;
    grid-template-rows: 1fr 2fr;
    flex: 0 1 64dvh;
    height: auto;
    min-height: 0;
  }
}
</style>
