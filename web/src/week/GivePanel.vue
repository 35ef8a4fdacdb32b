<script setup lang="ts">
import { computed } from "vue";
import type { Overview, Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import { useGiven } from "@/server/week";
import { useCurrent } from "@/state/current";
import { shortDay, shortMoment } from "@/words/dates";
import { estimateWords } from "@/words/fields";
import { priorityNames } from "@/words/names";

/** What has to give where not all that is due can be done: each with what can be done about it. */
const props = defineProps<{ of?: string; overview: Overview; today: string }>();
const emit = defineEmits<{ close: []; open: [id: string] }>();
const actions = useActions();
const current = useCurrent();
const { data: given, error } = useGiven(() => props.of, true);
const says = computed(() => {
  if (error.value) return "What has to give could not be found. Try again.";
  return given.value?.says ?? "Looking for what costs least…";
});
const about = (todo: Todo, minutes: number, due: string) =>
  [
    `due ${shortMoment(due, props.today)}${todo.due === due ? "" : " with what it is part of"}`,
    `${estimateWords(minutes)} of work`,
    todo.priority !== "none" && `${priorityNames[todo.priority]} priority`.toLowerCase(),
  ]
    .filter(Boolean)
    .join(", ");
/** Moves its due; a time of the day goes along. */
const moveTo = (todo: Todo, later: string) =>
  actions.edit(todo, { due: later + (todo.due?.slice(10) ?? "") });
function choose(kind: "due" | "person" | "minutes", todo: Todo, e: MouseEvent) {
  current.chooser = { kind, todo, at: e.currentTarget as HTMLElement };
}
</script>

<template>
  <section class="give" aria-label="What has to give">
    <header>
      <h2>What has to give</h2>
      <p role="status">{{ says }}</p>
      <button class="btn quiet" @click="emit('close')">Put away</button>
    </header>
    <ul>
      <li v-for="g in given?.late ?? []" :key="g.todo.id" :data-give="g.todo.id">
        <button class="title" @click="emit('open', g.todo.id)">{{ g.todo.title }}</button>
        <span class="about">{{ about(g.todo, g.minutes, g.due) }}</span>
        <span class="acts">
          <button v-if="g.later" class="btn" @click="moveTo(g.todo, g.later)">
            Due {{ shortDay(g.later, today) }} instead
          </button>
          <button class="btn quiet" @click="choose('due', g.todo, $event)">Another due…</button>
          <button class="btn quiet" @click="choose('minutes', g.todo, $event)">
            Make it smaller…
          </button>
          <button class="btn quiet" @click="choose('person', g.todo, $event)">Hand it over…</button>
          <button class="btn quiet" @click="actions.run(g.todo.id, 'cancel')">Let it go</button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.give {
  margin: 6px 0;
  padding: 8px 12px;
  border: 1px solid var(--copper);
  border-radius: var(--corner);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
}
header p {
  flex: 1;
  color: var(--pencil);
}
h2 {
  font-family: var(--slab);
  font-size: 15px;
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
  padding: 4px 0;
  border-top: 1px solid var(--tin);
}
.title {
  min-height: 28px;
  font-weight: 600;
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}
.about {
  flex: 1;
  min-width: 180px;
  color: var(--pencil);
  font-size: 14px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
</style>
