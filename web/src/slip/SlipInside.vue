<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { ask, client, type Overview, type Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import { useLinger } from "@/server/linger";
import { fullMoment, instantWords } from "@/words/dates";
import SentenceLine from "@/capture/SentenceLine.vue";
import TickBox from "@/kit/TickBox.vue";

/** A to-do's subtasks, and what is kept of its repeat. */
const props = defineProps<{ todo: Todo; overview: Overview; binned: boolean }>();
const actions = useActions();
const linger = useLinger();
const route = useRoute();
const router = useRouter();
const { data: inside } = useQuery({
  queryKey: computed(() => ["todo", props.todo.id, "inside", props.todo.revision] as const),
  queryFn: ({ queryKey: [, id] }) =>
    ask(() => client.GET("/api/todos/{id}/inside", { params: { path: { id } } })),
  placeholderData: (before) => before,
});
const share = computed(() => {
  const p = inside.value?.progress;
  return p && Math.floor((100 * p.done) / p.total);
});
/** Records are read only: what was done stays as it was. */
const fixed = computed(() => props.binned || props.todo.record !== undefined);
const open = (id: string) => router.replace({ ...route, query: { ...route.query, slip: id } });

function blur() {
  (document.activeElement as HTMLElement | null)?.blur();
}
async function setOutcome(text: string) {
  const outcome = text.trim() || null;
  if (outcome !== (props.todo.outcome ?? null)) await actions.edit(props.todo, { outcome });
}
</script>

<template>
  <section v-if="inside && (inside.subtasks.length || (!fixed && !todo.isNote))" class="inside">
    <div v-if="inside.subtasks.length" class="head">
      <h2>Subtasks</h2>
      <span v-if="inside.progress" class="count"
        >{{ inside.progress.done }} of {{ inside.progress.total }}, {{ share }} %</span
      >
    </div>
    <div
      v-if="inside.progress"
      class="bar"
      role="progressbar"
      aria-label="Subtasks done"
      :aria-valuenow="share"
      aria-valuemin="0"
      aria-valuemax="100"
    >
      <div :style="{ width: `${share}%` }" />
    </div>
    <label v-if="inside.subtasks.length" class="outcome">
      <span>What one will see then</span>
      <input
        :value="todo.outcome ?? ''"
        maxlength="500"
        :disabled="fixed"
        placeholder="The lamps hang, lit, on the opening evening"
        @change="setOutcome(($event.target as HTMLInputElement).value)"
        @keydown.enter.prevent="($event.target as HTMLInputElement).blur()"
      />
    </label>
    <ul>
      <li v-for="sub in inside.subtasks" :key="sub.id">
        <span v-if="sub.isNote" class="note">note</span>
        <TickBox
          v-else
          :ticked="linger.struck(sub)"
          :crossed="sub.status === 'cancelled'"
          :label="linger.struck(sub) ? `Open again: ${sub.title}` : `Tick: ${sub.title}`"
          :disabled="fixed"
          @click="!fixed && actions.tick(sub)"
        />
        <button class="title" :class="{ struck: linger.struck(sub) }" @click="open(sub.id)">
          {{ sub.title }}
        </button>
      </li>
    </ul>
    <p v-if="inside.next" class="next">
      Next: <button class="link" @click="open(inside.next.id)">{{ inside.next.title }}</button>
    </p>
    <p
      v-else-if="inside.progress && inside.progress.done < inside.progress.total"
      class="next none"
    >
      No next action: what is open waits, is parked or has not started.
    </p>
    <label v-if="!fixed && inside.subtasks.length > 1" class="order"
      ><input
        type="checkbox"
        :checked="todo.inOrder"
        @change="actions.edit(todo, { inOrder: !todo.inOrder })"
      />
      One after another</label
    >
    <SentenceLine
      v-if="!fixed && !todo.isNote"
      :key="todo.id"
      :line="`inside-${todo.id}`"
      label="Add a subtask"
      placeholder="Add a subtask"
      :into="{ parent: todo.id }"
      says="nothing more"
      @leave="blur"
    />
  </section>
  <button v-if="todo.parent" class="btn up" @click="open(todo.parent)">
    To what it belongs to
  </button>
  <button v-if="todo.record && !todo.parent" class="btn up" @click="open(todo.record)">
    To the repeat this is a record of
  </button>
  <section v-if="inside?.records.length" class="inside">
    <div class="head"><h2>Done before</h2></div>
    <ul class="records">
      <li v-for="r in inside.records.slice(0, 8)" :key="r.id">
        <button class="title" @click="open(r.id)">
          {{ fullMoment(r.date) }}
          <span class="count">ticked {{ instantWords(r.completed, overview.zone) }}</span>
        </button>
      </li>
    </ul>
    <p v-if="inside.records.length > 8" class="count">
      and {{ inside.records.length - 8 }} more, all in
      <router-link to="/done">Done</router-link>
    </p>
  </section>
</template>

<style scoped>
.outcome {
  display: block;
  margin: 6px 0 4px;
  color: var(--pencil);
  font-size: 13px;
}
.outcome input {
  width: 100%;
  height: 30px;
  margin-top: 2px;
  padding: 0 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--ink);
  font-size: 15px;
}
.inside {
  margin-bottom: 14px;
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  margin-bottom: 4px;
  font-size: 15px;
}
.count {
  color: var(--pencil);
  font-size: 14px;
}
.bar {
  height: 6px;
  margin-bottom: 6px;
  border-radius: 3px;
  background: var(--tin);
  overflow: hidden;
}
.bar div {
  height: 100%;
  background: var(--rim);
}
ul {
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 30px;
}
.title {
  flex: 1;
  min-height: 26px;
  padding: 2px 4px;
  border-radius: var(--corner);
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}
.title:hover {
  background: var(--wash);
}
.struck {
  color: var(--pencil);
  text-decoration: line-through;
}
.records .count {
  margin-left: 8px;
}
.next {
  margin: 2px 0 6px;
  font-size: 14px;
}
.none,
.note {
  color: var(--pencil);
}
.note {
  width: 32px;
  font-size: 13px;
  text-align: center;
}
.link {
  min-height: 24px;
  color: var(--rim);
  text-decoration: underline;
  cursor: pointer;
}
.order {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  color: var(--pencil);
}
.order input {
  width: 16px;
  height: 16px;
  accent-color: var(--rim);
}
.up {
  margin-bottom: 14px;
}
</style>
