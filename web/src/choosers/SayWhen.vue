<script setup lang="ts">
import { ref, watch } from "vue";
import type { Said, SaidRead } from "@/server/client";
import { useSaid } from "@/server/said";

/** A line that takes words for a field: "Friday 4pm", "in 3 days", "every weekday". */
const props = defineProps<{ field: Said["field"]; example: string }>();
const emit = defineEmits<{
  choose: [value: string, said: SaidRead];
  read: [value: string | undefined, said: SaidRead | undefined];
}>();
const text = ref("");
const { found, reason, read } = useSaid(() => props.field, text);
watch(found, (to) => emit("read", to?.value, to));

async function enter(e: KeyboardEvent) {
  if (e.isComposing) return;
  e.preventDefault();
  const said = await read();
  if (said) emit("choose", said.value, said);
}
</script>

<template>
  <div class="say">
    <input
      v-model="text"
      :aria-label="field === 'repeat' ? 'Say how it repeats' : 'Say when'"
      :placeholder="`Say it: ${example}`"
      autocomplete="off"
      :aria-invalid="reason !== ''"
      @keydown.enter="enter"
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
