<script setup lang="ts">
import { computed } from "vue";
import { addDays } from "@/words/dates";

/** A day counted from today, which moves on with the days, or one of the calendar. */
const props = defineProps<{ today: string; label: string }>();
const model = defineModel<string>({ required: true });

type Kind = "today" | "tomorrow" | "yesterday" | "ahead" | "ago" | "date";
const relative = computed(() => /^(-?)P(\d+)([DW])$/.exec(model.value));
const days = computed(() => {
  const [, , n = "0", unit] = relative.value ?? [];
  return Number(n) * (unit === "W" ? 7 : 1);
});
const kind = computed<Kind>(() => {
  if (!relative.value) return "date";
  if (days.value === 0) return "today";
  if (days.value === 1) return relative.value[1] ? "yesterday" : "tomorrow";
  return relative.value[1] ? "ago" : "ahead";
});
function setKind(to: Kind) {
  const n = Math.max(days.value, 2);
  model.value = {
    today: "P0D",
    tomorrow: "P1D",
    yesterday: "-P1D",
    ahead: `P${n}D`,
    ago: `-P${n}D`,
    date: addDays(props.today, days.value),
  }[to];
}
function setDays(text: string) {
  const n = Math.min(Math.max(Math.round(Number(text)) || 0, 1), 36500);
  model.value = kind.value === "ago" ? `-P${n}D` : `P${n}D`;
}
</script>

<template>
  <span class="when">
    <input
      v-if="kind === 'ahead' || kind === 'ago'"
      class="number"
      type="number"
      min="1"
      max="36500"
      :value="days"
      :aria-label="`${label}: days`"
      @change="setDays(($event.target as HTMLInputElement).value)"
    />
    <select
      :value="kind"
      :aria-label="label"
      @change="setKind(($event.target as HTMLSelectElement).value as Kind)"
    >
      <option value="today">today</option>
      <option value="tomorrow">tomorrow</option>
      <option value="yesterday">yesterday</option>
      <option value="ahead">days from today</option>
      <option value="ago">days ago</option>
      <option value="date">the day</option>
    </select>
    <input
      v-if="kind === 'date'"
      type="date"
      :value="model"
      :aria-label="`${label}: date`"
      @change="model = ($event.target as HTMLInputElement).value || model"
    />
  </span>
</template>

<style scoped>
.when {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
</style>
