<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from "vue";
import { ask, client, type Overview, type Postponement } from "@/server/client";
import { type MakingRoom, useCurrent } from "@/state/current";
import { useMany } from "@/server/many";
import { planWords, shortMoment } from "@/words/dates";
import { fillOf, bothWords } from "@/words/load";
import DateWords from "@/choosers/DateWords.vue";
import LayerDialog from "@/kit/LayerDialog.vue";

/** Safe postpone: before anything moves, what moves and what stays, and why. */
const props = defineProps<{ making: MakingRoom; overview: Overview }>();
const current = useCurrent();
const many = useMany();
const dialog = useTemplateRef("dialog");

const distances = computed(() => [
  ...(found.value?.room
    ? [
        {
          value: "room",
          name: `to ${planWords(found.value.room, props.overview.today)}, which holds it`,
        },
      ]
    : []),
  { value: "P1D", name: "a day" },
  { value: "P2D", name: "two days" },
  { value: "P1W", name: "a week" },
  { value: "next-week", name: "to Monday of next week" },
  { value: "next-month", name: "to the first of next month" },
]);
/** To the next day whose hours hold what moves, where there is one, unless another is chosen. */
const distance = ref("room");
const date = ref("");
const release = ref(new Set<string>());
const found = ref<Postponement>();
const reason = ref("");
let asked = 0;

const body = computed(() => ({
  ids: props.making.ids ?? [],
  distance: distance.value === "date" ? date.value : distance.value,
  release: [...release.value],
}));
async function read() {
  const nth = ++asked;
  if (!body.value.distance || !body.value.ids.length) {
    found.value = undefined;
    return;
  }
  try {
    const answer = await ask(() => client.POST("/api/postpone/preview", { body: body.value }));
    if (nth !== asked) return;
    found.value = answer;
    reason.value = "";
    if (!answer.room && distance.value === "room") distance.value = "P1D";
  } catch (e) {
    if (nth !== asked) return;
    found.value = undefined;
    reason.value = e instanceof Error ? e.message : "It could not be worked out.";
  }
}
watch(body, () => void read(), { immediate: true });

const fills = computed(() => found.value?.fills ?? []);
const moving = computed(() => found.value?.moves.length ?? 0);
/** Enter was pressed before the answer came. */
let wished = props.making.wished ?? false;
watch(found, (now) => {
  if (now && wished) void go();
});
async function go() {
  wished = found.value === undefined;
  if (!moving.value) return;
  // The day that is said is the one that is kept.
  const to = distance.value === "room" ? (found.value?.room ?? "P1D") : body.value.distance;
  if (await many.postpone({ ...body.value, distance: to })) dialog.value?.close();
}
/** Enter moves, wherever the focus is but on a button or in the date. */
function enter(e: KeyboardEvent) {
  if (e.target instanceof HTMLElement && e.target.closest("button, input")) return;
  e.preventDefault();
  void go();
}
function words(field: string, value: string) {
  const today = props.overview.today;
  const said = field === "plan" ? planWords(value, today) : shortMoment(value, today);
  return said;
}
function turn(id: string) {
  if (!release.value.delete(id)) release.value.add(id);
}
const released = (id: string) => release.value.has(id);
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="make-room"
    class="room"
    labelledby="room-title"
    @close="current.makingRoom = undefined"
  >
    <form @submit.prevent="go" @keydown.enter="enter">
      <header>
        <h1 id="room-title" tabindex="-1" autofocus>Make room</h1>
        <p>{{ making.from }}. Nothing moves until you say so.</p>
      </header>
      <fieldset>
        <legend class="unseen">How far</legend>
        <button
          v-for="d in distances"
          :key="d.value"
          type="button"
          class="far"
          :aria-pressed="distance === d.value"
          @click="distance = d.value"
        >
          {{ d.name }}
        </button>
        <label class="far date" :class="{ on: distance === 'date' }">
          to
          <DateWords
            :model-value="date"
            label="A date"
            placeholder="a date"
            @update:model-value="((date = $event), (distance = $event ? 'date' : 'room'))"
          />
        </label>
      </fieldset>
      <p v-if="reason" class="wrong" role="alert">{{ reason }}</p>
      <div class="columns">
        <section aria-labelledby="moves-title">
          <h2 id="moves-title">
            These move <span class="count">{{ moving }}</span>
          </h2>
          <ul>
            <li v-for="m in found?.moves" :key="m.id">
              <span class="title">{{ m.title }}</span>
              <span v-for="d in m.dates" :key="d.field" class="dates"
                >{{ d.field }} {{ words(d.field, d.from) }} →
                <b>{{ words(d.field, d.to) }}</b></span
              >
              <button v-if="released(m.id)" type="button" class="btn small" @click="turn(m.id)">
                Let it stay
              </button>
            </li>
          </ul>
          <p v-if="found && !moving" class="none">Nothing here would move.</p>
        </section>
        <section aria-labelledby="stays-title">
          <h2 id="stays-title">
            These stay <span class="count">{{ found?.stays.length }}</span>
          </h2>
          <ul>
            <li v-for="s in found?.stays" :key="s.id">
              <span class="title">{{ s.title }}</span>
              <span class="dates">{{ s.why }}</span>
              <button v-if="s.releasable" type="button" class="btn small" @click="turn(s.id)">
                Move it too
              </button>
            </li>
          </ul>
          <p v-if="found && !found.stays.length" class="none">Nothing is held back.</p>
        </section>
      </div>
      <p v-if="fills.length" class="fills">
        Then
        <span v-for="f in fills" :key="f.horizon" :class="{ over: fillOf(f.load, 0).over }">
          {{ planWords(f.horizon, overview.today) }}: {{ bothWords(f.load) }}
        </span>
      </p>
      <footer>
        <button type="button" class="btn quiet" @click="dialog?.close()">Cancel</button>
        <button type="submit" class="btn main" :disabled="!moving">
          {{
            moving === 0 ? "Nothing moves" : moving === 1 ? "Move 1 to-do" : `Move ${moving} to-dos`
          }}
        </button>
      </footer>
    </form>
  </LayerDialog>
</template>

<style scoped>
.room {
  width: min(920px, calc(100vw - 24px));
}
form {
  display: flex;
  flex-direction: column;
  max-height: calc(100dvh - 90px);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
}
h1:focus {
  outline: none;
}
h1 {
  font-size: 20px;
  line-height: 28px;
}
header p,
.dates,
.count,
.none {
  color: var(--pencil);
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 10px 0 12px;
  padding: 0;
  border: 0;
}
.fills {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  margin-top: 8px;
  color: var(--pencil);
}
.fills .over {
  color: var(--copper);
  font-weight: 600;
}
.far {
  min-height: 32px;
  padding: 0 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  cursor: pointer;
}
.far[aria-pressed="true"],
.far.on {
  border-color: var(--rim);
  background: var(--wash);
  font-weight: 600;
}
.date {
  display: flex;
  align-items: center;
  gap: 6px;
}
.date :deep(input) {
  width: 130px;
  border-bottom: 1px solid var(--pencil);
}
.columns {
  display: grid;
  flex: 1;
  grid-template-columns: 1fr 1fr;
  gap: 0 24px;
  min-height: 160px;
  overflow-y: auto;
}
h2 {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--ink);
  font-size: 15px;
}
.count {
  font-family: var(--sans);
  font-weight: 400;
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  padding: 6px 0;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
.title {
  flex: 1 0 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.dates {
  flex: 1;
  font-size: 14px;
}
.dates b {
  color: var(--ink);
}
.small {
  min-height: 24px;
  font-size: 13px;
}
.none {
  padding: 8px 0;
}
.wrong {
  color: var(--madder);
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 14px;
}
@media (max-width: 760px) {
  .columns {
    grid-template-columns: 1fr;
    align-content: start;
    gap: 14px;
  }
}
</style>
