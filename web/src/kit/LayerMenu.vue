<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from "vue";
import { beginInWords, giveFocus, withoutSpace } from "./early-keys";
import { useLayer } from "./layers";

/**
 * What hangs on a row or button while it is open. A press beside it puts it away and does
 * nothing else: it does not reach the row behind.
 */
const props = defineProps<{ layer: string; at: HTMLElement; start?: boolean }>();
const emit = defineEmits<{ close: [] }>();
useLayer(props.layer);
const root = useTemplateRef("root");
// What takes no focus by itself gets it: keys must not stay with the button behind.
watch(root, async (el) => {
  await nextTick();
  if (el && !el.contains(document.activeElement))
    giveFocus(el.querySelector<HTMLElement>("[aria-pressed=true]") ?? el);
});
</script>

<template>
  <v-menu
    :model-value="true"
    :target="at"
    :close-on-content-click="false"
    scrim="transparent"
    :location="start ? 'bottom start' : 'bottom end'"
    offset="4"
    min-width="0"
    @update:model-value="emit('close')"
  >
    <div
      ref="root"
      class="floating"
      tabindex="-1"
      :data-layer="layer"
      @keydown="(beginInWords($event), withoutSpace($event))"
      @keyup="withoutSpace"
      @keydown.esc.stop="emit('close')"
    >
      <slot />
    </div>
  </v-menu>
</template>

<style scoped>
.floating:focus {
  outline: none;
}
</style>
