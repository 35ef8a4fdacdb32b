<script setup lang="ts">
import type { Chip, Overview, Priority } from "@/server/client";
import type { Read } from "@/server/reading";
import { sayMoment, sayPlan } from "@/words/fields";
import { priorities, priorityNames } from "@/words/names";
import LayerMenu from "@/kit/LayerMenu.vue";
import MomentChooser from "@/choosers/MomentChooser.vue";
import NameChooser from "@/choosers/NameChooser.vue";
import PlanChooser from "@/choosers/PlanChooser.vue";
import RepeatEditor from "@/choosers/RepeatEditor.vue";

/** Chooses by hand what a chip of the capture line says, and says it in words. */
const props = defineProps<{ chip: Chip; at: HTMLElement; reading: Read; overview: Overview }>();
const emit = defineEmits<{ reword: [words: string | undefined] }>();

const said = (introducer: string, value: string | null) =>
  emit("reword", value ? `${introducer} ${sayMoment(value)}` : "");
const lists = () => props.overview.shelves.flatMap((s) => s.lists.map((l) => l.name));
const setPriority = (p: Priority) => emit("reword", p === "none" ? "" : p);
</script>

<template>
  <LayerMenu layer="chip" :at="at" start @close="emit('reword', undefined)">
    <MomentChooser
      v-if="chip.field === 'due' || chip.field === 'start'"
      :what="chip.field"
      :timed="chip.field === 'due'"
      :today="overview.today"
      :value="reading[chip.field] ?? null"
      @choose="(v) => said(chip.field === 'due' ? 'by' : 'from', v)"
    />
    <PlanChooser
      v-else-if="chip.field === 'plan'"
      :overview="overview"
      :value="reading.plan ?? null"
      @choose="(v) => emit('reword', v ? sayPlan(v) : '')"
    />
    <NameChooser
      v-else-if="chip.field === 'list'"
      what="List"
      :names="lists()"
      :chosen="chip.value"
      @choose="(name) => emit('reword', `in ${name}`)"
    />
    <div v-else-if="chip.field === 'priority'" class="steps" role="group" aria-label="Priority">
      <button
        v-for="p in priorities"
        :key="p"
        class="btn"
        :aria-pressed="reading.priority === p"
        @click="setPriority(p)"
      >
        {{ priorityNames[p] }}
      </button>
    </div>
    <RepeatEditor
      v-else
      :repeat="reading.repeat"
      :date="reading.due ?? null"
      :today="overview.today"
      @say="(words) => emit('reword', words)"
      @cancel="emit('reword', undefined)"
    />
  </LayerMenu>
</template>

<style scoped>
.steps {
  display: flex;
  gap: 4px;
  padding: 8px;
}
.steps [aria-pressed="true"] {
  background: var(--wash);
}
</style>
