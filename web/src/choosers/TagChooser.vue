<script setup lang="ts">
import { computed, ref } from "vue";
import type { Overview, Todo } from "@/server/client";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Turns tags on and off; of many to-dos, each choice adds one. */
const props = defineProps<{ overview: Overview; todo?: Todo }>();
const emit = defineEmits<{ turn: [add: string[], remove: string[]] }>();
const query = ref("");

const wanted = computed(() => query.value.trim().replace(/^#/, ""));
const found = computed(() => {
  const names = props.overview.tags.map((t) => t.name);
  const hits = names.filter((n) => n.toLowerCase().includes(wanted.value.toLowerCase()));
  const isNew = !names.some((n) => n.toLowerCase() === wanted.value.toLowerCase());
  if (wanted.value && isNew) hits.push(wanted.value);
  return hits.map((key) => ({ key, isNew: !names.includes(key) }));
});
const carries = (name: string) => props.todo?.tags.includes(name) ?? false;

function turn(name: string) {
  query.value = "";
  if (carries(name)) emit("turn", [], [name]);
  else emit("turn", [name], []);
}
</script>

<template>
  <OptionFinder
    v-model="query"
    :options="found"
    what="Tag"
    placeholder="Name of a tag"
    :chosen="(o) => carries(o.key)"
    several
    @pick="(o) => turn(o.key)"
  >
    <template #default="{ option }">
      <span class="mark">{{ carries(option.key) ? "✓" : "" }}</span>
      {{ option.isNew ? `Make the tag “${option.key}”` : option.key }}
    </template>
  </OptionFinder>
</template>

<style scoped>
.mark {
  width: 14px;
}
</style>
