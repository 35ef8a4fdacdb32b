<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from "@mdi/js";
import { computed, nextTick, useTemplateRef } from "vue";
import { type IndexGroup, indexViews, shownViews } from "@/words/index-views";
import { viewNames } from "@/words/names";

/** Chooses which shipped views stand in the index, and in which order in their group. */
const props = defineProps<{ value: string }>();
const emit = defineEmits<{ choose: [value: string] }>();
const root = useTemplateRef("root");

/** The ways in which a view moves, and at which end it can go no further. */
const ways = [
  { by: -1, name: "up", icon: mdiChevronUp, end: 0 },
  { by: 1, name: "down", icon: mdiChevronDown, end: -1 },
] as const;
const names = Object.keys(indexViews) as IndexGroup[];
/** Of each group those that are shown, in their order, and then the others. */
const groups = computed(() =>
  names.map((name) => {
    const shown = shownViews(name, props.value).map((v) => v.view);
    const hidden = indexViews[name].map((v) => v.view).filter((v) => !shown.includes(v));
    return { name, shown, hidden };
  }),
);

function take(group: IndexGroup, shown: string[]) {
  const all = groups.value.flatMap((g) => (g.name === group ? shown : g.shown));
  emit("choose", all.join(",") || "-");
}
function turn(g: { name: IndexGroup; shown: string[] }, view: string) {
  const rest = g.shown.filter((v) => v !== view);
  take(g.name, rest.length < g.shown.length ? rest : [...rest, view]);
}
/** Moves a view by one, and keeps the focus on the button that did it. */
async function move(g: { name: IndexGroup; shown: string[] }, view: string, by: 1 | -1) {
  const at = g.shown.indexOf(view);
  const next = [...g.shown];
  next.splice(at, 1);
  next.splice(at + by, 0, view);
  take(g.name, next);
  await nextTick();
  const again = root.value?.querySelector<HTMLButtonElement>(
    `[data-moves="${view} ${by}"]:enabled, [data-moves="${view} ${-by}"]:enabled`,
  );
  again?.focus();
}
</script>

<template>
  <div ref="root" class="views" role="group" aria-labelledby="label-views">
    <fieldset v-for="g in groups" :key="g.name">
      <legend>{{ g.name }}</legend>
      <div v-for="view in [...g.shown, ...g.hidden]" :key="view" class="view">
        <label>
          <input type="checkbox" :checked="g.shown.includes(view)" @change="turn(g, view)" />
          {{ viewNames[view] }}
        </label>
        <template v-if="g.shown.includes(view) && g.shown.length > 1">
          <button
            v-for="way in ways"
            :key="way.by"
            class="move"
            :data-moves="`${view} ${way.by}`"
            :aria-label="`Move ${viewNames[view]} ${way.name}`"
            :disabled="g.shown.at(way.end) === view"
            @click="move(g, view, way.by)"
          >
            <v-icon :icon="way.icon" size="18" />
          </button>
        </template>
      </div>
    </fieldset>
  </div>
</template>

<style scoped>
.views {
  display: grid;
  gap: 8px;
  width: 240px;
}
fieldset {
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  color: var(--pencil);
  font-size: 13px;
}
.view {
  display: flex;
  align-items: center;
  min-height: 30px;
}
label {
  display: flex;
  flex: 1;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  cursor: pointer;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--rim);
}
.move {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border-radius: var(--corner);
  color: var(--rim);
  cursor: pointer;
}
.move:disabled {
  color: var(--tin);
  cursor: default;
}
.move:hover:enabled {
  background: var(--wash);
}
@media (pointer: coarse) {
  .view,
  label,
  .move {
    min-width: 40px;
    min-height: 40px;
  }
}
</style>
