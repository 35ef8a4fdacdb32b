<script setup lang="ts">
import { computed, ref } from "vue";
import type { Overview } from "@/server/client";
import type { NarrowKind } from "./narrowing";
import { priorities, priorityNames } from "@/words/names";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Chooses what a sheet is narrowed to: a tag, a list, a person or a priority. */
const props = defineProps<{ overview: Overview; has: (kind: string, value: string) => boolean }>();
const emit = defineEmits<{ narrow: [kind: NarrowKind, value: string] }>();
const query = ref("");

interface Option {
  key: string;
  kind: NarrowKind;
  value: string;
  sort: string;
  name: string;
}
const options = computed<Option[]>(() => {
  const o = props.overview;
  const make = (kind: NarrowKind, sort: string, value: string, name: string) => ({
    key: `${kind} ${value}`,
    kind,
    value,
    sort,
    name,
  });
  return [
    ...[...priorities].reverse().map((p) => make("priority", "priority", p, priorityNames[p])),
    ...o.tags.map((t) => make("tag", "tag", t.id, t.name)),
    make("list", "list", "none", "The Cup"),
    ...o.shelves.flatMap((s) => s.lists).map((l) => make("list", "list", l.id, l.name)),
    ...o.people.map((p) => make("person", "person", p.id, p.name)),
  ];
});
const found = computed(() => {
  const wanted = query.value.trim().toLowerCase();
  return options.value.filter((o) => `${o.sort} ${o.name}`.toLowerCase().includes(wanted));
});
function pick(o: Option) {
  query.value = "";
  emit("narrow", o.kind, o.value);
}
</script>

<template>
  <OptionFinder
    v-model="query"
    :options="found"
    what="Narrow to"
    placeholder="a tag, list, person or priority"
    :chosen="(o) => has(o.kind, o.value)"
    several
    @pick="pick"
  >
    <template #default="{ option }">
      <span class="mark">{{ has(option.kind, option.value) ? "✓" : "" }}</span>
      <span class="name">{{ option.name }}</span>
      <span class="sort">{{ option.sort }}</span>
    </template>
  </OptionFinder>
</template>

<style scoped>
.mark {
  width: 14px;
}
.name {
  flex: 1;
}
.sort {
  color: var(--pencil);
  font-size: 13px;
}
</style>
