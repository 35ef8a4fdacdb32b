<script setup lang="ts">
import { computed, ref, watch } from "vue";
import type { SettingWords } from "@/words/settings";
import HoursControl from "./HoursControl.vue";
import ViewsControl from "./ViewsControl.vue";

/** Chooses a value of one setting. */
const props = defineProps<{ setting: SettingWords; value: string }>();
const emit = defineEmits<{ choose: [value: string] }>();

/** The values to choose from, by what they are called. */
const named = computed(() => {
  const { control } = props.setting;
  if (control.kind !== "many") return [];
  const all = control.values().map((value) => ({ value, name: value }));
  return control.none ? [control.none, ...all] : all;
});
const nameOf = (value: string) => named.value.find((v) => v.value === value)?.name ?? value;

/** What is typed, until it is chosen; another window may choose meanwhile. */
const typed = ref(nameOf(props.value));
watch(
  () => props.value,
  (value) => (typed.value = nameOf(value)),
);
function take() {
  const folded = (s: string) => s.trim().toLowerCase().replaceAll("’", "'");
  const found = named.value.find((v) => folded(v.name) === folded(typed.value));
  const value = found?.value ?? typed.value.trim();
  // What is not among those offered may be there all the same: the server says so, or why not.
  if (value && value !== props.value) emit("choose", value);
  typed.value = nameOf(props.value);
}
/** A number that was taken out is as it was. */
function number(e: Event) {
  const field = e.target as HTMLInputElement;
  if (field.value) emit("choose", field.value);
  else field.value = props.value;
}
</script>

<template>
  <div
    v-if="setting.control.kind === 'few'"
    class="few"
    role="group"
    :aria-labelledby="`label-${setting.name}`"
    :aria-describedby="`does-${setting.name}`"
  >
    <button
      v-for="o in setting.control.options"
      :key="o.value"
      class="option"
      :aria-pressed="value === o.value"
      @click="value === o.value || emit('choose', o.value)"
    >
      {{ o.name }}
    </button>
  </div>
  <select
    v-else-if="setting.control.kind === 'many' && named.length < 50"
    class="field"
    :value="value"
    :aria-labelledby="`label-${setting.name}`"
    :aria-describedby="`does-${setting.name}`"
    @change="emit('choose', ($event.target as HTMLSelectElement).value)"
  >
    <option v-for="v in named" :key="v.value" :value="v.value">{{ v.name }}</option>
    <option v-if="!named.some((v) => v.value === value)" :value="value">{{ value }}</option>
  </select>
  <template v-else-if="setting.control.kind === 'many'">
    <input
      v-model="typed"
      class="field"
      :list="`values-${setting.name}`"
      :aria-labelledby="`label-${setting.name}`"
      :aria-describedby="`does-${setting.name}`"
      @change="take"
      @keydown.esc="typed = nameOf(value)"
    />
    <datalist :id="`values-${setting.name}`">
      <option v-for="v in named" :key="v.value" :value="v.name" />
    </datalist>
  </template>
  <HoursControl
    v-else-if="setting.control.kind === 'hours'"
    class="field"
    :name="setting.name"
    :example="setting.control.example"
    :value="value"
    @choose="(v) => emit('choose', v)"
  />
  <ViewsControl
    v-else-if="setting.control.kind === 'views'"
    :value="value"
    @choose="(v) => emit('choose', v)"
  />
  <input
    v-else
    class="field number"
    type="number"
    :min="setting.control.min"
    :max="setting.control.max"
    :value="value"
    :aria-labelledby="`label-${setting.name}`"
    :aria-describedby="`does-${setting.name}`"
    @change="number"
  />
</template>

<style scoped>
.few {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.option,
.field {
  min-height: 34px;
  padding: 0 12px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--ink);
  font: inherit;
}
.option {
  cursor: pointer;
}
.option:hover {
  border-color: var(--rim);
}
.option[aria-pressed="true"] {
  border: 2px solid var(--rim);
  padding: 0 11px;
  font-weight: 600;
}
.field {
  width: 240px;
}
select.field {
  width: 110px;
}
.number {
  width: 80px;
}
@media (pointer: coarse) {
  .option,
  .field {
    min-height: 40px;
  }
}
</style>
