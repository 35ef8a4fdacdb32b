<script setup lang="ts">
import { computed, nextTick } from "vue";
import LayerMenu from "@/kit/LayerMenu.vue";
import { useCalendarActions, useCalendars } from "@/server/calendars";
import { type OpenEvent, useCurrent } from "@/state/current";
import { timeWords } from "@/words/calendars";
import { estimateWords } from "@/words/fields";

/** An event that was opened where it is seen: when it is, of which calendar, and what it takes. */
const props = defineProps<{ open: OpenEvent; today: string }>();
const current = useCurrent();
const { data: calendars } = useCalendars();
const { putIn } = useCalendarActions();
const event = computed(() => props.open.event);
const calendar = computed(
  () => calendars.value?.find((c) => c.id === event.value.calendar)?.name ?? "",
);

async function close() {
  const { at } = props.open;
  current.event = undefined;
  await nextTick();
  if (at.isConnected) at.focus();
}
async function make() {
  const { event, day } = props.open;
  await close();
  await putIn(event, day);
}
</script>

<template>
  <LayerMenu layer="event" :at="open.at" start @close="close">
    <section class="event" role="dialog" :aria-label="`Event: ${event.title}`">
      <h2>{{ event.title }}</h2>
      <p>{{ timeWords(event, open.day, today) }}</p>
      <p v-if="calendar">{{ calendar }}</p>
      <p>
        {{
          event.takes
            ? `Takes ${estimateWords(event.takes)} of the day’s working hours`
            : "Takes no working hours"
        }}
      </p>
      <button class="btn" @click="make">Make a to-do of it</button>
    </section>
  </LayerMenu>
</template>

<style scoped>
.event {
  width: 280px;
  padding: 14px 16px 16px;
}
h2 {
  font-size: 16px;
  line-height: 22px;
  overflow-wrap: anywhere;
}
p {
  color: var(--pencil);
  font-size: 14px;
}
.btn {
  margin-top: 10px;
}
</style>
