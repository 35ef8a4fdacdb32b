<script setup lang="ts">
import { nextTick, ref } from "vue";
import { useRoute } from "vue-router";
import { mdiDotsHorizontal } from "@mdi/js";
import ActionMenu from "@/kit/ActionMenu.vue";
import PathIcon from "@/kit/PathIcon.vue";
import PlainTable from "@/kit/PlainTable.vue";
import SheetState from "@/kit/SheetState.vue";
import type { MenuItem } from "@/kit/menu";
import { type Place, useNoticing, usePlaceActions, usePlaces } from "@/server/here";
import { groundWords, noticingWords } from "@/words/places";
import PlaceForm from "./PlaceForm.vue";

/** Where to-dos are done: each place with where that is, and what is open there. */
const { data: places } = usePlaces();
const actions = usePlaceActions();
const noticing = useNoticing();
/** The place that is changed; "" is a new one. */
const editing = ref<string | undefined>(useRoute().query.change?.toString());
const open = (n: number) => (n === 0 ? "nothing open" : `${n} open`);
const items = (p: Place): MenuItem[] => [
  { name: "Change…", act: () => (editing.value = p.id) },
  { name: "Remove the place", act: () => void actions.remove(p), apart: true },
];
/** The form is gone: the hand goes back to where it was opened from. */
async function done() {
  const was = editing.value;
  editing.value = undefined;
  await nextTick();
  document.querySelector<HTMLElement>(`[data-edits="${was}"]`)?.focus();
}
</script>

<template>
  <PlainTable
    v-if="places"
    name="Places"
    text="Where things are done. Getting to one, or leaving it, can remind you."
  >
    <template #deeds>
      <button v-if="editing !== ''" class="btn" data-edits="" @click="editing = ''">
        New place…
      </button>
    </template>
    <PlaceForm v-if="editing === ''" @done="done" />
    <SheetState
      v-if="!places.length && editing === undefined"
      title="No places yet"
      text="Add one here, or choose “Where” on a to-do’s slip."
    />
    <ul>
      <li v-for="p in places" :key="p.id" :data-place="p.name" :class="{ form: editing === p.id }">
        <PlaceForm v-if="editing === p.id" :key="p.id" :place="p" @done="done" />
        <template v-else>
          <router-link :to="`/place/${p.id}`">{{ p.name }}</router-link>
          <span v-if="p.here" class="here">You are here</span>
          <button
            class="quiet-fact ground"
            :class="{ missing: !p.middle && !p.thing }"
            :data-edits="p.id"
            :aria-label="`Change ${p.name}: ${groundWords(p)}`"
            @click="editing = p.id"
          >
            {{ groundWords(p) }}
          </button>
          <span class="quiet-fact count">{{ open(p.count) }}</span>
          <ActionMenu class="btn quiet" :label="`More for ${p.name}`" :items="() => items(p)">
            <PathIcon :path="mdiDotsHorizontal" :size="18" />
          </ActionMenu>
        </template>
      </li>
    </ul>
    <p class="noticing">
      {{ noticingWords }}
      <router-link to="/settings#places">{{
        noticing ? "This browser notices them." : "This browser does not notice them yet."
      }}</router-link>
    </p>
  </PlainTable>
</template>

<style scoped>
.here {
  padding: 0 8px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  color: var(--rim);
  font-size: 14px;
  white-space: nowrap;
}
.ground {
  min-height: 32px;
  overflow: hidden;
  font-variant-numeric: tabular-nums;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.ground:hover {
  text-decoration: underline;
}
.missing {
  color: var(--copper) !important;
}
.count {
  min-width: 84px;
  text-align: right;
  white-space: nowrap;
}
.form {
  padding: 8px 0 !important;
}
.noticing {
  max-width: 640px;
  margin-top: 18px;
  color: var(--pencil);
  font-size: 14px;
  line-height: 20px;
}
.noticing a {
  color: var(--rim);
}
@media (max-width: 760px) {
  li {
    flex-wrap: wrap;
    gap: 0 12px !important;
    padding: 4px 0;
  }
  li a {
    flex-basis: 30% !important;
  }
  .ground {
    order: 5;
    flex: 1 0 60%;
    min-height: 40px;
    text-align: left;
  }
  .count {
    order: 6;
  }
}
</style>
