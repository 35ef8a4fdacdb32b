<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { play } from "@/kit/sound";
import { useActions } from "@/server/actions";
import { ask, client, type Todo } from "@/server/client";
import { prospectWords, soundNames } from "@/words/bell";
import { reminderParts, reminderWords } from "@/words/fields";
import SlipEntry from "./SlipEntry.vue";

/** The reminders of a slip, each with what will become of it. */
const props = defineProps<{ todo: Todo; today: string; binned: boolean }>();
const actions = useActions();
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
  const { when } = reminderParts(reminder);
  if (sound) void play(sound);
  void actions.remind(props.todo, [sound ? `${when};${sound}` : when], []);
}
const said = computed(
  () =>
    new Map(prospect.value?.map((o) => [o.reminder, prospectWords(o, props.today)] as const) ?? []),
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
