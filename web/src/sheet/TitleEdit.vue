<script setup lang="ts">
import { onMounted, ref, useTemplateRef } from "vue";
import type { Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import TitleOffers from "@/choosers/TitleOffers.vue";

/** Edits a title where it stands, and offers what it might mean. */
const props = defineProps<{ todo: Todo }>();
const emit = defineEmits<{ leave: [] }>();
const actions = useActions();
const field = useTemplateRef("field");
const draft = ref(props.todo.title);
let left = false;

onMounted(() => {
  field.value?.focus();
  field.value?.setSelectionRange(draft.value.length, draft.value.length);
});

/** Leaving is once: the field is blurred as it goes. */
function leave(keep: boolean) {
  if (left) return;
  left = true;
  if (keep && draft.value.trim() && draft.value.trim() !== props.todo.title)
    void actions.edit(props.todo, { title: draft.value });
  emit("leave");
}
</script>

<template>
  <span class="editing" @click.stop>
    <input
      ref="field"
      v-model="draft"
      class="title-field"
      aria-label="Title"
      maxlength="500"
      @keydown.enter.prevent="leave(true)"
      @keydown.esc.stop.prevent="leave(false)"
      @blur="leave(true)"
    />
    <TitleOffers class="under" :todo="todo" :text="draft" @taken="(t) => (draft = t)" />
  </span>
</template>

<style scoped>
.editing {
  position: relative;
  flex: 1;
}
.under {
  position: absolute;
  z-index: 5;
  top: calc(100% + 4px);
  left: 0;
  margin: 0;
  padding: 6px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
.title-field {
  width: 100%;
  height: 30px;
  min-width: 0;
  padding: 0 8px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
</style>
