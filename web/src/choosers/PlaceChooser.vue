<script setup lang="ts">
import { computed, ref } from "vue";
import type { Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import { usePlaces } from "@/server/here";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Says where a to-do is done: a place in use, or another one. */
const props = defineProps<{ todo: Todo }>();
const emit = defineEmits<{ done: [] }>();
const actions = useActions();
const query = ref("");
const { data: used } = usePlaces();

type Option = { key: string; name: string | null; words: string };
const found = computed(() => {
  const wanted = query.value.trim();
  const names = (used.value ?? []).map((p) => p.name);
  const here = props.todo.place;
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

/** It begins where the to-do is, so that Enter alone changes nothing. */
const begin = Math.max(
  0,
  found.value.findIndex((o) => o.name === (props.todo.place ?? null)),
);

async function pick({ name }: Option) {
  emit("done");
  if (name !== (props.todo.place ?? null)) await actions.edit(props.todo, { place: name });
}
</script>

<template>
  <OptionFinder
    v-model="query"
    :options="found"
    what="Place"
    placeholder="Where it is done"
    :begin="begin"
    :chosen="(o) => o.name === (todo.place ?? null)"
    @pick="pick"
  >
    <template #default="{ option }">{{ option.words }}</template>
  </OptionFinder>
</template>
