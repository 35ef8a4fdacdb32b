<script setup lang="ts">
import { computed, useTemplateRef } from "vue";
import CupGlyph from "@/kit/CupGlyph.vue";
import type { RailCup } from "@/server/client";
import { useDrop } from "@/state/drop";
import { monthName, precision } from "@/words/dates";
import { fillOf } from "@/words/load";

/** What lies beyond the week: another week, a month, or what is parked. A slip dropped on it is planned there. */
const props = defineProps<{ cup: RailCup; name?: string }>();
const emit = defineEmits<{ drop: [id: string] }>();
const root = useTemplateRef<{ $el: HTMLElement }>("root");
const hovered = useDrop(
  computed(() => root.value?.$el ?? null),
  (id) => emit("drop", id),
);
const words = computed(() => {
  if (props.name) return props.name;
  return precision(props.cup.horizon) === "month" ? monthName(`${props.cup.horizon}-01`) : "Parked";
});
const fill = computed(() => fillOf(props.cup.load, props.cup.count));
</script>

<template>
  <router-link ref="root" class="beyond" :class="{ hovered }" :to="`/rail/${cup.horizon}`">
    <CupGlyph :level="fill.level" :assumed="fill.assumed" :size="16" />
    {{ words }} <span class="count">{{ cup.count }}</span>
  </router-link>
</template>

<style scoped>
.beyond {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  padding: 0 8px;
  border-radius: var(--corner);
  color: var(--ink);
  font-size: 14px;
  text-decoration: none;
  white-space: nowrap;
}
.beyond:hover,
.hovered {
  background: var(--wash);
}
.hovered {
  outline: 2px dashed var(--rim);
}
.count {
  color: var(--pencil);
}
@media (pointer: coarse) {
  .beyond {
    min-height: 40px;
  }
}
</style>
