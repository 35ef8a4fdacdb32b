<script setup lang="ts">
import { computed, ref, useTemplateRef } from "vue";
import type { Overview, Todo } from "@/server/client";
import { inForce } from "@/server/in-force";
import type { WeekDay, WeekSlip as Slip } from "@/server/week";
import { useCurrent } from "@/state/current";
import { useDrop } from "@/state/drop";
import { estimateWords } from "@/words/fields";
import DayGround from "./DayGround.vue";
import {
  boxOf,
  clock,
  eventsOf,
  faceOf,
  lengthOf,
  lanesOf,
  planAt,
  pullStep,
  quarter,
  type Slot,
  slotOf,
  type Stretch,
} from "./hours";
import { hourlyOf, leastSlip } from "./layout";
import WeekSlip from "./WeekSlip.vue";

/** The inside of an opened cup: its hours from the rim down, and what lies on each. */
const props = defineProps<{
  day: WeekDay;
  today: string;
  /** The civil date and time now. */
  now: string;
  overview: Overview;
  /** How high it may be, in pixels. */
  room: number;
  /** Times that are proposed, by to-do. */
  proposed: Map<string, string>;
}>();
const emit = defineEmits<{
  open: [id: string];
  take: [id: string];
  /** Planned for a time of the day, or for none of its times. */
  put: [id: string, plan: string];
  lengthen: [slip: Slip, minutes: number];
}>();

const current = useCurrent();
const timed = computed(() =>
  hourlyOf(props.day).flatMap((slip) => {
    const slot = slotOf(slip.todo.plan, props.day.day);
    return slot ? [{ slip, slot }] : [];
  }),
);
const untimed = computed(() =>
  hourlyOf(props.day).filter((s) => !timed.value.some((t) => t.slip === s)),
);
const offered = computed(() =>
  props.day.slips.flatMap((slip) => {
    const slot = slotOf(props.proposed.get(slip.todo.id), props.day.day);
    return slot ? [{ slip, slot }] : [];
  }),
);
const face = computed(() =>
  faceOf(
    props.day,
    [...timed.value, ...offered.value].map((t) => t.slot),
    props.room,
  ),
);
const box = (s: Stretch) => boxOf(face.value, s);
const events = computed(() =>
  eventsOf(props.day).filter((e) => e.from < face.value.to && e.to > face.value.from),
);
/** Another's time lies over where an event begins: its title stands at its end. */
const covered = (e: Stretch) =>
  timed.value.some(({ slot }) => slot.at < e.from + 20 && slot.at + slot.minutes > e.from);
/** While a lower edge is pulled: whose, and to how many minutes. */
const pulled = ref<{ id: string; minutes: number }>();
/** A time that lies over an event leaves a strip of it free, by which that is opened. */
const overEvent = (slot: Slot) =>
  events.value.some((e) => e.from < slot.at + slot.minutes && e.to > slot.at);
const slots = computed(() => {
  const lanes = lanesOf(timed.value.map((t) => t.slot));
  return timed.value.map(({ slip, slot }, i) => {
    const minutes = pulled.value?.id === slip.todo.id ? pulled.value.minutes : slot.minutes;
    const { lane, of } = lanes[i]!;
    return {
      slip,
      slot,
      minutes,
      height: Math.max(minutes * face.value.scale, 12),
      style: {
        ...box({ from: slot.at, to: slot.at + minutes }),
        left: `${(lane * 100) / of}%`,
        width: `${100 / of}%`,
      },
    };
  });
});
const heightOf = (s: Slip) => Math.max(s.minutes * face.value.scale, leastSlip);

const tracks = useTemplateRef<HTMLElement>("tracks");
/** Where what is dragged would begin. */
const hung = ref<Slot>();
function slotAt(y: number, minutes: number): Slot {
  const top = tracks.value?.getBoundingClientRect().top ?? 0;
  const at = face.value.from + (y - top) / face.value.scale;
  const snapped = Math.floor(at / quarter) * quarter;
  return { at: Math.max(face.value.from, Math.min(snapped, face.value.to - quarter)), minutes };
}
/** A slip keeps the length of its time; one that had none gets that of its work. */
function minutesOf(todo: Todo) {
  const lying = props.day.slips.find((s) => s.todo.id === todo.id);
  return lengthOf(todo.plan) ?? (lying?.minutes || todo.estimate || Number(inForce.assumed));
}
const hovered = useDrop(
  tracks,
  (id, { y }, todo) => {
    emit("put", id, planAt(props.day.day, slotAt(y, minutesOf(todo))));
    hung.value = undefined;
  },
  (todo, { y }) => (hung.value = slotAt(y, minutesOf(todo))),
);
const loose = useTemplateRef<HTMLElement>("loose");
/** Dropped here it stays on the day, and has no time of it. */
const looseHovered = useDrop(loose, (id) => emit("put", id, props.day.day));

function pull(e: PointerEvent, slip: Slip, slot: Slot) {
  const grip = e.currentTarget as HTMLElement;
  grip.setPointerCapture(e.pointerId);
  const from = e.clientY;
  const to = (y: number) => {
    const minutes = slot.minutes + (y - from) / face.value.scale;
    return Math.max(pullStep, Math.round(minutes / pullStep) * pullStep);
  };
  const ended = new AbortController();
  const heard = { signal: ended.signal };
  pulled.value = { id: slip.todo.id, minutes: slot.minutes };
  const drop = () => {
    ended.abort();
    pulled.value = undefined;
  };
  grip.addEventListener(
    "pointermove",
    (m) => (pulled.value = { id: slip.todo.id, minutes: to(m.clientY) }),
    heard,
  );
  grip.addEventListener(
    "pointerup",
    (u) => {
      const minutes = to(u.clientY);
      drop();
      if (minutes !== slot.minutes) emit("lengthen", slip, minutes);
    },
    heard,
  );
  grip.addEventListener("pointercancel", drop, heard);
  document.addEventListener(
    "keydown",
    (k) => {
      if (k.key !== "Escape") return;
      k.stopPropagation();
      drop();
    },
    { ...heard, capture: true },
  );
}
</script>

<template>
  <div class="face" :style="{ height: `${(face.to - face.from) * face.scale}px` }">
    <div ref="tracks" class="tracks" data-tracks>
      <DayGround :day="day" :face="face" :now="now" />
      <div class="field">
        <button
          v-for="(e, i) in events"
          :key="`event${i}`"
          class="event hatched"
          aria-haspopup="dialog"
          :data-event="e.event.uid"
          :class="{ free: !e.event.takes, low: covered(e) }"
          :style="box(e)"
          :title="`${clock(e.from)} to ${clock(e.to)}, ${e.event.title}`"
          @click="
            current.event = {
              event: e.event,
              day: day.day,
              at: $event.currentTarget as HTMLElement,
            }
          "
        >
          <span>{{ e.event.title }}, until {{ clock(e.to) }}</span>
        </button>
        <div
          v-for="s in slots"
          :key="s.slip.todo.id"
          class="slot"
          :class="{ pulled: pulled?.id === s.slip.todo.id, over: overEvent(s.slot) }"
          :style="s.style"
          :data-slot="s.slip.todo.id"
        >
          <WeekSlip
            :slip="s.slip"
            :overview="overview"
            :today="today"
            :height="s.height"
            @open="emit('open', s.slip.todo.id)"
          />
          <span
            class="grip"
            aria-hidden="true"
            :title="`Pull to change its ${estimateWords(s.slot.minutes)}`"
            @pointerdown.stop.prevent="pull($event, s.slip, s.slot)"
          />
          <span v-if="pulled?.id === s.slip.todo.id" class="told">
            {{ clock(s.slot.at) }}–{{ clock(s.slot.at + s.minutes) }},
            {{ estimateWords(s.minutes) }}
          </span>
        </div>
        <div
          v-for="s in offered"
          :key="`offered-${s.slip.todo.id}`"
          class="slot"
          :style="box({ from: s.slot.at, to: s.slot.at + s.slot.minutes })"
        >
          <WeekSlip
            :slip="s.slip"
            :overview="overview"
            :today="today"
            proposed
            :height="s.slot.minutes * face.scale"
            @open="emit('take', s.slip.todo.id)"
          />
        </div>
        <div
          v-if="hovered && hung"
          class="ghost"
          :style="box({ from: hung.at, to: hung.at + hung.minutes })"
        >
          {{ clock(hung.at) }}–{{ clock(hung.at + hung.minutes) }}
        </div>
      </div>
    </div>
    <div
      v-if="untimed.length || timed.length"
      ref="loose"
      class="untimed"
      :class="{ hovered: looseHovered, bare: !untimed.length }"
    >
      <h3>No hour yet</h3>
      <WeekSlip
        v-for="s in untimed"
        :key="s.todo.id"
        :slip="s"
        :overview="overview"
        :today="today"
        :height="heightOf(s)"
        @open="emit('open', s.todo.id)"
      />
      <p v-if="day.more" class="more">and {{ day.more }} more</p>
    </div>
  </div>
</template>

<style scoped>
.face {
  position: relative;
  display: flex;
  gap: 4px;
  padding: 0 5px 0 0;
  overflow: hidden;
  border-radius: 0 0 12px 12px;
}
.tracks {
  position: relative;
  flex: 1 1 0;
  min-width: 0;
}
.slot.over {
  padding-left: 26px;
  pointer-events: none;
}
.slot.over > * {
  pointer-events: auto;
}
.event,
.slot,
.ghost {
  position: absolute;
  right: 0;
  left: 0;
}
.field {
  position: absolute;
  top: 0;
  right: 0;
  bottom: 0;
  left: 50px;
}
.event {
  display: block;
  text-align: left;
  cursor: pointer;
  padding: 1px 6px;
  overflow: hidden;
}
.event.low {
  display: flex;
  align-items: flex-end;
}
.event.free {
  border: 1px dashed var(--tin);
  background: none;
}
.slot {
  padding-bottom: 1px;
}
/* What takes its time too is seen beside it. */
.slot.pulled {
  z-index: 2;
}
.slot :deep(.slip) {
  max-height: 100%;
}
.grip {
  position: absolute;
  right: 0;
  bottom: 0;
  left: 0;
  z-index: 2;
  /* A short slip is to be taken hold of too. */
  height: clamp(3px, 35%, 9px);
  cursor: ns-resize;
  touch-action: none;
}
.grip::after {
  position: absolute;
  bottom: 1px;
  left: calc(50% - 9px);
  width: 18px;
  border-top: 2px solid var(--tin);
  content: "";
  opacity: 0;
}
.slot:hover .grip::after,
.slot.pulled .grip::after,
.slot:focus-within .grip::after {
  opacity: 1;
}
.told {
  position: absolute;
  top: 100%;
  left: 6px;
  padding: 1px 6px;
  border: 1px solid var(--rim);
  background: var(--glaze);
  font-size: 13px;
  white-space: nowrap;
}
.ghost {
  z-index: 2;
  padding: 0 6px;
  border: 2px dashed var(--rim);
  background: color-mix(in srgb, var(--wash) 70%, transparent);
  font-size: 13px;
  pointer-events: none;
}
.untimed {
  display: flex;
  flex: 0.9 1 0;
  flex-direction: column;
  gap: 1px;
  min-width: 0;
  padding: 2px 0 4px 4px;
  overflow-y: auto;
  border-left: 1px dashed var(--tin);
}
.more {
  color: var(--pencil);
  font-size: 13px;
}
.untimed.bare {
  flex: 0.25 1 0;
}
.untimed.hovered {
  background: var(--wash);
}
.untimed h3 {
  color: var(--pencil);
  font-family: inherit;
  font-size: 12px;
  font-weight: 400;
  line-height: 18px;
}
@media (pointer: coarse) {
  /* At the end of its edge: elsewhere a finger lifts the slip. */
  .grip {
    bottom: -14px;
    left: auto;
    width: min(44px, 30%);
    height: 28px;
  }
  .grip::after {
    right: 4px;
    bottom: 15px;
    left: auto;
    opacity: 1;
  }
}
</style>
