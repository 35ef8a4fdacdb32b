<script setup lang="ts">
import { computed } from "vue";
import { type MenuItem, useMenu } from "./menu";

/** A button that opens a short list of things to do. */
const props = defineProps<{ label: string; items: () => MenuItem[] }>();
const menus = useMenu();
const open = computed(() => menus.menu?.label === props.label);

function show(e: MouseEvent) {
  menus.menu = { label: props.label, items: props.items(), at: e.currentTarget as HTMLElement };
}
</script>

<template>
  <button
    type="button"
    :aria-label="label"
    :title="label"
    aria-haspopup="menu"
    :aria-expanded="open"
    @click.stop.prevent="show"
  >
    <slot />
  </button>
</template>
