<script setup lang="ts">
import { mdiPlus } from "@mdi/js";
import { nextTick, ref } from "vue";
import { useRouter } from "vue-router";
import { client, type Overview, send } from "@/api/client";
import { useActions } from "@/composables/actions";
import { useServer } from "@/composables/server";
import { useToasts } from "@/composables/toasts";
import IndexEntry from "./IndexEntry.vue";

defineProps<{ overview: Overview }>();
const actions = useActions();
const server = useServer();
const toasts = useToasts();
const router = useRouter();

/** What is being named: a list on a shelf ("" for the first), or a shelf. */
const naming = ref<{ kind: "list" | "shelf"; shelf?: string }>();
const name = ref("");
const field = ref<HTMLInputElement[] | HTMLInputElement>();

async function begin(kind: "list" | "shelf", shelf?: string) {
  naming.value = { kind, shelf };
  name.value = "";
  await nextTick();
  const input = Array.isArray(field.value) ? field.value[0] : field.value;
  input?.focus();
}

let making = false;

async function make() {
  const what = naming.value;
  if (!what || making) return;
  if (!name.value.trim()) {
    naming.value = undefined;
    return;
  }
  making = true;
  await actions.attempt(async () => {
    const made =
      what.kind === "shelf"
        ? await send((header) =>
            client.POST("/api/shelves", { params: { header }, body: { name: name.value } }),
          )
        : await send((header) =>
            client.POST("/api/lists", {
              params: { header },
              body: { name: name.value, ...(what.shelf ? { shelf: what.shelf } : {}) },
            }),
          );
    naming.value = undefined;
    server.refresh(made.change.revision);
    toasts.show({ text: made.change.says, undo: made.change.revision });
    if (what.kind === "list") await router.push(`/list/${made.id}`);
  });
  making = false;
}
</script>

<template>
  <nav class="index" aria-label="Index">
    <h2>Collect</h2>
    <ul>
      <IndexEntry
        to="/cup"
        name="The Cup"
        :count="overview.counts.cup"
        takes
        @drop="(id) => actions.move({ id }, null)"
      />
    </ul>
    <h2>Do</h2>
    <ul>
      <IndexEntry to="/today" name="Today" :count="overview.counts.today" />
      <IndexEntry to="/overdue" name="Overdue" :count="overview.counts.overdue" />
    </ul>
    <h2>Look ahead</h2>
    <ul>
      <IndexEntry to="/upcoming" name="Upcoming" />
      <IndexEntry to="/within-a-week" name="Within a week" :count="overview.counts.withinAWeek" />
    </ul>
    <h2>Arrange</h2>
    <div v-for="shelf in overview.shelves" :key="shelf.id" class="shelf">
      <h3>
        <span>{{ shelf.name }}</span>
        <button
          class="plus"
          :aria-label="`New list on ${shelf.name}`"
          :title="`New list on ${shelf.name}`"
          @click="begin('list', shelf.id)"
        >
          <v-icon :icon="mdiPlus" size="16" />
        </button>
      </h3>
      <ul>
        <IndexEntry
          v-for="list in shelf.lists"
          :key="list.id"
          :to="`/list/${list.id}`"
          :name="list.name"
          :count="list.open"
          :colour="list.colour"
          takes
          @drop="(id) => actions.move({ id }, list.id)"
        />
      </ul>
      <input
        v-if="naming?.kind === 'list' && naming.shelf === shelf.id"
        ref="field"
        v-model="name"
        class="naming"
        :aria-label="`Name of the new list on ${shelf.name}`"
        placeholder="Name of the list"
        @keydown.enter.prevent="make"
        @keydown.esc.prevent="naming = undefined"
        @blur="make"
      />
    </div>
    <input
      v-if="naming && !naming.shelf"
      ref="field"
      v-model="name"
      class="naming"
      :aria-label="`Name of the new ${naming.kind}`"
      :placeholder="`Name of the ${naming.kind}`"
      @keydown.enter.prevent="make"
      @keydown.esc.prevent="naming = undefined"
      @blur="make"
    />
    <div class="makers">
      <button v-if="!overview.shelves.length" class="btn quiet" @click="begin('list')">
        New list
      </button>
      <button class="btn quiet" @click="begin('shelf')">New shelf</button>
    </div>
    <h2>Look back</h2>
    <ul>
      <IndexEntry to="/done" name="Done" />
      <IndexEntry to="/bin" name="Bin" :count="overview.counts.bin" />
    </ul>
  </nav>
</template>

<style scoped>
.index {
  height: 100%;
  padding: 14px 8px 24px 20px;
  overflow-y: auto;
  scrollbar-width: thin;
}
h2 {
  margin: 12px 0 2px;
  padding: 0 8px;
  color: var(--pencil);
  font-family: var(--sans);
  font-size: 13px;
  line-height: 20px;
}
h2:first-child {
  margin-top: 0;
}
ul {
  padding: 0;
  list-style: none;
}
h3 {
  display: flex;
  align-items: center;
  justify-content: space-between;
  height: 26px;
  padding-left: 8px;
  font-family: var(--sans);
  font-size: 14px;
}
.plus {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  margin-right: 4px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.plus:hover {
  background: var(--wash);
  color: var(--rim);
}
.naming {
  width: calc(100% - 24px);
  height: 28px;
  margin: 2px 0 4px 16px;
  padding: 0 8px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
  font-size: 14px;
}
.makers {
  display: flex;
  padding: 2px 0 0;
}
.makers .btn {
  padding: 0 8px;
  font-size: 13px;
  color: var(--pencil);
}
</style>
