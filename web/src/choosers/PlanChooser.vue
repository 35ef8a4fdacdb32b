<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from "vue";
import type { Overview } from "@/server/client";
import { fillOf, hoursWords } from "@/words/load";
import { planWords, precision } from "@/words/dates";
import { giveFocus } from "@/kit/early-keys";
import { walk } from "@/kit/walk";
import CupGlyph from "@/kit/CupGlyph.vue";
import SayWhen from "./SayWhen.vue";

/** Chooses when to do it: the cups of the rail, or any other day. */
const props = defineProps<{ overview: Overview; value: string | null }>();
const emit = defineEmits<{ choose: [plan: string | null] }>();
const root = useTemplateRef("root");

onMounted(() => giveFocus(root.value?.querySelector<HTMLElement>(".cups button")));
function name(horizon: string): string {
  const words = planWords(horizon, props.overview.today);
  return words.charAt(0).toUpperCase() + words.slice(1);
}
const months = computed(() =>
  props.overview.rail.filter((c) => precision(c.horizon) === "month").slice(0, 6),
);
const cups = computed(() =>
  props.overview.rail.filter((c) => precision(c.horizon) !== "month" || months.value.includes(c)),
);
</script>

<template>
  <div ref="root" class="chooser" role="dialog" aria-label="Choose the plan">
    <SayWhen field="plan" example="Friday 14:00 for 30 min" @choose="(v) => emit('choose', v)" />
    <div
      class="cups"
      @keydown.right.prevent="walk($event, 1)"
      @keydown.left.prevent="walk($event, -1)"
    >
      <button
        v-for="cup in cups"
        :key="cup.horizon"
        :class="{ set: cup.horizon === value }"
        @click="emit('choose', cup.horizon)"
      >
        <CupGlyph v-bind="fillOf(cup.load, cup.count)" :size="24" />
        <span>{{ name(cup.horizon) }}</span>
        <span v-if="cup.load.minutes" class="hours" :class="{ over: fillOf(cup.load, 0).over }">{{
          hoursWords(cup.load)
        }}</span>
      </button>
    </div>
    <div v-if="value" class="foot">
      <button class="btn quiet" @click="emit('choose', null)">No plan</button>
    </div>
  </div>
</template>

<style scoped>
.chooser {
  width: 344px;
  padding: 0 8px 8px;
}
.cups {
  margin-top: 8px;
}
.cups {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
}
.cups button {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  padding: 8px 2px;
  border-radius: var(--corner);
  font-size: 13px;
  line-height: 16px;
  cursor: pointer;
}
.cups button:hover,
.cups button:focus-visible {
  background: var(--wash);
}
.hours {
  color: var(--pencil);
  font-size: 12px;
}
.hours.over {
  color: var(--copper);
  font-weight: 600;
}
.cups .set {
  font-weight: 600;
}
.foot {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
  padding: 8px 4px 2px;
  border-top: 1px solid var(--tin);
  font-size: 14px;
}
</style>
