<script setup lang="ts">
import { computed } from "vue";
import type { Attachment, Chip, Overview, SentenceOffer } from "@/server/client";
import { sizeWords } from "@/server/attach";
import { chipLabels } from "@/words/fields";
import type { Read } from "@/server/reading";
import ReadingChip from "./ReadingChip.vue";

/** What stands under the capture line: what was understood, or how to say it. */
const props = defineProps<{
  text: string;
  reading?: Read;
  reason: string;
  /** Names that would complete what is typed, and the one chosen, -1 for none. */
  names: string[];
  at: number;
  /** What was left as words and might mean a field. */
  offers: SentenceOffer[];
  /** Files that go with the to-do. */
  files: Attachment[];
  /** The list that is shown, where it takes what the sentence says. */
  here?: string;
  overview?: Overview;
}>();
defineEmits<{
  complete: [nth: number];
  try: [sentence: string];
  without: [sentence: string];
  open: [chip: Chip, at: HTMLElement];
  take: [offer: SentenceOffer, at: HTMLElement];
  cup: [];
  away: [hash: string];
}>();

/** Sentences to try, of the person's own people and tags; none that are not there. */
const examples = computed(() => {
  const person = props.overview?.people[0]?.name;
  const tag = props.overview?.tags[0]?.name;
  return [
    "Ring the framer tomorrow at 10",
    "Order mount board by Friday 4pm high 20 min",
    "Water the seedlings every other day until 20 December",
    `Crate sizes, ${person ? `waiting on ${person}, ` : ""}remind me Thursday at 9:30`,
    "Descale the kettle 30 days after done",
    `Write the labels, plan next week${tag ? `, #${tag}` : ""} -- sixty words each`,
  ];
});
</script>

<template>
  <div class="panel">
    <ul v-if="names.length" id="capture-names" role="listbox" aria-label="Names" class="names">
      <li
        v-for="(name, i) in names"
        :id="`capture-name-${i}`"
        :key="name"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @click="$emit('complete', i)"
      >
        {{ name }}
      </li>
      <li class="how" role="presentation"><span class="key">Tab</span> takes the first</li>
    </ul>
    <p v-if="reason" class="reason" role="alert">{{ reason }}</p>
    <p v-if="text.trim() && reading" class="title">{{ reading.title || "…" }}</p>
    <p v-if="files.length && !text.trim()" class="ask">
      Say what is to be done; the {{ files.length > 1 ? "files go" : "file goes" }} with it.
    </p>
    <ul v-if="files.length" class="chips files" aria-label="Files that go with it">
      <li v-for="f in files" :key="f.hash" class="here">
        <span class="label">file</span> {{ f.name }}, {{ sizeWords(f.size) }}
        <button
          tabindex="-1"
          data-walk
          :aria-label="`Leave ${f.name} out`"
          @click="$emit('away', f.hash)"
        >
          ×
        </button>
      </li>
    </ul>
    <template v-if="text.trim() && reading">
      <ul v-if="reading.chips.length || here" class="chips" aria-label="Understood">
        <li v-for="chip in reading.chips" :key="chip.field + chip.words">
          <ReadingChip
            :chip="chip"
            @open="(at) => $emit('open', chip, at)"
            @without="$emit('without', chip.without)"
          />
        </li>
        <li v-if="here" class="here">
          <span class="label">list</span> {{ here }}, which is shown
          <button tabindex="-1" data-walk aria-label="Into the Cup instead" @click="$emit('cup')">
            ×
          </button>
        </li>
      </ul>
      <ul v-if="offers.length" class="chips" aria-label="Might mean">
        <li v-for="(offer, i) in offers" :key="offer.words + offer.value">
          <button
            class="offer"
            tabindex="-1"
            data-walk
            @click="$emit('take', offer, $event.currentTarget as HTMLElement)"
          >
            <span class="label">{{ chipLabels[offer.field] }}</span> {{ offer.value }}?
            <span v-if="i === 0 && !names.length" class="key">Tab</span>
          </button>
        </li>
      </ul>
      <p v-if="reading.remark" class="notes">{{ reading.remark }}</p>
      <p v-if="reading.notes" class="notes">Notes: {{ reading.notes }}</p>
      <div v-if="reading.problems.length" class="problems" role="status">
        <p v-for="p in reading.problems" :key="p.reason">{{ p.reason }}</p>
      </div>
      <p class="hint">
        <span class="key">Enter</span> put in <span class="key">Ctrl Enter</span> put in and open
        <span class="key">Esc</span>
        {{ offers.length ? "set the offers aside" : "leave for later" }}
        <span v-if="reading.chips.length" class="more">
          <span class="key">↓</span> to the chips: Enter opens one, Delete leaves its words as words
        </span>
      </p>
    </template>
    <template v-else-if="!text.trim() && !files.length">
      <p class="ask">
        Say it as you would to a colleague. Commas part what belongs to the title from the rest.
      </p>
      <ul class="examples" aria-label="Sentences to try">
        <li v-for="e in examples" :key="e">
          <button tabindex="-1" data-walk @click="$emit('try', e)">{{ e }}</button>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.panel {
  position: absolute;
  z-index: 20;
  top: 100%;
  left: -2px;
  right: -2px;
  max-height: calc(100dvh - 80px);
  padding: 10px 14px 12px;
  overflow-y: auto;
  border: 2px solid var(--rim);
  border-top: 1px solid var(--tin);
  border-radius: 0 0 var(--corner) var(--corner);
  background: var(--glaze);
  color: var(--ink);
  box-shadow: 0 10px 18px rgb(0 0 0 / 14%);
}
ul {
  list-style: none;
}
.title {
  font-family: var(--slab);
  font-size: 16px;
  font-weight: 600;
  line-height: 22px;
  overflow-wrap: anywhere;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.notes,
.ask {
  color: var(--pencil);
}
.notes {
  margin-top: 8px;
}
.problems,
.reason {
  color: var(--madder);
  font-weight: 600;
}
.problems {
  margin-top: 8px;
}
.reason {
  margin-bottom: 6px;
}
.hint {
  margin-top: 10px;
  color: var(--pencil);
  font-size: 13px;
}
.hint .key:not(:first-child),
.more {
  margin-left: 10px;
}
.names {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin-bottom: 8px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--tin);
}
.names [role="option"] {
  padding: 3px 10px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  cursor: pointer;
}
.names [role="option"]:hover {
  background: var(--wash);
}
.names .at {
  border-color: var(--rim);
  background: var(--wash);
}
.how {
  margin-left: auto;
  color: var(--pencil);
  font-size: 13px;
}
.examples {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 12px;
  margin: 6px -8px 0;
}
.examples button {
  width: 100%;
  min-height: 28px;
  padding: 3px 8px;
  border-radius: var(--corner);
  color: var(--rim);
  text-align: left;
  cursor: pointer;
}
.examples button:hover {
  background: var(--wash);
}
@media (max-width: 760px) {
  .panel {
    top: auto;
    bottom: 100%;
    max-height: 60dvh;
    border-top: 2px solid var(--rim);
    border-bottom: 1px solid var(--tin);
    border-radius: var(--corner) var(--corner) 0 0;
  }
  .examples {
    grid-template-columns: 1fr;
  }
  .hint {
    display: none;
  }
}
.here {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 2px 2px 2px 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.here .label {
  color: var(--pencil);
  font-size: 14px;
}
.here button {
  width: 24px;
  height: 24px;
  cursor: pointer;
}
.offer {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 2px 8px;
  border: 1px dashed var(--pencil);
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.offer:hover,
.offer:focus-visible {
  background: var(--wash);
  color: var(--rim);
}
@media (pointer: coarse) {
  .offer {
    min-height: 40px;
  }
  .offer .key {
    display: none;
  }
}
</style>
