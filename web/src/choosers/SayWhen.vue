<script setup lang="ts">
import { ref, watch } from "vue";
import { ask, client } from "@/server/client";

/** A line that takes words for a date: "Friday 4pm", "in 3 days". */
const props = defineProps<{ field: "due" | "start" | "plan" | "later"; example: string }>();
const emit = defineEmits<{ choose: [value: string]; read: [value: string | undefined] }>();
const text = ref("");
const found = ref<{ value: string; words: string }>();
const reason = ref("");
let asked = 0;

async function read() {
  const nth = ++asked;
  const said = text.value.trim();
  if (!said) {
    found.value = undefined;
    reason.value = "";
    return;
  }
  try {
    const answer = await ask(() =>
      client.POST("/api/when", { body: { field: props.field, text: said } }),
    );
    if (nth !== asked) return;
    found.value = answer;
    reason.value = "";
  } catch (e) {
    if (nth !== asked) return;
    found.value = undefined;
    reason.value = e instanceof Error ? e.message : "It could not be read.";
  }
}
watch(text, () => void read());
watch(found, (to) => emit("read", to?.value));

async function enter() {
  await read();
  if (found.value) emit("choose", found.value.value);
}
</script>

<template>
  <div class="say">
    <input
      v-model="text"
      aria-label="Say when"
      :placeholder="`Say it: ${example}`"
      autocomplete="off"
      :aria-invalid="reason !== ''"
      @keydown.enter.prevent="enter"
      @keydown.left.stop
      @keydown.right.stop
    />
    <p v-if="found" class="found" role="status">{{ found.words }} <span class="key">Enter</span></p>
    <p v-else-if="reason" class="reason" role="status">{{ reason }}</p>
  </div>
</template>

<style scoped>
.say {
  padding: 8px 8px 6px;
  border-bottom: 1px solid var(--tin);
}
input {
  width: 100%;
  height: 32px;
  padding: 0 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
input:focus {
  border-color: var(--rim);
}
p {
  padding: 4px 2px 0;
  font-size: 14px;
}
.found {
  font-weight: 600;
}
.reason {
  color: var(--madder);
}
</style>
