<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { play } from "@/kit/sound";
import { useActions } from "@/server/actions";
import { ask, client, type Todo } from "@/server/client";
import { useNoticing, usePlaces } from "@/server/here";
import { prospectWords, soundNames } from "@/words/bell";
import { edgeOf, reminderParts, reminderWords, withSound } from "@/words/fields";
import { noticingWords } from "@/words/places";
import SlipEntry from "./SlipEntry.vue";

/** The reminders of a slip, each with what will become of it. */
const props = defineProps<{ todo: Todo; today: string; binned: boolean }>();
const actions = useActions();
const noticing = useNoticing();
const reminders = computed(() => props.todo.reminders ?? []);
const { data: prospect } = useQuery({
  // It is asked for again with every change, as the rest of what a slip shows is.
  queryKey: computed(() => ["todo", props.todo.id, "inside", "prospect", props.todo.revision]),
  queryFn: () =>
    ask(() => client.GET("/api/todos/{id}/prospect", { params: { path: { id: props.todo.id } } })),
  enabled: computed(() => reminders.value.length > 0),
  placeholderData: (before) => before,
});
/** Gives one a sound of its own, and plays it. */
function sounds(reminder: string, sound: string) {
  if (sound) void play(sound);
  void actions.remind(props.todo, [withSound(reminder, sound)], []);
}
const said = computed(
  () =>
    new Map(prospect.value?.map((o) => [o.reminder, prospectWords(o, props.today)] as const) ?? []),
);
/** The edges of the to-do's own place that it does not remind at yet. */
const edges = computed(() => {
  const place = props.todo.place;
  if (!place || props.binned) return [];
  return [
    { reminder: `ARRIVE:${place}`, words: `When I get to ${place}` },
    { reminder: `DEPART:${place}`, words: `When I leave ${place}` },
  ].filter((e) => !reminders.value.some((r) => reminderParts(r).when === e.reminder));
});
const { data: places } = usePlaces();
/** The place of the to-do, where it has no position: nobody can arrive there. */
const unplaced = computed(() =>
  props.binned
    ? undefined
    : places.value?.find((p) => p.name === props.todo.place && !p.middle && !p.thing),
);
/** Reminders wait for places, which nobody notices in this browser. */
const unnoticed = computed(
  () =>
    !noticing.value &&
    reminders.value.some((r) => ["ARRIVE", "DEPART"].includes(edgeOf(r)?.edge ?? "")),
);
</script>

<template>
  <div v-for="r in reminders" :key="reminderParts(r).when" class="reminder">
    <span class="when">{{ reminderWords(r) }}</span>
    <button
      v-if="!binned"
      class="away"
      :aria-label="`Take the reminder ${reminderWords(r)} away`"
      @click="actions.remind(todo, [], [r])"
    >
      ×
    </button>
    <span class="prospect" :class="{ none: said.get(r)?.none }">
      {{ said.get(r)?.words }}
      <select
        v-if="!binned && !said.get(r)?.none"
        :value="reminderParts(r).sound"
        :aria-label="`The sound of the reminder ${reminderWords(r)}`"
        @change="sounds(r, ($event.target as HTMLSelectElement).value)"
      >
        <option value="">usual sound</option>
        <option v-for="(name, sound) in soundNames" :key="sound" :value="sound">
          {{ sound === "none" ? "no sound" : name.toLowerCase() }}
        </option>
      </select>
    </span>
  </div>
  <SlipEntry
    field="reminder"
    :todo="todo"
    value=""
    :none="reminders.length ? 'Another reminder' : 'No reminder'"
    example="1 hour before, Thursday 9:30"
    :disabled="binned"
  />
  <div v-if="edges.length" class="edges">
    <button
      v-for="e in edges"
      :key="e.reminder"
      class="btn quiet"
      @click="actions.remind(todo, [e.reminder], [])"
    >
      {{ e.words }}
    </button>
  </div>
  <p v-if="unplaced" class="unnoticed">
    {{ unplaced.name }} has no position yet.
    <router-link :to="`/places?change=${unplaced.id}`">Give it one</router-link>
  </p>
  <p v-if="unnoticed" class="unnoticed">
    This browser does not notice places yet.
    <button :title="noticingWords" @click="noticing = true">Let it notice them</button>
  </p>
</template>

<style scoped>
.reminder {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  line-height: 20px;
}
/* There before its words are, so that nothing below moves under the hand. */
.prospect {
  display: flex;
  flex-wrap: wrap;
  grid-column: 1 / -1;
  align-items: center;
  gap: 0 8px;
  min-height: 28px;
  color: var(--pencil);
  font-size: 14px;
}
.prospect.none {
  color: var(--copper);
}
select {
  min-height: 28px;
  color: var(--pencil);
  font-size: 14px;
}
.edges {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-left: -8px;
}
.edges .btn {
  max-width: 100%;
  overflow: hidden;
  font-size: 14px;
  text-overflow: ellipsis;
}
.unnoticed {
  color: var(--copper);
  font-size: 14px;
}
.unnoticed button {
  min-height: 28px;
  color: var(--rim);
  text-decoration: underline;
  cursor: pointer;
}
.away {
  min-width: 28px;
  min-height: 28px;
  color: var(--pencil);
  cursor: pointer;
}
@media (pointer: coarse) {
  .away {
    min-width: 40px;
  }
  .away,
  select {
    min-height: 40px;
  }
}
</style>
