<script setup lang="ts">
import { computed, ref, useTemplateRef } from "vue";
import { useRouter } from "vue-router";
import type { Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { type Destination, findNamed, useDestinations } from "@/state/destinations";
import { type Deed, useDeeds } from "./deeds";
import LayerDialog from "@/kit/LayerDialog.vue";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Goes to a view, list, tag, person or page, or begins a deed, of which a few letters are typed. */
const props = defineProps<{ overview: Overview }>();
const current = useCurrent();
const router = useRouter();
const dialog = useTemplateRef("dialog");
const query = ref("");
const overview = computed(() => props.overview);
const places = useDestinations(overview);
const deeds = useDeeds(overview);
const found = computed(() =>
  findNamed<Destination | Deed>([...places.value, ...deeds.value], query.value).map((d) => ({
    ...d,
    key: `${d.path ?? ""} ${d.name}`,
  })),
);

let gone = false;
function go(to: Destination | Deed) {
  if (gone) return;
  gone = true;
  dialog.value?.close();
  current.finding = false; // and what opens next keeps the keys that come before it
  // The next key acts on the new sheet.
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  if ("act" in to && to.act) to.act();
  else if (to.path) void router.push(to.path);
}
const sortOf = (d: Destination | Deed) => {
  if ("of" in d && d.of) return `list, ${d.of}`;
  return d.sort === "deed" ? "action" : d.sort;
};
const colourOf = (d: Destination | Deed) =>
  "colour" in d && d.colour ? { background: `var(--${d.colour})` } : undefined;
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="finder"
    class="finder"
    labelledby="go-title"
    @close="current.finding = false"
  >
    <h1 id="go-title" class="unseen">Go to</h1>
    <OptionFinder
      v-model="query"
      :options="found"
      what="Go to"
      placeholder="Go to a view, list, tag, person, page or setting"
      :chosen="() => false"
      @pick="go"
    >
      <template #default="{ option }">
        <span class="dot" :style="colourOf(option)" />
        <span class="name">{{ option.name }}</span>
        <span class="sort">{{ sortOf(option) }}</span>
      </template>
    </OptionFinder>
    <p v-if="!found.length" class="none" role="status">
      Nothing has these letters. Esc closes this.
    </p>
  </LayerDialog>
</template>

<style scoped>
.finder {
  width: min(440px, calc(100vw - 24px));
  margin-top: 12vh;
  padding: 0;
}
.finder :deep(.chooser) {
  width: auto;
}
.dot {
  flex: none;
  width: 8px;
  height: 8px;
  border-radius: 2px;
}
.name {
  flex: 1;
}
.sort {
  color: var(--pencil);
  font-size: 13px;
}
.none {
  padding: 4px 14px 14px;
  color: var(--pencil);
}
</style>
