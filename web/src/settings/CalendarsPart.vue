<script setup lang="ts">
import { ref, useTemplateRef } from "vue";
import { mdiDotsHorizontal } from "@mdi/js";
import ActionMenu from "@/kit/ActionMenu.vue";
import PathIcon from "@/kit/PathIcon.vue";
import type { MenuItem } from "@/kit/menu";
import { type Calendar, useCalendarActions, useCalendars } from "@/server/calendars";
import { useOverview } from "@/server/queries";
import { readWords } from "@/words/calendars";

/** The calendars whose events are read: added, named, asked again and removed. */
const { data: calendars } = useCalendars();
const { data: overview } = useOverview();
const actions = useCalendarActions();
const address = ref("");
const problem = ref("");
/** What is being read: an address or the name of a file. */
const reading = ref("");
const field = useTemplateRef("field");
const picker = useTemplateRef("picker");

async function take(what: string, work: () => Promise<void>) {
  if (reading.value) return;
  [reading.value, problem.value] = [what, ""];
  try {
    await work();
    address.value = "";
  } catch (e) {
    problem.value = (e as Error).message;
    field.value?.focus();
  } finally {
    reading.value = "";
  }
}
function add() {
  const typed = address.value.trim();
  if (typed) void take(typed, () => actions.add(typed));
  else field.value?.focus();
}
function picked(e: Event) {
  const input = e.target as HTMLInputElement;
  const file = input.files?.[0];
  if (file) void take(file.name, () => actions.addFile(file));
  input.value = "";
}
function items(c: Calendar): MenuItem[] {
  return [
    ...(c.address ? [{ name: "Ask its address now", act: () => void actions.refresh(c) }] : []),
    { name: "Name and colour…", act: () => actions.rename(c) },
    { name: "Remove", act: () => void actions.remove(c), apart: true },
  ];
}
</script>

<template>
  <section id="calendars" aria-labelledby="calendars-head">
    <h2 id="calendars-head">Calendars</h2>
    <p class="does">
      Their events take hours from your days, and are named where a day is. They are only read,
      every quarter of an hour.
    </p>
    <ul v-if="calendars?.length" class="calendars">
      <li v-for="c in calendars" :key="c.id" :data-calendar="c.name">
        <span class="mark" :style="{ background: `var(--${c.colour})` }" aria-hidden="true" />
        <div class="about">
          <span class="label">{{ c.name }}</span>
          <p class="from" :title="c.address ?? c.file">{{ c.address ?? c.file }}</p>
          <p>{{ readWords(c, overview?.zone ?? "UTC") }}</p>
          <p v-if="c.problem" class="problem" role="status">{{ c.problem }}</p>
          <details v-if="c.problems.length">
            <summary>
              {{ c.leftOut ? `${c.leftOut} left out` : "Not all is read as it stands" }}
            </summary>
            <ul>
              <li v-for="p in c.problems" :key="p">{{ p }}</li>
            </ul>
          </details>
          <label class="whole">
            <input
              type="checkbox"
              :checked="c.allDayTakes"
              @change="actions.edit(c, { allDayTakes: !c.allDayTakes })"
            />
            Events of a whole day take the day
          </label>
        </div>
        <ActionMenu class="btn quiet more" :label="`More for ${c.name}`" :items="() => items(c)">
          <PathIcon :path="mdiDotsHorizontal" :size="18" />
        </ActionMenu>
      </li>
    </ul>
    <form @submit.prevent="add">
      <label for="calendar-address">Address of a calendar</label>
      <input
        id="calendar-address"
        ref="field"
        v-model="address"
        placeholder="https://…/calendar.ics"
        spellcheck="false"
        autocomplete="off"
        :aria-invalid="!!problem"
        :aria-describedby="problem ? 'calendar-problem' : undefined"
        @input="problem = ''"
        @keydown.esc="problem = ''"
      />
      <button class="btn" type="submit" :disabled="!!reading">Add</button>
      <button class="btn quiet" type="button" :disabled="!!reading" @click="picker?.click()">
        From a file…
      </button>
      <input ref="picker" type="file" accept=".ics,text/calendar" hidden @change="picked" />
    </form>
    <p v-if="reading" class="does" role="status">Reading {{ reading }} …</p>
    <p v-if="problem" id="calendar-problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped src="./part.css"></style>
<style scoped>
summary {
  color: var(--pencil);
  font-size: 14px;
  line-height: 20px;
}
.does {
  padding: 10px 0;
}
.calendars,
details ul {
  list-style: none;
}
.calendars > li {
  display: flex;
  gap: 10px;
  padding: 12px 0;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
.mark {
  flex: none;
  width: 6px;
  border-radius: 2px;
}
.about {
  flex: 1;
  min-width: 0;
}
.from {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.problem {
  color: var(--copper);
}
.whole {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  font-size: 14px;
}
summary {
  cursor: pointer;
}
details li {
  padding: 2px 0 2px 16px;
  color: var(--pencil);
  font-size: 14px;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 14px 0 6px;
}
form label {
  flex: 0 0 100%;
  font-weight: 600;
}
form input:not([hidden]) {
  flex: 1 1 260px;
  min-width: 0;
  min-height: 32px;
  padding: 4px 8px;
  border: 2px solid var(--tin);
  border-radius: 6px;
  background: var(--glaze);
}
form input[aria-invalid="true"] {
  border-color: var(--madder);
}
@media (pointer: coarse) {
  .whole,
  summary {
    min-height: 40px;
  }
  form input:not([hidden]) {
    min-height: 40px;
  }
}
</style>
