<script setup lang="ts">
import { computed, ref } from "vue";
import LayerMenu from "@/kit/LayerMenu.vue";
import OptionFinder from "@/kit/OptionFinder.vue";
import type { WeekDay } from "@/server/week";
import { hourChoices } from "@/words/week";

/** Chooses the hours of one date: away, short, long, typed, or those of its weekday. */
const props = defineProps<{ day: WeekDay; at: HTMLElement }>();
const emit = defineEmits<{ choose: [hours: string | null]; close: [] }>();
const query = ref("");
const options = computed(() => hourChoices(props.day, query.value));
const begin = computed(() =>
  Math.max(
    0,
    options.value.findIndex((o) => o.now),
  ),
);
</script>

<template>
  <LayerMenu layer="hours" :at="at" start @close="emit('close')">
    <OptionFinder
      v-model="query"
      what="Hours"
      placeholder="Hours: 9-12, 14-16"
      :options="options"
      :begin="begin"
      :chosen="(o) => o.now"
      @pick="(o) => emit('choose', o.hours)"
    >
      <template #default="{ option }">
        <span>{{ option.name }}</span> <span class="hours">{{ option.words }}</span>
      </template>
    </OptionFinder>
  </LayerMenu>
</template>

<style scoped>
.hours {
  margin-left: auto;
  color: var(--pencil);
  font-size: 14px;
}
</style>
