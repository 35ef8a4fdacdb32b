<script setup lang="ts">
import PlainTable from "@/kit/PlainTable.vue";
import SheetState from "@/kit/SheetState.vue";
import { useArrangement } from "@/server/arrangement";
import { useOverview } from "@/server/queries";

const arrangement = useArrangement();
const { data: overview } = useOverview();
const open = (n: number) => (n === 0 ? "nothing open" : `${n} open`);
</script>

<template>
  <PlainTable v-if="overview" name="People" text="Who you ask, wait on, or do something for.">
    <template #deeds>
      <button class="btn" @click="arrangement.editPerson()">New person…</button>
    </template>
    <SheetState
      v-if="!overview.people.length"
      title="Nobody yet"
      text="Put someone in here, or choose “Who” on a to-do’s slip."
    />
    <ul>
      <li v-for="p in overview.people" :key="p.id">
        <router-link :to="`/person/${p.id}`">{{ p.name }}</router-link>
        <span class="quiet-fact">{{ p.email }}</span>
        <span class="quiet-fact">{{ p.phone }}</span>
        <span class="quiet-fact">{{ open(p.open) }}</span>
        <button class="btn quiet" :aria-label="`Edit ${p.name}`" @click="arrangement.editPerson(p)">
          Edit
        </button>
      </li>
    </ul>
  </PlainTable>
</template>
