<script setup lang="ts">
import { computed, useTemplateRef } from "vue";
import CupGlyph from "@/kit/CupGlyph.vue";
import type { WeekDay } from "@/server/week";
import { useDrop } from "@/state/drop";
import { weekday } from "@/words/dates";
import { fillOf } from "@/words/load";
import { dayName } from "@/words/week";

/** On a phone: the cup of a day in small. It leads to its own, and takes a slip for its day. */
const props = defineProps<{ day: WeekDay; today: string; near: boolean }>();
const emit = defineEmits<{ go: []; drop: [id: string] }>();
const root = useTemplateRef<HTMLElement>("root");
const hovered = useDrop(root, (id) => emit("drop", id));
const fill = computed(() => fillOf(props.day.load, props.day.slips.length));
</script>

<template>
  <button
    ref="root"
    class="rim"
    :class="{ past: day.day < today, hovered }"
    :aria-label="dayName(day, today)"
    :aria-current="near ? 'true' : undefined"
    @click="emit('go')"
  >
    <CupGlyph :level="fill.level" :assumed="fill.assumed" :size="22" />
    <span>{{ weekday(day.day).slice(0, 2) }}</span>
  </button>
</template>

<style scoped>
.rim {
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
.hovered {
  background: var(--wash);
  outline: 2px dashed var(--rim);
}
[aria-current] {
  border-bottom: 2px solid var(--rim);
  color: var(--ink);
  font-weight: 600;
}
</style>
