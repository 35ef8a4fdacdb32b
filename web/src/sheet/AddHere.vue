<script setup lang="ts">
import { onMounted, toRef, useTemplateRef } from "vue";
import { type Into, useCapture } from "@/capture/capture";
import { useReading } from "@/server/reading";
import ReadingChip from "@/capture/ReadingChip.vue";

/** A line at the foot of a sheet that puts to-dos straight into it. */
const props = defineProps<{
  /** By what the line is told from others while it is typed in. */
  line: string;
  name: string;
  into: Into;
  /** It was asked for just now, and takes the focus. */
  now?: boolean;
}>();
const input = useTemplateRef("input");
onMounted(() => props.now && input.value?.focus());
const { text, reason, putIn } = useCapture(toRef(props, "line"), toRef(props, "into"));
const reading = useReading(text);
</script>

<template>
  <div class="add">
    <input
      ref="input"
      v-model="text"
      :aria-label="`Put into ${name}`"
      :placeholder="`Put into ${name}`"
      autocomplete="off"
      @keydown.enter.exact.prevent="putIn(false)"
      @keydown.esc.prevent="($event.target as HTMLElement).blur()"
    />
    <ul v-if="text.trim() && reading?.chips.length" aria-label="Understood">
      <li v-for="chip in reading.chips" :key="chip.field + chip.words">
        <ReadingChip :chip="chip" @without="text = chip.without" />
      </li>
    </ul>
    <p v-for="p in text.trim() ? reading?.problems : []" :key="p.reason" role="status">
      {{ p.reason }}
    </p>
    <p v-if="reason" role="alert">{{ reason }}</p>
  </div>
</template>

<style scoped>
.add {
  margin-top: 8px;
}
input {
  width: 100%;
  height: 36px;
  padding: 0 12px;
  border: 1px dashed var(--tin);
  border-radius: var(--corner);
  background: transparent;
}
input:focus {
  border: 1px solid var(--rim);
  background: var(--glaze);
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
  list-style: none;
}
p {
  margin-top: 4px;
  color: var(--madder);
}
</style>
