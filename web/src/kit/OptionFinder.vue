<script setup lang="ts" generic="T extends { key: string }">
import { onMounted, ref, useTemplateRef, watch } from "vue";

/** A line to type in and the options that fit, walked by arrows or pointer. */
const props = defineProps<{
  options: T[];
  /** What is chosen: "List", "Tag". */
  what: string;
  placeholder: string;
  /** The option to begin at; -1 for none, so that Enter alone does nothing. */
  begin?: number;
  chosen: (option: T) => boolean;
  several?: boolean;
}>();
const emit = defineEmits<{ pick: [option: T]; look: [option: T | undefined] }>();
const query = defineModel<string>({ required: true });
const at = ref(props.begin ?? 0);
const input = useTemplateRef("input");
const list = useTemplateRef("list");

onMounted(() => {
  input.value?.focus();
  show();
});
watch(query, () => (at.value = 0));
/** The option that Enter would pick, before it is. */
watch(
  () => props.options[at.value],
  (option) => emit("look", option),
  { immediate: true },
);

function show() {
  list.value?.children[at.value]?.scrollIntoView({ block: "nearest" });
}
function step(by: number) {
  const n = Math.max(props.options.length, 1);
  at.value = at.value < 0 ? (by > 0 ? 0 : n - 1) : (at.value + by + n) % n;
  show();
}
function pick(option: T | undefined) {
  if (option) emit("pick", option);
}
</script>

<template>
  <div class="chooser">
    <input
      ref="input"
      v-model="query"
      autofocus
      role="combobox"
      :aria-label="what"
      aria-controls="finder-options"
      aria-expanded="true"
      :aria-activedescendant="`finder-option-${at}`"
      :placeholder="placeholder"
      autocomplete="off"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
      @keydown.enter.prevent="pick(options[at])"
    />
    <ul
      id="finder-options"
      ref="list"
      role="listbox"
      :aria-label="`${what}s`"
      :aria-multiselectable="several"
    >
      <li
        v-for="(option, i) in options"
        :id="`finder-option-${i}`"
        :key="option.key"
        role="option"
        :aria-selected="chosen(option)"
        :class="{ at: i === at }"
        @pointermove="at = i"
        @click="pick(option)"
      >
        <slot :option="option" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.chooser {
  width: 300px;
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
  max-height: 300px;
  margin-top: 6px;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 30px;
  padding: 0 8px;
  border-radius: var(--corner);
  cursor: pointer;
}
li.at {
  background: var(--wash);
}
@media (pointer: coarse) {
  li {
    min-height: 40px;
  }
}
</style>
