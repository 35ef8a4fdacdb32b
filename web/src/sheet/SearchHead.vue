<script setup lang="ts">
import { mdiMagnify } from "@mdi/js";
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useCurrent } from "@/state/current";
import { findNamed, useDestinations } from "@/state/destinations";
import { useOverview } from "@/server/queries";
import PathIcon from "@/kit/PathIcon.vue";

/** The field that searches as it is typed in; the address follows it. */
const props = defineProps<{ sentence?: string; refusal?: string; total: number }>();
const emit = defineEmits<{ all: []; save: [] }>();
const route = useRoute();
const router = useRouter();
const current = useCurrent();
const field = useTemplateRef("field");
const text = ref(String(route.query.q ?? ""));

const { data: overview } = useOverview();
const all = useDestinations(overview);
/** Lists, views, tags, people and pages that the words name. */
const named = computed(() =>
  text.value.trim() ? findNamed(all.value, text.value).slice(0, 6) : [],
);

/** How long after a key the search follows, in milliseconds. */
const pause = 120;
let timer: ReturnType<typeof setTimeout>;
watch(text, (q) => {
  clearTimeout(timer);
  timer = setTimeout(() => void router.replace({ ...route, query: { ...route.query, q } }), pause);
});
watch(
  () => route.query.q,
  (q) => {
    if (document.activeElement !== field.value) text.value = String(q ?? "");
  },
);
function focus() {
  field.value?.focus();
  field.value?.select();
}
onMounted(focus);
watch(
  () => current.searching,
  () => void nextTick(focus),
);

/** Down, or Enter, goes on to what was found. */
function toRows(e: KeyboardEvent) {
  const row = document.querySelector<HTMLElement>("main [data-todo]");
  if (!row) return;
  e.preventDefault();
  row.focus();
}
</script>

<template>
  <header>
    <h1 class="unseen">Search</h1>
    <div class="field">
      <PathIcon :path="mdiMagnify" :size="20" />
      <input
        ref="field"
        v-model="text"
        type="search"
        aria-label="Search"
        aria-describedby="search-says"
        placeholder="Words of a title, of notes, a tag, a person, a place, a file"
        autocomplete="off"
        maxlength="400"
        @keydown.down="toRows"
        @keydown.enter="toRows"
        @keydown.esc="field?.blur()"
      />
    </div>
    <nav v-if="named.length" class="named" aria-label="What has this name">
      <router-link v-for="d in named" :key="d.path" :to="d.path">
        <span class="sort">{{ d.sort }}</span> {{ d.name }}
      </router-link>
    </nav>
    <p id="search-says" class="says" :class="{ refused: refusal }" role="status">
      <template v-if="refusal">{{ refusal }}</template>
      <template v-else-if="text.trim()">{{ sentence }}</template>
      <template v-else>
        Each word may be the beginning of one. “In quotes” looks for the words in a row; -word
        leaves out what holds it.
      </template>
      <template v-if="props.total && !refusal">
        <button class="btn quiet" @click="emit('all')">Choose all {{ total }}</button>
        <button class="btn quiet" @click="emit('save')">Save as a view…</button>
      </template>
    </p>
  </header>
</template>

<style scoped>
header {
  margin-bottom: 8px;
}
.field {
  display: flex;
  align-items: center;
  gap: 10px;
  max-width: 640px;
  height: 42px;
  padding: 0 12px;
  border: 2px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--pencil);
}
.field:focus-within {
  outline: 2px solid var(--rim);
  outline-offset: 2px;
}
input {
  flex: 1;
  min-width: 0;
  height: 100%;
  color: var(--ink);
  font-size: 17px;
}
input:focus-visible {
  outline: none;
}
.named {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 8px;
}
.named a {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 28px;
  color: var(--rim);
  font-weight: 600;
}
.sort {
  color: var(--pencil);
  font-weight: 400;
}
.says {
  min-height: 30px;
  margin-top: 6px;
  color: var(--pencil);
}
.refused {
  color: var(--madder);
}
</style>
