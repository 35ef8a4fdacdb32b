<script setup lang="ts">
import { computed, useTemplateRef } from "vue";
import type { RailCup } from "@/server/client";
import { useDrop } from "@/state/drop";
import { longDay, monthName, precision, railDay, shortMonth } from "@/words/dates";
import { bothWords, cupWords, fillOf, fullWords, hoursWords } from "@/words/load";
import { estimateWords } from "@/words/fields";
import CupGlyph from "@/kit/CupGlyph.vue";

const props = defineProps<{
  cup: RailCup;
  today: string;
  /** Which cup of the rail it is: 0 is today. */
  nth: number;
  shown: boolean;
}>();
const emit = defineEmits<{ show: []; drop: [id: string] }>();

const root = useTemplateRef("root");
const over = useDrop(root, (id) => emit("drop", id));
const isToday = computed(() => props.nth === 0);
const h = computed(() => props.cup.horizon);
const fill = computed(() => fillOf(props.cup.load, props.cup.count));

/** The key that plans on it, where there is one. */
const digit = computed(() => {
  if (props.nth < 9) return String(props.nth + 1);
  return h.value === "parked" ? "0" : "";
});

const name = computed(() => {
  switch (precision(h.value)) {
    case "day":
      return isToday.value ? `Today, ${railDay(h.value)}` : railDay(h.value);
    case "week":
      return props.nth === 7 ? "This week" : "Next week";
    case "month":
      if (h.value === props.today.slice(0, 7)) return "This month";
      return h.value.slice(0, 4) === props.today.slice(0, 4) || h.value.endsWith("-01")
        ? shortMonth(`${h.value}-01`)
        : `${shortMonth(`${h.value}-01`)} ${h.value.slice(2, 4)}`;
    case "parked":
      return "Parked";
  }
  return "";
});

const fullName = computed(() => {
  switch (precision(h.value)) {
    case "day":
      return isToday.value
        ? `Today, ${longDay(h.value, props.today)}`
        : longDay(h.value, props.today);
    case "month":
      return monthName(`${h.value}-01`);
    default:
      return name.value;
  }
});

const load = computed(() => {
  const { load, count } = props.cup;
  if (!isToday.value) return cupWords(h.value, count, load);
  // Today's cup has room for "3 h 10 of 4 h", or what is free.
  if (!load.minutes && !load.capacity) return String(count);
  return fill.value.over || load.capacity === 0 ? hoursWords(load) : fullWords(load);
});
/** The work in own hours, in the saucer. */
const own = computed(() => (precision(h.value) === "parked" ? undefined : props.cup.load.own));
const ownWords = computed(() =>
  own.value?.minutes ? `own ${estimateWords(own.value.minutes)}` : "",
);
const said = computed(() => {
  const hours = precision(h.value) === "parked" ? "" : bothWords(props.cup.load);
  return `${fullName.value}: ${props.cup.count} to do${hours ? `, ${hours}` : ""}`;
});
</script>

<template>
  <button
    ref="root"
    class="rail-cup"
    :class="{ today: isToday, shown, over, brims: fill.over > 0 }"
    :aria-label="said"
    :aria-current="shown ? 'page' : undefined"
    :data-cup="h"
    @click="emit('show')"
  >
    <span v-if="digit" class="digit" aria-hidden="true">{{ digit }}</span>
    <CupGlyph
      :level="fill.level"
      :assumed="fill.assumed"
      :saucer="Boolean(own?.minutes)"
      :size="isToday ? 46 : 34"
    />
    <span class="words">
      <span class="name">{{ name }}</span>
      <span class="load">{{ over ? "plan here" : load }}</span>
      <span v-if="own" class="own" :class="{ brimming: fillOf(own, 0).over }">{{ ownWords }}</span>
    </span>
  </button>
</template>

<style scoped>
.rail-cup {
  position: relative;
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  min-width: 76px;
  height: 84px;
  padding: 4px 2px;
  border: 2px solid transparent;
  border-radius: var(--corner);
  cursor: pointer;
}
.rail-cup:hover {
  background: var(--wash);
}
.rail-cup.over {
  border-color: var(--rim);
  border-style: dashed;
  background: var(--wash);
}
.rail-cup.shown {
  background: var(--wash);
}
.rail-cup.shown .name {
  text-decoration: underline 2px;
  text-underline-offset: 2px;
}
.words {
  display: flex;
  flex-direction: column;
  align-items: center;
  margin-top: 4px;
}
.name {
  font-family: var(--slab);
  font-size: 14px;
  font-weight: 600;
  line-height: 18px;
  white-space: nowrap;
}
.load {
  color: var(--pencil);
  font-size: 13px;
  line-height: 16px;
  white-space: nowrap;
}
.own {
  min-height: 15px;
  color: var(--pencil);
  font-size: 12px;
  line-height: 15px;
  white-space: nowrap;
}
.brimming,
.brims .load {
  color: var(--copper);
  font-weight: 600;
}
.digit {
  position: absolute;
  top: 2px;
  right: 8px;
  color: var(--pencil);
  font-size: 12px;
  line-height: 16px;
}
.today {
  flex: 0 0 184px;
  flex-direction: row;
  align-items: flex-end;
  justify-content: flex-start;
  gap: 12px;
  padding: 4px 8px 26px 10px;
}
.today .words {
  align-items: flex-start;
}
@media (max-width: 760px) {
  .rail-cup {
    min-width: 68px;
    height: 56px;
    padding: 2px;
  }
  .rail-cup :deep(.cup) {
    width: auto;
    height: 22px;
  }
  .words {
    margin-top: 0;
  }
  .name {
    font-size: 13px;
    line-height: 15px;
  }
  .load {
    font-size: 12px;
    line-height: 13px;
  }
  /* The saucer is drawn, and its minutes are read out: the first row stands high. */
  .own,
  .digit {
    display: none;
  }
  .today {
    flex-basis: 150px;
    align-items: center;
    gap: 8px;
    padding: 0 6px 18px;
  }
  .today :deep(.cup) {
    height: 32px;
  }
  /* A line of rims: the tops of the cups alone. */
  .folded .rail-cup {
    align-items: flex-start;
    justify-content: center;
    padding-top: 2px;
    background: none;
  }
  .folded .rail-cup:not(.today) {
    align-items: center;
    justify-content: flex-start;
  }
  .folded .today {
    justify-content: flex-start;
    padding-left: 8px;
  }
  .folded .words {
    visibility: hidden;
  }
}
</style>
