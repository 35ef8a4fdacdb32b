<script setup lang="ts">
import type { MenuItem } from "@/kit/menu";
import { computed } from "vue";
import type { Many } from "@/server/client";
import { type Chooser, useCurrent } from "@/state/current";
import { useActions } from "@/server/actions";
import { fileFormats, saveChosen } from "@/server/files";
import { useMany } from "@/server/many";
import { useSelection } from "@/kit/selection";
import { type Choice, choicePatch, choices } from "@/words/choices";
import ActionMenu from "@/kit/ActionMenu.vue";

/** What can be done to the rows that are chosen. */
const props = defineProps<{
  binned: boolean;
  /** Rows of the sheet that are not chosen yet. */
  more: boolean;
}>();
defineEmits<{ all: [] }>();
const current = useCurrent();
const many = useMany();
const actions = useActions();
const selection = useSelection();

const ids = () => [...selection.ids];
function choose(kind: Chooser["kind"], e: Event) {
  current.chooser = { kind, ids: ids(), at: e.currentTarget as HTMLElement };
}
const statuses = computed<MenuItem[]>(() => [
  { name: "Tick", act: () => many.change(ids(), { do: "complete" }) },
  { name: "Mark as begun", act: () => many.change(ids(), { do: "start" }) },
  { name: "Decide against", act: () => many.change(ids(), { do: "cancel" }) },
  { name: "Open again", act: () => many.change(ids(), { do: "reopen" }) },
  {
    name: "Into today’s handful",
    act: () => many.change(ids(), { do: "handful", in: true }),
    apart: true,
  },
]);
const of = (c: Choice) => (): MenuItem[] =>
  c.values.toReversed().map((v) => ({
    name: v.name,
    act: () => many.change(ids(), { do: c.field, ...choicePatch(c, v.value) } as Omit<Many, "ids">),
  }));
const title = (c: Choice) => c.name.charAt(0).toUpperCase() + c.name.slice(1);
const files: MenuItem[] = fileFormats.map((f) => ({
  name: `Save as ${f.says}`,
  act: () => void actions.attempt(() => saveChosen(f.name, ids()).then(() => true)),
}));
const makeRoom = () => (current.makingRoom = { ids: ids(), from: `${selection.ids.size} chosen` });
const words = computed(() =>
  selection.ids.size === 0 ? "Nothing chosen yet" : `${selection.ids.size} chosen`,
);
</script>

<template>
  <div class="bar" role="toolbar" aria-label="The rows that are chosen">
    <strong role="status">{{ words }}</strong>
    <button v-if="more" class="btn" title="Ctrl A" @click="$emit('all')">Choose all</button>
    <div v-if="selection.any" class="deeds">
      <button v-if="props.binned" class="btn" @click="many.change(ids(), { do: 'restore' })">
        Restore
      </button>
      <template v-else>
        <button class="btn" aria-haspopup="dialog" @click="choose('list', $event)">List</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('tags', $event)">Tags</button>
        <template v-for="c in choices" :key="c.field">
          <ActionMenu class="btn" :label="title(c)" :items="of(c)">{{ title(c) }}</ActionMenu>
        </template>
        <button class="btn" aria-haspopup="dialog" @click="choose('minutes', $event)">Takes</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('due', $event)">Due</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('plan', $event)">Plan</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('start', $event)">Start</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('person', $event)">Who</button>
        <button class="btn" aria-haspopup="dialog" @click="choose('place', $event)">Place</button>
        <ActionMenu class="btn" label="Status" :items="() => statuses">Status</ActionMenu>
        <button class="btn" aria-haspopup="dialog" @click="makeRoom">Make room…</button>
        <ActionMenu class="btn" label="Save as a file" :items="() => files">Save</ActionMenu>
        <button class="btn" @click="many.change(ids(), { do: 'delete' })">Bin</button>
      </template>
    </div>
    <span class="grow" />
    <button class="btn quiet" @click="selection.clear()">
      {{ selection.any ? "Let go" : "Done choosing" }}
    </button>
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  z-index: 6;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 9px 20px 9px 30px;
  border-top: 2px solid var(--rim);
  background: var(--wash);
}
strong {
  min-width: 84px;
  margin-right: 4px;
}
.grow {
  flex: 1;
}
.deeds {
  display: contents;
}
/* In one line under the others, drawn along by the finger: the rows keep their room. */
@media (max-width: 760px) {
  .bar {
    padding: 8px 12px;
  }
  .deeds {
    display: flex;
    flex-basis: 100%;
    gap: 6px;
    order: 1;
    min-width: 0;
    margin: 0 -12px;
    padding: 0 12px;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .deeds > :deep(*) {
    flex: none;
  }
}
</style>
