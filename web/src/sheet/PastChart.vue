<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { ask, client } from "@/server/client";
import { railDay, shortMonth } from "@/words/dates";
import { estimateWords } from "@/words/fields";

/** How much was planned and how much was done on each day of the last four weeks. */
const { data } = useQuery({
  queryKey: ["view", "past"],
  queryFn: () => ask(() => client.GET("/api/past")),
});
const days = computed(() => data.value ?? []);
const asTable = ref(false);
const [width, height, foot] = [22, 72, 16];
const most = computed(() => Math.max(60, ...days.value.flatMap((d) => [d.planned, d.done])));
const high = (minutes: number) => (minutes / most.value) * (height - 6);
const sum = (of: "planned" | "done") => days.value.reduce((n, d) => n + d[of], 0);
const says = computed(
  () =>
    `Four weeks: ${estimateWords(sum("done")) || "nothing"} done, ${estimateWords(sum("planned")) || "nothing"} planned. The fullest day had ${estimateWords(most.value)}.`,
);
const named = (day: string) => `${railDay(day)} ${shortMonth(day)}`;
const words = (minutes: number) => (minutes ? estimateWords(minutes) : "–");
</script>

<template>
  <section v-if="days.length" class="past" aria-label="The last four weeks">
    <p class="says">
      {{ says }}
      <button class="do" :aria-expanded="asTable" @click="asTable = !asTable">
        {{ asTable ? "As a picture" : "As a table" }}
      </button>
    </p>
    <svg
      v-if="!asTable"
      :viewBox="`0 0 ${days.length * width} ${height + foot}`"
      role="img"
      :aria-label="says"
    >
      <g v-for="(d, i) in days" :key="d.day" :transform="`translate(${i * width} 0)`">
        <title>
          {{ named(d.day) }}: {{ words(d.planned) }} planned, {{ words(d.done) }} done in
          {{ d.count }}
        </title>
        <rect class="touch" :width="width" :height="height + foot" />
        <rect
          v-if="d.done"
          class="done"
          x="4"
          :y="height - high(d.done)"
          width="14"
          :height="high(d.done)"
        />
        <rect
          v-if="d.planned"
          class="planned"
          x="3"
          :y="height - high(d.planned)"
          width="16"
          :height="high(d.planned)"
        />
        <text
          v-if="i % 7 === (days.length - 1) % 7"
          :x="i === days.length - 1 ? 20 : 11"
          :y="height + 13"
          :text-anchor="i === days.length - 1 ? 'end' : 'middle'"
        >
          {{ Number(d.day.slice(8)) }} {{ shortMonth(d.day) }}
        </text>
      </g>
      <line class="ground" x1="0" :y1="height" :x2="days.length * width" :y2="height" />
    </svg>
    <div v-else class="rows">
      <table>
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col">Planned</th>
            <th scope="col">Done</th>
            <th scope="col">To-dos done</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in [...days].reverse()" :key="d.day">
            <th scope="row">{{ named(d.day) }}</th>
            <td>{{ words(d.planned) }}</td>
            <td>{{ words(d.done) }}</td>
            <td>{{ d.count || "–" }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="legend">
      <span class="swatch filled" /> done <span class="swatch" /> planned: what has the day as its
      plan by now. What was moved to another day counts there.
    </p>
  </section>
</template>

<style scoped>
.past {
  max-width: 700px;
  margin: 4px 0 16px;
}
.says,
.legend {
  color: var(--pencil);
  font-size: 14px;
}
svg {
  display: block;
  width: 100%;
  margin-top: 8px;
}
.touch {
  fill: transparent;
}
.done {
  fill: var(--fill);
}
.planned {
  fill: none;
  stroke: var(--rim);
  stroke-width: 1.5;
}
.ground {
  stroke: var(--tin);
}
text {
  fill: var(--pencil);
  font-size: 11px;
}
.swatch {
  display: inline-block;
  width: 11px;
  height: 11px;
  border: 1.5px solid var(--rim);
  vertical-align: -1px;
}
.swatch.filled {
  border-color: var(--fill);
  background: var(--fill);
}
.legend .swatch + .swatch {
  margin-left: 10px;
}
.rows {
  max-height: 260px;
  margin-top: 8px;
  overflow-y: auto;
}
table {
  border-collapse: collapse;
  font-size: 14px;
  font-variant-numeric: tabular-nums;
}
th,
td {
  padding: 2px 18px 2px 0;
  border-bottom: 1px solid var(--tin);
  font-weight: 400;
  text-align: left;
}
thead th {
  color: var(--pencil);
}
</style>
