<script setup lang="ts">
import { nextTick, useTemplateRef } from "vue";
import type { Overview } from "@/server/client";
import FilterLine from "./FilterLine.vue";
import { type GroupLine, type Line, newGroup, newTest } from "./tree";

/** Lines of which all or any must hold; groups within stand indented. */
const props = defineProps<{
  overview: Overview;
  /** The numbers of the groups above, such as "2."; "" for the outermost. */
  above: string;
  blamed: Set<number>;
  passes: Map<number, number>;
}>();
const group = defineModel<GroupLine>({ required: true });
defineEmits<{ remove: [] }>();
const root = useTemplateRef("root");

const kinds = [
  { value: "all", name: "All of these hold" },
  { value: "any", name: "At least one of these holds" },
  { value: "!any", name: "None of these holds" },
  { value: "!all", name: "Not all of these hold" },
];
function setKind(value: string) {
  group.value.not = value.startsWith("!");
  group.value.of = value.endsWith("any") ? "any" : "all";
}
async function add(line: Line) {
  group.value.lines.push(line);
  await nextTick();
  const mine = root.value?.querySelectorAll<HTMLElement>(":scope > .lines > * select") ?? [];
  [...mine].at(line.kind === "group" ? -3 : -2)?.focus();
}
function put(i: number, line: Line) {
  group.value.lines[i] = line;
}
const nth = (i: number) => `${props.above}${i + 1}`;
</script>

<template>
  <div ref="root" class="group" :class="{ inner: above, blamed: blamed.has(group.id) && above }">
    <div class="head">
      <select
        :value="`${group.not ? '!' : ''}${group.of}`"
        :aria-label="above ? `Group ${above.slice(0, -1)}` : 'How the lines go together'"
        @change="setKind(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="k in above ? kinds : kinds.slice(0, 2)" :key="k.value" :value="k.value">
          {{ k.name }}
        </option>
      </select>
      <button
        v-if="above"
        type="button"
        class="btn quiet"
        :aria-label="`Take group ${above.slice(0, -1)} out`"
        @click="$emit('remove')"
      >
        Take the group out
      </button>
    </div>
    <div class="lines">
      <template v-for="(line, i) in group.lines" :key="line.id">
        <FilterGroup
          v-if="line.kind === 'group'"
          :model-value="line"
          :overview="overview"
          :above="`${nth(i)}.`"
          :blamed="blamed"
          :passes="passes"
          @remove="group.lines.splice(i, 1)"
        />
        <FilterLine
          v-else
          :model-value="line"
          :overview="overview"
          :nth="nth(i)"
          :blamed="blamed.has(line.id)"
          :passes="passes.get(line.id)"
          @update:model-value="(l) => put(i, l)"
          @remove="group.lines.splice(i, 1)"
        />
      </template>
      <p v-if="!group.lines.length" class="none">
        {{ group.of === "all" ? "Nothing is asked: everything holds." : "Nothing in it can hold." }}
      </p>
    </div>
    <div class="adders">
      <button type="button" class="btn" :class="{ quiet: above }" @click="add(newTest())">
        Add a line
      </button>
      <button
        type="button"
        class="btn"
        :class="{ quiet: above }"
        @click="add(newGroup('any', newTest()))"
      >
        Add a group
      </button>
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 6px;
}
.head select {
  height: 28px;
  margin-left: -4px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.lines {
  display: grid;
  gap: 6px;
}
.inner {
  margin: 2px 0 4px;
  padding: 6px 0 8px 14px;
  border-left: 2px solid var(--tin);
}
.inner.blamed {
  border-left-color: var(--madder);
}
.inner .adders {
  margin: 2px 0 0 -10px;
}
.inner .adders .btn {
  color: var(--pencil);
  font-size: 13px;
}
.adders {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.none {
  color: var(--pencil);
}
</style>
