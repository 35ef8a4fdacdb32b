<script setup lang="ts">
import { computed } from "vue";
import type { Group, Overview } from "@/api/client";
import { groupHead } from "@/words/groups";
import CupGlyph from "./CupGlyph.vue";

const props = defineProps<{
  group: Group;
  today: string;
  overview: Overview;
  /** Upcoming shows each day's cup beside its name. */
  withCup?: boolean;
  folded?: boolean;
  folds?: boolean;
}>();
defineEmits<{ fold: [] }>();

const words = computed(() => groupHead(props.group, props.today));
const level = computed(() => {
  const cup = props.overview.rail.find((c) => c.horizon === props.group.horizon);
  return (cup?.count ?? props.group.count) / props.overview.brim;
});
const over = computed(() =>
  props.withCup && props.group.kind === "day"
    ? Math.round((level.value - 1) * props.overview.brim)
    : 0,
);
</script>

<template>
  <component
    :is="folds ? 'button' : 'div'"
    v-if="words"
    class="head"
    :class="{ late: group.kind === 'overdue', folds }"
    :aria-expanded="folds ? !folded : undefined"
    @click="folds && $emit('fold')"
  >
    <CupGlyph v-if="withCup && group.kind === 'day'" :level="level" :size="20" />
    <h2>{{ words }}</h2>
    <span v-if="over > 0" class="over">{{ over }} over</span>
    <span class="count"
      >{{ folds ? (folded ? "show " : "hide ") : "" }}{{ group.count || "" }}</span
    >
  </component>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  height: 36px;
  padding: 4px 8px 0 0;
  border-bottom: 1px solid var(--ink);
  text-align: left;
}
h2 {
  flex: 1;
  overflow: hidden;
  font-size: 15px;
  line-height: 20px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.late h2 {
  color: var(--madder);
}
.count {
  color: var(--pencil);
  font-size: 14px;
}
.over {
  color: var(--copper);
  font-size: 14px;
  font-weight: 600;
}
.folds {
  cursor: pointer;
}
.folds:hover .count {
  text-decoration: underline;
}
</style>
