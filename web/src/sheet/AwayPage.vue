<script setup lang="ts">
import PlainTable from "@/kit/PlainTable.vue";
import SheetState from "@/kit/SheetState.vue";
import { useArrangement } from "@/server/arrangement";
import { useOverview } from "@/server/queries";
import { shortDay } from "@/words/dates";

/** What is out of the index: templates, archived lists, and lists in the bin. */
const arrangement = useArrangement();
const { data: overview } = useOverview();
const count = (n: number) => (n === 1 ? "1 to-do" : `${n} to-dos`);
</script>

<template>
  <PlainTable
    v-if="overview"
    name="Put away"
    text="Lists that are in no view: templates, archived ones, and what is in the bin."
  >
    <SheetState
      v-if="!overview.templates.length && !overview.archived.length && !overview.binned.length"
      title="Nothing put away"
      text="A list’s menu saves it as a template or archives it."
    />
    <template v-if="overview.templates.length">
      <h2>Templates</h2>
      <ul>
        <li v-for="t in overview.templates" :key="t.id">
          <router-link :to="`/list/${t.id}`">{{ t.name }}</router-link>
          <span class="quiet-fact">{{ count(t.open) }}</span>
          <span v-if="t.first" class="quiet-fact"
            >{{ shortDay(t.first, overview.today) }} to
            {{ shortDay(t.last ?? t.first, overview.today) }}</span
          >
          <button class="btn" @click="arrangement.pour(t, overview)">Pour it out…</button>
        </li>
      </ul>
    </template>
    <template v-if="overview.archived.length">
      <h2>Archived</h2>
      <ul>
        <li v-for="l in overview.archived" :key="l.id">
          <router-link :to="`/list/${l.id}`">{{ l.name }}</router-link>
          <span class="quiet-fact">{{ count(l.open) }}</span>
          <button class="btn" @click="arrangement.editList(l, { archived: false })">
            Bring it back
          </button>
        </li>
      </ul>
    </template>
    <template v-if="overview.binned.length">
      <h2>Lists and shelves in the bin</h2>
      <ul>
        <li v-for="b in overview.binned" :key="b.id">
          <span class="name">{{ b.name }}</span>
          <span class="quiet-fact">{{ b.kind }}</span>
          <button
            class="btn"
            @click="
              b.kind === 'shelf' ? arrangement.restoreShelf(b) : arrangement.onList(b, 'restore')
            "
          >
            Restore
          </button>
        </li>
      </ul>
    </template>
  </PlainTable>
</template>

<style scoped>
.name {
  flex: 1;
}
</style>
