<script setup lang="ts">
import { ref, watch } from "vue";

/** Hours as they are typed. What the server refuses stays to be mended; Esc takes it back. */
const props = defineProps<{ name: string; example: string; value: string }>();
const emit = defineEmits<{ choose: [value: string] }>();
const text = ref(props.value);
/** What was sent, and what stood there before, until it is known what became of it. */
const sent = ref<{ text: string; before: string }>();
const refused = ref(false);

watch(
  () => props.value,
  (now) => {
    // It is shown as chosen at once, and stands as before again where it is refused.
    if (sent.value && now === sent.value.text) return;
    refused.value = sent.value !== undefined && now === sent.value.before;
    if (!refused.value) text.value = now;
    sent.value = undefined;
  },
);
function take() {
  const typed = text.value.trim() || "none"; // none is what an emptied line says
  if (typed === props.value) text.value = props.value;
  else {
    sent.value = { text: typed, before: props.value };
    emit("choose", typed);
  }
}
function back() {
  [text.value, refused.value] = [props.value, false];
}
</script>

<template>
  <input
    v-model="text"
    :placeholder="example"
    :aria-labelledby="`label-${name}`"
    :aria-describedby="`does-${name}`"
    :aria-invalid="refused"
    @change="take"
    @keydown.esc="back"
  />
</template>

<style scoped>
input[aria-invalid="true"] {
  border-color: var(--madder);
}
</style>
