<script setup lang="ts">
import { computed, ref } from "vue";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Chooses one of some names. */
const props = defineProps<{ what: string; names: string[]; chosen: string }>();
defineEmits<{ choose: [name: string] }>();
const query = ref("");
const found = computed(() =>
  props.names
    .filter((n) => n.toLowerCase().includes(query.value.trim().toLowerCase()))
    .map((key) => ({ key })),
);
</script>

<template>
  <OptionFinder
    v-model="query"
    :options="found"
    :what="what"
    :placeholder="`Name of a ${what.toLowerCase()}`"
    :chosen="(o) => o.key === chosen"
    @pick="(o) => $emit('choose', o.key)"
  >
    <template #default="{ option }">{{ option.key }}</template>
  </OptionFinder>
</template>
