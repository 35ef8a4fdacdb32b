<script setup lang="ts">
import { computed, ref } from "vue";
import { client, type Overview, send, type Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Chooses a list, or a section of one; null is the Cup. */
const props = defineProps<{ overview: Overview; todo?: Todo }>();
const emit = defineEmits<{ choose: [list: string | null, section: string | null] }>();
const actions = useActions();
const query = ref("");

interface Option {
  key: string;
  name: string;
  shelf?: string;
  colour?: string;
  /** null is the Cup. */
  list?: string | null;
  section?: string | null;
  /** A list that is not there yet. */
  make?: string;
}

const found = computed<Option[]>(() => {
  const wanted = query.value.trim().toLowerCase();
  const all: Option[] = [{ key: "cup", name: "The Cup", list: null, section: null }];
  for (const shelf of props.overview.shelves) {
    for (const l of shelf.lists) {
      const of = { shelf: shelf.name, colour: l.colour, list: l.id };
      all.push({ key: l.id, name: l.name, ...of, section: null });
      for (const s of l.sections ?? [])
        all.push({ key: s.id, name: `${l.name}, ${s.name}`, ...of, section: s.id });
    }
  }
  const hits = all.filter((o) => o.name.toLowerCase().includes(wanted));
  if (wanted && !all.some((o) => o.name.toLowerCase() === wanted)) {
    const make = query.value.trim();
    hits.push({ key: "make", name: `Make the list “${make}”`, make });
  }
  return hits;
});
const isHere = (o: Option) =>
  o.list !== undefined &&
  o.list === props.todo?.list &&
  o.section === (props.todo?.section ?? null);

async function pick(option: Option) {
  let list = option.list ?? null;
  const name = option.make;
  if (name) {
    const made = await actions.attempt(() =>
      send((header) => client.POST("/api/lists", { params: { header }, body: { name } })),
    );
    if (!made) return;
    list = made.id;
  }
  emit("choose", list, option.section ?? null);
}
</script>

<template>
  <!-- It begins where the to-do is, so that Enter alone changes nothing. -->
  <OptionFinder
    v-model="query"
    :options="found"
    what="List"
    placeholder="Name of a list"
    :begin="found.findIndex(isHere)"
    :chosen="isHere"
    @pick="pick"
  >
    <template #default="{ option }">
      <span v-if="option.colour" class="dot" :style="{ background: `var(--${option.colour})` }" />
      <span class="name">{{ option.name }}</span>
      <span class="shelf">{{ isHere(option) ? "here now" : option.shelf }}</span>
    </template>
  </OptionFinder>
</template>

<style scoped>
.dot {
  width: 8px;
  height: 8px;
  border-radius: 2px;
}
.name {
  flex: 1;
}
.shelf {
  color: var(--pencil);
  font-size: 13px;
}
</style>
