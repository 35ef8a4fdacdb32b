<script setup lang="ts">
import { computed, onBeforeUnmount, ref, useTemplateRef, watch } from "vue";
import LayerDialog from "@/kit/LayerDialog.vue";
import OfferChip from "@/kit/OfferChip.vue";
import { useToasts } from "@/kit/toasts";
import { Away, type Overview } from "@/server/client";
import {
  type ImportPreview,
  type ImportRow,
  isEverything,
  leftOut,
  lookAt,
  saveText,
  stopImport,
  useBringIn,
} from "@/server/files";
import { useServer } from "@/server/server";
import { type IncomingFile, useCurrent } from "@/state/current";
import { shortMoment } from "@/words/dates";
import { chipLabels } from "@/words/fields";
import {
  behindWords,
  bringWords,
  changeWords,
  countWords,
  likeWords,
  passedWords,
  closedWords,
  whatWords,
} from "@/words/files";
import ColumnMap from "./ColumnMap.vue";
import ImportProgress from "./ImportProgress.vue";

/** What would become of the to-dos in a file, before it is kept. */
const props = defineProps<{ overview: Overview; incoming: IncomingFile }>();
const current = useCurrent();
const server = useServer();
const toasts = useToasts();
const bringIn = useBringIn();
const dialog = useTemplateRef("dialog");
const title = useTemplateRef("title");
const file = computed(() => props.incoming.file);
/** Enter was pressed before the preview was there. */
let wished = false;
/** Enter brings them in, and no other key does: someone may be typing on. */
function enter(e: KeyboardEvent) {
  if ((e.target as HTMLElement).closest("button, select")) return;
  e.preventDefault();
  if (!busy.value) void keep();
  // One that follows another was not seen by who presses it early.
  else if (!props.incoming.follows) wished = true;
}
const list = ref("");
/** What columns of a CSV file are that were named here, by their heads. */
const columns = ref<Record<string, string>>({});
/** What looks like a to-do that is there is left out. */
const leaving = ref(false);
/** Sentences with an offer taken, by their lines. */
const instead = ref<Record<number, string>>({});
/** Offers that need nothing chosen first. */
const offersOf = (r: ImportRow) => (r.offers ?? []).filter((o) => o.choose === undefined);
function take(line: number, sentence?: string) {
  const others = Object.entries(instead.value).filter(([at]) => Number(at) !== line);
  title.value?.focus(); // the button goes
  instead.value = Object.fromEntries([...others, ...(sentence ? [[line, sentence]] : [])]);
}
const reading = computed(() => ({
  instead: instead.value,
  list: list.value,
  columns: columns.value,
  leaving: leaving.value,
}));
const preview = ref<ImportPreview>();
const reason = ref("");
const busy = ref<"looking" | "keeping">();
const everything = computed(() => preview.value !== undefined && isEverything(preview.value));
const keeps = computed(() => {
  const p = preview.value;
  return p ? p.new + p.changed || Number(everything.value) : 0;
});
const behind = computed(() => current.incoming.slice(1).map((next) => next.file.name));
/** A second press that was meant for the preview before does nothing to one that follows it. */
const seen = ref(!props.incoming.follows);
watch(preview, () => setTimeout(() => (seen.value = true), 500), { once: true });
let asked = 0;
/** Ends what is being read: it is let go of, or read anew. */
let asking = new AbortController();
/** The server did not answer; it is asked again when it is back. */
const lost = ref(false);
/** What is kept after it was looked at is kept once, however often it is sent. */
let key = "";

async function look() {
  const nth = ++asked;
  asking.abort();
  asking = new AbortController();
  key = crypto.randomUUID();
  busy.value = "looking";
  try {
    const answer = await lookAt(file.value, reading.value, asking.signal);
    if (nth !== asked) return;
    preview.value = answer;
    reason.value = answer.reason ?? "";
    lost.value = false;
    busy.value = undefined;
    const now = wished;
    wished = false; // it was of this preview, and of no other
    if (now) await keep();
  } catch (e) {
    if (nth !== asked) return;
    wished = false;
    preview.value = undefined;
    failed(e);
  } finally {
    if (nth === asked) busy.value = undefined;
  }
}
watch(reading, () => void look(), { immediate: true });
watch(
  () => server.away,
  (away) => {
    if (!away && lost.value && !preview.value) void look();
  },
);
function failed(e: unknown) {
  reason.value = (e as Error).message;
  lost.value = e instanceof Away;
}

async function keep() {
  if (busy.value || !keeps.value || !seen.value) return;
  busy.value = "keeping";
  reason.value = "";
  try {
    await bringIn(file.value, reading.value, key);
    dialog.value?.close();
  } catch (e) {
    if (gone) toasts.show({ text: (e as Error).message });
    failed(e);
  } finally {
    busy.value = undefined;
  }
}
/** Closed while it is being brought in: it stops, or a notice says that it was too late. */
let gone = false;
const tooLate = ref(false);
onBeforeUnmount(() => {
  gone = true;
  asking.abort();
  if (busy.value === "keeping" && !tooLate.value)
    stopImport(key).catch((e: Error) => toasts.show({ text: e.message }));
});
function leaveAll() {
  current.incoming = [props.incoming];
  dialog.value?.close();
}
/** What is left out, for another file: it can be put right there and brought in again. */
const left = computed(() => (preview.value ? leftOut(preview.value) : undefined));
const mores = computed(() => {
  const p = preview.value;
  return p && !everything.value ? p.new + p.changed + p.same + p.refused - p.rows.length : 0;
});
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="import"
    class="import"
    labelledby="import-title"
    @keydown.enter="enter"
    @close="current.incoming = current.incoming.slice(1)"
  >
    <header>
      <h1 id="import-title" ref="title" tabindex="-1" autofocus>{{ file.name }}</h1>
      <ImportProgress
        v-model:too-late="tooLate"
        :busy="busy"
        :size="file.size"
        :says="preview ? countWords(preview) : ''"
      />
    </header>
    <p v-if="reason" class="wrong" role="alert">
      {{ reason }} <template v-if="lost && !preview">It is asked again when it is back.</template>
    </p>
    <ColumnMap
      v-if="preview?.columns"
      :columns="preview.columns"
      :names="preview.columnNames ?? []"
      @name="(head, is) => (columns = { ...columns, [head]: is })"
    />
    <label v-if="preview?.like || leaving" class="likes">
      <input v-model="leaving" type="checkbox" />
      <span>{{ likeWords(preview?.like) }}</span>
    </label>
    <p v-if="preview?.passed" class="passed">{{ passedWords(preview.passed) }}</p>
    <ul v-if="preview?.rows.length" tabindex="0" aria-label="What would become of each">
      <li v-for="(r, i) in preview.rows" :key="i" :class="r.what">
        <span v-if="!everything" class="what">{{ whatWords[r.what] }}</span>
        <span class="title" :style="{ paddingLeft: `${r.depth * 18}px` }">
          {{ r.title || "Without a title" }}
          <span v-if="r.reason" class="wrong"
            ><template v-if="r.line">Line {{ r.line }}: </template>{{ r.reason }}</span
          >
          <span v-else-if="r.like" class="more">looks like one you have</span>
          <span v-else-if="r.fields" class="more">{{ changeWords(r, overview.today) }}</span>
          <span v-for="m in r.remarks" :key="m" class="remark">{{ m }}</span>
          <span v-if="r.line && (offersOf(r).length || instead[r.line])" class="offers">
            <OfferChip
              v-for="offer in offersOf(r)"
              :key="offer.words + offer.value"
              :label="chipLabels[offer.field]"
              :value="offer.value"
              @click="take(r.line, offer.taken)"
            />
            <span v-if="instead[r.line]" class="more">read as “{{ instead[r.line] }}”</span>
            <button v-if="instead[r.line]" class="btn quiet" @click="take(r.line)">
              As it stands in the file
            </button>
          </span>
        </span>
        <span v-if="r.closed && r.what === 'new'" class="fact">{{ closedWords[r.closed] }}</span>
        <span v-if="r.due && r.what === 'new'" class="fact"
          >due {{ shortMoment(r.due, overview.today) }}</span
        >
        <span v-if="r.list && r.what === 'new'" class="fact">{{ r.list }}</span>
      </li>
      <li v-if="mores > 0" class="same">
        <span class="what" /><span class="title">and {{ mores }} more</span>
      </li>
    </ul>
    <footer>
      <label v-if="!everything">
        What names no list goes into
        <select v-model="list" aria-label="Into">
          <option value="">The Cup</option>
          <optgroup v-for="shelf in overview.shelves" :key="shelf.id" :label="shelf.name">
            <option v-for="l in shelf.lists" :key="l.id" :value="l.id">{{ l.name }}</option>
          </optgroup>
        </select>
      </label>
      <button
        v-if="left"
        class="btn quiet"
        title="As a file: put it right there, and bring that in"
        @click="saveText(`left out of ${file.name}${left.ending}`, left.text)"
      >
        Export what is left out
      </button>
      <p v-if="behind.length" class="behind">{{ behindWords(behind) }}</p>
      <div class="acts">
        <button v-if="behind.length" class="btn quiet" @click="leaveAll">Cancel all</button>
        <button class="btn quiet" @click="dialog?.close()">
          {{ tooLate ? "Close" : "Cancel" }}
        </button>
        <button class="btn main" :disabled="Boolean(busy) || !keeps || !seen" @click="keep">
          {{ busy === "looking" && !preview ? "Bring in" : bringWords(keeps, everything) }}
        </button>
      </div>
    </footer>
  </LayerDialog>
</template>

<style scoped>
.import {
  width: min(860px, calc(100vw - 24px));
}
h1 {
  overflow: hidden;
  outline: none;
  font-size: 20px;
  line-height: 28px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.likes {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  margin-top: 10px;
  cursor: pointer;
}
.likes input {
  accent-color: var(--rim);
}
.passed {
  margin-top: 8px;
  color: var(--pencil);
  font-size: 14px;
  overflow-wrap: anywhere;
}
.behind,
.more,
.fact,
.remark {
  color: var(--pencil);
}
ul {
  max-height: min(460px, 56dvh);
  margin: 12px 0;
  overflow: auto;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  padding: 7px 12px;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
li:last-child {
  border-bottom: 0;
}
.what {
  flex: none;
  width: 72px;
  color: var(--rim);
  font-size: 14px;
  font-weight: 600;
}
.same .what,
.same .title {
  color: var(--pencil);
  font-weight: 400;
}
.refused .what,
.wrong {
  color: var(--madder);
}
.title {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.title .wrong,
.more,
.remark {
  display: block;
  font-size: 14px;
  line-height: 20px;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin-top: 4px;
}
.fact {
  flex: none;
  font-size: 14px;
  white-space: nowrap;
}
footer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 12px;
}
.acts {
  display: flex;
  gap: 10px;
  margin-left: auto;
}
select {
  max-width: 200px;
  min-height: 30px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (max-width: 760px) {
  ul {
    max-height: 24dvh;
  }
  li {
    flex-wrap: wrap;
    row-gap: 2px;
  }
  .what {
    width: 58px;
  }
  .title {
    flex-basis: calc(100% - 70px);
  }
  .title + .fact {
    margin-left: 70px;
  }
}
@media (pointer: coarse) {
  .likes,
  select,
  .btn {
    min-height: 40px;
  }
}
</style>
