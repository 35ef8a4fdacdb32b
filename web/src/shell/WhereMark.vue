<script setup lang="ts">
import { mdiMapMarkerAlertOutline, mdiMapMarkerOutline } from "@mdi/js";
import { computed } from "vue";
import { useRoute } from "vue-router";
import { useMenu } from "@/kit/menu";
import { useWatch } from "@/kit/position";
import { tellPosition, useHere, useNoticing } from "@/server/here";

/** Notices where the person is while something wants to know, and says so while it does. */
const route = useRoute();
const menus = useMenu();
const noticing = useNoticing();
const { data: here } = useHere();
const wanted = computed(
  () => noticing.value && (Boolean(here.value?.watched) || route.name === "here"),
);
const { reading, trouble } = useWatch(() => wanted.value, tellPosition);
const at = computed(() => here.value?.places.map((p) => p.name).join(", "));
const words = computed(
  () =>
    trouble.value ||
    (!reading.value && "The browser has not said yet where you are. It may have asked you.") ||
    `Your position is read while this window is in sight${at.value ? `; you are at ${at.value}` : ""}`,
);
function open(e: MouseEvent) {
  menus.menu = {
    label: words.value,
    at: e.currentTarget as HTMLElement,
    items: [{ name: "Notice places no more in this browser", act: () => (noticing.value = false) }],
  };
}
</script>

<template>
  <button
    v-if="wanted"
    class="where"
    :class="{ trouble }"
    :aria-label="words"
    :title="words"
    aria-haspopup="menu"
    @click="open"
  >
    <v-icon :icon="trouble ? mdiMapMarkerAlertOutline : mdiMapMarkerOutline" size="22" />
  </button>
</template>

<style scoped>
.where {
  display: grid;
  place-items: center;
  width: 36px;
  height: 36px;
  border-radius: var(--corner);
  color: inherit;
  cursor: pointer;
}
.where:hover {
  background: rgb(255 255 255 / 12%);
}
</style>
