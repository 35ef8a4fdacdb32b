<script setup lang="ts">
import { ref, watch } from "vue";
import { ask, client } from "@/server/client";
import { sayMoment } from "@/words/fields";

/** A date, typed in words and shown in full. */
const props = defineProps<{
  label: string;
  /** Enter sends the form it is in; else it only reads the date. */
  submits?: boolean;
}>();
const date = defineModel<string>({ required: true });
const say = (d: string) => (d ? sayMoment(d) : "");
const text = ref(say(date.value));
const wrong = ref(false);

watch(date, (d) => (text.value = say(d)));
let reading: Promise<void> | undefined;
async function read() {
  if (text.value === say(date.value)) {
    wrong.value = false;
    return;
  }
  if (!text.value.trim()) {
    wrong.value = false;
    date.value = "";
    return;
  }
  try {
    const when = await ask(() =>
      client.POST("/api/when", { body: { field: "start", text: text.value } }),
    );
    wrong.value = when.reason !== undefined;
    if (wrong.value) return;
    date.value = when.value;
    text.value = sayMoment(when.value);
  } catch {
    wrong.value = true;
  }
}
/** Waits until what was typed is read, and says whether it was understood. */
async function settle(): Promise<boolean> {
  await reading;
  await read();
  return !wrong.value;
}
defineExpose({ settle });
function enter(e: KeyboardEvent) {
  if (props.submits) return;
  e.preventDefault();
  reading = read();
}
</script>

<template>
  <input
    v-model="text"
    :aria-label="props.label"
    :aria-invalid="wrong"
    :title="wrong ? 'Say a date, such as Friday, 30 Nov or next week' : undefined"
    autocomplete="off"
    @change="reading = read()"
    @keydown.enter="enter"
  />
</template>

<style scoped>
input {
  width: 116px;
}
[aria-invalid="true"] {
  border-color: var(--madder);
  color: var(--madder);
}
</style>
