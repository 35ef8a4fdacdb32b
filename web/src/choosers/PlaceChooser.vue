<script setup lang="ts">
import { computed, ref } from "vue";
import { usePlaces } from "@/server/here";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Says where to-dos are done: a place in use, or another one. */
const props = defineProps<{
  /** Where it is done now; undefined of many. */
  place?: string | null;
}>();
const emit = defineEmits<{ choose: [place: string | null] }>();
const query = ref("");
const { data: used } = usePlaces();

type Option = { key: string; name: string | null; words: string };
const found = computed(() => {
  const wanted = query.value.trim();
  const names = (used.value ?? []).map((p) => p.name);
  const here = props.place;
  if (here && !names.includes(here)) names.unshift(here);
  const fits = names.filter((n) => n.toLowerCase().includes(wanted.toLowerCase()));
  const options: Option[] = fits.map((name) => ({ key: name, name, words: name }));
  const nowhere: Option = { key: " none", name: null, words: "Nowhere in particular" };
  if (!here && !wanted) options.unshift(nowhere);
  if (wanted && !names.some((n) => n.toLowerCase() === wanted.toLowerCase()))
    options.push({ key: " make", name: wanted, words: `At “${wanted}”` });
  if (here) options.push(nowhere);
  return options;
});

/** It begins where the to-do is, or of many nowhere, so that Enter alone changes nothing. */
const begin =
  props.place === undefined
    ? -1
    : Math.max(
        0,
        found.value.findIndex((o) => o.name === props.place),
      );
</script>

<template>
  <OptionFinder
    v-model="query"
    :options="found"
    what="Place"
    placeholder="Where it is done"
    :begin="begin"
    :chosen="(o) => o.name === place"
    @pick="(o) => emit('choose', o.name)"
  >
    <template #default="{ option }">{{ option.words }}</template>
  </OptionFinder>
</template>
