<script setup lang="ts">
import { computed } from "vue";
import type { Attachment, Overview } from "@/server/client";
import { sizeWords } from "@/server/attach";
import ReadingBelow from "./ReadingBelow.vue";
import type { Sentence } from "./sentence";

/** What stands under the capture line: what was understood, or how to say it. */
const props = defineProps<{
  sentence: Sentence;
  reason: string;
  /** Files that go with the to-do. */
  files: Attachment[];
  overview?: Overview;
}>();
defineEmits<{ try: [sentence: string]; away: [hash: string] }>();
const text = computed(() => props.sentence.text.trim());

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
    <ReadingBelow :sentence="sentence" names="capture-names" :reason="reason">
      <p v-if="text && sentence.reading" class="title">{{ sentence.reading.title || "…" }}</p>
      <p v-if="files.length && !text" class="ask">
        Say what is to be done; the {{ files.length > 1 ? "files go" : "file goes" }} with it.
      </p>
      <ul v-if="files.length" class="files" aria-label="Files that go with it">
        <li v-for="f in files" :key="f.hash">
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
    </ReadingBelow>
    <template v-if="text && sentence.reading">
      <p class="hint">
        <span class="key">Enter</span> put in <span class="key">Ctrl Enter</span> put in and open
        <span class="key">Esc</span>
        {{ sentence.offers.length ? "set the offers aside" : "leave for later" }}
        <span class="key">Alt Enter</span> put in exactly as typed
        <span v-if="sentence.reading.chips.length" class="more">
          <span class="key">↓</span> to the chips: Enter opens one, Delete leaves its words as words
        </span>
      </p>
    </template>
    <template v-else-if="!text && !files.length">
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
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.ask {
  color: var(--pencil);
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
.files li {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 2px 2px 2px 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.files .label {
  color: var(--pencil);
  font-size: 14px;
}
.files button {
  width: 24px;
  height: 24px;
  cursor: pointer;
}
</style>
