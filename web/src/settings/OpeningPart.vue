<script setup lang="ts">
import { computed } from "vue";
import type { Overview } from "@/server/client";
import { useDestinations } from "@/state/destinations";
import { openingPage } from "@/state/opening-page";

/** Which page this browser opens with; each device may have another. */
const props = defineProps<{ overview: Overview }>();
const all = useDestinations(computed(() => props.overview));
const sorts = ["view", "list", "tag", "person"] as const;
const groups = computed(() => {
  const week = { path: "/week", name: "Week", sort: "view" as const };
  const pages = all.value.some((d) => d.path === week.path) ? all.value : [week, ...all.value];
  return sorts.map((sort) => ({ sort, pages: pages.filter((d) => d.sort === sort) }));
});
/** A list or view that is gone by now opens nothing: it is said, and another can be chosen. */
const known = computed(() =>
  groups.value.some((g) => g.pages.some((d) => d.path === openingPage.value)),
);
</script>

<template>
  <div class="part" data-setting="opensWith">
    <div class="about">
      <span id="label-opensWith" class="label">Opens with</span>
      <p>
        The page that Tin Cup opens with in this browser, and in no other.
        <template v-if="!known">It is gone: choose another.</template>
      </p>
    </div>
    <select v-model="openingPage" aria-labelledby="label-opensWith">
      <optgroup v-for="g in groups" :key="g.sort" :label="`A ${g.sort}`">
        <option v-for="d in g.pages" :key="d.path" :value="d.path">{{ d.name }}</option>
      </optgroup>
    </select>
  </div>
</template>

<style scoped src="./part.css"></style>
<style scoped>
select {
  width: 200px;
  min-height: 34px;
  padding: 0 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (pointer: coarse) {
  select {
    min-height: 40px;
  }
}
</style>
