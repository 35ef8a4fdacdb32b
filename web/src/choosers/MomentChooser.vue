<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from "vue";
import { addDays, fullMoment, railDay, weekday } from "@/words/dates";
import type { Todo } from "@/server/client";
import { useSlack } from "@/server/slack";
import { giveFocus } from "@/kit/early-keys";
import { walk } from "@/kit/walk";
import SlackLine from "./SlackLine.vue";
import SayWhen from "./SayWhen.vue";

/** Chooses a date, and with `timed` a time of day. */
const props = defineProps<{
  today: string;
  value: string | null;
  timed?: boolean;
  what: "due" | "start";
  /** Whose due it is: what can be done by then is said while one chooses. */
  todo?: Todo;
}>();
const emit = defineEmits<{ choose: [moment: string | null] }>();

const root = useTemplateRef("root");
const date = ref(props.value?.slice(0, 10) ?? "");
const typedTime = ref(props.value?.split("T")[1] ?? "");
/** "9", "930" and "9:30" are times; what is none is undefined. */
const time = computed(() => {
  const found = /^(\d{1,2}?)(?::?(\d{2}))?$/.exec(typedTime.value.trim());
  const [hour, minute] = [Number(found?.[1]), Number(found?.[2] ?? 0)];
  if (!found || hour > 23 || minute > 59) return undefined;
  return `${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}`;
});
const badTime = computed(() => typedTime.value.trim() !== "" && !time.value);
const picked = computed({
  get: () => (date.value ? new Date(`${date.value}T12:00:00`) : null),
  set(d: Date | null) {
    if (!d) return;
    const two = (n: number) => String(n).padStart(2, "0");
    date.value = `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;
  },
});

/** The month to begin with: the value's, else the one it is on the server. */
const start = props.value ?? props.today;
const shown = { month: Number(start.slice(5, 7)) - 1, year: Number(start.slice(0, 4)) };

const quick = computed(() => {
  const days = [
    { name: "Today", date: props.today },
    { name: "Tomorrow", date: addDays(props.today, 1) },
  ];
  for (let n = 2; n < 7; n++)
    days.push({ name: railDay(addDays(props.today, n)), date: addDays(props.today, n) });
  days.push({ name: `${weekday(props.today)} in a week`, date: addDays(props.today, 7) });
  return days;
});
/** A day with the time that it will keep. */
const withTime = (day: string) => (props.timed && time.value ? `${day}T${time.value}` : day);
const moment = computed(() => (date.value ? withTime(date.value) : null));

/** The day that pointer or focus is on, before it is chosen. */
const near = ref<string>();
/** What the words that are typed mean. */
const typed = ref<string>();
const slack = useSlack(
  () => props.todo,
  () => typed.value ?? (near.value && withTime(near.value)) ?? moment.value,
);

onMounted(() => giveFocus(root.value?.querySelector<HTMLElement>(".quick button")));

function quickly(day: string) {
  emit("choose", withTime(day));
}
</script>

<template>
  <div ref="root" role="dialog" :aria-label="`Choose the ${what}`">
    <SayWhen
      :field="what"
      :example="timed ? 'Friday 4pm, in 3 days, 30 Nov' : 'Monday, next week'"
      @choose="(v) => emit('choose', v)"
      @read="(v) => (typed = v)"
    />
    <div class="chooser">
      <div
        class="quick"
        @keydown.down.prevent="walk($event, 1)"
        @keydown.up.prevent="walk($event, -1)"
      >
        <button
          v-for="q in quick"
          :key="q.date"
          :class="{ set: value?.slice(0, 10) === q.date }"
          @mouseenter="near = q.date"
          @mouseleave="near = undefined"
          @focus="near = q.date"
          @blur="near = undefined"
          @click="quickly(q.date)"
        >
          {{ q.name }}
        </button>
        <button v-if="value" class="none" @click="emit('choose', null)">No {{ what }}</button>
      </div>
      <div class="right">
        <v-date-picker
          v-model="picked"
          :month="shown.month"
          :year="shown.year"
          hide-header
          hide-title
          first-day-of-week="1"
          width="292"
          color="primary"
          show-adjacent-months
        />
        <SlackLine v-if="todo" :slack="slack" />
        <div class="foot">
          <label v-if="timed"
            >at
            <input
              v-model="typedTime"
              aria-label="Time"
              placeholder="16:00"
              inputmode="numeric"
              :aria-invalid="badTime"
              @keydown.enter.prevent="moment && !badTime && emit('choose', moment)"
          /></label>
          <span v-else />
          <button class="btn main" :disabled="!moment || badTime" @click="emit('choose', moment)">
            {{ badTime ? "Not a time" : moment ? fullMoment(moment) : "Choose a day" }}
          </button>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.chooser {
  display: flex;
  max-height: min(480px, 90vh);
  overflow: auto;
}
.quick {
  display: flex;
  flex-direction: column;
  min-width: 124px;
  padding: 8px;
  border-right: 1px solid var(--tin);
}
.quick button {
  min-height: 30px;
  padding: 0 10px;
  border-radius: var(--corner);
  text-align: left;
  white-space: nowrap;
  cursor: pointer;
}
@media (pointer: coarse) {
  .quick button {
    min-height: 40px;
  }
  .chooser :deep(.v-date-picker-month__day),
  .chooser :deep(.v-date-picker-month__day .v-btn) {
    height: 40px;
  }
}
.quick button:hover,
.quick button:focus-visible {
  background: var(--wash);
}
.quick .set {
  font-weight: 600;
}
.none {
  margin-top: auto;
  color: var(--madder);
}
.foot {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 0 10px 10px;
}
input {
  width: 64px;
  height: 30px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.right :deep(.v-date-picker) {
  background: transparent;
  font-size: 14px;
}
.right :deep(.v-date-picker-month__day) {
  width: 40px;
  height: 34px;
}
.right :deep(.v-date-picker-month) {
  padding-block: 0 4px;
}
.right :deep(.v-date-picker-controls) {
  height: 44px;
  padding-block: 4px;
}
.right :deep(.v-date-picker-month__day .v-btn) {
  border-radius: var(--corner);
}
.right :deep(.v-date-picker-month__day--selected .v-btn) {
  background: var(--rim);
  color: var(--glaze);
}
@media (max-width: 760px) {
  .chooser {
    flex-direction: column;
    width: min(340px, 94vw);
  }
  .quick {
    flex-flow: row wrap;
    border-right: 0;
    border-bottom: 1px solid var(--tin);
  }
}
</style>
