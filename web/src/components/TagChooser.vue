<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from "vue";
import type { Overview, Todo } from "@/api/client";
import { useActions } from "@/composables/actions";

const props = defineProps<{ overview: Overview; todo: Todo }>();
const actions = useActions();
const query = ref("");
const at = ref(0);
const input = useTemplateRef("input");
onMounted(() => input.value?.focus());

const wanted = computed(() => query.value.trim().replace(/^#/, ""));
const found = computed(() => {
  const names = props.overview.tags.map((t) => t.name);
  const hits = names.filter((n) => n.toLowerCase().includes(wanted.value.toLowerCase()));
  if (wanted.value && !names.some((n) => n.toLowerCase() === wanted.value.toLowerCase())) {
    hits.push(wanted.value);
  }
  return hits;
});
const carries = (name: string) => props.todo.tags.includes(name);
const isNew = (name: string) => !props.overview.tags.some((t) => t.name === name);

function step(by: number) {
  at.value = (at.value + by + found.value.length) % Math.max(found.value.length, 1);
  document.getElementById(`tag-option-${at.value}`)?.scrollIntoView({ block: "nearest" });
}
async function turn(name: string | undefined) {
  if (!name) return;
  query.value = "";
  await actions.tag(props.todo, carries(name) ? [] : [name], carries(name) ? [name] : []);
  input.value?.focus();
}
</script>

<template>
  <div class="chooser">
    <input
      ref="input"
      v-model="query"
      role="combobox"
      aria-label="Tag"
      aria-controls="tag-options"
      aria-expanded="true"
      :aria-activedescendant="`tag-option-${at}`"
      placeholder="Name of a tag"
      autocomplete="off"
      @input="at = 0"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
      @keydown.enter.prevent="turn(found[at])"
    />
    <ul id="tag-options" role="listbox" aria-label="Tags" aria-multiselectable="true">
      <li
        v-for="(name, i) in found"
        :id="`tag-option-${i}`"
        :key="name"
        role="option"
        :aria-selected="carries(name)"
        :class="{ at: i === at }"
        @pointermove="at = i"
        @click="turn(name)"
      >
        <span class="mark">{{ carries(name) ? "✓" : "" }}</span>
        {{ isNew(name) ? `Make the tag “${name}”` : name }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.chooser {
  width: 260px;
  padding: 8px;
}
input {
  width: 100%;
  height: 34px;
  padding: 0 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
ul {
  max-height: 260px;
  margin-top: 6px;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
  padding: 0 8px;
  border-radius: var(--corner);
  cursor: pointer;
}
li.at {
  background: var(--wash);
}
.mark {
  width: 14px;
}
</style>
