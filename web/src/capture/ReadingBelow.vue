<script setup lang="ts">
import { computed } from "vue";
import type { Given } from "@/server/client";
import OfferChip from "@/kit/OfferChip.vue";
import { chipLabels } from "@/words/fields";
import ReadingChip from "./ReadingChip.vue";
import type { Sentence } from "./sentence";

/** The part under a line: names that complete it, and what was understood, given and offered. */
const props = defineProps<{
  sentence: Sentence;
  /** The id of the list of names. */
  names: string;
  /** Why the last try was refused; "" for no reason. */
  reason: string;
  /** Values that the sheet gives to what is put into it. */
  given?: Given[];
}>();
defineEmits<{ without: [given: Given] }>();
const read = computed(() => (props.sentence.text.trim() ? props.sentence.reading : undefined));
/** Given values of fields that the sentence does not say itself. */
const still = computed(() =>
  (props.given ?? []).filter((g) => {
    const said = read.value?.chips ?? [];
    if (g.field === "tag") return !read.value?.tags.includes(g.value);
    return !said.some((c) => c.field === (g.field === "section" ? "list" : g.field));
  }),
);
</script>

<template>
  <ul
    v-if="sentence.names.found.length"
    :id="names"
    role="listbox"
    aria-label="Names"
    class="names"
  >
    <li
      v-for="(c, i) in sentence.names.found"
      :id="`${names}-${i}`"
      :key="c.name"
      role="option"
      :aria-selected="i === sentence.names.at"
      :class="{ at: i === sentence.names.at }"
      @click="sentence.complete(i)"
    >
      {{ c.name }}
    </li>
    <li class="how" role="presentation"><span class="key">Tab</span> takes the first</li>
  </ul>
  <p v-if="reason" class="reason" role="alert">{{ reason }}</p>
  <slot />
  <ul v-if="read?.chips.length || still.length" class="chips" aria-label="Understood">
    <li v-for="chip in read?.chips" :key="chip.field + chip.words">
      <ReadingChip
        :chip="chip"
        @open="(at) => sentence.openChip(chip, at)"
        @without="sentence.write(chip.without)"
      />
    </li>
    <li v-for="g in still" :key="g.field + g.value" class="given" :data-given="g.field">
      <span
        ><span class="label">{{ chipLabels[g.field] }}</span> {{ g.text }}</span
      >
      <button
        tabindex="-1"
        data-walk
        :aria-label="`Without ${chipLabels[g.field]} ${g.text}`"
        title="What is put in stands here by this"
        @click="$emit('without', g)"
      >
        ×
      </button>
    </li>
  </ul>
  <ul v-if="read && sentence.offers.length" class="chips" aria-label="Might mean">
    <li v-for="(offer, i) in sentence.offers" :key="offer.words + offer.value">
      <OfferChip
        class="offer"
        :label="chipLabels[offer.field]"
        :value="offer.value"
        tabindex="-1"
        data-walk
        @click="sentence.take(offer, $event.currentTarget as HTMLElement)"
      >
        <span v-if="i === 0 && !sentence.names.found.length" class="key">Tab</span>
      </OfferChip>
    </li>
  </ul>
  <p v-if="read?.remark" class="notes">{{ read.remark }}</p>
  <p v-if="read?.notes" class="notes">Notes: {{ read.notes }}</p>
  <div v-if="read?.problems.length" class="problems" role="status">
    <p v-for="p in read.problems" :key="p.reason">{{ p.reason }}</p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.notes {
  margin-top: 8px;
  color: var(--pencil);
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
.given {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 2px 2px 2px 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.given .label {
  margin-right: 4px;
  color: var(--pencil);
  font-size: 13px;
}
.given button {
  width: 24px;
  height: 24px;
  color: var(--pencil);
  font-weight: 600;
  cursor: pointer;
}
.given button:hover {
  background: var(--wash);
}
@media (pointer: coarse) {
  .offer .key,
  .how {
    display: none;
  }
  .given {
    min-height: 40px;
    padding-block: 0;
  }
  .given button {
    width: 40px;
    height: 38px;
  }
}
</style>
