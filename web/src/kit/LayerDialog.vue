<script setup lang="ts">
import { nextTick, onMounted, useTemplateRef } from "vue";
import { beginInWords, withoutSpace } from "./early-keys";
import { useLayer } from "./layers";

/** A dialog over the page. What has `autofocus` in it gets the focus, or nothing has. */
const props = defineProps<{ layer: string; labelledby: string }>();
const emit = defineEmits<{ close: [] }>();
useLayer(props.layer);
const dialog = useTemplateRef("dialog");
/** When it opened: the second of two presses that opened it does not close it. */
let opened = 0;
onMounted(async () => {
  opened = performance.now();
  dialog.value?.showModal();
  await nextTick();
  const first = dialog.value?.querySelector<HTMLElement>("[autofocus]") ?? dialog.value;
  first?.focus();
});
/** It is told at once: of one that closes in the frame it opened in, the browser tells nothing. */
function close() {
  dialog.value?.close();
  closed();
}
/** At once, and not when the browser gets round to it: the next key is the page's again. */
function escape(e: KeyboardEvent) {
  if (e.defaultPrevented) return;
  e.preventDefault();
  e.stopPropagation();
  close();
}
function beside() {
  if (performance.now() - opened > 500) close();
}
let told = false;
function closed() {
  if (!told) emit("close");
  told = true;
}
defineExpose({ close });
</script>

<template>
  <dialog
    ref="dialog"
    class="floating"
    tabindex="-1"
    :data-layer="layer"
    :aria-labelledby="labelledby"
    @keydown="(beginInWords($event), withoutSpace($event))"
    @keydown.esc="escape"
    @keyup="withoutSpace"
    @close="closed"
    @click.self="beside"
  >
    <slot />
  </dialog>
</template>

<style scoped>
dialog {
  max-width: none;
  max-height: calc(100dvh - 48px);
  margin: auto;
  padding: 18px 20px;
}
dialog:focus {
  outline: none;
}
dialog::backdrop {
  background: rgb(20 28 26 / 35%);
}
</style>
