<script setup lang="ts">
import { onMounted, useTemplateRef } from "vue";
import type { Overview } from "@/api/client";
import { planWords, precision } from "@/words/dates";
import { beginInWords } from "@/composables/early-keys";
import { walk } from "@/composables/walk";
import CupGlyph from "./CupGlyph.vue";
import SayWhen from "./SayWhen.vue";

/** Chooses when to do it: the cups of the rail, or any other day. */
const props = defineProps<{ overview: Overview; value: string | null }>();
const emit = defineEmits<{ choose: [plan: string | null] }>();
const root = useTemplateRef("root");

onMounted(() => root.value?.querySelector<HTMLElement>(".cups button")?.focus());
function name(horizon: string): string {
  const words = planWords(horizon, props.overview.today);
  return words.charAt(0).toUpperCase() + words.slice(1);
}
const level = (horizon: string, count: number) =>
  precision(horizon) === "day" ? count / props.overview.brim : Math.min(count / 24, 1);
</script>

<template>
  <div
    ref="root"
    class="chooser"
    role="dialog"
    aria-label="Choose the plan"
    @keydown="beginInWords"
  >
    <SayWhen field="plan" example="Friday 14:00 for 30 min" @choose="(v) => emit('choose', v)" />
    <div
      class="cups"
      @keydown.right.prevent="walk($event, 1)"
      @keydown.left.prevent="walk($event, -1)"
    >
      <button
        v-for="cup in overview.rail"
        :key="cup.horizon"
        :class="{ set: cup.horizon === value }"
        @click="emit('choose', cup.horizon)"
      >
        <CupGlyph :level="level(cup.horizon, cup.count)" :size="24" />
        <span>{{ name(cup.horizon) }}</span>
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
