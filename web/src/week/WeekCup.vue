<script setup lang="ts">
import { computed, useTemplateRef } from "vue";
import type { Overview } from "@/server/client";
import type { WeekDay, WeekSlip as Slip } from "@/server/week";
import type { Happening } from "@/server/calendars";
import { useCurrent } from "@/state/current";
import { useDrop } from "@/state/drop";
import { railDay } from "@/words/dates";
import { estimateWords } from "@/words/fields";
import { fillOf, fullWords, saucerWords } from "@/words/load";
import { moreWords } from "@/words/calendars";
import { dayHours, dayName, overOf } from "@/words/week";
import DayFace from "./DayFace.vue";
import { besideOf, layOut, leastSlip, mostBeside, mostSlips, workOf } from "./layout";
import WeekSlip from "./WeekSlip.vue";

/**
 * A day as a tall cup: as high as its hours, with what lies in it from the base up. Opened, it
 * is wider, and its hours run between rim and base.
 */
const props = defineProps<{
  day: WeekDay;
  today: string;
  /** The civil date and time now. */
  now: string;
  overview: Overview;
  /** Pixels a minute. */
  scale: number;
  /** How high the tallest cup is, in pixels. */
  height: number;
  opened: boolean;
  /** Some shelf takes own hours: each cup stands on a saucer. */
  saucered: boolean;
  /** What is proposed to lie here. */
  proposed: Slip[];
  /** Times that are proposed, by to-do. */
  hours: Map<string, string>;
}>();
const emit = defineEmits<{
  open: [id: string];
  take: [id: string];
  drop: [id: string];
  put: [id: string, plan: string];
  lengthen: [slip: Slip, minutes: number];
  turn: [];
  layOut: [];
  ownHours: [at: HTMLElement];
}>();
const root = useTemplateRef<HTMLElement>("root");
const past = computed(() => props.day.day < props.today);
const hovered = useDrop(root, (id) => emit("drop", id));

const rim = computed(() => props.day.worked * props.scale);
const over = computed(() => (past.value ? "" : overOf(props.day)));
/** What a cup does not show, of which there may be some that is not even listed. */
const beyond = computed(() => workOf(props.day).slice(mostSlips));
const more = computed(() => beyond.value.length + (props.day.more ?? 0));
const moreMinutes = computed(() =>
  beyond.value.reduce((sum, s) => sum + s.minutes, props.day.moreMinutes ?? 0),
);
/** The saucer: what takes own hours, and what takes none. */
const beside = computed(() => besideOf(props.day));
const ownFill = computed(() => fillOf(props.day.load.own, 0));
const ownSaid = computed(() => {
  const { own } = props.day.load;
  return own ? saucerWords(props.day.load) || fullWords(own) : "";
});
const current = useCurrent();
/** Opens an event where it is seen. */
const show = (event: Happening, e: Event) =>
  (current.event = { event, day: props.day.day, at: e.currentTarget as HTMLElement });
const takes = computed(() => props.day.events.filter((e) => e.takes));
/** Events outside of the hours, which take none of them. */
const free = computed(() => props.day.events.filter((e) => !e.takes));
/** From the base up, as they are drawn and walked. */
const slips = computed(() => (past.value ? [] : layOut(props.day, props.scale)));
const heightOf = (s: Slip) => Math.max(s.minutes * props.scale, leastSlip);
const list = computed(() => (props.day.day === props.today ? "/today" : `/rail/${props.day.day}`));
</script>

<template>
  <section
    ref="root"
    class="day"
    :class="{ past, opened, hovered, brims: over, today: day.day === today }"
    :data-day="day.day"
    :aria-label="dayName(day, today)"
  >
    <div v-if="opened" class="room">
      <p v-if="over" class="excess">{{ over }}</p>
      <div v-if="proposed.length" class="coming">
        <WeekSlip
          v-for="s in proposed"
          :key="`p-${s.todo.id}`"
          :slip="s"
          :overview="overview"
          :today="today"
          proposed
          :height="leastSlip"
          @open="emit('take', s.todo.id)"
        />
      </div>
      <div class="inside">
        <div class="walls" aria-hidden="true"><span class="lip" /></div>
        <DayFace
          :day="day"
          :today="today"
          :now="now"
          :overview="overview"
          :room="height"
          :proposed="hours"
          @open="(id) => emit('open', id)"
          @take="(id) => emit('take', id)"
          @put="(id, plan) => emit('put', id, plan)"
          @lengthen="(slip, minutes) => emit('lengthen', slip, minutes)"
        />
      </div>
    </div>
    <div v-else class="room" :style="{ minHeight: `${rim}px` }">
      <div class="walls" :style="{ height: `${rim}px` }" aria-hidden="true">
        <span class="lip" />
      </div>
      <div class="stack">
        <p v-if="over" class="excess">{{ over }}</p>
        <WeekSlip
          v-for="s in proposed"
          :key="`p-${s.todo.id}`"
          :slip="s"
          :overview="overview"
          :today="today"
          proposed
          :height="heightOf(s)"
          @open="emit('take', s.todo.id)"
        />
        <router-link v-if="more" class="more" :to="list">
          and {{ more }} more, {{ estimateWords(moreMinutes) }}
        </router-link>
        <WeekSlip
          v-for="s in [...slips].reverse()"
          :key="s.of.todo.id"
          :slip="s.of"
          :overview="overview"
          :today="today"
          :over="s.over"
          :height="s.height"
          @open="emit('open', s.of.todo.id)"
        />
        <template v-if="past">
          <WeekSlip
            v-for="s in day.done.slice(0, mostSlips)"
            :key="s.todo.id"
            :slip="s"
            :overview="overview"
            :today="today"
            done
            :height="heightOf(s)"
            @open="emit('open', s.todo.id)"
          />
        </template>
        <button
          v-for="e in takes"
          :key="e.calendar + e.uid + e.from"
          class="event hatched"
          aria-haspopup="dialog"
          :data-event="e.uid"
          :style="{ height: `${e.takes * scale}px` }"
          :title="`${e.title}, takes ${estimateWords(e.takes)}`"
          @click="show(e, $event)"
        >
          {{ e.title }}
        </button>
        <div
          v-if="day.over && !past"
          class="event hatched gone"
          :style="{ height: `${day.over * scale}px` }"
          aria-hidden="true"
        />
      </div>
    </div>
    <div class="beneath" :class="{ saucered }">
      <div v-if="saucered" class="saucer" :class="{ bare: past }">
        <template v-if="!past">
          <template v-if="!opened">
            <WeekSlip
              v-for="s in beside.slice(0, mostBeside)"
              :key="s.todo.id"
              :slip="s"
              :overview="overview"
              :today="today"
              plain
              @open="emit('open', s.todo.id)"
            />
            <router-link v-if="beside.length > mostBeside" class="more" :to="list">
              and {{ beside.length - mostBeside }} more
            </router-link>
          </template>
          <p class="hours" :class="{ copper: ownFill.over }">{{ ownSaid }}</p>
        </template>
      </div>
      <button
        v-if="!past"
        class="name"
        :aria-expanded="opened"
        :title="opened ? 'Close its hours (o)' : 'Open its hours (o)'"
        @click="emit('turn')"
      >
        {{ railDay(day.day) }}
      </button>
      <router-link v-else class="name" :to="list">{{ railDay(day.day) }}</router-link>
      <p class="hours" :class="{ copper: over }">
        {{ dayHours(day, today)
        }}<span v-if="day.apart && !past" class="own"
          >, {{ day.worked ? "on this date alone" : "away" }}</span
        >
      </p>
      <p v-if="opened" class="acts">
        <button @click="emit('layOut')">Lay out the hours</button>
        <button
          aria-haspopup="listbox"
          @click="emit('ownHours', $event.currentTarget as HTMLElement)"
        >
          Its hours…
        </button>
        <router-link :to="list">As a list</router-link>
      </p>
      <template v-else>
        <button
          v-for="e in free"
          :key="e.uid + e.from"
          class="beside"
          aria-haspopup="dialog"
          :data-event="e.uid"
          :title="e.title"
          @click="show(e, $event)"
        >
          {{ e.from?.slice(11) }} {{ e.title }}
        </button>
        <p v-if="day.moreEvents" class="beside">{{ moreWords(day.moreEvents) }}</p>
      </template>
    </div>
  </section>
</template>

<style scoped>
.day {
  flex: 1 1 0;
  min-width: 0;
}
.opened {
  flex: 3.7 1 0;
}
.inside {
  position: relative;
}
.inside {
  border-radius: 0 0 14px 14px;
  background: var(--glaze);
}
.inside .walls {
  z-index: 1;
  top: 0;
  background: none;
}
.hovered .inside {
  background: var(--wash);
}
.coming {
  padding: 0 5px 6px;
}
.room {
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
}
.walls {
  position: absolute;
  right: 0;
  bottom: 0;
  left: 0;
  border: 2px solid var(--rim);
  border-top: 0;
  border-radius: 0 0 14px 14px;
  background: var(--glaze);
  pointer-events: none;
}
.lip {
  position: absolute;
  top: -3px;
  right: -5px;
  left: -5px;
  height: 4px;
  border-radius: 2px;
  background: var(--rim);
}
.brims .lip {
  background: var(--copper);
}
.past .walls {
  border-color: var(--tin);
  background: none;
}
.past .lip {
  background: var(--tin);
}
.hovered .walls {
  background: var(--wash);
}
.hovered .room {
  outline: 2px dashed var(--rim);
  outline-offset: 3px;
}
.stack {
  position: relative;
  display: flex;
  flex-direction: column;
  padding: 0 5px 4px;
}
.excess {
  padding-bottom: 2px;
  color: var(--copper);
  font-size: 13px;
  font-weight: 600;
  text-align: center;
}
.event {
  display: block;
  flex: none;
  width: 100%;
  padding: 2px 6px;
  overflow: hidden;
  line-height: 17px;
  text-align: left;
}
button.event,
button.beside {
  cursor: pointer;
}
button.event:hover,
button.beside:hover {
  text-decoration: underline;
}
.gone {
  opacity: 0.6;
}
.more {
  padding: 2px 6px;
  color: var(--rim);
  font-size: 13px;
}
/* As high beneath each, so that all cups stand on one line. */
.beneath {
  height: 84px;
}
.saucered {
  height: 150px;
}
.saucer {
  height: 66px;
  padding-top: 10px;
  text-align: center;
}
.saucer::before {
  display: block;
  width: 84%;
  height: 7px;
  margin: -9px auto 2px;
  border: 2px solid var(--rim);
  border-top: 0;
  border-radius: 0 0 50% 50% / 0 0 100% 100%;
  content: "";
}
.saucer .hours {
  font-size: 12px;
  white-space: nowrap;
}
.saucer.bare::before {
  border-color: var(--tin);
}
.name {
  display: block;
  width: 100%;
  line-height: 26px;
  padding-top: 4px;
  font-family: var(--slab);
  font-weight: 600;
  color: var(--ink);
  text-align: center;
  text-decoration: none;
  cursor: pointer;
}
.name:hover,
.today .name {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
}
.hours,
.beside {
  color: var(--pencil);
  font-size: 13px;
  line-height: 18px;
  text-align: center;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 0 14px;
}
.acts > * {
  min-height: 26px;
  color: var(--rim);
  font-size: 14px;
  line-height: 26px;
  text-decoration: underline;
  white-space: nowrap;
  cursor: pointer;
}
.copper {
  color: var(--copper);
}
.beside {
  display: block;
  width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (pointer: coarse) {
  .acts > *,
  .name {
    min-height: 40px;
    line-height: 40px;
    padding-block: 0;
  }
  .beneath {
    height: 112px;
  }
}
</style>
