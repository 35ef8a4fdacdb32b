<script setup lang="ts">
import { computed } from "vue";
import type { WeekDay } from "@/server/week";
import { useCurrent } from "@/state/current";
import { moreWords } from "@/words/calendars";
import { boxOf, clock, type Face, hoursOf, minuteIn, ownHoursOf, without } from "./hours";

/** What the hours of an opened cup are drawn on: off and peak hours, whole hours, and now. */
const props = defineProps<{
  day: WeekDay;
  face: Face;
  /** The civil date and time now. */
  now: string;
}>();

const hours = computed(() => {
  const n = Math.floor((props.face.to - props.face.from) / 60);
  return Array.from({ length: n }, (_, i) => props.face.from + i * 60);
});
/** The stretches outside of the working hours, and of the own hours where something takes these. */
const own = computed(() => (props.day.load.own ? ownHoursOf(props.day) : []));
const off = computed(() => without(props.face, [...hoursOf(props.day), ...own.value]));
const peak = computed(() =>
  props.day.peak.map((p) => ({
    from: minuteIn(p.from, props.day.day),
    to: minuteIn(p.to, props.day.day),
  })),
);
const allDay = computed(() => props.day.events.filter((e) => e.allDay));
const current = useCurrent();
const present = computed(() => {
  const at = minuteIn(props.now, props.day.day);
  return at >= props.face.from && at <= props.face.to ? at : undefined;
});
const top = (minute: number) => ({ top: `${(minute - props.face.from) * props.face.scale}px` });
</script>

<template>
  <div v-for="(s, i) in off" :key="`off${i}`" class="off" :style="boxOf(face, s)" />
  <div v-for="(s, i) in own" :key="`own${i}`" class="own" :style="boxOf(face, s)">
    <span>own hours</span>
  </div>
  <div v-for="(s, i) in peak" :key="`peak${i}`" class="peak" :style="boxOf(face, s)" />
  <div v-for="h in hours" :key="h" class="hour" :style="top(h)">
    <span>{{ clock(h) }}</span>
  </div>
  <p v-if="allDay.length" class="all-day">
    All day:
    <button
      v-for="e in allDay"
      :key="e.calendar + e.uid"
      aria-haspopup="dialog"
      :data-event="e.uid"
      @click="current.event = { event: e, day: day.day, at: $event.currentTarget as HTMLElement }"
    >
      {{ e.title }}
    </button>
    {{ moreWords(day.moreEvents) }}
  </p>
  <div v-if="present !== undefined" class="present" :style="top(present)">
    <span>now {{ clock(present) }}</span>
  </div>
</template>

<style scoped>
.off,
.own,
.peak,
.hour,
.present {
  position: absolute;
  right: 0;
  left: 0;
}
.off,
.own,
.peak {
  left: 46px;
}
.off {
  background: color-mix(in srgb, var(--enamel) 70%, transparent);
}
.own {
  border-top: 1px dashed var(--tin);
}
.own span {
  position: absolute;
  top: 1px;
  right: 6px;
  color: var(--pencil);
  font-size: 12px;
  line-height: 15px;
}
.peak {
  background: color-mix(in srgb, var(--ochre) 14%, transparent);
}
.hour {
  border-top: 1px solid color-mix(in srgb, var(--tin) 60%, transparent);
}
.hour span {
  position: absolute;
  top: 1px;
  left: 6px;
  color: var(--pencil);
  font-size: 12px;
  line-height: 15px;
  font-variant-numeric: tabular-nums;
}
.all-day {
  position: absolute;
  z-index: 1;
  top: 2px;
  right: 4px;
  left: 52px;
  overflow: hidden;
  color: var(--pencil);
  font-size: 12px;
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.all-day button {
  min-height: 24px;
  margin-left: 4px;
  cursor: pointer;
}
.all-day button:hover {
  text-decoration: underline;
}
.present {
  z-index: 1;
  border-top: 2px solid var(--ink);
  pointer-events: none;
}
.present span {
  position: absolute;
  top: -9px;
  left: 3px;
  padding: 0 3px;
  background: var(--glaze);
  font-size: 11px;
  font-weight: 600;
  line-height: 16px;
  white-space: nowrap;
}
</style>
