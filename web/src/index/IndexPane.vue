<script setup lang="ts">
import type { MenuItem } from "@/kit/menu";
import { computed, nextTick, ref } from "vue";
import { useRouter } from "vue-router";
import type { Overview, OwnView, Shelf } from "@/server/client";
import { useActions } from "@/server/actions";
import { useCurrent } from "@/state/current";
import type { Landing } from "@/state/order-drag";
import { useListMenu } from "@/choosers/list-menu";
import { useMany } from "@/server/many";
import { useShelfMenu } from "@/choosers/shelf-menu";
import { useArrangement } from "@/server/arrangement";
import { useHere, usePlaces } from "@/server/here";
import { useViews } from "@/server/views";
import { inForce } from "@/server/in-force";
import { type IndexGroup, shownViews } from "@/words/index-views";
import { viewNames } from "@/words/names";
import IndexEntry from "./IndexEntry.vue";
import ShelfHead from "./ShelfHead.vue";

const props = defineProps<{ overview: Overview }>();
const actions = useActions();
const current = useCurrent();
const many = useMany();
const arrangement = useArrangement();
const { data: places } = usePlaces();
const { data: where } = useHere();
/** What can be done here is worth a line where a place could be noticed. */
const noticed = computed(() => places.value?.some((p) => p.middle || p.thing));
const views = useViews();
const router = useRouter();
const listItems = useListMenu();
const shelfItems = useShelfMenu();

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
        ? await arrangement.addShelf(name.value)
        : await arrangement.addList(name.value, what.shelf);
    naming.value = undefined;
    arrangement.took(made);
    if (what.kind !== "list") return;
    current.adding = { row: made.id, inside: true }; // the cursor goes into its first row
    await router.push(`/list/${made.id}`);
  });
  making = false;
}

const pinned = computed(() =>
  props.overview.shelves.flatMap((s) => s.lists).filter((l) => l.pinned),
);
const pinnedViews = computed(() => props.overview.views.filter((v) => v.pinned));
function viewItems(view: OwnView): MenuItem[] {
  const all = props.overview.views;
  const at = all.indexOf(view);
  const before = all[at - 1];
  const behind = all[at + 1];
  return [
    { name: "Edit…", act: () => router.push(`/view/${view.id}/edit`) },
    { name: "Copy it", act: () => views.copy(view) },
    ...(before ? [{ name: "Move up", act: () => views.move(view, { before: before.id }) }] : []),
    ...(behind ? [{ name: "Move down", act: () => views.move(view, { after: behind.id }) }] : []),
    {
      name: view.pinned ? "Unpin" : "Pin",
      act: () => views.edit(view, { pinned: !view.pinned }),
    },
    { name: "Delete", act: () => views.remove(view), apart: true },
  ];
}
const forward: IndexGroup[] = ["Gather", "Do", "Look ahead"];
const shown = (group: IndexGroup) => shownViews(group, inForce.views);
const putAway = computed(
  () =>
    props.overview.templates.length + props.overview.archived.length + props.overview.binned.length,
);

const land = (shelf: Shelf, { id, ...beside }: Landing) =>
  arrangement.moveList({ id }, { shelf: shelf.id, ...beside });
</script>

<template>
  <nav class="index" aria-label="Index">
    <template v-if="pinned.length || pinnedViews.length">
      <h2>Pinned</h2>
      <ul>
        <IndexEntry
          v-for="list in pinned"
          :key="list.id"
          :to="`/list/${list.id}`"
          :name="list.name"
          :count="list.open"
          takes
          @drop="(id) => many.move(id, { list: list.id })"
        />
        <IndexEntry
          v-for="view in pinnedViews"
          :key="view.id"
          :to="`/view/${view.id}`"
          :name="view.name"
          :count="view.count"
        />
      </ul>
    </template>
    <template v-for="group in forward" :key="group">
      <h2 v-if="shown(group).length">{{ group }}</h2>
      <ul>
        <IndexEntry
          v-for="v in shown(group)"
          :key="v.view"
          :to="`/${v.view}`"
          :name="viewNames[v.view]!"
          :count="v.count?.(overview)"
          :note="v.note?.(overview)"
          :takes="v.view === 'cup'"
          @drop="(id) => many.move(id, { list: null })"
        />
        <IndexEntry
          v-if="group === 'Do' && noticed"
          to="/here"
          name="Here"
          :note="where?.places.map((p) => p.name).join(', ')"
        />
      </ul>
    </template>
    <h2>Arrange</h2>
    <ul v-if="shown('Arrange').length">
      <IndexEntry
        v-for="v in shown('Arrange')"
        :key="v.view"
        :to="`/${v.view}`"
        :name="viewNames[v.view]!"
      />
    </ul>
    <div v-for="shelf in overview.shelves" :key="shelf.id" class="shelf">
      <ShelfHead
        :shelf="shelf"
        :items="() => shelfItems(shelf, overview)"
        @add="begin('list', shelf.id)"
        @land="({ id, ...beside }) => arrangement.moveShelf({ id }, beside)"
        @take="(id) => arrangement.moveList({ id }, { shelf: shelf.id })"
      />
      <ul>
        <IndexEntry
          v-for="list in shelf.lists"
          :key="list.id"
          :to="`/list/${list.id}`"
          :name="list.name"
          :count="list.open"
          :list="list"
          :items="listItems(list, overview)"
          takes
          @drop="(id) => many.move(id, { list: list.id })"
          @land="(landing) => land(shelf, landing)"
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
    <h3 class="own">Views of your own</h3>
    <ul>
      <IndexEntry
        v-for="view in overview.views"
        :key="view.id"
        :to="`/view/${view.id}`"
        :name="view.name"
        :count="view.count"
        :view="view"
        :items="viewItems(view)"
        @land="({ id, ...beside }) => views.move({ id }, beside)"
      />
    </ul>
    <div class="makers">
      <router-link class="btn quiet" to="/view/new">New view</router-link>
    </div>
    <ul class="across">
      <IndexEntry to="/tags" name="Tags" :count="overview.tags.length" />
      <IndexEntry to="/people" name="People" :count="overview.people.length" />
      <IndexEntry v-if="places?.length" to="/places" name="Places" :count="places.length" />
      <IndexEntry v-if="putAway" to="/away" name="Put away" :count="putAway" />
    </ul>
    <h2>Look back</h2>
    <ul>
      <IndexEntry
        v-for="v in shown('Look back').slice(0, 1)"
        :key="v.view"
        :to="`/${v.view}`"
        :name="viewNames[v.view]!"
        :count="v.count?.(overview)"
        :note="v.note?.(overview)"
      />
      <IndexEntry to="/history" name="History" />
      <IndexEntry
        v-for="v in shown('Look back').slice(1)"
        :key="v.view"
        :to="`/${v.view}`"
        :name="viewNames[v.view]!"
        :count="v.count?.(overview)"
        :note="v.note?.(overview)"
      />
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
.own {
  margin-top: 8px;
  padding: 0 8px;
  font-family: var(--sans);
  font-size: 14px;
  line-height: 26px;
}
.across {
  margin-top: 6px;
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
@media (hover: none) {
  .makers .btn {
    height: 38px;
  }
}
</style>
