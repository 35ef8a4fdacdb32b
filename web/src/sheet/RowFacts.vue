<script setup lang="ts">
import type { Overview } from "@/server/client";
import { tagColour } from "@/words/names";
import type { Fact } from "@/words/row";

/** Quietly, what is set of a to-do: its facts, and its tags with their colours. */
defineProps<{ facts: Fact[]; tags: string[]; overview: Overview }>();
</script>

<template>
  <span class="facts">
    <span v-for="f in facts" :key="f.text" class="fact" :class="f.tone">{{ f.text }}</span>
    <span
      v-for="tag in tags"
      :key="tag"
      class="fact tag"
      :style="{ borderColor: `var(--${tagColour(overview, tag)})` }"
      >{{ tag }}</span
    >
  </span>
</template>

<style scoped>
.fact {
  color: var(--pencil);
}
.fact.late {
  color: var(--madder);
  font-weight: 600;
}
.fact.flag {
  color: var(--copper);
  font-weight: 600;
}
.fact.time {
  color: var(--ink);
}
.tag {
  padding-bottom: 1px;
  border-bottom: 2px solid;
}
</style>
