<script setup lang="ts">
import { watch } from "vue";
import { useImportProgress } from "@/server/files";
import { progressWords } from "@/words/files";

/**
 * How far a file has got, or what is said of it otherwise. It is a part of its own, so that the
 * rows of a preview are not drawn again each time it goes on.
 */
const props = defineProps<{
  busy: "looking" | "keeping" | undefined;
  /** Of the file, in bytes. */
  size: number;
  /** What is said while nothing is under way. */
  says: string;
}>();
/** It is being kept, and can be stopped no more. */
const tooLate = defineModel<boolean>("tooLate", { required: true });
const progress = useImportProgress(() => props.busy !== undefined);
watch(
  () => props.busy === "keeping" && progress.value?.stage === "keeping",
  (now) => (tooLate.value = now),
);
</script>

<template>
  <p role="status">
    {{ busy ? progressWords(size, busy === "keeping", progress) : says }}
  </p>
  <progress
    v-if="progress"
    aria-label="How far it has got"
    v-bind="progress.stage === 'working' ? { max: progress.total, value: progress.done } : {}"
  />
</template>

<style scoped>
p {
  color: var(--pencil);
}
progress {
  display: block;
  width: 100%;
  height: 8px;
  margin-top: 6px;
  accent-color: var(--rim);
}
</style>
