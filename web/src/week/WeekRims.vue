<script setup lang="ts">
import CupGlyph from "@/kit/CupGlyph.vue";
import type { WeekDay } from "@/server/week";
import { weekday } from "@/words/dates";
import { fillOf } from "@/words/load";
import { dayName } from "@/words/week";

/** On a phone: the seven cups as a small picture; each leads to its own. */
defineProps<{ days: WeekDay[]; today: string; near: string }>();
const emit = defineEmits<{ go: [day: string] }>();
const fill = (d: WeekDay) => fillOf(d.load, d.slips.length);
</script>

<template>
  <nav class="rims" aria-label="Days of the week">
    <button
      v-for="d in days"
      :key="d.day"
      :class="{ past: d.day < today }"
      :aria-label="dayName(d, today)"
      :aria-current="d.day === near ? 'true' : undefined"
      @click="emit('go', d.day)"
    >
      <CupGlyph :level="fill(d).level" :assumed="fill(d).assumed" :size="22" />
      <span>{{ weekday(d.day).slice(0, 2) }}</span>
    </button>
  </nav>
</template>

<style scoped>
.rims {
  display: flex;
  justify-content: space-between;
  padding-top: 6px;
}
button {
  display: flex;
  flex: 1;
  flex-direction: column;
  align-items: center;
  min-height: 44px;
  color: var(--pencil);
  font-size: 12px;
  line-height: 16px;
  cursor: pointer;
}
.past {
  opacity: 0.55;
}
[aria-current] {
  border-bottom: 2px solid var(--rim);
  color: var(--ink);
  font-weight: 600;
}
</style>
