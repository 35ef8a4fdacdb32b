<script setup lang="ts">
import { computed, ref, useId, useTemplateRef } from "vue";

/** Some of many, as words that can be taken away and a line to type more in. */
export interface Option {
  value: string;
  name: string;
  colour?: string;
}
const props = defineProps<{ options: Option[]; what: string }>();
const model = defineModel<string[]>({ required: true });
const query = ref("");
const open = ref(false);
const at = ref(0);
const input = useTemplateRef("input");
const id = useId();

const chosen = computed(() =>
  model.value.map(
    (value) =>
      props.options.find((o) => o.value === value) ?? {
        value,
        name: `a ${props.what} that is gone`,
      },
  ),
);
const found = computed(() => {
  const wanted = query.value.trim().toLowerCase();
  return props.options.filter(
    (o) => !model.value.includes(o.value) && o.name.toLowerCase().includes(wanted),
  );
});

function step(by: number) {
  open.value = true;
  at.value = (at.value + by + found.value.length) % Math.max(found.value.length, 1);
  document.getElementById(`${id}-${at.value}`)?.scrollIntoView({ block: "nearest" });
}
function pick(option: Option | undefined) {
  if (!option) return;
  model.value = [...model.value, option.value];
  query.value = "";
  at.value = 0;
  input.value?.focus();
}
function takeAway(value: string) {
  model.value = model.value.filter((v) => v !== value);
  input.value?.focus();
}
function enter(e: KeyboardEvent) {
  if (!open.value && !query.value) return;
  e.preventDefault();
  pick(found.value[at.value]);
}
</script>

<template>
  <div class="some" @click="input?.focus()">
    <span v-for="o in chosen" :key="o.value" class="word">
      <span :style="o.colour ? { borderColor: `var(--${o.colour})` } : undefined">{{
        o.name
      }}</span>
      <button type="button" :aria-label="`Take ${o.name} away`" @click.stop="takeAway(o.value)">
        ×
      </button>
    </span>
    <input
      ref="input"
      v-model="query"
      role="combobox"
      :aria-label="`Add a ${what}`"
      :aria-expanded="open && found.length > 0"
      :aria-controls="`${id}-list`"
      :aria-activedescendant="open ? `${id}-${at}` : undefined"
      :placeholder="chosen.length ? 'or …' : `name of a ${what}`"
      autocomplete="off"
      @focus="open = true"
      @click="open = true"
      @blur="open = false"
      @input="
        open = true;
        at = 0;
      "
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
      @keydown.enter="enter"
      @keydown.esc="open = false"
      @keydown.backspace="!query && model.length && (model = model.slice(0, -1))"
    />
    <ul
      v-if="open && found.length"
      :id="`${id}-list`"
      class="floating"
      role="listbox"
      :aria-label="`${what}s`"
    >
      <li
        v-for="(o, i) in found"
        :id="`${id}-${i}`"
        :key="o.value"
        role="option"
        :aria-selected="false"
        :class="{ at: i === at }"
        @pointermove="at = i"
        @pointerdown.prevent="pick(o)"
      >
        <span class="dot" :style="o.colour ? { background: `var(--${o.colour})` } : undefined" />{{
          o.name
        }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.some {
  position: relative;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  min-width: 0;
  min-height: 32px;
  padding: 0 8px;
}
.word {
  display: inline-flex;
  align-items: center;
}
.word > span {
  border-bottom: 2px solid var(--tin);
  line-height: 20px;
}
.word button {
  width: 24px;
  height: 26px;
  color: var(--pencil);
  cursor: pointer;
}
input {
  flex: 1;
  min-width: 90px;
  height: 26px;
  padding: 0;
}
input:focus-visible {
  outline: none;
}
ul {
  position: absolute;
  z-index: 20;
  top: calc(100% + 2px);
  left: -1px;
  min-width: 220px;
  max-height: 260px;
  padding: 4px;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  padding: 0 8px;
  border-radius: var(--corner);
  cursor: pointer;
}
li.at {
  background: var(--wash);
}
.dot {
  width: 10px;
  height: 10px;
  border-radius: 2px;
}
</style>
