<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { useActions } from "@/server/actions";
import { ask, client, type Todo } from "@/server/client";
import { outlookWords } from "@/words/bell";
import { reminderWords } from "@/words/fields";
import SlipEntry from "./SlipEntry.vue";

/** The reminders of a slip, each with what will become of it. */
const props = defineProps<{ todo: Todo; today: string; binned: boolean }>();
const actions = useActions();
const reminders = computed(() => props.todo.reminders ?? []);
const { data: outlook } = useQuery({
  // It is asked for again with every change, as the rest of what a slip shows is.
  queryKey: computed(() => ["todo", props.todo.id, "inside", "outlook", props.todo.revision]),
  queryFn: () =>
    ask(() => client.GET("/api/todos/{id}/outlook", { params: { path: { id: props.todo.id } } })),
  enabled: computed(() => reminders.value.length > 0),
  placeholderData: (before) => before,
});
const said = computed(
  () =>
    new Map(outlook.value?.map((o) => [o.reminder, outlookWords(o, props.today)] as const) ?? []),
);
</script>

<template>
  <div v-for="r in reminders" :key="r" class="reminder">
    <span>
      {{ reminderWords(r) }}
      <span v-if="said.get(r)" class="outlook" :class="{ none: said.get(r)!.none }">{{
        said.get(r)!.words
      }}</span>
    </span>
    <button
      v-if="!binned"
      class="away"
      :aria-label="`Take the reminder ${reminderWords(r)} away`"
      @click="actions.remind(todo, [], [r])"
    >
      ×
    </button>
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
  display: flex;
  align-items: flex-start;
  justify-content: space-between;
  min-height: 28px;
  line-height: 20px;
}
.reminder > span {
  padding: 4px 0;
}
.outlook {
  display: block;
  color: var(--pencil);
  font-size: 14px;
}
.outlook.none {
  color: var(--copper);
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
    min-height: 40px;
  }
}
</style>
