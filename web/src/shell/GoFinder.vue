<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from "vue";
import { useRouter } from "vue-router";
import type { Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { type Destination, findDestinations, useDestinations } from "@/state/destinations";
import { swallow } from "@/kit/early-keys";
import LayerDialog from "@/kit/LayerDialog.vue";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Goes to a view, list, tag, person or page of which a few letters are typed. */
const props = defineProps<{ overview: Overview }>();
const current = useCurrent();
const router = useRouter();
const dialog = useTemplateRef("dialog");
const query = ref("");
const all = useDestinations(computed(() => props.overview));
const found = computed(() =>
  findDestinations(all.value, query.value).map((d) => ({ ...d, key: d.path })),
);

let gone = false;
function go(to: Destination) {
  if (gone) return;
  gone = true;
  dialog.value?.close();
  // The next key acts on the new sheet.
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  void router.push(to.path);
}
watch(query, (letters) => {
  const [only, another] = found.value;
  if (!only || another || !letters.trim()) return;
  go(only);
  // Who types the rest of the name, and Enter, means no row.
  const name = only.name.toLowerCase();
  const at = name.indexOf(letters.trim().toLowerCase()) + letters.trim().length;
  swallow(name.slice(at));
});
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
      placeholder="Go to a view, list, tag, person or page"
      :chosen="() => false"
      @pick="go"
    >
      <template #default="{ option }">
        <span
          class="dot"
          :style="option.colour ? { background: `var(--${option.colour})` } : undefined"
        />
        <span class="name">{{ option.name }}</span>
        <span class="sort">{{ option.of ? `list, ${option.of}` : option.sort }}</span>
      </template>
    </OptionFinder>
    <p v-if="!found.length" class="none" role="status">Nothing has these letters.</p>
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
