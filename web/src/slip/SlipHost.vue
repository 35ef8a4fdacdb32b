<script setup lang="ts">
import { computed } from "vue";
import { Away, type Overview } from "@/server/client";
import { useTodo } from "@/server/queries";
import SlipPane from "./SlipPane.vue";

const props = defineProps<{ id: string; overview: Overview }>();
const emit = defineEmits<{ close: [] }>();
const { data: todo, error, refetch } = useTodo(() => props.id);
const failure = computed(() => {
  if (!error.value || todo.value) return "";
  return error.value instanceof Away ? "The server is away." : error.value.message;
});
</script>

<template>
  <SlipPane
    v-if="todo && todo.id === id"
    :todo="todo"
    :overview="overview"
    @close="emit('close')"
  />
  <aside v-else class="waiting" aria-label="Slip">
    <template v-if="failure">
      <p role="alert">{{ failure }}</p>
      <button class="btn" @click="refetch()">Try again</button>
      <button class="btn quiet" @click="emit('close')">Close</button>
    </template>
  </aside>
</template>

<style scoped>
.waiting {
  padding: 24px 18px;
}
.btn {
  margin-top: 12px;
}
</style>
