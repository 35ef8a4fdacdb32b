<script setup lang="ts">
import type { Chip } from "@/server/client";
import { chipLabels } from "@/words/fields";

/** One field that was read: its value in full, to open or to take away. */
defineProps<{ chip: Chip }>();
defineEmits<{ open: [at: HTMLElement]; without: [] }>();
</script>

<template>
  <span class="chip" :class="{ problem: chip.problem }" :data-field="chip.field">
    <button
      class="body"
      tabindex="-1"
      data-walk
      aria-haspopup="dialog"
      :title="chip.problem ?? `From “${chip.words}”. Open to choose by hand.`"
      @click="$emit('open', $event.currentTarget as HTMLElement)"
      @keydown.delete.prevent="$emit('without')"
    >
      <span class="label">{{ chipLabels[chip.field] }}</span>
      {{ chip.problem ? chip.words : chip.value }}
    </button>
    <button
      class="away"
      tabindex="-1"
      :aria-label="`Leave “${chip.words}” as words`"
      @click="$emit('without')"
    >
      ×
    </button>
  </span>
</template>

<style scoped>
.chip {
  display: inline-flex;
  max-width: 100%;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  line-height: 20px;
}
.body {
  padding: 3px 2px 3px 8px;
  text-align: left;
  cursor: pointer;
}
.label {
  margin-right: 4px;
  color: var(--pencil);
  font-size: 13px;
}
.away {
  min-width: 24px;
  color: var(--pencil);
  font-weight: 600;
  cursor: pointer;
}
.away:hover,
.body:hover {
  background: var(--wash);
}
@media (pointer: coarse) {
  .body,
  .away {
    min-height: 38px;
  }
  .away {
    min-width: 40px;
  }
}
.problem {
  border-color: var(--madder);
  background: color-mix(in srgb, var(--madder) 7%, transparent);
  color: var(--madder);
}
.problem .label,
.problem .away {
  color: inherit;
}
</style>
