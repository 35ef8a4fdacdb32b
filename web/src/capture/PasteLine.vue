<script setup lang="ts">
import type { Line, SentenceOffer } from "@/server/client";
import OfferChip from "@/kit/OfferChip.vue";
import { chipLabels } from "@/words/fields";

/** A line of several as it would be put in, with what it might mean besides. */
defineProps<{ line: Line; offers: SentenceOffer[] }>();
defineEmits<{ take: [offer: SentenceOffer, at: HTMLElement]; without: [sentence: string] }>();
</script>

<template>
  <span class="box" :class="{ section: line.section, done: line.done }" aria-hidden="true">{{
    line.done ? "✓" : ""
  }}</span>
  <span class="what">
    <span class="title" :class="{ section: line.section, done: line.done }">{{
      line.reading.title || "…"
    }}</span>
    <span
      v-for="c in line.reading.chips"
      :key="c.field + c.words"
      class="fact"
      :class="{ wrong: c.problem }"
      ><span class="label">{{ chipLabels[c.field] }}</span> {{ c.problem ? c.words : c.value
      }}<button
        class="away"
        :aria-label="`Leave “${c.words}” as words`"
        @click="$emit('without', c.without)"
      >
        ×
      </button></span
    >
    <OfferChip
      v-for="offer in offers"
      :key="offer.words + offer.value"
      :label="chipLabels[offer.field]"
      :value="offer.value"
      @click="$emit('take', offer, $event.currentTarget as HTMLElement)"
    />
    <span v-if="line.reading.remark" class="remark">{{ line.reading.remark }}</span>
    <span v-for="p in line.reading.problems" :key="p.reason" class="wrong why">{{ p.reason }}</span>
  </span>
</template>

<style scoped>
.box {
  flex: none;
  width: 18px;
  height: 18px;
  margin-top: 1px;
  border: 2px solid var(--rim);
  border-radius: 4px;
  font-size: 12px;
  line-height: 14px;
  text-align: center;
}
.box.section {
  border-style: dashed;
}
.box.done {
  background: var(--rim);
  color: var(--glaze);
}
.title.section {
  font-family: var(--slab);
  font-weight: 600;
}
.title.done {
  color: var(--pencil);
  text-decoration: line-through;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
  min-width: 0;
}
.title {
  overflow-wrap: anywhere;
}
.fact {
  font-size: 14px;
}
.label,
.remark {
  color: var(--pencil);
  font-size: 13px;
}
.away {
  min-width: 24px;
  min-height: 24px;
  color: var(--pencil);
  font-weight: 600;
  cursor: pointer;
}
.away:hover {
  background: var(--wash);
}
.wrong {
  color: var(--madder);
}
.why,
.remark {
  flex-basis: 100%;
}
.why {
  font-size: 14px;
  font-weight: 600;
}
@media (pointer: coarse) {
  .away {
    min-width: 40px;
    min-height: 40px;
  }
}
</style>
