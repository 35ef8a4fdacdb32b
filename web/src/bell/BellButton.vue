<script setup lang="ts">
import { mdiBellOutline, mdiBellSleepOutline } from "@mdi/js";
import { computed, useTemplateRef } from "vue";
import { useBell } from "@/server/bell";
import { reminders } from "@/words/bell";
import BellList from "./BellList.vue";
import LaterMenu from "./LaterMenu.vue";
import { useBellState } from "./bell";

/** The bell in the top bar, with the number of rings that wait for an answer. */
defineProps<{ today: string }>();
const state = useBellState();
const { data: bell } = useBell();
const button = useTemplateRef("button");
const count = computed(() => bell.value?.openCount ?? 0);
const name = computed(() => (count.value ? `Bell: ${reminders(count.value)}` : "Bell"));
</script>

<template>
  <button
    ref="button"
    class="bell"
    :aria-label="name"
    :title="`${name} ( a )`"
    aria-haspopup="dialog"
    :aria-expanded="state.open"
    @click="state.open = true"
  >
    <v-icon :icon="bell?.quietUntil ? mdiBellSleepOutline : mdiBellOutline" size="22" />
    <span v-if="count" class="count" aria-hidden="true">{{ count > 99 ? "99+" : count }}</span>
  </button>
  <BellList v-if="state.open && button" :at="button" :today="today" @close="state.open = false" />
  <LaterMenu
    v-if="state.later"
    :key="String(state.later.rings)"
    :rings="state.later.rings"
    :at="state.later.at"
    :today="today"
    @close="state.later = undefined"
  />
</template>

<style scoped>
.bell {
  position: relative;
  display: grid;
  place-items: center;
  width: 36px;
  height: 36px;
  border-radius: var(--corner);
  color: inherit;
  cursor: pointer;
}
.bell:hover {
  background: rgb(255 255 255 / 12%);
}
.count {
  position: absolute;
  top: 1px;
  right: 0;
  min-width: 18px;
  padding: 0 4px;
  border-radius: 4px;
  background: #fffdf8;
  color: #1f4e48;
  font-size: 12px;
  font-weight: 700;
  line-height: 17px;
  text-align: center;
}
</style>
