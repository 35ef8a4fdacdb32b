<script setup lang="ts">
import { useTemplateRef } from "vue";
import type { Overview } from "@/server/client";
import type { WeekSlip as Slip } from "@/server/week";
import { useDrop } from "@/state/drop";
import WeekSlip from "./WeekSlip.vue";

/** The slips that have no day yet. What is dropped here is planned for the week alone. */
defineProps<{ slips: Slip[]; more: Slip[]; overview: Overview; today: string }>();
const emit = defineEmits<{ open: [id: string]; drop: [id: string] }>();
/** What stands here besides: "" for nothing, "ready", or a view of one's own. */
const also = defineModel<string>("also", { required: true });
const root = useTemplateRef<HTMLElement>("root");
const hovered = useDrop(root, (id) => emit("drop", id));
</script>

<template>
  <section ref="root" class="loose" :class="{ hovered }" aria-label="To place">
    <h2>To place</h2>
    <WeekSlip
      v-for="s in [...slips, ...more]"
      :key="s.todo.id"
      class="chip"
      :slip="s"
      :overview="overview"
      :today="today"
      told
      @open="emit('open', s.todo.id)"
    />
    <p v-if="!slips.length && !more.length">
      Nothing is planned for this week without a day. Drop a slip here to leave its day open.
    </p>
    <label class="also">
      and
      <select v-model="also">
        <option value="">nothing else</option>
        <option value="ready">what is Ready</option>
        <option v-for="v in overview.views" :key="v.id" :value="v.id">{{ v.name }}</option>
      </select>
    </label>
  </section>
</template>

<style scoped>
.loose {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  max-height: 170px;
  margin: 8px 0 4px;
  padding: 7px 9px;
  overflow-y: auto;
  border: 1px dashed var(--tin);
  border-radius: var(--corner);
}
.loose.hovered {
  border: 1px dashed var(--rim);
  background: var(--wash);
}
h2 {
  margin-right: 4px;
  font-family: var(--slab);
  font-size: 14px;
}
p,
.also {
  color: var(--pencil);
  font-size: 14px;
}
.also {
  margin-left: 6px;
}
select {
  field-sizing: content;
  max-width: 180px;
  min-height: 26px;
  color: var(--rim);
  font-weight: 600;
  text-overflow: ellipsis;
  cursor: pointer;
}
.chip {
  align-items: center;
  width: auto;
  max-width: 340px;
  min-height: 26px;
}
.chip :deep(.words) {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
@media (max-width: 760px) {
  /* One line that scrolls: the cups are what the page is for. */
  .loose {
    flex: none;
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  h2,
  .chip,
  .also {
    flex: none;
  }
  .chip {
    min-height: 40px;
  }
  select {
    min-height: 40px;
  }
}
</style>
