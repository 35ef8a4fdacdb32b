<script setup lang="ts">
import { computed, onMounted, reactive, ref, useTemplateRef, watch } from "vue";
import {
  ask,
  type Choice,
  client,
  type Repeat,
  type RepeatChoice,
  type RepeatPreview,
  type SaidRead,
} from "@/server/client";
import { addDays, fullMoment } from "@/words/dates";
import DateWords from "./DateWords.vue";
import SayWhen from "./SayWhen.vue";
import {
  type Ending,
  monthNames,
  ordinals,
  type Pattern,
  unitNames,
  weekdayNames,
  weekdays,
} from "@/words/repeat";

/** How something comes round: chosen by hand, said in a sentence, shown by its next dates. */
const props = defineProps<{
  repeat?: Repeat;
  /** The date it begins with unless another is chosen. */
  date: string | null;
  today: string;
  /** It is there already, and can be skipped, paused and ended. */
  kept?: boolean;
}>();
const emit = defineEmits<{
  save: [choice: RepeatChoice];
  say: [words: string];
  cancel: [];
  skip: [];
  pause: [];
  resume: [];
  end: [];
}>();

const root = useTemplateRef("root");
// A repeat goes on from its pattern, wherever this one was postponed to.
const given = (props.kept ? props.repeat?.current : props.date) ?? "";
/** A plan for a week or month has no day of its own. */
const begin = /^\d{4}-\d\d-\d\d/.test(given) ? given.slice(0, 10) : props.today;
const dayOf = (date: string) =>
  weekdays[(new Date(`${date}T12:00:00Z`).getUTCDay() + 6) % 7] ?? "MO";
const form = reactive({
  every: 1,
  unit: "WEEKLY" as Choice["unit"],
  weekdays: [] as NonNullable<Choice["weekdays"]>,
  pattern: "day" as Pattern,
  monthDay: Number(begin.slice(8)),
  nth: Math.min(Math.ceil(Number(begin.slice(8)) / 7), 5),
  nthDay: dayOf(begin),
  month: Number(begin.slice(5, 7)),
  ending: "never" as Ending,
  count: 10,
  until: addDays(begin, 90),
  anchor: props.repeat?.anchor ?? ("schedule" as Repeat["anchor"]),
  lead: props.repeat?.lead ?? 0,
  first: begin,
});
/** A rule that no choice makes stays as it is until something is chosen. */
const foreign = ref("");
/** The time of day that was said; the due's own stays where there is none. */
const time = ref<string>();
const preview = ref<RepeatPreview>();
const reason = ref("");
let asked = 0;

function take(choice: Choice) {
  Object.assign(form, {
    every: choice.every,
    unit: choice.unit,
    weekdays: choice.weekdays ?? [],
    pattern: choice.nth ? "weekday" : choice.monthDay === -1 ? "last" : "day",
    ending: choice.count ? "count" : choice.until ? "until" : "never",
    count: choice.count ?? form.count,
    until: choice.until ?? form.until,
  });
  if (choice.monthDay && choice.monthDay > 0) form.monthDay = choice.monthDay;
  if (choice.nth) form.nth = choice.nth;
  if (choice.nthDay) form.nthDay = choice.nthDay;
  if (choice.month) form.month = choice.month;
}

const choice = computed<RepeatChoice>(() => {
  const rest = {
    first: form.first,
    anchor: form.anchor,
    lead: Number(form.lead) || 0,
    ...(time.value && { time: time.value }),
  };
  if (foreign.value) return { rule: foreign.value, ...rest };
  const c: Choice = { every: Number(form.every) || 1, unit: form.unit };
  if (form.anchor === "schedule") {
    if (form.unit === "WEEKLY" && form.weekdays.length) c.weekdays = form.weekdays;
    if (form.unit === "MONTHLY" || form.unit === "YEARLY") {
      if (form.pattern === "weekday") Object.assign(c, { nth: form.nth, nthDay: form.nthDay });
      else c.monthDay = form.pattern === "last" ? -1 : Number(form.monthDay);
      if (form.unit === "YEARLY") c.month = form.month;
    }
  }
  if (form.ending === "count") c.count = Number(form.count) || 1;
  if (form.ending === "until" && form.until) c.until = form.until;
  return { choice: c, ...rest };
});

/** The working days, which one press chooses. */
const workdays = weekdays.slice(0, 5);
const onWorkdays = computed(() => String(form.weekdays) === String(workdays));
function chooseWorkdays() {
  form.unit = "WEEKLY";
  form.every = 1;
  form.weekdays = onWorkdays.value ? [] : [...workdays];
}

/** Shows what words mean in the form below them. */
async function show(said: SaidRead | undefined) {
  if (!said?.repeat?.rule) return;
  const { rule, first, anchor, lead } = said.repeat;
  time.value = said.repeat.time;
  Object.assign(form, { first: first ?? form.first, anchor, lead });
  try {
    const now = await ask(() =>
      client.POST("/api/repeat", { body: { rule, first, anchor, lead } }),
    );
    foreign.value = now.choice ? "" : rule;
    if (now.choice) take(now.choice);
  } catch {
    foreign.value = rule;
  }
}
/** Enter behind words: it repeats as they say, at the time that they say. */
function saySo(said: SaidRead) {
  if (!said.repeat) return;
  emit("save", said.repeat);
  const at = said.repeat.time ? ` at ${said.repeat.time}` : "";
  if (said.say) emit("say", said.say + at);
}

async function look() {
  const nth = ++asked;
  try {
    const answer = await ask(() => client.POST("/api/repeat", { body: choice.value }));
    if (nth !== asked) return;
    preview.value = answer;
    reason.value = "";
  } catch (e) {
    if (nth === asked) reason.value = e instanceof Error ? e.message : "It could not be reckoned.";
  }
}

onMounted(async () => {
  if (props.repeat) {
    const { rule, first, anchor, lead } = props.repeat;
    try {
      const now = await ask(() =>
        client.POST("/api/repeat", { body: { rule, first, anchor, lead } }),
      );
      if (now.choice) take(now.choice);
      else foreign.value = rule;
    } catch {
      foreign.value = rule;
    }
  }
  await look();
  root.value?.querySelector<HTMLElement>("input, select")?.focus();
});
watch(choice, () => void look());

function turn(day: (typeof weekdays)[number]) {
  const had = form.weekdays.includes(day);
  form.weekdays = weekdays.filter((d) => (d === day ? !had : form.weekdays.includes(d)));
}
function save() {
  if (reason.value || !preview.value) return;
  if (props.kept !== undefined) emit("save", choice.value);
  if (preview.value.say) emit("say", preview.value.say);
  else if (props.kept === undefined)
    reason.value = "No sentence says this. Put it in first, and change it in its slip.";
}
</script>

<template>
  <div ref="root" class="editor" role="dialog" aria-label="How it repeats">
    <SayWhen
      field="repeat"
      example="every weekday, first of the month"
      @read="(_, said) => show(said)"
      @choose="(_, said) => saySo(said)"
    />
    <p class="words" role="status" :class="{ wrong: reason }">
      {{ reason || (preview ? `Repeats ${preview.words}.` : "…") }}
    </p>
    <div v-if="foreign" class="line">
      <span>A rule of its own.</span>
      <button class="btn" @click="foreign = ''">Choose another</button>
    </div>
    <template v-else>
      <div class="line">
        <label
          >every
          <input
            v-model="form.every"
            class="number"
            type="number"
            min="1"
            max="999"
            aria-label="Every"
        /></label>
        <select v-model="form.unit" aria-label="Unit">
          <option v-for="(name, unit) in unitNames" :key="unit" :value="unit">
            {{ form.every > 1 ? name + "s" : name }}
          </option>
        </select>
        <select v-model="form.anchor" aria-label="Counted from">
          <option value="schedule">on its dates</option>
          <option value="completion">after it is done</option>
        </select>
      </div>
      <template v-if="form.anchor === 'schedule'">
        <div v-if="form.unit === 'WEEKLY'" class="line days" role="group" aria-label="Weekdays">
          <button
            v-for="day in weekdays"
            :key="day"
            class="btn"
            :aria-pressed="form.weekdays.includes(day)"
            :aria-label="weekdayNames[day]"
            @click="turn(day)"
          >
            {{ weekdayNames[day].slice(0, 2) }}
          </button>
          <button class="btn all" :aria-pressed="onWorkdays" @click="chooseWorkdays">
            Weekdays
          </button>
        </div>
        <div v-if="form.unit === 'MONTHLY' || form.unit === 'YEARLY'" class="line">
          <select v-model="form.pattern" aria-label="Which day">
            <option value="day">on day</option>
            <option value="weekday">on the</option>
            <option value="last">on the last day</option>
          </select>
          <input
            v-if="form.pattern === 'day'"
            v-model="form.monthDay"
            class="number"
            type="number"
            min="1"
            max="31"
            aria-label="Day of the month"
          />
          <template v-else-if="form.pattern === 'weekday'">
            <select v-model="form.nth" aria-label="Which one">
              <option v-for="(name, n) in ordinals" :key="n" :value="Number(n)">{{ name }}</option>
            </select>
            <select v-model="form.nthDay" aria-label="Weekday">
              <option v-for="day in weekdays" :key="day" :value="day">
                {{ weekdayNames[day] }}
              </option>
            </select>
          </template>
          <label v-if="form.unit === 'YEARLY'">
            of
            <select v-model="form.month" aria-label="Month">
              <option v-for="(name, i) in monthNames" :key="name" :value="i + 1">{{ name }}</option>
            </select>
          </label>
        </div>
      </template>
      <div class="line">
        <label>from <DateWords v-model="form.first" label="From" /></label>
        <select v-model="form.ending" aria-label="Ends">
          <option value="never">without end</option>
          <option value="until">until</option>
          <option value="count">so many times</option>
        </select>
        <DateWords v-if="form.ending === 'until'" v-model="form.until" label="Until" />
        <input
          v-else-if="form.ending === 'count'"
          v-model="form.count"
          class="number"
          type="number"
          min="1"
          aria-label="Times"
        />
      </div>
    </template>
    <div class="line">
      <label>
        surfaces
        <input
          v-model="form.lead"
          class="number"
          type="number"
          min="0"
          max="366"
          aria-label="Days ahead"
        />
        days ahead
      </label>
    </div>
    <ol v-if="preview && !reason" class="dates" aria-label="Next dates">
      <li v-for="d in preview.dates" :key="d">{{ fullMoment(d) }}</li>
    </ol>
    <div class="deeds">
      <button class="btn main" :disabled="reason !== ''" @click="save">
        {{ kept ? "Change all coming ones" : "Let it repeat" }}
      </button>
      <template v-if="kept">
        <button class="btn" @click="emit('skip')">Skip this one</button>
        <button v-if="repeat?.paused" class="btn" @click="emit('resume')">Go on</button>
        <button v-else class="btn" @click="emit('pause')">Pause</button>
        <button class="btn" @click="emit('end')">End the repeat</button>
      </template>
      <button class="btn quiet" @click="emit('cancel')">Cancel</button>
    </div>
  </div>
</template>

<style scoped>
.editor {
  width: min(400px, 94vw);
  max-height: min(560px, 88vh);
  padding: 12px 14px;
  overflow-y: auto;
}
.editor :deep(.say) {
  margin: -12px -14px 10px;
}
.editor :deep(.say input) {
  width: 100%;
}
.words {
  min-height: 22px;
  font-family: var(--slab);
  font-size: 16px;
  font-weight: 600;
  line-height: 22px;
}
.wrong {
  color: var(--madder);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-top: 8px;
}
.line label {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
:deep(input),
select {
  height: 32px;
  padding: 0 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
.number {
  width: 64px;
}
.days .btn {
  min-width: 40px;
  justify-content: center;
  border-color: var(--tin);
  color: var(--pencil);
}
.days [aria-pressed="true"] {
  border-color: var(--rim);
  background: var(--rim);
  color: var(--glaze);
}
.dates {
  margin: 12px 0 0;
  padding: 8px 12px 8px 32px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}
</style>
